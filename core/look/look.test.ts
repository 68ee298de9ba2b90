import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { PackTask } from '../contracts/pack.ts'
import { checkAnswer, photoCheck, photoSentence } from './answers.ts'
import { readTypedNumber } from './typed-number.ts'
import { readPhoto } from './photo/read.ts'

describe('numbers as homes write them', () => {
  test.each([
    ['7', 7],
    ['7 ', 7],
    [' 7', 7],
    ['seven', 7],
    ['Seven', 7],
    ['twenty-one', 21],
    ['٧', 7],
    ['७', 7],
    ['７', 7],
    ['١٢', 12],
    ['7 parcels', 7],
    ['0', 0],
    ['nothing', 0],
  ])('%j is %i', (text, n) => expect(readTypedNumber(text)).toBe(n))
  test.each(['-3', '1e9', '🙂', '', '   ', '3 or 4', '7.5', '12345', 'parcels', '٧٧٧٧٧٧', '= 7'])(
    '%j is no counting number',
    (text) => expect(readTypedNumber(text)).toBeNull(),
  )
})

describe('answers', () => {
  const number: PackTask = { id: 't', prompt: '', spec: { kind: 'number', answer: 4 } }
  test('a blank is left open, not a nought', () => {
    const zero: PackTask = { id: 't', prompt: '', spec: { kind: 'number', answer: 0 } }
    expect(checkAnswer(zero, undefined).verdict).toBe('open')
    expect(checkAnswer(zero, { taskId: 't', kind: 'number', text: '  ' }).verdict).toBe('open')
    expect(checkAnswer(zero, { taskId: 't', kind: 'number', text: '0' }).verdict).toBe('right')
  })
  test('what cannot be read is for the eye, not wrong', () =>
    expect(checkAnswer(number, { taskId: 't', kind: 'number', text: '🙂' }).verdict).toBe('look'))
  test('a wrong number says what was asked', () =>
    expect(checkAnswer(number, { taskId: 't', kind: 'number', text: '5' })).toEqual({
      verdict: 'wrong',
      shown: '5',
      why: '4 was asked',
    }))
  const reading = (count: number, low = count, high = count) => ({
    width: 10,
    height: 10,
    count,
    low,
    high,
    groups: [{ colour: 'yellow', count }],
    places: [],
    things: [],
    warnings: [],
  })
  test('finding nothing proves nothing, and a doubtful count is looked at', () => {
    expect(photoCheck(0, reading(0)).verdict).toBe('look')
    expect(photoCheck(7, reading(7, 6, 8)).verdict).toBe('look')
    expect(photoCheck(7, reading(7)).verdict).toBe('right')
    expect(photoCheck(7, reading(6)).verdict).toBe('wrong')
    expect(photoSentence(7, reading(0))).toMatch(/no proof/)
  })
})

/** A plain drawn picture: discs on a ground with a lamp's fall-off. */
function picture(
  w: number,
  h: number,
  discs: { x: number; y: number; r: number; c: [number, number, number] }[],
  ground: [number, number, number] = [190, 165, 130],
  light = 1,
): Uint8ClampedArray {
  const px = new Uint8ClampedArray(w * h * 4)
  for (let y = 0; y < h; y++)
    for (let x = 0; x < w; x++) {
      const lamp = light * (1 - 0.45 * (((x - w * 0.3) / w) ** 2 + ((y - h * 0.3) / h) ** 2))
      const d = discs.find((q) => (x - q.x) ** 2 + (y - q.y) ** 2 <= q.r ** 2)
      const shadow =
        !d && discs.some((q) => (x - q.x - q.r * 0.25) ** 2 + (y - q.y - q.r * 0.3) ** 2 <= q.r ** 2)
          ? 0.72
          : 1
      const grain = ((x * 7919 + y * 104729) % 17) - 8
      for (let k = 0; k < 3; k++)
        px[(y * w + x) * 4 + k] = ((d ? d.c : ground)[k]! * shadow + grain * 0.5) * lamp
      px[(y * w + x) * 4 + 3] = 255
    }
  return px
}
const yellow: [number, number, number] = [232, 178, 28]
const blue: [number, number, number] = [44, 104, 166]

