import type { Seconds } from '../../contracts/units.ts'
import { readNumberAt } from '../../plan/numbers/names.ts'

/** A word as it was said, with what parts it from the word before and after. */
export interface Token {
  word: string
  /** Seconds of silence before it. */
  gap: number
  /** Punctuation after it, where a writer put one: "," or one of . ! ? ; … */
  mark: string
}
/** A number sentence said in the words people use: "three and two is five", "eleven take away four … seven", "half of six is three". */
export interface Statement {
  /** First token and the token after the last. */
  from: Seconds
  to: Seconds
  holds: boolean
  /** In signs, as it was said: "3 + 2 = 6". */
  text: string
  /** Whether a word like "is" or "makes" joins its sides, or only a pause. */
  joined: boolean
}

/** A value with how it is written; `terms` counts the numbers in it. */
interface Side {
  value: number
  text: string
  terms: number
  to: number
  /** "and" alone joins it: too weak to carry a sentence with no "is". */
  weak: boolean
  /** A sum, a double, a comparison: something that has a result. */
  works: boolean
}

/** A pause that ends a thought, seconds; and one after which nobody waits for the result any more. */
const [thought, forgotten] = [0.28, 8]

const operations: readonly {
  words: readonly string[]
  sign: string
  weak?: boolean
  apply: (a: number, b: number) => number
}[] = [
  { words: ['take', 'away', 'another'], sign: '−', apply: (a, b) => a - b },
  { words: ['take', 'away'], sign: '−', apply: (a, b) => a - b },
  ...['takeaway', 'minus', 'subtract', '-'].map((w) => ({
    words: [w],
    sign: '−',
    apply: (a: number, b: number) => a - b,
  })),
  { words: ['and', 'add'], sign: '+', apply: (a, b) => a + b },
  { words: ['and', 'another'], sign: '+', weak: true, apply: (a, b) => a + b },
  { words: ['and', 'then'], sign: '+', weak: true, apply: (a, b) => a + b },
  ...['add', 'plus', '+', 'added'].map((w) => ({
    words: [w],
    sign: '+',
    apply: (a: number, b: number) => a + b,
  })),
  { words: ['added', 'to'], sign: '+', apply: (a, b) => a + b },
  { words: ['and'], sign: '+', weak: true, apply: (a, b) => a + b },
  ...[['times'], ['multiplied', 'by'], ['lots', 'of'], ['groups', 'of'], ['×']].map((words) => ({
    words,
    sign: '×',
    apply: (a: number, b: number) => a * b,
  })),
  ...[['shared', 'between'], ['shared', 'among'], ['shared', 'by'], ['divided', 'by'], ['÷']].map(
    (words) => ({ words, sign: '÷', apply: (a: number, b: number) => (b ? a / b : NaN) }),
  ),
]
/** Ways of saying "equals", longest first. */
const equals: readonly (readonly string[])[] = [
  ['is', 'the', 'same', 'as'],
  ['are', 'the', 'same', 'as'],
  ['is', 'equal', 'to'],
  ['are', 'equal', 'to'],
  ['is', 'going', 'to', 'be'],
  ['leaves', 'us', 'with'],
  ['leaves', 'you', 'with'],
  ['leaves', 'me', 'with'],
  ['gives', 'us'],
  ['gives', 'you'],
  ['gives', 'me'],
  ['equals'],
  ['equal'],
  ['='],
  ['makes'],
  ['make'],
  ['made'],
  ['leaves'],
  ['gives'],
  ['is'],
  ['are'],
  ["equals's"],
  ['comes', 'to'],
]
/** What people put between a sum and its result when they stop to think. */
const leadIns: readonly (readonly string[])[] = [
  ['so', "that's"],
  ['so', 'that', 'is'],
  ["that's"],
  ['that', 'is'],
  ['that', 'makes'],
  ['that', 'leaves'],
  ['which', 'is'],
  ['which', 'makes'],
  ['we', 'get'],
  ['you', 'get'],
  ['i', 'get'],
  ['we', 'have'],
  ["we've", 'got'],
  ["i've", 'got'],
  ['there', 'are'],
  ["there's"],
  ["it's"],
  ['it', 'is'],
  ['yes'],
  ['yep'],
]
/** Words that may stand before a result and change nothing. */
const softeners = new Set([
  'still',
  'also',
  'just',
  'always',
  'only',
  'altogether',
  'now',
  'actually',
  'exactly',
  'indeed',
  'um',
  'er',
  'erm',
  'uh',
])
/** With one of these close before it, a sum is asked, supposed or denied, not stated. */
const notStated = new Set([
  'does',
  'do',
  'did',
  'is',
  'are',
  'could',
  'would',
  'should',
  'will',
  'might',
  'if',
  'whether',
  'not',
  "isn't",
  "doesn't",
  "don't",
  "aren't",
  'never',
  'pretend',
  'silly',
  'wrong',
  'said',
  'says',
  'thinks',
  'thought',
  'think',
  'between',
])
const denials = new Set(['no', 'wrong', 'not', 'silly'])

