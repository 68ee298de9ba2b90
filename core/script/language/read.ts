import { act } from '../table/machine.ts'
import { type Action, TableError, type TableState } from '../table/state.ts'
import { type Clause, clausesOf, type Part, readClause } from './clauses.ts'
import * as devices from './senses/devices.ts'
import * as laying from './senses/laying.ts'
import * as marking from './senses/marking.ts'
import * as moving from './senses/moving.ts'
import * as numbers from './senses/numbers.ts'
import { inPicture } from './senses/picture.ts'
import * as parting from './senses/parting.ts'
import { laidThenPut } from './laid-with.ts'
import { shade } from './senses/shading.ts'
import * as putting from './senses/putting.ts'
import type { Said, Sense, Sensed } from './senses/sense.ts'
import * as sharing from './senses/sharing.ts'
import * as taking from './senses/taking.ts'
import { isVerbOf } from './verbs.ts'
import { wordsOf } from './words.ts'

/** How a line of hands was understood on a table. */
export interface HandReading {
  /** What hands do; none when the line was refused or read only in part: nothing is drawn that was not said. */
  actions: readonly Action[]
  after: TableState
  /** Why the table does not allow it. */
  error: TableError | null
  /** Words no reading accounts for; the line was read in part when there are any, or when nothing was understood. */
  unread: readonly string[]
  whole: boolean
  /** Readings that account for most of it, to choose from. */
  offers: readonly (readonly Action[])[]
}

/** From the most particular to the most general: the first that accounts for every word and can be done is taken. */
const senses: readonly Sense[] = [
  devices.outcome,
  laying.layFromThings,
  laying.foldSlips,
  laying.bringBack,
  laying.addPlace,
  laying.tally,
  laying.layOut,
  laying.putAway,
  devices.giveBack,
  devices.refill,
  devices.orderCards,
  devices.turnCards,
  devices.layCards,
  devices.clap,
  devices.roll,
  devices.spin,
  devices.fish,
  inPicture,
  marking.standUp,
  marking.knockDown,
  numbers.markMiddle,
  numbers.startOn,
  numbers.hop,
  taking.rubOut,
  marking.crossOut,
  marking.ring,
  shade,
  numbers.mark,
  moving.exchange,
  moving.pair,
  moving.swapPlaces,
  moving.tipOut,
  marking.uncover,
  marking.hold,
  marking.cover,
  marking.divide,
  marking.label,
  parting.halve,
  parting.join,
  parting.split,
  sharing.share,
  parting.setApart,
  moving.putTaken,
  moving.putBack,
  putting.fingers,
  putting.double,
  putting.match,
  marking.turnOver,
  taking.clear,
  taking.takeAway,
  putting.fill,
  putting.putOnOtherFrame,
  moving.move,
  putting.put,
  putting.arrive,
  marking.shake,
]

interface Candidate {
  sensed: Sensed | null
  error: TableError | null
  left: readonly string[]
}

/** Things said that no hand does: "read it out", "leave the rest". */
const isSaid = (c: Clause, before: readonly Action[]): boolean =>
  (c.verb === 'show' && !c.parts.length) ||
  (['roll', 'throw', 'bowl', 'kick'].includes(c.verb ?? '') &&
    c.parts.length === 1 &&
    c.parts[0]!.group.noun === 'ball') ||
  // "… and put them in the box", "… and lay them out": what was just taken or drawn, and no place of the table.
  (['take', 'draw'].includes(before.at(-1)?.type ?? '') &&
    c.parts.some((p) => p.prep === null && p.group.pronoun !== null) &&
    c.parts.every((p) => (p.prep === null ? p.group.pronoun !== null : p.group.mat === null))) ||
  (isVerbOf(c.verb, 'say') && !c.parts.some((p) => p.group.mat)) ||
  (c.verb === 'leave' && !c.parts.some((p) => p.prep !== null && ['after', 'between'].includes(p.prep))) ||
  (c.verb === null && !c.parts.length && !c.loose.length)

function readSense(sense: Sense, c: Clause, said: Said): Candidate | null {
  try {
    const found = sense(c, said)
    if (!found) return null
    const left = leftOver(c, found.uses)
    // What stands in the place of the act before it is carried out with that undone.
    if (!found.instead) found.actions.reduce(act, said.ground.table)
    return { sensed: found, error: null, left }
  } catch (error) {
    if (error instanceof TableError) return { sensed: null, error, left: [] }
    throw error
  }
}
/** "With your finger", "with a pencil": what a hand uses, and nothing on the table. */
const isTool = (p: Part): boolean =>
  p.prep === 'with' &&
  (p.group.n ?? 1) === 1 &&
  (p.group.mat === null || p.group.mat === 'hands') &&
  p.group.noun !== null &&
  p.group.face === null &&
  p.group.quantity === null
const counted = (p: Part): boolean =>
  p.group.n !== null || p.group.quantity !== null || p.group.pronoun === 'they'
function leftOver(c: Clause, uses: readonly Part[]): string[] {
  const used = new Set(uses)
  const parts = [...c.parts, ...(c.subject && counted(c.subject) ? [c.subject] : [])].filter(
    (p) => !used.has(p) && !isTool(p),
  )
  return [
    ...c.loose.map((w) => w.t),
    ...parts.map((p) =>
      c.words
        .slice(p.group.from, p.group.to)
        .map((w) => w.t)
        .join(' '),
    ),
  ]
}

/** Reads a line of hands on the table as it stands. */
export function readHands(text: string, table: TableState): HandReading {
  const quoted = text.match(/[“"]([^”"]+)[”"]/)
  const words = wordsOf(quoted ? text.replace(quoted[0], '') : text)
  let actions: Action[] = []
  let state = table
  const unread: string[] = []
  let offers: (readonly Action[])[] = []
  let error: TableError | null = null
  let named: Said['ground']['named'] = null
  let understood = false
  let verb: string | null = null
  for (const list of clausesOf(words).flatMap(laidThenPut)) {
    const own = readClause(list)
    // "… and then 3 blue": the verb before it is meant again.
    const clause: Clause = {
      ...own,
      verb: own.verb ?? verb,
      elided: own.verb === null,
      ...(quoted ? { quoted: quoted[1]!.split(/,\s*/) } : {}),
    }
    const said: Said = { ground: { table: state, named }, before: actions }
    verb = clause.verb
    const found: Candidate[] = []
    let whole: Candidate | undefined
    // The first that accounts for every word is taken; the others are looked at only where there is none.
    for (const sense of senses) {
      const c = readSense(sense, clause, said)
      if (c) found.push(c)
      if (c?.sensed && !c.left.length) {
        whole = c
        break
      }
    }
    if (!whole) {
      if (isSaid(clause, actions)) continue
      const refused = found.find((c) => c.error)
      if (refused && !found.some((c) => c.sensed)) error ??= refused.error
      else unread.push(...(found[0]?.left ?? [list.map((w) => w.t).join(' ')]))
      offers = offers.length
        ? offers
        : found.flatMap((c) => (c.sensed ? [[...actions, ...c.sensed.actions]] : []))
      continue
    }
    understood = true
    const { sensed } = whole
    actions = sensed!.instead
      ? [...actions.slice(0, -1), ...sensed!.actions]
      : [...actions, ...sensed!.actions]
    state = actions.reduce(act, table)
    named = sensed!.named ?? named
  }
  const complete = understood && !unread.length && !error
  return {
    actions: complete ? actions : [],
    after: complete ? state : table,
    error,
    unread: unread.length || understood || error ? unread : [text],
    whole: complete,
    offers: complete ? [] : offers.slice(0, 3),
  }
}
