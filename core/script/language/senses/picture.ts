import type { Action } from '../../table/state.ts'
import { stem } from '../lexicon.ts'
import { matOn } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { bare, has, type Sense, sensed } from './sense.ts'

/** "Three bees fly out of the picture", "Pop two more snails in the picture", "Rub out one spoon in the picture". */
export const inPicture: Sense = (c, { ground }) => {
  const scene = matOn(ground, 'scene')
  const picture = c.parts.find((p) => p.group.mat === 'scene')
  if (!scene || (!picture && ground.table.mats.length > 1)) return null
  const what = bare(c).find((p) => p !== picture) ?? c.subject
  if (!what?.group.noun || what.group.mat) return null
  const region = scene.regions.findIndex(
    (r) => stem(r.name) === what.group.noun || r.name.split(' ').some((w) => stem(w) === what.group.noun),
  )
  if (region < 0) return null
  const things = scene.regions[region]!.things
  const gone =
    (picture && ['out of', 'from', 'off', 'out'].includes(picture.prep ?? '')) ||
    has(c, 'out', 'away', 'off') ||
    isVerbOf(c.verb, 'unmark') ||
    ['go', 'leave', 'run', 'fly', 'swim', 'hop', 'eat'].includes(c.verb ?? '')
  const n = what.group.n ?? (what.group.quantity === 'all' ? things.length : null)
  if (n === null) return null
  const uses = [...c.parts, c.subject]
  if (gone) return sensed([{ type: 'take', keys: things.slice(things.length - n).map((t) => t.key) }], uses)
  if (!isVerbOf(c.verb, 'put') && !['come', 'join', 'arrive'].includes(c.verb ?? '')) return null
  const put: Action = {
    type: 'put',
    count: n,
    face: 'saffron',
    kind: scene.regions[region]!.name,
    worth: 1,
    at: { mat: 'scene', region },
    apart: false,
  }
  return sensed([put], uses)
}
