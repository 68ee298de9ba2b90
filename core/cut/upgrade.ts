import { z } from 'zod'
import { type Clip, CutList, plainList } from '../contracts/cut.ts'
import { toFrame } from './timeline.ts'

/** Cut lists of the first version: a take with trims and drops a segment, and a card after it. Seconds. */
const First = z.object({
  version: z.literal(1),
  segments: z.array(
    z.object({
      segmentId: z.string(),
      takeId: z.string().nullable(),
      start: z.number(),
      end: z.number().nullable(),
      drops: z.array(
        z.object({
          id: z.string(),
          from: z.number(),
          to: z.number(),
          reason: z.string(),
          note: z.string(),
          state: z.enum(['proposed', 'accepted', 'declined']),
        }),
      ),
      card: z.object({ text: z.string(), seconds: z.number() }).nullable(),
    }),
  ),
})

/** Lists of the second version have neither overlays nor repairs. */
const Second = z.object({ version: z.literal(2), segments: z.array(z.looseObject({})) })

/** A stored cut list as it is written today. `secondsOf` gives a take's length. @throws ZodError when it is no cut list of any version. */
export function readCut(stored: unknown, secondsOf: (takeId: string) => number | null): CutList {
  const second = Second.safeParse(stored)
  if (second.success)
    return CutList.parse({
      ...plainList,
      segments: second.data.segments.map((s) => ({ ...s, overlays: [] })),
    })
  const old = First.safeParse(stored)
  if (!old.success) return CutList.parse(stored)
  return CutList.parse({
    ...plainList,
    segments: old.data.segments.map((s) => {
      const length = s.takeId ? toFrame(secondsOf(s.takeId) ?? 0) : 0
      const [start, end] = [toFrame(s.start), Math.min(length, s.end === null ? length : toFrame(s.end))]
      const gone = s.drops
        .filter((d) => d.state === 'accepted')
        .map((d) => [toFrame(d.from), toFrame(d.to)] as const)
      const points = [...new Set([0, length, start, end, ...gone.flat()])]
        .filter((f) => f >= 0 && f <= length)
        .sort((a, b) => a - b)
      const items: unknown[] = points.slice(1).map((to, i): Clip => {
        const from = points[i]!
        const out = from < start || to > end || gone.some(([a, b]) => a <= from && b >= to)
        const id = `${s.takeId!.slice(0, 8)}-${from}`
        return {
          kind: 'clip',
          id,
          takeId: s.takeId!,
          from,
          to,
          why: out
            ? { id: `h-${id}`, act: 'drop', kind: 'by hand', note: '', sure: true, state: 'accepted' }
            : null,
        }
      })
      if (s.card)
        items.push({
          kind: 'card',
          id: `card-${s.segmentId}`,
          look: 'stop',
          title: s.card.text,
          lines: [],
          frames: toFrame(s.card.seconds),
          stepId: null,
          why: null,
        })
      return { segmentId: s.segmentId, takeId: s.takeId, items, overlays: [], byHand: items.length > 0 }
    }),
  })
}
