import { and, desc, eq } from 'drizzle-orm'
import type { CutList } from '@awlbox/core/contracts/cut'
import { readCut } from '@awlbox/core/cut/upgrade'
import type { Db } from '../platform/db.ts'
import { cutLists, cutRevisions, renders, segmentFiles, takes } from '../platform/schema.ts'

/** The cut list of a lesson, in today's form whatever version was stored. */
export async function cutOf(db: Db, lessonId: string): Promise<{ revision: number; doc: CutList } | undefined> {
  const [row] = await db.select({ revision: cutLists.revision, doc: cutLists.doc }).from(cutLists).where(eq(cutLists.lessonId, lessonId)).limit(1)
  if (!row) return undefined
  // Only lists of the first version rest on how long their takes are.
  if (row.doc.version === 2) return { revision: row.revision, doc: readCut(row.doc, () => null) }
  const lengths = new Map((await db.select({ id: takes.id, seconds: takes.seconds }).from(takes).where(eq(takes.lessonId, lessonId))).map((t) => [t.id, t.seconds]))
  return { revision: row.revision, doc: readCut(row.doc, (id) => lengths.get(id) ?? null) }
}
/** Saves a cut list over the revision it was made from (0: there was none); undefined when that is stale. */
export async function saveCut(db: Db, input: { lessonId: string; revision: number; doc: CutList; byId: string }): Promise<number | undefined> {
  return db.transaction(async (tx) => {
    const next = input.revision + 1
    const rows = input.revision === 0
      ? await tx.insert(cutLists).values({ lessonId: input.lessonId, revision: 1, doc: input.doc }).onConflictDoNothing().returning({ revision: cutLists.revision })
      : await tx.update(cutLists).set({ doc: input.doc, revision: next, updatedAt: new Date() }).where(and(eq(cutLists.lessonId, input.lessonId), eq(cutLists.revision, input.revision))).returning({ revision: cutLists.revision })
    if (!rows[0]) return undefined
    await tx.insert(cutRevisions).values({ lessonId: input.lessonId, revision: next, doc: input.doc, byId: input.byId })
    return next
  })
}
export const rendersOf = (db: Db, lessonId: string) =>
  db.select({ id: renders.id, cutRevision: renders.cutRevision, seconds: renders.seconds, bytes: renders.bytes, createdAt: renders.createdAt }).from(renders).where(eq(renders.lessonId, lessonId)).orderBy(desc(renders.createdAt)).limit(20)
export async function renderById(db: Db, id: string) {
  const [row] = await db.select().from(renders).where(eq(renders.id, id)).limit(1)
  return row
}
export const addRender = (db: Db, row: typeof renders.$inferInsert) => db.insert(renders).values(row)
export async function segmentFile(db: Db, key: string): Promise<string | undefined> {
  const [row] = await db.select({ file: segmentFiles.file }).from(segmentFiles).where(eq(segmentFiles.key, key)).limit(1)
  return row?.file
}
export const keepSegmentFile = (db: Db, key: string, file: string) => db.insert(segmentFiles).values({ key, file }).onConflictDoNothing()
