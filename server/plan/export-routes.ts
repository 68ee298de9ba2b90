import type { Router } from 'express'
import { lessonSchema } from '@awlbox/core/contracts/lesson-schema'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { toFountain } from '@awlbox/core/script/formats/fountain'
import { toMarkdown } from '@awlbox/core/script/formats/markdown'
import { ladderOf } from '../people/setting.ts'
import { fileName } from '../platform/file-name.ts'
import { mayLesson } from '../platform/access.ts'
import { notFound } from '../platform/problem.ts'
import { openRoute, personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { cueCards } from './pdf/cue-cards.ts'
import { onePage } from './pdf/one-page.ts'
import { lessonById } from './store.ts'

const kinds = ['lesson.json', 'md', 'fountain', 'cue-cards.pdf', 'plan.pdf'] as const

export function exportRoutes(router: Router, s: Services): void {
  openRoute(router, 'get', '/api/formats/lesson.schema.json', null, () => Promise.resolve(lessonSchema()))
  personRoute(
    router,
    s,
    'get',
    '/api/lessons/:lessonId/export/:kind',
    null,
    async ({ res, person, params }) => {
      await mayLesson(s.db, person, params.lessonId!, 'read')
      const kind = kinds.find((k) => k === params.kind)
      const lesson = await lessonById(s.db, params.lessonId!)
      if (!kind || !lesson) throw notFound('This kind of file')
      const { doc } = lesson
      res.attachment(`${fileName(doc.title, 'lesson')}.${kind}`)
      switch (kind) {
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
        case 'plan.pdf':
          res
            .type('application/pdf')
            .send(
              await onePage(
                doc,
                person.houseStyle,
                ideaById(doc.ideaId, await ladderOf(s.db, person.settingId)),
              ),
            )
          break
      }
      return undefined
    },
  )
}
