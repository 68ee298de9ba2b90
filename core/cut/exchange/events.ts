import type { Frames } from '../../contracts/units.ts'
import { CardLook, type CutItem, type CutList, plainList } from '../../contracts/cut.ts'
import { programOf } from '../program.ts'

/** One event of the cut as other programs know them, in the order of the film. Frames. */
export type CutEvent = { segmentId: string; frames: Frames } & (
  | { kind: 'clip'; takeId: string; from: number }
  /** A picture that stands still: of a take, or of the card before it. */
  | { kind: 'still'; takeId: string; frame: Frames }
  | { kind: 'card'; name: string; look: CardLook; title: string; lines: readonly string[] }
)
/** The film as events. A hold with nothing before it has no picture and is left out. */
export function eventsOf(list: Pick<CutList, 'segments'>): CutEvent[] {
  const out: CutEvent[] = []
  let cards = 0
  for (const { segmentId, run, still } of programOf(list).shots) {
    const frames = run.frames
    if (run.kind === 'clip')
      out.push(
        run.still
          ? { segmentId, frames, kind: 'still', takeId: run.takeId, frame: run.from }
          : { segmentId, frames, kind: 'clip', takeId: run.takeId, from: run.from },
      )
    else if (run.kind === 'card')
      out.push({
        segmentId,
        frames,
        kind: 'card',
        name: cardName((cards += 1)),
        look: run.card.look,
        title: run.card.title,
        lines: run.card.lines,
      })
    else if (still && 'takeId' in still)
      out.push({ segmentId, frames, kind: 'still', takeId: still.takeId, frame: still.frame })
    else if (still)
      out.push({
        segmentId,
        frames,
        kind: 'card',
        name: cardName(cards),
        look: still.look,
        title: still.title,
        lines: still.lines,
      })
  }
  return out
}
const cardName = (n: number): string => `card-${n}`
export const takeFile = (takeId: string): string => `takes/${takeId}.mp4`

/** A cut list from events that were read: rows as cut by hand, in the order in which their segments come. */
export function listFrom(events: readonly CutEvent[]): CutList {
  const rows = new Map<string, CutItem[]>()
  let n = 0
  let before: CutEvent | null = null
  for (const e of events) {
    // The picture of a card that goes on is that card held.
    const onward: boolean =
      e.kind === 'card' &&
      e.name !== '' &&
      before?.kind === 'card' &&
      before.name === e.name &&
      before.segmentId === e.segmentId
    before = e
    const items = rows.get(e.segmentId) ?? []
    rows.set(e.segmentId, items)
    const id = `x${(n += 1)}`
    if (onward) items.push({ kind: 'hold', id, frames: e.frames, stepId: null, why: null })
    else if (e.kind === 'clip')
      items.push({ kind: 'clip', id, takeId: e.takeId, from: e.from, to: e.from + e.frames, why: null })
    else if (e.kind === 'still') {
      const last = items.findLast((i) => i.kind !== 'hold')
      const held = last?.kind === 'clip' && last.takeId === e.takeId && last.to === e.frame + 1
      items.push(
        held
          ? { kind: 'hold', id, frames: e.frames, stepId: null, why: null }
          : {
              kind: 'clip',
              id,
              takeId: e.takeId,
              from: e.frame,
              to: e.frame + e.frames,
              still: true,
              why: null,
            },
      )
    } else
      items.push({
        kind: 'card',
        id,
        look: e.look,
        title: e.title || 'Card',
        lines: [...e.lines],
        frames: Math.max(15, e.frames),
        stepId: null,
        why: null,
      })
  }
  return {
    ...plainList,
    segments: [...rows].map(([segmentId, items]) => ({
      segmentId,
      takeId: items.find((i) => i.kind === 'clip')?.takeId ?? null,
      items,
      overlays: [],
      byHand: true,
    })),
  }
}
/** The look a file names; a card that names none is a plain one. */
export const lookOf = (name: string | undefined): CardLook => CardLook.safeParse(name).data ?? 'sentence'
/** The take a name or path speaks of. */
export const takeIn = (text: string): string | null =>
  text.match(/[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}/i)?.[0].toLowerCase() ?? null