const plurals = new Map(
  ['ones', 'twos', 'threes', 'fours', 'fives', 'sixes', 'sevens', 'eights', 'nines', 'tens'].map((w, i) => [
    w,
    i + 1,
  ]),
)
const wordsAt = (t: readonly Token[], i: number, words: readonly string[]): boolean =>
  words.every((w, k) => t[i + k]?.word === w)
const firstAt = (t: readonly Token[], i: number, list: readonly (readonly string[])[]): number =>
  list.find((w) => wordsAt(t, i, w))?.length ?? 0
const ends = (mark: string): boolean => /[.!?;…]/.test(mark)
/** Whether a full stop or a pause as long as `pause` stands between tokens `from` and `to` − 1 or right before `to`. */
const brokenBefore = (t: readonly Token[], i: number): boolean =>
  i >= t.length || i === 0 || ends(t[i - 1]!.mark) || t[i]!.gap >= thought

interface Reader {
  t: readonly Token[]
  list: readonly string[]
}
function numberAt(r: Reader, i: number): { value: number; text: string; to: number } | null {
  const w = r.list[i]
  if (w === undefined || w === 'double' || w === 'none' || w === 'nothing') return null
  const found = readNumberAt(r.list, i)
  // "twenty. One more…": a number never runs over a full stop.
  if (!found || r.t.slice(i, found.to - 1).some((x) => ends(x.mark)))
    return (
      found && {
        value: readNumberAt([w], 0)?.value ?? found.value,
        text: String(readNumberAt([w], 0)?.value ?? found.value),
        to: i + 1,
      }
    )
  return { value: found.value, text: String(found.value), to: found.to }
}

