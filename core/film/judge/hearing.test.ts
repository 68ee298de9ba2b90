import { told as saidOf } from '../../findings/say.ts'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type HeardFinding, type HeardWord, plainCodes } from '../../contracts/heard.ts'
import type { Segment } from '../../contracts/lesson.ts'
import { seeded } from '../../plan/seeded.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { gainFor, levelsOf, levelsPerSecond, piecesOfSound, pieceSeconds } from '../ear/chunks.ts'
import { clapTimes } from './claps.ts'
import { lineState } from '../desk/corrections.ts'
import { hear } from './heard.ts'
import { captured } from '../ear/mic.ts'
import { agreedFindings, countsIn, doubtful, withSecond } from './second-ear.ts'
import { arpaModel, vocabularyOf } from '../ear/language-model.ts'
import { spokenLines } from '../follow/spoken.ts'
import { inPlace } from '../ear/utterances.ts'
import { warmSeconds, warmStretch } from '../ear/warm.ts'
import { longestSilence, soundEnd, unheardVoice, voicedIn, withinVoice } from '../ear/voiced.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const rate = 16_000
const segment = (body: string): Segment => {
  let n = 0
  return fromMarkdown(`# Post\n\n## Show {show}\n${body}`, () => `s${(n += 1)}`).lesson.segments[0]!
}
const counting = segment('Say: Bobbin has seven parcels.\nCount: 1 to 7\nSay: Four and three make seven.')
/** Words at a steady pace; "~3" is a silence, "<you" a word heard with hardly any confidence, "#0.4" a sound that was not understood. */
function told(text: string): { words: HeardWord[]; voiced: { from: number; to: number }[] } {
  let at = 0.5
  const words: HeardWord[] = []
  const voiced: { from: number; to: number }[] = []
  for (const t of text.split(' ')) {
    if (t.startsWith('~')) {
      at += Number(t.slice(1))
      continue
    }
    const long = t.startsWith('#') ? Number(t.slice(1)) : 0.4
    voiced.push({ from: at, to: at + long })
    if (!t.startsWith('#'))
      words.push({
        word: t.replace('<', ''),
        start: at,
        end: at + 0.35,
        confidence: t.startsWith('<') ? 0.2 : 1,
      })
    at += long + 0.4
  }
  return { words, voiced }
}
const slips = (s: Segment, text: string) => {
  const { words, voiced } = told(text)
  return hear(s, words, Math.max(words.at(-1)!.end, voiced.at(-1)!.to) + 1, {
    ...usual,
    voiced,
  }).findings.filter((f) => !plainCodes.has(f.code))
}
const codes = (s: Segment, text: string) => slips(s, text).map((f) => f.code)
const head = 'bobbin has seven parcels'
const tail = 'four and three make seven'

describe('sound without words', () => {
  test('a number that sounded and was not understood is not left out', () =>
    expect(codes(counting, `${head} one two three #0.4 five six seven ${tail}`)).toEqual([]))
  test('a number misheard as a word that rhymes is not left out', () =>
    expect(codes(counting, `${head} one <you three <or five six seven ${tail}`)).toEqual([]))
  test('one of two numbers missing is still found beside one misheard', () =>
    expect(
      slips(counting, `${head} one <you four five six seven ${tail}`).map((f) => [f.code, f.expected]),
    ).toEqual([['count-skip', '3']]))
  test('with nothing sounding in its place it is left out for certain', () =>
    expect(
      slips(counting, `${head} one two three five six seven ${tail}`).map((f) => [
        f.code,
        f.expected,
        f.certain,
      ]),
    ).toEqual([['count-skip', '4', true]]))
  test('the end of a count misheard is no early end; silence is', () => {
    expect(codes(counting, `${head} one two three four five six <heaven ${tail}`)).toEqual([])
    expect(codes(counting, `${head} one two three four five ~1.5 ${tail}`)).toEqual(['count-end'])
  })
  test('what is told of a count names numbers, also where sounds in it were not understood', () => {
    const told = [
      `${head} one #0.4 three nine #0.4 six seven ${tail}`,
      `${head} one two three four #0.4 ~1.5 ${tail}`,
      `${head} #0.4 two one #0.4 five six seven ${tail}`,
    ].flatMap((text) => slips(counting, text))
    expect(told.length).toBeGreaterThan(0)
    for (const f of told) expect(`${saidOf('take', f)} ${f.heard} ${f.expected}`).not.toContain('NaN')
  })
  test('a line mumbled is not called skipped; a line not said is', () => {
    expect(codes(counting, `${head} one two three four five six seven ~1 #1.2`)).toEqual([])
    expect(codes(counting, `${head} one two three four five six seven`)).toEqual(['line-skipped'])
  })
  test('words recognised where nothing sounds are let go', () => {
    const { words, voiced } = told(`${head} one two three four five six seven ${tail}`)
    const ghost = { word: 'if', start: 30, end: 30.2, confidence: 1 }
    expect(hear(counting, [...words, ghost], 31, { ...usual, voiced }).words).toHaveLength(words.length)
  })
})

