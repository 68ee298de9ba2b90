import { countDistinct, eq } from 'drizzle-orm'
import type { HomeKit } from '@awlbox/core/plan/kit'
import type { OtherWay } from '@awlbox/core/contracts/home-lists'
import type { Db } from '../platform/db.ts'
import { children, householdKits, households } from '../platform/schema.ts'

/** What the homes of a class said they have, and how many homes there are in all. */
export async function kitsOfClass(db: Db, classId: string): Promise<{ homes: HomeKit[]; all: number }> {
  const [rows, [all]] = await Promise.all([
    db
      .selectDistinct({
        homeId: households.id,
        has: householdKits.has,
        countable: householdKits.countable,
        canPrint: householdKits.canPrint,
        ways: householdKits.ways,
        underThree: households.youngerChild,
      })
      .from(children)
      .innerJoin(households, eq(households.id, children.householdId))
      .innerJoin(householdKits, eq(householdKits.householdId, households.id))
      .where(eq(children.classId, classId)),
    db
      .select({ n: countDistinct(children.householdId) })
      .from(children)
      .where(eq(children.classId, classId)),
  ])
  return { homes: rows, all: Number(all?.n ?? 0) }
}
export async function kitOfHome(db: Db, householdId: string) {
  const [row] = await db
    .select({
      has: householdKits.has,
      countable: householdKits.countable,
      canPrint: householdKits.canPrint,
      ways: householdKits.ways,
    })
    .from(householdKits)
    .where(eq(householdKits.householdId, householdId))
    .limit(1)
  return row ?? null
}
export async function saveKit(
  db: Db,
  householdId: string,
  kit: { has: string[]; countable: number; canPrint: boolean; ways: OtherWay[] },
): Promise<void> {
  await db
    .insert(householdKits)
    .values({ householdId, ...kit })
    .onConflictDoUpdate({ target: householdKits.householdId, set: { ...kit, at: new Date() } })
}
