import path from 'node:path'
import { FileStore } from '@tus/file-store'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/film'
import { lessonById } from '../lessons/store.ts'
import { mayLesson } from '../platform/access.ts'
import { type Person, personOf } from '../platform/actor.ts'
import { Problem } from '../platform/problem.ts'
import { listed } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { type Asking, refuse, type TakenIn, tusDoor } from '../platform/tus.ts'
import { finishUpload } from './finish-upload.ts'
import { type FinishedUpload, finishedUpload } from './store.ts'

/** The folder in which pieces of uploads wait to be whole, for three days. */
export const uploadStore = (s: Pick<Services, 'config'>): FileStore =>
  new FileStore({
    directory: path.join(s.config.blobs, 'uploads'),
    expirationPeriodInMilliseconds: 3 * 86_400_000,
  })

/** Resumable uploads of takes. */
export function uploadRoutes(router: Router, s: Services): void {
  const store = uploadStore(s)
  const personIn = async ({ header }: Asking): Promise<Person> => {
    const person = await personOf(s.db, { headers: { cookie: header('cookie') ?? undefined } })
    if (!person) throw refuse(401, 'Signed out', 'Sign in again; the upload goes on where it stopped.')
    return person
  }
  const takenIn = (f: FinishedUpload): TakenIn => ({
    size: f.size,
    headers: { 'Awlbox-Take': f.takeId, 'Awlbox-Known': f.known ? '1' : '0' },
  })
  // One endpoint, several verbs of the protocol.
  for (const route of [api.startUpload, api.goOnUpload]) listed(route, 'person')
  tusDoor(router, {
    path: '/api/uploads',
    store,
    largest: s.config.largestTake,
    reserve: () => s.config.diskReserve,
    who: personIn,
    async may(person, { lessonId, segmentId }) {
      if (!lessonId) throw new Problem(400, 'Not understood', 'The upload says no lesson.')
      await mayLesson(s.db, person, lessonId, 'change')
      const lesson = await lessonById(s.db, lessonId)
      // Without a segment it goes to the tray and is sorted by what is said in it.
      if (segmentId && !lesson?.doc.segments.some((x) => x.id === segmentId))
        throw new Problem(404, 'Not found', 'This segment is no longer in the lesson.')
    },
    finish: async (upload) => takenIn(await finishUpload(s, store, upload)),
    async finished(uploadId, person) {
      const f = await finishedUpload(s.db, uploadId)
      return f && f.personId === person.id ? takenIn(f) : null
    },
  })
}
