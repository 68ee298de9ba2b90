import { z } from 'zod'
import { Help, Level, Rung } from '../reply.ts'
import { ReplyRecord } from './look.ts'
import { Made, Moment, Ok, ofLesson, route, Uuid } from './route.ts'

const ofRound = z.object({ roundId: Uuid })
export const Round = z.object({
  id: Uuid,
  at: Moment,
  first: z.string(),
  second: z.string(),
  /** Whether the one who asks is to judge in it. */
  mine: z.boolean(),
  replyIds: z.array(Uuid),
  done: z.number().int(),
  /** Only when all are judged a second time: until then neither sees the other's. */
  result: z
    .object({
      words: z.string(),
      agreed: z.number(),
      kappa: z.number().nullable(),
      low: z.number().nullable(),
      high: z.number().nullable(),
      differ: z.array(
        z.object({
          replyId: Uuid,
          child: z.string(),
          first: Level,
          second: Level,
          settled: Level.nullable(),
          words: z.string(),
        }),
      ),
    })
    .nullable(),
})
export type Round = z.infer<typeof Round>
export const rounds = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/second-rounds',
  summary: 'Replies of a lesson that a colleague judges a second time without seeing the first.',
  params: ofLesson,
  response: z.object({
    items: z.array(Round),
    colleagues: z.array(z.object({ id: Uuid, name: z.string() })),
  }),
  changesWith: ['replies'],
})
export const drawRound = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/second-rounds',
  summary: 'Draws a sample of judged replies for a colleague to judge blind.',
  params: ofLesson,
  body: z.object({ secondId: Uuid, many: z.number().int().min(2).max(60) }),
  response: Made,
  records: { act: 'changed', words: 'Drew replies to be judged a second time', of: 'lessonId' },
})
export const blindReply = route({
  method: 'GET',
  path: '/api/second-rounds/:roundId/next',
  summary: 'The next reply of a round to be judged, with nothing of the first judgement in it.',
  params: ofRound,
  response: z.object({ reply: ReplyRecord.nullable() }),
  changesWith: ['replies'],
  records: { act: 'saw', words: 'Saw a reply to judge it a second time', of: 'roundId' },
})
export const judgeSecond = route({
  method: 'POST',
  path: '/api/second-rounds/:roundId/judgements',
  summary: 'A second judgement of one reply of a round, made without seeing the first; once.',
  params: ofRound,
  body: z.object({ replyId: Uuid, level: Level, help: Help, rung: Rung }),
  response: Ok,
  records: { act: 'changed', words: 'Judged a reply a second time', of: 'roundId' },
})
export const settle = route({
  method: 'POST',
  path: '/api/second-rounds/:roundId/settlements',
  summary: 'What two judges settle on where they differed; both judgements stay, the settled one supersedes.',
  params: ofRound,
  body: z.object({ replyId: Uuid, level: Level, words: z.string().trim().max(500).default('') }),
  response: Ok,
  records: { act: 'changed', words: 'Settled a difference between two judges', of: 'roundId' },
})

export const Pairing = z.object({
  /** The two to look at next; null when the scale stands, or there are too few. */
  pair: z.tuple([Uuid, Uuid]).nullable(),
  compared: z.number().int(),
  scale: z.array(
    z.object({ replyId: Uuid, place: z.number(), error: z.number().nullable(), compared: z.number().int() }),
  ),
  words: z.string(),
})
export type Pairing = z.infer<typeof Pairing>
export const pairing = route({
  method: 'GET',
  path: '/api/lessons/:lessonId/pairs',
  summary: 'The next two replies to compare, and the scale that comparisons have made so far.',
  params: ofLesson,
  response: Pairing,
  changesWith: ['replies'],
})
export const comparePair = route({
  method: 'POST',
  path: '/api/lessons/:lessonId/pairs',
  summary: 'Which of two replies to one lesson shows more, or that neither does.',
  params: ofLesson,
  body: z.object({ betterId: Uuid, otherId: Uuid, same: z.boolean().default(false) }),
  response: Ok,
  records: { act: 'changed', words: 'Compared two replies', of: 'lessonId' },
})