describe('retries', () => {
  test.each([
    ['a line begun, then whole', `bobbin has ~0.5 ${head} one two three four five six seven ${tail}`],
    ['broken off with no, wait', `bobbin has no wait ~0.5 ${head} one two three four five six seven ${tail}`],
    ['a count begun again', `${head} one two four oops ~1 one two three four five six seven ${tail}`],
    [
      'words misheard alike both times',
      `robin has heaven ~0.6 robin has heaven parcels one two three four five six seven ${tail}`,
    ],
  ])('%s is one false start', (_, text) =>
    expect(
      codes(counting, text).filter(
        (c) => c === 'false-start' || c.startsWith('count') || c === 'line-skipped',
      ),
    ).toEqual(['false-start']),
  )
  test('a start broken off after a line left out is no scrap of that line', () => {
    const s = segment(
      'Say: Bobbin has six parcels for two houses and each must get the same.\nAsk: How many parcels for each house?\nWait: 5 s\nSay: Three each.',
    )
    expect(codes(s, 'half many parcels for ~0.5 how many parcels for each house ~5 three each')).toEqual(
      expect.arrayContaining(['line-skipped', 'false-start']),
    )
  })
  test.each([
    ['the last number again', `${head} one two three four five six seven seven ${tail}`],
    [
      'counting twice',
      `${head} one two three four five six seven let us count again one two three four five six seven ${tail}`,
    ],
    ['an answer repeated', `${head} one two three four five six seven ${tail} ~1 yes seven`],
    [
      'children copying each number',
      `${head} one one two two three three four four five five six six seven seven ${tail}`,
    ],
  ])('%s is no slip', (_, text) => expect(codes(counting, text)).toEqual([]))
  test('a mistake made on purpose is left alone', () =>
    expect(
      codes(
        segment('Say: Bobbin has seven parcels.\nCount!: 1 2 3 5 6 7\nSay: Four and three make seven.'),
        `${head} one two three five six seven ${tail}`,
      ),
    ).toEqual([]))
})

describe('another take altogether', () => {
  test('is said to be one, and gives no list of slips', () => {
    const h = hear(
      counting,
      told('the weather in the mountains will be cold with rain later on and strong wind').words,
      12,
      usual,
    )
    expect(h.note).toMatch(/another segment, another language, or music/)
    expect(h.findings).toEqual([])
    expect(h.quality).toBe(0)
  })
  test('a take with slips is still its own', () =>
    expect(hear(counting, told(`${head} one two four five`).words, 9, usual).note).toBeUndefined())
})

