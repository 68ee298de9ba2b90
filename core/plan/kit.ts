import { type OtherWay, otherWays } from '../contracts/home-lists.ts'
import type { KitItem } from '../contracts/lesson.ts'
import { swapsFor, thingNamed } from './things.ts'

/** What one home said it has: names of things, and how many small things it could count out at most. */
export interface HomeKit {
  homeId: string
  has: readonly string[]
  /** Small things that can be counted, all kinds together. */
  countable: number
  /** A child under three lives there. */
  underThree: boolean
  canPrint: boolean
  /** What another way was asked for. */
  ways?: readonly OtherWay[]
}

type Able = 'as written' | 'with a swap' | 'with a printed sheet' | 'not yet'
export interface HomeAble {
  homeId: string
  able: Able
  swaps: { thing: string; swap: string }[]
  print: string[]
  lacks: string[]
}

/** Whether one home can do a lesson with these things, and what it takes. A thing nobody knows counts as lacking unless named. */
export function canDo(kit: readonly KitItem[], home: HomeKit): HomeAble {
  const out: HomeAble = { homeId: home.homeId, able: 'as written', swaps: [], print: [], lacks: [] }
  for (const item of kit) {
    const thing = thingNamed(item.thing)
    const name = thing?.name ?? item.thing
    if (thing?.properties.includes('counted') && item.count > home.countable) {
      out.lacks.push(`${item.count} ${name}`)
      continue
    }
    if (home.has.includes(name)) continue
    const swap = swapsFor(name).find((s) => home.has.includes(s.name))
    if (swap) out.swaps.push({ thing: name, swap: swap.name })
    else if (thing?.drawable) out.print.push(name)
    else out.lacks.push(name)
  }
  out.able = out.lacks.length
    ? 'not yet'
    : out.print.length
      ? 'with a printed sheet'
      : out.swaps.length
        ? 'with a swap'
        : 'as written'
  return out
}

export interface KitSummary {
  homes: number
  answered: number
  asWritten: number
  withSwap: number
  printed: number
  notYet: number
  /** What has to be printed or drawn, and for how many homes. */
  prints: { thing: string; homes: number }[]
  lacks: { thing: string; homes: number }[]
  underThree: number
  /** Another way that was asked for, and by how many homes, the most first. */
  ways: { way: OtherWay; homes: number }[]
  sentence: string
}
/** "23 of 26 homes can do this as written; 2 with a swap; 1 needs the printed ten frame." */
export function summarise(kit: readonly KitItem[], homes: readonly HomeKit[], allHomes: number): KitSummary {
  const able = homes.map((h) => canDo(kit, h))
  const count = (a: Able) => able.filter((x) => x.able === a).length
  const tally = (lists: readonly (readonly string[])[]) => {
    const by = new Map<string, number>()
    for (const list of lists) for (const t of list) by.set(t, (by.get(t) ?? 0) + 1)
    return [...by]
      .map(([thing, n]) => ({ thing, homes: n }))
      .sort((x, y) => y.homes - x.homes || x.thing.localeCompare(y.thing))
  }
  const prints = tally(able.filter((a) => a.able === 'with a printed sheet').map((a) => a.print))
  const lacks = tally(able.map((a) => a.lacks))
  const [asWritten, withSwap, printed, notYet] = [
    count('as written'),
    count('with a swap'),
    count('with a printed sheet'),
    count('not yet'),
  ]
  const said = [
    `${asWritten} of ${homes.length} ${homes.length === 1 ? 'home' : 'homes'} can do this as written`,
  ]
  if (withSwap) said.push(`${withSwap} with a swap`)
  if (printed)
    said.push(
      `${printed} ${printed === 1 ? 'needs' : 'need'} the printed ${prints[0]!.thing}${prints.length > 1 ? ' or another sheet' : ''}`,
    )
  if (notYet)
    said.push(`${notYet} cannot yet: ${lacks[0]!.thing} ${lacks.length > 1 ? 'and more ' : ''}missing`)
  const silent = allHomes - homes.length
  return {
    homes: allHomes,
    answered: homes.length,
    asWritten,
    withSwap,
    printed,
    notYet,
    prints,
    lacks,
    underThree: homes.filter((h) => h.underThree).length,
    ways: otherWays
      .map((way) => ({ way, homes: homes.filter((h) => h.ways?.includes(way)).length }))
      .filter((w) => w.homes > 0)
      .sort((x, y) => y.homes - x.homes),
    sentence: homes.length
      ? `${said.join('; ')}.${silent > 0 ? ` ${silent} ${silent === 1 ? 'has' : 'have'} not said yet.` : ''}`
      : 'No home has said what it has yet.',
  }
}

/** What a kit survey asks about: common household things, one of each kind that lessons here use. */
export const surveyThings: readonly string[] = [
  'bottle tops',
  'buttons',
  'coins',
  'folded socks',
  'spoons',
  'pegs',
  'wooden blocks',
  'paper cups',
  'egg box',
  'jar',
  'saucepan with a lid',
  'plates',
  'two shoe boxes',
  'die',
  'number cards',
  'ruler',
  'paper and a pencil',
  'sheets of paper',
  'soft ball',
  'empty plastic bottles',
]
