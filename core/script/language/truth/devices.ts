import { remembered } from '../../../remember.ts'
import { sentencesSaid } from './terms.ts'

/** A number a line says of a die or a bowl that it can never give. */
export interface Never {
  said: number
  device: string
}
const asksNever = /\b(no|never|not|cannot|can't|none|neither|without|instead|more than|at least|times?)\b/

/** "My one die stops at seven", "the dots of the pair come to one", "highest you can throw with two dice? Fourteen". */
export const neverIn: (text: string) => readonly Never[] = remembered((text) => {
  const sentences = sentencesSaid(text)
  const all = sentences.flatMap((s) => s.words)
  const plain = all.map((w) => w.t).join(' ')
  const out: Never[] = []
  if (
    /\b(die|dice)\b/.test(plain) &&
    !asksNever.test(plain) &&
    !/\b(ten|twenty|eight|twelve)[- ](sided|faced)\b|\bfaces\b/.test(plain)
  ) {
    const two =
      /\b(two|2|both|pair) (of )?dice\b|\bboth dice\b|\bpair\b/.test(plain) ||
      all.some((w, i) => w.n === 2 && all[i + 1]?.t === 'dice')
    const [least, most] = two ? [2, 12] : [1, 6]
    const totals =
      two &&
      /\b(together|total|come to|comes to|make|makes|altogether|highest|lowest|most|least|sum|throw)\b/.test(
        plain,
      )
    const shows =
      /\b(stops?|shows?|lands?|rolls?|throws?|threw|rolled|come|comes|says|got|get|reads|turns?|falls?|highest|lowest|most|least|throw)\b/.test(
        plain,
      )
    const numbers = all.filter(
      (w, i) =>
        w.n !== null &&
        !/^(dice|die|times|dots?|rounds?|goes|throws?|shells|steps|jumps)$/.test(all[i + 1]?.t ?? '') &&
        !(w.n === 1 && w.t === 'one' && all[i + 1]?.t !== undefined && /^(die|of)$/.test(all[i + 1]!.t)),
    )
    if (shows && numbers.length >= 1)
      for (const w of numbers) {
        const [lo, hi] = two && !totals ? [1, 6] : [least, most]
        if (two && !totals && numbers.length !== 2) continue
        if (w.n! < lo || w.n! > hi) out.push({ said: w.n!, device: two ? 'two dice' : 'one die' })
      }
  }
  // Two slips drawn and both left out are two different digits.
  if (
    /\b(slips?|digits?|bowl)\b/.test(plain) &&
    /\b(leave|left|keep|keeping|stay|stays|without putting)\b.*\b(out|back)\b/.test(plain) &&
    !asksNever.test(plain.replace('without putting', ''))
  )
    for (const w of all)
      if (w.n !== null && w.n >= 11 && w.n <= 99 && w.n % 11 === 0)
        out.push({ said: w.n, device: 'a bowl with one of each digit' })
  return out
})
