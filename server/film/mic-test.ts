import fs from 'node:fs/promises'
import path from 'node:path'
import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/film'
import { captured } from '@awlbox/core/film/ear/mic'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { mayLesson } from '../platform/access.ts'
import { levelsIn, NoRecogniser, recognise } from '../platform/media/recogniser.ts'
import { probe, toSpeechWav } from '../platform/media/ffmpeg.ts'
import { bytesIn } from '../platform/body.ts'
import { Problem } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { lessonById } from '../lessons/store.ts'
import { houseStyleOf } from '../settings/store.ts'
import { inFolder } from '../platform/temporary.ts'

/** A few seconds of the microphone before filming, given back as words. Nothing of it is kept. */
/** Bytes of a few seconds of sound, however it is coded. */
const mostSound = 4_000_000

export function micTestRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.micTest, async ({ person, params, req, res }) => {
    await mayLesson(s.db, person, params.lessonId, 'read')
    const body = await bytesIn(req, res, mostSound)
    if (body.length < 100)
      throw new Problem(422, 'No sound', 'No sound arrived. Is the microphone switched on?')
    const lesson = (await lessonById(s.db, params.lessonId))!
    const style = await houseStyleOf(s.db, lesson.settingId)
    return inFolder('mic', async (folder) => {
      const [source, wav] = [path.join(folder, 'mic'), path.join(folder, 'mic.wav')]
      await fs.writeFile(source, body)
      const p = await probe(source)
      if (!p?.audio) throw new Problem(422, 'No sound', 'What arrived holds no sound.')
      await toSpeechWav(source, wav, { part: { from: 0, to: 20 } })
      const sound = captured(await levelsIn(wav))
      try {
        const { words } = await recognise(
          wav,
          lesson.doc.segments.flatMap((x) => spokenLines(x, style)),
        )
        return { words, ...sound }
      } catch (error) {
        if (error instanceof NoRecogniser)
          return { words: [], ...sound, advice: `${sound.advice} ${error.message}` }
        throw error
      }
    })
  })
}
