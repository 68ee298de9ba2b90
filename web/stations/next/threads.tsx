import { Link } from 'react-router'
import { useState } from 'react'
import * as nextApi from '@awlbox/core/contracts/api/next'
import { useAsked } from '../../frame/use-asked.ts'
import { Empty, Notice } from '../../kit/notice.tsx'
import { wordsOf } from '../../api.ts'
import { ClassTools } from './class-tools.tsx'
import { Eyelet } from './eyelet.tsx'
import { EvidencePanel } from './evidence-panel.tsx'
import { WhoNeedsWhat } from './who-needs-what.tsx'

export function Threads({ classId, ideaId }: { classId: string; ideaId?: string }) {
  const [asked, setAsked] = useState(ideaId)
  const { data, error, mutate } = useAsked(nextApi.classStanding, {
    classId,
    ...(asked ? { idea: asked } : {}),
  })
  const [picked, setPicked] = useState<{ childId: string; ideaId: string } | null>(null)
  if (error && !data)
    return (
      <div className="p-5">
        <Notice kind="wrong">{wordsOf(error)}</Notice>
      </div>
    )
  if (!data) return <p className="p-8 text-steel">Working out who stands where…</p>
  if (!data.rows.length)
    return (
      <div className="p-5">
        <Empty
          action={
            <Link to="/homes" className="font-semibold text-moss underline">
              Add the first children
            </Link>
          }
        >
          No children in this class yet. Each will be a thread here through the ideas of the term, showing
          where they stand and how sure that is.
        </Empty>
      </div>
    )
  const row = data.rows.find((r) => r.childId === picked?.childId)
  const cell = row && picked ? row.ideas[picked.ideaId] : undefined
  const idea = data.ideas.find((i) => i.id === picked?.ideaId)
  return (
    <div className="flex max-lg:flex-col min-h-[calc(100dvh-112px)]">
      <main className="flex-1 min-w-0 p-5 overflow-x-auto">
        {data.rows.every((r) => Object.values(r.ideas).every((c) => c.occasions === 0)) && (
          <p className="mb-3 text-steel">
            Nothing is known of anybody yet: every eyelet is dashed. They fill as replies come in and are
            judged.{' '}
            <Link to="/plan" className="font-semibold text-moss underline">
              Plan a lesson
            </Link>
          </p>
        )}
        <table className="border-separate border-spacing-0 min-w-[640px] w-full table-fixed">
          <caption className="sr-only">Standing of {data.class.name} on each idea</caption>
          <thead>
            <tr>
              <th className="w-20" />
              <>
                {data.ideas.map((i) => (
                  <th
                    key={i.id}
                    scope="col"
                    className={`text-sm pb-2 px-1 font-semibold ${i.id === ideaId ? 'bg-here rounded-t-lg pt-2' : ''}`}
                  >
                    {i.name}
                  </th>
                ))}
              </>
            </tr>
          </thead>
          <tbody>
            {data.rows.map((r, n) => {
              const lastSeen = Math.max(
                -1,
                ...data.ideas.map((i, k) => (r.ideas[i.id]!.word === 'not seen' ? -1 : k)),
              )
              return (
                <tr key={r.childId}>
                  <th scope="row" className="text-left font-semibold pr-3 py-0.5">
                    <Link
                      to={`/children/${r.childId}/progress`}
                      className="min-h-10 inline-grid items-center underline decoration-transparent hover:decoration-hair underline-offset-4"
                    >
                      {r.name}
                    </Link>
                  </th>
                  {data.ideas.map((i, k) => (
                    <td
                      key={i.id}
                      className={`relative p-0 ${i.id === ideaId ? `bg-here ${n === data.rows.length - 1 ? 'rounded-b-lg' : ''}` : ''}`}
                    >
                      {k < data.ideas.length - 1 && (
                        <span
                          aria-hidden
                          className={`absolute z-10 left-[calc(50%+19px)] top-1/2 w-[calc(100%-38px)] border-t-2 ${k < lastSeen ? 'border-dashed border-ink' : 'border-dotted border-steel/50'}`}
                        />
                      )}
                      <span className="grid place-items-center">
                        <Eyelet
                          cell={r.ideas[i.id]!}
                          name={r.name}
                          idea={i.name}
                          on={picked?.childId === r.childId && picked.ideaId === i.id}
                          onPick={() => setPicked({ childId: r.childId, ideaId: i.id })}
                        />
                      </span>
                    </td>
                  ))}
                </tr>
              )
            })}
          </tbody>
        </table>
        <p className="text-sm text-steel mt-3 flex gap-5 flex-wrap">
          <span>fill: level</span>
          <span>rim: how sure</span>
          <span>number: occasions</span>
          <span>dotted: not seen yet</span>
          <span>Choose one to see why.</span>
        </p>
        <ClassTools classId={classId} />
      </main>
      <aside
        className="w-[400px] max-xl:w-[350px] max-lg:w-full shrink-0 border-l border-hair bg-card p-4 grid gap-3 content-start"
        aria-live="polite"
      >
        {cell && row && idea ? (
          <>
            <EvidencePanel
              key={`${row.childId}${idea.id}`}
              child={{ id: row.childId, name: row.name }}
              idea={idea}
              cell={cell}
              onSaid={() => void mutate()}
            />
            <button
              type="button"
              onClick={() => setPicked(null)}
              className="justify-self-start text-moss font-semibold underline min-h-9 cursor-pointer"
            >
              Who needs what
            </button>
          </>
        ) : (
          <WhoNeedsWhat data={data} onIdea={setAsked} />
        )}
      </aside>
    </div>
  )
}
