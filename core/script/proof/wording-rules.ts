import type { HouseStyle } from '../../contracts/house-style.ts'
import { numbersIn, readNumberAt, tokens } from '../../plan/numbers/names.ts'
import { countedNames } from '../../plan/things.ts'
import { sentencesIn } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { showsSymbols } from '../template/lines.ts'
import { at, type Finding, type LineRule, type Rule } from './finding.ts'
import { capital } from '../../words.ts'

const speaks = (m: Moment): boolean =>
  ['say', 'ask', 'reveal', 'write', 'pause'].includes(m.step.verb) && !m.step.deliberate
const toChildren = (m: Moment): boolean => m.segment.audience === 'children'
const keepCase = (was: string, word: string): string => (/^[A-Z]/.test(was) ? capital(word) : word)
const swap = (m: Moment, found: RegExp, word: string) => ({
  label: `Say “${word}”`,
  kind: 'replace' as const,
  stepId: m.step.id,
  text: m.step.text.replace(found, (was) => keepCase(was, word)),
})

/** The word between two numbers that names an operation or a result, and how the house says it. */
const operations: readonly { is: string; house: (s: HouseStyle) => string; words: readonly string[] }[] = [
  { is: 'adding', house: (s) => s.add, words: ['plus', 'add', 'and'] },
  { is: 'taking away', house: (s) => s.takeAway, words: ['minus', 'subtract', 'take away'] },
  { is: 'the result', house: (s) => s.equals, words: ['equals', 'makes', 'is the same as'] },
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
                'tidy',
                `“${w}” is used; this setting says “${says}” for ${is}.`,
                'One word for one thing, until it is secure.',
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
  return lessCounted.test(m.step.text)
    ? [
        at(
          m,
          'fewer-less',
          'tidy',
          '“Less” is said of things that are counted; this setting says “fewer”.',
          'Fewer for what you count, less for what you do not.',
          swap(m, /\bless\b/i, 'fewer'),
        ),
      ]
    : []
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
              'tidy',
              `“${w}” is used; this setting calls them “${style.pairsName}”.`,
              'One name for one thing.',
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
        'tidy',
        style.symbols === 'never'
          ? 'Signs are written; this setting shows none.'
          : `Signs are written; at ${lesson.age} this setting waits until the words are secure.`,
        'Say it in words and write numerals alone.',
        { label: 'Leave this line out', kind: 'remove', stepId: m.step.id },
      ),
    )
}

/** The result on the left where the house keeps it on the right. */
export const unknownPlace: LineRule = (m, { style }) => {
  if (style.unknownAnywhere || !speaks(m)) return []
  const s = sentencesIn(m.step.text).find(
    (x) => (x.left.length === 1 && x.right.length > 1) || x.left.some((t) => t.value === null),
  )
  return s
    ? [
        at(
          m,
          'unknown-left',
          'tidy',
          'The result or the unknown stands on the left; this setting keeps the result on the right.',
          'House style.',
        ),
      ]
    : []
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
        'tidy',
        `The count says the held ${held} first; this setting's first number is the next one, ${held + 1}.`,
        'One rule for prompter, film and home.',
        { label: `Count ${text}`, kind: 'replace', stepId: m.step.id, text },
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
        'tidy',
        `The count starts at ${held + 1}; this setting says the held number ${held} first.`,
        'One rule for prompter, film and home.',
        { label: `Count ${text}`, kind: 'replace', stepId: m.step.id, text },
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
      out.push(
        at(
          first,
          'word-early',
          'risky',
          `“${word}” is used here and brought in only later.`,
          'Bring a word in before it is used.',
        ),
      )
    if (first && !brought)
      out.push(
        at(
          first,
          'word-early',
          'risky',
          `“${word}” is new in this lesson and never said what it means.`,
          `Say it once: “${capital(word)} means …”, with its gesture.`,
        ),
      )
  }
  return out
}

/** Praise for work a film has not seen, speed and rivalry, fingers forbidden, a helper called by one family's name. */
export const manners: LineRule = (m, { style }) => {
  if (!speaks(m)) return []
  const kinds: readonly {
    code: string
    on: boolean
    found: RegExp
    what: string
    why: string
    say?: string
  }[] = [
    {
      code: 'praise-unseen',
      on: true,
      found:
        /\b(well done|good (job|work|girl|boy)|brilliant work|clever (girl|boy|you)|you (got it|were) right|i knew you could)\b/i,
      what: 'Praise for work the film has not seen.',
      why: 'Name what was done instead: “You counted with me.”',
    },
    {
      code: 'rivalry',
      on: !style.rivalry,
      found:
        /\b(who is the (fastest|quickest)|as fast as you can|be the first to|beat (your|the)|race (each other|your)|who (wins|won)|the winner)\b/i,
      what: 'Speed or winning is asked for; this setting plays without.',
      why: 'House style.',
    },
    {
      code: 'fingers',
      on: true,
      found:
        /\b(no fingers|without (using )?(your )?fingers|don.t use your fingers|fingers (down|away), no counting)\b/i,
      what: 'Fingers are forbidden here.',
      why: 'Fingers are a way of working, never a fault.',
    },
    {
      code: 'helper-word',
      on: true,
      found:
        /\b(?:ask|with|show|tell|help) (your )?(mummy|mum|mom|daddy|dad|mother|father|parents?)\b|\b(your|with) (mummy|mum|daddy|dad) (and|or) (mummy|mum|daddy|dad)\b/i,
      what: 'Not every child has this helper.',
      why: `Say “${style.helper}”.`,
    },
  ]
  return kinds
    .filter((k) => k.on && k.found.test(m.step.text))
    .map((k) => at(m, k.code, k.code === 'helper-word' ? 'tidy' : 'risky', k.what, k.why))
}
