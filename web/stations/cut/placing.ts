import type { Frames } from '@awlbox/core/contracts/units'
import type { CutList } from '@awlbox/core/contracts/cut'
import { boxAt, keyed, repairOf } from '@awlbox/core/cut/repairs'
import { plays } from '@awlbox/core/cut/timeline'
import type { PanelName } from './cut-session.ts'
import type { Picked } from './panels/repair-panel.tsx'
import type { Placing } from './preview.tsx'
import type { useCutActs } from './use-cut-acts.ts'

/** While the table's corners are set, its pictures are shown as they were filmed. */
export const crooked = (list: CutList): CutList => ({
  ...list,
  repairs: list.repairs.map((r) => ({ ...r, corners: null })),
})

/** What is moved on the picture: the overlay chosen, the area being covered, or a corner of the table. */
export function placingOf({
  list,
  panel,
  overlay,
  pick,
  shown,
  acts,
}: {
  list: CutList
  panel: PanelName
  overlay: string | null
  pick: Picked
  shown: { segmentId: string; takeId: string; frame: Frames } | null
  acts: ReturnType<typeof useCutActs>
}): Placing | null {
  if (!shown) return null
  if (panel === 'over' && overlay) {
    const o = list.segments
      .find((s) => s.segmentId === shown.segmentId)
      ?.overlays.find((x) => x.id === overlay)
    if (!o || !plays(o) || o.takeId !== shown.takeId || shown.frame < o.from || shown.frame >= o.to)
      return null
    const about = o.look === 'ring' || o.look === 'arrow'
    return {
      label: 'The overlay',
      box: o.place,
      space: 'film',
      onMove: (box) =>
        acts.overlay(
          shown.segmentId,
          o.id,
          { ...o, place: box, at: about ? box : o.at, why: null },
          `place ${o.id}`,
        ),
    }
  }
  if (panel !== 'mend' || !pick) return null
  const repair = repairOf(list, shown.takeId)
  if (pick.kind === 'corner') {
    const corner = repair.corners?.[pick.n]
    if (!corner) return null
    const half = 20
    return {
      label: 'A corner of the table',
      box: { x: Math.max(0, corner.x - half), y: Math.max(0, corner.y - half), w: 2 * half, h: 2 * half },
      space: 'take',
      onMove: (box) =>
        acts.repair(
          shown.takeId,
          (r) =>
            r.corners
              ? {
                  ...r,
                  corners: r.corners.map((c, i) =>
                    i === pick.n ? { x: box.x + box.w / 2, y: box.y + box.h / 2 } : c,
                  ) as unknown as typeof r.corners,
                }
              : r,
          `corner ${pick.n}`,
        ),
    }
  }
  const h = repair.hidden.find((x) => x.id === pick.id)
  const box = h && boxAt(h, Math.min(h.to - 1, Math.max(h.from, shown.frame)))
  return h && box
    ? {
        label: 'What is covered',
        box,
        space: 'take',
        onMove: (b) =>
          acts.repair(
            shown.takeId,
            (r) => ({ ...r, hidden: r.hidden.map((x) => (x.id === h.id ? keyed(x, shown.frame, b) : x)) }),
            `cover ${h.id} ${shown.frame}`,
          ),
      }
    : null
}