/** A number, a double, a half, "two threes", "one more than six", "the difference between nine and six". */
function termAt(r: Reader, i: number): (Side & { plain: boolean }) | null {
  const { t, list } = r
  if (list[i] === 'double') {
    const inner = numberAt(r, i + 1)
    return (
      inner && {
        value: inner.value * 2,
        text: `double ${inner.text}`,
        terms: 1,
        to: inner.to,
        weak: false,
        works: true,
        plain: false,
      }
    )
  }
  if (list[i] === 'half' && list[i + 1] === 'of') {
    const inner = numberAt(r, i + 2)
    return (
      inner && {
        value: inner.value / 2,
        text: `half of ${inner.text}`,
        terms: 1,
        to: inner.to,
        weak: false,
        works: true,
        plain: false,
      }
    )
  }
  const d = wordsAt(t, i, ['the', 'difference', 'between'])
    ? i + 3
    : wordsAt(t, i, ['difference', 'between'])
      ? i + 2
      : -1
  if (d > 0) {
    const a = numberAt(r, d)
    const b = a && list[a.to] === 'and' ? numberAt(r, a.to + 1) : null
    return (
      a &&
      b && {
        value: Math.abs(a.value - b.value),
        text: `difference between ${a.text} and ${b.text}`,
        terms: 2,
        to: b.to,
        weak: false,
        works: true,
        plain: false,
      }
    )
  }
  const n = numberAt(r, i)
  if (!n) return null
  const many = n.to === i + 1 ? plurals.get(list[n.to] ?? '') : undefined
  if (many !== undefined && n.value <= 12 && !['tens', 'ones'].includes(list[n.to]!))
    return {
      value: n.value * many,
      text: `${n.text} × ${many}`,
      terms: 2,
      to: n.to + 1,
      weak: false,
      works: true,
      plain: false,
    }
  const way = list[n.to]
  if (way === 'more' || way === 'less' || way === 'fewer') {
    const from = list[n.to + 1] === 'than' ? numberAt(r, n.to + 2) : null
    if (from)
      return {
        value: from.value + (way === 'more' ? n.value : -n.value),
        text: `${n.text} ${way} than ${from.text}`,
        terms: 2,
        to: from.to,
        weak: false,
        works: true,
        plain: false,
      }
  }
  if (list[n.to] === 'doubled')
    return {
      value: n.value * 2,
      text: `double ${n.text}`,
      terms: 1,
      to: n.to + 1,
      weak: false,
      works: true,
      plain: false,
    }
  if (wordsAt(t, n.to, ['and', 'a', 'half']))
    return {
      value: n.value + 0.5,
      text: `${n.text}½`,
      terms: 1,
      to: n.to + 3,
      weak: false,
      works: false,
      plain: true,
    }
  return { value: n.value, text: n.text, terms: 1, to: n.to, weak: false, works: false, plain: true }
}

function sideAt(r: Reader, i: number, most = Infinity): Side | null {
  const first = termAt(r, i)
  if (!first) return null
  let side: Side = first
  while (side.terms < most) {
    const at = side.to
    // A sum doesn't run over a full stop, and "and" not over a pause.
    if (ends(r.t[at - 1]!.mark)) break
    const op = operations.find((o) => wordsAt(r.t, at, o.words))
    if (!op || (op.weak && r.t[at]!.gap > 0.9)) break
    let next = termAt(r, at + op.words.length)
    // "three and two more": the "more" belongs to the two.
    if (next && r.list[next.to] === 'more' && r.list[next.to + 1] !== 'than')
      next = { ...next, to: next.to + 1 }
    if (!next) break
    side = {
      value: op.apply(side.value, next.value),
      text: `${side.text} ${op.sign} ${next.text}`,
      terms: side.terms + next.terms,
      to: next.to,
      weak: (side.terms === 1 ? true : side.weak) && (op.weak ?? false),
      works: true,
    }
  }
  return side
}

/** Where a joining "equals" at i ends, or −1. */
function joinAt(r: Reader, i: number): number {
  if (r.t[i - 1] && /[.!?;]/.test(r.t[i - 1]!.mark)) return -1
  const n = firstAt(r.t, i, equals)
  if (!n) return -1
  let at = i + n
  while (softeners.has(r.list[at] ?? '')) at++
  return at
}

/**
 * Every number sentence stated in a run of words, in order. Questions, suppositions and denials ("is three and two
 * six?", "that isn't five") are not statements. A sum whose parts can be read two ways counts as true if it is true in one.
 */
export function statementsIn(input: readonly string[] | readonly Token[]): Statement[] {
  const t: readonly Token[] = input.map((x) => (typeof x === 'string' ? { word: x, gap: 0, mark: '' } : x))
  const r: Reader = { t, list: t.map((x) => x.word) }
  const out: Statement[] = []
  for (let i = 0; i < t.length;) {
    const s = joinedAt(r, i) ?? comparedAt(r, i) ?? bareAt(r, i)
    if (!s) {
      i++
      continue
    }
    if (!(s.statement.holds ? false : doubted(r, s.statement))) out.push(s.statement)
    i = Math.max(i + 1, s.next)
  }
  return out
}

