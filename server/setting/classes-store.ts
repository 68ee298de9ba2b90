import { and, asc, desc, eq, inArray, isNull, ne, sql } from 'drizzle-orm'
import type { Cover, YearTurned } from '@awlbox/core/contracts/api/classes'
import { yearUndoDays } from '@awlbox/core/contracts/api/classes'
import type { Db } from '../platform/db.ts'
import { children, classCovers, classes, people, yearTurns } from '../platform/schema.ts'
import { moveChildren } from './homes-store.ts'

/** Every class of a setting, open ones first, with its children and who covers it now or later. */
export const allClasses = (db: Db, settingId: string) =>
  db
    .select({
      id: classes.id,
      name: classes.name,
      age: classes.age,
      teacherId: classes.teacherId,
      teacher: people.name,
      closedAt: classes.closedAt,
      children: sql<
        { id: string; name: string }[]
      >`coalesce((select json_agg(json_build_object('id', c.id, 'name', c.name) order by c.name) from children c where c.class_id = ${classes.id}), '[]')`,
      lessons: sql<number>`(select count(*)::int from lessons l where l.class_id = ${classes.id})`,
      covers: sql<
        Cover[]
      >`coalesce((select json_agg(json_build_object('id', v.id, 'personId', p.id, 'person', p.name, 'from', v.from_day, 'until', v.until_day) order by v.from_day)
        from class_covers v join people p on p.id = v.person_id
        where v.class_id = ${classes.id} and v.until_day >= current_date - 1), '[]')`,
    })
    .from(classes)
    .innerJoin(people, eq(people.id, classes.teacherId))
    .where(eq(classes.settingId, settingId))
    .orderBy(sql`${classes.closedAt} is not null`, asc(classes.age), asc(classes.name))
    .limit(300)

export const leftChildren = (db: Db, settingId: string) =>
  db
    .select({
      id: children.id,
      name: children.name,
      className: classes.name,
      leftAt: sql<Date>`${children.leftAt}`.mapWith(children.leftAt),
    })
    .from(children)
    .innerJoin(classes, eq(classes.id, children.leftFrom))
    .where(eq(classes.settingId, settingId))
    .orderBy(desc(children.leftAt), asc(children.name))
    .limit(500)

/** Whether an open class has this name already, another than the one given. */
export async function nameTaken(
  db: Db,
  settingId: string,
  name: string,
  but: string | null,
): Promise<boolean> {
  const [row] = await db
    .select({ id: classes.id })
    .from(classes)
    .where(
      and(
        eq(classes.settingId, settingId),
        eq(sql`lower(${classes.name})`, name.toLowerCase()),
        isNull(classes.closedAt),
        but ? ne(classes.id, but) : undefined,
      ),
    )
    .limit(1)
  return row !== undefined
}
export const insertClass = async (db: Db, row: typeof classes.$inferInsert): Promise<string> =>
  (await db.insert(classes).values(row).returning({ id: classes.id }))[0]!.id
export async function classById(db: Db, settingId: string, classId: string) {
  const [row] = await db
    .select()
    .from(classes)
    .where(and(eq(classes.id, classId), eq(classes.settingId, settingId)))
    .limit(1)
  return row
}
export const updateClass = (
  db: Db,
  classId: string,
  change: Partial<Pick<typeof classes.$inferInsert, 'name' | 'age' | 'teacherId' | 'closedAt'>>,
) => db.update(classes).set(change).where(eq(classes.id, classId))

export const insertCover = async (db: Db, row: typeof classCovers.$inferInsert): Promise<string> =>
  (await db.insert(classCovers).values(row).returning({ id: classCovers.id }))[0]!.id
export const deleteCover = async (db: Db, settingId: string, coverId: string): Promise<boolean> =>
  (
    await db
      .delete(classCovers)
      .where(
        and(
          eq(classCovers.id, coverId),
          sql`${classCovers.classId} in (select id from classes where setting_id = ${settingId})`,
        ),
      )
      .returning({ id: classCovers.id })
  ).length > 0

/** The newest turn of the year that was not taken back. */
export async function lastYear(db: Db, settingId: string) {
  const [row] = await db
    .select({
      id: yearTurns.id,
      at: yearTurns.at,
      done: yearTurns.done,
      undoneAt: yearTurns.undoneAt,
      by: people.name,
      undoUntil: sql<Date>`${yearTurns.at} + make_interval(days => ${yearUndoDays})`.mapWith(yearTurns.at),
      canUndo: sql<boolean>`now() < ${yearTurns.at} + make_interval(days => ${yearUndoDays})`,
    })
    .from(yearTurns)
    .innerJoin(people, eq(people.id, yearTurns.byId))
    .where(and(eq(yearTurns.settingId, settingId), isNull(yearTurns.undoneAt)))
    .orderBy(desc(yearTurns.at))
    .limit(1)
  return row
}
/** Who is where, of a setting: what a turn of the year is held against, locked until it is done. */
const placesIn = async (tx: Db, settingId: string): Promise<Map<string, string>> =>
  new Map(
    (
      await tx
        .select({ id: children.id, at: sql<string>`${children.classId}` })
        .from(children)
        .innerJoin(classes, eq(classes.id, children.classId))
        .where(eq(classes.settingId, settingId))
        .for('update', { of: children })
    ).map((c) => [c.id, c.at]),
  )
/** Does a turn of the year, whole or not at all; gives how many children are no longer where it says. */
export const turnYear = (
  db: Db,
  input: { settingId: string; byId: string; done: YearTurned },
): Promise<{ id: string } | { stale: number }> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const places = await placesIn(tx, input.settingId)
    const stale = input.done.moves.filter((m) => places.get(m.childId) !== m.from).length
    if (stale) return { stale }
    await moveChildren(tx, input.done.moves)
    const [row] = await tx.insert(yearTurns).values(input).returning({ id: yearTurns.id })
    return { id: row!.id }
  })
/** Takes a turn back for every child that is still where it was put; null where it cannot be taken back. */
export const undoYear = (
  db: Db,
  settingId: string,
  yearId: string,
): Promise<{ back: number; elsewhere: number } | null> =>
  db.transaction(async (raw) => {
    const tx = raw as unknown as Db
    const [turn] = await tx
      .update(yearTurns)
      .set({ undoneAt: new Date() })
      .where(
        and(
          eq(yearTurns.id, yearId),
          eq(yearTurns.settingId, settingId),
          isNull(yearTurns.undoneAt),
          sql`now() < ${yearTurns.at} + make_interval(days => ${yearUndoDays})`,
        ),
      )
      .returning({ done: yearTurns.done })
    if (!turn) return null
    const now = await tx
      .select({ id: children.id, classId: children.classId, leftFrom: children.leftFrom })
      .from(children)
      .where(
        inArray(
          children.id,
          turn.done.moves.map((m) => m.childId),
        ),
      )
    const at = new Map(now.map((c) => [c.id, c]))
    const back = turn.done.moves.filter((m) => {
      const c = at.get(m.childId)
      return c !== undefined && (m.to === null ? c.leftFrom === m.from : c.classId === m.to)
    })
    await moveChildren(
      tx,
      back.map((m) => ({ childId: m.childId, from: m.to ?? m.from, to: m.from })),
    )
    return { back: back.length, elsewhere: turn.done.moves.length - back.length }
  })
