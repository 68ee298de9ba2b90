import { numbersIn } from './solve.ts'

/** How a household lays its things on the table: what a task's words ask for, done well or not. */
export type Laying =
  | { as: 'heap' }
  /** Heaps apart, on plates or in rings where the words name them. */
  | { as: 'heaps'; sizes: number[]; on: 'table' | 'plates' | 'rings' }
  | { as: 'rows'; sizes: number[] }
  /** Ten frames, the first filled before the second. */
  | { as: 'frames'; frames: number }
  /** On a drawn line, shares of it. */
  | { as: 'line'; at: number[] }
  /** Along one rail with a gap after so many. */
  | { as: 'rail'; one: number }
  | { as: 'moved'; go: number }
export interface Laid {
  things: number
  laying: Laying
}
const after = (words: string, mark: RegExp): string => words.slice(words.search(mark)).replace(mark, '')

/** What a grown-up has read: the words without what they say of the photo, their numbers, whether it is done well. */
interface Read {
  words: string
  said: readonly number[]
  well: boolean
  slip: 0 | 1
  random: (n: number) => number
}
/** Ways of laying, the first that the words speak of. */
const ways: readonly ((r: Read) => Laid | null)[] = [
  ({ words, well }) => {
    if (!/\bline from\b/.test(words)) return null
    const [from = 0, to = 10] = numbersIn(after(words, /\bline from\b/))
    const at = numbersIn(after(words, /\bat\b/)).map((n) => (n - from) / Math.max(1, to - from))
    const felt = at.map((p) => (well ? p : Math.log1p(9 * p) / Math.log(10)))
    return { things: at.length, laying: { as: 'line', at: felt } }
  },
  ({ words, said, slip }) => {
    if (!/\bin one row\b.*\bin another\b/.test(words)) return null
    // The second number is the "one" of "one row".
    const [a = 1, b = 1] = said.filter((_, i) => i !== 1)
    return { things: a + b + slip, laying: { as: 'rows', sizes: [a + slip, b] } }
  },
  ({ words, said, slip }) => {
    if (!/\bin a row\b/.test(words)) return null
    const things = first(said) + slip
    return { things, laying: { as: 'rows', sizes: [things] } }
  },
  ({ words, said, slip }) => {
    if (!/\bmove away\b/.test(words)) return null
    const go = first(numbersIn(after(words, /\bmove away\b/))) + slip
    return { things: first(said), laying: { as: 'moved', go: Math.min(first(said), go) } }
  },
  ({ words, said, slip }) =>
    /\bto one side\b/.test(words)
      ? { things: first(said), laying: { as: 'rail', one: Math.min(first(said), (said[1] ?? 1) + slip) } }
      : null,
  ({ words, said, slip }) => {
    if (!/\bten frames?\b|\begg box\b/.test(words)) return null
    const things = Math.min(20, first(said) + slip)
    return { things, laying: { as: 'frames', frames: things > 10 ? 2 : 1 } }
  },
  ({ words, said, well }) => {
    const plates = /\bon (\w+) plates\b/.exec(words)
    if (!plates) return null
    const [n, many] = [first(said), numbersIn(plates[1]!)[0] ?? 2]
    const sizes = Array.from({ length: many }, (_, i) => Math.floor(n / many) + (i < n % many ? 1 : 0))
    if (!well) {
      sizes[0]!++
      sizes[many - 1]!--
    }
    return { things: n, laying: { as: 'heaps', sizes, on: 'plates' } }
  },
  ({ words, said, slip, random }) => {
    const two =
      /\b(?:in|on) (?:two|2) (groups|parts|shelves|piles|rings)\b|\b(?:two|2) (?:piles|heaps)\b/.exec(words)
    if (!two) return null
    const total = numbersIn(/\b(\w+) altogether\b/.exec(words)?.[1] ?? '')[0] ?? first(said)
    const n = Math.min(20, total + slip)
    const one = n < 2 ? n : 1 + random(n - 1)
    return {
      things: n,
      laying: { as: 'heaps', sizes: [one, n - one], on: two[1] === 'rings' ? 'rings' : 'table' },
    }
  },
  ({ words, said, slip }) =>
    /\band \w+ more\b/.test(words)
      ? { things: (said[0] ?? 0) + (said[1] ?? 0) + slip, laying: { as: 'heap' } }
      : null,
]
const first = (said: readonly number[]): number => said[0] ?? 5

/**
 * A grown-up reads the task aloud and the child lays it out. `well`: as it is asked; else one thing too many, shares
 * that are not equal, one too many that goes, or a line bunched at its far end.
 */
export function laidFrom(prompt: string, well: boolean, random: (n: number) => number): Laid {
  // What is said of the photo says nothing of the things.
  const words = prompt.toLowerCase().split(/(?:then )?ask the grown-up/)[0]!
  const read: Read = { words, said: numbersIn(words), well, slip: well ? 0 : 1, random }
  for (const way of ways) {
    const laid = way(read)
    if (laid) return laid
  }
  return { things: Math.max(1, Math.min(20, first(read.said) + read.slip)), laying: { as: 'heap' } }
}

