import type { CutList, CutSegment } from '../contracts/cut.ts'

export type CutMerge = { ok: true; doc: CutList } | { ok: false; doc: CutList; conflicts: string[] }
const same = (a: unknown, b: unknown): boolean => a === b || JSON.stringify(a) === JSON.stringify(b)

/**
 * Merges two changes of one cut. A segment's row, a take's repairs or the captions changed on one side only take
 * that change; changed on both sides they are a conflict, named by segment, take or "captions". The order of rows is
 * theirs: it follows the script.
 */
export function mergeCuts(base: CutList, mine: CutList, theirs: CutList): CutMerge {
  const conflicts: string[] = []
  const either = <T>(name: string, b: T, m: T, t: T): T => {
    if (same(m, t) || same(m, b)) return t
    if (!same(t, b)) conflicts.push(name)
    return m
  }
  const rowOf = (list: CutList, id: string): CutSegment | undefined =>
    list.segments.find((s) => s.segmentId === id)
  const ids = [
    ...theirs.segments,
    ...mine.segments.filter((s) => !rowOf(theirs, s.segmentId) && !rowOf(base, s.segmentId)),
  ].map((s) => s.segmentId)
  const segments = ids.flatMap(
    (id) => either(id, rowOf(base, id), rowOf(mine, id), rowOf(theirs, id)) ?? rowOf(theirs, id) ?? [],
  )
  const repairOf = (list: CutList, id: string) => list.repairs.find((r) => r.takeId === id)
  const takes = [...new Set([...theirs.repairs, ...mine.repairs].map((r) => r.takeId))]
  const repairs = takes.flatMap(
    (id) => either(id, repairOf(base, id), repairOf(mine, id), repairOf(theirs, id)) ?? [],
  )
  const doc: CutList = {
    ...theirs,
    segments,
    repairs,
    captions: either('captions', base.captions, mine.captions, theirs.captions),
  }
  return conflicts.length ? { ok: false, doc, conflicts } : { ok: true, doc }
}
