import { and, eq, gt, isNull, lt, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { homeCodes, homeLinks, households } from '../platform/schema.ts'

/** A home has one code at a time: a new one ends the one before. */
export const addCode = (db: Db, row: typeof homeCodes.$inferInsert): Promise<void> =>
  db.transaction(async (tx) => {
    await tx.delete(homeCodes).where(lt(homeCodes.expiresAt, new Date()))
    await tx.delete(homeCodes).where(eq(homeCodes.householdId, row.householdId))
    await tx.insert(homeCodes).values(row)
  })
/** The home a code opens, whose link is open; the code is used up. */
export async function useCode(db: Db, codeHash: Buffer): Promise<{ id: string; linkVersion: number } | null> {
  const [used] = await db
    .delete(homeCodes)
    .where(and(eq(homeCodes.codeHash, codeHash), gt(homeCodes.expiresAt, new Date())))
    .returning({ householdId: homeCodes.householdId })
  if (!used) return null
  const [home] = await db
    .select({ id: households.id, linkVersion: households.linkVersion })
    .from(households)
    .innerJoin(homeLinks, and(eq(homeLinks.householdId, households.id), isNull(homeLinks.revokedAt)))
    .where(eq(households.id, used.householdId))
    .orderBy(sql`${homeLinks.createdAt} desc`)
    .limit(1)
  return home ?? null
}
