import { randomUUID } from 'node:crypto'
import fs from 'node:fs'
import path from 'node:path'
import compression from 'compression'
import { constants as zlib } from 'node:zlib'
import express, { type Express } from 'express'
import expressStaticGzip from 'express-static-gzip'
import helmet from 'helmet'
import { cutRoutes } from './cut/routes.ts'
import { micTestRoutes } from './film/mic-test.ts'
import { filmRoutes } from './film/routes.ts'
import { uploadRoutes } from './film/uploads.ts'
import { keepRoutes } from './keep/routes.ts'
import { agreementRoutes } from './look/agreement-routes.ts'
import { backRoutes } from './look/back-routes.ts'
import { lookRoutes } from './look/routes.ts'
import { progressRoutes } from './next/progress-routes.ts'
import { nextRoutes } from './next/routes.ts'
import { peopleRoutes } from './people/routes.ts'
import { lessonRoutes } from './lessons/routes.ts'
import { liveRoutes } from './live/routes.ts'
import { planRoutes } from './plan/routes.ts'
import { nobodyTried } from './platform/limits.ts'
import { projectRoot } from './platform/root.ts'
import { log, pathForLog } from './platform/log.ts'
import { notFound, Problem, problems } from './platform/problem.ts'
import type { Services } from './platform/services.ts'
import { homePageRoute } from './send/home-page.ts'
import { postRoutes } from './post/routes.ts'
import { codeRoutes } from './send/codes.ts'
import { homeOwnRoutes } from './send/home-own-routes.ts'
import { homeUploadRoutes } from './send/home-uploads.ts'
import { homeRoutes } from './send/home-routes.ts'
import { sendRoutes } from './send/routes.ts'
import { streetRoutes } from './send/street.ts'
import { wordsRoutes } from './send/words-routes.ts'
import { classRoutes } from './setting/classes-routes.ts'
import { homesRoutes } from './setting/homes-routes.ts'
import { recordRoutes } from './setting/record-routes.ts'
import { setUpRoutes } from './setting/routes.ts'
import { settingRoutes } from './settings/routes.ts'
import { shelfRoutes } from './shelf/routes.ts'
import { weekRoutes } from './week/routes.ts'
import { jobRoutes } from './jobs/routes.ts'

const dist = path.join(projectRoot, 'web/dist')

/** The whole web application on the services given. */
export function makeApp(s: Services): Express {
  nobodyTried()
  const app = express()
  app.disable('x-powered-by')
  app.set('trust proxy', s.config.proxies)
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'none'"],
          scriptSrc: ["'self'"],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          mediaSrc: ["'self'", 'blob:'],
          fontSrc: ["'self'"],
          connectSrc: ["'self'"],
          workerSrc: ["'self'"],
          manifestSrc: ["'self'"],
          frameSrc: ["'self'"],
          baseUri: ["'none'"],
          formAction: ["'self'"],
          frameAncestors: ["'self'"],
          objectSrc: ["'none'"],
        },
      },
      referrerPolicy: { policy: 'no-referrer' },
      crossOriginOpenerPolicy: { policy: 'same-origin' },
      strictTransportSecurity: s.config.secureCookies,
    }),
  )
  // The page may use its own camera and microphone and nothing else of the device.
  app.use((_req, res, next) => {
    res.setHeader('Permissions-Policy', 'camera=(self), microphone=(self), geolocation=()')
    next()
  })
  // Answers and pages made on the spot; what the build made is compressed already, films are by nature, events must not wait.
  app.use(
    compression({
      filter: (req, res) =>
        !/event-stream/.test(String(res.getHeader('Content-Type'))) && compression.filter(req, res),
      // A millisecond more, and a home's page is a fifteenth shorter: at the usual 4 it is longer than by gzip.
      brotli: { params: { [zlib.BROTLI_PARAM_QUALITY]: 6 } },
    }),
  )
  // A number for each request: what a person is shown and what the log says can be put together.
  app.use((req, res, next) => {
    const id = randomUUID()
    res.locals.requestId = id
    res.setHeader('X-Request-Id', id)
    log.debug({ requestId: id, method: req.method, path: pathForLog(req.path) }, 'request')
    next()
  })
  // An address that cannot be read leads nowhere: told here, before any library tells it in its own words.
  app.use((req, _res, next) => {
    try {
      decodeURIComponent(req.path)
      next()
    } catch {
      next(new URIError(req.path))
    }
  })
  app.use('/api', sameOrigin(s.config.origin))
  uploadRoutes(app, s)
  homeUploadRoutes(app, s)
  for (const room of [
    jobRoutes,
    keepRoutes,
    peopleRoutes,
    setUpRoutes,
    classRoutes,
    homesRoutes,
    recordRoutes,
    settingRoutes,
    shelfRoutes,
    lessonRoutes,
    planRoutes,
    weekRoutes,
    filmRoutes,
    micTestRoutes,
    cutRoutes,
    sendRoutes,
    homeRoutes,
    homeOwnRoutes,
    codeRoutes,
    wordsRoutes,
    streetRoutes,
    postRoutes,
    lookRoutes,
    backRoutes,
    agreementRoutes,
    nextRoutes,
    progressRoutes,
    liveRoutes,
  ])
    room(app, s)
  app.use('/api', () => {
    throw notFound('This address')
  })
  pages(app, s)
  app.use(problems)
  return app
}

/** Writes come from Awlbox's own pages only: a browser says where a request comes from, and cannot be made to lie. */
const sameOrigin =
  (ours: string): express.RequestHandler =>
  (req, _res, next) => {
    if (req.method === 'GET' || req.method === 'HEAD') {
      next()
      return
    }
    const origin = req.get('origin')
    const site = req.get('sec-fetch-site')
    const own =
      origin === undefined
        ? site === undefined || site === 'same-origin' || site === 'none'
        : safeHost(origin) === req.get('host') || origin === ours
    next(
      own
        ? undefined
        : new Problem(403, 'Not from here', 'This request came from another page. Nothing was changed.'),
    )
  }
const safeHost = (origin: string): string => {
  try {
    return new URL(origin).host
  } catch {
    return ''
  }
}

/** Built files, sent as the build compressed them, and the pages. */
function pages(app: Express, s: Services): void {
  app.use(
    '/assets',
    lean,
    expressStaticGzip(
      path.join(dist, 'assets'),
      compressed({ immutable: true, maxAge: '365d', fallthrough: false }),
    ),
  )
  app.use(expressStaticGzip(dist, compressed({ maxAge: '1h' })))
  homePageRoute(app, s, dist)
  app.get('/robots.txt', (_req, res) => void res.type('text/plain').send('User-agent: *\nDisallow: /\n'))
  app.get(/^\/(?!api\/).*/, (_req, res) => {
    if (!fs.existsSync(path.join(dist, 'index.html')))
      throw new Problem(503, 'Not built', 'Run ./awlbox demo or ./awlbox start, which build the pages first.')
    res.set('Cache-Control', 'no-store').sendFile('index.html', { root: dist })
  })
}
/** A page's parts need few of a page's headers; on a phone's connection a dozen of them are as heavy as a program. */
const lean: express.RequestHandler = (_req, res, next) => {
  for (const name of res.getHeaderNames())
    if (!/^x-content-type-options$|^cross-origin-resource|^strict-transport/.test(name))
      res.removeHeader(name)
  // Workers among them are held to their own origin by it.
  res.setHeader('Content-Security-Policy', "default-src 'self'")
  next()
}
const compressed = (serveStatic: object) => ({
  enableBrotli: true,
  orderPreference: ['br', 'gz'],
  index: false as const,
  serveStatic,
})
