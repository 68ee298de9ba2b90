import { heapsIn, type Mat, type TableState, type Thing, thingsIn } from '../../table/state.ts'

/** What a table should look like after a line: only what is named is looked at. */
export interface Expected {
  place?: Record<string, Record<string, number>>
  all?: Record<string, number>
  groups?: number[]
  apart?: number[]
  hops?: number[][]
  starts?: number
  lands?: number
  marks?: number[]
  up?: string[]
  down?: number
  order?: boolean
  dice?: string[]
  bowl?: string[]
  spinner?: string
  claps?: number
  held?: number
  hands?: number
  skittles?: number[]
  scene?: Record<string, number>
  label?: Record<string, string>
  covered?: string[]
  open?: string[]
}

const short: Record<string, string> = { 'pair plate': 'pairs', coins: 'coins' }
const nameOf = (name: string): string => short[name.replace(/^the /, '')] ?? name.replace(/^the /, '')
const tally = (things: readonly Thing[]): Record<string, number> => ({
  n: things.length,
  left: things.filter((t) => !t.crossed).length,
  crossed: things.filter((t) => t.crossed).length,
  hidden: things.filter((t) => t.hidden).length,
  saffron: things.filter((t) => t.face === 'saffron').length,
  blue: things.filter((t) => t.face === 'blue').length,
  worth: things.reduce((s, t) => s + t.worth, 0),
})
const sorted = (xs: readonly (string | number)[]) => [...xs].map(String).sort()

/** The same facts of a table as are expected of it, in the shape they are expected in. */
export function seen(table: TableState, want: Expected): Expected {
  const mat = (kind: Mat['kind']) => table.mats.find((m) => m.kind === kind)
  const cards = (kind: Mat['kind']) => mat(kind)?.cards ?? []
  const regions = table.mats.flatMap((m) => m.regions.map((r) => ({ m, r, name: nameOf(r.name) })))
  const at = (name: string) => regions.find((x) => x.name === name)
  const counted = regions.filter((x) => x.m.kind !== 'sound' && x.m.kind !== 'scene')
  const line = table.mats.find((m) => m.line)?.line
  const only = (have: Record<string, number>, keys: Record<string, number>) =>
    Object.fromEntries(Object.keys(keys).map((k) => [k, have[k]!]))
  const each = <T>(keys: Record<string, T>, f: (name: string, v: T) => T): Record<string, T> =>
    Object.fromEntries(Object.entries(keys).map(([k, v]) => [k, f(k, v)]))
  const makers: { [K in keyof Expected]-?: () => Expected[K] } = {
    place: () => each(want.place!, (name, keys) => only(tally(at(name)?.r.things ?? []), keys)),
    all: () => only(tally(counted.flatMap((x) => [...x.r.things])), want.all!),
    groups: () => wayOf(table, want.groups!, true),
    apart: () => wayOf(table, want.apart!, false),
    hops: () => line?.hops.map((h) => [h.from, h.to]) ?? [],
    starts: () => line?.hops[0]?.from,
    lands: () => line?.hops.at(-1)?.to,
    marks: () => [...(line?.marks ?? [])].sort((a, b) => a - b),
    up: () => {
      const up = cards('cards')
        .filter((c) => c.up)
        .map((c) => c.text)
      return want.order || sorted(up).join() !== sorted(want.up!).join() ? up : want.up
    },
    down: () => cards('cards').filter((c) => !c.up).length,
    order: () => want.order,
    dice: () =>
      sorted(cards('dice').map((c) => c.text)).join() === sorted(want.dice!).join()
        ? want.dice
        : cards('dice').map((c) => c.text),
    bowl: () => cards('bowl').map((c) => c.text),
    spinner: () => cards('spinner').find((c) => c.up)?.text,
    claps: () => thingsIn(mat('sound') ?? ({ regions: [] } as unknown as Mat)).length,
    held: () => table.held ?? undefined,
    hands: () => (mat('hands') ? thingsIn(mat('hands')!).length : 0),
    skittles: () => {
      const all = mat('skittles') ? thingsIn(mat('skittles')!) : []
      return [all.filter((t) => !t.crossed).length, all.filter((t) => t.crossed).length]
    },
    scene: () =>
      each(want.scene!, (name) => mat('scene')?.regions.find((r) => r.name === name)?.things.length ?? -1),
    label: () => each(want.label!, (name) => at(name)?.r.label ?? ''),
    covered: () => want.covered!.filter((n) => at(n)?.m.covered || at(n)?.r.things.every((t) => t.hidden)),
    open: () => want.open!.filter((n) => !at(n)?.m.covered),
  }
  return Object.fromEntries((Object.keys(want) as (keyof Expected)[]).map((k) => [k, makers[k]()]))
}
/** The groups wanted when the table shows them in some way (place, heap, divider, ring, colour); else those of its places. */
function wayOf(table: TableState, want: readonly number[], byColour: boolean): number[] {
  const ways = table.mats.flatMap((m) => {
    const all = thingsIn(m)
    const rings = m.rings.map((r) => r.to - r.from)
    return [
      m.regions.map((r) => r.things.length),
      m.regions.flatMap((r) => heapsIn(r).map((h) => h.length)),
      ...(m.divider === null ? [] : [[m.divider, all.length - m.divider]]),
      ...(rings.length ? [[...rings, all.length - rings.reduce((a, b) => a + b, 0)]] : []),
    ]
  })
  const everything = table.mats.flatMap(thingsIn)
  if (byColour)
    ways.push([
      everything.filter((t) => t.face === 'blue').length,
      everything.filter((t) => t.face !== 'blue').length,
    ])
  ways.push(table.mats.flatMap((m) => m.regions.map((r) => r.things.length)))
  const same = (a: readonly number[]) => sorted(a.filter((x) => x > 0)).join() === sorted(want).join()
  return ways.some(same) ? [...want] : (ways[0] ?? [])
}
