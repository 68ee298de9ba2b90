import type { Lesson, Segment } from '../contracts/lesson.ts'
import { exampleSentence } from '../plan/numbers/facts.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'

interface StepChange {
  kind: 'added' | 'taken out' | 'changed' | 'moved'
  verb: string
  before: string | null
  after: string | null
  /** The numbers it says are other ones now. */
  numbers: boolean
}
interface SegmentChange {
  id: string
  title: string
  kind: 'added' | 'taken out' | 'moved' | 'changed'
  steps: StepChange[]
}
export interface Comparison {
  segments: SegmentChange[]
  /** Changes outside the segments, in words. */
  rest: string[]
  same: boolean
}

const numbersOf = (text: string): string =>
  numbersIn(tokens(text))
    .map((n) => n.value)
    .join()

/** Ids in the longest run kept in the same order: everything else was moved. */
function keptInOrder(before: readonly string[], after: readonly string[]): Set<string> {
  const common = after.filter((id) => before.includes(id))
  const at = common.map((id) => before.indexOf(id))
  const best = at.map(() => 1)
  const from = at.map(() => -1)
  for (let i = 0; i < at.length; i++)
    for (let j = 0; j < i; j++)
      if (at[j]! < at[i]! && best[j]! + 1 > best[i]!) {
        best[i] = best[j]! + 1
        from[i] = j
      }
  const kept = new Set<string>()
  let i = best.indexOf(Math.max(0, ...best))
  while (i >= 0 && best.length) {
    kept.add(common[i]!)
    i = from[i]!
  }
  return kept
}

function stepChanges(a: Segment, b: Segment): StepChange[] {
  const kept = keptInOrder(
    a.steps.map((s) => s.id),
    b.steps.map((s) => s.id),
  )
  const out: StepChange[] = []
  for (const s of b.steps) {
    const was = a.steps.find((x) => x.id === s.id)
    if (!was)
      out.push({
        kind: 'added',
        verb: s.verb,
        before: null,
        after: s.text,
        numbers: numbersOf(s.text) !== '',
      })
    else if (
      was.text !== s.text ||
      was.verb !== s.verb ||
      JSON.stringify(was.task) !== JSON.stringify(s.task) ||
      was.deliberate !== s.deliberate
    )
      out.push({
        kind: 'changed',
        verb: s.verb,
        before: was.text,
        after: s.text,
        numbers: numbersOf(was.text) !== numbersOf(s.text),
      })
    else if (!kept.has(s.id))
      out.push({ kind: 'moved', verb: s.verb, before: s.text, after: s.text, numbers: false })
  }
  for (const s of a.steps)
    if (!b.steps.some((x) => x.id === s.id))
      out.push({
        kind: 'taken out',
        verb: s.verb,
        before: s.text,
        after: null,
        numbers: numbersOf(s.text) !== '',
      })
  return out
}

/** What one revision changed against another: segments added, taken out, moved; steps and numbers changed. */
export function compareLessons(before: Lesson, after: Lesson): Comparison {
  const kept = keptInOrder(
    before.segments.map((s) => s.id),
    after.segments.map((s) => s.id),
  )
  const segments: SegmentChange[] = []
  for (const s of after.segments) {
    const was = before.segments.find((x) => x.id === s.id)
    if (!was) {
      segments.push({
        id: s.id,
        title: s.title,
        kind: 'added',
        steps: s.steps.map((x) => ({
          kind: 'added',
          verb: x.verb,
          before: null,
          after: x.text,
          numbers: false,
        })),
      })
      continue
    }
    const steps = stepChanges(was, s)
    const renamed = was.title !== s.title || was.kind !== s.kind || was.audience !== s.audience
    if (steps.length || renamed)
      segments.push({
        id: s.id,
        title: s.title,
        kind: 'changed',
        steps: renamed
          ? [
              {
                kind: 'changed',
                verb: 'title',
                before: `${was.title} (${was.kind})`,
                after: `${s.title} (${s.kind})`,
                numbers: false,
              },
              ...steps,
            ]
          : steps,
      })
    else if (!kept.has(s.id)) segments.push({ id: s.id, title: s.title, kind: 'moved', steps: [] })
  }
  for (const s of before.segments)
    if (!after.segments.some((x) => x.id === s.id))
      segments.push({
        id: s.id,
        title: s.title,
        kind: 'taken out',
        steps: s.steps.map((x) => ({
          kind: 'taken out',
          verb: x.verb,
          before: x.text,
          after: null,
          numbers: false,
        })),
      })
  const rest: string[] = []
  if (before.title !== after.title) rest.push(`Title: “${before.title}” became “${after.title}”.`)
  if (before.age !== after.age) rest.push(`Age: ${before.age} became ${after.age}.`)
  if (before.ideaId !== after.ideaId) rest.push('The idea is another one.')
  if (JSON.stringify(before.aim) !== JSON.stringify(after.aim)) rest.push('The aim changed.')
  if (before.arc !== after.arc) rest.push(`The lesson goes another way: ${before.arc} became ${after.arc}.`)
  if (JSON.stringify(before.story) !== JSON.stringify(after.story))
    rest.push(`Story: ${storyWords(after)} (before: ${storyWords(before)}).`)
  if (JSON.stringify(before.words) !== JSON.stringify(after.words))
    rest.push(`New words: ${wordsOf(after)} (before: ${wordsOf(before)}).`)
  const [x, y] = [before.examples.map(exampleSentence), after.examples.map(exampleSentence)]
  const [gone, come] = [x.filter((e) => !y.includes(e)), y.filter((e) => !x.includes(e))]
  if (gone.length) rest.push(`Examples gone: ${gone.join(', ')}.`)
  if (come.length) rest.push(`Examples new: ${come.join(', ')}.`)
  if (!gone.length && !come.length && x.join() !== y.join()) rest.push('The examples stand in another order.')
  const kit = (l: Lesson) => l.kit.map((k) => `${k.count} ${k.thing}`).join(', ')
  if (kit(before) !== kit(after))
    rest.push(`Things: ${kit(after) || 'none'} (before: ${kit(before) || 'none'}).`)
  return { segments, rest, same: segments.length === 0 && rest.length === 0 }
}
const storyWords = ({ story }: Lesson): string => `${story.who}, ${story.things}, ${story.place}`
const wordsOf = (l: Lesson): string =>
  l.words.map((w) => `${w.word}${w.gesture ? ` (${w.gesture})` : ''}`).join(', ') || 'none'
