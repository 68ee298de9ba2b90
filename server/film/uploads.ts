import fs from 'node:fs/promises'
import path from 'node:path'
import { FileStore } from '@tus/file-store'
import { Server } from '@tus/server'
import type { Request, Response, Router } from 'express'
import { mayLesson } from '../platform/access.ts'
import { type Person, personOf } from '../platform/actor.ts'
import { roomLeft } from '../platform/blobs.ts'
import { cleanText } from '../platform/body.ts'
import { forLog, log } from '../platform/log.ts'
import { asProblem, Problem } from '../platform/problem.ts'
import * as api from '@awlbox/core/contracts/api/film'
import { listed } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../lessons/store.ts'
import { finishUpload, isWhole, uploadIfThere } from './finish-upload.ts'
import { type FinishedUpload, finishedUpload } from './store.ts'

/** A refusal in the shape the protocol's server passes on: its status and a problem as its body. */
class Refused extends Error {
  readonly status_code: number
  readonly body: string
  constructor({ status, title, detail }: Pick<Problem, 'status' | 'title' | 'detail'>) {
    super(detail)
    this.status_code = status
    this.body = JSON.stringify({ type: 'about:blank', title, status, detail })
  }
}
const refuse = (status: number, title: string, detail: string): Refused =>
  new Refused({ status, title, detail })
/** Words for the protocol's own refusals. */
const words: Readonly<Record<number, readonly [string, string]>> = {
  400: ['Not understood', 'This upload is not put together as it should be. What was sent before is kept.'],
  403: ['Not understood', 'This part of the upload is not what was asked for. What was sent before is kept.'],
  404: ['Not found', 'This upload isn’t here. Choose the file again.'],
  409: ['Out of step', 'The upload goes on from another place. Ask where, and go on from there.'],
  410: ['Too old', 'This upload was left for three days and is gone. Choose the file again.'],
  413: ['Too large', 'This file is larger than Awlbox takes. Nothing was changed.'],
  415: ['Not understood', 'The parts of an upload are sent as bytes. What was sent before is kept.'],
  423: ['Still at it', 'This upload is still being received. Wait a moment, then go on.'],
}

/** The folder in which pieces of uploads wait to be whole, for three days. */
export const uploadStore = (s: Pick<Services, 'config'>): FileStore =>
  new FileStore({
    directory: path.join(s.config.blobs, 'uploads'),
    expirationPeriodInMilliseconds: 3 * 86_400_000,
  })

