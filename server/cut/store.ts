import { and, desc, eq, inArray, sql } from 'drizzle-orm'
import type { CutList } from '@awlbox/core/contracts/cut'
import type { FilmCheck, RenderFileKind } from '@awlbox/core/contracts/render'
import type { Rendered } from '@awlbox/core/cut/render-time'
import { readCut } from '@awlbox/core/cut/upgrade'
import type { Db } from '../platform/db.ts'
import {
  cutLists,
  cutRevisions,
  jobs,
  renderFiles,
  renders,
  segmentFiles,
  takes,
} from '../platform/schema.ts'

/** The cut list of a lesson, in today's form whatever version was stored. */
export async function cutOf(
  db: Db,
  lessonId: string,
): Promise<{ revision: number; doc: CutList } | undefined> {
  const [row] = await db
    .select({ revision: cutLists.revision, doc: cutLists.doc })
    .from(cutLists)
    .where(eq(cutLists.lessonId, lessonId))
    .limit(1)
  if (!row) return undefined
  // Only lists of the first version rest on how long their takes are.
  if ((row.doc.version as number) !== 1) return { revision: row.revision, doc: readCut(row.doc, () => null) }
  const lengths = new Map(
    (
      await db
        .select({ id: takes.id, seconds: takes.seconds })
        .from(takes)
        .where(eq(takes.lessonId, lessonId))
    ).map((t) => [t.id, t.seconds]),
  )
  return { revision: row.revision, doc: readCut(row.doc, (id) => lengths.get(id) ?? null) }
}
/** Saves a cut list over the revision it was made from (0: there was none); undefined when that is stale. */
export async function saveCut(
  db: Db,
  input: { lessonId: string; revision: number; doc: CutList; byId: string },
): Promise<number | undefined> {
  return db.transaction(async (tx) => {
    const next = input.revision + 1
    const rows =
      input.revision === 0
        ? await tx
            .insert(cutLists)
            .values({ lessonId: input.lessonId, revision: 1, doc: input.doc })
            .onConflictDoNothing()
            .returning({ revision: cutLists.revision })
        : await tx
            .update(cutLists)
            .set({ doc: input.doc, revision: next, updatedAt: new Date() })
            .where(and(eq(cutLists.lessonId, input.lessonId), eq(cutLists.revision, input.revision)))
            .returning({ revision: cutLists.revision })
    if (!rows[0]) return undefined
    await tx
      .insert(cutRevisions)
      .values({ lessonId: input.lessonId, revision: next, doc: input.doc, byId: input.byId })
    return next
  })
}
/** A cut list as it was at a revision; undefined when there was none. */
export async function cutAt(db: Db, lessonId: string, revision: number): Promise<CutList | undefined> {
  const [row] = await db
    .select({ doc: cutRevisions.doc })
    .from(cutRevisions)
    .where(and(eq(cutRevisions.lessonId, lessonId), eq(cutRevisions.revision, revision)))
    .limit(1)
  return row && readCut(row.doc, () => null)
}
/** What was last rendered on this machine, by whomever. */
export async function renderHistory(db: Db): Promise<Rendered[]> {
  const rows = await db
    .select({ data: jobs.data, from: jobs.startedAt, to: jobs.heartbeatAt })
    .from(jobs)
    .where(and(eq(jobs.kind, 'render'), eq(jobs.status, 'done'), sql`${jobs.data} ? 'film'`))
    .orderBy(desc(jobs.createdAt))
    .limit(7)
  return rows.flatMap((r) =>
    r.from && r.to
      ? [
          {
            film: Number(r.data.film),
            encoded: Number(r.data.encoded),
            took: (r.to.getTime() - r.from.getTime()) / 1000,
          },
        ]
      : [],
  )
}
/** Writes down with a render's job what it renders, and how long that should take (seconds; null: unknown). */
export async function noteRender(
  db: Db,
  jobId: string,
  data: { film: number; encoded: number; expected: number | null },
): Promise<void> {
  await db.update(jobs).set({ data }).where(eq(jobs.id, jobId))
}
export async function rendersOf(db: Db, lessonId: string) {
  const rows = await db
    .select({
      id: renders.id,
      cutRevision: renders.cutRevision,
      seconds: renders.seconds,
      bytes: renders.bytes,
      checks: renders.checks,
      createdAt: renders.createdAt,
    })
    .from(renders)
    .where(eq(renders.lessonId, lessonId))
    .orderBy(desc(renders.createdAt))
    .limit(20)
  const files = rows.length
    ? await db
        .select({ renderId: renderFiles.renderId, kind: renderFiles.kind, bytes: renderFiles.bytes })
        .from(renderFiles)
        .where(
          inArray(
            renderFiles.renderId,
            rows.map((r) => r.id),
          ),
        )
    : []
  return rows.map((r) => ({
    ...r,
    files: files.filter((f) => f.renderId === r.id).map(({ kind, bytes }) => ({ kind, bytes })),
  }))
}
export async function renderById(db: Db, id: string) {
  const [row] = await db.select().from(renders).where(eq(renders.id, id)).limit(1)
  return row
}
/** Keeps a render. One that is there already, made of the same cut and the same to the byte, is given back. */
export async function addRender(db: Db, row: typeof renders.$inferInsert): Promise<string> {
  const [there] = await db
    .select({ id: renders.id })
    .from(renders)
    .where(
      and(
        eq(renders.lessonId, row.lessonId),
        eq(renders.cutRevision, row.cutRevision),
        eq(renders.film, row.film),
        eq(renders.captions, row.captions),
      ),
    )
    .limit(1)
  return there?.id ?? (await db.insert(renders).values(row).returning({ id: renders.id }))[0]!.id
}
export const setChecks = (db: Db, id: string, checks: FilmCheck[]) =>
  db.update(renders).set({ checks }).where(eq(renders.id, id))
export const addRenderFile = (db: Db, row: typeof renderFiles.$inferInsert) =>
  db
    .insert(renderFiles)
    .values(row)
    .onConflictDoUpdate({
      target: [renderFiles.renderId, renderFiles.kind],
      set: { file: row.file, bytes: row.bytes },
    })
export async function renderFile(
  db: Db,
  renderId: string,
  kind: RenderFileKind,
): Promise<string | undefined> {
  const [row] = await db
    .select({ file: renderFiles.file })
    .from(renderFiles)
    .where(and(eq(renderFiles.renderId, renderId), eq(renderFiles.kind, kind)))
    .limit(1)
  return row?.file
}
export async function segmentFile(db: Db, key: string): Promise<string | undefined> {
  const [row] = await db
    .select({ file: segmentFiles.file })
    .from(segmentFiles)
    .where(eq(segmentFiles.key, key))
    .limit(1)
  return row?.file
}
export const keepSegmentFile = (db: Db, key: string, file: string) =>
  db.insert(segmentFiles).values({ key, file }).onConflictDoNothing()
/** The playable films of a lesson's takes. */
export const filmsOf = (db: Db, lessonId: string) =>
  db
    .select({ id: takes.id, film: takes.film, seconds: takes.seconds, looked: takes.looked })
    .from(takes)
    .where(eq(takes.lessonId, lessonId))
