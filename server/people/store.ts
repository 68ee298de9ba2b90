import { eq, lt, sql } from 'drizzle-orm'
import type { Db } from '../platform/db.ts'
import { people, sessions } from '../platform/schema.ts'
import { hashToken, newSessionToken } from '../platform/tokens.ts'

const sessionDays = 30

export async function personByEmail(
  db: Db,
  email: string,
): Promise<{ id: string; passwordHash: string } | undefined> {
  const [row] = await db
    .select({ id: people.id, passwordHash: people.passwordHash })
    .from(people)
    .where(eq(people.email, email.trim().toLowerCase()))
    .limit(1)
  return row
}
export async function openSession(db: Db, personId: string): Promise<{ token: string; expires: Date }> {
  const token = newSessionToken()
  const expires = new Date(Date.now() + sessionDays * 86_400_000)
  await db.delete(sessions).where(lt(sessions.expiresAt, new Date()))
  await db.insert(sessions).values({ tokenHash: hashToken(token), personId, expiresAt: expires })
  return { token, expires }
}
/** Ends a session, here and on every stream that it opened. */
export async function closeSession(db: Db, token: string): Promise<void> {
  const hash = hashToken(token)
  const [ended] = await db
    .delete(sessions)
    .where(eq(sessions.tokenHash, hash))
    .returning({ personId: sessions.personId })
  if (!ended) return
  const [person] = await db
    .select({ settingId: people.settingId })
    .from(people)
    .where(eq(people.id, ended.personId))
    .limit(1)
  const told = { kind: 'signed out', setting: person!.settingId, lesson: '', session: hash.toString('hex') }
  await db.execute(sql`select pg_notify('awlbox', ${JSON.stringify(told)})`)
}
