import fs from 'node:fs/promises'
import type { FileStore } from '@tus/file-store'
import { Server, type Upload } from '@tus/server'
import type { Request, Response, Router } from 'express'
import { cleanText } from './body.ts'
import { forLog, log } from './log.ts'
import { asProblem, Problem } from './problem.ts'
import { roomLeft } from './blobs.ts'

/** A refusal in the shape the protocol's server passes on: its status and a problem as its body. */
export class Refused extends Error {
  readonly status_code: number
  readonly body: string
  constructor({ status, title, detail }: Pick<Problem, 'status' | 'title' | 'detail'>) {
    super(detail)
    this.status_code = status
    this.body = JSON.stringify({ type: 'about:blank', title, status, detail })
  }
}
export const refuse = (status: number, title: string, detail: string): Refused =>
  new Refused({ status, title, detail })
/** Words for the protocol's own refusals. */
const words: Readonly<Record<number, readonly [string, string]>> = {
  400: ['Not understood', 'This upload is not put together as it should be. What was sent before is kept.'],
  403: ['Not understood', 'This part of the upload is not what was asked for. What was sent before is kept.'],
  404: ['Not found', 'This upload isn’t here. Choose the file again.'],
  409: ['Out of step', 'The upload goes on from another place. Ask where, and go on from there.'],
  410: ['Too old', 'This upload was left unfinished for too long and is gone. Choose the file again.'],
  413: ['Too large', 'This file is larger than Awlbox takes. Nothing was changed.'],
  415: ['Not understood', 'The parts of an upload are sent as bytes. What was sent before is kept.'],
  423: ['Still at it', 'This upload is still being received. Wait a moment, then go on.'],
}

/** What the store of pieces knows of an upload; null where there is none. */
export async function uploadIfThere(store: FileStore, id: string): Promise<Upload | null> {
  try {
    return await store.getUpload(id)
  } catch (error) {
    if ((error as { status_code?: number }).status_code === 404) return null
    throw error
  }
}
export const isWhole = (u: Upload): boolean => u.size !== undefined && u.offset === u.size

/** Who began an upload: in those an older Awlbox began it has another name. */
export const senderOf = (u: Upload): string | null => u.metadata?.sender ?? u.metadata?.personId ?? null

/** An upload that is taken in: how much it held, and headers that say what became of it. */
export interface TakenIn {
  size: number
  headers: Record<string, string>
}
/** Whoever sends: an upload is theirs by this name. */
interface Sender {
  id: string
}
/** What of a request tells who asks. */
export interface Asking {
  header: (name: string) => string | null
  path: string
}
interface Door<W extends Sender> {
  /** Where it is knocked at; may hold parameters. */
  path: string
  store: FileStore
  largest: number
  /** Bytes of the disk that stay free. */
  reserve: () => number
  /** Who asks. @throws Refused for nobody. */
  who: (asked: Asking) => Promise<W>
  /** Before a byte comes. @throws Problem where it may not be sent. */
  may: (who: W, metadata: Record<string, string | null>) => Promise<void>
  /** Once it is whole; done as often as it is asked. @throws Problem */
  finish: (upload: Upload) => Promise<TakenIn>
  /** One that was taken in before, for whoever sent it. */
  finished: (uploadId: string, who: W) => Promise<TakenIn | null>
}

/** Resumable uploads in the open tus protocol: a dropped connection goes on where it stopped, for whoever began it. */
export function tusDoor<W extends Sender>(router: Router, door: Door<W>): void {
  const { store } = door
  const folder = store.directory
  const asked = (request: { headers: Headers; url: string }): Asking => ({
    header: (name) => request.headers.get(name),
    path: new URL(request.url, 'http://here').pathname,
  })
  const asRefused = (error: unknown): Refused =>
    error instanceof Refused ? error : new Refused(error instanceof Problem ? error : asProblem(error))
  const server = new Server({
    path: '/',
    // An upload's address is the door's own, with its name behind.
    generateUrl: (request, { id }) => `${asked(request).path.replace(/\/$/, '')}/${id}`,
    getFileIdFromRequest: (request) => idIn(asked(request).path) ?? undefined,
    datastore: store,
    relativeLocation: true,
    maxSize: door.largest,
    async onIncomingRequest(request, uploadId) {
      const who = await door.who(asked(request))
      if (request.method === 'POST' || request.method === 'OPTIONS' || !uploadId) return
      const upload = await uploadIfThere(store, uploadId)
      if (upload && senderOf(upload) !== who.id) throw refuse(404, 'Not found', 'This upload isn’t yours.')
    },
    async onUploadCreate(request, upload) {
      const who = await door.who(asked(request))
      const told = Object.entries(upload.metadata ?? {}).map(([k, v]) => [k, cleanText(v ?? '')])
      const metadata = { ...Object.fromEntries(told), sender: who.id } as Record<string, string>
      await door.may(who, metadata).catch((error: unknown) => {
        throw asRefused(error)
      })
      if ((upload.size ?? 0) > (await roomLeft(folder, door.reserve())))
        throw refuse(
          507,
          'The disk is full',
          'There is no room for this file. What is here already is kept; make room, then try again.',
        )
      return { metadata }
    },
    async onUploadFinish(_request, upload) {
      try {
        return { headers: (await door.finish(upload)).headers }
      } catch (error) {
        throw asRefused(error)
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
  const askedBy = (req: Request): Asking => ({ header: (name) => req.get(name) ?? null, path: req.path })

  /** An upload that is taken in already, or whole and not yet: answered from what it became, whatever is asked or sent again. */
  const answered = async (req: Request, res: Response, id: string): Promise<boolean> => {
    if (req.method !== 'HEAD' && req.method !== 'PATCH') return false
    const who = await door.who(askedBy(req))
    let taken = await door.finished(id, who)
    if (!taken) {
      const upload = await uploadIfThere(store, id)
      if (!upload || senderOf(upload) !== who.id) return false
      // A last piece sent again tells the length again: the protocol's server would take it for another.
      if (Number(req.headers['upload-length']) === upload.size) withoutHeader(req, 'upload-length')
      if (!isWhole(upload)) return false
      taken = await door.finish(upload)
    }
    res.set({
      'Tus-Resumable': '1.0.0',
      'Cache-Control': 'no-store',
      'Upload-Offset': String(taken.size),
      'Upload-Length': String(taken.size),
      ...taken.headers,
    })
    req.resume()
    res.status(req.method === 'HEAD' ? 200 : 204).end()
    return true
  }
  router.all([door.path, `${door.path}/:uploadId`], async (req, res) => {
    if (req.method !== 'OPTIONS' && req.headers['tus-resumable'] !== '1.0.0')
      throw new Problem(412, 'Not understood', 'Uploads are sent in the tus protocol, version 1.0.0.')
    await fs.mkdir(folder, { recursive: true })
    const id = idIn(req.path)
    try {
      if (!['POST', 'HEAD', 'PATCH', 'DELETE', 'OPTIONS'].includes(req.method)) {
        await door.who(askedBy(req))
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
/** The upload's name at the end of an address; null where it names none. */
const idIn = (path: string): string | null => path.match(/uploads\/([\w-]+)$/)?.[1] ?? null
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
