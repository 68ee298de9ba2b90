import { randomUUID } from 'node:crypto'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { diagnose } from '@awlbox/core/judge/misconceptions/rank'
import { weighedOf } from '@awlbox/core/judge/misconceptions/from-replies'
import { carriedOver, type Shared } from '@awlbox/core/next/carried'
import { aimOfIdea } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { summarise } from '@awlbox/core/plan/kit'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { createLesson } from '../lessons/store.ts'
import { kitsOfClass } from '../plan/kit-store.ts'
import type { Person } from '../platform/actor.ts'
import type { Db } from '../platform/db.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { ladderOf } from '../settings/store.ts'
import { evidenceFor, kidsOf } from './standing-store.ts'
import { lastLessons } from './draft-store.ts'

/** How many lessons back promises and open questions are looked for. */
const lessonsBack = 4
const newId = (): string => randomUUID().slice(0, 8)

/** Makes the next lesson of a class on an idea, with what the lessons and replies before leave to it. */
export async function draftLesson(
  db: Db,
  person: Person,
  classId: string,
  asked: { ideaId: string; day: string },
): Promise<string> {
  const style = person.houseStyle
  const idea = ideaById(asked.ideaId, await ladderOf(db, person.settingId))
  if (!idea) throw notFound('This idea')
  const house = { zero: style.zeroIsPart, turnRounds: style.turnRoundsCount }
  const [before, kids] = await Promise.all([lastLessons(db, classId, lessonsBack), kidsOf(db, classId)])
  const last = before[0]?.doc
  const aim = aimOfIdea(idea, house)
  const found = findExamples(aim, { ...house, seed: 1 })
  if (!found.ok)
    throw new Problem(
      422,
      'No numbers found',
      `${found.conflict} Plan this lesson by hand: nothing was made.`,
    )
  const made = fromTemplate({
    title: idea.name,
    ideaId: idea.id,
    age: last?.age ?? Math.min(7, Math.max(3, idea.ages[0])),
    aim,
    examples: (found.sets.find((s) => s.level === 'middle') ?? found.sets[0]!).examples,
    style,
    ...(last ? { story: last.story } : {}),
    sets: found.sets.map((s) => s.examples),
    newId,
  })
  const { homes, all } = await kitsOfClass(db, classId)
  const doc: Lesson = {
    ...made,
    carried: carriedOver(
      before,
      await sharedBy(db, kids),
      summarise(made.kit, homes, all).lacks.map((l) => l.thing),
    ),
  }
  return createLesson(db, { classId, day: asked.day, doc, byId: person.id, style })
}
/** Ways of thinking that may be meant to be met, with the children of whom they are named. */
async function sharedBy(db: Db, kids: readonly { id: string; name: string }[]): Promise<Shared[]> {
  const { sent, readings } = await evidenceFor(
    db,
    kids.map((k) => k.id),
    null,
  )
  const by = new Map<string, { words: string; next: string; children: string[] }>()
  for (const kid of kids) {
    const mine = sent.filter((r) => r.childId === kid.id)
    const weighed = mine.flatMap((r) =>
      weighedOf({ id: r.id, tasks: r.pack.tasks, answers: r.answers, help: r.help }, readings),
    )
    const named = diagnose(weighed).named[0]
    if (!named) continue
    const s = by.get(named.id) ?? { words: named.words, next: named.next, children: [] }
    s.children.push(kid.name)
    by.set(named.id, s)
  }
  return [...by.values()]
}
