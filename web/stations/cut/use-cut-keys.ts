import { useEffect } from 'react'
import type { CutItem, CutSegment } from '@awlbox/core/contracts/cut'
import { isTyping } from '../../frame/head.tsx'
import type { RowActs, Selection } from './selection.ts'
import type { CutActs } from './use-cut-acts.ts'
import type { Player } from './use-player.ts'

/** The keys of the cut: undo here is the cut's, not the script's. On a slider letters are keys as anywhere; arrows are its own. */
export function useCutKeys({
  mayChange,
  current,
  row,
  chosen,
  selection,
  acts,
  rowActs,
  player,
  undo,
  redo,
}: {
  mayChange: boolean
  current: CutSegment | undefined
  /** The row of what is chosen, and what is chosen of it. */
  row: CutSegment | undefined
  chosen: CutItem | null
  selection: Selection | null
  acts: CutActs
  rowActs: RowActs
  player: Pick<Player, 'playing' | 'play' | 'stop'>
  undo: () => void
  redo: () => void
}): void {
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const key = e.key.toLowerCase()
      const slider = e.target instanceof Element && e.target.closest('[role=slider]') !== null
      if (slider ? key.startsWith('arrow') : isTyping(e.target)) return
      if (e.ctrlKey || e.metaKey) {
        if (key !== 'z' && key !== 'y') return
        e.preventDefault()
        e.stopImmediatePropagation()
        if (key === 'y' || e.shiftKey) redo()
        else undo()
        return
      }
      const box = e.target instanceof HTMLElement && e.target.getAttribute('role') === 'group'
      if (key === ' ' && !(e.target instanceof HTMLButtonElement)) {
        e.preventDefault()
        if (player.playing) player.stop()
        else player.play()
      }
      if (!current) return
      if ((key === 'arrowleft' || key === 'arrowright') && selection && row && !box) {
        e.preventDefault()
        const by = key === 'arrowright' ? 1 : -1
        if (e.altKey) return mayChange ? acts.move(row.segmentId, selection.itemId, by) : undefined
        const next = row.items[row.items.findIndex((i) => i.id === selection.itemId) + by]
        if (next) rowActs.onSelect({ segmentId: row.segmentId, itemId: next.id, part: null })
        return
      }
      if (!mayChange || e.altKey) return
      if (key === 'p') acts.addCard(current.segmentId, 'stop', row === current ? selection!.itemId : null)
      if (!selection || !row || !chosen) return
      if (key === 'd') {
        if (selection.part) acts.dropPart()
        else acts.drop(selection.segmentId, selection.itemId)
      }
      if (key === 'b') acts.bringBack(selection.segmentId, selection.itemId)
      if (key === 's') acts.splitHere()
      if (key === 'w' && chosen.kind === 'clip') acts.addHold(selection.segmentId, selection.itemId)
      if (key === 'a' && chosen.why?.state === 'open')
        acts.decide(selection.segmentId, chosen.why.id, 'accepted')
      if (key === 'k' && chosen.why?.state === 'open')
        acts.decide(selection.segmentId, chosen.why.id, 'declined')
    }
    window.addEventListener('keydown', onKey, { capture: true })
    return () => window.removeEventListener('keydown', onKey, { capture: true })
  })
}
