import { numbersIn, readNumberAt, run, tokens } from '../plan/numbers/names.ts'
import { knownThings } from '../plan/things.ts'
import { matWords } from './table/mats.ts'
import { type Action, anywhere, type Face, type MatKind, type Target } from './table/state.ts'

const regionWords: readonly (readonly [RegExp, number])[] = [
  [/\bwhole\b/, -1],
  [/\b(top|upper|left|first)\b/, 0],
  [/\b(bottom|lower|below|right|second|other)\b/, 1],
  [/\bthird\b/, 2],
  [/\bfourth\b/, 3],
  [/\bfifth\b/, 4],
  [/\bsixth\b/, 5],
]
/** The mat a line names, or null. */
const matIn = (text: string): MatKind | null => matWords.find(([w]) => w.test(text))?.[1] ?? null

/** Where a line says things go: a mat, a place on it, or neither. */
export function targetIn(line: string): Target {
  const text = line.replace(
    /\b(?:with|using|by|under) (?:my|your|a|the|one|both) (?:hands?|fingers?)\b|\bbottle tops?\b/g,
    '',
  )
  const mat = matIn(text)
  const numbered = text.match(/\b(?:part|plate|shelf|bar|neighbour) (\d)\b/)
  const region = numbered ? Number(numbered[1]) - 1 : (regionWords.find(([w]) => w.test(text))?.[1] ?? null)
  return { mat: mat ?? (region === -1 ? 'parts' : null), region }
}
const faceIn = (text: string): Face => (/\b(blue|dotted)\b/.test(text) ? 'blue' : 'saffron')

const countedThings = knownThings
  .filter((k) => k.properties.includes('counted'))
  .map((k) => [k.name, new RegExp(`\\b(?:${k.words.join('|')})\\b`)] as const)
const kindIn = (text: string): string =>
  countedThings.find(([, words]) => words.test(text))?.[0] ?? 'counters'

/** Number words that name a thing or a way of doing it rather than how many: "ten frame", "one at a time", "part 2". */
const uncounted = (text: string): string =>
  text
    .replace(/\bten[- ](frames?|slots?)/g, 'the $1')
    .replace(/\bhundred[- ]square/g, 'square')
    .replace(/\b(part|plate|shelf|bar|neighbour) \d/g, '$1')
    .replace(/\bone (at a time|by one|after another|each)/g, '')
    .replace(/\bdouble[- ]sided\b|\btwo[- ](sided|faced|square)\b/g, '')
    .replace(/\b(an?other|each|every|this|that|which) one\b/g, '')
const countsIn = (text: string): number[] => numbersIn(tokens(uncounted(text))).map((n) => n.value)

/** "to" between two numbers means the run between them: "0 to 10", "in tens from 10 to 50". */
function listOf(text: string): number[] {
  const words = tokens(uncounted(text.replace(/\bin (twos|fives|tens|2s|5s|10s)\b/g, '')))
  const found = numbersIn(words)
  const to = words.indexOf('to')
  const [a, b] = [found.findLast((n) => n.to <= to), found.find((n) => n.from > to)]
  if (to > 0 && a && b && b.value !== a.value) return run(a.value, b.value, stepIn(text) ?? 1)
  return found.map((n) => n.value)
}
/** "in twos", "in fives", "in tens". */
export const stepIn = (text: string): number | null =>
  /\b(twos|2s)\b/.test(text) ? 2 : /\b(fives|5s)\b/.test(text) ? 5 : /\b(tens|10s)\b/.test(text) ? 10 : null

type Reader = (text: string, numbers: readonly number[]) => Action | Action[] | null
const one = (n: readonly number[], make: (count: number) => Action): Action | null =>
  n[0] === undefined ? null : make(n[0])

