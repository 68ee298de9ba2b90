import { layMat, thing } from '../mats.ts'
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

/** The cards that lie there in this order; a text that was not there is laid with them. @throws TableError when one would be lost. */
export function orderCards(state: TableState, texts: readonly string[]): TableState {
  return on(state, 'cards', (cards) => {
    const rest = [...cards]
    const next = texts.map((text) => {
      const i = rest.findIndex((c) => c.text === text)
      return i < 0 ? { text, up: true } : rest.splice(i, 1)[0]!
    })
    if (rest.length) throw new TableError('no-card', { case: 'lost', text: rest[0]!.text })
    return next
  })
}
/** Cards go back into the pack, slips back into the bowl they were drawn from. */
export function cardsBack(state: TableState, texts: readonly string[]): TableState {
  let s = state
  for (const text of texts) {
    const cards = s.mats.find((m) => m.kind === 'cards')?.cards ?? []
    const i = cards.findLastIndex((c) => c.text === text)
    if (i < 0) throw new TableError('no-card', { case: 'table', text })
    s = on(s, 'cards', () => cards.filter((_, k) => k !== i))
    if (s.mats.some((m) => m.kind === 'bowl'))
      s = on(s, 'bowl', (slips) =>
        [...slips, { text, up: true }].sort((a, b) => a.text.localeCompare(b.text, 'en', { numeric: true })),
      )
  }
  return s
}
/** Sounds replace the ones before them: nobody can hear yesterday's claps. */
export function clap(state: TableState, claps: { count: number; unseen: boolean }): TableState {
  const mat = layMat('sound')
  const region = {
    ...mat.regions[0]!,
    things: Array.from({ length: claps.count }, (_, i) => thing(state.nextKey + i, 'claps')),
  }
  return {
    ...state,
    nextKey: state.nextKey + claps.count,
    mats: [
      ...state.mats.filter((m) => m.kind !== 'sound'),
      { ...mat, covered: claps.unseen, regions: [region] },
    ],
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
