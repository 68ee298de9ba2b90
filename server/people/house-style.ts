import { eq } from 'drizzle-orm'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Db } from '../platform/db.ts'
import { settings } from '../platform/schema.ts'

export async function houseStyleOf(db: Db, settingId: string): Promise<HouseStyle> {
  const [row] = await db.select({ style: settings.houseStyle }).from(settings).where(eq(settings.id, settingId)).limit(1)
  return HouseStyle.parse(row?.style ?? {})
}
