import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type CutItem, type CutList, plainList } from '../../contracts/cut.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { programOf } from '../program.ts'
import { fromEdl, timecode, toEdl } from './edl.ts'
import { eventsOf, takeIn } from './events.ts'
import { toMlt } from './mlt.ts'
import { fromOtio, toOtio } from './otio.ts'
import { readList } from './read.ts'

const takes = ['aaaaaaaa-0000-4000-8000-000000000001', 'bbbbbbbb-0000-4000-8000-000000000002'] as const
const item = fc.oneof(
  fc
    .record({
      takeId: fc.constantFrom(...takes),
      from: fc.integer({ min: 0, max: 5000 }),
      length: fc.integer({ min: 1, max: 600 }),
    })
    .map(({ takeId, from, length }): CutItem => ({
      kind: 'clip',
      id: `c${from}-${length}`,
      takeId,
      from,
      to: from + length,
      why: null,
    })),
  fc
    .integer({ min: 1, max: 200 })
    .map((frames): CutItem => ({ kind: 'hold', id: `h${frames}`, frames, stepId: null, why: null })),
  fc.integer({ min: 15, max: 200 }).map((frames): CutItem => ({
    kind: 'card',
    id: `k${frames}`,
    look: 'stop',
    title: 'Stop & have a <go>',
    lines: ['Find "another" way'],
    frames,
    stepId: null,
    why: null,
  })),
)
// A row begins with a span: a hold before any picture holds nothing.
const row = fc
  .tuple(fc.integer({ min: 0, max: 900 }), fc.array(item, { maxLength: 8 }))
  .map(([from, rest]): CutItem[] => [
    { kind: 'clip', id: 'first', takeId: takes[0], from, to: from + 30, why: null },
    ...rest,
  ])
const list = fc.array(row, { minLength: 1, maxLength: 3 }).map((rows): CutList => ({
  ...plainList,
  segments: rows.map((items, i) => ({
    segmentId: `s${i + 1}`,
    takeId: takes[0],
    items,
    overlays: [],
    byHand: true,
  })),
}))
const frames = (l: CutList): number => programOf(l).frames
const lengths = (l: CutList) =>
  eventsOf(l).map((e) => [
    e.kind === 'card' ? e.title : e.takeId,
    e.kind === 'clip' ? e.from : e.kind === 'still' ? e.frame : 0,
    e.frames,
  ])

