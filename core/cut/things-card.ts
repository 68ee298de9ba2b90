import { type Property, thingNamed } from '../plan/things.ts'
import { box, el, label, line, paper, path, round, type Shape } from '../script/table/drawing/paper.ts'
import { drawThing, type Form } from '../script/table/drawing/things.ts'
import { thing } from '../script/table/mats.ts'

/** One thing to fetch, as a line of a card says it: “10 bottle tops · or dried pasta”. */
export interface ToFetch {
  count: number
  thing: string
  swap: string | null
}
const between = ' · or '
export const fetchLine = ({ count, thing, swap }: ToFetch): string =>
  `${count} ${thing}${swap ? between + swap : ''}`
/** Null where a line says something else, typed by hand. */
export function readFetchLine(text: string): ToFetch | null {
  const m = text.trim().match(/^(\d{1,3})\s+(\S.*)$/)
  if (!m) return null
  const [thing, swap = null] = m[2]!.split(between)
  return { count: Number(m[1]), thing: thing!, swap }
}

/** At most so many have room to be drawn; with more the card lists words. */
const most = 8
/** Drawn one by one up to here, in rows of five; a larger heap is drawn as this many and its number says the rest. */
const heap = 20

/** How things of a property are drawn in a square of 100 about the origin: what somebody looks for in the kitchen. */
const pictures: Partial<Record<Property, () => Shape[]>> = {
  'ten slots': () => grid(5, 2, 18),
  'number square': () => grid(5, 5, 18),
  'numbered line': () => [
    line(-48, 0, 48, 0, 4),
    ...Array.from({ length: 6 }, (_, i) => line(-45 + i * 18, -9, -45 + i * 18, 9, 3)),
  ],
  'two places': () => [plate(-26), plate(26)],
  'several places': () => [plate(-26), plate(26)],
  'rolls numbers': () => [
    box(-34, -34, 68, 68, 14),
    ...[-17, 17].flatMap((x) => [-17, 17].map((y) => dot(x, y, 6))),
    dot(0, 0, 6),
  ],
  spins: () => [
    el('circle', { cx: 0, cy: 0, r: 42, fill: paper.white, stroke: paper.ink, 'stroke-width': 3 }),
    line(-36, -21, 36, 21, 2),
    line(36, -21, -36, 21, 2),
    line(0, 0, 0, -34, 6),
  ],
  'draws slips': () => [
    ...[-16, 4, 20].map((x, i) => box(x - 9, -34 + i * 7, 20, 30, 3)),
    path('M-44 -6 H44 Q40 38 0 38 Q-40 38 -44 -6Z', { fill: '#C8D5DB' }),
  ],
  'written on': () => [
    box(-34, -42, 60, 84, 5),
    ...[-20, 0, 20].map((y) => line(-22, y, 14, y, 2, paper.hair)),
    line(10, 30, 42, -14, 7, paper.saffronEdge),
  ],
  hides: () => [
    path('M-42 34 Q-38 -36 0 -36 Q38 -36 42 34 Q28 26 14 34 Q0 26 -14 34 Q-28 26 -42 34Z', {
      fill: '#C8D5DB',
    }),
  ],
  dots: () => [box(-34, -42, 68, 84, 8), ...[-20, 0, 20].flatMap((y) => [dot(-13, y, 7), dot(13, y, 7)])],
  slides: () => [
    line(-48, 0, 48, 0, 3),
    ...[-32, -14, 4, 28].map((x) =>
      el('circle', {
        cx: x,
        cy: 0,
        r: 10,
        fill: paper.saffron,
        stroke: paper.saffronEdge,
        'stroke-width': 2,
      }),
    ),
  ],
  'parts of a whole': () => [
    el('circle', { cx: 0, cy: -26, r: 18, fill: paper.white, stroke: paper.ink, 'stroke-width': 3 }),
    line(-8, -9, -22, 12, 3),
    line(8, -9, 22, 12, 3),
    el('circle', { cx: -26, cy: 26, r: 18, fill: paper.white, stroke: paper.ink, 'stroke-width': 3 }),
    el('circle', { cx: 26, cy: 26, r: 18, fill: paper.white, stroke: paper.ink, 'stroke-width': 3 }),
  ],
  'rolls along': () => [
    el('circle', { cx: 0, cy: 0, r: 38, fill: paper.saffron, stroke: paper.saffronEdge, 'stroke-width': 4 }),
    path('M-38 0 Q0 20 38 0', { stroke: paper.saffronEdge }),
  ],
}
const dot = (cx: number, cy: number, r: number): Shape => el('circle', { cx, cy, r, fill: paper.ink })
const plate = (cx: number): Shape =>
  el('circle', { cx, cy: 0, r: 23, fill: paper.white, stroke: paper.ink, 'stroke-width': 3 })
