import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Habit, Slip } from '@awlbox/core/contracts/stand-in'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { type SpokenLine, spokenLines, spokenWordsOf } from '@awlbox/core/film/follow/spoken'
import { numberName } from '@awlbox/core/plan/numbers/names'
import { seeded } from '@awlbox/core/plan/seeded'
import { readClaps } from '@awlbox/core/script/reading'
import { type Moment, simulate } from '@awlbox/core/script/simulate'
import { clock, timeOf } from '@awlbox/core/script/time'
import { emptyTable, type TableState } from '@awlbox/core/script/table/state'
import { type Change, changesOf, type Target, targetsFor } from './changes.ts'
import { CannotSlip, type Label } from './slips.ts'

/** One stretch of a take: the table shown, and what is said, clapped, or how long it is silent. */
export type Beat = { table: TableState; labels: readonly Label[] } & (
  | { kind: 'say'; words: string; gap: number }
  | { kind: 'claps'; count: number }
  | { kind: 'silence'; seconds: number }
)
export interface Plan {
  beats: Beat[]
  labels: Label[]
}

/**
 * Plans a take of one segment: every line said, everything done on the table, waits kept, and the slips asked for,
 * each in another line. The same seed chooses the same lines.
 * @throws CannotSlip when the segment has no place for a slip, or is not in the lesson.
 */
export function planTake(
  lesson: Lesson,
  segmentId: string,
  style: HouseStyle,
  asked: readonly Slip[] = [],
  options: { seed?: number; habits?: readonly Habit[] } = {},
): Plan {
  const segment = lesson.segments.find((s) => s.id === segmentId)
  if (!segment) throw new CannotSlip('This segment is not in the lesson.')
  const random = seeded((options.seed ?? 1) * 104_729 + 7)
  const lines = spokenLines(segment, style)
  const chosen = chooseTargets(segment, lines, asked, random)
  const played = rolledOtherwise(lesson, segment, chosen)
  const moments = simulate(played).filter((m) => m.segment.id === segmentId)
  const plan = new Planner(
    segment,
    new Map(lines.map((l) => [l.stepId, l])),
    lesson.age,
    style,
    chosen,
    new Set(options.habits ?? []),
    random,
  )
  return plan.take(moments)
}

function chooseTargets(
  segment: Segment,
  lines: readonly SpokenLine[],
  asked: readonly Slip[],
  random: (n: number) => number,
): Map<string, Change[]> {
  const chosen = new Map<string, Change[]>()
  const taken = new Set<string>()
  // Slips with the fewest places choose first, so that others do not take the only one.
  const places = new Map(asked.map((slip) => [slip, targetsFor(slip, segment, lines).length]))
  for (const slip of [...asked].sort((a, b) => places.get(a)! - places.get(b)!)) {
    const free = targetsFor(slip, segment, lines).filter((t) => t.steps.every((s) => !taken.has(s)))
    const target: Target | undefined = free[random(Math.max(1, free.length))]
    if (!target) throw new CannotSlip(`There is no place in this segment to ${slip}.`)
    target.steps.forEach((s) => taken.add(s))
    for (const [step, change] of changesOf(slip, target, random))
      chosen.set(step, [...(chosen.get(step) ?? []), change])
  }
  return chosen
}

/** A die that came up otherwise is on the table too. */
function rolledOtherwise(
  lesson: Lesson,
  segment: Segment,
  chosen: ReadonlyMap<string, readonly Change[]>,
): Lesson {
  const rolled = segment.steps.map((s) => {
    const change = chosen.get(s.id)?.find((c) => c.kind === 'roll')
    return change ? { ...s, text: change.text } : s
  })
  return {
    ...lesson,
    segments: lesson.segments.map((s) => (s === segment ? { ...segment, steps: rolled } : s)),
  }
}

class Planner {
  private readonly beats: Beat[] = []
  /** Labels of what was left out, until something is said after it. */
  private pending: Label[] = []
  constructor(
    private readonly segment: Segment,
    private readonly lines: ReadonlyMap<string, SpokenLine>,
    private readonly age: number,
    private readonly style: HouseStyle,
    private readonly chosen: ReadonlyMap<string, readonly Change[]>,
    private readonly habits: ReadonlySet<Habit>,
    private readonly random: (n: number) => number,
  ) {}

