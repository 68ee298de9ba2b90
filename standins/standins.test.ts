import sharp from 'sharp'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { findExamples } from '@awlbox/core/plan/examples'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { type Beat, CannotSlip, planTake } from './camera/takes.ts'
import { standInPhoto } from './homes/photo.ts'
import { speak, speechRate, toWav, voices } from './voice/speak.ts'

const aim = aimOf({ structure: 'parts', upTo: 7, count: 3 })
const found = findExamples(aim, { zero: false, seed: 1 })
if (!found.ok) throw new Error(found.conflict)
let n = 0
const lesson = fromTemplate({ title: 'Post', ideaId: 'parts-7', age: 4, aim, examples: found.sets[0]!.examples, newId: () => `s${(n += 1)}` })
const show = lesson.segments.find((s) => s.kind === 'show')!
const words = (beats: Beat[]) => beats.flatMap((b) => (b.kind === 'say' ? b.words.split(' ') : b.kind === 'count' ? b.words : [])).join(' ')
const plan = (slip: Parameters<typeof planTake>[3], id = show.id) => planTake(lesson, id, defaultHouseStyle, slip)

describe('the stand-in camera', () => {
  test('says every line as written, waits as written, and shows the table change', () => {
    const { beats, slipped } = plan('none')
    expect(slipped).toBeNull()
    expect(words(beats)).toMatch(/^bobbin has seven parcels to sort into two places one two three four five six seven how many/)
    expect(new Set(beats.map((b) => b.table)).size).toBeGreaterThan(3)
    expect(beats.filter((b) => b.kind === 'silence').reduce((s, b) => s + (b.kind === 'silence' ? b.seconds : 0), 0)).toBeGreaterThan(15)
  })
  test('leaves out one number and says which', () => {
    const { beats, slipped } = plan('leave out a number')
    expect(slipped).toBe('4')
    expect(words(beats)).toContain('three five')
  })
  test('starts a line twice', () => expect(words(plan('false start').beats)).toMatch(/^bobbin has seven oops bobbin has seven parcels/))
  test('skips a line', () => {
    const { slipped, beats } = plan('skip a line')
    expect(slipped).toBeTruthy()
    expect(words(beats).length).toBeLessThan(words(plan('none').beats).length)
  })
  test('loses the thread', () => expect(plan('dead air').beats.some((b) => b.kind === 'silence' && b.seconds === 7)).toBe(true))
  test('says why it cannot slip', () => {
    const close = lesson.segments.find((s) => s.kind === 'close')!
    expect(() => plan('leave out a number', close.id)).toThrow(CannotSlip)
    expect(() => plan('none', 'nowhere')).toThrow(CannotSlip)
  })
})

describe('the stand-in voice', () => {
  test.each(voices)('%s speaks', async (voice) => {
    const samples = await speak('seven parcels', voice)
    expect(samples.length / speechRate).toBeGreaterThan(0.4)
    expect(Math.max(...samples.subarray(0, 20_000))).toBeGreaterThan(2000)
  })
  test('a WAV carries its own length', () => {
    const wav = toWav(new Int16Array(160))
    expect([wav.toString('latin1', 0, 4), wav.readUInt32LE(24), wav.readUInt32LE(40)]).toEqual(['RIFF', speechRate, 320])
  })
})

describe('the stand-in homes’ photos', () => {
  test.each([
    { saffron: 4, blue: 3, seed: 31 },
    { saffron: 7, blue: 0, seed: 32, sheet: true },
    { saffron: 2, blue: 5, seed: 33, ground: 'cloth' as const },
    { saffron: 0, blue: 6, seed: 34, ground: 'plain' as const },
    { saffron: 5, blue: 5, seed: 35, ground: 'wood' as const, sheet: true },
    { saffron: 1, blue: 0, seed: 36 },
  ])('show what they were told to: %o', async (p) => {
    const { data, info } = await sharp(await standInPhoto({ ...p, width: 1200 })).rotate().ensureAlpha().raw().toBuffer({ resolveWithObject: true })
    const r = readPhoto(data, info.width, info.height)
    expect(r.count).toBe(p.saffron + p.blue)
    expect(r.groups.find((g) => g.colour === 'blue')?.count ?? 0).toBe(p.blue)
  })
  test('are the same for the same seed but for the grain, and carry their orientation for the server to turn', async () => {
    const meta = await sharp(await standInPhoto({ saffron: 3, blue: 1, seed: 40, orientation: 6, width: 400 })).metadata()
    expect([meta.orientation, meta.width! < meta.height!]).toEqual([6, true])
  })
})
