import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/send'
import { ok } from '@awlbox/core/contracts/api/route'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { packOf } from '@awlbox/core/send/pack'
import { catalogs, isWordKey, wordKeys, wordProblem } from '@awlbox/core/send/words/catalogs'
import { lessonById } from '../lessons/store.ts'
import { mayLesson } from '../platform/access.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { ladderOf } from '../settings/store.ts'
import { ownWords, saveOwnWords } from './words-store.ts'

/** The words homes read, as the setting has them: of the page, and of its lessons in other languages. */
export function wordsRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.homeWords, async ({ person, params }) => {
    const { language } = params
    const own = await ownWords(s.db, person.settingId, language)
    return {
      items: wordKeys
        .filter((key) => language !== 'en' || !key.startsWith('aim.'))
        .map((key) => ({
          key,
          english: catalogs.en[key],
          ours: catalogs[language][key],
          mine: own.get(key) ?? null,
        })),
    }
  })
  personRoute(router, s, api.lessonWords, async ({ person, params }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const lesson = await lessonById(s.db, params.lessonId)
    if (!lesson) throw notFound('This lesson')
    const pack = packOf(lesson.doc, await ladderOf(s.db, person.settingId), person.houseStyle)
    const own = await ownWords(s.db, person.settingId, params.language)
    const sentences = [pack.title, ...pack.tasks.map((t) => t.prompt), ...pack.adultNote]
    return {
      items: [...new Set(sentences)]
        .filter((x) => x.trim())
        .map((english) => ({ key: english, english, ours: null, mine: own.get(english) ?? null })),
    }
  })
  personRoute(router, s, api.saveHomeWords, async ({ person, params, body }) => {
    const words = body.words?.trim() ?? null
    if (words !== null) mayStand(body.key, params.language, words)
    await saveOwnWords(
      s.db,
      { settingId: person.settingId, language: params.language, key: body.key, byId: person.id },
      words,
    )
    return ok
  })
}
/** @throws Problem 422 where something that is filled in would be lost. */
function mayStand(key: string, language: HomeLanguage, words: string): void {
  const wrong = isWordKey(key) ? wordProblem(key, language, words) : words ? null : 'Empty.'
  if (wrong) throw new Problem(422, 'Not kept', `${wrong} What was there before still stands.`)
}
