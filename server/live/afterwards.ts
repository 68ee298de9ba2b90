import type { LiveState } from '@awlbox/core/contracts/live'
import type { Answer } from '@awlbox/core/contracts/reply'
import { answersOf, missedNote, packAfter, segmentTimes } from '@awlbox/core/live/afterwards'
import { tallySeen } from '@awlbox/core/live/tally'
import { packOf } from '@awlbox/core/send/pack'
import type { Db } from '../platform/db.ts'
import { log } from '../platform/log.ts'
import type { Given } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { readLater } from '../look/read-photo.ts'
import { ladderOf } from '../settings/store.ts'
import type { liveAfter } from '@awlbox/core/contracts/api/live'
import type { Answer as AnswerOf } from '@awlbox/core/contracts/api/route'
import { givenIn, readingsOf } from './desk.ts'
import { runFor } from './now.ts'
import {
  addLate,
  answersIn,
  answersOfChild,
  attendanceOf,
  childrenAt,
  doAct,
  leaveBehind,
  type LiveRow,
  tidyLives,
} from './store.ts'
import { after } from '@awlbox/core/live/state'

const dayOf = (at: Date): string =>
  at.toLocaleDateString('en-GB', { weekday: 'long', day: 'numeric', month: 'long' })

/** Leaves what was given to be looked at: once, in the breath in which the lesson ends. A rehearsal leaves nothing. */
export async function leave(s: Services, tx: Db, row: LiveRow, state: LiveState): Promise<void> {
  if (row.rehearsal || row.publicationId) return
  const run = runFor(row, state)
  const at = new Date(state.endedAt ?? Date.now())
  const base = packOf(row.doc, await ladderOf(tx, row.settingId), row.style)
  const note = missedNote(run, state, dayOf(new Date(state.startedAt ?? at)))
  const pack = packAfter({ ...base, adultNote: [note, ...base.adultNote] }, run, state)
  if (!pack.tasks.length) return
  const given = await answersIn(
    tx,
    row.id,
    state.rounds.map((r) => r.id),
  )
  const byChild = grouped(given)
  const replies = [...byChild].flatMap(([childId, own]) => {
    const answers = answersOf(state, own)
    return answers.length ? [{ childId, answers }] : []
  })
  await leaveBehind(tx, row, { pack, byId: state.lead?.id ?? row.byId, at, replies })
  const photos = replies.flatMap((r) => r.answers.flatMap((a: Answer) => (a.photoId ? [a.photoId] : [])))
  if (photos.length) await readLater(s, photos)
}
function grouped<T extends { childId: string }>(list: readonly T[]): Map<string, T[]> {
  const out = new Map<string, T[]>()
  for (const x of list) out.set(x.childId, [...(out.get(x.childId) ?? []), x])
  return out
}
/** An answer that came when the lesson was over already: it is added to what is looked at, while nobody has looked. */
export async function joinLate(db: Db, row: LiveRow, childId: string): Promise<void> {
  if (!row.publicationId) return
  const answers = answersOf(row.state, await answersOfChild(db, row.id, childId))
  if (answers.length) await addLate(db, row.publicationId, childId, answers)
}

type After = Given<AnswerOf<typeof liveAfter>>
/** What is left of a live lesson, for who looks back on it. */
export async function afterOf(s: Services, row: LiveRow): Promise<After> {
  const { state } = row
  const run = runFor(row, state)
  const began = state.startedAt ?? Date.now()
  const [kids, there, answers] = await Promise.all([
    childrenAt(s.db, row),
    attendanceOf(s.db, row.id),
    answersIn(
      s.db,
      row.id,
      state.rounds.map((r) => r.id),
    ),
  ])
  const by = {
    children: kids.map((k) => k.id),
    now: Date.now(),
    earlier: [],
    readings: await readingsOf(s.db, answers),
  }
  const of = (childId: string) => answers.filter((a) => a.childId === childId)
  return {
    seconds: Math.max(0, ((state.endedAt ?? Date.now()) - began) / 1000),
    attendance: kids
      .filter((k) => k.came || of(k.id).length > 0)
      .map((k) => ({
        childId: k.id,
        name: k.name,
        seconds: Math.round(there.get(k.householdId) ?? 0),
        rounds: of(k.id).length,
        late: of(k.id).filter((a) => a.late).length,
      })),
    rounds: state.rounds.map((r) => ({
      id: r.id,
      prompt: r.prompt,
      at: (r.began - began) / 1000,
      undone: r.undone,
      tally: r.undone ? null : tallySeen(r, givenIn(answers, r.id), by),
    })),
    notes: state.notes.map((n) => ({ at: (n.at - began) / 1000, text: n.text })),
    segments: segmentTimes(state).map((x) => ({
      ...x,
      title: run.segments.find((g) => g.id === x.segmentId)?.title ?? '',
    })),
    missed: kids.filter((k) => !k.came && !of(k.id).length).map((k) => ({ childId: k.id, name: k.name })),
    note: missedNote(run, state, dayOf(new Date(began))),
    publicationId: row.publicationId,
  }
}

/** Lets rehearsals go, and ends lessons that somebody forgot to end: what was given in them is not lost. */
export async function tidyLive(s: Services): Promise<number> {
  const { rehearsals, open } = await tidyLives(s.db)
  for (const { id, byId } of open) {
    const done = { act: { do: 'end' as const }, at: Date.now(), by: { id: byId, name: '', desk: '' } }
    await doAct(s.db, id, done, {
      work: (row) => after(row.state, runFor(row, row.state), done),
      finish: (tx, row, state) => leave(s, tx, row, state),
    }).catch((error: unknown) => log.error({ error: String(error) }, 'a live lesson could not be ended'))
  }
  return rehearsals + open.length
}