function doubted(r: Reader, s: Statement): boolean {
  if (r.t[s.to - 1]!.mark.includes('?')) return true
  for (let k = s.from - 1; k >= Math.max(0, s.from - 4); k--) {
    if (ends(r.t[k]!.mark)) break
    if (notStated.has(r.list[k]!)) return true
    if (r.t[k + 1]!.gap > 1.2) break
  }
  return (
    denials.has(r.list[s.to] ?? '') &&
    (r.list[s.to] !== 'no' || !['more', 'longer'].includes(r.list[s.to + 1] ?? ''))
  )
}

/** "three and two is five", "seven is four and three", "double three makes six". */
function joinedAt(r: Reader, i: number): { statement: Statement; next: number } | null {
  const left = sideAt(r, i)
  if (!left) return null
  const at = joinAt(r, left.to)
  if (at < 0) return null
  const wide = sideAt(r, at)
  if (!wide) return null
  // "… is five and one more is six": what has its own "is" is a sentence of its own.
  const ownSentence = wide.terms > 1 && joinAt(r, wide.to) >= 0
  const narrow = sideAt(r, at, 1)!
  const right = ownSentence || (left.works && wide.terms > 1 && wide.weak) ? narrow : wide
  if (!left.works && !right.works) return null
  // "… and four is three fewer than seven" is read by its own rule; a plain "than" after it compares.
  if (noResult(r, left, right)) return null
  const rest = remainder(r, right.to)
  const whole = left.text.includes('÷')
  if (whole && !Number.isInteger(left.value) && rest === null) return null
  const holds = whole && rest !== null ? sharedOut(left, right, rest) : anyReading(r, i, left, right, wide)
  return {
    statement: { from: i, to: right.to, holds, text: `${left.text} = ${right.text}`, joined: true },
    next: right === narrow ? at : right.to,
  }
}

/** Whether some way of reading both sides makes them equal. */
function anyReading(r: Reader, i: number, left: Side, right: Side, wide: Side): boolean {
  const rights = [right.value, wide.value]
  if (rights.some((v) => Math.abs(v - left.value) < 1e-9)) return true
  // "ten take away three and two is five": the last two terms may be the sentence.
  for (let k = i + 1; k < left.to; k++) {
    const part = sideAt(r, k)
    if (part && part.to === left.to && part.works && rights.some((v) => Math.abs(v - part.value) < 1e-9))
      return true
  }
  return false
}

/** What follows says that the right side is no result: a comparison, a count, a number held in the head. */
const noResult = (r: Reader, left: Side, right: Side): boolean =>
  ['more', 'fewer', 'less', 'bigger', 'smaller', 'than'].includes(r.list[right.to] ?? '') ||
  countsOnFrom(r, right) ||
  (operandsOf(left).includes(right.value) && heldInHead(r, right.to))
/** "Double three is one, two, three …": what stands where the result would begins a count. */
function countsOnFrom(r: Reader, right: { value: number; to: number }): boolean {
  const next = numberAt(r, right.to)
  if (!next || Math.abs(next.value - right.value) !== 1 || r.t[right.to]!.gap > 1.5) return false
  // "Four add one is five. Six …" goes on with something new, "is five, six" counts.
  return !ends(r.t[right.to - 1]!.mark) && joinAt(r, next.to) < 0
}
/** "… is seven in my head", "eight on my fingers, then …": where one starts from, not what it comes to. */
const heldInHead = (r: Reader, i: number): boolean =>
  /^(in|on) (my|your|our|the|his|her|their) (head|heads|mind|fingers|finger|hand|hands)\b|^to (start|begin)\b|^at the (start|beginning)\b/.test(
    r.list.slice(i, i + 3).join(' '),
  )
const operandsOf = (s: Side): number[] => (s.text.match(/\d+/g) ?? []).map(Number)