describe('two hearings', () => {
  const f = (code: HeardFinding['code'], start: number, certain = true): HeardFinding => ({
    code,
    start,
    end: start + 1,
    stepId: 'x',
    expected: '',
    heard: '',
    certain,
    params: {},
  })
  test('what both find is certain, what one finds is a doubt, and times may differ a little', () => {
    expect(agreedFindings([f('count-skip', 5)], [f('count-skip', 5.6)], []).map((x) => x.certain)).toEqual([
      true,
    ])
    expect(agreedFindings([f('count-skip', 5)], [], []).map((x) => x.certain)).toEqual([false])
    expect(agreedFindings([], [f('false-sentence', 9)], []).map((x) => [x.code, x.certain])).toEqual([
      ['false-sentence', false],
    ])
  })
  test('a doubt the second ear does not share goes where it heard the line as written, and stays where it did not', () => {
    const line = (status: 'said' | 'changed') => [
      { stepId: 'x', words: [{ word: 'four', at: 0, status }], start: 0, end: 1 },
    ]
    expect(agreedFindings([f('number-changed', 5, false)], [], line('said'))).toEqual([])
    expect(agreedFindings([f('number-changed', 5, false)], [], line('changed'))).toHaveLength(1)
  })
  test('silence needs no second ear', () =>
    expect(agreedFindings([f('dead-air', 5)], [], []).map((x) => x.certain)).toEqual([true]))
  test('a word cut through by the edge of a stretch stays as it was heard whole', () => {
    const w = (word: string, start: number, end: number): HeardWord => ({ word, start, end, confidence: 1 })
    const first = [w('one', 0, 0.5), w('four', 1.6, 2.3), w('two', 3, 3.4)]
    expect(
      withSecond(first, [w('won', 0.1, 0.5), w('to', 1.6, 1.95)], [{ from: 0, to: 1.9 }]).map((x) => x.word),
    ).toEqual(['won', 'four', 'two'])
  })
  test('only stretches around findings are heard again, none overlapping, and their words replace the first ones', () => {
    const words = told('one two ~4 three four ~9 five six ~9 seven eight').words
    const parts = doubtful(
      { words, findings: [f('count-skip', words[1]!.end), f('count-order', words[6]!.start)] },
      40,
    )
    expect(parts.length).toBeGreaterThan(0)
    parts.slice(1).forEach((p, i) => expect(p.from).toBeGreaterThan(parts[i]!.to))
    const again = [{ word: 'ten', start: parts[0]!.from + 0.1, end: parts[0]!.from + 0.3, confidence: 1 }]
    const merged = withSecond(words, again, parts)
    expect(merged.some((w) => w.word === 'ten')).toBe(true)
    expect(merged.filter((w) => w.start >= parts[0]!.from && w.end <= parts[0]!.to)).toEqual(again)
  })
})

