import { numbersIn, tokens } from '../../plan/numbers/names.ts'
import { untrueIn } from '../language/truth/arithmetic.ts'
import { brokenRunsIn, nextIn } from '../language/truth/runs.ts'
import { hasUnknown, inSigns, isTrue, mended, sentencesIn, shapeOf } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { type Hop, leftOn, partitionsOn, type TableState, thingsOn, worthOn } from '../table/state.ts'
import { at, type Fix, type LineRule, type Rule } from './finding.ts'

const speaks = (m: Moment): boolean =>
  ['say', 'ask', 'reveal', 'write'].includes(m.step.verb) && !m.step.deliberate
/** Only a sentence that is the whole of a line can be swapped for another without rewriting what is said round it. */
const rewrite = (m: Moment, text: string | null): Fix | undefined =>
  text && m.step.verb === 'write' ? { kind: 'replace', stepId: m.step.id, text } : undefined

/** A sentence put up to be doubted: "Is 4 + 3 = 8?", "some think …", "true or false". */
const doubted = (text: string): boolean =>
  /^(is|are|does|do|could|can) .*\?\s*$/i.test(text) ||
  /\b(true or false|not true|is wrong|right or wrong|it is not|it isn.t|that is not|some (people|children) (think|say))\b/i.test(
    text,
  )
export const falseSentence: LineRule = (m) =>
  !speaks(m) || (m.step.verb !== 'write' && doubted(m.step.text))
    ? []
    : sentencesIn(m.step.text)
        .filter((s) => !isTrue(s))
        .map((s) => {
          const right = mended(s)
          return at(
            m,
            'false-sentence',
            { sentence: inSigns(s), ...(right ? { case: 'mended', right } : { case: 'sentence' }) },
            rewrite(m, right),
          )
        })

/** "One more than six is eight", "seventeen has seven tens and one one", "fifteen is an even number". */
export const falseStatement: LineRule = (m) =>
  !speaks(m) || doubted(m.step.text)
    ? []
    : untrueIn(m.step.text).map((u) =>
        at(m, 'false-sentence', { case: 'comparison', sentence: u.text, right: u.right }),
      )

/** "Two, four, eight, ten": a run said in a line that leaves a number out or puts one wrong. */
export const spokenRun: LineRule = (m) => {
  if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate) return []
  const broken = [...brokenRunsIn(m.step.text), ...[nextIn(m.step.text) ?? []].flat()]
  return broken.map((b) => ({
    ...at(
      m,
      b.kind === 'skip' ? 'count-skip' : 'count-order',
      b.kind === 'skip' ? { skipped: [...b.missing] } : {},
    ),
    ...(b.sure === false ? { certain: false } : {}),
  }))
}

/** A true sentence of a written line that the table contradicts. Spoken ones may recall or look ahead. */
export const sentenceAgainstTable: LineRule = (m) =>
  m.step.verb !== 'write' || m.step.deliberate
    ? []
    : sentencesIn(m.step.text).flatMap((s) => {
        if (hasUnknown(s) || !isTrue(s)) return []
        const shape = shapeOf(s)
        if (!shape || shape.parts.length > 4) return []
        // A game may show one number twice, as skittles and on a frame: one mat that agrees is enough.
        const shown =
          m.before.mats.length > 1 &&
          m.before.mats.some((mat) => agrees(shape, { ...m.before, mats: [mat] }) === true)
            ? true
            : agrees(shape, m.before)
        if (shown === null || shown === true) return []
        return [at(m, 'sentence-table', { sentence: inSigns(s), ...shown })]
      })

/** What the table shows instead, as the finding's words want it. */
type Shown =
  | { case: 'number'; shown: number }
  | { case: 'parts'; shown: number[] }
  | { case: 'taken'; whole: number; gone: number; left: number }
  | { case: 'hops' }
