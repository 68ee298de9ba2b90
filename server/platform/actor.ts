import { and, eq, gt, isNull, sql } from 'drizzle-orm'
import * as cookie from 'cookie'
import type { Request } from 'express'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Db } from './db.ts'
import { homeLinks, households, people, sessions, settings } from './schema.ts'
import { hashToken } from './tokens.ts'

export interface Person {
  kind: 'person'
  id: string
  name: string
  role: 'owner' | 'teacher'
  settingId: string
  settingName: string
  houseStyle: HouseStyle
}
export interface Home {
  kind: 'home'
  householdId: string
  settingId: string
  name: string
  youngerChild: boolean
}
export const sessionCookie = 'awlbox_session'

export function sessionToken(header: string | undefined): string | null {
  return header ? (cookie.parse(header)[sessionCookie] ?? null) : null
}

/** Minutes to which it is known when a session was last used: not every call is written down. */
const usedWithin = 5

export async function personOf(db: Db, req: Pick<Request, 'headers'>): Promise<Person | null> {
  const token = sessionToken(req.headers.cookie)
  if (!token) return null
  const [row] = await db
    .select({
      id: people.id,
      name: people.name,
      role: people.role,
      settingId: people.settingId,
      settingName: settings.name,
      houseStyle: settings.houseStyle,
      idle: sql<boolean>`${sessions.lastUsedAt} < now() - make_interval(mins => ${usedWithin})`,
    })
    .from(sessions)
    .innerJoin(people, eq(people.id, sessions.personId))
    .innerJoin(settings, eq(settings.id, people.settingId))
    .where(
      and(
        eq(sessions.tokenHash, hashToken(token)),
        gt(sessions.expiresAt, new Date()),
        isNull(people.endedAt),
      ),
    )
    .limit(1)
  if (!row) return null
  const { idle, ...person } = row
  if (idle)
    await db
      .update(sessions)
      .set({ lastUsedAt: sql`now()` })
      .where(eq(sessions.tokenHash, hashToken(token)))
  return { kind: 'person', ...person, houseStyle: HouseStyle.parse(person.houseStyle) }
}

const homeColumns = {
  householdId: households.id,
  settingId: households.settingId,
  name: households.name,
  youngerChild: households.youngerChild,
}
export async function homeOf(db: Db, token: string): Promise<Home | null> {
  const [row] = await db
    .select(homeColumns)
    .from(homeLinks)
    .innerJoin(households, eq(households.id, homeLinks.householdId))
    .where(and(eq(homeLinks.tokenHash, hashToken(token)), isNull(homeLinks.revokedAt)))
    .limit(1)
  return row ? { kind: 'home', ...row } : null
}
export async function homeById(db: Db, householdId: string): Promise<Home | null> {
  const [row] = await db.select(homeColumns).from(households).where(eq(households.id, householdId)).limit(1)
  return row ? { kind: 'home', ...row } : null
}
