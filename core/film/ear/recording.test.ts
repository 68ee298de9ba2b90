import { defaultHouseStyle } from '../../contracts/house-style.ts'
import { describe, expect, test } from 'vitest'
import { type HeardFinding, type HeardWord, heardCodes, plainCodes } from '../../contracts/heard.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { seeded } from '../../plan/seeded.ts'
import { judgeChannels, isTelephone } from './channels.ts'
import { corrected, heardIn, saidAsWritten } from '../desk/corrections.ts'
import { hear } from '../judge/heard.ts'
import { listen, type Listening, startListening } from './level.ts'
import { severities } from '../../contracts/finding.ts'
import { takeCodes } from '../../findings/codes.ts'
import { partsFromMarks } from '../desk/sort-clip.ts'
import { wavOf } from './wav.ts'

const usual = { style: defaultHouseStyle, age: 4 }

describe('a microphone listened to', () => {
  const rate = 48_000
  const random = seeded(3)
  const noise = (seconds: number, strength: number) =>
    Array.from({ length: Math.round(seconds * rate) }, () => ((random(2001) - 1000) / 1000) * strength)
  const clap = (strength = 0.8) =>
    Array.from(
      { length: rate * 0.1 },
      (_, i) => ((random(2001) - 1000) / 1000) * strength * Math.exp(-i / (rate * 0.014)),
    )
  const word = (seconds: number) =>
    Array.from(
      { length: rate * seconds },
      (_, i) => 0.5 * Math.sin(i / 40) * Math.min(1, i / 500, (rate * seconds - i) / 2000),
    )
  /** Looks at a stretch of sound 25 times a second. */
  const run = (...parts: number[][]): Listening[] => {
    const all = parts.flat()
    let l = startListening()
    return Array.from(
      { length: Math.floor((all.length - 2048) / 1920) },
      (_, i) => (l = listen(l, all.slice(i * 1920, i * 1920 + 2048), i * 0.04)),
    )
  }
  test('a room is no voice; a voice over it is', () => {
    expect(run(noise(2, 0.01)).at(-1)!.now.speaking).toBe(false)
    expect(run(noise(2, 0.01), word(0.5)).at(-1)!.now.speaking).toBe(true)
  })
  test('a loud room becomes the floor, and is no voice any more', () => {
    const all = run(noise(40, 0.12))
    expect(all[0]!.now.speaking).toBe(true)
    expect(all.at(-1)!.now.speaking).toBe(false)
  })
  test('silence is never speech, whatever the floor', () =>
    expect(run(noise(2, 0)).at(-1)!.now).toEqual({ level: 0, speaking: false, clipped: false }))
  test('too loud is said for two seconds', () => {
    const all = run(noise(0.2, 2), noise(3, 0.1))
    expect(all[0]!.now.clipped).toBe(true)
    expect(all[40]!.now.clipped).toBe(true)
    expect(all.at(-1)!.now.clipped).toBe(false)
  })
  const marks = (...parts: number[][]) => run(...parts).filter((l) => l.doubleClap).length
  const room = (seconds: number) => noise(seconds, 0.005)
  test.each([0.2, 0.3, 0.5, 0.65])(
    'two claps %d seconds apart mark a slip, once, wherever they fall',
    (apart) => {
      for (const start of [0.5, 0.513, 0.527])
        expect(marks(room(start), clap(), room(apart), clap(), room(1))).toBe(1)
    },
  )
  test('softer ones, too', () => expect(marks(room(0.5), clap(0.35), room(0.3), clap(0.35), room(1))).toBe(1))
  test('three claps mark one slip', () =>
    expect(marks(room(0.5), clap(), room(0.3), clap(), room(0.3), clap(), room(2))).toBe(1))
  test('one clap, two far apart, and words quick or slow mark none', () => {
    expect(marks(room(0.5), clap(), room(2))).toBe(0)
    expect(marks(room(0.5), clap(), room(1.5), clap(), room(1))).toBe(0)
    expect(
      marks(room(0.5), ...Array.from({ length: 6 }, () => [...word(0.35), ...room(0.25)]), room(1)),
    ).toBe(0)
    expect(marks(room(0.5), ...Array.from({ length: 6 }, () => [...word(0.25), ...room(0.1)]), room(1))).toBe(
      0,
    )
  })
})

describe('how a clip’s sound was recorded', () => {
  const stereo = { channels: 2, rate: 48_000 }
  test.each([
    ['alike in both ears', { left: 5, right: 5, both: 10 }, 'both', 0],
    ['a little louder in one', { left: 9, right: 3, both: 10 }, 'both', 0],
    ['in the left only', { left: 5, right: 0.001, both: 2.5 }, 'left', 1],
    ['in the right only', { left: 0, right: 5, both: 2.5 }, 'right', 1],
    ['cancelling out', { left: 5, right: 5, both: 0.01 }, 'left', 1],
    ['silent', { left: 0, right: 0, both: 0 }, 'both', 0],
  ] as const)('%s', (_, energies, used, notes) => {
    const s = judgeChannels(stereo, energies)
    expect(s).toMatchObject({ used, channels: 2, rate: 48_000 })
    expect(s.notes).toHaveLength(notes)
  })
  test.each([
    [8000, true],
    [11_025, true],
    [16_000, false],
    [96_000, false],
    [0, false],
  ])('%d samples a second is telephone sound: %s', (rate, phone) => {
    expect(isTelephone({ rate })).toBe(phone)
    expect(judgeChannels({ channels: 1, rate }, null).notes).toHaveLength(phone ? 1 : 0)
  })
})

