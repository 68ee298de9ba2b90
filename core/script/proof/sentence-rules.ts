import { hasUnknown, inSigns, isTrue, mended, sentencesIn, shapeOf } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { type Hop, leftOn, partitionsOn, type TableState, thingsOn } from '../table/state.ts'
import { at, type Fix, type Rule } from './finding.ts'

const speaks = (m: Moment): boolean => ['say', 'ask', 'reveal', 'write'].includes(m.step.verb) && !m.step.deliberate
/** Only a sentence that is the whole of a line can be swapped for another without rewriting what is said round it. */
const rewrite = (m: Moment, text: string | null): Fix | undefined =>
  text && m.step.verb === 'write' ? { label: `Write ${text}`, kind: 'replace', stepId: m.step.id, text } : undefined

export const falseSentence: Rule = ({ moments }) =>
  moments.filter(speaks).flatMap((m) =>
    sentencesIn(m.step.text).filter((s) => !isTrue(s)).map((s) => {
      const right = mended(s)
      return at(m, 'false-sentence', 'wrong', `${inSigns(s)} is not true${right ? `: ${right}` : ''}.`, 'Children copy what they see written.', rewrite(m, right))
    }))

/** A true sentence of a written line that the table contradicts. Spoken ones may recall or look ahead. */
export const sentenceAgainstTable: Rule = ({ moments }) =>
  moments.filter((m) => m.step.verb === 'write' && !m.step.deliberate).flatMap((m) =>
    sentencesIn(m.step.text).flatMap((s) => {
      if (hasUnknown(s) || !isTrue(s)) return []
      const shape = shapeOf(s)
      if (!shape || shape.parts.length > 4) return []
      const shown = agrees(shape, m.before)
      if (shown === null || shown === true) return []
      return [at(m, 'sentence-table', 'wrong', `${inSigns(s)} is true, but the table shows ${shown}.`, 'The sentence should say what is on the table.')]
    }))

/** null when the table is silent (nothing out), true when it agrees, else what it shows. */
function agrees(shape: { parts: number[]; whole: number; takeAway: boolean }, table: TableState): true | string | null {
  const total = thingsOn(table).length
  const hops = table.mats.some((m) => m.line && m.line.hops.length > 0)
  if (total === 0 && !hops && table.taken === 0) return null
  const same = (xs: readonly number[]) => {
    const [a, b] = [xs.filter((x) => x > 0), shape.parts.filter((x) => x > 0)].map((l) => [...l!].sort((x, y) => x - y))
    return a!.length === b!.length && a!.every((x, i) => x === b![i])
  }
  if (table.mats.some((m) => m.line && chains(m.line.hops).some((h) => matchesHop(h, shape)))) return true
  const left = leftOn(table)
  if (shape.takeAway) {
    const gone = table.taken + (total - left)
    if (gone > 0) return left + gone === shape.whole && gone === shape.parts[0] ? true : `${left + gone} with ${gone} taken, ${left} left`
  }
  if (total === shape.whole) {
    if (partitionsOn(table).some(same)) return true
    const parted = partitionsOn(table).find((p) => p.filter((x) => x > 0).length > 1)
    // All of one face in one place: the parts are not shown, so nothing contradicts them.
    return parted ? parted.join(' and ') : true
  }
  // Parts still to be put together: 4 out and 3 held, or a covered number.
  if (table.held !== null && total + table.held === shape.whole) return true
  if (total === 0) return hops ? 'other hops' : null
  return `${total}`
}
/** Every unbroken run of hops as one: back twenty and on one is back nineteen. */
const chains = (hops: readonly Hop[]): Hop[] => hops.flatMap((first, i) => hops.slice(i).filter((h, k) => hops.slice(i, i + k + 1).every((x, j, all) => j === 0 || x.from === all[j - 1]!.to)).map((last) => ({ from: first.from, to: last.to })))
const matchesHop = (h: { from: number; to: number }, shape: { parts: number[]; whole: number; takeAway: boolean }): boolean => {
  const size = Math.abs(h.to - h.from)
  return shape.takeAway ? h.from === shape.whole && size === shape.parts[0] : h.to === shape.whole && shape.parts.includes(size) && shape.parts.includes(h.from)
}

/** House style for the words and order of written and spoken sentences. */
export const wording: Rule = ({ moments, style }) =>
  moments.filter(speaks).flatMap((m) => {
    const text = m.step.text
    const out = []
    const other = [
      { house: style.add, words: ['plus', 'add'], is: 'adding' },
      { house: style.takeAway, words: ['minus', 'subtract', 'take away'], is: 'taking away' },
    ]
    for (const { house, words, is } of other)
      for (const w of words) {
        if (w === house || (w === 'add' && house === 'and')) continue
        const spoken = new RegExp(`\\b${w}\\b`, 'i')
        // "take away" and "add" are also plain verbs; only between numbers are they the operation's name.
        const between = new RegExp(`(\\d|\\b(?:one|two|three|four|five|six|seven|eight|nine|ten)\\b)\\s+${w}\\s`, 'i')
        if ((w === 'plus' || w === 'minus' || w === 'subtract' ? spoken : between).test(text))
          out.push(at(m, 'house-word', 'tidy', `“${w}” is used; this setting says “${house}” for ${is}.`, 'One word for one thing, until it is secure.',
            { label: `Say “${house}”`, kind: 'replace', stepId: m.step.id, text: text.replace(spoken, house) }))
      }
    if (!style.unknownAnywhere)
      for (const s of sentencesIn(text))
        if (s.left.length === 1 && s.right.length > 1) out.push(at(m, 'unknown-left', 'tidy', 'The result stands on the left; this setting writes it on the right.', 'House style keeps the result on the right.'))
    return out
  })

/** Statements about all numbers that fail at zero or at odd ones. */
export const allNumbers: Rule = ({ moments }) => {
  const claims: [RegExp, string][] = [
    [/\badding (always )?makes (it|a number|them|numbers) (bigger|larger|more)\b/i, 'Adding nothing leaves a number as it was.'],
    [/\btak(ing|e) away (always )?(makes|is|gives|leaves) (it |always |a number )*(smaller|less|fewer)\b/i, 'Taking away nothing leaves a number as it was.'],
    [/\b(any|every|all) numbers? can be (shared|split|halved)( equally| fairly| in two)/i, 'Odd numbers leave one over.'],
    [/\byou can('t|not| not) take away (a )?(bigger|larger)/i, 'Later they will: say “we haven’t enough here”.'],
  ]
  return moments.filter(speaks).flatMap((m) =>
    claims.filter(([re]) => re.test(m.step.text)).map(([, why]) => at(m, 'all-numbers', 'risky', 'This is said of all numbers and is not true of all.', why)))
}