describe('where there is voice', () => {
  const random = seeded(5)
  const noise = (seconds: number, strength: number) =>
    Int16Array.from({ length: seconds * rate }, () => Math.round((random(2001) / 1000 - 1) * strength))
  const joined = (...parts: Int16Array[]) => Int16Array.from(parts.flatMap((p) => [...p]))
  test.each([0, 30, 200])('is found over a floor of %d', (floor) => {
    const v = voicedIn(
      levelsOf(
        joined(noise(1, floor), noise(1, 6000), noise(2, floor), noise(0.5, 5000), noise(1, floor)),
        rate,
      ),
    )
    expect(v).toHaveLength(2)
    expect(v[0]!.from).toBeCloseTo(1, 1)
    expect(v[1]!.to).toBeCloseTo(4.5, 1)
  })
  test('voice with no words in it is counted, voice with words is not', () => {
    const voiced = [
      { from: 1, to: 2 },
      { from: 5, to: 6 },
    ]
    const word = { word: 'a', start: 1, end: 2, confidence: 1 }
    expect(unheardVoice(voiced, [word], 0, 10)).toBeCloseTo(1)
    expect(unheardVoice(voiced, [{ ...word, confidence: 0.1 }], 0, 10)).toBeCloseTo(2)
    expect(withinVoice(voiced, [word, { ...word, start: 3, end: 3.2 }])).toEqual([word])
    expect(longestSilence(voiced, 0, 10)).toEqual({ from: 6, to: 10 })
    expect(soundEnd(voiced, 1.5)).toBe(2)
    expect(soundEnd(voiced, 4)).toBe(4)
  })
  test('a long take is cut in its pauses, into pieces that cover it and are neither too short nor too long', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 30 }), fc.integer({ min: 1, max: 20 })), {
          minLength: 1,
          maxLength: 60,
        }),
        (parts) => {
          const levels = parts.flatMap(([loud, quiet]) => [
            ...Array<number>(loud * 20).fill(0.2),
            ...Array<number>(quiet * 10).fill(0.001),
          ])
          const pieces = piecesOfSound(levels)
          expect(pieces[0]!.from).toBe(0)
          expect(pieces.at(-1)!.to).toBeCloseTo(levels.length / levelsPerSecond)
          pieces.slice(1).forEach((p, i) => expect(p.from).toBe(pieces[i]!.to))
          pieces.forEach((p, i) => {
            expect(p.to - p.from).toBeLessThanOrEqual(pieceSeconds.most + 0.01)
            if (i < pieces.length - 1) expect(p.to - p.from).toBeGreaterThanOrEqual(pieceSeconds.least - 0.01)
          })
        },
      ),
      { numRuns: 60 },
    )
  })
  test('quiet takes are made louder, loud ones not, and none without limit', () => {
    expect(gainFor([0.01, 0.01, 0.01])).toBeCloseTo(14, 0)
    expect(gainFor([0.14, 0.14])).toBeCloseTo(1, 1)
    expect(gainFor([1e-6])).toBe(30)
    expect(gainFor([])).toBe(1)
  })
  test('a microphone is judged: nothing, too quiet, too noisy, clear', () => {
    const level = (voice: number, floor: number) =>
      Array.from({ length: 600 }, (_, i) => (i % 150 < 90 && i > 60 ? voice : floor))
    expect(captured(level(0.0001, 0.0001))).toMatchObject({ good: false, speech: null })
    expect(captured(level(0.12, 0.001))).toMatchObject({ good: true, advice: 'You are heard clearly.' })
    expect(captured(level(0.004, 0.0002)).advice).toMatch(/quiet/)
    expect(captured(level(0.8, 0.001)).advice).toMatch(/too loud/)
  })
})

describe('what stands by itself', () => {
  const said = (extra: string) =>
    slips(counting, `${head} ~1 ${extra} ~1 one two three four five six seven ~1 ${tail}`)
      .filter((f) => f.code === 'filler')
      .map((f) => [f.heard, f.certain])
  test('“oops” is told, heard with little confidence too, and always as a doubt', () => {
    expect(said('oops')).toEqual([['oops', false]])
    expect(said('<oops')).toEqual([['oops', false]])
  })
  test('a short word between silences that is in no script may be one', () =>
    expect(said('next')).toEqual([['next', false]]))
  test.each(['yes', 'good', 'here we go then', 'two'])(
    '“%s” is talk, praise or a number, and none',
    (extra) => expect(said(extra)).toEqual([]),
  )
  test('a sound that runs into what is said next stands by nothing', () => {
    const { words, voiced } = told(`${head} ~1 next one two three four five six seven ~1 ${tail}`)
    const joined = voiced.map((v) => ({ from: v.from, to: v.to + 0.4 }))
    expect(
      hear(counting, words, 20, { ...usual, voiced: joined }).findings.filter((f) => f.code === 'filler'),
    ).toEqual([])
  })
})

describe('how a line came out', () => {
  const states = (text: string) => {
    const { words, voiced } = told(text)
    const h = hear(counting, words, words.at(-1)!.end + 3, { ...usual, voiced })
    return h.lines.map((l) => lineState(h, l))
  }
  test('as written it is clear', () =>
    expect(states(`${head} one two three four five six seven ${tail}`)).toEqual(['clear', 'clear', 'clear']))
  test('a line mumbled is unclear, not a slip', () =>
    expect(states(`${head} one two three four five six seven ~1 #1.2`)).toEqual([
      'clear',
      'clear',
      'unclear',
    ]))
  test('a line with something found is a slip', () =>
    expect(states(`${head} one two four five six seven ${tail}`)).toEqual(['clear', 'slip', 'clear']))
})

