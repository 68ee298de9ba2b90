import type { PhotoReading, PhotoStructure, PhotoThing } from '../../contracts/reading.ts'
import { belief, type Believed, believe } from './believe.ts'
import { apart, colourGroups, type Lab, meanLab } from './colours.ts'
import { pipsOf } from './dice.ts'
import { drawnLineOf } from './drawn-line.ts'
import { sidesOf, towersOf } from './lying.ts'
import { instead } from './patches.ts'
import { boxesOf, crossedOf, inBoxes, pageOf, tallyOf } from './pen.ts'
import { coarser, lit, type Picture, shrunk, turned, type Turned } from './picture.ts'
import { middle } from './middle.ts'
import { groundGrain, sharpness } from './quality.ts'
import { lengthOf, type Region, regions } from './regions.ts'
import { heapsOf, rowsOf } from './rows.ts'
import { kinds, kindsOf, type Middle, middlesOf, type See, type Seen, together } from './seen.ts'
import { holds, type Point } from '../../plane.ts'
import type { Map2, Place } from './map.ts'
import { type Areas, areasOf, isDrawnOn, placesOf, structureOf } from './structure.ts'

/** Raised whenever photos may be read otherwise than before: what an older reader made is read anew. */
export const readerVersion = 6

/** Constants of photo reading. */
const seeing = {
  /** Longer sides of the pictures shown to the network: things of a usual photo are 8 to 40 pixels across in the first. */
  side: 512,
  closer: 704,
  /** Where things are smaller than this share of the width, a closer look is taken instead. */
  small: 0.013,
  closest: 1024,
  /** Pixels along the longer side that all of them are shrunk from: twice what the usual ones have. */
  enough: 1300,
  /** Part of a usual thing's pixels from which something unexplained could be a thing. */
  unexplained: 0.45,
  most: 400,
} as const
/** Looks besides the first and the closer one: sizes between, in a mirror, upside down. */
const moreLooks: readonly (Turned & { side: number })[] = [
  { side: 608, across: true, down: true },
  { side: 560, across: true, down: false },
  { side: 656, across: false, down: true },
]
const [thing, other] = [kinds.indexOf('thing'), kinds.indexOf('other')]

interface Look {
  picture: Picture
  seen: Seen
  middles: Middle[]
  as: Turned
}
/**
 * Counts the small things in a photo and says where they lie. `rgba`: width × height × 4 bytes, upright; `see`: the
 * network. Five looks are taken, closer, mirrored and upside down too: the count is what they agree on,
 * `low` to `high` is everything that one of them or a doubtful thing allows. Uncertain is a result.
 * @throws RangeError when the pixels do not fit the size.
 */
export async function readPhoto(
  rgba: Uint8ClampedArray | Uint8Array,
  width: number,
  height: number,
  see: See,
): Promise<PhotoReading> {
  const plain = coarser(rgba, width, height, seeing.enough)
  const smaller = (longSide: number) => shrunk(plain.data, plain.width, plain.height, longSide)
  const raw = smaller(seeing.side)
  const first = await looked(lit(raw), see)
  const size = middle(first.middles.filter((m) => m.p > belief.counted).map((m) => m.r))
  const near = smaller(size !== null && size < seeing.small ? seeing.closest : seeing.closer)
  const closer = await looked(lit(near), see)
  const looks = [first, closer]
  for (const { side, ...as } of moreLooks) looks.push(await looked(lit(smaller(side)), see, as))
  const shape = height / width
  const things = believe(
    looks.map((l) => l.middles),
    shape,
  ).slice(0, seeing.most)
  const fine = near.width >= 0.9 * seeing.closest ? near : smaller(seeing.closest)
  return told(first, things, looks, { raw, fine, rgba, width, height })
}
const plainly: Turned = { across: false, down: false }
async function looked(picture: Picture, see: See, as: Turned = plainly): Promise<Look> {
  const shown = as.across || as.down ? turned(picture, as) : picture
  const seen = await see(shown.rgb, shown.width, shown.height)
  const middles = middlesOf(seen, belief.seen).map((m) => ({
    ...m,
    x: as.across ? 1 - m.x : m.x,
    y: as.down ? 1 - m.y : m.y,
  }))
  return { picture, seen, middles, as }
}

