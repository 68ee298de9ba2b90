import type { Lesson, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import { numbersIn, readNumberAt, tokens } from '../plan/numbers/names.ts'
import { remembered } from '../remember.ts'
import { askedOf } from './language/truth/asked.ts'
import { shareOfTwo, storyAnswer } from './language/truth/story.ts'
import { hasUnknown, isTrue, sentencesIn, solve } from './sentence.ts'
import { type Moment, simulate } from './simulate.ts'
import { leftOn, thingsOn } from './table/state.ts'

/** What an answer was worked out from: a number sentence with one unknown, the story the line tells, or the table. */
export type Source = 'sentence' | 'story' | 'table'
export interface WorkedOut {
  value: number
  from: Source
}

/** A photo's "slide five away": what goes does not stay to be photographed. */
const goes =
  /\b(gives?|gave|loses?|lost|eats?|eaten|ate|drops?|dropped|takes?|took|taken|sends?|sent|(?:flies|fly|flew|goes|go|went|runs?|ran|swims?|swam|hops?|rolls?|rolled) (?:away|off|home|out|to)|(?:slides?|moves?|push(?:es)?|brush(?:es)?|sweeps?|puts?) \w+ (?:away|aside|off))\b/

/** A question about numbers alone: "one less than 19", "half of six", "just before 80", "8 take away 6", "30, 40, __, 60". */
const numberAsked = remembered((text: string): number | null => {
  const found = new Set<number>()
  const asked = askedOf(text)
  if (asked !== null) found.add(asked)
  const gap = gapIn(text)
  if (gap !== null) found.add(gap)
  return found.size === 1 ? [...found][0]! : null
})
/** The number left out of an even run with one gap. */
function gapIn(text: string): number | null {
  const run = text.match(/(?:(?:\d+|_{2,}),\s*){2,}(?:and\s+)?(?:\d+|_{2,})/)?.[0].split(/,\s*(?:and\s+)?/)
  const at = run?.findIndex((x) => x.startsWith('_')) ?? -1
  if (!run || at < 0 || run.filter((x) => x.startsWith('_')).length !== 1) return null
  const known = run.flatMap((x, i) => (i === at ? [] : [{ i, n: Number(x) }]))
  const [first, last] = [known[0]!, known.at(-1)!]
  const by = (last.n - first.n) / (last.i - first.i)
  const value = first.n + by * (at - first.i)
  return Number.isInteger(by) && known.every((k) => k.n === first.n + by * (k.i - first.i)) && value >= 0
    ? value
    : null
}

const asksCount = /\bhow many\b/
/** Words that ask for some of what lies there and not for all of it. */
const some =
  /\b(left|more|fewer|less|saffron|blue|red|yellow|green|top|bottom|each|other|rest|below|under|hidden|covered|standing|fallen|crossed|first|second|row|plate|shelf|side|ways|jumps|hops|tens|ones|between|than|now)\b/
/** How many lie on the table, where the line asks for just that and everything on it can be seen. */
function tableAnswer({ step, before }: Pick<Moment, 'step' | 'before'>): number | null {
  const text = step.text.toLowerCase()
  if (!asksCount.test(text) || some.test(text) || numbersIn(tokens(text)).length) return null
  const all = thingsOn(before)
  if (!all.length || before.held !== null || before.mats.some((m) => m.covered)) return null
  if (all.some((t) => t.hidden || t.worth !== 1) || before.mats.some((m) => m.line)) return null
  return leftOn(before) === all.length ? all.length : null
}

/** What things are put into, and is not counted among them: "in two groups". */
const places = new Set([
  'groups',
  'rows',
  'piles',
  'parts',
  'plates',
  'places',
  'colours',
  'lines',
  'towers',
  'hands',
  'ways',
  'times',
  'boxes',
  'box',
  'cups',
  'bowls',
  'heaps',
])
/** Things a child is to put out and leave there: "Make nine in two groups", "Put four in one row and three in another". */
const askedToShow = remembered((text: string): number | null => {
  const plain = text.toLowerCase().replace(/\([^)]*\)/g, ' ')
  const [out, gone, ...more] = numbersIn(tokens(plain)).map((n) => n.value)
  // "Lay nine down and slide five away. Photograph those that stay."
  if (
    out !== undefined &&
    gone !== undefined &&
    !more.length &&
    goes.test(plain) &&
    /\b(?:those|the ones?|what(?:ever)?) (?:that |which )?(?:stays?|(?:is|are) left|remains?)\b/.test(plain)
  )
    return out >= gone ? out - gone : null
  // "Put out eleven and move away the ones that go. Leave both groups on the table": all of them are photographed.
  if (
    out !== undefined &&
    !more.length &&
    (gone === undefined || gone <= out) &&
    /\b(put|lay|set|place) (?:out |down )?\w+\b/.test(plain) &&
    /\b(?:leave|keep) (?:them )?(?:both|all|everything|every|the two)\b/.test(plain) &&
    !/\b(?:put|lay|set) (?:out )?(?:\w+ )*more\b/.test(plain)
  )
    return out
  if (
    /\b(take|move|hide|cover|eat|give)\b.*\b(away|some|off)\b|\b(groups? of|rows? of|among|between|houses?|each|take one photo|one ten)\b/.test(
      plain.replace(/take one photo[^.]*/, ''),
    )
  )
    return null
  const words = tokens(plain.split(/\bthen ask\b|\btake (?:a|one) photo\b|\bphotograph\b/)[0]!)
  const numbers = numbersIn(words).filter(
    (n) =>
      (n.value > 1 || words[n.to] === 'more') &&
      !places.has(words[n.to] ?? '') &&
      // "Put one on nineteen": a number that things are put on.
      !(words[n.to] === undefined && /^(on|number|numeral|door)$/.test(words[n.from - 1] ?? '')),
  )
  if (/\bin one\b.*\bin another\b|\band \w+ more\b/.test(plain))
    return numbers.length === 2 ? numbers[0]!.value + numbers[1]!.value : null
  return numbers.length === 1 && /\b(make|put|set|lay|show|build|draw)\b/.test(plain)
    ? numbers[0]!.value
    : null
})

