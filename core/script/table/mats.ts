import { en } from '../../findings/words/en.ts'
import { type Card, type Line, type Mat, type MatKind, type Region, type Thing } from './state.ts'

const region = (name: string, slots: number | null = null, things: readonly Thing[] = []): Region => ({
  name,
  slots,
  things,
  label: null,
})

/** What a mat is called in a sentence. */
export const matName = (kind: MatKind): string => en.names.mat[kind]

const many = (n: number, least: number, most: number): number => Math.min(most, Math.max(least, n))

export interface Laid {
  /** Frames, parts, plates or places. */
  parts: number
  from: number
  to: number
  /** Distance of numbered ticks on a line; 0 for ends only. */
  every: number
  items: readonly { text: string; count: number }[]
  /** What its places are called, when not by the mat's usual word. */
  name: string | null
}
const plain: Laid = { parts: 1, from: 0, to: 10, every: 1, items: [], name: null }

/** A mat as it is first laid out, with the things that come with it (skittles stand, a picture holds its things). */
export function layMat(kind: MatKind, wanted: Partial<Laid> = {}, key = 0): Mat {
  const o = { ...plain, ...wanted }
  const mat = (regions: Region[], more: Partial<Mat> = {}): Mat => ({
    kind,
    regions,
    covered: false,
    line: null,
    divider: null,
    rings: [],
    cards: [],
    look: 0,
    ...more,
  })
  const line = (from: number, to: number, every: number): Line => ({
    from,
    to,
    every,
    hops: [],
    at: null,
    marks: [],
    pens: [],
  })
  const cards = (): Card[] =>
    o.items.flatMap((i) => Array.from({ length: Math.max(1, i.count) }, () => ({ text: i.text, up: true })))
  switch (kind) {
    case 'table':
      return mat([region('the table')])
    case 'row':
      return mat([region('the row', 20)])
    case 'frame':
      return mat([region('the frame', 10 * many(o.parts, 1, 3))])
    case 'parts':
    case 'bar':
      return mat([region('the whole'), ...places('part', many(o.parts, 2, 6))])
    case 'shelves':
      return mat([region('the top shelf'), region('the bottom shelf')])
    case 'plates':
      return mat(places(o.name ?? 'plate', many(o.parts, 1, 10)))
    case 'jar':
      return mat([region('the jar')])
    case 'line':
      return mat([], { line: line(o.from, o.to, o.every) })
    case 'square':
      return mat([], { line: line(o.from, o.from === 0 ? 99 : 100, 1) })
    case 'dots':
      return mat([region('the left square', 10), region('the right square', 10)])
    case 'pairs':
      return mat([region('the pair plate', 20)])
    case 'rail':
      return mat([region('the rail', 20)])
    case 'tower':
      return mat([region('the tower', 20)])
    case 'coins':
      return mat([region('the coins')])
    case 'hands':
      return mat([region('the left hand', 5), region('the right hand', 5)])
    case 'skittles': {
      const standing = many(o.parts === 1 ? 10 : o.parts, 3, 10)
      return mat([
        region(
          'the skittles',
          standing,
          Array.from({ length: standing }, (_, i) => thing(key + i, 'skittles')),
        ),
      ])
    }
    case 'scene': {
      let next = key
      return mat(
        o.items.map((i) =>
          region(
            i.text,
            null,
            Array.from({ length: i.count }, () => thing(next++, i.text)),
          ),
        ),
      )
    }
    case 'sound':
      return mat([region('the claps')])
    case 'cards':
    case 'dice':
    case 'spinner':
    case 'bowl':
      return mat([], { cards: cards() })
  }
}
const places = (name: string, n: number): Region[] =>
  Array.from({ length: n }, (_, i) => region(`${name} ${i + 1}`))
export const thing = (key: number, kind: string, over: Partial<Thing> = {}): Thing => ({
  key,
  kind,
  face: 'saffron',
  crossed: false,
  hidden: false,
  worth: 1,
  heap: 0,
  ...over,
})
