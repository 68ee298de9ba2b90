import { randomUUID } from 'node:crypto'
import { and, asc, desc, eq, gt, inArray, or, sql } from 'drizzle-orm'
import type { ChildFields, Consent, ConsentKind } from '@awlbox/core/contracts/api/homes'
import { shownNames } from '@awlbox/core/setting/names'
import { livesIn, teaches } from '../platform/access.ts'
import type { Db } from '../platform/db.ts'
import { children, classes, consents, households, people } from '../platform/schema.ts'
import { openLinks } from '../send/store.ts'

/** Names the children of these classes anew, so that no two are shown alike. */
export async function nameApart(tx: Db, classIds: readonly string[]): Promise<void> {
  for (const classId of new Set(classIds)) {
    const mine = await tx
      .select({ id: children.id, given: children.given, name: children.name, home: households.name })
      .from(children)
      .innerJoin(households, eq(households.id, children.householdId))
      .where(eq(children.classId, classId))
      .orderBy(asc(children.id))
    const shown = shownNames(mine)
    for (const c of mine)
      if (shown.get(c.id) !== c.name)
        await tx
          .update(children)
          .set({ name: shown.get(c.id)! })
          .where(eq(children.id, c.id))
  }
}

const latest = (kind: ConsentKind) =>
  sql<Consent | null>`(select json_build_object('given', k.given, 'giver', k.giver, 'day', k.day) from consents k
    where k.child_id = children.id and k.kind = ${kind} order by k.n desc limit 1)`
const columns = {
  id: children.id,
  revision: children.revision,
  given: children.given,
  name: children.name,
  classId: sql<string>`${children.classId}`,
  className: classes.name,
  householdId: households.id,
  home: households.name,
  second: sql<string>`coalesce((select h.name from households h where h.id = ${children.secondHouseholdId}), '')`,
  languages: children.languages,
  youngerChild: households.youngerChild,
  phone: households.phone,
  printer: households.printer,
  metered: households.metered,
  email: sql<string>`coalesce(${households.email}, '')`,
  note: children.note,
  linkVersion: households.linkVersion,
  open: sql<boolean>`exists (select 1 from home_links k where k.household_id = ${households.id} and k.revoked_at is null)`,
  photos: latest('photos'),
  sound: latest('sound'),
  showing: latest('showing'),
  naming: latest('naming'),
}
const rowsOf = (db: Db, personId: string) =>
  db
    .select({ ...columns, theirs: teaches(personId) })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.classId))
    .innerJoin(households, eq(households.id, children.householdId))
/** Children of the setting's classes with their homes, by class and name, after a place in that order. */
export const childRows = (
  db: Db,
  { settingId, personId }: { settingId: string; personId: string },
  after: { className: string; name: string } | null,
  limit: number,
) =>
  rowsOf(db, personId)
    .where(
      and(
        eq(classes.settingId, settingId),
        after
          ? or(
              gt(classes.name, after.className),
              and(eq(classes.name, after.className), gt(children.name, after.name)),
            )
          : undefined,
      ),
    )
    .orderBy(asc(classes.name), asc(children.name))
    .limit(limit)
export async function childRow(db: Db, personId: string, childId: string) {
  const [row] = await rowsOf(db, personId).where(eq(children.id, childId)).limit(1)
  return row
}

/** The homes of a setting by their names; those that are not there are made, with a link. */
async function homesNamed(
  tx: Db,
  settingId: string,
  secret: string,
  names: readonly string[],
): Promise<Map<string, string>> {
  const like = (name: string): string => name.toLowerCase()
  const wanted = [...new Set(names)]
  const found = wanted.length
    ? await tx
        .select({ id: households.id, name: households.name })
        .from(households)
        .where(
          and(eq(households.settingId, settingId), inArray(sql`lower(${households.name})`, wanted.map(like))),
        )
    : []
  const byName = new Map(found.map((h) => [like(h.name), h.id]))
  // Written twice in other letters it is one home, as it was written first.
  const fresh = new Map<string, { id: string; name: string }>()
  for (const name of wanted)
    if (!byName.has(like(name)) && !fresh.has(like(name))) fresh.set(like(name), { id: randomUUID(), name })
  if (fresh.size) {
    await tx.insert(households).values([...fresh.values()].map((h) => ({ ...h, settingId })))
    await openLinks(
      tx,
      secret,
      [...fresh.values()].map((h) => h.id),
    )
    for (const [key, h] of fresh) byName.set(key, h.id)
  }
  return new Map(wanted.map((n) => [n, byName.get(like(n))!]))
}

