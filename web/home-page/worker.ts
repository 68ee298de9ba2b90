import { RangeRequestsPlugin } from 'workbox-range-requests'
import { registerRoute } from 'workbox-routing'
import { CacheFirst, NetworkFirst } from 'workbox-strategies'
import { filmsCache, pagesCache } from './offline.ts'

/** The home page's worker: it lets a phone without a connection open the page, its lessons and the films it kept. */
declare const self: ServiceWorkerGlobalScope

self.addEventListener('install', () => void self.skipWaiting())
self.addEventListener('activate', (e) => e.waitUntil(self.clients.claim()))

/** Seconds a page waits for a weak connection before the one that was kept is shown. */
const patience = 4

registerRoute(
  ({ request, url }) => request.mode === 'navigate' && url.pathname.startsWith('/h/'),
  new NetworkFirst({
    cacheName: pagesCache,
    networkTimeoutSeconds: patience,
    matchOptions: { ignoreSearch: true, ignoreVary: true },
  }),
)
// Their names change with what is in them.
registerRoute(({ url }) => url.pathname.startsWith('/assets/'), new CacheFirst({ cacheName: pagesCache }))
// Lessons and what was answered: as they are now, else as they were.
registerRoute(
  ({ url }) => /^\/api\/home\/[\w-]+(\/packs\/[\w-]+|\/kit|\/consents)?$/.test(url.pathname),
  new NetworkFirst({ cacheName: pagesCache, networkTimeoutSeconds: patience }),
)
// A film that was kept plays from the phone, from wherever one likes; others are not kept by watching them.
const kept = new CacheFirst({
  cacheName: filmsCache,
  plugins: [new RangeRequestsPlugin(), { cacheWillUpdate: () => Promise.resolve(null) }],
  matchOptions: { ignoreVary: true },
})
registerRoute(
  ({ url }) =>
    /^\/api\/home\/[\w-]+\/packs\/[\w-]+\/(film|captions|poster|files\/[\w-]+)$/.test(url.pathname),
  kept,
)
