import type { Lesson, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'
import { remembered } from '../remember.ts'
import { hasUnknown, sentencesIn, solve } from './sentence.ts'
import { type Moment, simulate } from './simulate.ts'
import { leftOn, thingsOn } from './table/state.ts'

/** What an answer was worked out from: a number sentence with one unknown, the story the line tells, or the table. */
export type Source = 'sentence' | 'story' | 'table'
export interface WorkedOut {
  value: number
  from: Source
}

/** A story's own words for more coming, for some going, and for a whole of which one part is told. */
const comes =
  /\b(more|another|extra|comes?|came|arrives?|arrived|joins?|joined|finds?|found|gets?|got|given|buys?|bought|adds?|added|picks?|picked)\b/
const goes =
  /\b(gives?|gave|loses?|lost|eats?|eaten|ate|drops?|dropped|takes?|took|taken|sends?|sent|sells?|sold|posts|posted|breaks?|broke|rolls? away|(?:flies|fly|flew|goes|go|went|run|runs|ran|swim|swims|swam|hop|hops) (?:away|off|home|out))\b/
const asksLeft = /\bhow many\b.*\b(left|stay|stayed|remain|remains|still)\b/
const asksAll = /\bhow many\b.*\b(altogether|all together|in all|in total|now)\b/
/** "Four go on the top shelf. How many go below?", "Four are on the table, the rest in the sack": the other part is asked for. */
const asksOther =
  /\bhow many\b.*\b(below|other|others|rest|under|underneath|hidden|in the (?:sack|bag|jar|box|other)|on the (?:bottom|other))\b/

/**
 * The answer to a short story with two numbers, where its words leave one way to reckon it; null where they leave none
 * or more. Only whole stories in the line itself are read: what was told before may be another story.
 */
const storyAnswer = remembered((text: string): number | null => {
  const parts = text.toLowerCase().match(/[^.!?]+[.!?]*/g) ?? []
  const question = parts.filter((p) => p.trim().endsWith('?'))
  const tells = parts.filter((p) => !p.trim().endsWith('?'))
  if (question.length !== 1 || !tells.length) return null
  const ask = question[0]!
  const numbers = tells.flatMap((p) => numbersIn(tokens(p)).map((n) => n.value))
  if (numbers.length !== 2 || numbersIn(tokens(ask)).length) return null
  const [a, b] = numbers as [number, number]
  // What happens is told after the first number.
  const told = tells.join(' ')
  const more = comes.test(told)
  const fewer = goes.test(told)
  if (asksOther.test(ask) && !more && a >= b) return a - b
  if (asksLeft.test(ask) && !more && a >= b) return a - b
  if (asksAll.test(ask) && more && !fewer) return a + b
  return null
})

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
])
/** Things a child is to put out and leave there: "Make nine in two groups", "Put four in one row and three in another". */
const askedToShow = remembered((text: string): number | null => {
  const plain = text.toLowerCase().replace(/\([^)]*\)/g, ' ')
  if (
    /\b(take|move|hide|cover|eat|give)\b.*\b(away|some|off)\b|\b(groups? of|rows? of|among|between|houses?|each|take one photo|one ten)\b/.test(
      plain.replace(/take one photo[^.]*/, ''),
    )
  )
    return null
  const words = tokens(plain.split(/\bthen ask\b|\btake (?:a|one) photo\b|\bphotograph\b/)[0]!)
  const numbers = numbersIn(words).filter((n) => n.value > 1 && !places.has(words[n.to] ?? ''))
  if (/\bin one\b.*\bin another\b/.test(plain))
    return numbers.length === 2 ? numbers[0]!.value + numbers[1]!.value : null
  return numbers.length === 1 && /\b(make|put|lay|show|build|draw)\b/.test(plain) ? numbers[0]!.value : null
})

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
  const story = storyAnswer(text)
  if (story !== null) return { value: story, from: 'story' }
  const table = tableAnswer(m)
  return table === null ? null : { value: table, from: 'table' }
}

/** The number a task asks for; null of a choice. */
export const keyOf = (task: TaskSpec): number | null =>
  task.kind === 'number' ? task.answer : task.kind === 'photo' ? task.things : null
/** The same task with another number as its answer. */
export const withKey = (task: TaskSpec, n: number): TaskSpec =>
  task.kind === 'number' ? { ...task, answer: n } : task.kind === 'photo' ? { ...task, things: n } : task
/** Whether a task's answer follows what it is worked out from, instead of standing as a person set it. */
const follows = (task: TaskSpec): boolean => task.kind !== 'choice' && !task.mine

/**
 * A changed lesson whose worked-out answers follow the change: where a line or the table under it now comes to another
 * number, the answer is that number, unless a person set it.
 */
export function answersFollow(before: Lesson, after: Lesson): Lesson {
  const known = new Set(before.segments)
  const asks = (s: Segment): boolean => s.steps.some((x) => x.task && follows(x.task))
  if (!after.segments.some((s) => !known.has(s) && asks(s))) return after
  const was = reckoned(before)
  const now = reckoned(after)
  const next = (s: Step): Step => {
    if (!s.task || !follows(s.task)) return s
    const [old, value] = [was.get(s.id), now.get(s.id)]
    return value === undefined || value === old || value === keyOf(s.task)
      ? s
      : { ...s, task: withKey(s.task, value) }
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
