import { and, asc, desc, eq, gt, isNull, lt, ne, sql } from 'drizzle-orm'
import type { Role } from '@awlbox/core/contracts/api/route'
import { type Db, moment } from '../platform/db.ts'
import { classCovers, classes, people, personLinks, sessions, settings } from '../platform/schema.ts'
import { hashToken, newSessionToken } from '../platform/tokens.ts'

const sessionDays = 30
/** Days an invitation is good for, and a link for a new password. */
export const linkDays = { invitation: 14, password: 1 } as const
type LinkKind = keyof typeof linkDays

/** Somebody who works here, by their address. */
export async function personByEmail(
  db: Db,
  email: string,
): Promise<{ id: string; passwordHash: string; settingId: string } | undefined> {
  const [row] = await db
    .select({ id: people.id, passwordHash: people.passwordHash, settingId: people.settingId })
    .from(people)
    .where(and(eq(people.email, email.trim().toLowerCase()), isNull(people.endedAt)))
    .limit(1)
  return row
}
/** The setting of whoever has an address, working here or not: where a refused sign-in is noted. */
export async function settingOfEmail(db: Db, email: string): Promise<string | undefined> {
  const [row] = await db
    .select({ settingId: people.settingId })
    .from(people)
    .where(eq(people.email, email.trim().toLowerCase()))
    .limit(1)
  return row?.settingId
}
export async function openSession(
  db: Db,
  personId: string,
  device = '',
): Promise<{ token: string; expires: Date }> {
  const token = newSessionToken()
  const expires = new Date(Date.now() + sessionDays * 86_400_000)
  await db.delete(sessions).where(lt(sessions.expiresAt, new Date()))
  await db.insert(sessions).values({ tokenHash: hashToken(token), personId, expiresAt: expires, device })
  return { token, expires }
}
/** Ends a session, here and on every stream that it opened. */
export async function closeSession(db: Db, token: string): Promise<void> {
  const ended = await db
    .delete(sessions)
    .where(eq(sessions.tokenHash, hashToken(token)))
    .returning({ personId: sessions.personId, tokenHash: sessions.tokenHash })
  await tellEnded(db, ended)
}
async function tellEnded(db: Db, ended: readonly { personId: string; tokenHash: Buffer }[]): Promise<void> {
  for (const { personId, tokenHash } of ended) {
    const [person] = await db
      .select({ settingId: people.settingId })
      .from(people)
      .where(eq(people.id, personId))
      .limit(1)
    const session = tokenHash.toString('hex')
    const told = { kind: 'signed out', setting: person!.settingId, lesson: '', session }
    await db.execute(sql`select pg_notify('awlbox', ${JSON.stringify(told)})`)
  }
}
/** Ends sessions of somebody: one by its id, all but one by its token, or all. True where there was one. */
export async function endSessionsOf(
  db: Db,
  personId: string,
  which: { id?: string; but?: string | null } = {},
): Promise<boolean> {
  const ended = await db
    .delete(sessions)
    .where(
      and(
        eq(sessions.personId, personId),
        which.id ? eq(sessions.id, which.id) : undefined,
        which.but ? ne(sessions.tokenHash, hashToken(which.but)) : undefined,
      ),
    )
    .returning({ personId: sessions.personId, tokenHash: sessions.tokenHash })
  await tellEnded(db, ended)
  return ended.length > 0
}
/** Where somebody is signed in, the last used first. */
export const sessionsOf = (db: Db, personId: string, token: string) =>
  db
    .select({
      id: sessions.id,
      device: sessions.device,
      since: sessions.createdAt,
      lastUsed: sessions.lastUsedAt,
      here: sql<boolean>`${sessions.tokenHash} = ${hashToken(token)}`,
    })
    .from(sessions)
    .where(and(eq(sessions.personId, personId), gt(sessions.expiresAt, new Date())))
    .orderBy(desc(sessions.lastUsedAt))
    .limit(100)