/** What of a row belongs to the child, and what to its home. */
const ofChild = ({ given, languages, note }: Partial<ChildFields>) => ({
  ...(given === undefined ? {} : { given }),
  ...(languages === undefined ? {} : { languages }),
  ...(note === undefined ? {} : { note }),
})
const ofHome = ({ youngerChild, phone, printer, metered, email }: Partial<ChildFields>) => ({
  ...(youngerChild === undefined ? {} : { youngerChild }),
  ...(phone === undefined ? {} : { phone }),
  ...(printer === undefined ? {} : { printer }),
  ...(metered === undefined ? {} : { metered }),
  ...(email === undefined ? {} : { email: email || null }),
})

/** Changes a child and its home over the state it was made from. */
export const changeChild = (
  db: Db,
  input: {
    settingId: string
    secret: string
    childId: string
    revision: number
    change: Partial<ChildFields>
  },
): Promise<'done' | 'stale' | 'gone'> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const [before] = await tx
      .select()
      .from(children)
      .where(eq(children.id, input.childId))
      .for('update')
      .limit(1)
    if (!before?.classId) return 'gone'
    if (before.revision !== input.revision) return 'stale'
    const { home, second } = input.change
    const homes = await homesNamed(
      tx,
      input.settingId,
      input.secret,
      [home ?? '', second ?? ''].filter(Boolean),
    )
    const householdId = home === undefined ? before.householdId : homes.get(home)!
    const secondHouseholdId =
      second === undefined ? before.secondHouseholdId : second === '' ? null : homes.get(second)!
    await tx
      .update(children)
      .set({
        ...ofChild(input.change),
        householdId,
        secondHouseholdId: secondHouseholdId === householdId ? null : secondHouseholdId,
        revision: before.revision + 1,
      })
      .where(eq(children.id, before.id))
    const change = ofHome(input.change)
    if (Object.keys(change).length) {
      await tx.update(households).set(change).where(eq(households.id, householdId))
      // Brothers and sisters show the same home: what was open of theirs is older now.
      await tx
        .update(children)
        .set({ revision: sql`${children.revision} + 1` })
        .where(and(eq(children.householdId, householdId), sql`${children.id} <> ${before.id}`))
    }
    await nameApart(tx, [before.classId])
    return 'done'
  })

/** Adds the children of a list that are not here yet; how many were, and the ids of those that came. */
export const addChildren = (
  db: Db,
  input: {
    settingId: string
    secret: string
    classId: string
    list: readonly (Partial<ChildFields> & { given: string; home: string })[]
  },
): Promise<{ added: string[]; known: number }> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    // Two lists at once are added one after the other.
    await tx.select({ id: classes.id }).from(classes).where(eq(classes.id, input.classId)).for('update')
    const homes = await homesNamed(
      tx,
      input.settingId,
      input.secret,
      input.list.flatMap((c) => [c.home, c.second ?? '']).filter(Boolean),
    )
    const key = (given: string, householdId: string): string => `${given.toLowerCase()} ${householdId}`
    const here = await tx
      .select({ given: children.given, householdId: children.householdId })
      .from(children)
      .innerJoin(classes, eq(classes.id, children.classId))
      .where(eq(classes.settingId, input.settingId))
    const seen = new Set(here.map((c) => key(c.given, c.householdId)))
    const fresh = input.list.filter((c) => {
      const k = key(c.given, homes.get(c.home)!)
      if (seen.has(k)) return false
      seen.add(k)
      return true
    })
    const added: string[] = []
    for (let i = 0; i < fresh.length; i += 500) {
      const rows = await tx
        .insert(children)
        .values(
          fresh.slice(i, i + 500).map((c) => ({
            ...ofChild(c),
            classId: input.classId,
            given: c.given,
            // Told apart below, before the transaction ends.
            name: c.given,
            householdId: homes.get(c.home)!,
            secondHouseholdId:
              c.second && homes.get(c.second) !== homes.get(c.home) ? homes.get(c.second)! : null,
          })),
        )
        .returning({ id: children.id })
      added.push(...rows.map((r) => r.id))
    }
    for (const c of fresh) {
      const change = ofHome(c)
      if (Object.keys(change).length)
        await tx
          .update(households)
          .set(change)
          .where(eq(households.id, homes.get(c.home)!))
    }
    await nameApart(tx, [input.classId])
    return { added, known: input.list.length - fresh.length }
  })

