import { Card } from '../../kit/card.tsx'
import { arrayMove } from '@dnd-kit/sortable'
import { useState } from 'react'
import { nextLike } from '@awlbox/core/plan/examples'
import { exampleSentence, factKey } from '@awlbox/core/plan/numbers/facts'
import { useNavigate } from 'react-router'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { kitByHand, kitFor } from '@awlbox/core/script/kit-follows'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { compareStock, neededBySegment } from '@awlbox/core/script/stock'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { useIdeas } from '../../frame/ideas.ts'
import { AimEditor, type AimChoice } from './aim-editor.tsx'
import { ChanceCard } from './chance-card.tsx'
import { CoverageGrid } from './coverage-grid.tsx'
import { ExampleRow, SetChooser, SharedFacts } from './example-sets.tsx'
import { HomesAble } from './homes-able.tsx'
import { ThingsList } from './things-list.tsx'
import { useSets } from './use-sets.ts'

export default function PlanPage() {
  const { doc, edit, me, record, proofed } = useLesson()
  const ideas = useIdeas()
  const [value, setValue] = useState<AimChoice>({
    ideaId: doc.ideaId,
    age: doc.age,
    aim: doc.aim,
    arc: doc.arc,
    story: doc.story,
  })
  const [searching, setSearching] = useState(doc.examples.length === 0)
  const { result, chosen, choose, again, actions, examples, said } = useSets(
    value,
    me.houseStyle,
    doc.examples,
  )
  const [offered, setOffered] = useState<Readonly<Record<number, readonly string[]>>>({})
  const navigate = useNavigate()
  const stock = compareStock(doc.kit, proofed.needs)
  const differs = stock.missing.length + stock.short.length + stock.unused.length > 0
  const bySegment = neededBySegment(doc, proofed.moments)
  const rewrite = () => {
    if (!result.ok || !examples) return
    edit((d) =>
      fromTemplate({
        title: d.title,
        ...value,
        examples,
        style: me.houseStyle,
        sets: result.sets.map((s) => s.examples),
        newId,
      }),
    )
    void navigate('../script')
  }
  const shown = searching ? (examples ?? []) : doc.examples
  return (
    <div className="grid grid-cols-[minmax(340px,40%)_minmax(0,1fr)] max-lg:grid-cols-1 gap-5 p-5">
      <section className="grid gap-4 content-start min-w-0">
        {doc.carried && doc.carried.length > 0 && (
          <Card as="section" aria-label="Carried over" className="p-4">
            <h2 className="font-semibold">Carried over from the lessons before</h2>
            <ul className="grid gap-1 mt-1">
              {doc.carried.map((c) => (
                <li key={c} className="flex gap-2 items-start">
                  <span className="flex-1">{c}</span>
                  {record.mayChange && (
                    <Button
                      small
                      look="quiet"
                      onClick={() => edit((d) => ({ ...d, carried: d.carried?.filter((x) => x !== c) }))}
                    >
                      Done
                    </Button>
                  )}
                </li>
              ))}
            </ul>
          </Card>
        )}
        <Card className="p-4">
          <h2 className="font-bold text-lg mb-3">{ideaById(doc.ideaId, ideas)?.name ?? 'The idea'}</h2>
          <AimEditor
            value={value}
            disabled={!record.mayChange}
            onChange={(v) => {
              setValue(v)
              setSearching(true)
            }}
          />
        </Card>
        <ChanceCard
          aim={value.aim}
          examples={shown}
          disabled={!record.mayChange}
          onChange={(device) => {
            setValue({ ...value, aim: { ...value.aim, device } })
            // The device belongs to the lesson whether or not its script is written again.
            edit((d) => ({ ...d, aim: { ...d.aim, device } }))
          }}
        />
        <Card className="p-4">
          <h2 className="font-bold mb-2">Each home needs</h2>
          <ThingsList
            kit={doc.kit}
            needs={proofed.needs}
            editing={
              record.mayChange
                ? {
                    lesson: doc,
                    needs: proofed.needs,
                    onChange: (kit) => edit((d) => kitByHand(d, kit)),
                  }
                : undefined
            }
          />
          <HomesAble classId={record.classId} kit={doc.kit} />
          {differs && (
            <div className="mt-3">
              <Notice
                kind="info"
                action={
                  <Button
                    small
                    look="act"
                    disabled={!record.mayChange}
                    onClick={() => edit((d) => kitByHand(d, kitFor(d)))}
                  >
                    Count again
                  </Button>
                }
              >
                The script no longer uses just this.
              </Notice>
            </div>
          )}
          <details className="mt-3">
            <summary className="cursor-pointer min-h-8 text-steel">By segment</summary>
            <ul className="text-sm">
              {doc.segments.map((s) =>
                (bySegment.get(s.id)?.length ?? 0) > 0 ? (
                  <li key={s.id} className="py-0.5">
                    <b>{s.title}</b>{' '}
                    <span className="text-steel figures">
                      {bySegment
                        .get(s.id)!
                        .map((n) => `${n.count} ${n.thing}`)
                        .join(', ')}
                    </span>
                  </li>
                ) : null,
              )}
            </ul>
          </details>
        </Card>
      </section>
      <section className="grid gap-3 content-start min-w-0">
        <div className="flex items-center justify-between gap-3 flex-wrap">
          <h2 className="font-bold text-lg">
            {searching ? 'Sets for this aim' : 'The examples of this lesson'}
          </h2>
          {searching ? (
            <Button onClick={again} disabled={!result.ok}>
              Search again
            </Button>
          ) : (
            <Button disabled={!record.mayChange} onClick={() => setSearching(true)}>
              Find other sets
            </Button>
          )}
        </div>
        {!searching && (
          <Card className="p-3">
            <ExampleRow
              examples={doc.examples}
              aim={doc.aim}
              actions={
                record.mayChange
                  ? {
                      locked: (e) => e.locked ?? false,
                      onLock: (e) =>
                        edit((d) => ({
                          ...d,
                          examples: d.examples.map((x) =>
                            x === e
                              ? e.locked
                                ? { a: e.a, b: e.b, total: e.total, op: e.op }
                                : { ...e, locked: true }
                              : x,
                          ),
                        })),
                      onAnother: (e) => {
                        const place = doc.examples.indexOf(e)
                        const { next, ...after } = nextLike(e, doc.examples, doc.aim, {
                          zero: me.houseStyle.zeroIsPart,
                          turnRounds: me.houseStyle.turnRoundsCount,
                          seed: 1,
                          offered: offered[place] ?? [],
                        })
                        setOffered({ ...offered, [place]: after.offered })
                        if (next)
                          edit((d) => ({ ...d, examples: d.examples.map((x) => (x === e ? next : x)) }))
                      },
                      onOwn: (own) => {
                        if (doc.examples.some((x) => factKey(x) === factKey(own)))
                          return `${exampleSentence(own)} is there already.`
                        if (doc.examples.length >= 12) return 'A lesson holds twelve examples.'
                        edit((d) => ({ ...d, examples: [...d.examples, own] }))
                        return null
                      },
                      onMove: (from, to) =>
                        edit((d) => ({ ...d, examples: arrayMove(d.examples, from, to) })),
                    }
                  : undefined
              }
            />
          </Card>
        )}
        {searching &&
          (result.ok ? (
            <>
              {said && <Notice kind="info">{said}</Notice>}
              <SharedFacts result={result} />
              <SetChooser
                sets={result.sets}
                chosen={chosen}
                onChoose={choose}
                aim={value.aim}
                actions={actions}
              />
              <div className="flex items-center gap-3 flex-wrap">
                <Button look="main" disabled={!record.mayChange} onClick={rewrite}>
                  Write the script again with the {result.sets[chosen]!.level} set
                </Button>
                <Button
                  onClick={() => {
                    setSearching(false)
                    setValue({
                      ideaId: doc.ideaId,
                      age: doc.age,
                      aim: doc.aim,
                      arc: doc.arc,
                      story: doc.story,
                    })
                  }}
                >
                  Keep the script
                </Button>
                <span className="text-steel">Replaces every segment; Undo brings them back.</span>
              </div>
            </>
          ) : (
            <>
              <Notice kind="wrong">{result.conflict}</Notice>
              <Button
                className="justify-self-start"
                onClick={() => {
                  setSearching(false)
                  setValue({ ideaId: doc.ideaId, age: doc.age, aim: doc.aim, arc: doc.arc, story: doc.story })
                }}
              >
                Keep the script as it is
              </Button>
            </>
          ))}
        <Card className="p-4">
          <h2 className="font-bold mb-2">Facts of this idea</h2>
          <CoverageGrid
            aim={value.aim}
            examples={shown}
            zero={me.houseStyle.zeroIsPart}
            classId={record.classId}
            lessonId={record.id}
          />
        </Card>
      </section>
    </div>
  )
}
