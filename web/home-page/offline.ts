import { noted } from '../noted.ts'
import type { First } from './first.ts'

/** Where pages, and what they are made of, wait for a phone without a connection; the page's worker reads the same. */
export const pagesCache = 'awlbox-pages'
export const filmsCache = 'awlbox-films'

/**
 * Keeps this page on the phone, so that it opens with no connection: the document as it came, its programs and its
 * letters. A link that was ended takes what was kept of it away.
 */
export async function keepPage(first: First): Promise<void> {
  if (!('serviceWorker' in navigator) || !('caches' in window)) return
  if (first.problem) {
    const pages = await caches.open(pagesCache)
    await pages.delete(window.location.pathname, { ignoreSearch: true })
    return
  }
  const before = navigator.serviceWorker.controller !== null
  await navigator.serviceWorker.register('/home-worker.js', { scope: '/h/' })
  const pages = await caches.open(pagesCache)
  const loaded = performance
    .getEntriesByType('resource')
    .map((e) => e.name)
    .filter((name) => name.startsWith(`${window.location.origin}/assets/`))
  // What is there already is not fetched again; the phone's own store of files answers for the rest.
  await Promise.all([
    // A worker that was there already has kept it as it came.
    before ? undefined : pages.add(window.location.pathname).catch(noted('this page could not be kept')),
    ...loaded.map(async (url) => {
      if (!(await pages.match(url))) await pages.add(url).catch(noted('a part of the page could not be kept'))
    }),
  ])
  // Parts of pages as they were long ago: the oldest go.
  const parts = (await pages.keys()).filter((r) => new URL(r.url).pathname.startsWith('/assets/'))
  for (const old of parts.slice(0, Math.max(0, parts.length - mostParts))) await pages.delete(old)
}
/** Programs, letters and styles kept at most: a few versions of the page. */
const mostParts = 80

/** Whether a file is on this phone. */
export const isKept = async (url: string): Promise<boolean> =>
  'caches' in window && (await (await caches.open(filmsCache)).match(url)) !== undefined
export async function dropKept(url: string): Promise<void> {
  await (await caches.open(filmsCache)).delete(url)
}
/** Fetches a film onto the phone, whole; `tell` gives the share that is there. @throws where there is no room or no connection. */
export async function keepFilm(url: string, bytes: number, tell: (share: number) => void): Promise<void> {
  const estimate = await navigator.storage?.estimate?.()
  if (estimate?.quota !== undefined && estimate.quota - (estimate.usage ?? 0) < bytes * 1.1)
    throw new DOMException('No room', 'QuotaExceededError')
  const response = await fetch(url)
  if (!response.ok || !response.body) throw new Error(`The film did not come: ${response.status}`)
  let come = 0
  const counted = response.body.pipeThrough(
    new TransformStream<Uint8Array, Uint8Array>({
      transform(piece, out) {
        come += piece.byteLength
        tell(Math.min(1, come / bytes))
        out.enqueue(piece)
      },
    }),
  )
  const kept = new Response(counted, { headers: response.headers })
  await (await caches.open(filmsCache)).put(url, kept)
}
