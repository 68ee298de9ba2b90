import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/lessons'
import { lessonSchema } from '@awlbox/core/contracts/lesson-schema'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { toFountain } from '@awlbox/core/script/formats/fountain'
import { toMarkdown } from '@awlbox/core/script/formats/markdown'
import { mayLesson } from '../platform/access.ts'
import { fileName } from '../platform/file-name.ts'
import { notFound } from '../platform/problem.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
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
  personRoute(router, s, api.printSheet, async ({ res, person, params, query }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const sheets = printableSheets(params.kind, query.paper, numbersOf(lesson.doc))
    res.attachment(`${params.kind}.pdf`).type('application/pdf')
    res.send(await printPdf(sheets, printableWords[params.kind]))
    return undefined
  })
}