/** The photo as it came, and as it is looked at for strokes. */
interface Given {
  raw: Picture
  fine: Picture
  rgba: Uint8ClampedArray | Uint8Array
  width: number
  height: number
}
interface Spot {
  x: number
  y: number
  r: number
}
interface Counted extends Believed {
  cutOff: boolean
  colour: Lab
}
/** Where the edge runs through a thing: nearer to it than this share of its radius. */
const atEdge = 0.75

function told(
  look: Look,
  seenAtAll: readonly Believed[],
  looks: readonly Look[],
  given: Given,
): PhotoReading {
  const page = pageOf(given.fine)
  const all = inBoxes(page, seenAtAll)
  const { raw } = given
  const size = { width: given.width, height: given.height }
  const { picture, seen } = look
  const shape = picture.height / picture.width
  const agreed = joined(looks)
  const what = kindsOf(agreed, forLines[0])
  const isCounted = (t: Believed): boolean =>
    t.p >= belief.counted && (t.p >= belief.doubtless || !isPartOfOther(t, seen, what))
  const { found: seenApart, large } = bySize(all.filter(isCounted))
  const { found, removed } = byPatches(seenApart, looks[1]!.seen)
  const lying = votedFor(found, agreed, what)
  const { map } = lying
  const counted = lying.things.map((t): Counted => ({
    ...t,
    cutOff: isCut(t, shape),
    colour: colourOf(picture, seen, what, t),
  }))
  const doubtful = all.filter((t) => !isCounted(t) && t.p >= belief.no)
  const spare = unexplained(seen, what, [...found, ...large, ...doubtful], found)
  const cut = counted.filter((t) => t.cutOff).length
  const perLook = looks.map((l) => inBoxes(page, l.middles).filter((m) => m.p >= belief.counted).length)
  const low = Math.min(
    counted.filter((t) => t.p >= belief.doubtless).length -
      counted.filter((t) => t.cutOff && t.p >= belief.doubtless).length,
    ...perLook,
  )
  const high = Math.max(found.length + removed + large.length + doubtful.length + spare.count, ...perLook)
  const groups = colourGroups(counted.map((t) => t.colour))
  const names = counted.map((_, i) => groups.find((g) => g.members.includes(i))!.name)
  const px = (t: Believed) => ({ x: t.x * size.width, y: t.y * size.height, r: t.r * size.width })
  const spots = counted.map(px)
  const rows = rowsOf(spots)
  const [w, h] = [seen.width, seen.height]
  const { spots: inMap, places } = lying
  const scaled = ([x, y]: Point): [number, number] => [
    Math.round((x / w) * size.width),
    Math.round((y / h) * size.height),
  ]
  const crossed = crossedOf(page, counted)
  const line = drawnLineOf(map, inMap)
  return {
    ...size,
    count: counted.length,
    low: Math.max(0, low),
    high,
    groups: merged(names),
    places: heapsOf(spots),
    things: rows.flat().map((i): PhotoThing => ({
      x: Math.round(spots[i]!.x),
      y: Math.round(spots[i]!.y),
      r: Math.round(spots[i]!.r),
      colour: names[i]!,
      cutOff: counted[i]!.cutOff,
      ...(crossed[i] ? { crossed: true } : {}),
    })),
    rows: rows.map((row) => row.map((i) => names[i]!)).slice(0, 40),
    structure: structureOf(map, places, scaled),
    towers: towersOf(spots).map((t) => t.length),
    sides: twoSides(spots, size),
    tally: tallyOf(page),
    line: line && { from: scaled(line.from), to: scaled(line.to), at: line.at.slice(0, 60) },
    dice: diceIn(given, spots),
    sheet:
      boxesOf(page, all)?.map((b) => ({
        ...b,
        outline: b.outline.map(([x, y]): [number, number] => [
          Math.round(x * size.width),
          Math.round(y * size.height),
        ]),
      })) ?? null,
    warnings: warningsOf({ look, raw, what, counted, spare, cut, size, large: large.length > 0 }),
  }
}
/** Sides of what lies along one line; a heap or a page of things has none. */
const twoSides = (
  spots: readonly Spot[],
  size: { width: number; height: number },
): [number, number] | null => {
  const sides = sidesOf(spots, size)
  return sides && [...sides]
}
/** What may be dice: few things, large enough for their dots to be seen (12 pixels of the photo across a radius). */
function diceIn(g: Given, spots: readonly Spot[]): PhotoReading['dice'] {
  if (spots.length > 6) return []
  return [...spots]
    .sort((a, b) => a.x - b.x)
    .filter((t) => t.r >= 12)
    .map((t) => pipsOf(g.rgba, g, t))
}
/** The handle of a cup, the tip of a finger: what is doubtful anyway and has so much of something else round it. */
const roundIt = { at: 1.3, share: 0.25, points: 24 } as const
function isPartOfOther(t: Believed, { width: w, height: h }: Seen, what: Uint8Array): boolean {
  let others = 0
  for (let k = 0; k < roundIt.points; k++) {
    const a = (k / roundIt.points) * 2 * Math.PI
    const x = Math.floor(t.x * w + roundIt.at * t.r * w * Math.cos(a))
    const y = Math.floor(t.y * h + roundIt.at * t.r * w * Math.sin(a))
    if (x >= 0 && y >= 0 && x < w && y < h && what[y * w + x] === other) others++
  }
  return others >= roundIt.share * roundIt.points
}
/** A cup or a plate among counters: more than so many times the usual radius, where there are enough of those to say what is usual. */
const [far, enough] = [1.85, 3] as const
/** Things of one family of sizes, and the few that are far larger: those are told of, not counted, and keep the count in doubt. */
function bySize(things: readonly Believed[]): { found: Believed[]; large: Believed[] } {
  const usual = middle(things.map((t) => t.r))
  const large = usual === null ? [] : things.filter((t) => t.r > far * usual)
  if (things.length - large.length < enough || large.length > 2) return { found: [...things], large: [] }
  return { found: things.filter((t) => !large.includes(t)), large }
}
/** What was seen, put right where a patch holds one more or only one; what is added or removed stays in doubt. */
function byPatches(seenApart: readonly Believed[], seen: Seen): { found: Believed[]; removed: number } {
  const { width: w, height: h } = seen
  const other = instead(
    seen,
    kindsOf(seen),
    seenApart.map((t) => ({ x: t.x * w, y: t.y * h, r: t.r * w, doubtful: t.p < belief.doubtless })),
  )
  const gone = new Set(other.flatMap((m) => m.seen))
  const found = [
    ...seenApart.filter((_, i) => !gone.has(i)),
    ...other.flatMap(({ seen: of, spots }) => {
      const sure = of.map((i) => seenApart[i]!.p).sort((a, b) => b - a)
      return spots.map((s, i) => ({ x: s.x / w, y: s.y / h, r: s.r / w, p: sure[i] ?? belief.counted }))
    }),
  ]
  const removed = other.reduce((n, m) => n + Math.max(0, m.seen.length - m.spots.length), 0)
  return { found, removed }
}
/** All looks as one, the way the first lies. */
function joined(looks: readonly Look[]): Seen {
  return together(
    looks[0]!.seen,
    looks.slice(1).map(({ seen, as }) => ({ seen, ...as })),
  )
}
/** What is added to the logit of lines, in the order in which they are believed where no two agree. */
const forLines = [1.1, 0.5, 1.7] as const
/** Where things lie, as most readings of the lines have it, the `usual` first; one will do where hardly any are. */
function votedFor(found: readonly Believed[], seen: Seen, usual: Uint8Array): Lying & { map: Map2 } {
  const { width, height } = seen
  const maps = forLines.map((more, i): Map2 => ({ width, height, what: i ? kindsOf(seen, more) : usual }))
  const areas = areasOf(maps[0]!)
  const read = (isDrawnOn(maps.at(-1)!) ? maps : maps.slice(0, 1)).map((map) => {
    const lying = withoutNumeral(found, map, areas)
    const s = structureOf(map, lying.places, ([x, y]) => [x, y])
    return { ...lying, map, says: s ? saying(s) : '' }
  })
  const votes = (says: string) => read.filter((r) => r.says === says).length
  return read.reduce((best, r) => {
    const [a, b] = [votes(best.says), votes(r.says)]
    return b > a || (b === a && !best.says && r.says) ? r : best
  })
}
/** A structure but for where it lies. */
const saying = (s: PhotoStructure): string =>
  JSON.stringify(s, (key, value: unknown) => (key === 'outline' ? undefined : value))

