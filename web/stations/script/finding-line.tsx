import { say } from '@awlbox/core/findings/say'
import { AlertTriangle, CircleX, Info } from 'lucide-react'
import { applyFix } from '@awlbox/core/script/edit'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'

const marks = { wrong: CircleX, risky: AlertTriangle, tidy: Info, info: Info } as const

/** A finding under the line it concerns: what, why on hover, and its repair as a button. */
export function FindingLine({ finding }: { finding: Finding }) {
  const { edit, record } = useLesson()
  const { what, why, fix } = say('script', finding)
  // What may have been meant otherwise is told as a question.
  const unsure = finding.certain === false
  const Icon = unsure ? AlertTriangle : marks[finding.severity]
  const colour = finding.severity === 'tidy' ? 'text-blue' : 'text-brick'
  return (
    <div
      className={`flex items-start justify-between gap-2 py-1 text-sm ${colour}`}
      data-finding={finding.code}
    >
      <p className="flex gap-1.5 min-w-0" title={why}>
        <Icon size={16} className="shrink-0 mt-0.5" aria-label={unsure ? 'not sure' : finding.severity} />
        <span>
          {unsure && 'Is this meant? '}
          {what} <span className="text-steel">{why}</span>
        </span>
      </p>
      {finding.fix && record.mayChange && (
        <Button small onClick={() => edit((d) => applyFix(d, finding.fix!, newId))}>
          {fix}
        </Button>
      )}
    </div>
  )
}
