import { useMemo } from 'react'
import * as planApi from '@awlbox/core/contracts/api/plan'
import { useAsked } from '../../frame/use-asked.ts'
import type { Aim, Example } from '@awlbox/core/contracts/lesson'
import { coverage, type Met } from '@awlbox/core/plan/coverage'
import { exampleSentence, factKey } from '@awlbox/core/plan/numbers/facts'

const looks: Record<Met, { fill: string; mark: string; words: string }> = {
  lesson: { fill: 'var(--ink)', mark: '●', words: 'in this lesson' },
  week: { fill: 'var(--steel)', mark: '◐', words: 'this week' },
  term: { fill: 'var(--hair)', mark: '○', words: 'this term' },
  never: { fill: 'transparent', mark: '', words: 'not yet' },
}

/** Which facts of the idea have been met: in the lesson, the week, the term. */
export function CoverageGrid({
  aim,
  examples,
  zero,
  classId,
  lessonId,
}: {
  aim: Aim
  examples: readonly Example[]
  zero: boolean
  classId: string
  lessonId: string | null
}) {
  const { data } = useAsked(
    planApi.coverage,
    classId ? { classId, structure: aim.structure, ...(lessonId ? { except: lessonId } : {}) } : null,
  )
  const c = useMemo(
    () => coverage(aim, zero, examples, data?.week ?? [], data?.term ?? []),
    [aim, zero, examples, data],
  )
  if (c.cells.length > 250 || !c.cells.length)
    return (
      <p className="text-steel text-sm">
        {c.cells.length} facts: {c.met.lesson} in this lesson, {c.met.week} this week, {c.met.term} this term.
      </p>
    )
  const flat =
    c.columns.length === 1 || c.rows.length === 1 || aim.structure === 'parts' || aim.structure === 'doubles'
  const cellOf = new Map(c.cells.map((x) => [`${x.example.a}/${x.example.b}/${x.example.op}`, x]))
  const size = 22
  return (
    <div>
      {flat ? (
        <ul className="flex flex-wrap gap-1">
          {c.cells.map((x) => (
            <li
              key={factKey(x.example)}
              title={`${exampleSentence(x.example)}: ${looks[x.met].words}`}
              className={`rounded-md border px-1.5 min-h-8 grid place-items-center font-child figures text-sm ${x.met === 'lesson' ? 'bg-ink text-card border-ink font-bold' : x.met === 'week' ? 'border-ink border-2 font-bold' : x.met === 'term' ? 'border-steel' : 'border-dashed border-hair text-steel'}`}
            >
              {aim.structure === 'parts'
                ? `${x.example.a}+${x.example.b}`
                : exampleSentence(x.example).replace(/ /g, '')}
            </li>
          ))}
        </ul>
      ) : (
        <svg
          viewBox={`0 0 ${(c.columns.length + 1.4) * size} ${(c.rows.length + 1.2) * size}`}
          className="max-h-72 w-full"
          role="img"
          aria-label={`Facts met: ${c.met.lesson} in this lesson, ${c.met.week} this week, ${c.met.term} this term, ${c.met.never} not yet`}
        >
          {c.columns.map((b, j) => (
            <text key={b} x={(j + 1.9) * size} y={14} fontSize={11} textAnchor="middle" fill="var(--steel)">
              {b}
            </text>
          ))}
          {c.rows.map((a, i) => (
            <text
              key={a}
              x={size * 0.9}
              y={(i + 1.45) * size + 4}
              fontSize={11}
              textAnchor="end"
              fill="var(--steel)"
            >
              {a}
            </text>
          ))}
          {c.rows.flatMap((a, i) =>
            c.columns.map((b, j) => {
              const x = ['+', '-', '÷', '~', '@'].map((op) => cellOf.get(`${a}/${b}/${op}`)).find(Boolean)
              if (!x) return null
              const look = looks[x.met]
              return (
                <g key={`${a}/${b}`}>
                  <rect
                    x={(j + 1.4) * size + 1}
                    y={(i + 0.95) * size + 1}
                    width={size - 2}
                    height={size - 2}
                    rx={4}
                    fill={look.fill}
                    stroke="var(--hair)"
                  />
                  <text
                    x={(j + 1.9) * size}
                    y={(i + 1.45) * size + 4}
                    fontSize={10}
                    textAnchor="middle"
                    fill={x.met === 'term' ? 'var(--ink)' : 'var(--card)'}
                  >
                    {look.mark}
                  </text>
                  <title>{`${exampleSentence(x.example)}: ${look.words}`}</title>
                </g>
              )
            }),
          )}
        </svg>
      )}
      <p className="text-sm text-steel mt-2 figures">
        {c.met.lesson} in this lesson · {c.met.week} this week · {c.met.term} this term · {c.met.never} not
        yet
      </p>
    </div>
  )
}
