import { useMemo, useState } from 'react'
import type { Example, Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { anotherLike, nextLike } from '@awlbox/core/plan/examples'
import { exampleSentence, factFrom, factKey, tagsOf } from '@awlbox/core/plan/numbers/facts'
import { duplicateWith, factOf } from '@awlbox/core/script/renumber'
import { teachingOf } from '@awlbox/core/script/template/teach'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** Whether another segment plays the same fact, so that the lesson still needs it. */
const playedElsewhere = (d: Lesson, segment: Segment, fact: Example): boolean =>
  d.segments.some((s) => {
    const other = s.id === segment.id ? null : factOf(s, d.examples)
    return other !== null && factKey(other) === factKey(fact)
  })

/** The same segment played with other numbers: every line that says them follows. */
export function RenumberDialog({
  segment,
  fact,
  onClose,
}: {
  segment: Segment
  fact: Example
  onClose: () => void
}) {
  const { doc, edit, goTo, me } = useLesson()
  const first = useMemo(
    () => anotherLike(fact, doc.examples, doc.aim, { zero: me.houseStyle.zeroIsPart, seed: 1 }) ?? fact,
    [fact, doc, me],
  )
  const [a, setA] = useState(first.a)
  const [b, setB] = useState(first.b)
  const [offered, setOffered] = useState<readonly string[]>([])
  const to = useMemo(() => factFrom(fact.op, a, b), [fact.op, a, b])
  const w = useMemo(
    () => ({
      aim: doc.aim,
      age: doc.age,
      style: me.houseStyle,
      story: doc.story,
      newId,
      teach: teachingOf(doc.ideaId, doc.aim, [...doc.examples, fact]),
    }),
    [doc, me, fact],
  )
  const preview = useMemo(() => duplicateWith(segment, fact, to, { newId, w }), [segment, fact, w, to])
  const wrong = to.total < 0 ? 'Less than nothing would be left.' : null
  const field = 'min-h-10 w-20 rounded-lg border border-hair bg-card px-2.5 font-child text-lg figures'
  const another = () => {
    const { next, ...after } = nextLike(to, doc.examples, doc.aim, {
      zero: me.houseStyle.zeroIsPart,
      turnRounds: me.houseStyle.turnRoundsCount,
      seed: 1,
      offered,
    })
    setOffered(after.offered)
    if (next) {
      setA(next.a)
      setB(next.b)
    }
  }
  const put = (how: 'in its place' | 'after it') => {
    const inPlace = how === 'in its place'
    const copy = inPlace ? { ...preview.segment, id: segment.id, title: segment.title } : preview.segment
    edit((d) => {
      const i = d.segments.findIndex((s) => s.id === segment.id)
      const known = d.examples.some((e) => e.a === to.a && e.b === to.b && e.op === to.op)
      return {
        ...d,
        segments: [...d.segments.slice(0, inPlace ? i : i + 1), copy, ...d.segments.slice(i + 1)],
        examples: known
          ? d.examples
          : inPlace &&
              d.examples.some((e) => factKey(e) === factKey(fact)) &&
              !playedElsewhere(d, segment, fact)
            ? d.examples.map((e) => (factKey(e) === factKey(fact) ? to : e))
            : d.examples.length >= 12
              ? d.examples
              : [...d.examples, to],
      }
    })
    goTo(copy.id)
    onClose()
  }
  return (
    <Dialog open onClose={onClose} title={`“${segment.title}” again with new numbers`} wide>
      <div className="flex flex-wrap items-center gap-3 mb-3">
        <span className="font-child text-lg figures text-steel">{exampleSentence(fact)}</span>
        <span>becomes</span>
        <input
          aria-label="First number"
          type="number"
          min={0}
          max={100}
          className={field}
          value={a}
          onChange={(e) => setA(Math.max(0, Math.min(100, Math.round(Number(e.target.value)))))}
        />
        <span className="font-child text-lg">{fact.op === '-' ? '−' : fact.op}</span>
        <input
          aria-label="Second number"
          type="number"
          min={0}
          max={100}
          className={field}
          value={to.b}
          onChange={(e) => setB(Math.max(0, Math.min(100, Math.round(Number(e.target.value)))))}
        />
        <b className="font-child text-lg figures">= {to.total}</b>
        <span className="text-sm text-steel">{tagsOf(to, doc.examples).join(' · ')}</span>
        <Button small onClick={another}>
          Another like it
        </Button>
      </div>
      {wrong && (
        <p role="alert" className="text-brick mb-2">
          {wrong}
        </p>
      )}
      <ol className="rounded-lg border border-hair max-h-72 overflow-auto">
        {preview.segment.steps.map((s, i) => {
          const was = segment.steps[i]
          const changed = s.text !== was?.text || JSON.stringify(s.task) !== JSON.stringify(was.task)
          return (
            <li
              key={s.id}
              className={`flex gap-3 px-3 py-1 border-b border-hair last:border-0 ${changed ? '' : 'text-steel'}`}
            >
              <span className="w-14 text-sm text-steel shrink-0 capitalize">{s.verb}</span>
              <span className={changed ? 'font-semibold' : ''}>
                {s.text}
                {s.task?.kind === 'choice' && (
                  <span className="block text-sm text-steel">{s.task.choices.join(' · ')}</span>
                )}
              </span>
            </li>
          )
        })}
      </ol>
      {preview.unchanged.length > 0 && (
        <p className="text-sm text-blue mt-2">
          Left as they were, their numbers belong to no part of the fact:{' '}
          {preview.unchanged.map((t) => `“${t}”`).join(', ')}
        </p>
      )}
      <div className="flex gap-3 mt-4">
        <Button look="main" disabled={wrong !== null} onClick={() => put('in its place')}>
          Put it in its place
        </Button>
        <Button disabled={wrong !== null} onClick={() => put('after it')}>
          Keep both, this one after
        </Button>
        <Button onClick={onClose}>Leave it</Button>
      </div>
    </Dialog>
  )
}
