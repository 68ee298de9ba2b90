import fs from 'node:fs'
import path from 'node:path'
import { pathToFileURL } from 'node:url'
import type { Request, Response, Router } from 'express'
import { z } from 'zod'
import { type HomeLanguage, homeLanguages } from '@awlbox/core/contracts/home-lists'
import { packOf } from '@awlbox/core/send/pack'
import { isHomeLanguage, speech } from '@awlbox/core/send/words/words'
import { rendersOf } from '../cut/store.ts'
import { lessonById } from '../lessons/store.ts'
import { livesOfHome } from '../live/lives.ts'
import { mayHousehold, mayLesson } from '../platform/access.ts'
import { homeById, homeOf, personOf } from '../platform/actor.ts'
import { forLog, log } from '../platform/log.ts'
import { linkWasWrong, mayAskByLink } from '../platform/limits.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { projectRoot } from '../platform/root.ts'
import type { Services } from '../platform/services.ts'
import { ladderOf } from '../settings/store.ts'
import { speakerHere } from './home-language.ts'
import { homePackOf, lessonsFor, packFor } from './home-pack.ts'
import { type Speaker, speakerOf } from './words.ts'

interface First {
  token: string
  packs: unknown[] | null
  pack: unknown
  lives: unknown[]
  liveId: string | null
  problem: string | null
  language: HomeLanguage
  messages: unknown
  /** Shown to a teacher as a home would see it: nothing is kept or sent. */
  preview: boolean
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

async function firstOf(s: Services, req: Request): Promise<{ status: number; first: First }> {
  const token = String(req.params.token)
  const home = await homeOf(s.db, token)
  const base = { token, packs: null, pack: null, lives: [], liveId: null, preview: false }
  if (!home) {
    // Nobody's link tells no setting: the words are ours, in the language the phone asks for.
    const asked = req.acceptsLanguages([...homeLanguages]) || 'en'
    const speaker = speakerOf(isHomeLanguage(asked) ? asked : 'en', new Map())
    return { status: 404, first: { ...base, ...spoken(speaker), problem: speaker.say('problem.closed') } }
  }
  const speaker = await speakerHere(s.db, home, req)
  const [packs, lives] = await Promise.all([lessonsFor(s, home), livesOfHome(s.db, home)])
  const wanted = packs.find((p) => p.id === req.query.lesson) ?? packs[0]
  const pack = wanted ? await packFor(s, home, String(wanted.id), speaker) : null
  const live = z.uuid().safeParse(req.query.live)
  const liveId = live.success ? live.data : null
  const words = spoken(speaker, lives.length > 0 || liveId !== null)
  return { status: 200, first: { ...base, ...words, packs, pack, lives, problem: null, liveId } }
}
/** The page's words; those of a live lesson only where there is one: every byte waits on a slow line. */
const spoken = (
  { language, messages }: Speaker,
  live = false,
): Pick<First, 'language'> & { messages: Speaker['messages'] } => ({
  language,
  messages: live
    ? messages
    : Object.fromEntries(Object.entries(messages).filter(([key]) => !key.startsWith('live.'))),
})

/** How a home would see a lesson as it stands, for whoever may change it: nothing has to be sent for it. */
async function previewOf(s: Services, req: Request): Promise<First> {
  const person = await personOf(s.db, req)
  if (!person) throw new Problem(401, 'Signed out', 'Sign in again.')
  const asked = z.object({ lessonId: z.uuid(), householdId: z.uuid() }).safeParse(req.params)
  if (!asked.success) throw notFound('This lesson')
  const { lessonId, householdId } = asked.data
  await mayLesson(s.db, person, lessonId, 'change')
  await mayHousehold(s.db, person, householdId, 'change')
  const [lesson, home, ladder, renders] = await Promise.all([
    lessonById(s.db, lessonId),
    homeById(s.db, householdId),
    ladderOf(s.db, person.settingId),
    rendersOf(s.db, lessonId),
  ])
  if (!lesson || !home) throw notFound('This lesson')
  const render = renders[0]
  const speaker = await speakerHere(s.db, home, null)
  const pack = await homePackOf(
    s,
    {
      id: lessonId,
      lessonId,
      pack: packOf(lesson.doc, ladder, person.houseStyle),
      sentAt: new Date(),
      renderId: render?.id ?? null,
      seconds: render?.seconds ?? null,
      bytes: render?.bytes ?? null,
      className: lesson.className,
      classId: lesson.classId,
      due: null,
      closes: null,
    },
    home,
    speaker,
  )
  return {
    token: '',
    packs: [],
    pack,
    lives: [],
    liveId: null,
    problem: null,
    ...spoken(speaker),
    preview: true,
  }
}

/** A home's page, with the words of its newest lesson in the first answer: a slow phone reads before it runs anything. */
export function homePageRoute(router: Router, s: Services, dist: string): void {
  let render: Promise<Render> | null = null
  const template = templateIn(dist)
  const write = async (res: Response, status: number, first: First): Promise<void> => {
    const page = template()
    if (page === null)
      throw new Problem(503, 'Not built', 'Run ./awlbox demo or ./awlbox start, which build the pages first.')
    render ??= (import(rendererFile.href) as Promise<{ renderHome: Render }>).then((m) => m.renderHome)
    // A page that cannot be written here is written by the phone itself.
    const written = await render
      .then((render) => render(JSON.parse(JSON.stringify(first)) as First))
      .catch((error: unknown) => {
        log.error({ error: forLog(error) }, 'home page not written on the server')
        render = null
        return place
      })
    const html = page
      .replace(place, () => written)
      .replace(
        '<html lang="en-GB">',
        `<html lang="${first.language}" dir="${speech[first.language].direction}">`,
      )
    res
      .status(status)
      .set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex, nofollow' })
      .type('html')
      .send(html)
  }
  router.get('/h/:token', async (req, res) => {
    const { status, first } = await firstOf(s, req)
    if (status === 404) await linkWasWrong(req)
    else await mayAskByLink(req.params.token)
    await write(res, status, first)
  })
  router.get('/see/:lessonId/:householdId', async (req, res) => write(res, 200, await previewOf(s, req)))
}