describe('utterances dated too late', () => {
  const voiced = [
    [1, 1.5],
    [5, 5.5],
    [6.1, 6.5],
    [7.3, 7.8],
    [12, 12.6],
  ].map(([from, to]) => ({ from: from!, to: to! }))
  const said = (...words: [string, number, number][]): HeardWord[] =>
    words.map(([word, start, end]) => ({ word, start, end, confidence: 1 }))
  const late = (by: number) =>
    said(['one', 5 + by, 5.5 + by], ['two', 6.1 + by, 6.5 + by], ['three', 7.3 + by, 7.8 + by])
  const [before, after] = [said(['how', 1, 1.5]), said(['altogether', 12, 12.6])]
  test('are moved back to where something sounds, whole, between their neighbours', () => {
    const placed = inPlace([before, late(3.1), after], voiced)
    expect(placed.map((w) => w.word)).toEqual(['how', 'one', 'two', 'three', 'altogether'])
    expect(placed.map((w) => Math.round(w.start * 10) / 10)).toEqual([1, 5, 6.1, 7.3, 12])
  })
  test('collide with the next one though their words fall on sound: moved as well', () => {
    const placed = inPlace(
      [before, said(['one', 7.3, 7.8], ['two', 12, 12.6]), after],
      [
        { from: 1, to: 1.5 },
        { from: 2, to: 2.5 },
        { from: 6.7, to: 7.3 },
        { from: 7.3, to: 7.8 },
        { from: 12, to: 12.6 },
      ],
    )
    expect(placed[1]!.start).toBeCloseTo(2)
    expect(placed[2]!.end).toBeLessThanOrEqual(placed[3]!.start)
  })
  test('in their place they stay, and so do words where nothing better is found', () => {
    expect(inPlace([before, late(0), after], voiced)).toEqual([...before, ...late(0), ...after])
    expect(inPlace([late(30)], [])).toEqual(late(30))
    expect(inPlace([[], [], before], voiced)).toEqual(before)
  })
  test('for any shift that leaves them on silence, times come back', () =>
    fc.assert(
      fc.property(fc.double({ min: 1, max: 4, noNaN: true }), (by) => {
        const placed = inPlace([before, late(by)], voiced)
        const off = placed.slice(1).map((w, i) => Math.abs(w.start - [5, 6.1, 7.3][i]!))
        const onSound = late(by).reduce(
          (n, w) =>
            n +
            voiced.reduce((m, v) => m + Math.max(0, Math.min(w.end, v.to) - Math.max(w.start, v.from)), 0),
          0,
        )
        if (onSound < 0.3) off.forEach((x) => expect(x).toBeLessThan(0.05))
      }),
    ))
})

describe('the stretch a recogniser warms up on', () => {
  const levels = (parts: readonly [seconds: number, loud: number][]) =>
    parts.flatMap(([s, x]) => Array<number>(s * levelsPerSecond).fill(x))
  test('is the one with the most voice in it', () => {
    const w = warmStretch(
      levels([
        [20, 0.001],
        [3, 0.2],
        [20, 0.001],
        [14, 0.2],
        [10, 0.001],
      ]),
    )
    expect(w.from).toBeGreaterThanOrEqual(43)
    expect(w.to).toBeLessThanOrEqual(57)
    expect(w.to - w.from).toBeCloseTo(warmSeconds)
  })
  test('is all of a short take, and nothing of an empty one', () => {
    expect(
      warmStretch(
        levels([
          [2, 0.001],
          [3, 0.2],
        ]),
      ),
    ).toEqual({ from: 0, to: 5 })
    expect(warmStretch([])).toEqual({ from: 0, to: 0 })
  })
})

