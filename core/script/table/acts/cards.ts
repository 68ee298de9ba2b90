import { layMat } from '../mats.ts'
import { type Card, type MatKind, TableError, type TableState } from '../state.ts'

function on(
  state: TableState,
  kind: MatKind,
  change: (cards: readonly Card[]) => readonly Card[],
): TableState {
  const s = state.mats.some((m) => m.kind === kind)
    ? state
    : { ...state, mats: [...state.mats, layMat(kind)] }
  return { ...s, mats: s.mats.map((m) => (m.kind === kind ? { ...m, cards: change(m.cards) } : m)) }
}

/** Shows what the dice came to. No faces: the roll is left to chance, and the dice show nothing yet. */
export function rollDice(state: TableState, faces: readonly number[]): TableState {
  return on(state, 'dice', (cards) =>
    faces.length
      ? faces.map((f) => ({ text: String(f), up: true }))
      : (cards.length ? cards : [{ text: '', up: true }]).map(() => ({ text: '?', up: false })),
  )
}

/** Lays cards on the table or, those already there, turns them face up or down. */
export function showCards(state: TableState, texts: readonly string[], up: boolean): TableState {
  return on(state, 'cards', (cards) => {
    const next = [...cards]
    for (const text of texts) {
      const i = next.findIndex((c) => c.text === text && c.up !== up)
      if (i >= 0) next[i] = { text, up }
      else next.push({ text, up })
    }
    return next
  })
}

/** Draws slips from a bowl or cards from a pack on to the table; without putting back they are gone from the bowl. */
export function drawCards(
  state: TableState,
  texts: readonly string[],
  back: boolean,
  from: 'bowl' | 'cards',
): TableState {
  let s = state
  const bowl = s.mats.find((m) => m.kind === 'bowl')
  if (from === 'bowl' && !bowl)
    s = {
      ...s,
      mats: [
        ...s.mats,
        layMat('bowl', { items: Array.from({ length: 10 }, (_, i) => ({ text: String(i), count: 1 })) }),
      ],
    }
  if (from === 'bowl')
    for (const text of texts) {
      const cards = s.mats.find((m) => m.kind === 'bowl')!.cards
      const i = cards.findIndex((c) => c.text === text)
      if (i < 0) throw new TableError('no-card', { case: 'bowl', text })
      if (!back) s = on(s, 'bowl', () => cards.filter((_, k) => k !== i))
    }
  return showCards(s, texts.length ? texts : ['?'], true)
}

/** Turns a card with two sides round: what was left is right. Works on dot cards. */
export function turnCard(state: TableState): TableState {
  const card = state.mats.find((m) => m.kind === 'dots')
  if (!card) throw new TableError('no-mat', { case: 'dot-card' })
  return {
    ...state,
    mats: state.mats.map((m) =>
      m === card
        ? {
            ...m,
            regions: m.regions.map((r, i) => ({ ...r, things: m.regions[m.regions.length - 1 - i]!.things })),
          }
        : m,
    ),
  }
}

/** Spins to a part, or leaves it to chance. */
export function spin(state: TableState, text: string | null): TableState {
  const there = state.mats.find((m) => m.kind === 'spinner')?.cards ?? []
  if (text !== null && there.length && !there.some((c) => c.text === text))
    throw new TableError('no-card', { case: 'spinner', text })
  return on(state, 'spinner', (cards) => {
    const all = cards.length
      ? cards
      : Array.from({ length: 6 }, (_, i) => ({ text: String(i + 1), up: false }))
    return all.map((c) => ({ ...c, up: c.text === text }))
  })
}
