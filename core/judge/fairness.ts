import type { Help } from '../contracts/reply.ts'

/** A reply by what lies outside the child: whether its home can print, was late, reads another language. */
export interface Circumstance {
  help: Help | null
  printer: boolean | null
  late: boolean
  otherLanguage: boolean
}
export interface Compared {
  what: string
  one: { words: string; replies: number; alone: number }
  other: { words: string; replies: number; alone: number }
  /** Whether the shares differ by more than chance would often give; counts, not accusations. */
  differs: boolean
}
/** Beyond 1.96 standard errors of a difference of two shares. */
function differ(a: { replies: number; alone: number }, b: { replies: number; alone: number }): boolean {
  if (a.replies < 8 || b.replies < 8) return false
  const p = (a.alone + b.alone) / (a.replies + b.replies)
  const error = Math.sqrt(p * (1 - p) * (1 / a.replies + 1 / b.replies))
  return error > 0 && Math.abs(a.alone / a.replies - b.alone / b.replies) > 1.96 * error
}
/** Whether "alone" is said less often where there is no printer, where replies come late, where another language is read. */
export function fairness(replies: readonly Circumstance[]): Compared[] {
  const said = replies.filter((r) => r.help !== null)
  const of = (words: string, keep: (r: Circumstance) => boolean) => {
    const mine = said.filter(keep)
    return { words, replies: mine.length, alone: mine.filter((r) => r.help === 'alone').length }
  }
  const pairs: [string, ReturnType<typeof of>, ReturnType<typeof of>][] = [
    ['Printer', of('can print', (r) => r.printer === true), of('cannot print', (r) => r.printer === false)],
    ['Time', of('in time', (r) => !r.late), of('late', (r) => r.late)],
    [
      'Language',
      of('read English', (r) => !r.otherLanguage),
      of('read another language', (r) => r.otherLanguage),
    ],
  ]
  return pairs.map(([what, one, other]) => ({ what, one, other, differs: differ(one, other) }))
}