/** Things, where they are in the map the network gave, and the places they lie in. */
interface Lying {
  things: Believed[]
  spots: Spot[]
  places: Place[]
}
function lyingIn(things: readonly Believed[], map: Map2, areas: Areas): Lying {
  const spots = things.map((t) => ({ x: t.x * map.width, y: t.y * map.height, r: t.r * map.width }))
  return { things: [...things], spots, places: placesOf(map, spots, areas) }
}
/** What stands in the ring of a whole, and is not as many as its parts hold, is its numeral: the count stays in doubt. */
function withoutNumeral(found: readonly Believed[], map: Map2, areas: Areas): Lying {
  const all = lyingIn(found, map, areas)
  const s = structureOf(map, all.places, ([x, y]) => [x, y])
  const inParts = s?.kind === 'parts' ? s.parts.reduce((n, p) => n + p.count, 0) : 0
  if (s?.kind !== 'parts' || !inParts || s.whole.count === 0 || s.whole.count === inParts) return all
  const { outline } = s.whole
  return lyingIn(
    found.filter((_, i) => !holds(outline, [all.spots[i]!.x, all.spots[i]!.y])),
    map,
    areas,
  )
}
const isCut = (t: Believed, shape: number): boolean =>
  Math.min(t.x, 1 - t.x, t.y * shape, (1 - t.y) * shape) < atEdge * t.r

