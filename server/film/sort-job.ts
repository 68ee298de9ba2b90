import { isInFilm, type Lesson } from '@awlbox/core/contracts/lesson'
import { partsFromMarks, sortClip, type Sorted } from '@awlbox/core/film/desk/sort-clip'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { recognise } from '../platform/media/recogniser.ts'
import { shareOf, type Work } from '../platform/queue.ts'
import type { Services } from '../platform/services.ts'
import { houseStyleOf } from '../settings/store.ts'
import { isAtWork } from '../jobs/store.ts'
import { prepareLater } from './prepare-later.ts'
import { heardBefore } from './heard-pieces-store.ts'
import { addTake, moveTake, partsOf, pronunciationsOf, removeTake, setTake, type TakeRow } from './store.ts'

type Part = Sorted['parts'][number]

/**
 * Gives a clip from the tray to its segment by what is said in it, or parts a recording of several segments into a
 * take for each: where the prompter marked them, else where they are heard to begin. What cannot be told stays in the
 * tray with the reason.
 */
export async function sortTake(
  s: Services,
  take: TakeRow,
  lesson: { settingId: string; doc: Lesson },
  wav: string,
  { signal, progress }: Work,
): Promise<void> {
  const segments = lesson.doc.segments.filter(isInFilm)
  const marked = partsFromMarks(take.marks, take.seconds ?? 0).filter((p) =>
    segments.some((x) => x.id === p.segmentId),
  )
  if (marked.length) {
    await part(s, lesson.settingId, take, marked, 'The prompter was at this segment.')
    return
  }
  const style = await houseStyleOf(s.db, lesson.settingId)
  await progress('finding its segment', 0.5)
  const lines = segments.flatMap((x) => spokenLines(x, style))
  const { words } = await recognise(wav, lines, {
    signal,
    memory: heardBefore(s.db),
    pronunciations: await pronunciationsOf(s.db, take.lessonId, null),
    onShare: shareOf(progress, 'finding its segment', 0.5, 0.1),
  })
  const sorted = sortClip(segments, words, take.seconds ?? 0, style)
  const sorting = { reason: sorted.reason, matches: sorted.matches.slice(0, 5), byHand: false }
  if (sorted.parts.length > 1)
    await part(s, lesson.settingId, { ...take, sorting }, sorted.parts, sorted.reason)
  else if (sorted.segmentId) await moveTake(s.db, take, sorted.segmentId, sorting)
  else await setTake(s.db, take.id, { sorting })
}

async function part(
  s: Services,
  settingId: string,
  take: TakeRow,
  parts: readonly Part[],
  reason: string,
): Promise<void> {
  // A worker that died in between left some of the parts behind: they are not made twice.
  const there = await partsOf(s.db, take)
  for (const p of parts) {
    const known = there.find((t) => t.part && Math.abs(t.part.from - p.from) < 0.01 && t.id !== take.id)
    // A recorder that fell behind ends before the clock of the marks does: what was marked last belongs to the last part.
    const last = p === parts.at(-1)
    const marks = take.marks
      .filter((m) => m.kind !== 'segment' && m.kind !== 'within' && m.at >= p.from && (last || m.at < p.to))
      .map((m) => ({ ...m, at: Math.min(m.at, p.to) - p.from }))
    const id =
      known?.id ??
      (await addTake(s.db, {
        lessonId: take.lessonId,
        segmentId: p.segmentId,
        source: take.source,
        original: take.original,
        name: take.name,
        part: { from: p.from, to: p.to },
        sorting: { reason, matches: take.sorting?.matches ?? [], byHand: false },
        marks,
      }))
    if (known?.status !== 'ready' && !(await isAtWork(s.db, id)))
      await prepareLater(s, settingId, { id, lessonId: take.lessonId, segmentId: p.segmentId })
  }
  await removeTake(s.db, take.id)
}
