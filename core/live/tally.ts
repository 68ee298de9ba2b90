import type { LiveTally } from '../contracts/api/live.ts'
import type { LiveRound } from '../contracts/live.ts'
import type { Pack, PackTask } from '../contracts/pack.ts'
import type { PhotoReading } from '../contracts/reading.ts'
import type { Answer } from '../contracts/reply.ts'
import type { Asked } from '../judge/misconceptions/asked.ts'
import { explains } from '../judge/misconceptions/explain.ts'
import { weighedOf } from '../judge/misconceptions/from-replies.ts'
import { checkAnswer } from '../look/answers.ts'
import { checksOf } from '../look/checks.ts'
import type { Check } from '../look/check.ts'
import { readTypedNumber } from '../look/typed-number.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'
import { isShown } from './state.ts'

/** What one child's home gave in one round. */
export interface Given {
  childId: string
  answer: Answer
  late: boolean
  /** When it came, ms. */
  at: number
}
interface TallyRow {
  /** The answer as it is shown. */
  shown: string
  verdict: Check['verdict']
  children: readonly string[]
  /** Of a wrong one: the likeliest way of thinking that leads to it; null where none is known. */
  perhaps: string | null
}
export interface Tally {
  /** Commonest first; what came late is told apart. */
  rows: readonly TallyRow[]
  /** Children of whom something came, in time or late, and those of whom nothing did. */
  sent: readonly string[]
  late: readonly string[]
  silent: readonly string[]
  right: number
  wrong: number
}

/** A round as a task of a pack: what it asks, under its own name. Null where nothing is answered. */
export const taskOf = (r: Pick<LiveRound, 'id' | 'prompt' | 'spec'>): PackTask | null =>
  r.spec && { id: r.id, prompt: r.prompt, spec: r.spec }

/**
 * What a class gave in a round, by answer: each checked by the same rule as a reply, each wrong one with what it may
 * come from. @param children all children who may answer; @param readings what was seen in their photos, by id
 */
export function tallyOf(
  round: Pick<LiveRound, 'id' | 'prompt' | 'spec'> & { parts: readonly number[] },
  given: readonly Given[],
  children: readonly string[],
  readings: ReadonlyMap<string, PhotoReading | null> = new Map(),
): Tally {
  const task = taskOf(round)
  const rows = new Map<
    string,
    { shown: string; verdict: Check['verdict']; children: string[]; perhaps: string | null }
  >()
  let [right, wrong] = [0, 0]
  for (const g of given) {
    const check: Check = task
      ? checkAnswer(task, g.answer, g.answer.photoId ? (readings.get(g.answer.photoId) ?? null) : null)
      : { verdict: 'look', shown: 'ready', why: '' }
    if (check.verdict === 'right') right++
    if (check.verdict === 'wrong') wrong++
    const key = `${check.verdict} ${check.shown}`
    const row = rows.get(key)
    if (row) row.children.push(g.childId)
    else
      rows.set(key, {
        shown: check.shown,
        verdict: check.verdict,
        children: [g.childId],
        perhaps: task && check.verdict === 'wrong' ? perhapsOf(round, task, g.answer, readings) : null,
      })
  }
  const sent = new Set(given.map((g) => g.childId))
  return {
    rows: [...rows.values()].sort(
      (a, b) =>
        b.children.length - a.children.length || a.shown.localeCompare(b.shown, 'en', { numeric: true }),
    ),
    sent: [...sent],
    late: given.filter((g) => g.late).map((g) => g.childId),
    silent: children.filter((c) => !sent.has(c)),
    right,
    wrong,
  }
}
/** The likeliest way to a wrong answer: by the question's own words, else by how the things lay as it was asked. */
function perhapsOf(
  round: { parts: readonly number[] },
  task: PackTask,
  answer: Answer,
  readings: ReadonlyMap<string, PhotoReading | null>,
): string | null {
  const [weighed] = weighedOf({ id: 'live', tasks: [task], answers: [answer], help: 'alone' }, readings)
  const byWords = weighed && explains(weighed)[0]
  if (byWords) return byWords.words
  const [a, b] = round.parts
  const { spec } = task
  const typed = answer.text ? readTypedNumber(answer.text) : null
  if (a === undefined || b === undefined || spec.kind !== 'number' || spec.unchecked || typed === null)
    return null
  const asked: Asked | null =
    spec.answer === a + b
      ? { form: 'add', a, b }
      : spec.answer === a || spec.answer === b
        ? { form: 'missing', op: '+', known: a + b - spec.answer, total: a + b }
        : null
  return (asked && explains({ asked, answer: String(typed) })[0]?.words) ?? null
}