describe('claps', () => {
  const random = seeded(9)
  const silence = (seconds: number, floor = 8) =>
    Array.from({ length: Math.round(seconds * rate) }, () => random(2 * floor + 1) - floor)
  const clap = () =>
    Array.from({ length: rate * 0.1 }, (_, i) => (random(20_001) - 10_000) * Math.exp(-i / (rate * 0.012)))
  const vowel = (seconds: number) =>
    Array.from(
      { length: rate * seconds },
      (_, i) => 6000 * Math.sin(i / 12) * Math.min(1, i / 2000) + 2000 * Math.sin(i / 5),
    )
  test.each([1, 3, 7])('%d are counted', (n) => {
    const times = clapTimes(
      [...silence(0.6), ...Array.from({ length: n }, () => [...clap(), ...silence(0.35)]).flat()],
      rate,
    )
    expect(times).toHaveLength(n)
    expect(times[0]!).toBeCloseTo(0.6, 1)
  })
  test('speech is no clap', () =>
    expect(
      clapTimes([...silence(0.5), ...vowel(0.5), ...silence(0.4), ...vowel(0.8), ...silence(0.3)], rate),
    ).toEqual([]))
  test('in a script, more or fewer than written are told', () => {
    const s = segment('Say: Clap three times.\nSound: 3 claps\nSay: Three claps.')
    const { words } = told('clap three times ~4 three claps')
    const claps = (times: number[]) =>
      hear(s, words, 9, { ...usual, claps: times })
        .findings.filter((f) => f.code === 'clap-mismatch')
        .map((f) => [f.expected, f.heard])
    expect(claps([3, 3.5, 4])).toEqual([])
    expect(claps([3, 3.5])).toEqual([['3', '2']])
  })
})

describe('counts listened to by themselves', () => {
  const lines = spokenLines(counting, defaultHouseStyle)
  const { words } = told(`${head} one two three four five six seven ~1 ${tail}`)
  const h = hear(counting, words, 30, usual)
  test('lie between what other lines say, and hold the whole count', () => {
    const [piece] = countsIn(h, lines)
    const at = (word: string) => h.words.filter((w) => w.word === word)
    expect(countsIn(h, lines)).toHaveLength(1)
    expect(piece!.from).toBeGreaterThan(at('parcels')[0]!.end)
    expect(piece!.from).toBeLessThan(at('one')[0]!.start)
    expect(piece!.to).toBeGreaterThan(at('seven')[1]!.end)
    expect(piece!.to).toBeLessThan(at('four')[1]!.start)
  })
  test('a model of counts alone knows next to nothing but numbers; one of a whole segment knows talk', () => {
    const [alone, whole] = [vocabularyOf(lines.filter((l) => l.numbers)), vocabularyOf(lines)]
    expect(alone).toEqual(expect.arrayContaining(['six', 'oops', 'and']))
    expect(whole.length).toBeGreaterThan(alone.length * 4)
  })
  test('a sentence’s model also expects the numbers next to its own', () => {
    const arpa = arpaModel(lines, new Set(vocabularyOf(lines)))
    const bigrams = arpa.split('\\2-grams:')[1]!
    for (const pair of ['has six', 'has eight', 'make six']) expect(bigrams).toContain(` ${pair}\n`)
    expect(bigrams).not.toContain(' has twenty\n')
  })
})

describe('a number that goes on further than written', () => {
  test.each([
    ['Say: Nine and eleven make twenty.', 'nine and eleven make twenty one', '9 + 11 = 21'],
    ['Say: Twelve and nine make twenty-one.', 'twelve and nine make twenty two', '12 + 9 = 22'],
  ])('%s heard as %s', (script, text, heard) => {
    const words = text
      .split(' ')
      .map((word, i) => ({ word, start: i * 0.4, end: i * 0.4 + 0.35, confidence: 1 }))
    expect(hear(segment(script), words, 4, usual).findings.map((f) => [f.code, f.heard])).toEqual([
      ['false-sentence', heard],
    ])
  })
  test('as written it is no slip', () =>
    expect(
      codes(segment('Say: Twelve and nine make twenty-one.'), 'twelve and nine make twenty one'),
    ).toEqual([]))
})

