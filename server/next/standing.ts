import type { Idea } from '@awlbox/core/contracts/idea'
import { evidenceOf, type SaidBy } from '@awlbox/core/judge/evidence'
import {
  type Judged,
  type Kept,
  keptStanding,
  type Standing,
  standingAt,
  startFrom,
  tracing,
} from '@awlbox/core/judge/standing'
import type { Db } from '../platform/db.ts'
import { evidenceFor, keptFor, saveKept } from './standing-store.ts'

type Found = Awaited<ReturnType<typeof evidenceFor>>
const pair = (childId: string, ideaId: string): string => `${childId} ${ideaId}`

/** What every reply says of its child's ideas. */
export const evidenceIn = (src: Found): SaidBy[] =>
  src.sent.flatMap((r) =>
    evidenceOf({ ...r, rung: src.told.find((j) => j.replyId === r.id)?.rung ?? null }, src.readings),
  )

/** Judgements of replies and of the child itself, for one child and idea. */
export function toldOf(src: Found, childId: string, ideaId: string): (Judged & { note: string })[] {
  const here = <T extends { childId: string; ideaId: string }>(x: T) =>
    x.childId === childId && x.ideaId === ideaId
  return [
    ...src.told.filter(here).map((j) => {
      const came = src.sent.find((r) => r.id === j.replyId)
      return { ...j, at: j.at.getTime(), ...(came ? { cameAt: came.at.getTime() } : {}) }
    }),
    ...src.said.filter(here).map((o) => ({
      ...o,
      at: o.at.getTime(),
      help: 'alone' as const,
      rung: 'head' as const,
      override: true,
    })),
  ]
}

/**
 * Where children stand on every idea something was seen of. What is kept is read; what changed since is worked out
 * from its own evidence alone and kept again.
 */
export async function standingsOf(
  db: Db,
  childIds: readonly string[],
  ladder: readonly Idea[],
  now: number,
): Promise<Map<string, Map<string, Standing>>> {
  const rows = await keptFor(db, childIds)
  const kept = new Map(rows.flatMap((r) => (r.kept ? [[pair(r.childId, r.ideaId), r.kept] as const] : [])))
  const stale = rows.filter((r) => !r.kept)
  if (stale.length) {
    const src = await evidenceFor(
      db,
      [...new Set(stale.map((r) => r.childId))],
      [...new Set(stale.map((r) => r.ideaId))],
    )
    const evidence = evidenceIn(src)
    const byPair = new Map<string, SaidBy[]>()
    for (const e of evidence)
      byPair.set(pair(e.childId, e.ideaId), [...(byPair.get(pair(e.childId, e.ideaId)) ?? []), e])
    // What comes first on the ladder first: it tells where the next one starts.
    const order = new Map(ladder.map((i, k) => [i.id, k]))
    stale.sort((a, b) => (order.get(a.ideaId) ?? 999) - (order.get(b.ideaId) ?? 999))
    for (const r of stale) {
      const needed = (ladder.find((i) => i.id === r.ideaId)?.after ?? []).flatMap((id) => {
        const k = kept.get(pair(r.childId, id))
        return k ? [standingAt(k, now)] : []
      })
      const k = keptStanding(
        byPair.get(pair(r.childId, r.ideaId)) ?? [],
        toldOf(src, r.childId, r.ideaId),
        startFrom(needed),
      )
      kept.set(pair(r.childId, r.ideaId), k)
      await saveKept(db, r, k)
    }
  }
  const out = new Map<string, Map<string, Standing>>(childIds.map((id) => [id, new Map()]))
  for (const r of rows)
    out.get(r.childId)!.set(r.ideaId, standingAt(kept.get(pair(r.childId, r.ideaId))!, now))
  return out
}
const nothing: Kept = keptStanding([], [], tracing.start)
/** Of an idea nothing was seen of. */
export const unseen: Standing = standingAt(nothing, 0)