  take(moments: readonly Moment[]): Plan {
    this.silence(moments[0]?.before ?? emptyTable, 0.8)
    for (const m of moments) this.step(m)
    this.beats.push({
      kind: 'silence',
      table: moments.at(-1)?.after ?? emptyTable,
      seconds: 0.9,
      labels: this.pending,
    })
    return { beats: this.beats, labels: this.beats.flatMap((b) => b.labels) }
  }

  private silence(table: TableState, seconds: number, label?: Label): void {
    if (seconds > 0) this.beats.push({ kind: 'silence', table, seconds, labels: label ? [label] : [] })
  }
  private say(table: TableState, words: string, gap: number, label?: Label): void {
    this.beats.push({ kind: 'say', table, words, gap, labels: [...this.pending, ...(label ? [label] : [])] })
    this.pending = []
  }
  private breath(): number {
    return 0.35 + this.random(45) / 100
  }

  private step(m: Moment): void {
    const line = this.lines.get(m.step.id)
    const changes = this.chosen.get(m.step.id) ?? []
    if (!line) {
      this.quietStep(m, changes)
      return
    }
    for (const c of changes) {
      if (c.kind === 'before')
        c.said.forEach((words, i) => this.say(m.after, words, c.gaps[i]!, i === 0 ? c.label : undefined))
      if (c.kind === 'leave out') {
        this.pending.push(c.label)
        return
      }
    }
    if (line.numbers) this.count(line, m, changes)
    else {
      const other = changes.find((c) => c.kind === 'words')
      this.say(m.after, other ? other.words : line.words.join(' '), this.breath(), other?.label)
      const answer =
        m.step.verb === 'reveal' && this.habits.has('repeat an answer')
          ? line.words.find((w) => w in answerWords)
          : undefined
      if (answer && !other) this.say(m.after, `yes ${answer}`, this.breath())
    }
    const air = changes.find((c) => c.kind === 'air')
    if (air) this.silence(m.after, air.seconds, air.label)
    if (
      m.step.verb === 'ask' &&
      !m.step.task &&
      !['wait', 'pause'].includes(this.segment.steps[m.stepIndex + 1]?.verb ?? '')
    )
      this.silence(m.after, this.style.defaultWait)
  }

  private quietStep(m: Moment, changes: readonly Change[]): void {
    const claps = m.step.verb === 'sound' ? readClaps(m.step.text) : null
    if (claps) {
      const other = changes.find((c) => c.kind === 'claps')
      this.silence(m.after, 0.5)
      this.beats.push({
        kind: 'claps',
        table: m.after,
        count: other?.count ?? claps.count,
        labels: other ? [other.label] : [],
      })
      this.silence(m.after, 0.6)
      return
    }
    const wait = changes.find((c) => c.kind === 'wait')
    const seconds = wait?.seconds ?? timeOf(m, this.age, this.style).film
    this.silence(m.before, seconds * 0.4)
    this.silence(m.after, seconds * 0.6)
    if (wait) this.pending.push(wait.label)
  }

  private count(line: SpokenLine, m: Moment, changes: readonly Change[]): void {
    const say = (n: number, label?: Label) =>
      this.say(m.after, numberName(n), Math.max(0.16, clock.countTo10 - 0.55 - this.random(25) / 100), label)
    const other = changes.find((c) => c.kind === 'count')
    const numbers = other?.numbers ?? line.numbers!
    numbers.forEach((n, i) => say(n, other && i === other.at ? other.label : undefined))
    if (other && other.at >= numbers.length) this.pending.push(other.label)
    if (this.habits.has('last number again') && !other) say(numbers.at(-1)!)
    if (this.habits.has('count twice') && !other && numbers.length <= 6) {
      this.say(m.after, 'let us count again', 0.6)
      numbers.forEach((n) => say(n))
    }
    this.silence(m.after, 0.4)
  }
}
const answerWords = Object.fromEntries(
  Array.from({ length: 21 }, (_, n) => [spokenWordsOf(String(n))[0]!, n]),
)
