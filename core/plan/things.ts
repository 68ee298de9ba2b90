import type { KitItem } from '../contracts/lesson.ts'

/** What a thing can stand in for: swaps are matched by these. */
export type Property =
  | 'counted'
  | 'two faces'
  | 'stacks'
  | 'stands up'
  | 'ten slots'
  | 'hides'
  | 'written on'
  | 'two places'
  | 'several places'
  | 'numbered line'
  | 'rolls numbers'
  | 'number square'
  | 'parts of a whole'
  | 'dots'
  | 'slides'
  | 'draws slips'
  | 'rolls along'
  | 'spins'

export interface KnownThing {
  name: string
  words: readonly string[]
  properties: readonly Property[]
  /** Largest usual size in mm (width, depth, height), for the small-parts test; absent for things never loose. */
  size?: readonly [number, number, number]
  caution?: string
  /** Made for lessons: few homes have it, so that it is what others stand in for and never the first to stand in. */
  bought?: true
  /** Nobody has to find it: it can be drawn, printed or done without a thing. */
  drawable?: boolean
}

/** Household things this edition knows. Sizes are of usual examples, rounded to a millimetre. */
export const knownThings: readonly KnownThing[] = [
  {
    name: 'two-faced counters',
    words: ['counter', 'counters', 'two-faced counters'],
    properties: ['counted', 'two faces', 'stacks'],
    size: [22, 22, 2],
    bought: true,
  },
  {
    name: 'bottle tops',
    words: ['bottle top', 'bottle tops', 'tops'],
    properties: ['counted', 'two faces', 'stacks'],
    size: [30, 30, 14],
  },
  {
    name: 'dried pasta',
    words: ['pasta', 'dried pasta', 'pasta shapes'],
    properties: ['counted'],
    size: [35, 12, 12],
    caution: 'Food as counters: mind allergies, and say it is not for eating.',
  },
  { name: 'buttons', words: ['button', 'buttons'], properties: ['counted', 'two faces'], size: [20, 20, 4] },
  {
    name: 'coins',
    words: ['coin', 'coins'],
    properties: ['counted', 'two faces', 'stacks'],
    size: [25, 25, 2],
  },
  {
    name: 'folded socks',
    words: ['sock', 'socks', 'folded socks'],
    properties: ['counted'],
    size: [120, 90, 60],
  },
  { name: 'spoons', words: ['spoon', 'spoons'], properties: ['counted'], size: [140, 30, 20] },
  { name: 'pebbles', words: ['pebble', 'pebbles', 'stones'], properties: ['counted'], size: [30, 25, 18] },
  {
    name: 'wooden blocks',
    words: ['block', 'blocks', 'bricks', 'cubes', 'cube'],
    properties: ['counted', 'stacks', 'stands up'],
    size: [40, 40, 40],
  },
  {
    name: 'pegs',
    words: ['peg', 'pegs', 'clothes pegs'],
    properties: ['counted', 'slides'],
    size: [75, 12, 12],
  },
  {
    name: 'letters',
    words: ['letter', 'letters', 'envelopes', 'stamps', 'stamp'],
    properties: ['counted', 'two faces'],
    size: [110, 70, 1],
    drawable: true,
  },
  {
    name: 'skittles',
    words: ['skittle', 'skittles'],
    properties: ['stands up', 'counted'],
    size: [250, 70, 70],
    caution: 'Balls and rolling games want clear floor away from things that break.',
  },
  {
    name: 'empty plastic bottles',
    words: ['plastic bottles', 'empty bottles'],
    properties: ['stands up', 'counted'],
    size: [250, 70, 70],
  },
  {
    name: 'paper cups',
    words: ['cups', 'paper cups', 'cup'],
    properties: ['stands up', 'counted', 'stacks', 'hides'],
    size: [90, 80, 80],
  },
  {
    name: 'soft ball',
    words: ['ball', 'soft ball', 'rolled-up socks'],
    properties: ['rolls along'],
    size: [70, 70, 70],
  },
  {
    name: 'ten frame',
    words: ['ten frame', 'frame', 'egg box', 'ten-slot egg box'],
    properties: ['ten slots'],
    drawable: true,
  },
  { name: 'egg box', words: ['egg box', 'ten-slot egg box'], properties: ['ten slots'] },
  { name: 'drawn ten frame', words: ['drawn frame'], properties: ['ten slots'] },
  {
    name: 'jar',
    words: ['jar', 'hive', 'sack'],
    properties: ['hides'],
    caution: 'Glass breaks: a plastic tub or a saucepan does the same.',
  },
  { name: 'saucepan with a lid', words: ['saucepan', 'pan'], properties: ['hides'] },
  {
    name: 'part-whole drawing',
    words: ['part-whole', 'part whole'],
    properties: ['parts of a whole', 'two places'],
    drawable: true,
  },
  { name: 'plates', words: ['plates', 'plate', 'two plates'], properties: ['several places', 'two places'] },
  {
    name: 'sheets of paper',
    words: ['sheets of paper', 'sheets'],
    properties: ['several places', 'two places', 'parts of a whole'],
  },
  { name: 'two shelves', words: ['shelves', 'pigeon-holes', 'pigeon holes'], properties: ['two places'] },
  { name: 'two shoe boxes', words: ['shoe boxes'], properties: ['two places'] },
  {
    name: 'number line',
    words: ['number line', 'line', 'street of doors'],
    properties: ['numbered line'],
    drawable: true,
  },
  {
    name: 'hundred square',
    words: ['hundred square', 'number square'],
    properties: ['number square'],
    drawable: true,
  },
  {
    name: 'squared paper',
    words: ['squared paper', 'calendar'],
    properties: ['number square'],
    drawable: true,
  },
  { name: 'dot card', words: ['dot card', 'dot cards', 'domino'], properties: ['dots'], drawable: true },
  { name: 'pair plate', words: ['pair plate'], properties: ['dots'], drawable: true },
  { name: 'rail with pegs', words: ['rail', 'coat hanger', 'hanger with pegs'], properties: ['slides'] },
  {
    name: 'string with beads',
    words: ['beads', 'string with beads'],
    properties: ['slides'],
    caution: 'Strings and beads want a grown-up beside the child.',
  },
  {
    name: 'strip of paper',
    words: ['strip', 'strip of paper', 'strips'],
    properties: ['parts of a whole'],
    drawable: true,
  },
  { name: 'spinner', words: ['spinner'], properties: ['spins', 'rolls numbers'], drawable: true },
  {
    name: 'bowl with slips',
    words: ['bowl', 'bowl with slips', 'slips'],
    properties: ['draws slips', 'rolls numbers'],
  },
  { name: 'hat with slips', words: ['hat', 'hat with slips'], properties: ['draws slips', 'rolls numbers'] },
  { name: 'ruler', words: ['ruler'], properties: ['numbered line'] },
  { name: 'die', words: ['die', 'dice'], properties: ['rolls numbers'], size: [16, 16, 16] },
  {
    name: 'number cards',
    words: ['number cards', 'cards', 'number card'],
    properties: ['rolls numbers', 'written on'],
    drawable: true,
  },
  {
    name: 'paper and a pencil',
    words: ['paper', 'pencil', 'paper and a pencil', 'paper and pencil'],
    properties: ['written on'],
  },
  { name: 'chalk on the step', words: ['chalk'], properties: ['written on'] },
]