/** What a question's words come to without a table: its sentence, its numbers, its story. */
export function answerTo({ step }: Pick<Moment, 'step'>): number | null {
  const open = sentencesIn(step.text).filter(hasUnknown)
  const solved = open.length === 1 ? solve(open[0]!) : null
  return solved ?? numberAsked(step.text) ?? storyAnswer(step.text) ?? shareOfTwo(step.text)
}

/** What a line's answer comes to, from its own words and the table it is asked at; null where it cannot be worked out. */
export function workedOut(m: Pick<Moment, 'step' | 'before'>): WorkedOut | null {
  const { task, text } = m.step
  if (task?.kind === 'photo') {
    const things = askedToShow(text)
    return things === null ? null : { value: things, from: 'story' }
  }
  if (task && task.kind !== 'number') return null
  const open = sentencesIn(text).filter(hasUnknown)
  const solved = open.length === 1 ? solve(open[0]!) : null
  if (solved !== null) return { value: solved, from: 'sentence' }
  const asked = numberAsked(text)
  if (asked !== null) return { value: asked, from: 'sentence' }
  const story = storyAnswer(text) ?? shareOfTwo(text)
  if (story !== null) return { value: story, from: 'story' }
  const table = tableAnswer(m)
  return table === null ? null : { value: table, from: 'table' }
}

/**
 * Whether a choice is a right answer to its question: a number sentence by itself, a number where the question comes to
 * one, a pair where it asks what makes a number; null where nothing says so.
 */
export function choiceHolds(question: string, choice: string): boolean | null {
  const sentences = sentencesIn(choice)
  if (sentences.length === 1 && !hasUnknown(sentences[0]!))
    return isTrue(sentences[0]!) && tellsOf(question, sentences[0]!)
  const words = tokens(choice)
  const numbers = numbersIn(words)
  const asked = numberAsked(question)
  if (asked !== null && numbers.length === 1 && numbers[0]!.to - numbers[0]!.from === words.length)
    return numbers[0]!.value === asked
  const makes = tokens(question)
  const total = makes.flatMap((w, i) => (/^(make|makes|total)$/.test(w) ? [readNumberAt(makes, i + 1)] : []))
  const pair = numbers.length === 2 && numbers[0]!.from === 0 && numbers[1]!.to === words.length
  const joined = pair && /^(and|\+|plus|add)$/.test(words.slice(numbers[0]!.to, numbers[1]!.from).join(' '))
  // "How do we part the five to make ten?" asks for parts of another number.
  return total.length === 1 && total[0] && joined && !/\bhow (do|can|could|should)\b/i.test(question)
    ? numbers[0]!.value + numbers[1]!.value === total[0].value
    : null
}

/** "Tap the sum that fits": a true sentence fits when it is made of the story's own numbers. */
function tellsOf(question: string, s: ReturnType<typeof sentencesIn>[number]): boolean {
  if (!/\b(fits?|tells?|goes with|says|shows|matches)\b/i.test(question)) return true
  const told = numbersIn(tokens(question)).map((n) => n.value)
  const parts = [...s.left, ...s.right].map((t) => t.value)
  return told.length !== 2 || told.every((n) => parts.includes(n))
}

/** The number a task asks for; null of a choice. */
export const keyOf = (task: TaskSpec): number | null =>
  task.kind === 'number' ? task.answer : task.kind === 'photo' ? task.things : null
/** The same task with another number as its answer. */
export const withKey = (task: TaskSpec, n: number): TaskSpec =>
  task.kind === 'number' ? { ...task, answer: n } : task.kind === 'photo' ? { ...task, things: n } : task
/** Whether a task's answer may follow what it is worked out from, instead of standing as a person set it. */
const mayFollow = (task: TaskSpec): boolean => (task.kind === 'number' || task.kind === 'photo') && !task.mine

/**
 * A changed lesson whose worked-out answers follow the change. Only an answer that was what it is worked out to does:
 * one that stood against the reckoning stays, and is told. While a number is being typed nothing is worked out; until
 * there is one again the task remembers that it follows.
 */
export function answersFollow(before: Lesson, after: Lesson): Lesson {
  const known = new Set(before.segments)
  const asks = (s: Segment): boolean => s.steps.some((x) => x.task && mayFollow(x.task))
  if (!after.segments.some((s) => !known.has(s) && asks(s))) return after
  const was = reckoned(before)
  const now = reckoned(after)
  const next = (s: Step): Step => {
    if (!s.task || !mayFollow(s.task)) return s
    const { follows, ...task } = s.task
    const [old, value] = [was.get(s.id), now.get(s.id)]
    if (!(follows === true || old === keyOf(s.task)) || value === old) return s
    return { ...s, task: value === undefined ? { ...s.task, follows: true } : withKey(task, value) }
  }
  const segments = after.segments.map((s) => {
    const steps = asks(s) ? s.steps.map(next) : s.steps
    return steps.every((x, i) => x === s.steps[i]) ? s : { ...s, steps }
  })
  return segments.every((s, i) => s === after.segments[i]) ? after : { ...after, segments }
}
const reckoned = (lesson: Lesson): Map<string, number> =>
  new Map(
    simulate(lesson).flatMap((m) => {
      const found = m.step.task ? workedOut(m) : null
      return found ? [[m.step.id, found.value] as const] : []
    }),
  )