describe('OpenTimelineIO', () => {
  test('read back it is the same cut list', () =>
    fc.assert(
      fc.property(list, (l) => {
        expect(fromOtio(toOtio(l, 'Seven parcels'), () => null)).toEqual(l)
      }),
    ))
  test('clips changed elsewhere win over the cut list that went along', () => {
    const l: CutList = {
      ...plainList,
      segments: [
        {
          segmentId: 's1',
          takeId: takes[0],
          items: [{ kind: 'clip', id: 'a', takeId: takes[0], from: 0, to: 90, why: null }],
          overlays: [],
          byHand: true,
        },
      ],
    }
    const json = JSON.parse(toOtio(l, 't')) as {
      tracks: { children: { children: { source_range: { duration: { value: number } } }[] }[] }
    }
    json.tracks.children[0]!.children[0]!.source_range.duration.value = 45
    expect(frames(fromOtio(JSON.stringify(json), () => null))).toBe(45)
  })
  test('other rates are turned into frames of the film', () => {
    const l: CutList = {
      ...plainList,
      segments: [
        {
          segmentId: 's1',
          takeId: takes[0],
          items: [{ kind: 'clip', id: 'a', takeId: takes[0], from: 0, to: 90, why: null }],
          overlays: [],
          byHand: true,
        },
      ],
    }
    const text = toOtio(l, 't').replaceAll('"rate": 30', '"rate": 15')
    expect(frames(fromOtio(text, () => null))).toBe(180)
  })
  test.each([
    ['not json', '{'],
    ['no timeline', '{"OTIO_SCHEMA":"Clip.2"}'],
    ['nothing known', JSON.stringify({ OTIO_SCHEMA: 'Timeline.1', tracks: { children: [] } })],
  ])('%s: said in words', (_, text) => expect(() => fromOtio(text, () => null)).toThrow(SyntaxError))
})
describe('CMX 3600', () => {
  test('read back it has the same pictures at the same times', () =>
    fc.assert(
      fc.property(list, (l) => {
        const back = fromEdl(toEdl(l, 'Seven parcels'), takes, () => null)
        expect(lengths(back)).toEqual(lengths(l))
        expect(frames(back)).toBe(frames(l))
      }),
    ))
  test('every event begins where the one before it ends', () =>
    fc.assert(
      fc.property(list, (l) => {
        const times = [
          ...toEdl(l, 't').matchAll(/^\d+ .* (\d\d:\d\d:\d\d:\d\d) (\d\d:\d\d:\d\d:\d\d)$/gm),
        ].map((m) => [m[1], m[2]])
        times.slice(1).forEach((t, i) => expect(t[0]).toBe(times[i]![1]))
        expect(times.at(-1)![1]).toBe(timecode(frames(l)))
      }),
    ))
  test('takes are known by their reel where no comment names them', () => {
    const text = 'TITLE: X\n\n001  AAAAAAAA V     C        00:00:01:00 00:00:03:00 00:00:00:00 00:00:02:00\n'
    expect(lengths(fromEdl(text, takes, () => 's1'))).toEqual([[takes[0], 30, 60]])
  })
  test.each(['', 'TITLE: X', '001  ZZZZ V C 00:00:01:00 00:00:03:00 00:00:00:00 00:00:02:00'])(
    '%o holds nothing of the lesson',
    (text) => expect(() => fromEdl(text, takes, () => null)).toThrow(SyntaxError),
  )
})
test('an MLT project plays as many frames as the film, each from the right place', () =>
  fc.assert(
    fc.property(list, (l) => {
      const xml = toMlt(l, 'Stop & <go>')
      const entries = [...xml.matchAll(/<entry producer="p(\d+)" in="(\d+)" out="(\d+)"/g)].map((m) => [
        Number(m[2]),
        Number(m[3]),
      ])
      expect(entries.reduce((n, [a, b]) => n + b! - a! + 1, 0)).toBe(frames(l))
      expect(xml).not.toMatch(/title="[^"]*<go>/)
    }),
  ))
describe('a file that is read', () => {
  const lesson = fromMarkdown('# Post\n\n## Show {show}\nSay: Hello.', () => 's1').lesson
  const segmentId = lesson.segments[0]!.id
  const known = [{ id: takes[0], segmentId, seconds: 2 }]
  const of = (over: Partial<CutList> = {}): CutList => ({
    ...plainList,
    segments: [
      {
        segmentId,
        takeId: takes[0],
        items: [{ kind: 'clip', id: 'a', takeId: takes[0], from: 30, to: 900, why: null }],
        overlays: [],
        byHand: false,
      },
    ],
    ...over,
  })
  test('goes no further than its takes do', () =>
    expect(readList('x.cut.json', JSON.stringify(of()), lesson, known).segments[0]!.items).toMatchObject([
      { from: 30, to: 60 },
    ]))
  test('of another lesson says so', () =>
    expect(() => readList('x.otio', toOtio(of(), 't'), lesson, [])).toThrow(/Nothing in this file|No clip/))
  test.each([
    ['x.cut.json', 'hello'],
    ['x.json', '{"format":"awlbox-cut"}'],
    ['x.edl', '<mlt/>'],
  ])('%s with %o: words, and the cut as it was', (name, text) =>
    expect(() => readList(name, text, lesson, known)).toThrow(SyntaxError),
  )
  test('an id is found in a path', () =>
    expect(takeIn(`file:///takes/${takes[1].toUpperCase()}.mp4`)).toBe(takes[1]))
})
