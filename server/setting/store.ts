import { randomUUID } from 'node:crypto'
import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import type { FirstStart } from '@awlbox/core/contracts/api/set-up'
import type { Db } from '../platform/db.ts'
import { children, classes, households, people, sessions, settings, setUpLinks } from '../platform/schema.ts'
import { hashToken, newSessionToken } from '../platform/tokens.ts'
import { openLinks } from '../send/store.ts'
import { nameApart } from './homes-store.ts'

export type LinkKind = 'first' | 'owner'
/** Minutes a one-time address is good for. */
export const goodFor = 60

export const hasOwner = async (db: Db): Promise<boolean> =>
  (
    await db
      .select({ id: people.id })
      .from(people)
      .where(and(eq(people.role, 'owner'), isNull(people.endedAt)))
      .limit(1)
  ).length > 0

/** A new one-time address; those made before are no longer good. */
export async function newLink(db: Db, kind: LinkKind): Promise<string> {
  const token = newSessionToken()
  await db.transaction(async (tx) => {
    await tx.delete(setUpLinks)
    await tx.insert(setUpLinks).values({
      tokenHash: hashToken(token),
      kind,
      expiresAt: sql`now() + make_interval(mins => ${goodFor})`,
    })
  })
  return token
}
const good = (token: string) =>
  and(
    eq(setUpLinks.tokenHash, hashToken(token)),
    isNull(setUpLinks.usedAt),
    gt(setUpLinks.expiresAt, sql`now()`),
  )
export async function linkFor(
  db: Db,
  token: string,
): Promise<{ kind: LinkKind; setting: string | null } | null> {
  const [link] = await db.select({ kind: setUpLinks.kind }).from(setUpLinks).where(good(token)).limit(1)
  if (!link) return null
  const [setting] = await db.select({ name: settings.name }).from(settings).limit(1)
  return { kind: link.kind, setting: setting?.name ?? null }
}
/** Uses a link up: for whoever comes second it is no longer good. */
async function use(tx: Db, token: string, kind: LinkKind): Promise<boolean> {
  const used = await tx
    .update(setUpLinks)
    .set({ usedAt: new Date() })
    .where(and(good(token), eq(setUpLinks.kind, kind)))
    .returning({ kind: setUpLinks.kind })
  return used.length > 0
}

/** Everything of a first start, or nothing. Gives the owner; null where the link is no longer good. */
export const makeSetting = (
  db: Db,
  token: string,
  secret: string,
  {
    setting,
    owner,
    houseStyle,
    children: list,
    class: cls,
  }: Omit<FirstStart, 'owner'> & {
    owner: { name: string; email: string; passwordHash: string }
  },
): Promise<{ id: string; settingId: string } | null> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    if (!(await use(tx, token, 'first')) || (await hasOwner(tx))) return null
    const [made] = await tx
      .insert(settings)
      .values({ ...setting, houseStyle })
      .returning({ id: settings.id })
    const settingId = made!.id
    const [person] = await tx
      .insert(people)
      .values({ ...owner, email: owner.email.trim().toLowerCase(), settingId, role: 'owner' })
      .returning({ id: people.id })
    const [first] = await tx
      .insert(classes)
      .values({ ...cls, settingId, teacherId: person!.id })
      .returning({ id: classes.id })
    const homes = new Map([...new Set(list.map((c) => c.home))].map((name) => [name, randomUUID()]))
    if (homes.size) {
      await tx.insert(households).values([...homes].map(([name, id]) => ({ id, settingId, name })))
      await tx.insert(children).values(
        list.map((c) => ({
          classId: first!.id,
          householdId: homes.get(c.home)!,
          given: c.name,
          name: c.name,
        })),
      )
      await nameApart(tx, [first!.id])
      await openLinks(tx, secret, [...homes.values()])
    }
    return { id: person!.id, settingId }
  })

/** A new password for an owner, or another owner of the setting; open sessions of theirs end. Null where the link is no longer good, or the address is a teacher's. */
export const renewOwner = (
  db: Db,
  token: string,
  owner: { name: string; email: string; passwordHash: string },
): Promise<{ id: string; settingId: string } | null> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const [setting] = await tx.select({ id: settings.id }).from(settings).limit(1)
    const email = owner.email.trim().toLowerCase()
    const [there] = await tx.select().from(people).where(eq(people.email, email)).limit(1)
    if (!setting || (there && there.role !== 'owner') || !(await use(tx, token, 'owner'))) return null
    if (there) {
      await tx
        .update(people)
        .set({ passwordHash: owner.passwordHash, endedAt: null })
        .where(eq(people.id, there.id))
      await tx.delete(sessions).where(eq(sessions.personId, there.id))
      return { id: there.id, settingId: setting.id }
    }
    const [made] = await tx
      .insert(people)
      .values({ ...owner, email, settingId: setting.id, role: 'owner' })
      .returning({ id: people.id })
    return { id: made!.id, settingId: setting.id }
  })
