import type { KitItem } from '../contracts/lesson.ts'
import type { OtherWay } from '../contracts/home-lists.ts'
import type { Told } from '../contracts/told.ts'
import { isRoundThing, isSmallPart, thingNamed, type KnownThing, swapsFor } from '../plan/things.ts'
import { told } from './words/words.ts'

/** What a home said of itself, and what a lesson asks for. */
interface Asked {
  ways: readonly OtherWay[]
  /** False where the home said it cannot print; null where it said nothing. */
  canPrint: boolean | null
  kit: readonly KitItem[]
  /** Things the home said it has. */
  has: readonly string[]
  hasSheets: boolean
  hasFilm: boolean
}
const isSmall = (t: KnownThing): boolean =>
  t.size !== undefined && isSmallPart(t.size, isRoundThing(t.name) ? 'disc' : 'box')
const isFood = (t: KnownThing): boolean => /food/i.test(t.caution ?? '')

/** A thing in the place of those that will not do: one the home has, where it has one. */
function instead(a: Asked, bad: (t: KnownThing) => boolean): string | null {
  const met = a.kit.flatMap((k) => thingNamed(k.thing) ?? []).find(bad)
  if (!met) return null
  const fit = swapsFor(met.name).filter((t) => !isSmall(t) && !isFood(t) && !t.bought)
  return (fit.find((t) => a.has.includes(t.name)) ?? fit[0])?.name ?? null
}

/** The other way for this home, a line for each thing it said: nothing where the lesson asks for nothing of the kind. */
export function anotherWay(a: Asked): Told[] {
  const out: Told[] = []
  const lines: Record<OtherWay, () => Told | null> = {
    seated: () => told('route.seated'),
    quiet: () => told('route.quiet'),
    small: () => withThing('route.small', instead(a, isSmall)),
    food: () => withThing('route.food', instead(a, isFood)),
    device: () => told('route.device'),
    colour: () => told('route.colour'),
    hearing: () => (a.hasFilm ? told('route.hearing') : null),
  }
  for (const way of a.ways) {
    const line = lines[way]()
    if (line) out.push(line)
  }
  if (a.canPrint === false && a.hasSheets) out.push(told('route.printer'))
  return out
}
/** The thing's own word waits for the language too: its key goes with it. */
const withThing = (key: 'route.small' | 'route.food', thing: string | null): Told | null =>
  thing ? told(key, { thing: `thing.${thing}` }) : null
