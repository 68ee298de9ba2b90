import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/post'
import { ok } from '@awlbox/core/contracts/api/route'
import { postRulesOf } from '@awlbox/core/contracts/post'
import { mayLesson, owns } from '../platform/access.ts'
import { hereOf } from '../platform/reach.ts'
import { notFound, Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { packById, publicationsOf } from '../send/store.ts'
import { withLink, writeToHomes } from './letters.ts'
import { letterById, lettersOfLesson, savePostRules, setLetter, writerOf } from './letters-store.ts'

/** What is written to homes: the outbox, and when letters go. */
export function postRoutes(router: Router, s: Services): void {
  const byMail = Boolean(s.config.smtp)
  personRoute(router, s, api.outbox, async ({ person, params }) => {
    // Letters hold the private links: only those who may send them see them.
    await mayLesson(s.db, person, params.lessonId, 'change')
    const items = await lettersOfLesson(s.db, params.lessonId)
    return {
      items: items.map(({ linkVersion, ...l }) => ({ ...l, body: withLink(s, { ...l, linkVersion }) })),
      byMail,
    }
  })
  personRoute(router, s, api.writeLetters, async ({ req, person, params, body }) => {
    await mayLesson(s.db, person, params.lessonId, 'change')
    const [sent] = await publicationsOf(s.db, params.lessonId)
    if (!sent) throw new Problem(409, 'Not sent yet', 'Send the lesson first; then homes can be told.')
    return {
      written: await writeToHomes(s, sent.id, body.kind, {
        origin: hereOf(s, req),
        ...(body.only ? { only: body.only } : {}),
      }),
    }
  })
  const mine = async (person: Parameters<typeof mayLesson>[1], letterId: string) => {
    const letter = await letterById(s.db, letterId)
    const sent = letter?.publicationId ? await packById(s.db, letter.publicationId) : undefined
    if (!letter || !sent) throw notFound('This letter')
    await mayLesson(s.db, person, sent.lessonId, 'change')
    return letter
  }
  personRoute(router, s, api.markCopied, async ({ person, params, body }) => {
    const letter = await mine(person, params.letterId)
    if (letter.state === 'sent') throw new Problem(409, 'Posted already', 'This letter went by mail.')
    await setLetter(s.db, letter.id, {
      state: body.copied ? 'copied' : 'to copy',
      goneAt: body.copied ? new Date() : null,
    })
    return ok
  })
  personRoute(router, s, api.tryAgain, async ({ person, params }) => {
    const letter = await mine(person, params.letterId)
    if (letter.state === 'sent') throw new Problem(409, 'Posted already', 'This letter went by mail.')
    await setLetter(s.db, letter.id, { state: 'waiting', tries: 0, problem: null, after: new Date() })
    return ok
  })
  personRoute(router, s, api.postRules, async ({ person }) => ({
    ...postRulesOf((await writerOf(s.db, person.settingId)).post),
    byMail,
  }))
  personRoute(router, s, api.savePostRules, async ({ person, body }) => {
    owns(person, 'say when homes are written to')
    await savePostRules(s.db, person.settingId, body)
    return ok
  })
}
