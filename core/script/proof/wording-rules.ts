import type { HouseStyle } from '../../contracts/house-style.ts'
import { numbersIn, readNumberAt, tokens } from '../../plan/numbers/names.ts'
import { countedNames } from '../../plan/things.ts'
import { sentencesIn } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { showsSymbols } from '../template/lines.ts'
import { at, type Finding, type LineRule, type Rule } from './finding.ts'
import type { ScriptCode } from '../../findings/codes.ts'
import { capital } from '../../words.ts'

const speaks = (m: Moment): boolean =>
  ['say', 'ask', 'reveal', 'write', 'pause'].includes(m.step.verb) && !m.step.deliberate
const toChildren = (m: Moment): boolean => m.segment.audience === 'children'
const keepCase = (was: string, word: string): string => (/^[A-Z]/.test(was) ? capital(word) : word)
const swap = (m: Moment, found: RegExp, word: string) => ({
  kind: 'replace' as const,
  stepId: m.step.id,
  text: m.step.text.replace(found, (was) => keepCase(was, word)),
})

/** The word between two numbers that names an operation or a result, and how the house says it. */
const operations: readonly { is: string; house: (s: HouseStyle) => string; words: readonly string[] }[] = [
  { is: 'adding', house: (s) => s.add, words: ['plus', 'add', 'and'] },
  { is: 'taking away', house: (s) => s.takeAway, words: ['minus', 'subtract', 'take away'] },
  { is: 'result', house: (s) => s.equals, words: ['equals', 'makes', 'is the same as'] },
]
const numberEnds = (before: string): boolean => {
  const words = tokens(before)
  return words.length > 0 && numbersIn(words).at(-1)?.to === words.length
}
/** Only between numbers are "and", "add" and "makes" the names of operations; "plus", "minus" and "subtract" always are. */
function operationAt(text: string, word: string): RegExpExecArray | null {
  const found = new RegExp(`\\b${word}\\b`, 'i').exec(text)
  if (!found) return null
  if (['plus', 'minus', 'subtract'].includes(word)) return found
  const after = tokens(text.slice(found.index + found[0].length))
  const within = sentencesIn(text).length > 0
  return within &&
    numberEnds(text.slice(0, found.index)) &&
    (readNumberAt(after, 0) !== null || /^(_{2,}|□)$/.test(after[0] ?? ''))
    ? found
    : null
}

/** Operation words against the house's, one finding a word. */
export const houseWords: LineRule = (m, { style }) =>
  !speaks(m) || !toChildren(m) || m.step.verb === 'write'
    ? []
    : operations.flatMap(({ is, house, words }) => {
        const says = house(style)
        return words
          .filter((w) => w !== says)
          .flatMap((w) => {
            // "three and four" is how everybody joins parts; it is only another word for adding inside a whole sentence.
            if (
              w === 'and' &&
              !(
                /\b(equals|makes|is the same as|=)/i.test(m.step.text) &&
                sentencesIn(m.step.text).some((s) => / and /.test(s.text))
              )
            )
              return []
            const found = operationAt(m.step.text, w)
            if (!found || (says === 'equals' && w === 'makes' && !operationAt(m.step.text, 'makes')))
              return []
            return [
              at(
                m,
                'house-word',
                { word: w, house: says, operation: is },
                swap(m, new RegExp(`\\b${w}\\b`, 'i'), says),
              ),
            ]
          })
      })

const lessCounted = new RegExp(
  `\\bless (?=(?:parcels|things|dots|fingers|children|houses|doors|jumps|hops|${countedNames.join('|')})\\b)`,
  'i',
)
/** "Less" for things that are counted, where the house says "fewer"; numbers and amounts are less. */
export const fewer: LineRule = (m, { style }) => {
  if (style.fewer !== 'strict' || !speaks(m)) return []
  return lessCounted.test(m.step.text) ? [at(m, 'fewer-less', {}, swap(m, /\bless\b/i, 'fewer'))] : []
}

/** What pairs that make a total are called. */
export const pairsName: LineRule = (m, { style }) => {
  if (!speaks(m)) return []
  const names = ['number bonds', 'number bond', 'partners', 'part-part-whole']
  const ok = (w: string) =>
    w === style.pairsName || (style.pairsName === 'number bonds' && w === 'number bond')
  return names
    .filter((w) => !ok(w) && w !== 'partners')
    .flatMap((w) => {
      if (w === 'number bond' && /number bonds/i.test(m.step.text)) return []
      return new RegExp(`\\b${w}\\b`, 'i').test(m.step.text)
        ? [
            at(
              m,
              'pairs-name',
              { word: w, house: style.pairsName },
              swap(m, new RegExp(`\\b${w}\\b`, 'i'), style.pairsName),
            ),
          ]
        : []
    })
}

