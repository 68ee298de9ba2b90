import type { LiveChild, LiveDesk } from '@awlbox/core/contracts/api/live'
import type { LiveRound } from '@awlbox/core/contracts/live'
import { type AskedBefore, type Given, tallySeen } from '@awlbox/core/live/tally'
import { photosIn } from '../look/store.ts'
import type { Db } from '../platform/db.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import { answersIn, childrenAt, type LiveRow } from './store.ts'

type Answers = Awaited<ReturnType<typeof answersIn>>
/** An answer as core takes it: moments in ms. */
export const givenIn = (answers: Answers, roundId: string): Given[] =>
  answers.filter((a) => a.roundId === roundId).map((a) => ({ ...a, at: a.at.getTime() }))
export async function readingsOf(
  db: Db,
  answers: Answers,
): Promise<Map<string, Awaited<ReturnType<typeof photosIn>>[number]['reading']>> {
  const ids = answers.flatMap((a) => (a.answer.photoId ? [a.answer.photoId] : []))
  return new Map((await photosIn(db, ids)).map((p) => [p.id, p.reading]))
}

/** The children of a live lesson, with who is here and what their homes agreed to. */
export async function childrenSeen(db: Db, row: Pick<LiveRow, 'id' | 'classId'>): Promise<LiveChild[]> {
  const kids = await childrenAt(db, row)
  const ids = kids.map((k) => k.id)
  const [no, named] = await Promise.all([refusing(db, 'photos', ids), agreeing(db, 'naming', ids)])
  return kids.map((k) => ({ ...k, photos: !no.has(k.id), named: named.has(k.id) }))
}
/** How a live lesson stands, for its desks and the shared window. */
export async function deskOf(
  db: Db,
  row: LiveRow,
  by: { children: readonly LiveChild[]; earlier: readonly AskedBefore[]; now: number },
): Promise<LiveDesk> {
  const counted = row.state.rounds.filter((r) => !r.undone)
  const [current, before] = [counted.at(-1) ?? null, counted.at(-2) ?? null]
  const answers = await answersIn(
    db,
    row.id,
    [current, before].flatMap((r) => (r ? [r.id] : [])),
  )
  const readings = await readingsOf(db, answers)
  const seen = (round: LiveRound) =>
    tallySeen(round, givenIn(answers, round.id), {
      children: by.children.map((k) => k.id),
      now: by.now,
      earlier: by.earlier,
      readings,
    })
  return {
    now: by.now,
    state: row.state,
    children: [...by.children],
    tally: current && seen(current),
    last: before && seen(before),
  }
}