const readers: readonly (readonly [RegExp, Reader])[] = [
  [/^(clear|wipe|empty|tidy)\b/, () => ({ type: 'clear' })],
  [/^rub (it |them )?out\b/, (_, n) => ({ type: 'rub out', count: n[0] ?? null })],
  [
    /^(set|stand) (up|them)\b.*skittles|^set (the )?skittles/,
    (_, n) => lay('skittles', { parts: n[0] ?? 10 }),
  ],
  [
    /^knock (down|over)\b/,
    (_, n) => one(n, (count) => ({ type: 'cross', count, target: { mat: 'skittles', region: null } })),
  ],
  [
    /^show (the |a )?(number |word |picture )?cards?\b|^lay (down |out )?(the )?(number |word |picture )?cards?\b|^hold up (the )?card/,
    readCards,
  ],
  [
    /^(draw|pull|take|pick)\b.*\b(from|out of) the (bowl|pack)\b|^draw (a|the|another) card\b|^draw the \d+ card\b/,
    readDraw,
  ],
  [/^(lay|set|get|bring) (out|up)\b|^(lay|draw) (a|an|the|two|three|four|five|six|empty|\d)\b/, readLay],
  [/^turn (the |this )?(dot )?(card|domino) (round|around)\b/, () => ({ type: 'turn card' })],
  [
    /^turn (over |up |down )?(the )?(number |word )?cards?\b/,
    (t) => ({ type: 'show card', texts: listOf(t).map(String), up: !/\b(down|face down)\b/.test(t) }),
  ],
  [/^turn\b/, (t, n) => one(n, (count) => ({ type: 'turn', count, target: placeIn(t) }))],
  [
    /^(uncover|unveil)\b|^lift (off )?the (lid|cover|cloth)\b|^tip (them |it |all )?out\b|^open\b/,
    (t) => ({ type: 'uncover', target: targetIn(t) }),
  ],
  [
    /^(cover|hide)\b|^put the lid on\b/,
    (t, n) => ({ type: 'cover', target: placeIn(t), count: n[0] ?? null }),
  ],
  [/^un-?cross\b/, () => ({ type: 'uncross' })],
  [/^cross\b/, (t, n) => one(n, (count) => ({ type: 'cross', count, target: placeIn(t) }))],
  [/^ring\b|^circle\b/, (t, n) => one(n, (count) => ({ type: 'ring', count, target: placeIn(t) }))],
  [
    /^slide\b|^move the divider\b/,
    (t, n) =>
      one(n, (at) => ({
        type: 'divide',
        at,
        target: /\bpegs?\b/.test(t) ? { mat: 'rail', region: null } : anywhere,
      })),
  ],
  [/^share\b(?!.*\binto\b)|^deal\b/, readShare],
  [
    /^(split|share|part)\b/,
    (t, n) => {
      const parts = n.slice(
        /\binto\b/.test(t) && n.length > 2 && n[0] === n.slice(1).reduce((a, b) => a + b, 0) ? 1 : 0,
      )
      return parts.length >= 2 ? { type: 'split', parts } : null
    },
  ],
  [
    /^(bring|push|put|slide) (them |it |all |everything )*(back )?together\b|^join\b/,
    () => ({ type: 'join' }),
  ],
  [/^pair\b|^set (them )?(out )?in pairs\b/, () => ({ type: 'pair' })],
  [/^swap\b.*\bten\b|^bundle\b/, () => ({ type: 'swap ten' })],
  [/^(hop|jump)\b/, readHop],
  [/^(shade|colour)\b/, (t) => marks(t, 'square')],
  [/^(mark|point to|point at|stand on)\b/, (t) => marks(t, /\bsquare\b/.test(t) ? 'square' : 'line')],
  [/^(hold|keep|remember)\b/, (_, n) => one(n, (number) => ({ type: 'hold', number }))],
  [/^(rearrange|shake|shuffle|stir|mix)\b/, () => ({ type: 'rearrange' })],
  [
    /^(roll|throw)\b/,
    (t, n) => ({
      type: 'roll',
      faces: /\bdice\b/.test(t) && n.length === 1 && /\b(two|2|three|3) dice\b/.test(t) ? [] : n.slice(0, 4),
    }),
  ],
  [/^spin\b/, (t, n) => ({ type: 'spin', text: n[0] === undefined ? null : String(n[0]) })],
  [
    /^write\b/,
    (t, n) => {
      const target = targetIn(t)
      return target.mat && n[0] !== undefined ? { type: 'label', text: String(n[0]), target } : null
    },
  ],
  [
    /^move\b/,
    (t, n) =>
      one(n, (count) => {
        const [before, after] = t.split(/\b(?:to|into|onto|over to|across to)\b/)
        const source = before?.match(/\bfrom\b(.*)/)?.[1]
        return {
          type: 'move',
          count,
          source: source ? targetIn(source) : anywhere,
          target: targetIn(after ?? ''),
        }
      }),
  ],
  [/^(take|remove|eat|post|fold down)\b/, readTake],
  [/^(put|place|add|drop|set|draw|show|hold up|build|make)\b/, readPut],
]

