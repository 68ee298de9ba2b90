import vm from 'node:vm'
import { describe, expect, test } from 'vitest'
import type { Hidden, Repair } from '@awlbox/core/contracts/cut'
import { boxAt, plainRepair } from '@awlbox/core/cut/repairs'
import { levelled } from '../platform/media/loudness.ts'
import { fileName } from '../platform/file-name.ts'
import { pictureFilters, soundFilters } from './repair-filters.ts'

const repair = (over: Partial<Repair>): Repair => ({
  ...plainRepair('aaaaaaaa-0000-4000-8000-000000000001'),
  ...over,
})
const graphOf = (over: Partial<Repair>, from = 0, frames = 60): { last: string; graph: string[] } => {
  const graph: string[] = []
  return { last: pictureFilters(repair(over), from, frames, 'in', 'v', graph), graph }
}
const box = (x: number): Hidden['keys'][number]['box'] => ({ x, y: 100, w: 100, h: 100 })
const cover = (over: Partial<Hidden> = {}): Hidden => ({
  id: 'h',
  what: 'face',
  from: 0,
  to: 300,
  keys: [{ frame: 0, box: box(0) }],
  why: null,
  ...over,
})
/** What one of ffmpeg's expressions gives at a frame. */
const evaluated = (expression: string, n: number): number =>
  Number(
    vm.runInNewContext(expression, {
      n,
      gte: (a: number, b: number) => Number(a >= b),
      lt: (a: number, b: number) => Number(a < b),
    }),
  )
const xOf = (graph: readonly string[]): string =>
  graph.find((g) => g.includes('crop='))!.match(/x='([^']+)'/)![1]!

describe('a picture’s filters', () => {
  test('as filmed there is none', () => expect(graphOf({})).toEqual({ last: 'in', graph: [] }))
  test('come in the order in which the preview does them: covered, turned, mirrored, straightened, closer, lit', () => {
    const { graph } = graphOf({
      hidden: [cover()],
      turn: 180,
      mirror: true,
      corners: [
        { x: 100, y: 60 },
        { x: 1200, y: 90 },
        { x: 1240, y: 700 },
        { x: 60, y: 660 },
      ],
      closer: { x: 640, y: 360, by: 2, from: 0, frames: 0 },
      light: 0.5,
    })
    const text = graph.join(';')
    const at = [
      'crop=w=',
      'hflip,vflip',
      'vflip,hflip',
      'perspective=x0=100',
      'crop=640:360',
      'colorchannelmixer',
    ].map((f) => text.indexOf(f))
    expect(at.every((x) => x >= 0)).toBe(true)
    expect([...at].sort((a, b) => a - b)).toEqual(at)
  })
  test('corners that cross straighten nothing', () =>
    expect(
      graphOf({
        corners: [
          { x: 100, y: 60 },
          { x: 60, y: 660 },
          { x: 1240, y: 700 },
          { x: 1200, y: 90 },
        ],
      }).graph,
    ).toEqual([]))
  test('a cover nobody accepted, and one that is not in the stretch, are none', () => {
    expect(
      graphOf({
        hidden: [
          cover({ why: { id: 'w', act: 'add', kind: 'face', note: '', sure: false, state: 'declined' } }),
        ],
      }).graph,
    ).toEqual([])
    expect(graphOf({ hidden: [cover({ from: 100, to: 200 })] }, 0, 60).graph).toEqual([])
  })
  test('a cover is where the preview shows it at every frame, from wherever the stretch begins', () => {
    const h = cover({
      keys: [
        { frame: 10, box: box(0) },
        { frame: 40, box: box(600) },
        { frame: 50, box: box(200) },
      ],
    })
    for (const from of [0, 25, 45]) {
      const x = xOf(graphOf({ hidden: [h] }, from).graph)
      for (const n of [0, 5, 14, 20, 30, 59])
        expect(Math.abs(evaluated(x, n) - boxAt(h, from + n)!.x)).toBeLessThanOrEqual(1)
    }
  })
  test('hundreds of keys are one sum, not conditions within conditions', () => {
    const keys = Array.from({ length: 300 }, (_, i) => ({ frame: i * 30, box: box((i * 37) % 1000) }))
    const x = xOf(graphOf({ hidden: [cover({ to: 9000, keys })] }, 0, 9000).graph)
    expect(
      Math.max(
        ...[...x].map(
          (
            (depth) => (c: string) =>
              (depth += c === '(' ? 1 : c === ')' ? -1 : 0)
          )(0),
        ),
      ),
    ).toBeLessThan(4)
    expect(evaluated(x, 45)).toBeCloseTo(55.5, 0)
  })
})
describe('a sound’s filters', () => {
  test('hum goes with its harmonics, at the mains it was heard at', () => {
    expect(soundFilters(repair({ hum: 60 }))).toMatch(/f=60:.*f=120:.*f=300:/)
    expect(soundFilters(repair({}))).toBe('aresample=48000')
  })
  test('hiss goes by what the room was measured at, within what the filter takes', () => {
    const floor = (noise: number | null): number =>
      Number(soundFilters(repair({ hiss: true }), noise).match(/nf=(-\d+)/)![1])
    expect(floor(-60)).toBeLessThan(floor(-40))
    expect([floor(-200), floor(0)]).toEqual([-80, -20])
    expect(floor(null)).toBeGreaterThan(-80)
  })
  test('a film is levelled by one gain; silence is left', () => {
    expect(levelled({ integrated: -26, peak: null })).toMatch(/^volume=10\.00dB,alimiter/)
    expect(levelled({ integrated: null, peak: null })).toBe('anull')
  })
})
test.each([
  ['Seven parcels, two pigeon-holes', 'seven-parcels-two-pigeon-holes'],
  ['  …  ', 'film'],
  ['سبعة 7', 'سبعة-7'],
  ['../../etc', 'etc'],
  ['a'.repeat(90), 'a'.repeat(60)],
])('a file named after %j', (title, name) => expect(fileName(title, 'film')).toBe(name))
