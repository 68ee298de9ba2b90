import { and, desc, eq } from 'drizzle-orm'
import type { Segment } from '@awlbox/core/contracts/lesson'
import type { Db } from '../platform/db.ts'
import { librarySegments, people } from '../platform/schema.ts'

export const libraryOf = (db: Db, settingId: string) =>
  db
    .select({
      id: librarySegments.id,
      segment: librarySegments.segment,
      seconds: librarySegments.seconds,
      by: people.name,
      at: librarySegments.at,
    })
    .from(librarySegments)
    .leftJoin(people, eq(people.id, librarySegments.byId))
    .where(eq(librarySegments.settingId, settingId))
    .orderBy(desc(librarySegments.at))
    .limit(200)
export async function addToLibrary(
  db: Db,
  row: { settingId: string; segment: Segment; seconds: number; byId: string },
): Promise<string> {
  return (await db.insert(librarySegments).values(row).returning({ id: librarySegments.id }))[0]!.id
}
export async function takeFromLibrary(db: Db, settingId: string, id: string): Promise<boolean> {
  return (
    (
      await db
        .delete(librarySegments)
        .where(and(eq(librarySegments.id, id), eq(librarySegments.settingId, settingId)))
        .returning({ id: librarySegments.id })
    ).length > 0
  )
}