/** null when the table is silent (nothing out), true when it agrees, else what it shows. */
function agrees(
  shape: { parts: number[]; whole: number; takeAway: boolean },
  table: TableState,
): true | Shown | null {
  const total = thingsOn(table).length
  const hops = table.mats.some((m) => m.line && m.line.hops.length > 0)
  if (total === 0 && !hops && table.taken === 0) return null
  const same = (xs: readonly number[]) => {
    const [a, b] = [xs.filter((x) => x > 0), shape.parts.filter((x) => x > 0)].map((l) =>
      [...l].sort((x, y) => x - y),
    )
    return a!.length === b!.length && a!.every((x, i) => x === b![i])
  }
  if (table.mats.some((m) => m.line && chains(m.line.hops).some((h) => matchesHop(h, shape)))) return true
  const left = leftOn(table)
  if (shape.takeAway) {
    const gone = table.taken + (total - left)
    if (gone > 0)
      return left + gone === shape.whole && gone === shape.parts[0]
        ? true
        : { case: 'taken', whole: left + gone, gone, left }
  }
  if (worthOn(table) === shape.whole && worthOn(table) !== total) return true
  if (total === shape.whole) {
    if (partitionsOn(table).some(same)) return true
    const parted = partitionsOn(table).find((p) => p.filter((x) => x > 0).length > 1)
    // All of one face in one place: the parts are not shown, so nothing contradicts them.
    return parted ? { case: 'parts', shown: parted } : true
  }
  // Both sides of a balance are out, each as many as the other.
  if (total === 2 * shape.whole && partitionsOn(table).some((p) => p.length === 2 && p[0] === p[1]))
    return true
  // Parts still to be put together: 4 out and 3 held, or a covered number.
  if (table.held !== null && total + table.held === shape.whole) return true
  if (total === 0) return hops ? { case: 'hops' } : null
  return { case: 'number', shown: total }
}
/** Every unbroken run of hops as one: back twenty and on one is back nineteen. */
const chains = (hops: readonly Hop[]): Hop[] =>
  hops.flatMap((first, i) =>
    hops
      .slice(i)
      .filter((h, k) => hops.slice(i, i + k + 1).every((x, j, all) => j === 0 || x.from === all[j - 1]!.to))
      .map((last) => ({ from: first.from, to: last.to })),
  )
const matchesHop = (
  h: { from: number; to: number },
  shape: { parts: number[]; whole: number; takeAway: boolean },
): boolean => {
  const size = Math.abs(h.to - h.from)
  return shape.takeAway
    ? h.from === shape.whole && size === shape.parts[0]
    : h.to === shape.whole && shape.parts.includes(size) && shape.parts.includes(h.from)
}

const claims: readonly (readonly [RegExp, string])[] = [
  [/\badding (always )?makes (it|a number|them|numbers) (bigger|larger|more)\b/i, 'adding'],
  [
    /\btak(ing|e) away (always )?(makes|is|gives|leaves) (it |always |a number )*(smaller|less|fewer)\b/i,
    'taking away',
  ],
  [/\b(any|every|all) numbers? can be (shared|split|halved)( equally| fairly| in two)/i, 'sharing'],
  [/\byou can('t|not| not) take away (a )?(bigger|larger)/i, 'larger'],
]
/** Statements about all numbers that fail at zero or at odd ones. */
export const allNumbers: LineRule = (m) =>
  !speaks(m)
    ? []
    : claims.filter(([re]) => re.test(m.step.text)).map(([, of]) => at(m, 'all-numbers', { case: of }))

/** "Nine are left" after starting with seven: what is left is never more than there was. */
export const leftLarger: LineRule = (m) => {
  if ((m.step.verb !== 'say' && m.step.verb !== 'reveal') || m.step.deliberate || m.before.start === 0)
    return []
  const words = tokens(m.step.text)
  // Fingers and rods may stand for tens: then more is left than things lie there.
  if (words.some((w) => /^(tens?|bundles?|rods?|worth)$/.test(w))) return []
  return numbersIn(words).flatMap((n) => {
    const after = words.slice(n.to, n.to + 3).join(' ')
    const left = /^(are |is )?left( over)?\b|^\w+ (are |is )?left\b/.test(after)
    return left && n.value > m.before.start
      ? [at(m, 'left-larger', { said: n.value, start: m.before.start })]
      : []
  })
}

/** "Share seven equally between two" with nothing said of the one left over. */
export const unfairShare: Rule = ({ moments }) =>
  moments.flatMap((m, i) => {
    if (!['say', 'ask', 'do', 'pause'].includes(m.step.verb) || m.step.deliberate) return []
    const found = m.step.text.match(/\bshare (.{1,40}?) (?:equally|fairly|evenly)? ?(?:among|between) (.+)/i)
    const claimsFair = /\b(equally|fairly|evenly|the same each|fair)\b/i.test(m.step.text)
    if (!found || !claimsFair) return []
    const [n, k] = [numbersIn(tokens(found[1]!))[0]?.value, numbersIn(tokens(found[2]!))[0]?.value]
    if (n === undefined || k === undefined || k < 2 || n % k === 0) return []
    const near = moments.slice(i, i + 8).filter((x) => x.segment === m.segment)
    if (
      near.some((x) =>
        /\b(left over|leftover|remain|one over|over\b|fair\?|cannot|can.t|won.t|half)/i.test(x.step.text),
      )
    )
      return []
    return [at(m, 'share-unfair', { things: n, among: k, over: n % k })]
  })
