import { z } from 'zod'
import { Structure } from './lesson.ts'

const IdeaId = z.string().regex(/^[a-z0-9-]{1,40}$/)
/** One rung of the ladder: what a child learns, what comes before it and how one would know. */
export const Idea = z.object({
  id: IdeaId,
  name: z.string().trim().min(1).max(80),
  /** What its example sets are made of; null when it has none of ours (counting, shapes of numbers). */
  structure: Structure.nullable(),
  least: z.number().int().min(0).max(99).default(0),
  upTo: z.number().int().min(2).max(1000),
  /** Typical ages from–to in years: for orientation, never a norm. */
  ages: z.tuple([z.number().int().min(2).max(9), z.number().int().min(2).max(9)]),
  after: z.array(IdeaId).max(6).default([]),
  /** What counts as having seen it. */
  evidence: z.string().max(300).default(''),
  misconceptions: z.array(z.string().max(120)).max(8).default([]),
  /** The setting's own statement codes. */
  codes: z.array(z.string().max(30)).max(10).default([]),
})
export type Idea = z.infer<typeof Idea>

export const Ladder = z
  .array(Idea)
  .min(1)
  .max(200)
  .superRefine((list, ctx) => {
    const ids = new Set<string>()
    list.forEach((idea, i) => {
      if (ids.has(idea.id))
        ctx.addIssue({ code: 'custom', path: [i, 'id'], message: `“${idea.id}” stands twice.` })
      ids.add(idea.id)
      if (idea.ages[0] > idea.ages[1])
        ctx.addIssue({
          code: 'custom',
          path: [i, 'ages'],
          message: `“${idea.name}”: the first age is above the second.`,
        })
    })
    list.forEach((idea, i) => {
      for (const before of idea.after)
        if (!ids.has(before))
          ctx.addIssue({
            code: 'custom',
            path: [i, 'after'],
            message: `“${idea.name}” comes after “${before}”, which is not on the ladder.`,
          })
    })
    if (hasLoop(list))
      ctx.addIssue({
        code: 'custom',
        path: [],
        message: 'The ladder goes round in a circle: an idea comes before itself.',
      })
  })
export type Ladder = z.infer<typeof Ladder>

function hasLoop(list: readonly { id: string; after: readonly string[] }[]): boolean {
  const after = new Map(list.map((i) => [i.id, i.after]))
  const state = new Map<string, 'open' | 'done'>()
  const visit = (id: string): boolean => {
    if (state.get(id) === 'done') return false
    if (state.get(id) === 'open') return true
    state.set(id, 'open')
    const loop = (after.get(id) ?? []).some(visit)
    state.set(id, 'done')
    return loop
  }
  return list.some((i) => visit(i.id))
}
