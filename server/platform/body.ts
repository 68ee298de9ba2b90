import express, { type Request, type RequestHandler, type Response } from 'express'
import { Problem } from './problem.ts'

/*
 * What is sent with a request is read only once it is known who asks, and no more of it than the route needs. Text is
 * cleaned where it comes in: a NUL or half a letter can be kept by no database, and means nothing to anybody.
 */

const parsers = new Map<string, RequestHandler>()
const parser = (kind: 'json' | 'raw', limit: number): RequestHandler => {
  const key = `${kind} ${limit}`
  const known = parsers.get(key)
  if (known) return known
  const made = kind === 'json' ? express.json({ limit }) : express.raw({ type: () => true, limit })
  parsers.set(key, made)
  return made
}
const through = (handler: RequestHandler, req: Request, res: Response): Promise<void> =>
  new Promise((resolve, reject) => {
    void handler(req, res, (error?: unknown) => {
      if (error) reject(error instanceof Error ? error : new Error('The request could not be read.'))
      else resolve()
    })
  })

/** The JSON of a request, of at most `limit` bytes, its text cleaned; undefined where there is none. */
export async function jsonIn(req: Request, res: Response, limit: number): Promise<unknown> {
  const sends =
    req.headers['transfer-encoding'] !== undefined || Number(req.headers['content-length'] ?? 0) > 0
  if (sends && !req.is(['json', '+json']))
    throw new Problem(415, 'Not understood', 'This is sent as JSON or not at all. Nothing was changed.')
  await through(parser('json', limit), req, res)
  return cleaned(req.body)
}
/** The bytes of a request, of at most `limit`. */
export async function bytesIn(req: Request, res: Response, limit: number): Promise<Buffer> {
  await through(parser('raw', limit), req, res)
  const body: unknown = req.body
  return Buffer.isBuffer(body) ? body : Buffer.alloc(0)
}

const unkept = /\0|\p{Surrogate}/gu
/** Without NUL and without halves of letters. */
export const cleanText = (text: string): string => text.replace(unkept, '')
/** The same for all text within, names of fields too; depth costs no stack. */
export function cleaned(value: unknown): unknown {
  if (typeof value === 'string') return cleanText(value)
  const todo: unknown[] = [value]
  while (todo.length) {
    const at = todo.pop()
    if (Array.isArray(at)) {
      for (let i = 0; i < at.length; i++) {
        const x: unknown = at[i]
        if (typeof x === 'string') at[i] = cleanText(x)
        else if (x !== null && typeof x === 'object') todo.push(x)
      }
      continue
    }
    if (at === null || typeof at !== 'object') continue
    const all = at as Record<string, unknown>
    for (const key of Object.keys(all)) {
      const x = all[key]
      const name = cleanText(key)
      if (name !== key) {
        delete all[key]
        if (name !== '__proto__') all[name] = x
      }
      if (typeof x === 'string') all[name] = cleanText(x)
      else if (x !== null && typeof x === 'object') todo.push(x)
    }
  }
  return value
}
