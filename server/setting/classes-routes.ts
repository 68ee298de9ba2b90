import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/classes'
import { ok } from '@awlbox/core/contracts/api/route'
import { keptForOf } from '@awlbox/core/contracts/kept-for'
import { createLesson, lessonById } from '../lessons/store.ts'
import { colleagueOf, peopleOf } from '../people/store.ts'
import { mayClass, mayLesson, owns } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { keptForIn } from '../keep/times-store.ts'
import {
  allClasses,
  classById,
  deleteCover,
  insertClass,
  insertCover,
  lastYear,
  leftChildren,
  nameTaken,
  turnYear,
  undoYear,
  updateClass,
} from './classes-store.ts'

const taken = (name: string) =>
  new Problem(409, 'Another class', `An open class is called “${name}” already. Nothing was changed.`)

/** Classes, who teaches and covers them, and the school year. */
export function classRoutes(router: Router, s: Services): void {
  const worksHere = async (settingId: string, personId: string): Promise<void> => {
    if (!(await colleagueOf(s.db, settingId, personId))) throw notFound('This person')
  }
  personRoute(router, s, api.classes, async ({ person }) => {
    const { settingId } = person
    const year = await lastYear(s.db, settingId)
    return {
      classes: await allClasses(s.db, settingId),
      people: (await peopleOf(s.db, settingId))
        .filter((p) => !p.endedAt)
        .map(({ id, name }) => ({ id, name })),
      left: await leftChildren(s.db, settingId),
      year: year
        ? {
            id: year.id,
            at: year.at,
            by: year.by,
            moved: year.done.moves.filter((m) => m.to !== null).length,
            left: year.done.moves.filter((m) => m.to === null).length,
            undoUntil: year.canUndo ? year.undoUntil : null,
          }
        : null,
      keptAfterLeaving: keptForOf(await keptForIn(s.db, settingId)).standings,
      mayChange: person.role === 'owner',
    }
  })
  personRoute(router, s, api.makeClass, async ({ person, body }) => {
    owns(person, 'make a class')
    await worksHere(person.settingId, body.teacherId)
    if (await nameTaken(s.db, person.settingId, body.name, null)) throw taken(body.name)
    return { id: await insertClass(s.db, { ...body, settingId: person.settingId }) }
  })
  personRoute(router, s, api.saveClass, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'read')
    owns(person, 'change a class')
    const before = await classById(s.db, person.settingId, params.classId)
    if (body.teacherId) await worksHere(person.settingId, body.teacherId)
    const { closed, name, ...rest } = body
    const isOpen = closed === undefined ? before!.closedAt === null : !closed
    const called = name ?? before!.name
    if (isOpen && (await nameTaken(s.db, person.settingId, called, params.classId))) throw taken(called)
    const change = {
      ...(name === undefined ? {} : { name }),
      ...(rest.age === undefined ? {} : { age: rest.age }),
      ...(rest.teacherId === undefined ? {} : { teacherId: rest.teacherId }),
      ...(closed === undefined ? {} : { closedAt: closed ? (before!.closedAt ?? new Date()) : null }),
    }
    if (Object.keys(change).length) await updateClass(s.db, params.classId, change)
    return ok
  })
  personRoute(router, s, api.addCover, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'read')
    owns(person, 'give a colleague a class')
    await worksHere(person.settingId, body.personId)
    if (body.until < body.from)
      throw new Problem(400, 'These days', 'The last day is before the first. Nothing was changed.')
    return { id: await insertCover(s.db, { classId: params.classId, ...body }) }
  })
  personRoute(router, s, api.endCover, async ({ person, params }) => {
    owns(person, 'take a cover back')
    if (!(await deleteCover(s.db, person.settingId, params.coverId))) throw notFound('This cover')
    return ok
  })
  personRoute(router, s, api.turnYear, async ({ person, body }) => {
    owns(person, 'begin a new school year')
    const open = new Set(
      (await allClasses(s.db, person.settingId)).filter((c) => !c.closedAt).map((c) => c.id),
    )
    if (body.moves.some((m) => m.to !== null && !open.has(m.to))) throw notFound('This class')
    const done = await turnYear(s.db, { settingId: person.settingId, byId: person.id, done: body })
    if ('stale' in done)
      throw new Problem(
        409,
        'Moved meanwhile',
        `${done.stale} ${done.stale === 1 ? 'child is' : 'children are'} no longer where this page shows. Nothing was changed: look again.`,
      )
    return done
  })
  personRoute(router, s, api.undoYear, async ({ person, params }) => {
    owns(person, 'take a school year back')
    const undone = await undoYear(s.db, person.settingId, params.yearId)
    if (!undone)
      throw new Problem(409, 'Not any more', 'It was taken back before, or is more than 30 days ago.')
    return undone
  })
  personRoute(router, s, api.carryLesson, async ({ person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    await mayClass(s.db, person, body.classId, 'change')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const id = await createLesson(s.db, {
      classId: body.classId,
      day: body.day,
      doc: lesson.doc,
      byId: person.id,
      style: person.houseStyle,
    })
    return { id }
  })
}
