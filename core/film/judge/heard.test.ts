import { defaultHouseStyle } from '../../contracts/house-style.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type HeardWord, plainCodes } from '../../contracts/heard.ts'
import type { Segment } from '../../contracts/lesson.ts'
import { findExamples } from '../../plan/examples.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { aimOf } from '../../plan/aim.ts'
import { fromTemplate } from '../../script/template/lesson.ts'
import { captionWords, readCaptions, toSrt, toVtt } from '../desk/captions.ts'
import { hearFree } from './free.ts'
import { hear } from './heard.ts'
import { arpaModel, vocabularyOf } from '../ear/language-model.ts'
import { pronounce } from '../ear/pronounce.ts'
import { spokenLines } from '../follow/spoken.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const segment = (body: string): Segment => {
  let n = 0
  return fromMarkdown(`# Post\n\n## Show {show}\n${body}`, () => `s${(n += 1)}`).lesson.segments[0]!
}
/** Words at a steady pace; "~3" is a silence of three seconds. */
function say(text: string, beat = 0.5): HeardWord[] {
  let at = 0.5
  const out: HeardWord[] = []
  for (const word of text.split(' ')) {
    if (word.startsWith('~')) {
      at += Number(word.slice(1))
      continue
    }
    out.push({ word, start: at, end: at + beat * 0.7, confidence: 1 })
    at += beat
  }
  return out
}
const heardIn = (s: Segment, text: string) => {
  const words = say(text)
  return hear(s, words, words.at(-1)!.end + 0.5, usual)
}
const slips = (s: Segment, text: string) =>
  heardIn(s, text)
    .findings.filter((f) => !plainCodes.has(f.code))
    .map((f) => f.code)
const counting = segment('Say: Bobbin has seven parcels.\nCount: 1 to 7\nSay: Four and three make seven.')
const perfect = 'bobbin has seven parcels one two three four five six seven four and three make seven'

