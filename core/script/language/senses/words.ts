import type { Spot } from '../../table/state.ts'
import { type Ground, matOn } from '../spots.ts'
import { matName } from '../../table/mats.ts'

/** What a place is called: "the frame", "plate 2"; a mat as a whole by its name. */
export function regionName(ground: Ground, at: Spot): string {
  const mat = matOn(ground, at.mat)
  if (at.region < 0 || !mat) return `the ${matName(at.mat)}`
  return mat.regions[at.region]?.name ?? `the ${matName(at.mat)}`
}
