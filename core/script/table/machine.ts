import { assertNever } from '../../contracts/assert-never.ts'
import { drawCards, rollDice, showCards, spin, turnCard } from './acts/cards.ts'
import { hop, mark } from './acts/line.ts'
import { cover, join, pairUp, put, share, split, swapTen, take, uncover } from './acts/places.ts'
import { crossOut, divide, label, mapThings, rearrange, ring, turnOver } from './acts/marks.ts'
import { layMat } from './mats.ts'
import { type Action, emptyTable, type Mat, type TableState, thingsOn } from './state.ts'

/**
 * The table after one action. Pure: the state given is not changed.
 * @throws TableError when the action breaks what holds of real things (nothing taken that isn't there,
 * nothing beyond a mat's places, nothing lost in a move, split or share).
 */
export function act(state: TableState, action: Action): TableState {
  const next = perform(state, action)
  const out = thingsOn(next).length
  return { ...next, start: action.type === 'clear' ? 0 : Math.max(next.start, out) }
}

function perform(state: TableState, action: Action): TableState {
  switch (action.type) {
    case 'lay': {
      const mat = layMat(action.mat, action, state.nextKey)
      const used = mat.regions.reduce((n, r) => n + r.things.length, 0)
      return {
        ...state,
        nextKey: state.nextKey + used,
        mats: [...state.mats.filter((m) => m.kind !== action.mat), mat],
      }
    }
    case 'put':
      return put(state, action)
    case 'take':
      return take(state, action.target, action.count, action.face)
    case 'move':
      return take(
        state,
        action.source,
        action.count,
        null,
        (after, things) => put(after, { target: action.target, things }),
        false,
      )
    case 'turn':
      return turnOver(state, action.count, action.target)
    case 'turn card':
      return turnCard(state)
    case 'cover':
      return cover(state, action.target, action.count)
    case 'uncover':
      return uncover(state, action.target)
    case 'cross':
      return crossOut(state, action.count, action.target)
    case 'uncross':
      return mapThings(state, (t) => (t.crossed ? { ...t, crossed: false } : t))
    case 'ring':
      return ring(state, action.count, action.target)
    case 'divide':
      return divide(state, action.at, action.target)
    case 'split':
      return split(state, action.parts)
    case 'join':
      return join(state)
    case 'share':
      return share(state, action.count, action.among)
    case 'pair':
      return pairUp(state)
    case 'swap ten':
      return swapTen(state)
    case 'hop':
      return hop(state, action.from, action.by, action.times)
    case 'mark':
      return mark(state, action.numbers, action.mat)
    case 'hold':
      return { ...state, held: action.number }
    case 'label':
      return label(state, action.text, action.target)
    case 'rub out':
      return action.count === null
        ? { ...state, written: [] }
        : crossOut(state, action.count, { mat: null, region: null })
    case 'rearrange':
      return rearrange(state)
    case 'roll':
      return rollDice(state, action.faces)
    case 'show card':
      return showCards(state, action.texts, action.up)
    case 'draw':
      return drawCards(state, action.texts, action.back, action.from)
    case 'spin':
      return spin(state, action.text)
    // Keys start again: nothing that had one is on the table any more, unless it stands up again.
    case 'clear':
      return {
        ...emptyTable,
        nextKey: state.mats.some((m) => m.kind === 'skittles') ? state.nextKey : 1,
        mats: state.mats.filter((m) => m.kind !== 'sound').map(cleared),
      }
    default:
      return assertNever(action)
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
    line: m.line && { ...m.line, hops: [], at: null, marks: [] },
  }
}