describe('a take heard against its script', () => {
  test('as written: nothing', () => expect(slips(counting, perfect)).toEqual([]))
  test('sound-alikes are the same word', () =>
    expect(
      slips(counting, 'bobbin has seven parcels won to three for five six seven for and three make seven'),
    ).toEqual([]))
  test('a number left out is found where it is missing', () => {
    const h = heardIn(counting, perfect.replace(' five', ''))
    expect(h.findings.map((f) => [f.code, f.expected, f.certain])).toEqual([['count-skip', '5', true]])
    const [four, six] = [h.words.find((w) => w.word === 'four')!, h.words.find((w) => w.word === 'six')!]
    expect(h.findings[0]!.start).toBeCloseTo(four.end)
    expect(h.findings[0]!.end).toBeCloseTo(six.start)
  })
  test('a gap long enough for the number makes it a doubt', () => {
    const h = heardIn(counting, perfect.replace('four five six', 'four ~0.6 six'))
    expect(h.findings.map((f) => [f.code, f.certain])).toEqual([['count-skip', false]])
  })
  test('a line left out', () =>
    expect(slips(counting, 'bobbin has seven parcels one two three four five six seven')).toEqual([
      'line-skipped',
    ]))
  test('a number said twice, but not the last one said again', () => {
    expect(slips(counting, perfect.replace('three four five', 'three three four five'))).toEqual([
      'count-repeat',
    ])
    expect(slips(counting, perfect.replace('six seven', 'six seven seven'))).toEqual([])
  })
  test('a false start is found, its span proposed to go, and the retry is not a slip', () => {
    const h = heardIn(counting, 'bobbin has seven oops ~1 ' + perfect)
    expect(h.findings.map((f) => f.code)).toEqual(['false-start'])
    expect(h.drops).toHaveLength(1)
    const again = h.words.filter((w) => w.word === 'bobbin')[1]!
    expect(h.drops[0]!.from).toBeLessThanOrEqual(0.5)
    expect(h.drops[0]!.to).toBeLessThanOrEqual(again.start)
    expect(h.drops[0]!.to).toBeGreaterThan(again.start - 0.5)
  })
  test('a miscount begun again is one false start', () => {
    expect(
      slips(
        counting,
        'bobbin has seven parcels one two four oops ~1 one two three four five six seven four and three make seven',
      ),
    ).toEqual(['false-start'])
  })
  test('a changed number makes a false sentence', () =>
    expect(slips(counting, perfect.replace('make seven', 'make eight')).sort()).toEqual(['false-sentence']))
  test('thirteen for thirty is a doubt, not a slip', () => {
    const h = heardIn(segment('Say: Bobbin has thirty parcels today.'), 'bobbin has thirteen parcels today')
    expect(h.findings.map((f) => f.certain)).toEqual([false])
  })
  test('silence beyond what is written is dead air; the written wait is not', () => {
    const asked = segment('Ask: How many are there now?\nWait: 5 s\nReveal: There are seven of them.')
    expect(slips(asked, 'how many are there now ~5 there are seven of them')).toEqual([])
    expect(slips(asked, 'how many are there now ~12 there are seven of them')).toEqual(['dead-air'])
    expect(
      heardIn(asked, 'how many are there now ~12 there are seven of them').drops[0]!.to -
        heardIn(asked, 'how many are there now ~12 there are seven of them').drops[0]!.from,
    ).toBeGreaterThan(5)
  })
  test('a wait cut short', () => {
    const asked = segment('Ask: How many are there now?\nWait: 5 s\nReveal: There are seven of them.')
    expect(slips(asked, 'how many are there now ~1.5 there are seven of them')).toEqual(['wait-short'])
    expect(slips(asked, 'how many are there now there are seven of them')).toEqual(['answer-early'])
  })
  test('a take of silence says so and is not judged line by line', () => {
    const h = hear(counting, [], 20, usual)
    expect(h.findings.map((f) => f.code)).toEqual(['dead-air'])
    expect(h.quality).toBe(0)
  })
  test('a mistake on purpose is left alone', () => {
    const s = segment('Count: 1, 2, 4, 5 {on purpose}\nSay: What did I leave out here?')
    expect(slips(s, 'one two five what did i leave out here')).toEqual([])
  })
})

test('for any script, leaving one number out of a count is found, and said as written nothing is', () => {
  fc.assert(
    fc.property(
      fc.constantFrom('parts', 'add', 'take-away', 'count-on'),
      fc.integer({ min: 1, max: 40 }),
      fc.nat(),
      (structure, seed, pick) => {
        const aim = aimOf({ structure, upTo: 10 })
        const found = findExamples(aim, { zero: false, seed })
        if (!found.ok) return
        let n = 0
        const lesson = fromTemplate({
          style: defaultHouseStyle,
          title: 'Post',
          ideaId: 'parts-10',
          age: 4,
          aim,
          examples: found.sets[0]!.examples,
          newId: () => `s${(n += 1)}`,
        })
        for (const s of lesson.segments.filter((x) => x.kind === 'together')) {
          const lines = spokenLines(s, defaultHouseStyle)
          const speakAll = (out: number | null) =>
            lines
              .map(
                (l) =>
                  `~6 ${(l.numbers ? l.words.filter((_, i) => !(l === target && i === out)) : l.words).join(' ')}`,
              )
              .join(' ')
          const target = lines.find((l) => (l.numbers?.length ?? 0) >= 3)
          expect(
            hear(s, say(speakAll(null)), 200, usual).findings.filter(
              (f) => f.code !== 'dead-air' && !plainCodes.has(f.code),
            ),
          ).toEqual([])
          if (!target) continue
          const out = 1 + (pick % (target.numbers!.length - 2))
          expect(
            hear(s, say(speakAll(out)), 200, usual)
              .findings.filter((f) => f.code.startsWith('count'))
              .map((f) => [f.code, f.expected]),
          ).toEqual([['count-skip', String(target.numbers![out])]])
        }
      },
    ),
    { numRuns: 40 },
  )
})

