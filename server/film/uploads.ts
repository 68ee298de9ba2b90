import fs from 'node:fs/promises'
import path from 'node:path'
import { FileStore } from '@tus/file-store'
import { Server, type Upload } from '@tus/server'
import type { Router } from 'express'
import { fileTypeFromFile } from 'file-type'
import { mayLesson } from '../platform/access.ts'
import { personOf } from '../platform/actor.ts'
import { roomLeft } from '../platform/blobs.ts'
import { log, noted } from '../platform/log.ts'
import { probe } from '../platform/media/ffmpeg.ts'
import { Problem } from '../platform/problem.ts'
import * as api from '@awlbox/core/contracts/api/film'
import { listed } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../lessons/store.ts'
import { prepareLater } from './prepare-later.ts'
import { addOnce } from './store.ts'

/** A refusal in the shape the protocol's server passes on: its status and a problem as its body. */
class Refused extends Error {
  readonly status_code: number
  readonly body: string
  constructor(status: number, title: string, detail: string) {
    super(detail)
    this.status_code = status
    this.body = JSON.stringify({ type: 'about:blank', title, status, detail })
  }
}
/** What the store knows of an upload; null where there is none. */
async function uploadIfThere(store: FileStore, id: string): Promise<Upload | null> {
  try {
    return await store.getUpload(id)
  } catch (error) {
    if ((error as { status_code?: number }).status_code === 404) return null
    throw error
  }
}
const refuse = (status: number, title: string, detail: string): Refused => new Refused(status, title, detail)

/** Resumable uploads of takes (the open tus protocol): a dropped connection goes on where it stopped. */
export function uploadRoutes(router: Router, s: Services): void {
  const folder = path.join(s.config.blobs, 'uploads')
  const store = new FileStore({ directory: folder, expirationPeriodInMilliseconds: 3 * 86_400_000 })
  const who = async (request: Request) => {
    const person = await personOf(s.db, {
      headers: { cookie: request.headers.get('cookie') ?? undefined },
    } as never)
    if (!person) throw refuse(401, 'Signed out', 'Sign in again; the upload goes on where it stopped.')
    return person
  }
  const server = new Server({
    path: '/api/uploads',
    datastore: store,
    relativeLocation: true,
    maxSize: s.config.largestTake,
    async onIncomingRequest(request, uploadId) {
      const person = await who(request)
      if (request.method === 'POST' || request.method === 'OPTIONS' || !uploadId) return
      const upload = await uploadIfThere(store, uploadId)
      if (upload && upload.metadata?.personId !== person.id)
        throw refuse(404, 'Not found', 'This upload isn’t yours.')
    },
    async onUploadCreate(request, upload) {
      const person = await who(request)
      const { lessonId, segmentId } = upload.metadata ?? {}
      if (!lessonId) throw refuse(400, 'Not understood', 'The upload says no lesson.')
      try {
        await mayLesson(s.db, person, lessonId, 'change')
      } catch (error) {
        if (error instanceof Problem) throw refuse(error.status, error.title, error.detail)
        throw refuse(404, 'Not found', 'This lesson isn’t here.')
      }
      const lesson = await lessonById(s.db, lessonId)
      // Without a segment it goes to the tray and is sorted by what is said in it.
      if (segmentId && !lesson?.doc.segments.some((x) => x.id === segmentId))
        throw refuse(404, 'Not found', 'This segment is no longer in the lesson.')
      if ((upload.size ?? 0) > (await roomLeft(folder, s.config.diskReserve)))
        throw refuse(
          507,
          'The disk is full',
          'There is no room for this file. Takes already here are kept; make room, then try again.',
        )
      return { metadata: { ...upload.metadata, personId: person.id } }
    },
    async onUploadFinish(_request, upload) {
      const file = path.join(folder, upload.id)
      const { lessonId, segmentId, source, filename } = upload.metadata as Record<string, string>
      try {
        const type = await fileTypeFromFile(file)
        const media = type && /^(video|audio)\//.test(type.mime) ? await probe(file) : null
        if (!media || (media.seconds === 0 && !media.video))
          throw refuse(
            415,
            'Not a film',
            'This file holds no picture or sound, whatever its name says. Nothing was changed; choose an MP4, MOV, WebM or sound file.',
          )
        const original = await s.blobs.put(s.db, { file }, type!.mime)
        // The same file chosen twice is one take: the second is told which.
        const { takeId, known } = await addOnce(s.db, {
          lessonId: lessonId!,
          segmentId: segmentId || null,
          source: source === 'recorded' ? 'recorded' : 'uploaded',
          original,
          name: filename?.slice(0, 200) || null,
        })
        if (known) return { headers: { 'Awlbox-Take': takeId, 'Awlbox-Known': '1' } }
        const lesson = await lessonById(s.db, lessonId!)
        await prepareLater(s, lesson!.settingId, {
          id: takeId,
          lessonId: lessonId!,
          segmentId: segmentId || null,
        })
        return { headers: { 'Awlbox-Take': takeId, 'Awlbox-Known': '0' } }
      } finally {
        await store.remove(upload.id).catch(noted('an upload’s pieces could not be removed'))
      }
    },
    onResponseError(_request, error) {
      const e = error as { status_code?: number; body?: string; code?: string; message?: string }
      if (e.code === 'ENOSPC')
        return refuse(
          507,
          'The disk is full',
          'The part already sent is kept. Make room, then try again: it goes on where it stopped.',
        )
      if (!e.status_code) log.error({ error: e.message }, 'upload failed')
      return undefined
    },
  })
  // One endpoint, several verbs of the protocol.
  for (const route of [api.startUpload, api.goOnUpload]) listed(route, 'person')
  router.all(/^\/api\/uploads(\/.*)?$/, async (req, res) => {
    await fs.mkdir(folder, { recursive: true })
    await server.handle(req, res)
  })
}