export async function ownAccount(
  db: Db,
  personId: string,
): Promise<{ name: string; email: string; passwordHash: string }> {
  const [row] = await db
    .select({ name: people.name, email: people.email, passwordHash: people.passwordHash })
    .from(people)
    .where(eq(people.id, personId))
    .limit(1)
  return row!
}
/** Changes what is said of a person; false where the address is somebody else's. */
export const changePerson = (
  db: Db,
  personId: string,
  change: Partial<{ name: string; email: string; passwordHash: string }>,
): Promise<boolean> =>
  db.transaction(async (tx) => {
    const email = change.email?.trim().toLowerCase()
    if (email !== undefined) {
      const [other] = await tx
        .select({ id: people.id })
        .from(people)
        .where(and(eq(people.email, email), ne(people.id, personId)))
        .limit(1)
      if (other) return false
    }
    await tx
      .update(people)
      .set({ ...change, ...(email === undefined ? {} : { email }) })
      .where(eq(people.id, personId))
    return true
  })

export const peopleOf = (db: Db, settingId: string) =>
  db
    .select({
      id: people.id,
      name: people.name,
      email: people.email,
      role: people.role,
      endedAt: people.endedAt,
      lastSeen:
        sql<Date | null>`(select max(s.last_used_at) from sessions s where s.person_id = people.id)`.mapWith(
          moment,
        ),
      classes: sql<
        { id: string; name: string }[]
      >`coalesce((select json_agg(json_build_object('id', c.id, 'name', c.name) order by c.name) from classes c where c.teacher_id = people.id and c.closed_at is null), '[]')`,
    })
    .from(people)
    .where(eq(people.settingId, settingId))
    .orderBy(sql`${people.endedAt} is not null`, asc(people.name))
    .limit(500)

const open = and(isNull(personLinks.usedAt), gt(personLinks.expiresAt, sql`now()`))
export const invitationsOf = (db: Db, settingId: string) =>
  db
    .select({
      id: personLinks.id,
      email: personLinks.email,
      role: personLinks.role,
      until: personLinks.expiresAt,
    })
    .from(personLinks)
    .where(and(eq(personLinks.settingId, settingId), eq(personLinks.kind, 'invitation'), open))
    .orderBy(asc(personLinks.email))
    .limit(200)

/** A link somebody joins by, or chooses a new password by. One made before for the same is no longer good. */
export const newPersonLink = (
  db: Db,
  kind: LinkKind,
  for_: { settingId: string; byId: string; role: Role } & ({ email: string } | { personId: string }),
): Promise<string> =>
  db.transaction(async (tx) => {
    const token = newSessionToken()
    await tx
      .delete(personLinks)
      .where(
        and(
          eq(personLinks.settingId, for_.settingId),
          eq(personLinks.kind, kind),
          'email' in for_ ? eq(personLinks.email, for_.email) : eq(personLinks.personId, for_.personId),
          isNull(personLinks.usedAt),
        ),
      )
    await tx.insert(personLinks).values({
      ...for_,
      kind,
      tokenHash: hashToken(token),
      expiresAt: sql`now() + make_interval(days => ${linkDays[kind]})`,
    })
    return token
  })
export const removeInvitation = async (db: Db, settingId: string, id: string): Promise<boolean> =>
  (
    await db
      .delete(personLinks)
      .where(and(eq(personLinks.settingId, settingId), eq(personLinks.id, id), isNull(personLinks.usedAt)))
      .returning({ id: personLinks.id })
  ).length > 0

/** What a link is for, while it is good. */
export async function personLink(db: Db, token: string) {
  const [row] = await db
    .select({
      kind: personLinks.kind,
      setting: settings.name,
      email: sql<string>`coalesce(${people.email}, ${personLinks.email})`,
      name: sql<string>`coalesce(${people.name}, '')`,
    })
    .from(personLinks)
    .innerJoin(settings, eq(settings.id, personLinks.settingId))
    .leftJoin(people, eq(people.id, personLinks.personId))
    .where(and(eq(personLinks.tokenHash, hashToken(token)), open))
    .limit(1)
  return row
}
/**
 * Uses a link up: makes the person it invites (or lets one who worked here come back), or gives a new password and ends
 * every session of theirs. Null where it is no longer good, or the address has been taken meanwhile.
 */
