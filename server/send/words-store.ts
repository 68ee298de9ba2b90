import { and, eq } from 'drizzle-orm'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import type { Db } from '../platform/db.ts'
import { homeWords } from '../platform/schema.ts'

/** A setting's own wording in one language, by key or by the sentence it stands for. */
export async function ownWords(
  db: Db,
  settingId: string,
  language: HomeLanguage,
): Promise<ReadonlyMap<string, string>> {
  const rows = await db
    .select({ key: homeWords.key, words: homeWords.words })
    .from(homeWords)
    .where(and(eq(homeWords.settingId, settingId), eq(homeWords.language, language)))
  return new Map(rows.map((r) => [r.key, r.words]))
}
/** Null takes it back. */
export async function saveOwnWords(
  db: Db,
  row: { settingId: string; language: HomeLanguage; key: string; byId: string },
  words: string | null,
): Promise<void> {
  if (words === null)
    await db
      .delete(homeWords)
      .where(
        and(
          eq(homeWords.settingId, row.settingId),
          eq(homeWords.language, row.language),
          eq(homeWords.key, row.key),
        ),
      )
  else
    await db
      .insert(homeWords)
      .values({ ...row, words })
      .onConflictDoUpdate({
        target: [homeWords.settingId, homeWords.language, homeWords.key],
        set: { words, byId: row.byId, at: new Date() },
      })
}
