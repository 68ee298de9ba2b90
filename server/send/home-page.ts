import fs from 'node:fs'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Router } from 'express'
import { homeOf } from '../platform/actor.ts'
import { forLog, log } from '../platform/log.ts'
import { linkWasWrong, mayAskByLink } from '../platform/limits.ts'
import { linkIsClosed, Problem } from '../platform/problem.ts'
import { projectRoot } from '../platform/root.ts'
import type { Services } from '../platform/services.ts'
import { lessonsFor, packFor } from './home-pack.ts'

interface First {
  token: string
  packs: unknown[] | null
  pack: unknown
  problem: string | null
}
type Render = (first: First) => string
/** The page's own markup: bundled beside the server, or from its source. */
const rendererFile = import.meta.url.endsWith('.mjs')
  ? new URL('./home-page.mjs', import.meta.url)
  : pathToFileURL(path.join(projectRoot, 'web/home-page/render.tsx'))
const place = '<div id="app"></div>'
const styleLink = /<link rel="stylesheet"[^>]*href="\/(assets\/[^"]+)">/

/** Gives the built page with its few styles inside, so that nothing has to be fetched before its words are read; null where none is built. Read anew only when it is built anew. */
function templateIn(dist: string): () => string | null {
  const file = path.join(dist, 'home.html')
  let known: { built: number; html: string } | null = null
  return () => {
    const built = fs.statSync(file, { throwIfNoEntry: false })?.mtimeMs
    if (built === undefined) return null
    if (known?.built !== built) {
      const html = fs
        .readFileSync(file, 'utf8')
        .replace(
          styleLink,
          (_link, styles: string) => `<style>${fs.readFileSync(path.join(dist, styles), 'utf8')}</style>`,
        )
      known = { built, html }
    }
    return known.html
  }
}

async function firstOf(s: Services, token: string): Promise<{ status: number; first: First }> {
  const nothing = { token, packs: null, pack: null }
  const home = await homeOf(s.db, token)
  if (!home) return { status: 404, first: { ...nothing, problem: linkIsClosed.detail } }
  const packs = await lessonsFor(s, home)
  const pack = packs[0] ? await packFor(s, home, String(packs[0].id)) : null
  return { status: 200, first: { token, packs, pack, problem: null } }
}

/** A home's page, with the words of its newest lesson in the first answer: a slow phone reads before it runs anything. */
export function homePageRoute(router: Router, s: Services, dist: string): void {
  let render: Promise<Render> | null = null
  const template = templateIn(dist)
  router.get('/h/:token', async (req, res) => {
    const page = template()
    if (page === null)
      throw new Problem(503, 'Not built', 'Run ./awlbox demo or ./awlbox start, which build the pages first.')
    render ??= (import(rendererFile.href) as Promise<{ renderHome: Render }>).then((m) => m.renderHome)
    const { status, first } = await firstOf(s, req.params.token)
    if (status === 404) await linkWasWrong(req)
    else await mayAskByLink(req.params.token)
    // A page that cannot be written here is written by the phone itself.
    const written = await render
      .then((write) => write(JSON.parse(JSON.stringify(first)) as First))
      .catch((error: unknown) => {
        log.error({ error: forLog(error) }, 'home page not written on the server')
        render = null
        return place
      })
    const html = page.replace(place, () => written)
    res
      .status(status)
      .set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex, nofollow' })
      .type('html')
      .send(html)
  })
}
