import { Card } from '../../kit/card.tsx'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { FindingLine } from './finding-line.tsx'

export function LessonFindings({ findings }: { findings: readonly Finding[] }) {
  if (!findings.length) return null
  return (
    <Card as="section" aria-label="Findings about the whole lesson" className="px-3 py-1.5">
      <h2 className="font-semibold text-sm">The whole lesson</h2>
      {findings.map((f, i) => (
        <FindingLine key={f.code + i} finding={f} />
      ))}
    </Card>
  )
}
