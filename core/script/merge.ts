import type { Lesson, Segment } from '../contracts/lesson.ts'

export interface LessonConflict {
  segmentId: string
  title: string
}
export type Merge = { ok: true; doc: Lesson } | { ok: false; doc: Lesson; conflicts: LessonConflict[] }

const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b)

/**
 * Merges two changes of one document by segment. A segment changed on one side only takes that change; changed on
 * both sides it is a conflict, and `mine` is kept in `doc` with theirs named. The order follows mine; segments only
 * they added come after the one they follow in theirs.
 */
export function mergeLessons(base: Lesson, mine: Lesson, theirs: Lesson): Merge {
  const conflicts: LessonConflict[] = []
  const find = (doc: Lesson, id: string): Segment | undefined => doc.segments.find((s) => s.id === id)
  const segments: Segment[] = []
  for (const s of mine.segments) {
    const [b, t] = [find(base, s.id), find(theirs, s.id)]
    if (!t) {
      // Removed by them: kept only when I changed it.
      if (!b || !same(b, s)) {
        segments.push(s)
        if (b) conflicts.push({ segmentId: s.id, title: s.title })
      }
    } else if (same(s, t) || !b || same(t, b)) segments.push(s)
    else if (same(s, b)) segments.push(t)
    else {
      segments.push(s)
      conflicts.push({ segmentId: s.id, title: s.title })
    }
  }
  theirs.segments.forEach((t, i) => {
    if (find(mine, t.id)) return
    const b = find(base, t.id)
    if (b && same(b, t)) return
    const before = theirs.segments[i - 1]
    const at = before ? segments.findIndex((s) => s.id === before.id) + 1 : 0
    segments.splice(at, 0, t)
    if (b) conflicts.push({ segmentId: t.id, title: t.title })
  })
  // Whatever else a lesson holds follows whoever changed it; where both did, mine stays.
  // What they took away altogether is a key of the base alone.
  const keys = [...new Set([...Object.keys(base), ...Object.keys(theirs)])] as (keyof Lesson)[]
  const untouched = keys.filter((k) => same(mine[k], base[k]))
  const doc: Lesson = { ...mine, ...Object.fromEntries(untouched.map((k) => [k, theirs[k]])), segments }
  return conflicts.length ? { ok: false, doc, conflicts } : { ok: true, doc }
}