describe('the words that are listened for follow the numbers of the segment', () => {
  const heardFor = (body: string): Set<string> =>
    new Set(vocabularyOf(spokenLines(segment(body), defaultHouseStyle)))
  const tens = ['thirty', 'forty', 'fifty', 'sixty', 'seventy', 'eighty', 'ninety']
  test.each([
    ['one that never says one', 'Say: Two and two make four.'],
    ['one to five', 'Count: 1 to 5'],
    ['to twelve', 'Count: 1 to 12'],
  ])('%s: every small number, no ten and no hundred', (_, body) => {
    const words = heardFor(body)
    for (const w of ['one', 'two', 'seven', 'ten', 'twelve', 'thirteen', 'twenty'])
      expect(words.has(w), w).toBe(true)
    for (const w of [...tens, 'hundred']) expect(words.has(w), w).toBe(false)
  })
  test.each([
    ['teens', 'Say: Thirteen parcels lie here.'],
    ['to twenty', 'Count: 1 to 20'],
    ['tens to fifty', 'Count: 10 to 50 in tens'],
  ])('%s: tens too, no hundred', (_, body) => {
    const words = heardFor(body)
    for (const w of ['one', ...tens]) expect(words.has(w), w).toBe(true)
    expect(words.has('hundred')).toBe(false)
  })
  test('tens to ninety: the hundred one may run on to', () => {
    const words = heardFor('Count: 10 to 90 in tens')
    for (const w of ['one', 'hundred', ...tens]) expect(words.has(w), w).toBe(true)
  })
})

describe('hundreds', () => {
  const tens = segment('Count: 10 to 100 in tens')
  const hundreds = segment('Count: 100 to 1000 in hundreds')
  test.each([
    ['one hundred', 'ten twenty thirty forty fifty sixty seventy eighty ninety one hundred'],
    ['with a pause in it', 'ten twenty thirty forty fifty sixty seventy eighty ninety one ~0.9 hundred'],
    ['its one lost', 'ten twenty thirty forty fifty sixty seventy eighty ninety hundred'],
    ['a hundred', 'ten twenty thirty forty fifty sixty seventy eighty ninety a hundred'],
  ])('%s ends a count in tens', (_, text) => expect(codes(tens, text)).toEqual([]))
  test('a ten left out before it is found', () =>
    expect(
      slips(tens, 'ten twenty thirty forty fifty sixty seventy eighty one hundred').map((f) => [
        f.code,
        f.expected,
      ]),
    ).toEqual([['count-skip', '90']]))
  test.each([
    ['a hundred down in tens', 'Count: 100 to 50 in tens', 'one hundred ninety eighty seventy sixty fifty'],
    [
      'past a hundred with no and',
      'Count: 98 to 103',
      'ninety eight ninety nine one hundred one hundred one one hundred two one hundred three',
    ],
  ])('%s', (_, body, text) => expect(codes(segment(body), text)).toEqual([]))
  test('to a thousand', () => {
    const names = ['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine'].map(
      (n) => `${n} hundred`,
    )
    expect(codes(hundreds, [...names, 'one thousand'].join(' '))).toEqual([])
  })
})

describe('which of lines that resemble each other is left out', () => {
  const alike = segment(
    'Say: Put five on the plate.\nSay: Put six on the plate.\nSay: Put nine in the jar by the door.\nSay: Now we close the shop.',
  )
  const skipped = (text: string) =>
    slips(alike, text)
      .filter((f) => f.code === 'line-skipped')
      .map((f) => [f.expected, f.certain])
  const [plate5, plate6, jar, shop] = [
    'put five on the plate',
    'put six on the plate',
    'put nine in the jar by the door',
    'now we close the shop',
  ]
  test('heard word for word, the other is left out', () =>
    expect(skipped(`${plate5} ~1.5 ${jar} ~1.5 ${shop}`)).toEqual([['Put six on the plate.', true]]))
  test('the word that tells them apart not heard, which of them it was is a doubt', () =>
    expect(skipped(`put on the plate ~1.5 ${jar} ~1.5 ${shop}`).map(([, certain]) => certain)).toEqual([
      false,
    ]))
  test('one that resembles none is left out for certain', () =>
    expect(skipped(`${plate5} ~1.5 ${plate6} ~1.5 ${shop}`)).toEqual([
      ['Put nine in the jar by the door.', true],
    ]))
  test('all said, none is', () => expect(skipped(`${plate5} ~1 ${plate6} ~1 ${jar} ~1 ${shop}`)).toEqual([]))
})