/** A round with what came in it, as desks see it: what was given stays shut until all at once. */
export function tallySeen(
  round: LiveRound,
  given: readonly Given[],
  by: {
    children: readonly string[]
    now: number
    earlier: readonly AskedBefore[]
    readings: ReadonlyMap<string, PhotoReading | null>
  },
): LiveTally {
  const t = tallyOf(round, given, by.children, by.readings)
  const shown = isShown(round, by.now)
  return {
    roundId: round.id,
    shown,
    sent: [...t.sent],
    late: [...t.late],
    silent: [...t.silent],
    rows: shown ? t.rows.map((r) => ({ ...r, children: [...r.children] })) : [],
    right: shown ? t.right : 0,
    wrong: shown ? t.wrong : 0,
    photos: shown
      ? given.flatMap((g) => (g.answer.photoId ? [{ childId: g.childId, photoId: g.answer.photoId }] : []))
      : [],
    took: given.filter((g) => !g.late).map((g) => Math.max(0, g.at - round.opens)),
    before: saidBefore(round, by.earlier),
  }
}

/** A question of an earlier lesson, with what came of it. */
export interface AskedBefore {
  task: PackTask
  at: number
  right: number
  of: number
}
/** Every question of earlier replies, with how many answered it right; what nobody could check says nothing. */
export function askedBefore(
  replies: readonly {
    publicationId: string
    at: Date
    pack: Pick<Pack, 'tasks'>
    answers: readonly Answer[]
  }[],
): AskedBefore[] {
  const all = new Map<string, AskedBefore>()
  for (const r of replies)
    for (const { task, check } of checksOf(r.pack.tasks, r.answers, new Map())) {
      if (check.verdict !== 'right' && check.verdict !== 'wrong') continue
      const key = `${r.publicationId} ${task.id}`
      const so = all.get(key) ?? { task, at: r.at.getTime(), right: 0, of: 0 }
      all.set(key, { ...so, right: so.right + (check.verdict === 'right' ? 1 : 0), of: so.of + 1 })
    }
  return [...all.values()]
}
const numbersOf = (text: string): string =>
  numbersIn(tokens(text))
    .map((n) => n.value)
    .join(' ')
/**
 * What the class said before to a question like this one: the same numbers asked in the same kind, else the same kind
 * at all; the newest of them. Null where nothing like it was asked.
 */
export function saidBefore(
  round: Pick<LiveRound, 'id' | 'prompt' | 'spec'>,
  earlier: readonly AskedBefore[],
): { same: boolean; at: number; right: number; of: number } | null {
  const task = taskOf(round)
  if (!task) return null
  const alike = earlier
    .filter((e) => e.task.spec.kind === task.spec.kind && e.of > 0)
    .sort((a, b) => b.at - a.at)
  const same = alike.find(
    (e) =>
      numbersOf(e.task.prompt) === numbersOf(task.prompt) &&
      JSON.stringify(e.task.spec) === JSON.stringify(task.spec),
  )
  const best = same ?? alike[0]
  return best ? { same: same !== undefined, at: best.at, right: best.right, of: best.of } : null
}
