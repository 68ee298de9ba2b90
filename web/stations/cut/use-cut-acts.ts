import { useMemo } from 'react'
import { type CardLook, type CutItem, type CutList, type CutSegment, framesPerSecond, type Why } from '@awlbox/core/contracts/cut'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { plainCard } from '@awlbox/core/cut/cards'
import * as edits from '@awlbox/core/cut/edit'
import { forTake } from '@awlbox/core/cut/propose'
import { toFrame } from '@awlbox/core/cut/timeline'
import type { TakeRecord } from '../../frame/types.ts'
import type { Selection } from './selection.ts'

export interface CutActs {
  decide(segmentId: string, whyId: string, state: Why['state']): void
  decideAll(kind: Why['kind'] | null, state: 'accepted' | 'declined'): void
  drop(segmentId: string, itemId: string): void
  bringBack(segmentId: string, itemId: string): void
  dropPart(): void
  splitHere(): void
  move(segmentId: string, itemId: string, by: -1 | 1): void
  edge(segmentId: string, itemId: string, edge: 'from' | 'to', frame: number): void
  addHold(segmentId: string, afterId: string): void
  addCard(segmentId: string, look: CardLook, afterId: string | null): void
  change(segmentId: string, item: CutItem, together: string): void
  replaceLine(segmentId: string, stepId: string, here: string, there: string): void
  chooseTake(segmentId: string, takeId: string): void
}
const newId = (): string => crypto.randomUUID().slice(0, 18)
/** Seconds of a wait put in by hand. */
const handWait = 3

/** Everything that can be done to the cut, over the list as it stands. */
export function useCutActs({ lesson, takes, edit, selection, shown, onSelect }: {
  lesson: Lesson
  takes: readonly TakeRecord[]
  edit: (change: (c: CutList) => CutList, together?: string | null) => void
  selection: Selection | null
  /** The span and frame of its take in the picture, or null. */
  shown: { segmentId: string; itemId: string; frame: number } | null
  onSelect: (s: Selection | null) => void
}): CutActs {
  return useMemo((): CutActs => {
    const at = (segmentId: string, change: (s: CutSegment) => CutSegment, together: string | null = null) => edit((c) => {
      const before = c.segments.find((s) => s.segmentId === segmentId)
      const after = before && change(before)
      return !after || after === before ? c : { ...c, segments: c.segments.map((s) => (s === before ? after : s)) }
    }, together)
    const lengthOf = (id: string): number => toFrame(takes.find((t) => t.id === id)?.seconds ?? 0)
    return {
      decide: (segmentId, whyId, state) => at(segmentId, (s) => edits.decide(s, whyId, state)),
      decideAll: (kind, state) => edit((c) => edits.decideAll(c, (w) => kind === null || w.kind === kind, state)),
      drop: (segmentId, itemId) => at(segmentId, (s) => edits.drop(s, itemId)),
      bringBack: (segmentId, itemId) => at(segmentId, (s) => edits.bringBack(s, itemId)),
      dropPart: () => {
        if (!selection?.part) return
        const { from, to } = selection.part
        at(selection.segmentId, (s) => {
          const item = s.items.find((i) => i.id === selection.itemId)
          return item?.kind === 'clip' ? edits.dropStretch(s, item.takeId, Math.max(from, item.from), Math.min(to, item.to), newId) : s
        })
        onSelect(null)
      },
      splitHere: () => {
        if (!selection) return
        const frame = selection.part?.from ?? (shown?.itemId === selection.itemId ? shown.frame : null)
        at(selection.segmentId, (s) => {
          const item = s.items.find((i) => i.id === selection.itemId)
          if (item?.kind !== 'clip') return s
          return edits.split(s, item.id, frame ?? Math.round((item.from + item.to) / 2), newId())
        })
      },
      move: (segmentId, itemId, by) => at(segmentId, (s) => edits.move(s, itemId, s.items.findIndex((i) => i.id === itemId) + by)),
      edge: (segmentId, itemId, edge, frame) => at(segmentId, (s) => {
        const item = s.items.find((i) => i.id === itemId)
        return item?.kind === 'clip' ? edits.moveEdge(s, itemId, edge, frame, lengthOf(item.takeId), newId()) : s
      }, `edge ${itemId} ${edge}`),
      addHold: (segmentId, afterId) => at(segmentId, (s) => edits.insertAfter(s, afterId, { kind: 'hold', id: newId(), frames: handWait * framesPerSecond, stepId: null, why: null })),
      addCard: (segmentId, look, afterId) => at(segmentId, (s) => edits.insertAfter(s, afterId ?? s.items.at(-1)?.id ?? null, plainCard(look, newId(), wordsFor(look, lesson.segments.find((x) => x.id === segmentId)!)))),
      change: (segmentId, item, together) => at(segmentId, (s) => edits.change(s, item), together),
      replaceLine: (segmentId, stepId, here, there) => at(segmentId, (s) => {
        const facts = (id: string) => ({ takeId: id, hearing: takes.find((t) => t.id === id)!.hearing!, frames: lengthOf(id) })
        return edits.replaceLine(s, stepId, facts(here), facts(there), newId)
      }),
      chooseTake: (segmentId, takeId) => at(segmentId, (s) => {
        const facts = takes.filter((t) => t.segmentId === segmentId).map((t) => ({ id: t.id, segmentId, number: t.number, seconds: t.seconds ?? 0, hearing: t.hearing }))
        const take = facts.find((t) => t.id === takeId)
        return take ? forTake(lesson, lesson.segments.find((x) => x.id === segmentId)!, take, facts, s) : s
      }),
    }
  }, [lesson, takes, edit, selection, shown, onSelect])
}
/** What a card put in by hand says, from the script. */
function wordsFor(look: CardLook, segment: Segment): string {
  if (look === 'stop') return segment.steps.some((s) => s.verb === 'pause') ? 'Stop the film. Press play when you are ready.' : 'Stop the film and have a go.'
  return segment.steps.find((s) => s.verb === 'say' || s.verb === 'ask')?.text ?? ''
}
