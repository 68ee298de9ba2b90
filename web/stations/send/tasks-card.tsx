import type { Segment } from '@awlbox/core/contracts/lesson'
import type { PackTask } from '@awlbox/core/contracts/pack'
import { answerTold } from '@awlbox/core/script/answers-told'
import { kindWords } from '../../frame/task-kinds.ts'
import { Card } from '../../kit/card.tsx'

/** What homes answer, what of it is right, and for which set it is. */
export function TasksCard({ tasks, segments }: { tasks: readonly PackTask[]; segments: readonly Segment[] }) {
  return (
    <Card as="section" className="p-3 grid gap-2">
      <h2 className="font-bold">What they answer</h2>
      {tasks.length === 0 && (
        <p className="text-steel">
          No tasks yet: the home task segment has no question to answer. A film without evidence teaches you
          nothing about them.
        </p>
      )}
      {tasks.map((t, i) => {
        const segment = segments.find((s) => s.steps.some((x) => x.id === t.id))
        return (
          <div key={t.id} className="border-t border-hair pt-2 first-of-type:border-0">
            <p className="flex gap-2">
              <b className="figures">{i + 1}</b>
              <span className="flex-1">{t.prompt}</span>
            </p>
            <p className="text-sm text-steel pl-5">
              {segment?.title}
              {t.spec.sets && ` · for ${t.spec.sets.join(' and ')}`} · comes back as {kindWords[t.spec.kind]}
              {t.spec.kind === 'photo'
                ? ` of ${t.spec.things} things`
                : answerTold(t.spec)
                  ? ` · ${answerTold(t.spec)} is right`
                  : ''}
            </p>
          </div>
        )
      })}
    </Card>
  )
}