describe('an answer with several right ones, or none', () => {
  const asked = (spec: PackTask['spec']): PackTask => ({ id: 't', prompt: '', spec })
  const typed = (text: string) => ({ taskId: 't', kind: 'number' as const, text })
  const chosen = (choice: number) => ({ taskId: 't', kind: 'choice' as const, choice })
  test('each right number is right, and a wrong one is told all of them', () => {
    const task = asked({ kind: 'number', answer: 6, also: [7] })
    expect(['6', '7', '8'].map((t) => checkAnswer(task, typed(t)).verdict)).toEqual([
      'right',
      'right',
      'wrong',
    ])
    expect(checkAnswer(task, typed('8')).why).toBe('6 or 7 was asked')
  })
  test('each right choice is right', () => {
    const task = asked({ kind: 'choice', choices: ['4 + 4', '5 + 2', '6 + 2'], answer: 0, also: [2] })
    expect([0, 1, 2].map((c) => checkAnswer(task, chosen(c)).verdict)).toEqual(['right', 'wrong', 'right'])
  })
  test('where nothing is checked a person looks; left open stays left open', () => {
    const task = asked({ kind: 'choice', choices: ['pegs', 'spoons'], answer: 0, unchecked: true })
    expect([checkAnswer(task, chosen(1)).verdict, checkAnswer(task, undefined).verdict]).toEqual([
      'look',
      'open',
    ])
  })
})

describe('counting things in a picture', () => {
  test('any number of discs, apart, on any of several grounds, is counted and coloured', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 10 }),
        fc.integer({ min: 0, max: 10 }),
        fc.constantFrom<[number, number, number]>([190, 165, 130], [143, 163, 154], [225, 220, 210]),
        fc.double({ min: 0.7, max: 1.1, noNaN: true }),
        (n, blues, ground, light) => {
          const discs = Array.from({ length: n }, (_, i) => ({
            x: 90 + (i % 5) * 95,
            y: 110 + Math.floor(i / 5) * 120,
            r: 26 + (i % 3),
            c: i < blues ? blue : yellow,
          }))
          const r = readPhoto(picture(560, 400, discs, ground, light), 560, 400)
          expect(r.count).toBe(n)
          const b = Math.min(n, blues)
          expect(Object.fromEntries(r.groups.map((g) => [g.colour, g.count]))).toEqual({
            ...(b ? { blue: b } : {}),
            ...(n - b ? { yellow: n - b } : {}),
          })
          for (const t of r.things) expect(discs.some((d) => Math.hypot(d.x - t.x, d.y - t.y) < 8)).toBe(true)
        },
      ),
      { numRuns: 25 },
    )
  })
  test('touching things are parted, or their number lies in the range', () => {
    const row = [0, 1, 2, 3].map((i) => ({ x: 120 + i * 56, y: 200, r: 29, c: yellow }))
    const apart = [
      { x: 450, y: 90, r: 29, c: yellow },
      { x: 450, y: 300, r: 29, c: yellow },
    ]
    const r = readPhoto(picture(560, 400, [...row, ...apart]), 560, 400)
    expect(r.low).toBeLessThanOrEqual(6)
    expect(r.high).toBeGreaterThanOrEqual(6)
    expect(r.warnings).toContain('touching')
  })
  test('a bare table gives none and says so', () =>
    expect(readPhoto(picture(400, 300, []), 400, 300)).toMatchObject({
      count: 0,
      warnings: expect.arrayContaining(['nothing found']) as string[],
    }))
  test('a thing at the edge is cut off and may not count', () => {
    const r = readPhoto(
      picture(500, 400, [
        { x: 2, y: 200, r: 28, c: blue },
        { x: 200, y: 200, r: 28, c: blue },
        { x: 300, y: 120, r: 28, c: blue },
      ]),
      500,
      400,
    )
    expect(r.things.filter((t) => t.cutOff)).toHaveLength(1)
    expect(r.low).toBeLessThan(r.high)
  })
  test('a dark photo is called dark', () =>
    expect(
      readPhoto(picture(400, 300, [{ x: 200, y: 150, r: 28, c: yellow }], [60, 50, 40], 0.5), 400, 300)
        .warnings,
    ).toContain('dark'))
  test('pixels that do not fit the size are refused', () =>
    expect(() => readPhoto(new Uint8Array(10), 4, 4)).toThrow(RangeError))
})
