import { eq } from 'drizzle-orm'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Idea } from '@awlbox/core/contracts/idea'
import { ladder as startingLadder } from '@awlbox/core/plan/ladder/ladder'
import type { Db } from '../platform/db.ts'
import { people, settings } from '../platform/schema.ts'

export async function houseStyleOf(db: Db, settingId: string): Promise<HouseStyle> {
  const [row] = await db
    .select({ style: settings.houseStyle })
    .from(settings)
    .where(eq(settings.id, settingId))
    .limit(1)
  return HouseStyle.parse(row?.style ?? {})
}
export async function saveHouseStyle(db: Db, settingId: string, houseStyle: HouseStyle): Promise<void> {
  await db.update(settings).set({ houseStyle }).where(eq(settings.id, settingId))
}
/** The setting's ladder: its own, or the one everybody starts from. */
export async function ladderOf(db: Db, settingId: string): Promise<readonly Idea[]> {
  const [row] = await db
    .select({ ladder: settings.ladder })
    .from(settings)
    .where(eq(settings.id, settingId))
    .limit(1)
  return row?.ladder ?? startingLadder
}
export async function saveLadder(db: Db, settingId: string, ladder: Idea[] | null): Promise<void> {
  await db.update(settings).set({ ladder }).where(eq(settings.id, settingId))
}
export async function hoursOf(db: Db, personId: string): Promise<number[] | null> {
  const [row] = await db.select({ hours: people.hours }).from(people).where(eq(people.id, personId)).limit(1)
  return row?.hours ?? null
}
export async function saveHours(db: Db, personId: string, hours: number[]): Promise<void> {
  await db.update(people).set({ hours }).where(eq(people.id, personId))
}
