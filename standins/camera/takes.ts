import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { type SpokenLine, spokenLines } from '@awlbox/core/film/spoken'
import { numberName } from '@awlbox/core/plan/numbers/names'
import { simulate } from '@awlbox/core/script/simulate'
import { clock, timeOf } from '@awlbox/core/script/time'
import { emptyTable, type TableState } from '@awlbox/core/script/table/state'

export const slips = ['none', 'leave out a number', 'false start', 'dead air', 'skip a line'] as const
export type Slip = (typeof slips)[number]

/** One stretch of a take: the table shown, and what is said or how long it is silent. */
export type Beat =
  | { kind: 'say'; table: TableState; words: string; gap: number }
  | { kind: 'count'; table: TableState; words: string[]; seconds: number }
  | { kind: 'silence'; table: TableState; seconds: number }

export class CannotSlip extends Error {}

/** Plans a take of one segment: every line said, everything done on the table, waits kept, and the slip asked for. */
export function planTake(lesson: Lesson, segmentId: string, style: HouseStyle, slip: Slip): { beats: Beat[]; slipped: string | null } {
  const segment = lesson.segments.find((s) => s.id === segmentId)
  if (!segment) throw new CannotSlip('This segment is not in the lesson.')
  const moments = simulate(lesson).filter((m) => m.segment.id === segmentId)
  const lines = new Map(spokenLines(segment, style).map((l) => [l.stepId, l]))
  const target = chooseTarget([...lines.values()], slip)
  const beats: Beat[] = [{ kind: 'silence', table: moments[0]?.before ?? emptyTable, seconds: 0.8 }]
  let slipped: string | null = null
  for (const m of moments) {
    const line = lines.get(m.step.id)
    const mine = target?.stepId === m.step.id
    if (!line) {
      beats.push({ kind: 'silence', table: m.before, seconds: timeOf(m, lesson.age, style).film * 0.4 }, { kind: 'silence', table: m.after, seconds: timeOf(m, lesson.age, style).film * 0.6 })
      continue
    }
    if (mine && slip === 'skip a line') {
      slipped = line.text
      continue
    }
    if (line.numbers) {
      const out = mine && slip === 'leave out a number' ? middle(line.numbers) : null
      if (out !== null) slipped = String(out)
      beats.push({ kind: 'count', table: m.after, words: line.numbers.filter((n) => n !== out).map((n) => numberName(n)), seconds: clock.countTo10 })
      continue
    }
    if (mine && slip === 'false start') {
      slipped = line.words.slice(0, 3).join(' ')
      beats.push({ kind: 'say', table: m.after, words: slipped, gap: 0.5 }, { kind: 'say', table: m.after, words: 'oops', gap: 0.9 })
    }
    beats.push({ kind: 'say', table: m.after, words: line.words.join(' '), gap: 0.45 })
    if (mine && slip === 'dead air') {
      slipped = 'seven seconds'
      beats.push({ kind: 'silence', table: m.after, seconds: 7 })
    }
    if (m.step.verb === 'ask' && !m.step.task && segment.steps[m.stepIndex + 1]?.verb !== 'wait') beats.push({ kind: 'silence', table: m.after, seconds: style.defaultWait })
  }
  beats.push({ kind: 'silence', table: moments.at(-1)?.after ?? emptyTable, seconds: 0.6 })
  return { beats, slipped }
}
const middle = (numbers: readonly number[]): number => numbers[Math.floor(numbers.length / 2)]!

function chooseTarget(lines: readonly SpokenLine[], slip: Slip): SpokenLine | null {
  const said = lines.filter((l) => !l.numbers)
  const need = (l: SpokenLine | undefined, why: string): SpokenLine => {
    if (!l) throw new CannotSlip(why)
    return l
  }
  switch (slip) {
    case 'none': return null
    case 'leave out a number': return need(lines.find((l) => (l.numbers?.length ?? 0) >= 3), 'No count of three or more in this segment to leave a number out of.')
    case 'false start': return need(said.find((l) => l.words.length >= 5), 'No line here is long enough to start twice.')
    case 'dead air': return need(said.at(said.length > 1 ? 0 : -1), 'Nothing is said in this segment.')
    case 'skip a line': return need(said.slice(1).find((l) => l.words.length >= 4) ?? (said.length > 1 ? said[1] : undefined), 'There is only one line here; leaving it out would leave nothing.')
  }
}