/** The table as the camera sees it: pixels, `r` the radius of a thing. */
interface Table {
  w: number
  h: number
  r: number
}
interface Place {
  x: number
  y: number
}
const grid = (n: number, across: number, at: Place, pitch: number): Place[] => {
  const rows = Math.ceil(n / across)
  return Array.from({ length: n }, (_, i) => ({
    x: at.x + ((i % across) - (Math.min(n, across) - 1) / 2) * pitch,
    y: at.y + (Math.floor(i / across) - (rows - 1) / 2) * pitch,
  }))
}
/** Where heaps lie: beside each other, from four on in two rows. */
function middles(many: number, { w, h }: Table): Place[] {
  const across = many > 3 ? Math.ceil(many / 2) : many
  const rows = Math.ceil(many / across)
  return Array.from({ length: many }, (_, i) => ({
    x: (w * ((i % across) + 0.5)) / across,
    y: (h * (Math.floor(i / across) + 0.5)) / rows,
  }))
}
/** Where each thing lies, and what is drawn or stands under them. */
export function laidOut(n: number, laying: Laying, table: Table): { places: Place[]; under: string } {
  const { w, h, r } = table
  const middle = { x: w / 2, y: h / 2 }
  const pitch = r * 2.7
  switch (laying.as) {
    case 'heap':
      return { places: grid(n, 5, middle, pitch), under: '' }
    case 'rows':
      return {
        places: laying.sizes.flatMap((size, row) =>
          Array.from({ length: size }, (_, i) => ({
            x: middle.x + (i - (Math.max(...laying.sizes) - 1) / 2) * pitch,
            y: middle.y + (row - (laying.sizes.length - 1) / 2) * r * 4.4,
          })),
        ),
        under: '',
      }
    case 'moved':
      return {
        places: [
          ...grid(n - laying.go, 4, { x: 0.33 * w, y: middle.y }, pitch),
          ...grid(laying.go, 2, { x: 0.82 * w, y: middle.y }, pitch),
        ],
        under: '',
      }
    case 'heaps': {
      const at = middles(laying.sizes.length, table)
      const width =
        Math.min(w / Math.min(3, laying.sizes.length), laying.sizes.length > 3 ? h * 0.62 : h) * 0.42
      const drawn = {
        table: '',
        plates: `fill="#F4F1EA" stroke="#C9C3B6" stroke-width="6"`,
        rings: `fill="none" stroke="#222226" stroke-width="${r * 0.2}"`,
      }[laying.on]
      return {
        places: laying.sizes.flatMap((size, i) => grid(size, Math.ceil(Math.sqrt(size)), at[i]!, pitch)),
        under:
          drawn &&
          at
            .map((p) => `<ellipse cx="${p.x}" cy="${p.y}" rx="${width}" ry="${width * 0.97}" ${drawn}/>`)
            .join(''),
      }
    }
    case 'frames': {
      const cell = Math.min(w * 0.13, (h * 0.8) / (2 * laying.frames + 0.6))
      const tops = Array.from(
        { length: laying.frames },
        (_, f) => middle.y + (f - (laying.frames - 1) / 2) * 2.6 * cell - cell,
      )
      const left = middle.x - 2.5 * cell
      const lines = tops.flatMap((top) => [
        ...Array.from({ length: 6 }, (_, i) => `M${left + i * cell} ${top}v${2 * cell}`),
        ...Array.from({ length: 3 }, (_, i) => `M${left} ${top + i * cell}h${5 * cell}`),
      ])
      return {
        places: Array.from({ length: n }, (_, i) => ({
          x: left + ((i % 5) + 0.5) * cell,
          y: (tops[Math.floor(i / 10)] ?? tops.at(-1)!) + (Math.floor((i % 10) / 5) + 0.5) * cell,
        })),
        under: `<rect x="${left - 0.3 * cell}" y="${tops[0]! - 0.3 * cell}" width="${5.6 * cell}" height="${tops.at(-1)! - tops[0]! + 2.6 * cell}" fill="#F3F0E7"/><path d="${lines.join('')}" stroke="#1d1d20" stroke-width="${cell * 0.05}" stroke-linecap="square" fill="none"/>`,
      }
    }
    case 'line': {
      const [from, length] = [0.08 * w, 0.84 * w]
      return {
        places: laying.at.map((p) => ({ x: from + p * length, y: middle.y })),
        under: `<rect x="${0.03 * w}" y="${middle.y - 4 * r}" width="${0.94 * w}" height="${8 * r}" fill="#F1EEE5"/><path d="M${from} ${middle.y}h${length}" stroke="#1d1d20" stroke-width="${r * 0.16}"/>`,
      }
    }
    case 'rail': {
      const step = r * 2.15
      const gap = r * 5
      const length = (n - 1) * step + gap
      const from = middle.x - length / 2
      return {
        places: Array.from({ length: n }, (_, i) => ({
          x: from + i * step + (i >= laying.one ? gap : 0),
          y: middle.y,
        })),
        under: `<path d="M${from - 2 * r} ${middle.y}h${length + 4 * r}" stroke="#6b5a44" stroke-width="${r * 0.3}"/>`,
      }
    }
  }
}
