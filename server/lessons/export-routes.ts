import type { Router } from 'express'
import QRCode from 'qrcode'
import * as api from '@awlbox/core/contracts/api/lessons'
import { lessonSchema } from '@awlbox/core/contracts/lesson-schema'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { toFountain } from '@awlbox/core/script/formats/fountain'
import { toMarkdown } from '@awlbox/core/script/formats/markdown'
import { mayLesson } from '../platform/access.ts'
import { fileName } from '../platform/file-name.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { hereOf } from '../platform/reach.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { homeToken } from '../platform/tokens.ts'
import { homesOf, publicationsOf } from '../send/store.ts'
import { ladderOf } from '../settings/store.ts'
import { numbersOf } from '@awlbox/core/send/printables/of-lesson'
import { printableSheets, printableWords } from '@awlbox/core/send/printables/sheets'
import { cueCards } from './pdf/cue-cards.ts'
import { onePage } from './pdf/one-page.ts'
import { printPdf } from './pdf/print.ts'
import { lessonById } from './store.ts'

/** Lessons as files. */
export function exportRoutes(router: Router, s: Services): void {
  openRoute(router, s, api.lessonSchema, () => Promise.resolve(lessonSchema()))
  personRoute(router, s, api.exportLesson, async ({ res, person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const { doc } = lesson
    res.attachment(`${fileName(doc.title, 'lesson')}.${params.format}`)
    switch (params.format) {
      case 'lesson.json':
        res.type('application/json').send(JSON.stringify(doc, null, 2))
        break
      case 'md':
        res.type('text/markdown; charset=utf-8').send(toMarkdown(doc))
        break
      case 'fountain':
        res.type('text/plain; charset=utf-8').send(toFountain(doc, person.houseStyle))
        break
      case 'cue-cards.pdf':
        res.type('application/pdf').send(await cueCards(doc, person.houseStyle))
        break
      case 'plan.pdf': {
        const idea = ideaById(doc.ideaId, await ladderOf(s.db, person.settingId))
        res.type('application/pdf').send(await onePage(doc, person.houseStyle, idea))
        break
      }
    }
    return undefined
  })
  personRoute(router, s, api.printSheet, async ({ req, res, person, params, query }) => {
    await mayLesson(s.db, person, params.lessonId, query.each ? 'change' : 'read')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const numbers = numbersOf(lesson.doc)
    const codes = query.each ? await homeCodes(s, params.lessonId, hereOf(s, req)) : [undefined]
    if (!codes.length) throw new Problem(409, 'No homes yet', 'None of its homes has an open link yet.')
    const sheets = codes.flatMap((code) =>
      printableSheets(params.kind, query.paper, code ? { ...numbers, code } : numbers),
    )
    res.attachment(`${params.kind}.pdf`).type('application/pdf')
    res.send(await printPdf(sheets, printableWords[params.kind]))
    return undefined
  })
}

/** The square code of each home's page, with the lesson it is of. */
async function homeCodes(s: Services, lessonId: string, origin: string) {
  const [[sent], homes] = await Promise.all([publicationsOf(s.db, lessonId), homesOf(s.db, lessonId)])
  const open = new Map(homes.filter((h) => h.open).map((h) => [h.householdId, h]))
  return [...open.values()].map((h) => {
    const link = `${origin}/h/${homeToken(s.secret, h.householdId, h.linkVersion)}`
    const { size, data } = QRCode.create(sent ? `${link}?lesson=${sent.id}` : link).modules
    return { size, dark: Array.from(data, (x) => x === 1) }
  })
}
