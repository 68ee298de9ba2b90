import type { Action, Face, Mat } from '../../table/state.ts'
import type { Clause } from '../clauses.ts'
import { faces } from '../lexicon.ts'
import type { Ground } from '../spots.ts'
import { type Sense, sensed } from './sense.ts'

/** What is coloured in is drawn: nobody has to find it. */
export const shading = 'drawn shading'
/** Mats with squares of their own that can be coloured in. */
const squared = new Set<Mat['kind']>(['frame', 'row'])
const shadeable = (g: Ground): Mat | undefined => g.table.mats.find((m) => squared.has(m.kind))

const squares = new Set(
  'square box space slot place cell part'.split(' ').flatMap((w) => [w, `${w}s`, `${w}es`]),
)
const beside = new Set(
  'and , then more another of them the its in on ten frame row first next pen pencil crayon with a'.split(
    ' ',
  ),
)

/** The one colour said in a clause; null where none is, or several. */
export function colourOf(c: Clause): Face | null {
  const said = new Set(c.words.flatMap((w) => (w.t in faces ? [faces[w.t]!] : [])))
  return said.size === 1 ? [...said][0]! : null
}

/** "Shade 4 squares red, 3 blue and 2 green", "Colour 3 more blue": so many squares of the frame, each lot in its colour. */
export const shade: Sense = (c, { ground }) => {
  if (!['shade', 'colour', 'color'].includes(c.verb ?? '')) return null
  const mat = ground.table.mats.some((m) => m.line) ? undefined : shadeable(ground)
  if (!mat) return null
  const lots: { n: number; face: Face | null }[] = []
  const words = c.words.filter((w) => w.t !== c.verb)
  for (const w of words) {
    if (w.n !== null && w.t !== 'ten') lots.push({ n: w.n, face: null })
    else if (w.t in faces) {
      const lot = lots.at(-1)
      if (!lot || lot.face) return null
      lot.face = faces[w.t]!
    } else if (!squares.has(w.t) && !beside.has(w.t)) return null
  }
  if (!lots.length || lots.some((l) => l.n < 1)) return null
  const at = { mat: mat.kind, region: 0 }
  return sensed(
    lots.map((l): Action => ({
      type: 'put',
      count: l.n,
      face: l.face ?? 'saffron',
      kind: shading,
      worth: 1,
      at,
      apart: false,
    })),
    c.subject ? [...c.parts, c.subject] : c.parts,
    at,
  )
}