const grid = (across: number, down: number, size: number): Shape[] =>
  Array.from({ length: across * down }, (_, i) =>
    box(((i % across) - across / 2) * size, (Math.floor(i / across) - down / 2) * size, size, size, 0),
  )

const loose = (form: Form, kind: string, r: number): Shape[] => drawThing(form, r, thing(0, kind))
/** Things as somebody looks for them, in a square of 100 about the origin: loose ones as many as are needed, others as one. */
export function fetchPicture({ thing: name, count }: Pick<ToFetch, 'thing' | 'count'>): Shape[] {
  const known = thingNamed(name)
  const properties = known?.properties ?? []
  if (!properties.includes('counted')) {
    const drawn = properties.map((p) => pictures[p]).find((p) => p !== undefined)
    return drawn ? drawn() : loose('picture', name.toLowerCase(), 36)
  }
  const form: Form = properties.includes('two faces') ? 'counter' : 'picture'
  const n = Math.min(count, heap)
  const across = n === 6 ? 3 : Math.min(5, n)
  const down = Math.ceil(n / across)
  const pitch = Math.min(96 / across, 96 / down, 40)
  return Array.from({ length: n }, (_, i) => {
    const x = ((i % across) - (across - 1) / 2) * pitch
    const y = (Math.floor(i / across) - (down - 1) / 2) * pitch
    return el(
      'g',
      { transform: `translate(${round(x)} ${round(y)})` },
      loose(form, name.toLowerCase(), pitch * 0.42),
    )
  })
}

/** Andika's letters are about this share of their size wide. */
export const letter = 0.56
/** The largest of the sizes at which all words fit in a line of `width`, no higher than `high`; null where none does. */
const fitting = (
  all: readonly string[],
  width: number,
  high: number,
  sizes: readonly number[],
): number | null =>
  sizes.find((px) => px <= high && all.every((words) => [...words].length * px * letter <= width)) ?? null

/**
 * The things of a card, each in a field of its own with its picture, how many and what will do instead: large enough
 * for a phone at arm's length. Null where a line is no thing, there are too many, or a name has no room: then words do.
 * Space: `top` to `foot` of a card 1280 wide.
 */
export function thingsShapes(lines: readonly string[], top: number, foot: number): Shape[] | null {
  const things = lines.flatMap((l) => readFetchLine(l) ?? [])
  if (!things.length || things.length < lines.length || things.length > most) return null
  const columns = things.length <= 3 ? 1 : 2
  const rows = Math.ceil(things.length / columns)
  const [gap, side] = [18, 64]
  const height = Math.min(170, (foot - top - gap * (rows - 1)) / rows)
  const width = (1280 - side * 2 - gap * (columns - 1)) / columns
  const room = width - height - 40
  const names = things.map((t) => `${t.count} ${t.thing}`)
  const swaps = things.map((t) => (t.swap ? `or ${t.swap}` : null))
  // All names alike, and all swaps: what differs in size seems to differ in weight.
  const [big, small] = [
    fitting(names, room, height * 0.4, [58, 50, 44, 38, 34]),
    fitting(
      swaps.flatMap((x) => x ?? []),
      room,
      height * 0.28,
      [38, 34, 30, 27],
    ),
  ]
  if (big === null || small === null) return null
  const start = top + (foot - top - rows * height - gap * (rows - 1)) / 2
  return things.flatMap((t, i) => {
    const swap = swaps[i]!
    const x = side + (i % columns) * (width + gap)
    const y = start + Math.floor(i / columns) * (height + gap)
    const k = (height - 28) / 100
    const middle = y + height / 2
    const words = (at: number, px: number, text: string, fill: string): Shape =>
      label(x + height + 20, round(at), px, text, { fill, 'text-anchor': 'start' })
    return [
      el('rect', { x, y: round(y), width: round(width), height: round(height), rx: 16, fill: paper.linen }),
      el(
        'g',
        { transform: `translate(${round(x + height / 2 + 6)} ${round(middle)}) scale(${round(k)})` },
        fetchPicture(t),
      ),
      words(swap ? middle - small * 0.12 : middle + big * 0.36, big, names[i]!, paper.ink),
      ...(swap ? [words(middle + small * 1.12, small, swap, paper.steel)] : []),
    ]
  })
}