/** Where an action on things already out applies: only when a mat is named as its place, never by a bare "left". */
function placeIn(text: string): Target {
  const from = text.match(/\b(?:on|in|of|from) the (.*)/)?.[1]
  const target = targetIn(from ?? text)
  return target.mat ? target : anywhere
}
const lay = (mat: MatKind, over: Partial<Extract<Action, { type: 'lay' }>> = {}): Action => ({
  type: 'lay',
  mat,
  parts: 1,
  from: 0,
  to: 10,
  every: 1,
  items: [],
  ...over,
})

function marks(text: string, mat: 'line' | 'square'): Action | null {
  const numbers = listOf(text)
  return numbers.length ? { type: 'mark', numbers, mat } : null
}

function readLay(text: string, numbers: readonly number[]): Action | null {
  const { mat } = targetIn(text)
  if (!mat) return null
  const list = text
    .split(/:|\bwith\b|\bof\b/)
    .slice(1)
    .join(' ')
  switch (mat) {
    case 'frame':
      return lay(mat, { parts: /\b(two|2)\b/.test(text) ? 2 : /\b(three|3)\b/.test(text) ? 3 : 1 })
    case 'line': {
      const empty = /\b(empty|open)\b/.test(text)
      const bare = text.replace(/\bin (twos|fives|tens|ones)\b/g, '')
      const ends = numbersIn(tokens(uncounted(bare))).map((n) => n.value)
      const [from, to] = ends.length >= 2 ? [ends[0]!, ends[1]!] : ends.length === 1 ? [0, ends[0]!] : [0, 10]
      if (to <= from) return null
      return lay(mat, { from, to, every: empty ? 0 : (stepIn(text) ?? (to - from > 20 ? 10 : 1)) })
    }
    case 'square':
      return lay(mat, { from: /\bfrom (0|zero|nought)\b/.test(text) ? 0 : 1 })
    case 'scene':
      return lay(mat, { items: itemsIn(list) })
    case 'bowl':
    case 'spinner':
    case 'cards': {
      const texts = listOf(list || text)
      const items = texts.length
        ? texts.map((n) => ({ text: String(n), count: 1 }))
        : mat === 'cards'
          ? []
          : run(mat === 'bowl' ? 0 : 1, mat === 'bowl' ? 9 : 6).map((n) => ({ text: String(n), count: 1 }))
      return lay(mat, { items })
    }
    default:
      return lay(mat, { parts: numbers[0] ?? (mat === 'skittles' ? 10 : 2) })
  }
}
/** "3 letters, two birds and no cats" as names with counts, zero included. */
function itemsIn(list: string): { text: string; count: number }[] {
  return list
    .split(/,|\band\b/)
    .flatMap((part) => {
      const words = tokens(part)
      const none = words.indexOf('no')
      const found = none >= 0 ? { value: 0, to: none + 1 } : numbersIn(words)[0]
      const text = found ? words.slice(found.to).join(' ') : ''
      return found && text && found.value <= 20 ? [{ text: text.slice(0, 20), count: found.value }] : []
    })
    .slice(0, 6)
}

function readCards(text: string): Action | null {
  const quoted = text.match(/[“"']([^”"']+)[”"']/)?.[1]
  const texts = quoted ? quoted.split(/,\s*/) : listOf(text).map(String)
  return texts.length
    ? { type: 'show card', texts: texts.slice(0, 21), up: !/\bface down\b/.test(text) }
    : null
}

function readShare(text: string, numbers: readonly number[]): Action | null {
  const among = text.match(/\b(?:among|between|on to|onto|for|to) (.*)/)?.[1]
  const k = among ? countsIn(among)[0] : undefined
  if (k === undefined) return null
  return { type: 'share', count: numbers.length > 1 ? numbers[0]! : null, among: k }
}

