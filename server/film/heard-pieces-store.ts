import { eq, lt, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import type { Memory } from '../platform/media/recogniser.ts'
import { heardPieces } from '../platform/schema.ts'

/** What pieces of sound were recognised as, kept in the database for a month. */
export const heardBefore = (db: Db): Memory => ({
  async get(key) {
    const [row] = await db
      .select({ words: heardPieces.words })
      .from(heardPieces)
      .where(eq(heardPieces.key, key))
      .limit(1)
    return row?.words ?? null
  },
  async put(key, words) {
    await db.insert(heardPieces).values({ key, words }).onConflictDoNothing()
  },
})
export const forgetOldPieces = (db: Db) =>
  db.delete(heardPieces).where(lt(heardPieces.at, sql`now() - interval '30 days'`))
