import type { TableState, Thing } from '../table/state.ts'
import type { Group } from './groups.ts'
import { candidates, thingsAt } from './pick.ts'
import { type Ground, spotsNamed } from './spots.ts'

/** The things that lie where the groups say and are what they say: all of the table when they say nothing. */
export function countedThings(groups: readonly Group[], table: TableState): Thing[] {
  const ground: Ground = { table, named: null }
  const places = groups.flatMap((g) => {
    const spots = spotsNamed(g, ground) ?? (g.of ? spotsNamed(g.of, ground) : null)
    return spots?.length ? spots : []
  })
  const there = places.length
    ? [...new Set(places.flatMap((at) => thingsAt(table, at)))]
    : thingsAt(table, null)
  const keys = new Set(there.map((t) => t.key))
  return groups
    .filter((g) => g.mat === null)
    .reduce<Thing[]>(
      (left, g) => {
        const wanted = { at: null, end: 'last', refusal: 'take' } as const
        const fit = new Set(candidates({ ...g, n: null }, ground, wanted).map((t) => t.key))
        return left.filter((t) => fit.has(t.key))
      },
      there.filter((t) => keys.has(t.key)),
    )
}