describe('a recording straight through', () => {
  const at = (t: number, segmentId: string) => ({ kind: 'segment' as const, at: t, segmentId })
  test('is parted where the prompter went on; the first part begins with the recording', () =>
    expect(partsFromMarks([at(1, 'a'), at(20, 'b')], 50)).toEqual([
      { segmentId: 'a', from: 0, to: 20 },
      { segmentId: 'b', from: 20, to: 50 },
    ]))
  test('what was said in a call before and after the lesson is in no part', () => {
    const lesson = { kind: 'within' as const, at: 10, to: 40 }
    expect(partsFromMarks([lesson, at(10, 'a'), at(20, 'b')], 50).map((p) => [p.from, p.to])).toEqual([
      [10, 20],
      [20, 40],
    ])
  })
  test('a segment only passed through is no part', () =>
    expect(partsFromMarks([at(0, 'a'), at(20, 'b'), at(21, 'c')], 50).map((p) => p.segmentId)).toEqual([
      'a',
      'c',
    ]))
  test('going back gives a second take; other marks and their order do not matter', () =>
    expect(
      partsFromMarks([at(30, 'a'), { kind: 'slip', at: 5, by: 'key' }, at(15, 'b'), at(0, 'a')], 50).map(
        (p) => [p.segmentId, p.from],
      ),
    ).toEqual([
      ['a', 0],
      ['b', 15],
      ['a', 30],
    ]))
  test('without marks there are none', () =>
    expect(partsFromMarks([{ kind: 'slip', at: 5, by: 'clap' }], 50)).toEqual([]))
})

describe('saying that a line was said as written', () => {
  let n = 0
  const segment = fromMarkdown(
    '# P\n\n## Show {show}\nSay: Bobbin has seven parcels.\nCount: 1 to 5\nSay: Five in all, then.',
    () => `s${(n += 1)}`,
  ).lesson.segments[0]!
  const said = (text: string): HeardWord[] =>
    text.split(' ').map((word, i) => ({ word, start: i * 0.5, end: i * 0.5 + 0.4, confidence: 1 }))
  const after = (text: string) => {
    const words = said(text)
    const h = hear(segment, words, 12, usual)
    const slip = h.findings.find((f) => !plainCodes.has(f.code))!
    const c = saidAsWritten(h, slip)!
    return {
      slip,
      c,
      again: hear(segment, corrected(words, [c]), 12, usual).findings.filter((f) => !plainCodes.has(f.code)),
    }
  }
  test.each([
    ['a number of a count', 'bobbin has seven parcels one two four five five in all then', 'count-skip'],
    [
      'a number in a line',
      'bobbin has eleven parcels one two three four five five in all then',
      'number-changed',
    ],
    ['a line', 'bobbin has seven parcels one two three four five', 'line-skipped'],
  ])('puts right %s', (_, text, code) => {
    const { slip, again } = after(text)
    expect(slip.code).toBe(code)
    expect(again).toEqual([])
  })
  test('carries what was heard, so that it can be learnt from and taken back', () => {
    const { c } = after('bobbin has eleven parcels one two three four five five in all then')
    expect(c).toMatchObject({ from: 0, heard: 'bobbin has eleven parcels', said: 'bobbin has seven parcels' })
    expect(c.to).toBeCloseTo(1.9)
  })
  test('what lies between two matched words was heard in the line too; a line not heard has nothing', () => {
    const h = hear(segment, said('bobbin really has seven parcels one two three four five'), 12, usual)
    expect(heardIn(h, h.lines[0]!)!.words).toBe('bobbin really has seven parcels')
    expect(heardIn(h, h.lines[2]!)).toBeNull()
  })
  test('a finding of no line cannot be put right by a line', () =>
    expect(
      saidAsWritten({ words: [], lines: [] }, {
        code: 'pace',
        start: 0,
        end: 1,
        stepId: null,
        expected: '',
        heard: '',
        certain: true,
        params: {},
      } satisfies HeardFinding),
    ).toBeNull())
  test('where nothing can be certain nothing is', () => {
    const found = hear(segment, said('bobbin has seven parcels one two four five five in all then'), 12, {
      ...usual,
      unsure: true,
    }).findings
    expect(found.length).toBeGreaterThan(0)
    expect(found.filter((f) => f.certain)).toEqual([])
  })
})

test('every code has a severity, and exactly the plain ones are only information', () => {
  for (const code of heardCodes) expect(severities).toContain(takeCodes[code])
  expect(heardCodes.filter((c) => takeCodes[c] === 'info')).toEqual(
    heardCodes.filter((c) => plainCodes.has(c)),
  )
})

test('a WAV file says how long it is, and holds its samples as they were', () => {
  const wav = wavOf(Int16Array.from([0, 1, -1, 32_767, -32_768]), 16_000)
  const view = new DataView(wav.buffer)
  expect(new TextDecoder().decode(wav.subarray(0, 4)) + new TextDecoder().decode(wav.subarray(8, 12))).toBe(
    'RIFFWAVE',
  )
  expect([view.getUint32(4, true), view.getUint32(24, true), view.getUint32(40, true)]).toEqual([
    wav.length - 8,
    16_000,
    10,
  ])
  expect([0, 1, 2, 3, 4].map((i) => view.getInt16(44 + i * 2, true))).toEqual([0, 1, -1, 32_767, -32_768])
})
