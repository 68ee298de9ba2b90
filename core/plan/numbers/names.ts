import { remembered } from '../../remember.ts'

const ones = [
  'zero',
  'one',
  'two',
  'three',
  'four',
  'five',
  'six',
  'seven',
  'eight',
  'nine',
  'ten',
  'eleven',
  'twelve',
  'thirteen',
  'fourteen',
  'fifteen',
  'sixteen',
  'seventeen',
  'eighteen',
  'nineteen',
]
const tens = ['', '', 'twenty', 'thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety']

/**
 * The English name of a whole number, 0 to 1000, hyphenated and with the British "and".
 * @throws RangeError outside 0–1000 or for a fraction.
 */
export function numberName(n: number): string {
  if (!Number.isInteger(n) || n < 0 || n > 1000)
    throw new RangeError(`No name for ${n}: whole numbers 0 to 1000 only`)
  if (n < 20) return ones[n]!
  if (n < 100) return tens[Math.floor(n / 10)]! + (n % 10 ? `-${ones[n % 10]}` : '')
  if (n === 1000) return 'one thousand'
  const rest = n % 100
  return `${ones[Math.floor(n / 100)]} hundred${rest ? ` and ${numberName(rest)}` : ''}`
}

const smallWords = new Map<string, number>([
  ...ones.map((w, i) => [w, i] as const),
  ['nought', 0],
  ['none', 0],
  ['nothing', 0],
  ['forteen', 14],
  ['fourty', 40],
])
const tensWords = new Map(tens.map((w, i) => [w, i * 10] as const).filter(([w]) => w))

/** "two fours" is a double; "tens" and "ones" after a number are places, not doubles. */
const plurals = new Map(
  [
    'two',
    'three',
    'four',
    'five',
    'six',
    'seven',
    'eight',
    'nine',
    'eleven',
    'twelve',
    'thirteen',
    'fourteen',
    'fifteen',
    'sixteen',
    'seventeen',
    'eighteen',
    'nineteen',
    'twenty',
  ].map(
    (w) => [w === 'six' ? 'sixes' : w === 'twenty' ? 'twenties' : `${w}s`, smallWords.get(w) ?? 20] as const,
  ),
)

export interface NumberAt {
  value: number
  /** Index of the first token of the number and the index after its last. */
  from: number
  to: number
}

/** Splits text into lower-case words, digits and the signs + − = ×. Hyphens inside words part them. */
export const tokens: (text: string) => readonly string[] = remembered(
  (text) =>
    text
      .toLowerCase()
      .replace(/[−–]/g, '-')
      .match(/\d+|[\p{L}']+|[+=×]|-(?=\s*[\d\s_□])|_{2,}|□/gu) ?? [],
)

/** Whether token k may be of one number with the token before it: no where a full stop or a pause parts them. */
type Together = (k: number) => boolean
const always: Together = () => true

/**
 * Reads one number starting at token i, or null: the longest that leaves the next one whole ("ninety, one hundred" is 90
 * and 100). "none", "nought" are 0; "double four" is 8.
 */
export function readNumberAt(words: readonly string[], i: number, together = always): NumberAt | null {
  const w = words[i]
  if (w === undefined) return null
  if (/^\d+$/.test(w)) return { value: Number(w), from: i, to: i + 1 }
  if (w === 'double') {
    const inner = readNumberAt(words, i + 1, together)
    return inner && { value: inner.value * 2, from: i, to: inner.to }
  }
  if (w === 'two') {
    const many = plurals.get(words[i + 1] ?? '')
    if (many !== undefined) return { value: many * 2, from: i, to: i + 2 }
  }
  return largeAt(words, i, together) ?? underHundredAt(words, i, together)
}
const large = new Set(['hundred', 'thousand'])
/** "A hundred", "three hundred and six", "one thousand"; null where no hundred or thousand begins. */
function largeAt(words: readonly string[], i: number, together: Together): NumberAt | null {
  const w = words[i]!
  const [unit, name] = [w === 'a' ? 1 : smallWords.get(w), words[i + 1]]
  if (unit === undefined || unit < 1 || unit > 9 || !name || !large.has(name)) return null
  if (name === 'thousand') return unit === 1 ? { value: 1000, from: i, to: i + 2 } : null
  const k = words[i + 2] === 'and' ? i + 3 : i + 2
  const joined = together(i + 2) && together(k)
  const rest = joined && !/^\d/.test(words[k] ?? '') ? underHundredAt(words, k, together) : null
  // "One hundred, two hundred" and "nine hundred, one thousand": what follows is a number of its own.
  const own = rest === null || rest.value === 0 || large.has(words[rest.to] ?? '')
  return own
    ? { value: unit * 100, from: i, to: i + 2 }
    : { value: unit * 100 + rest.value, from: i, to: rest.to }
}
function underHundredAt(words: readonly string[], i: number, together: Together): NumberAt | null {
  const ten = tensWords.get(words[i] ?? '')
  if (ten === undefined) {
    const small = smallWords.get(words[i] ?? '')
    return small === undefined ? null : { value: small, from: i, to: i + 1 }
  }
  const unit = smallWords.get(words[i + 1] ?? '')
  const joins =
    unit !== undefined && unit > 0 && unit < 10 && together(i + 1) && !large.has(words[i + 2] ?? '')
  return joins ? { value: ten + unit, from: i, to: i + 2 } : { value: ten, from: i, to: i + 1 }
}

/** The whole number a text stands for ("twenty one", "a hundred and five", "7"), or null. */
export function parseNumber(text: string): number | null {
  const words = tokens(text)
  const found = readNumberAt(words, 0)
  return found && found.to === words.length ? found.value : null
}

/**
 * Ways a number is said or written that all mean it: its name with and without hyphen and "and", digits, "nought",
 * "double four". Every one of them is read back by `parseNumber`. 0–1000.
 */
export function variants(n: number): string[] {
  const name = numberName(n)
  const out = [name, String(n), name.replace(/-/g, ' ')]
  if (n > 100) out.push(name.replace(' and ', ' '))
  if (n >= 100 && n < 200) out.push(name.replace('one hundred', 'a hundred'))
  if (n === 1000) out.push('a thousand')
  if (n === 0) out.push('nought', 'none', 'nothing')
  if (n > 0 && n <= 40 && n % 2 === 0) out.push(`double ${numberName(n / 2)}`)
  if (n > 2 && n < 40 && n % 2 === 0 && n !== 20)
    out.push(`two ${numberName(n / 2)}s`.replace(/sixs$/, 'sixes'))
  return [...new Set(out)]
}
/** Every number in a token list, left to right, none overlapping. */
export function numbersIn(words: readonly string[]): NumberAt[] {
  const out: NumberAt[] = []
  for (let i = 0; i < words.length;) {
    const found = readNumberAt(words, i)
    if (found) {
      out.push(found)
      i = found.to
    } else i++
  }
  return out
}

/** Numbers from `from` to `to` by `by` (its sign is taken from the direction). Ends on `to` only if it is met. */
export function run(from: number, to: number, by = 1): number[] {
  const step = Math.abs(by)
  if (step === 0) throw new RangeError('A run needs a step of at least one')
  const out: number[] = []
  if (from <= to) for (let n = from; n <= to; n += step) out.push(n)
  else for (let n = from; n >= to; n -= step) out.push(n)
  return out
}