function merged(names: readonly string[]): PhotoReading['groups'] {
  const by = new Map<string, number>()
  for (const n of names) by.set(n, (by.get(n) ?? 0) + 1)
  return [...by].map(([colour, count]) => ({ colour, count })).sort((p, q) => q.count - p.count)
}

/** Pixels of the picture (as shown to the network) that belong to a thing, or lie in the middle of it. */
function colourOf(p: Picture, seen: Seen, what: Uint8Array, t: Believed): Lab {
  const own: number[] = []
  const core: number[] = []
  const r = t.r * p.width
  const [cx, cy] = [t.x * p.width, t.y * p.height]
  for (let y = Math.max(0, Math.floor(cy - r)); y <= Math.min(p.height - 1, cy + r); y++)
    for (let x = Math.max(0, Math.floor(cx - r)); x <= Math.min(p.width - 1, cx + r); x++) {
      const d = Math.hypot(x + 0.5 - cx, y + 0.5 - cy)
      if (d > 0.85 * r) continue
      if (d < 0.4 * r) core.push(y * p.width + x)
      if (what[Math.min(seen.height - 1, y >> 1) * seen.width + Math.min(seen.width - 1, x >> 1)] === thing)
        own.push(y * p.width + x)
    }
  return meanLab(p, own.length >= 4 ? own : core) ?? { l: 50, a: 0, b: 0 }
}

/** Where one seen thing may be two: so much longer than the others are, and so much larger. */
const [longer, larger, slender] = [1.28, 1.18, 1.7] as const
const fewAlone = 4
/** Pixels that look like things and that no middle accounts for: so many things could be there besides; and whether some touch. */
function unexplained(
  seen: Seen,
  what: Uint8Array,
  all: readonly Believed[],
  found: readonly Believed[],
): { count: number; crowded: boolean } {
  const { width: w, height: h } = seen
  const usual = middle(found.map((t) => Math.PI * (t.r * w) ** 2))
  const { labels, list } = regions(w * h, w, (i) => what[i] === thing)
  const inRegion = new Map<number, number>()
  for (const t of all) {
    const i = Math.min(h - 1, Math.floor(t.y * h)) * w + Math.min(w - 1, Math.floor(t.x * w))
    const label = labels[i] || nearestLabel(labels, w, h, t)
    if (label) inRegion.set(label, (inRegion.get(label) ?? 0) + (t.p >= belief.counted ? 1 : 0))
  }
  const crowded = list.some((r) => (inRegion.get(r.label) ?? 0) > 1)
  if (usual === null) return { count: list.filter((r) => r.area > 0.0008 * w * h).length, crowded }
  const alone = list.filter((r) => inRegion.get(r.label) === 1)
  // Of few that lie alone one may itself be two: the least of them tells what one is.
  const one = (of: (r: Region) => number) =>
    alone.length < fewAlone ? Math.min(...alone.map(of)) : middle(alone.map(of))!
  const [length, area] = alone.length ? [one(lengthOf), one((r) => r.area)] : [1, usual]
  let count = 0
  for (const r of list) {
    const n = inRegion.get(r.label)
    if (n === undefined)
      count += r.area > seeing.unexplained * usual ? Math.max(1, Math.round(r.area / usual)) : 0
    // Two that lie on one another make a blob longer and larger than one.
    else if (n === 1)
      count += length < slender && lengthOf(r) > longer * length && r.area > larger * area ? 1 : 0
    else if (n > 1) count += r.area > (n + 0.75) * 1.2 * area ? 1 : 0
  }
  return { count, crowded }
}
function nearestLabel(labels: Int32Array, w: number, h: number, t: Believed): number {
  const reach = Math.max(1, Math.round(t.r * w * 0.6))
  for (let d = 1; d <= reach; d++)
    for (const [dx, dy] of [
      [d, 0],
      [-d, 0],
      [0, d],
      [0, -d],
    ] as const) {
      const [x, y] = [Math.floor(t.x * w) + dx, Math.floor(t.y * h) + dy]
      const label = x >= 0 && y >= 0 && x < w && y < h ? labels[y * w + x]! : 0
      if (label) return label
    }
  return 0
}

