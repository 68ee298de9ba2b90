import type { z } from 'zod'
import type * as api from '@awlbox/core/contracts/api/next'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { type Asked, type Weighed } from '@awlbox/core/judge/misconceptions/asked'
import { weighedOf } from '@awlbox/core/judge/misconceptions/from-replies'
import { diagnose, type Spoken, type Suspected } from '@awlbox/core/judge/misconceptions/rank'
import { tryNext } from '@awlbox/core/judge/misconceptions/try-next'
import type { Db } from '../platform/db.ts'
import { evidenceFor } from './standing-store.ts'

type Thinking = z.output<(typeof api.thinking)['response']>

/** How a child may be thinking, over all replies it ever sent. */
export async function thinkingOf(db: Db, childId: string, style: HouseStyle): Promise<Thinking> {
  const { sent, readings } = await evidenceFor(db, [childId], null)
  const lessonOf = new Map(sent.map((r) => [r.id, r.lessonId]))
  const weighed = sent.flatMap((r) =>
    weighedOf({ id: r.id, tasks: r.pack.tasks, answers: r.answers, help: r.help }, readings),
  )
  const given = sent.reduce((n, r) => n + r.answers.length, 0)
  const d = diagnose(weighed, given)
  const spoken = ({ id, words }: Spoken) => {
    const replyId = id.split(':')[0]!
    return { id, words, replyId, lessonId: lessonOf.get(replyId) ?? null }
  }
  const full = (s: Suspected) => ({
    id: s.id,
    words: s.words,
    p: s.p,
    for: s.for.map(spoken),
    against: s.against.map(spoken),
    next: s.next,
    tryNext: tryNext(s.strategies, questionsOf(s, weighed), style),
  })
  return {
    weighed: d.weighed,
    given: d.given,
    words: d.words,
    named: d.named.map(full),
    considered: d.considered.slice(0, 6).map(full),
  }
}
const questionsOf = (s: Suspected, all: readonly Weighed[]): Asked[] =>
  s.for.flatMap((f) => all.filter((w) => w.id === f.id).map((w) => w.asked))
