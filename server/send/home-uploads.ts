import path from 'node:path'
import { FileStore } from '@tus/file-store'
import type { Router } from 'express'
import { z } from 'zod'
import * as api from '@awlbox/core/contracts/api/home'
import { homeMayOpen } from '../platform/access.ts'
import { type Home, homeOf } from '../platform/actor.ts'
import { linkIsClosed, Problem } from '../platform/problem.ts'
import { listed } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { refuse, Refused, senderOf, tusDoor } from '../platform/tus.ts'
import { noted } from '../platform/log.ts'
import { mayAskByLink } from '../platform/limits.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import { mediaKinds, takeIn } from './media.ts'
import { childrenHere, packById } from './store.ts'

/** The folder in which pieces of what homes send wait to be whole, for a week: a phone may be away so long. */
export const homeUploadStore = (s: Pick<Services, 'config'>): FileStore =>
  new FileStore({
    directory: path.join(s.config.blobs, 'home-uploads'),
    expirationPeriodInMilliseconds: 7 * 86_400_000,
  })
const Metadata = z.object({
  /** The name the phone gave it: sent again under it, it is the same. */
  id: z.uuid(),
  packId: z.uuid(),
  kind: z.enum(mediaKinds),
  childId: z.uuid(),
})
const read = (metadata: Record<string, string | null>): z.infer<typeof Metadata> => {
  const m = Metadata.safeParse(metadata)
  if (!m.success) throw new Problem(400, 'Not understood', 'The upload does not say what it belongs to.')
  return m.data
}

/** Resumable uploads of what homes send with their answers, behind their link. */
export function homeUploadRoutes(router: Router, s: Services): void {
  const store = homeUploadStore(s)
  type Sender = Home & { id: string }
  for (const route of [api.startHomeUpload, api.goOnHomeUpload]) listed(route, 'home')
  tusDoor<Sender>(router, {
    path: '/api/home/:token/uploads',
    store,
    largest: s.config.largestClip,
    reserve: () => s.config.diskReserve,
    async who({ path: address }) {
      const token = address.split('/')[3] ?? ''
      const home = token ? await homeOf(s.db, token) : null
      if (!home) throw refuse(linkIsClosed.status, linkIsClosed.title, linkIsClosed.detail)
      await mayAskByLink(token).catch((error: unknown) => {
        throw error instanceof Problem ? new Refused(error) : error
      })
      return { ...home, id: home.householdId }
    },
    async may(home, metadata) {
      const { packId, kind, childId } = read(metadata)
      await homeMayOpen(s.db, home, packId)
      const here = await childrenHere(s.db, home.householdId, (await packById(s.db, packId))!.classId)
      if (!here.some((c) => c.id === childId)) throw new Problem(404, 'Not found', 'This child isn’t here.')
      const may =
        kind === 'sound'
          ? (await agreeing(s.db, 'sound', [childId])).size > 0
          : (await refusing(s.db, 'photos', [childId])).size === 0
      if (!may)
        throw new Problem(
          403,
          kind === 'sound' ? 'No recordings' : 'No photos',
          'Your grown-up asked us to keep none of this child. Tell it in words instead; your other answers are kept.',
        )
    },
    async finish(upload) {
      const { id, packId, kind } = read(upload.metadata ?? {})
      const gone = () => store.remove(upload.id).catch(noted('a home’s upload could not be removed'))
      const kept = await takeIn(s, kind, path.join(store.directory, upload.id), {
        id,
        publicationId: packId,
        householdId: senderOf(upload)!,
      }).catch(async (error: unknown) => {
        // What is refused for good goes; what failed for want of room or a database is tried again.
        if (error instanceof Problem && error.status < 500) await gone()
        throw error
      })
      await gone()
      return { size: upload.size!, headers: { 'Awlbox-Media': kept.id } }
    },
    // Its pieces are gone once it is in; a phone that asks again begins anew under the same name.
    finished: () => Promise.resolve(null),
  })
}
