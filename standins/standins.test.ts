import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { wavOf } from '@awlbox/core/film/ear/wav'
import { findExamples } from '@awlbox/core/plan/examples'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { slips, type Slip, standInVoices } from '@awlbox/core/contracts/stand-in'
import { labelledTake } from './camera/labelled.ts'
import { CannotSlip } from './camera/slips.ts'
import { type Beat, planTake } from './camera/takes.ts'
import { soundOf } from './voice/beats.ts'
import { standInPhoto } from './homes/photo.ts'
import { speak, speechRate } from './voice/speak.ts'

const aim = aimOf({ structure: 'parts', upTo: 7, count: 3 })
const found = findExamples(aim, { zero: false, seed: 1 })
if (!found.ok) throw new Error(found.conflict)
let n = 0
const lesson = fromTemplate({
  style: defaultHouseStyle,
  title: 'Post',
  ideaId: 'parts-7',
  age: 4,
  aim,
  examples: found.sets[0]!.examples,
  newId: () => `s${(n += 1)}`,
})
const show = lesson.segments.find((s) => s.kind === 'show')!
const words = (beats: readonly Beat[]) =>
  beats.flatMap((b) => (b.kind === 'say' ? b.words.split(' ') : [])).join(' ')
const plan = (asked: readonly Slip[], id = show.id, options = {}) =>
  planTake(lesson, id, defaultHouseStyle, asked, options)

describe('the stand-in camera', () => {
  test('says every line as written, waits as written, and shows the table change', () => {
    const { beats, labels } = plan([])
    expect(labels).toEqual([])
    expect(words(beats)).toMatch(
      /^bobbin has seven parcels to sort into two places one two three four five six seven how many/,
    )
    expect(new Set(beats.map((b) => b.table)).size).toBeGreaterThan(3)
    expect(
      beats
        .filter((b) => b.kind === 'silence')
        .reduce((s, b) => s + (b.kind === 'silence' ? b.seconds : 0), 0),
    ).toBeGreaterThan(15)
  })
  test('leaves out one number and says which', () => {
    const { beats, labels } = plan(['leave out a number'])
    const gone = Number(labels[0]!.planned)
    expect(gone).toBeGreaterThan(1)
    const said = ['one', 'two', 'three', 'four', 'five', 'six', 'seven']
    expect(words(beats)).toContain(said.filter((_, i) => i + 1 !== gone).join(' '))
  })
  test('starts a line twice', () => {
    const { beats, labels } = plan(['false start'])
    expect(labels.map((l) => l.slip)).toEqual(['false start'])
    expect(words(beats).length).toBeGreaterThan(words(plan([]).beats).length)
  })
  test('skips a line', () =>
    expect(words(plan(['skip a line']).beats).length).toBeLessThan(words(plan([]).beats).length))
  test('makes several slips in one take, each in a line of its own, and labels them all', () => {
    const asked: Slip[] = ['leave out a number', 'false start', 'dead air', 'wrong sentence']
    const { labels } = plan(asked, show.id, { seed: 4 })
    expect(labels.map((l) => l.slip).sort()).toEqual([...asked].sort())
  })
  test('a line left out at the very end is labelled too', () => {
    const found = Array.from({ length: 40 }, (_, seed) => plan(['skip a line'], show.id, { seed })).filter(
      ({ beats }) => beats.at(-1)!.labels.length > 0,
    )
    expect(found.length).toBeGreaterThan(0)
    for (let seed = 0; seed < 40; seed++)
      expect(plan(['skip a line'], show.id, { seed }).labels).toHaveLength(1)
  })
  test('the same seed slips in the same place', () =>
    expect(plan(['skip a line'], show.id, { seed: 9 })).toEqual(plan(['skip a line'], show.id, { seed: 9 })))
  test('says why it cannot slip', () => {
    const close = lesson.segments.find((s) => s.kind === 'close')!
    expect(() => plan(['leave out a number'], close.id)).toThrow(CannotSlip)
    expect(() => plan([], 'nowhere')).toThrow(CannotSlip)
  })
  test('every kind of slip finds its place in some lesson, at a time within the take', async () => {
    for (const [i, slip] of slips.entries()) {
      const take = await labelledTake(500 + i, slip)
      const mine = take.labels.filter((l) => l.slip === slip)
      expect(mine.length, slip).toBeGreaterThan(0)
      for (const l of mine) {
        expect(l.from).toBeGreaterThanOrEqual(0)
        expect(l.to).toBeLessThanOrEqual(take.samples.length / speechRate + 0.001)
        expect(l.to).toBeGreaterThanOrEqual(l.from)
      }
    }
  }, 120_000)
  test('silence that goes on too long is labelled from where the last sound ended', async () => {
    const { beats } = plan(['dead air'])
    const { labels, samples } = await soundOf(beats, 'rms')
    const l = labels[0]!
    expect(l.to - l.from).toBeGreaterThan(5)
    const loudest = samples
      .subarray(Math.ceil((l.from + 0.1) * speechRate), Math.floor((l.to - 0.1) * speechRate))
      .reduce((m, x) => Math.max(m, Math.abs(x)), 0)
    expect(loudest).toBeLessThan(200)
  })
})

describe('the stand-in voice', () => {
  test.each(standInVoices)('%s speaks', async (voice) => {
    const samples = await speak('seven parcels', voice)
    expect(samples.length / speechRate).toBeGreaterThan(0.4)
    expect(Math.max(...samples.subarray(0, 20_000))).toBeGreaterThan(2000)
  })
  test('a WAV carries its own length', () => {
    const wav = Buffer.from(wavOf(new Int16Array(160), speechRate))
    expect([wav.toString('latin1', 0, 4), wav.readUInt32LE(24), wav.readUInt32LE(40)]).toEqual([
      'RIFF',
      speechRate,
      320,
    ])
  })
})

describe('the stand-in homes’ photos', () => {
  test('are the same for the same seed but for the grain, and carry their orientation for the server to turn', async () => {
    const meta = await sharp(
      await standInPhoto({ saffron: 3, blue: 1, seed: 40, orientation: 6, width: 400 }),
    ).metadata()
    expect([meta.orientation, meta.width < meta.height]).toEqual([6, true])
  })
})