/** + − = shown to children before the house shows them. */
export const symbols: Rule = ({ moments, style, lesson }) => {
  if (showsSymbols(style, lesson.age)) return []
  return moments
    .filter((m) => m.step.verb === 'write' && toChildren(m) && /[+=]|\d\s*[-−–]/.test(m.step.text))
    .map((m) =>
      at(
        m,
        'symbol-stage',
        style.symbols === 'never' ? { case: 'never' } : { case: 'later', age: lesson.age },
        { kind: 'remove', stepId: m.step.id },
      ),
    )
}

/** The result on the left where the house keeps it on the right. */
export const unknownPlace: LineRule = (m, { style }) => {
  if (style.unknownAnywhere || !speaks(m)) return []
  const s = sentencesIn(m.step.text).find(
    (x) => (x.left.length === 1 && x.right.length > 1) || x.left.some((t) => t.value === null),
  )
  // "Seven is five and two" says what a number is made of; it is no result put first.
  const made =
    s &&
    / (is|are) (?!the same)/.test(s.text) &&
    !/\b(add|plus|minus|subtract|take away)\b|[+−-]/.test(s.text)
  return s && !made ? [at(m, 'unknown-left', {})] : []
}

/** How counting on is said. */
export const countingOn: LineRule = (m, { style }) => {
  const c = m.count
  if (!c || m.step.deliberate || m.segment.audience === 'adults') return []
  const held = m.before.held
  // "on from 5" is said by the house's rule wherever it is spoken; only numbers written out can go against it.
  if (
    style.countingOn === 'next' &&
    held !== null &&
    c.listed &&
    c.numbers[0] === held &&
    c.numbers[1] === held + 1
  ) {
    const text = m.step.text.replace(/^\s*(\d+|[a-z-]+)[,\s]+/i, '')
    return [
      at(
        m,
        'counting-on',
        { case: 'next', held, next: held + 1 },
        { kind: 'replace', stepId: m.step.id, text },
      ),
    ]
  }
  if (
    style.countingOn === 'held' &&
    held !== null &&
    c.onFrom === null &&
    c.numbers[0] === held + 1 &&
    c.numbers.length > 1
  ) {
    const text = m.step.text.replace(/^\s*(\d+|[a-z-]+)/i, `on from ${held}`)
    return [
      at(
        m,
        'counting-on',
        { case: 'held', held, next: held + 1 },
        { kind: 'replace', stepId: m.step.id, text },
      ),
    ]
  }
  return []
}

/** A word of the lesson's list used before the line that brings it in. */
export const newWords: Rule = ({ lesson, moments }) => {
  const out: Finding[] = []
  for (const { word } of lesson.words) {
    const use = new RegExp(`\\b${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\b`, 'i')
    const means = new RegExp(
      `\\b${word.replace(/[.*+?^${}()|[\]\\]/g, '\\$&')}\\b.{0,30}\\b(means|is when|is what|we say|the word)\\b|\\b(means|called|the word|we say|we call)\\b.{0,40}\\b${word}\\b`,
      'i',
    )
    const spoken = moments.filter(
      (m) => toChildren(m) && ['say', 'ask', 'reveal', 'pause'].includes(m.step.verb),
    )
    const first = spoken.find((m) => use.test(m.step.text))
    const brought = spoken.find((m) => means.test(m.step.text))
    if (first && brought && first !== brought && moments.indexOf(first) < moments.indexOf(brought))
      out.push(at(first, 'word-early', { case: 'later', word }))
    if (first && !brought) out.push(at(first, 'word-early', { case: 'never', word }))
  }
  return out
}

/** Praise for work a film has not seen, speed and rivalry, fingers forbidden, a helper called by one family's name. */
export const manners: LineRule = (m, { style }) => {
  if (!speaks(m)) return []
  const kinds: readonly {
    code: ScriptCode
    on: boolean
    found: RegExp
  }[] = [
    {
      code: 'praise-unseen',
      on: true,
      found:
        /\b(well done|good (job|work|girl|boy)|brilliant work|clever (girl|boy|you)|you (got it|were) right|i knew you could)\b/i,
    },
    {
      code: 'rivalry',
      on: !style.rivalry,
      found:
        /\b(who is the (fastest|quickest)|as fast as you can|be the first to|beat (your|the)|race (each other|your)|who (wins|won)|the winner)\b/i,
    },
    {
      code: 'fingers',
      on: true,
      found:
        /\b(no fingers|without (using )?(your )?fingers|don.t use your fingers|fingers (down|away), no counting)\b/i,
    },
    {
      code: 'helper-word',
      on: true,
      found:
        /\b(?:ask|with|show|tell|help) (your )?(mummy|mum|mom|daddy|dad|mother|father|parents?)\b|\b(your|with) (mummy|mum|daddy|dad) (and|or) (mummy|mum|daddy|dad)\b/i,
    },
  ]
  return kinds
    .filter((k) => k.on && k.found.test(m.step.text))
    .map((k) => at(m, k.code, k.code === 'helper-word' ? { helper: style.helper } : {}))
}