/** Moves children, each from where it is said to be; null lets it leave. Gives those that are no longer there. */
export async function moveChildren(
  tx: Db,
  moves: readonly { childId: string; from: string; to: string | null }[],
): Promise<string[]> {
  const gone: string[] = []
  for (const m of moves) {
    const moved = await tx
      .update(children)
      .set(
        m.to === null
          ? { classId: null, leftAt: new Date(), leftFrom: m.from }
          : { classId: m.to, leftAt: null, leftFrom: null },
      )
      .where(
        and(eq(children.id, m.childId), sql`coalesce(${children.classId}, ${children.leftFrom}) = ${m.from}`),
      )
      .returning({ id: children.id })
    if (!moved.length) gone.push(m.childId)
  }
  await nameApart(
    tx,
    moves.flatMap((m) => [m.from, ...(m.to === null ? [] : [m.to])]),
  )
  return gone
}
/** Where a child is, or the class it left. */
export async function placeOf(db: Db, childId: string): Promise<string | null> {
  const [row] = await db
    .select({ at: sql<string>`coalesce(${children.classId}, ${children.leftFrom})` })
    .from(children)
    .where(eq(children.id, childId))
    .limit(1)
  return row?.at ?? null
}

export const addConsent = (
  db: Db,
  row: {
    childId: string
    kind: ConsentKind
    given: boolean
    giver: string
    day: string
    byId: string | null
  },
) => db.insert(consents).values(row)
/** What was last said of a kind, for those of these children of whom anything was. */
async function lastSaid(
  db: Db,
  kind: ConsentKind,
  childIds: readonly string[],
): Promise<{ childId: string; given: boolean }[]> {
  if (!childIds.length) return []
  return db
    .selectDistinctOn([consents.childId], { childId: consents.childId, given: consents.given })
    .from(consents)
    .where(and(inArray(consents.childId, [...childIds]), eq(consents.kind, kind)))
    .orderBy(consents.childId, desc(consents.n))
}
/** Of these children those whose grown-up last said no to a kind. Nobody asked is no refusal. */
export const refusing = async (
  db: Db,
  kind: ConsentKind,
  childIds: readonly string[],
): Promise<ReadonlySet<string>> =>
  new Set((await lastSaid(db, kind, childIds)).filter((r) => !r.given).map((r) => r.childId))
/** Of these children those whose grown-up said yes: what a voice or showing to others needs. Nobody asked is no yes. */
export const agreeing = async (
  db: Db,
  kind: ConsentKind,
  childIds: readonly string[],
): Promise<ReadonlySet<string>> =>
  new Set((await lastSaid(db, kind, childIds)).filter((r) => r.given).map((r) => r.childId))
/** The children who live in a home, with what stands of each consent. */
export const consentsHere = (db: Db, householdId: string) =>
  db
    .select({
      id: children.id,
      name: children.given,
      photos: latest('photos'),
      sound: latest('sound'),
      showing: latest('showing'),
      naming: latest('naming'),
    })
    .from(children)
    .where(and(livesIn(householdId), sql`${children.classId} is not null`))
    .orderBy(asc(children.given))
export const consentsOf = (db: Db, childId: string) =>
  db
    .select({
      kind: consents.kind,
      given: consents.given,
      giver: consents.giver,
      day: consents.day,
      at: consents.at,
      by: people.name,
    })
    .from(consents)
    .leftJoin(people, eq(people.id, consents.byId))
    .where(eq(consents.childId, childId))
    .orderBy(desc(consents.n))
    .limit(200)
/** Children of a home that have another one live there from now on. */
export const keepAtSecond = (db: Db, householdId: string) =>
  db
    .update(children)
    .set({ householdId: sql`${children.secondHouseholdId}`, secondHouseholdId: null })
    .where(and(eq(children.householdId, householdId), sql`${children.secondHouseholdId} is not null`))
/** The children of a home, those who left too. */
export async function childrenOfHome(db: Db, householdId: string): Promise<string[]> {
  const rows = await db
    .select({ id: children.id })
    .from(children)
    .where(eq(children.householdId, householdId))
  return rows.map((r) => r.id)
}
