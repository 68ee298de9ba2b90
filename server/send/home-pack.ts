import type { HomeLesson, HomePack } from '@awlbox/core/contracts/api/home'
import { cautionsFor } from '@awlbox/core/plan/things'
import { withoutAnswers } from '@awlbox/core/send/pack'
import { homeMayOpen } from '../platform/access.ts'
import type { Home } from '../platform/actor.ts'
import { notFound } from '../platform/problem.ts'
import type { Given } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { refusing } from '../setting/homes-store.ts'
import { childrenHere, homeVersions, packById, packsFor, replacementOf, repliesFrom } from './store.ts'

type Stored = Pick<Services, 'db'>

/** The lessons sent to a home, newest first. */
export async function lessonsFor(s: Stored, home: Home): Promise<Given<HomeLesson>[]> {
  const packs = await packsFor(s.db, home.householdId)
  return packs.map((p) => ({ id: p.id, title: p.pack.title, className: p.className, sentAt: p.sentAt }))
}

/** One lesson as a home sees it: without its answers, with the cautions its children need. @throws Problem where it is not theirs. */
export async function packFor(s: Stored, home: Home, packId: string): Promise<Given<HomePack>> {
  await homeMayOpen(s.db, home, packId)
  const p = await packById(s.db, packId)
  if (!p) throw notFound('This lesson')
  const extra = home.youngerChild
    ? cautionsFor(p.pack.needs.map((n) => ({ thing: n.thing, count: n.count })))
    : []
  const film =
    p.renderId !== null && p.seconds !== null && p.bytes !== null
      ? {
          seconds: p.seconds,
          bytes: p.bytes,
          versions: await homeVersions(s.db, p.renderId),
          replaced: await replacementOf(s.db, p.id),
        }
      : null
  const children = await childrenHere(s.db, home.householdId, p.classId)
  const refused = await refusing(
    s.db,
    'photos',
    children.map((c) => c.id),
  )
  return {
    id: p.id,
    className: p.className,
    sentAt: p.sentAt,
    film,
    pack: { ...withoutAnswers(p.pack), cautions: [...new Set([...p.pack.cautions, ...extra])] },
    youngerChild: home.youngerChild,
    children: children.map((c) => ({ ...c, photos: !refused.has(c.id) })),
    replies: await repliesFrom(s.db, p.id, home.householdId),
  }
}