/** Resumable uploads of takes (the open tus protocol): a dropped connection goes on where it stopped. */
export function uploadRoutes(router: Router, s: Services): void {
  const store = uploadStore(s)
  const folder = store.directory
  const who = async (cookie: string | null | undefined): Promise<Person> => {
    const person = await personOf(s.db, { headers: { cookie: cookie ?? undefined } } as never)
    if (!person) throw refuse(401, 'Signed out', 'Sign in again; the upload goes on where it stopped.')
    return person
  }
  const takeHeaders = (f: FinishedUpload) => ({
    'Awlbox-Take': f.takeId,
    'Awlbox-Known': f.known ? '1' : '0',
  })
  const server = new Server({
    path: '/api/uploads',
    datastore: store,
    relativeLocation: true,
    maxSize: s.config.largestTake,
    async onIncomingRequest(request, uploadId) {
      const person = await who(request.headers.get('cookie'))
      if (request.method === 'POST' || request.method === 'OPTIONS' || !uploadId) return
      const upload = await uploadIfThere(store, uploadId)
      if (upload && upload.metadata?.personId !== person.id)
        throw refuse(404, 'Not found', 'This upload isn’t yours.')
    },
    async onUploadCreate(request, upload) {
      const person = await who(request.headers.get('cookie'))
      const { lessonId, segmentId } = upload.metadata ?? {}
      if (!lessonId) throw refuse(400, 'Not understood', 'The upload says no lesson.')
      try {
        await mayLesson(s.db, person, lessonId, 'change')
      } catch (error) {
        if (error instanceof Problem) throw new Refused(error)
        throw new Refused(asProblem(error))
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
      const told = Object.entries(upload.metadata ?? {}).map(([k, v]) => [k, cleanText(v ?? '')])
      return { metadata: { ...Object.fromEntries(told), personId: person.id } as Record<string, string> }
    },
    async onUploadFinish(_request, upload) {
      try {
        return { headers: takeHeaders(await finishUpload(s, store, upload)) }
      } catch (error) {
        throw new Refused(asProblem(error))
      }
    },
    onResponseError(_request, error) {
      const e = error as { status_code?: number; body?: string; code?: string; message?: string }
      if (error instanceof Refused) return undefined
      if (e.code === 'ENOSPC')
        return refuse(
          507,
          'The disk is full',
          'The part already sent is kept. Make room, then try again: it goes on where it stopped.',
        )
      const known = words[e.status_code ?? 0]
      if (known) return refuse(e.status_code!, ...known)
      const problem = asProblem(error)
      if (problem.status >= 500) log.error({ error: forLog(error) }, 'upload failed')
      return new Refused(problem)
    },
  })
  // One endpoint, several verbs of the protocol.
  for (const route of [api.startUpload, api.goOnUpload]) listed(route, 'person')

  /** An upload that is a take already, or whole and not yet one: answered from the take, whatever is asked or sent again. */
  const answered = async (req: Request, res: Response, id: string): Promise<boolean> => {
    if (req.method !== 'HEAD' && req.method !== 'PATCH') return false
    const person = await who(req.headers.cookie)
    let finished = await finishedUpload(s.db, id)
    if (!finished) {
      const upload = await uploadIfThere(store, id)
      if (!upload || upload.metadata?.personId !== person.id) return false
      // A last piece sent again tells the length again: the protocol's server would take it for another.
      if (Number(req.headers['upload-length']) === upload.size) withoutHeader(req, 'upload-length')
      if (!isWhole(upload)) return false
      finished = await finishUpload(s, store, upload)
    }
    if (finished.personId !== person.id) return false
    res.set({
      'Tus-Resumable': '1.0.0',
      'Cache-Control': 'no-store',
      'Upload-Offset': String(finished.size),
      'Upload-Length': String(finished.size),
      ...takeHeaders(finished),
    })
    req.resume()
    res.status(req.method === 'HEAD' ? 200 : 204).end()
    return true
  }
  router.all(/^\/api\/uploads(\/.*)?$/, async (req, res) => {
    if (req.method !== 'OPTIONS' && req.headers['tus-resumable'] !== '1.0.0')
      throw new Problem(412, 'Not understood', 'Uploads are sent in the tus protocol, version 1.0.0.')
    await fs.mkdir(folder, { recursive: true })
    const id = req.path.match(/^\/api\/uploads\/([\w-]+)$/)?.[1]
    try {
      if (!['POST', 'HEAD', 'PATCH', 'DELETE', 'OPTIONS'].includes(req.method)) {
        await who(req.headers.cookie)
        throw refuse(405, 'Not like this', 'Uploads are sent here, not read.')
      }
      if (id && (await answered(req, res, id))) return
    } catch (error) {
      if (!(error instanceof Refused)) throw error
      res.status(error.status_code).type('application/problem+json').send(error.body)
      return
    }
    asProblems(res)
    await server.handle(req, res)
  })
}
function withoutHeader(req: Request, name: string): void {
  delete req.headers[name]
  const at = req.rawHeaders.findIndex((x, i) => i % 2 === 0 && x.toLowerCase() === name)
  if (at >= 0) req.rawHeaders.splice(at, 2)
}
/** Whatever the protocol's server refuses goes out as a problem with our words, also where it has words of its own. */
function asProblems(res: Response): void {
  const [writeHead, end] = [res.writeHead.bind(res), res.end.bind(res)]
  let body = ''
  res.writeHead = ((status: number, ...rest: unknown[]) => {
    if (status < 400) return (writeHead as (...all: unknown[]) => Response)(status, ...rest)
    const taken = (chunk: unknown): void => {
      if (typeof chunk === 'string' || chunk instanceof Uint8Array)
        body += Buffer.from(chunk as string).toString()
    }
    res.write = ((chunk: unknown) => {
      taken(chunk)
      return true
    }) as typeof res.write
    res.end = ((chunk?: unknown) => {
      taken(chunk)
      if (!body.startsWith('{')) body = refuse(status, ...(words[status] ?? words[400]!)).body
      writeHead(status, {
        'Content-Type': 'application/problem+json',
        'Content-Length': String(Buffer.byteLength(body)),
        'Tus-Resumable': '1.0.0',
      })
      return end(body)
    }) as typeof res.end
    return res
  }) as typeof res.writeHead
}
