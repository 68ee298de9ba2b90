import { assertNever } from '../../contracts/assert-never.ts'
import { cardsBack, clap, drawCards, orderCards, rollDice, showCards, spin } from './acts/cards.ts'
import { hop, mark, standAt, unhop, unmark } from './acts/line.ts'
import * as places from './acts/places.ts'
import * as marks from './acts/marks.ts'
import { layMat } from './mats.ts'
import { type Action, emptyTable, type Mat, type MatKind, type TableState, thingsOn } from './state.ts'

/**
 * The table after one action. Pure: the state given is not changed.
 * @throws TableError when the action breaks what holds of real things (nothing taken that isn't there,
 * nothing beyond a mat's places, nothing lost in a move or an exchange).
 */
export function act(state: TableState, action: Action): TableState {
  const next = perform(broughtBack(state, action), action)
  const out = thingsOn(next).length
  return { ...next, start: action.type === 'clear' && !action.at ? 0 : Math.max(next.start, out) }
}

/** The table with the mat an action needs brought back, where it was put away. */
function broughtBack(state: TableState, a: Action): TableState {
  const kinds = matsOf(a).filter((kind) => !state.mats.some((m) => m.kind === kind))
  const back = state.aside.filter((m) => kinds.includes(m.kind))
  return back.length
    ? { ...state, mats: [...state.mats, ...back], aside: state.aside.filter((m) => !back.includes(m)) }
    : state
}
function matsOf(a: Action): readonly MatKind[] {
  switch (a.type) {
    case 'put':
    case 'move':
    case 'label':
      return [a.at.mat]
    case 'bring back':
    case 'add place':
    case 'cover mat':
    case 'ring':
    case 'divide':
    case 'swap places':
    case 'mark':
      return [a.mat]
    case 'hop':
    case 'stand':
      return ['line', 'square']
    case 'spin':
      return ['spinner']
    case 'draw':
      return [a.from]
    default:
      return []
  }
}
/** What lies aside once mats leave the table: bare, one of a kind, the latest form. */
const setAside = (state: TableState, gone: readonly Mat[]): readonly Mat[] => [
  ...state.aside.filter((m) => !gone.some((g) => g.kind === m.kind)),
  ...gone.filter((m) => !['sound', 'scene', 'cards', 'dice'].includes(m.kind)).map(cleared),
]

function perform(state: TableState, a: Action): TableState {
  switch (a.type) {
    case 'lay': {
      const mat = layMat(a.mat, a, state.nextKey)
      const used = mat.regions.reduce((n, r) => n + r.things.length, 0)
      return {
        ...state,
        nextKey: state.nextKey + used,
        mats: [...state.mats.filter((m) => m.kind !== a.mat), mat],
        aside: state.aside.filter((m) => m.kind !== a.mat),
      }
    }
    case 'away':
      return {
        ...state,
        mats: state.mats.filter((m) => m.kind !== a.mat),
        aside: setAside(
          state,
          state.mats.filter((m) => m.kind === a.mat),
        ),
      }
    case 'bring back':
      return state
    case 'put':
      return places.put(state, a)
    case 'take':
      return places.take(state, a.keys)
    case 'move':
      return places.move(state, a)
    case 'heap':
      return places.heap(state, a.heaps)
    case 'swap places':
      return places.swapPlaces(state, a)
    case 'exchange':
      return places.exchange(state, a)
    case 'halve':
      return places.halve(state, a.keys)
    case 'add place':
      return places.addPlace(state, a.mat)
    case 'turn':
      return marks.turnOver(state, a.keys, a.face)
    case 'cover':
      return marks.cover(state, a.keys)
    case 'cover mat':
      return marks.coverMat(state, a.mat)
    case 'uncover':
      return marks.uncover(state, a.mat)
    case 'cross':
      return marks.cross(state, a.keys, a.crossed)
    case 'ring':
      return marks.ring(state, a)
    case 'unring':
      return marks.unring(state)
    case 'divide':
      return marks.divide(state, a)
    case 'label':
      return marks.label(state, a)
    case 'rearrange':
      return marks.rearrange(state, a.mat)
    case 'hold':
      return { ...state, held: a.number }
    case 'rub out':
      return { ...state, written: [] }
    case 'clear':
      return a.at ? clearPlace(state, a.at) : clearAll(state)
    default:
      return onNumbers(state, a)
  }
}
/** Lines, dice, cards and sounds: what is shown by numbers rather than by things. */
function onNumbers(
  state: TableState,
  a: Extract<
    Action,
    {
      type:
        | 'hop'
        | 'stand'
        | 'mark'
        | 'unmark'
        | 'unhop'
        | 'roll'
        | 'spin'
        | 'show card'
        | 'order cards'
        | 'cards back'
        | 'draw'
        | 'clap'
    }
  >,
): TableState {
  switch (a.type) {
    case 'hop':
      return hop(state, a.from, a.by, a.times)
    case 'stand':
      return standAt(state, a.at)
    case 'mark':
      return mark(state, a.numbers, a.mat, a.face)
    case 'unmark':
      return unmark(state, a.numbers)
    case 'unhop':
      return unhop(state)
    case 'roll':
      return rollDice(state, a.faces)
    case 'spin':
      return spin(state, a.text)
    case 'show card':
      return showCards(state, a.texts, a.up)
    case 'order cards':
      return orderCards(state, a.texts)
    case 'cards back':
      return cardsBack(state, a.texts)
    case 'draw':
      return drawCards(state, a.texts, a.back, a.from)
    case 'clap':
      return clap(state, a)
    default:
      return assertNever(a)
  }
}

/**
 * A bare table: the mats go with what lay on them, only skittles are set up again where they stand. Keys start again:
 * nothing that had one is on the table any more, unless it stands up again.
 */
function clearAll(state: TableState): TableState {
  const stays = (m: Mat): boolean => m.kind === 'skittles'
  const mats = state.mats.filter(stays).map(cleared)
  return {
    ...emptyTable,
    nextKey: mats.length ? state.nextKey : 1,
    mats,
    aside: setAside(
      state,
      state.mats.filter((m) => !stays(m)),
    ),
  }
}
/** One place or one mat emptied; the rest of the table stays. */
function clearPlace(state: TableState, at: { mat: Mat['kind']; region: number | null }): TableState {
  const gone = state.mats
    .filter((m) => m.kind === at.mat)
    .flatMap((m) => m.regions.flatMap((r, i) => (at.region === null || i === at.region ? [...r.things] : [])))
  return {
    ...state,
    taken: state.taken + gone.length,
    last: null,
    mats: state.mats.map((m) =>
      m.kind !== at.mat
        ? m
        : at.region === null
          ? cleared(m)
          : {
              ...m,
              divider: null,
              rings: [],
              regions: m.regions.map((r, i) => (i === at.region ? { ...r, things: [], label: null } : r)),
            },
    ),
  }
}

/** A mat as it lies once its things are gone. Skittles are set up again; cards and dice go back in the box. */
function cleared(m: Mat): Mat {
  if (m.kind === 'skittles')
    return {
      ...m,
      regions: m.regions.map((r) => ({ ...r, things: r.things.map((t) => ({ ...t, crossed: false })) })),
      rings: [],
    }
  return {
    ...m,
    covered: false,
    divider: null,
    rings: [],
    look: 0,
    cards:
      m.kind === 'bowl' || m.kind === 'spinner' ? m.cards.map((c) => ({ ...c, up: m.kind === 'bowl' })) : [],
    regions: m.regions.map((r) => ({ ...r, things: [], label: null })),
    line: m.line && { ...m.line, hops: [], at: null, marks: [], pens: [] },
  }
}
