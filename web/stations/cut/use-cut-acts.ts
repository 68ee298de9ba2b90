import type { Frames } from '@awlbox/core/contracts/units'
import { useLayoutEffect, useMemo, useRef } from 'react'
import {
  type CaptionEdit,
  type CardLook,
  type CutItem,
  type CutList,
  type CutSegment,
  framesPerSecond,
  type Overlay,
  type OverlayLook,
  type Repair,
  type Why,
} from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { handCard } from '@awlbox/core/cut/cards'
import * as edits from '@awlbox/core/cut/edit'
import { handOverlay } from '@awlbox/core/cut/overlays'
import { factsOf, withCovers, withTake } from '@awlbox/core/cut/propose'
import { repairOf, withRepair } from '@awlbox/core/cut/repairs'
import { toFrame } from '@awlbox/core/cut/timeline'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import type { Selection } from './selection.ts'

export interface CutActs {
  decide: (segmentId: string, whyId: string, state: Why['state']) => void
  decideAll: (kind: Why['kind'] | null, state: 'accepted' | 'declined') => void
  drop: (segmentId: string, itemId: string) => void
  bringBack: (segmentId: string, itemId: string) => void
  dropPart: () => void
  splitHere: () => void
  move: (segmentId: string, itemId: string, by: -1 | 1) => void
  edge: (segmentId: string, itemId: string, edge: 'from' | 'to', frame: Frames) => void
  addHold: (segmentId: string, afterId: string) => void
  addCard: (segmentId: string, look: CardLook, afterId: string | null) => void
  change: (segmentId: string, item: CutItem, together: string) => void
  replaceLine: (segmentId: string, stepId: string, here: string, there: string) => void
  chooseTake: (segmentId: string, takeId: string) => void
  /** Adds an overlay from what is shown on, for the span that is shown; gives its id, or null where no take is shown. */
  addOverlay: (look: OverlayLook) => string | null
  overlay: (segmentId: string, id: string, overlay: Overlay | null, together: string | null) => void
  repair: (takeId: string, change: (r: Repair) => Repair, together: string | null) => void
  caption: (edit: CaptionEdit, together: string | null) => void
  burn: (burnt: boolean) => void
  /** Lets another take be heard over a span's picture; null: its own sound again. */
  voice: (segmentId: string, itemId: string, takeId: string | null) => void
  still: (segmentId: string, itemId: string, still: boolean) => void
  takeOver: (list: CutList) => void
}
const newId = (): string => crypto.randomUUID().slice(0, 18)
/** Seconds of a wait put in by hand. */
const handWait = 3

/** One row of a cut changed; the same cut where nothing is. */
function inRow(c: CutList, segmentId: string, change: (s: CutSegment) => CutSegment): CutList {
  const before = c.segments.find((s) => s.segmentId === segmentId)
  const after = before && change(before)
  return !after || after === before
    ? c
    : { ...c, segments: c.segments.map((s) => (s === before ? after : s)) }
}

