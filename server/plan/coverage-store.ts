import { and, desc, eq, gte, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { lessons } from '../platform/schema.ts'

/** Examples of a class's other lessons since a day: what coverage counts as met. */
export const examplesSince = (db: Db, classId: string, since: string) =>
  db
    .select({
      id: lessons.id,
      day: lessons.day,
      structure: sql<string>`${lessons.doc}->'aim'->>'structure'`,
      examples: sql<unknown>`${lessons.doc}->'examples'`,
    })
    .from(lessons)
    .where(and(eq(lessons.classId, classId), gte(lessons.day, since)))
    .orderBy(desc(lessons.day))
    .limit(200)