function readHop(text: string): Action | null {
  const words = tokens(text)
  const found = numbersIn(words)
  const back = words.includes('back')
  const fromAt = words.indexOf('from')
  const from = fromAt >= 0 ? (readNumberAt(words, fromAt + 1)?.value ?? null) : null
  const toAt = words.indexOf('to')
  const to = toAt >= 0 ? (readNumberAt(words, toAt + 1)?.value ?? null) : null
  const by = found.find((n) => n.from !== fromAt + 1 && n.from !== toAt + 1)
  const unit = by ? { tens: 10, twos: 2, fives: 5, ones: 1 }[words[by.to] ?? ''] : undefined
  if (by && unit) return { type: 'hop', from, by: back ? -unit : unit, times: by.value }
  if (from !== null && to !== null) {
    const step = stepIn(text)
    if (step && to !== from && (to - from) % step === 0)
      return { type: 'hop', from, by: Math.sign(to - from) * step, times: Math.abs(to - from) / step }
    return { type: 'hop', from, by: to - from, times: 1 }
  }
  if (!by) return null
  const times = words[by.to] === 'times' ? by.value : 1
  return { type: 'hop', from, by: (back ? -1 : 1) * (times > 1 ? 1 : by.value), times }
}

function readDraw(text: string): Action {
  const texts = listOf(
    text.replace(/\b(from|out of) the (bowl|pack).*/, '').replace(/^draw (a|another) card/, ''),
  ).map(String)
  return { type: 'draw', texts, back: /\bback\b/.test(text), from: /\bbowl\b/.test(text) ? 'bowl' : 'cards' }
}

function readTake(text: string, numbers: readonly number[]): Action | null {
  const from = text.match(/\b(?:from|off|out of)\b(.*)/)?.[1]
  const fingers = /\bfingers?\b/.test(text)
  const target: Target = from ? targetIn(from) : fingers ? { mat: 'hands', region: null } : anywhere
  return one(numbers, (count) => ({
    type: 'take',
    count,
    target,
    face: /\bblue\b/.test(text) ? 'blue' : /\bsaffron\b/.test(text) ? 'saffron' : null,
  }))
}

/** "put 3 saffron and 4 blue on the frame", "put 3 and 4 on the dot card", "put 2 tens and 4 ones on the table". */
function readPut(text: string): Action[] | null {
  const whole = targetIn(
    text.match(/\b(?:on|in|into|onto|under|beside)\b (?:the |a |each )?(.*)$/)?.[1] ?? text,
  )
  const parts = text.split(/,| and (?!a half)/).filter((p) => countsIn(p).length > 0)
  if (!parts.length) return null
  return parts.map((part, i) => {
    const unit = /\btens\b|\bten[- ]sticks?\b/.test(part) ? 10 : 1
    const coin = part.match(/\bworth (\w+)/)
    const counts = countsIn(coin ? part.replace(coin[0], '') : part)
    const own =
      /\b(on|in|into|onto)\b/.test(part) && parts.length > 1 && i < parts.length - 1
        ? targetIn(part.match(/\b(?:on|in|into|onto)\b(.*)$/)![1]!)
        : whole
    const region =
      own.region ??
      (parts.length > 1 &&
      own.mat &&
      !['frame', 'row', 'jar', 'table', 'tower', 'rail', 'pairs', 'coins'].includes(own.mat)
        ? i
        : null)
    return {
      type: 'put',
      count: counts[0] ?? 1,
      face: faceIn(part),
      kind: coin ? 'coins' : kindIn(part),
      worth: coin ? (countsIn(coin[1]!)[0] ?? 1) : unit,
      target: { mat: own.mat ?? (coin ? 'coins' : null), region },
    } satisfies Action
  })
}

/**
 * Reads a `do` line as table-top actions: "put 7 on the frame", "turn over 3, then cover the frame", "hop 3 on
 * from 5". Several stand in one line, joined by "then", ";", a full stop or "and" before a verb. Returns null when
 * some part means no action the table knows.
 */
export function readActions(line: string): Action[] | null {
  const parts = line
    .toLowerCase()
    .split(
      /\s*(?:;|,? then |\. |,? and (?=(?:cover|uncover|turn over|cross|ring|shake|tip|hold|hop|jump|clear|split|share|take|put(?! (?:it|them) back))\b))\s*/,
    )
    .filter(Boolean)
  const actions: Action[] = []
  for (const part of parts) {
    const text = part.trim().replace(/[.!]$/, '')
    const reader = readers.find(([opening]) => opening.test(text))
    const read = reader?.[1](text, countsIn(text)) ?? null
    if (read === null) return null
    if (Array.isArray(read)) actions.push(...read)
    else actions.push(read)
  }
  return actions.length ? actions : null
}