/** Everything that can be done to the cut, over the list as it stands. */
export function useCutActs({
  list,
  lesson,
  style,
  takes,
  edit,
  selection,
  shown,
  onSelect,
}: {
  list: CutList | null
  lesson: Lesson
  style: HouseStyle
  takes: readonly TakeRecord[]
  edit: (change: (c: CutList) => CutList, together?: string | null) => void
  selection: Selection | null
  /** The span and frame of its take in the picture, or null. */
  shown: { segmentId: string; itemId: string; frame: Frames } | null
  onSelect: (s: Selection | null) => void
}): CutActs {
  // What can be done stays the same thing while one works, so that rows which did not change are not drawn again.
  const now = useRef({ list, lesson, style, takes, selection, shown })
  useLayoutEffect(() => {
    now.current = { list, lesson, style, takes, selection, shown }
  })
  return useMemo((): CutActs => {
    const at = (segmentId: string, change: (s: CutSegment) => CutSegment, together: string | null = null) =>
      edit((c) => inRow(c, segmentId, change), together)
    /** A change that may show another take: what was found in that one is proposed to be covered. */
    const showing = (change: (c: CutList) => CutList) =>
      edit((c) => {
        const next = change(c)
        return next === c ? c : withCovers(next, factsOf(now.current.takes))
      })
    const lengthOf = (id: string): number => toFrame(now.current.takes.find((t) => t.id === id)?.seconds ?? 0)
    return {
      decide: (segmentId, whyId, state) => at(segmentId, (s) => edits.decide(s, whyId, state)),
      decideAll: (kind, state) =>
        edit((c) => edits.decideAll(c, (w) => kind === null || w.kind === kind, state)),
      drop: (segmentId, itemId) => at(segmentId, (s) => edits.drop(s, itemId)),
      bringBack: (segmentId, itemId) => at(segmentId, (s) => edits.bringBack(s, itemId)),
      dropPart: () => {
        const { selection } = now.current
        if (!selection?.part) return
        const { from, to } = selection.part
        at(selection.segmentId, (s) => {
          const item = s.items.find((i) => i.id === selection.itemId)
          return item?.kind === 'clip'
            ? edits.dropStretch(s, item.takeId, Math.max(from, item.from), Math.min(to, item.to), newId)
            : s
        })
        onSelect(null)
      },
      splitHere: () => {
        const { selection, shown } = now.current
        if (!selection) return
        const frame = selection.part?.from ?? (shown?.itemId === selection.itemId ? shown.frame : null)
        at(selection.segmentId, (s) => {
          const item = s.items.find((i) => i.id === selection.itemId)
          if (item?.kind !== 'clip') return s
          return edits.split(s, item.id, frame ?? Math.round((item.from + item.to) / 2), newId())
        })
      },
      move: (segmentId, itemId, by) =>
        at(segmentId, (s) => edits.move(s, itemId, s.items.findIndex((i) => i.id === itemId) + by)),
      edge: (segmentId, itemId, edge, frame) =>
        at(
          segmentId,
          (s) => {
            const item = s.items.find((i) => i.id === itemId)
            return item?.kind === 'clip'
              ? edits.moveEdge(s, itemId, edge, frame, lengthOf(item.takeId), newId())
              : s
          },
          `edge ${itemId} ${edge}`,
        ),
      addHold: (segmentId, afterId) =>
        at(segmentId, (s) =>
          edits.insertAfter(s, afterId, {
            kind: 'hold',
            id: newId(),
            frames: handWait * framesPerSecond,
            stepId: null,
            why: null,
          }),
        ),
      addCard: (segmentId, look, afterId) =>
        at(segmentId, (s) =>
          edits.insertAfter(
            s,
            afterId ?? s.items.at(-1)?.id ?? null,
            handCard(
              look,
              newId(),
              now.current.lesson.segments.find((x) => x.id === segmentId)!,
            ),
          ),
        ),
      change: (segmentId, item, together) => at(segmentId, (s) => edits.change(s, item), together),
      replaceLine: (segmentId, stepId, here, there) =>
        showing((c) =>
          inRow(c, segmentId, (s) => {
            const facts = (id: string) => ({
              takeId: id,
              hearing: now.current.takes.find((t) => t.id === id)!.hearing!,
              frames: lengthOf(id),
            })
            return edits.replaceLine(s, stepId, facts(here), facts(there), newId)
          }),
        ),
      addOverlay: (look) => {
        const { list, lesson, takes, shown } = now.current
        if (!shown) return null
        const row = list?.segments.find((s) => s.segmentId === shown.segmentId)
        const item = row?.items.find((i) => i.id === shown.itemId)
        if (item?.kind !== 'clip') return null
        const id = newId()
        const segment = lesson.segments.find((s) => s.id === shown.segmentId)
        if (!segment) return null
        at(shown.segmentId, (s) =>
          edits.withOverlay(
            s,
            id,
            handOverlay(
              look,
              id,
              segment,
              takes.find((t) => t.id === item.takeId)?.hearing ?? null,
              item,
              shown.frame,
            ),
          ),
        )
        return id
      },
      overlay: (segmentId, id, overlay, together) =>
        at(segmentId, (s) => edits.withOverlay(s, id, overlay), together),
      repair: (takeId, change, together) => edit((c) => withRepair(c, change(repairOf(c, takeId))), together),
      caption: (caption, together) =>
        edit((c) => {
          const rest = c.captions.edits.filter((e) => e.id !== caption.id)
          const plain = caption.text === null && caption.start === null && caption.end === null
          return { ...c, captions: { ...c.captions, edits: plain ? rest : [...rest, caption] } }
        }, together),
      burn: (burnt) => edit((c) => ({ ...c, captions: { ...c.captions, burnt } })),
      voice: (segmentId, itemId, takeId) =>
        at(segmentId, (s) => {
          const item = s.items.find((i) => i.id === itemId)
          if (item?.kind !== 'clip') return s
          const hearing = (id: string) => now.current.takes.find((t) => t.id === id)?.hearing ?? null
          return edits.withVoice(
            s,
            itemId,
            takeId === null
              ? null
              : { takeId, from: edits.voiceFrom(item, hearing(item.takeId), hearing(takeId)) },
          )
        }),
      still: (segmentId, itemId, still) =>
        at(segmentId, (s) => {
          const item = s.items.find((i) => i.id === itemId)
          return item?.kind === 'clip' ? edits.change(s, { ...item, still }) : s
        }),
      takeOver: (read) =>
        showing((c) => ({
          ...read,
          segments: c.segments.map((s) => read.segments.find((x) => x.segmentId === s.segmentId) ?? s),
        })),
      chooseTake: (segmentId, takeId) =>
        edit((c) =>
          withTake(c, now.current.lesson, segmentId, takeId, factsOf(now.current.takes), now.current.style),
        ),
    }
  }, [edit, onSelect])
}