interface Noticed {
  look: Look
  raw: Picture
  what: Uint8Array
  counted: readonly Counted[]
  spare: { crowded: boolean }
  cut: number
  size: { width: number; height: number }
  /** Whether something far larger than the things was left out. */
  large: boolean
}
function warningsOf(n: Noticed): PhotoReading['warnings'] {
  const { look, raw, what, counted } = n
  const out: PhotoReading['warnings'] = []
  const say = (when: boolean, w: PhotoReading['warnings'][number]) => void (when && out.push(w))
  const r = middle(counted.map((t) => t.r))
  const shape = look.picture.height / look.picture.width
  const near = counted.some((t, i) =>
    counted.some((u, k) => k > i && Math.hypot(t.x - u.x, (t.y - u.y) * shape) < 1.3 * (t.r + u.r)),
  )
  const large = largeIn(look.seen, what)
  say(sharpness(look.picture) < 2.2, 'blurred')
  say(raw.rgb.reduce((s, v) => s + v, 0) / raw.rgb.length < 0.13, 'dark')
  say(r !== null && r * n.size.width < 9, 'too small')
  say(near || n.spare.crowded, 'touching')
  say(n.cut > 0, 'cut off')
  say(!counted.length, 'nothing found')
  say(groundGrain(look.picture, what, look.seen) > 0.055, 'busy ground')
  say(
    counted.some((t) => isPale(look, what, t)),
    'pale on pale',
  )
  say((large !== null && large.area < notATable) || n.large, 'something large in view')
  say(large !== null && large.hand, 'perhaps a hand')
  say(large !== null && large.area >= notATable, 'not a photo of things')
  return out
}
/** Where so much of a picture is neither table nor things, it is of something else. */
const notATable = 0.55
/** The share of the picture that something large takes, and whether it comes from the edge with an outline as ragged as a hand’s. */
function largeIn(seen: Seen, what: Uint8Array): { area: number; hand: boolean } | null {
  const { width: w, height: h } = seen
  const large = regions(w * h, w, (i) => what[i] === other).list.filter((r) => r.area > 0.004 * w * h)
  if (!large.length) return null
  const fromEdge = (r: Region) => r.left === 0 || r.top === 0 || r.right === w - 1 || r.bottom === h - 1
  return {
    area: large.reduce((s, r) => s + r.area, 0) / (w * h),
    hand: large.some(
      (r) =>
        fromEdge(r) &&
        r.area / ((r.right - r.left + 1) * (r.bottom - r.top + 1)) < 0.72 &&
        r.area > 0.012 * w * h,
    ),
  }
}
/** Whether a thing hardly differs from what lies around it. */
function isPale({ picture: p, seen }: Look, what: Uint8Array, t: Counted): boolean {
  const round: number[] = []
  for (let k = 0; k < 24; k++) {
    const a = (k / 24) * 2 * Math.PI
    const [x, y] = [
      Math.round(t.x * p.width + 1.7 * t.r * p.width * Math.cos(a)),
      Math.round(t.y * p.height + 1.7 * t.r * p.width * Math.sin(a)),
    ]
    if (x < 0 || y < 0 || x >= p.width || y >= p.height) continue
    if (what[Math.min(seen.height - 1, y >> 1) * seen.width + Math.min(seen.width - 1, x >> 1)] !== thing)
      round.push(y * p.width + x)
  }
  const ground = meanLab(p, round)
  return ground !== null && apart(ground, t.colour) < 7 && Math.abs(ground.l - t.colour.l) < 12
}