export const thingNamed = (text: string): KnownThing | undefined => {
  const t = text.trim().toLowerCase()
  return knownThings.find((k) => k.name === t) ?? knownThings.find((k) => k.words.includes(t))
}

/** Names of several of each thing that is counted one by one. */
export const countedNames: readonly string[] = knownThings
  .filter((k) => k.properties.includes('counted'))
  .flatMap((k) => [k.name, ...k.words])
  .filter((w) => w.endsWith('s'))

/** Things with the properties this one is used for, best match first; never itself. */
export function swapsFor(name: string, uses?: readonly Property[]): KnownThing[] {
  const thing = thingNamed(name)
  if (!thing) return []
  const needed = uses ?? [thing.properties[0]!]
  return knownThings
    .filter((k) => k.name !== thing.name && needed.every((p) => k.properties.includes(p)))
    .sort(
      (a, b) =>
        Number(a.bought ?? false) - Number(b.bought ?? false) ||
        overlap(b, thing) - overlap(a, thing) ||
        a.properties.length - b.properties.length,
    )
}
const overlap = (a: KnownThing, b: KnownThing) => a.properties.filter((p) => b.properties.includes(p)).length

/**
 * Whether a thing can vanish in a small child's mouth: it fits wholly, in some orientation, in a cylinder
 * 31.7 mm across whose depth slopes from 25.4 to 57.1 mm (the test cylinder of EN 71-1 and 16 CFR 1501).
 * A box of a × b lies in the round opening when its diagonal is at most 31.7 mm; its height must then stay
 * under the slope at the box's far side. Sizes in mm; balls up to 44.5 mm count too.
 */
export function isSmallPart(
  size: readonly [number, number, number],
  shape: 'box' | 'ball' | 'disc' = 'box',
): boolean {
  const across = 31.7
  const [shallow, deep] = [25.4, 57.1]
  if (shape === 'ball') return Math.max(...size) <= 44.5
  const turns: [number, number, number][] = [
    [size[0], size[1], size[2]],
    [size[0], size[2], size[1]],
    [size[1], size[2], size[0]],
  ]
  return turns.some(([a, b, height]) => {
    // A disc lying flat needs only its own diameter, not the diagonal of the square around it.
    const opening = shape === 'disc' && Math.abs(a - b) < 1 ? Math.max(a, b) : Math.hypot(a, b)
    if (opening > across) return false
    // The slope drops along the diameter: pushed to the deep side, the thing reaches back `opening` of it.
    return height <= deep - ((deep - shallow) * opening) / across
  })
}

/** Round and flat: it goes through an opening of its own width. */
export const isRoundThing = (name: string): boolean =>
  ['two-faced counters', 'bottle tops', 'buttons', 'coins'].includes(name)

/** Cautions for a kit list, each worded as guidance that defers to the setting's own policies. */
export function cautionsFor(kit: readonly KitItem[]): string[] {
  const out = new Set<string>()
  for (const item of kit) {
    const thing = thingNamed(item.thing)
    if (!thing) continue
    if (thing.caution) out.add(thing.caution)
    if (thing.size && isSmallPart(thing.size, isRoundThing(thing.name) ? 'disc' : 'box'))
      out.add(
        'Small parts: with a child under three at home, choose things too big to swallow, and stay beside them. Follow the maker’s warnings.',
      )
  }
  return [...out]
}
