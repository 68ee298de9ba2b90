import fs from 'node:fs/promises'
import type { KeptOfChild, Receipt } from '@awlbox/core/contracts/api/homes'
import { keptForOf } from '@awlbox/core/contracts/kept-for'
import type { Given } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { consentsOf } from '../setting/homes-store.ts'
import {
  type Belongings,
  belongingsOf,
  childById,
  correctionsOf,
  deleteBelongings,
  homesLeftEmpty,
  judgementsOfChild,
  photosById,
  recordingsById,
  repliesOfChild,
  saidOfChild,
  stillHeld,
} from './child-store.ts'
import { statOf } from './files.ts'
import { keptForIn } from './times-store.ts'

type Stored = Pick<Services, 'db' | 'blobs'>
const day = 86_400_000
const after = (from: Date | null, days: number | null): Date | null =>
  from === null || days === null ? null : new Date(+from + days * day)
const oldest = (dates: readonly Date[]): Date | null =>
  dates.length ? new Date(Math.min(...dates.map(Number))) : null

/** What is kept of a child, a line a kind; null where there is no such child. */
export async function keptOf(
  s: Stored,
  settingId: string,
  childId: string,
): Promise<Given<Omit<KeptOfChild, 'mayDelete'>> | null> {
  const child = await childById(s.db, childId)
  if (!child) return null
  const times = keptForOf(await keptForIn(s.db, settingId))
  const theirs = await repliesOfChild(s.db, childId)
  const judged = await judgementsOfChild(s.db, childId)
  const b = await belongingsOf(s.db, [childId], [])
  const pictures = await photosById(s.db, b.photos)
  const consents = await consentsOf(s.db, childId)
  const leftAt = child.left_at === null ? null : new Date(child.left_at)
  const gone = after(leftAt, times.standings)
  const line = (what: KeptOfChild['kept'][number]['what'], dates: readonly Date[], until: Date | null) => ({
    what,
    count: dates.length,
    oldest: oldest(dates),
    until,
  })
  const replied = theirs.map((r) => r.updatedAt)
  const seen = pictures.map((p) => p.createdAt)
  const spoken = (await recordingsById(s.db, b.recordings)).map((r) => r.createdAt)
  return {
    name: child.name,
    className: child.class_name,
    leftAt,
    kept: [
      line('replies', replied, after(oldest(replied), times.replies)),
      line('photos', seen, after(oldest(seen), times.photos)),
      line('recordings', spoken, after(oldest(spoken), times.sound)),
      line(
        'judgements',
        judged.map((j) => new Date(j.at)),
        gone,
      ),
      line(
        'consents',
        consents.map((c) => c.at),
        gone,
      ),
      { what: 'note', count: child.note ? 1 : 0, oldest: null, until: gone },
    ],
  }
}

/** Everything kept of a child as files of an archive; null where there is no such child. */
export async function filesOf(
  s: Stored,
  childId: string,
): Promise<{ files: { name: string; text?: string; path?: string }[] } | null> {
  const child = await childById(s.db, childId)
  if (!child) return null
  const theirs = await repliesOfChild(s.db, childId)
  const judged = await judgementsOfChild(s.db, childId)
  const b = await belongingsOf(s.db, [childId], [])
  const pictures = await photosById(s.db, b.photos)
  const right = await correctionsOf(s.db, b.photos)
  const json = (value: unknown): string => JSON.stringify(value, null, 2)
  return {
    files: [
      {
        name: 'child.json',
        text: json({
          name: child.given,
          class: child.class_name,
          left: child.left_at,
          home: child.home,
          secondHome: child.second,
          languages: child.languages,
          note: child.note,
          youngerChildInTheHome: child.younger_child,
          consents: await consentsOf(s.db, childId),
        }),
      },
      { name: 'replies.json', text: json(theirs) },
      { name: 'judgements.json', text: json(judged) },
      { name: 'said.json', text: json(await saidOfChild(s.db, childId)) },
      {
        name: 'photos.json',
        text: json(
          pictures.map((p) => ({
            file: `photos/${p.id}.jpg`,
            sent: p.createdAt,
            reading: p.reading,
            putRight: right.filter((c) => c.photo === p.id).map(({ photo: _, ...c }) => c),
          })),
        ),
      },
      ...pictures.map((p) => ({ name: `photos/${p.id}.jpg`, path: s.blobs.path(p.image) })),
      ...(await recordingsById(s.db, b.recordings)).map((r) => ({
        name: `recordings/${r.id}.${r.kind === 'sound' ? 'm4a' : 'mp4'}`,
        path: s.blobs.path(r.file),
      })),
    ],
  }
}

/** Deletes children, and homes with all of theirs, and looks afterwards whether anything of it is left. */
export async function deleteAll(
  s: Stored,
  childIds: readonly string[],
  homeIds: readonly string[],
): Promise<Receipt> {
  const homes = [...new Set([...homeIds, ...(await homesLeftEmpty(s.db, childIds))])]
  const b: Belongings = await belongingsOf(s.db, childIds, homes)
  const gone = await deleteBelongings(s.db, b)
  for (const sha of gone) await fs.rm(s.blobs.path(sha), { force: true })
  const held = await stillHeld(s.db, [
    ...b.children,
    ...b.households,
    ...b.replies,
    ...b.photos,
    ...b.recordings,
    ...b.judgements,
    ...b.jobs,
  ])
  let files = 0
  for (const sha of gone) if (await statOf(s.blobs.path(sha))) files++
  return {
    replies: b.replies.length,
    photos: b.photos.length,
    recordings: b.recordings.length,
    judgements: b.judgements.length,
    files: gone.length,
    left: held + files,
  }
}