describe('with no script', () => {
  const free = (text: string) => hearFree(say(text)).map((f) => f.code)
  test.each([
    'one two three four five',
    'ten nine eight seven six',
    'two four six eight ten',
    'ten twenty thirty forty',
    'one two three three',
    'we have two of them and one of those',
    'nine ten four and three make seven',
  ])('%s: nothing', (t) => expect(free(t)).toEqual([]))
  test.each([
    ['one two three five six', 'count-skip'],
    ['one two three three four five', 'count-repeat'],
    ['ten twenty forty fifty', 'count-skip'],
    ['four and three makes eight', 'false-sentence'],
    ['ten take away two equals seven', 'false-sentence'],
  ])('%s: %s', (t, code) => expect(free(t)).toEqual([code]))
  test('counting again is said plainly', () =>
    expect(free('one two three one two three four')).toEqual(['recount']))
})

describe('the language model', () => {
  const lines = spokenLines(counting, defaultHouseStyle)
  const known = new Set(vocabularyOf(lines))
  const arpa = arpaModel(lines, known)
  const p = (h: string, w: string) => {
    const line = arpa.split('\n').find((l) => l.split(' ').slice(1).join(' ') === `${h} ${w}`)
    return line ? 10 ** Number(line.split(' ')[0]) : 0
  }
  test('expects the next number most, and any other a little', () => {
    expect(p('four', 'five')).toBeGreaterThan(0.25)
    expect(p('four', 'six')).toBeGreaterThan(0)
    expect(p('four', 'five')).toBeGreaterThan(4 * p('four', 'six'))
    expect(p('four', 'six')).toBeGreaterThan(4 * p('four', 'two'))
  })
  test('its counts are those it declares, and single words sum to one', () => {
    const declared = Number(arpa.match(/ngram 1=(\d+)/)![1])
    const ones = arpa
      .split('\\2-grams:')[0]!
      .split('\n')
      .filter((l) => /^-?\d/.test(l))
    expect(ones).toHaveLength(declared)
    expect(
      ones.filter((l) => !l.includes('<s>')).reduce((s, l) => s + 10 ** Number(l.split(' ')[0]), 0),
    ).toBeCloseTo(1, 2)
  })
  test('words without a pronunciation are spelled from their parts or left out', () => {
    const dict: Record<string, string> = {
      post: 'P OW S T',
      man: 'M AE N',
      colour: '',
      color: 'K AH L ER',
      hop: 'HH AA P',
    }
    const look = (w: string) => dict[w] || undefined
    expect(pronounce('colour', look)).toBe('K AH L ER')
    expect(pronounce('hopping', look)).toBe('HH AA P IH NG')
    expect(pronounce('postman', look)).toBe('P OW S T M AE N')
    expect(pronounce('zzyzx', look)).toBeNull()
  })
})

describe('captions', () => {
  const cues = [
    { start: 0.5, end: 2, text: 'Four and three' },
    { start: 3661.25, end: 3662, text: 'make seven' },
  ]
  test('WebVTT and SRT read back what was written', () => {
    expect(readCaptions(toVtt(cues))).toEqual(cues)
    expect(readCaptions(toSrt(cues))).toEqual(cues)
  })
  test('words share a cue’s time, digits are spoken out', () => {
    const words = captionWords([{ start: 1, end: 3, text: '4 + 3 = 7' }])
    expect(words.map((w) => w.word)).toEqual(['four', 'add', 'three', 'equals', 'seven'])
    expect(words[0]!.start).toBe(1)
    expect(words.at(-1)!.end).toBeCloseTo(3)
  })
  test('what is no captions is said so', () => expect(() => readCaptions('hello')).toThrow(SyntaxError))
})