export const takeLink = (
  db: Db,
  token: string,
  { name, passwordHash }: { name: string; passwordHash: string },
): Promise<{ personId: string; settingId: string; kind: LinkKind } | null> =>
  db.transaction(async (tx) => {
    const [link] = await tx
      .select()
      .from(personLinks)
      .where(and(eq(personLinks.tokenHash, hashToken(token)), open))
      .for('update')
      .limit(1)
    if (!link) return null
    const { settingId, kind, role } = link
    const use = () => tx.update(personLinks).set({ usedAt: new Date() }).where(eq(personLinks.id, link.id))
    if (link.personId) {
      await use()
      await tx.update(people).set({ passwordHash }).where(eq(people.id, link.personId))
      await tx.delete(sessions).where(eq(sessions.personId, link.personId))
      return { personId: link.personId, settingId, kind }
    }
    const email = link.email!
    const [there] = await tx.select().from(people).where(eq(people.email, email)).limit(1)
    if (there && (there.settingId !== settingId || !there.endedAt)) return null
    await use()
    if (there) {
      await tx.update(people).set({ name, role, passwordHash, endedAt: null }).where(eq(people.id, there.id))
      return { personId: there.id, settingId, kind }
    }
    const [made] = await tx
      .insert(people)
      .values({ settingId, email, name, role, passwordHash })
      .returning({ id: people.id })
    return { personId: made!.id, settingId, kind }
  })

/** Locks the owners of a setting and tells how many others there are: two changes at once cannot leave none. */
const otherOwners = async (tx: Db, settingId: string, personId: string): Promise<number> => {
  const owners = await tx
    .select({ id: people.id })
    .from(people)
    .where(and(eq(people.settingId, settingId), eq(people.role, 'owner'), isNull(people.endedAt)))
    .orderBy(asc(people.id))
    .for('update')
  return owners.filter((o) => o.id !== personId).length
}
/** Somebody of the setting who works here. */
export async function colleagueOf(
  db: Db,
  settingId: string,
  personId: string,
): Promise<{ id: string; role: Role } | undefined> {
  const [row] = await db
    .select({ id: people.id, role: people.role })
    .from(people)
    .where(and(eq(people.id, personId), eq(people.settingId, settingId), isNull(people.endedAt)))
    .limit(1)
  return row
}
export const giveRole = (
  db: Db,
  settingId: string,
  personId: string,
  role: Role,
): Promise<'done' | 'last owner'> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    if (role !== 'owner' && (await otherOwners(tx, settingId, personId)) === 0) return 'last owner'
    await tx
      .update(people)
      .set({ role })
      .where(and(eq(people.id, personId), eq(people.settingId, settingId)))
    return 'done'
  })
/** Ends somebody's work here; what they made and judged stays theirs. */
export const endWork = (
  db: Db,
  settingId: string,
  personId: string,
  classesTo: string | null,
): Promise<'done' | 'last owner' | 'has classes'> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    if ((await otherOwners(tx, settingId, personId)) === 0) return 'last owner'
    const mine = await tx
      .select({ id: classes.id, closed: classes.closedAt })
      .from(classes)
      .where(eq(classes.teacherId, personId))
      .for('update')
    if (mine.some((c) => c.closed === null) && classesTo === null) return 'has classes'
    if (classesTo !== null)
      await tx.update(classes).set({ teacherId: classesTo }).where(eq(classes.teacherId, personId))
    await tx.delete(classCovers).where(eq(classCovers.personId, personId))
    await tx.update(people).set({ endedAt: new Date() }).where(eq(people.id, personId))
    return 'done'
  })
