import type { LiveChild, LiveDesk, LiveTally } from '@awlbox/core/contracts/api/live'
import type { LiveRound } from '@awlbox/core/contracts/live'
import { isShown } from '@awlbox/core/live/state'
import { type AskedBefore, saidBefore, tallyOf } from '@awlbox/core/live/tally'
import { photosIn } from '../look/store.ts'
import type { Db } from '../platform/db.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import { answersIn, childrenAt, type LiveRow } from './store.ts'

type Answers = Awaited<ReturnType<typeof answersIn>>
type Readings = Parameters<typeof tallyOf>[3]

/** What came in one round, as a desk may see it: shut until all at once. */
export function tallySeen(
  round: LiveRound,
  answers: Answers,
  by: { children: readonly string[]; now: number; earlier: readonly AskedBefore[]; readings: Readings },
): LiveTally {
  const own = answers.filter((a) => a.roundId === round.id)
  const t = tallyOf(round, own, by.children, by.readings)
  const shown = isShown(round, by.now)
  return {
    roundId: round.id,
    shown,
    sent: [...t.sent],
    late: [...t.late],
    silent: [...t.silent],
    rows: shown ? t.rows.map((r) => ({ ...r, children: [...r.children] })) : [],
    right: shown ? t.right : 0,
    wrong: shown ? t.wrong : 0,
    photos: shown
      ? own.flatMap((a) => (a.answer.photoId ? [{ childId: a.childId, photoId: a.answer.photoId }] : []))
      : [],
    before: saidBefore(round, by.earlier),
  }
}
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
    tallySeen(round, answers, {
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