/** "… three each and one left over": the one; null when nothing is said to be left over. */
function remainder(r: Reader, i: number): number | null {
  for (let k = i; k < Math.min(i + 5, r.list.length); k++) {
    const n = numberAt(r, k)
    if (
      n &&
      (wordsAt(r.t, n.to, ['left', 'over']) ||
        wordsAt(r.t, n.to, ['over']) ||
        wordsAt(r.t, n.to, ['remaining']))
    )
      return n.value
  }
  return null
}
function sharedOut(left: Side, right: Side, rest: number): boolean {
  const [whole, among] = left.text.split(' ÷ ').map(Number)
  return whole === right.value * (among ?? 1) + rest
}

/** "nine is bigger than six": a comparison without a difference. */
function comparedAt(r: Reader, i: number): { statement: Statement; next: number } | null {
  const a = numberAt(r, i)
  if (!a || (r.list[a.to] !== 'is' && r.list[a.to] !== 'are')) return null
  const way = r.list[a.to + 1]
  const more = way !== undefined && ['more', 'bigger', 'greater', 'larger'].includes(way)
  if (!more && !(way !== undefined && ['less', 'fewer', 'smaller'].includes(way))) return null
  const b = r.list[a.to + 2] === 'than' ? numberAt(r, a.to + 3) : null
  if (!b) return null
  return {
    statement: {
      from: i,
      to: b.to,
      holds: more ? a.value > b.value : a.value < b.value,
      text: `${a.text} is ${way} than ${b.text}`,
      joined: true,
    },
    next: b.to,
  }
}

/** "eleven take away four … seven", "one less than nine, eight": the result after a pause, with no "is". */
function bareAt(r: Reader, i: number): { statement: Statement; next: number } | null {
  const left = sideAt(r, i)
  if (!left?.works || left.weak || joinAt(r, left.to) >= 0) return null
  let at = left.to
  const paused = brokenBefore(r.t, at) || r.t[at - 1]!.mark !== ''
  const lead = firstAt(r.t, at, leadIns)
  at += lead
  while (softeners.has(r.list[at] ?? '')) at++
  if (!paused && !lead) return null
  if (!r.t[at] || r.t.slice(left.to, at + 1).some((x) => x.gap > forgotten)) return null
  const right = numberAt(r, at)
  if (!right || !closed(r, right.to) || countsOnFrom(r, right)) return null
  // "Five plus six. Six, I was thinking …": a number said over again is no result.
  if (!lead && right.value !== left.value && operandsOf(left).includes(right.value)) return null
  // Nobody starts the next sum with the answer to the last: "… take away four. Five add two".
  return {
    statement: {
      from: i,
      to: right.to,
      holds: Math.abs(right.value - left.value) < 1e-9,
      text: `${left.text} = ${right.text}`,
      joined: false,
    },
    next: at,
  }
}
/** Whether a number ends here: a pause, a full stop, or a word that says no more is to come. */
function closed(r: Reader, i: number): boolean {
  const w = r.list[i]
  if (w === undefined) return true
  if (operations.some((o) => wordsAt(r.t, i, o.words)) && !brokenBefore(r.t, i)) return false
  if (operations.some((o) => !o.weak && wordsAt(r.t, i, o.words))) return false
  if (numberAt(r, i) && r.t[i]!.gap < 1.2 && !ends(r.t[i - 1]!.mark)) return false
  if (
    [
      'more',
      'less',
      'fewer',
      'than',
      'is',
      'are',
      'equals',
      'makes',
      "o'clock",
      'times',
      'lots',
      'groups',
      'minutes',
      'seconds',
      'of',
    ].includes(w)
  )
    return false
  return (
    r.t[i - 1]!.mark !== '' ||
    r.t[i]!.gap >= thought ||
    ['altogether', 'left', 'in', 'yes', 'well', 'good', 'so', 'right', 'now', 'and', 'because'].includes(w)
  )
}
