import type { HeardWord } from '../contracts/heard.ts'
import type { RoomTone } from '../contracts/render.ts'

/** Seconds: shorter than this is no tone; this near to a word its breath is heard; and the lengths that are tried. */
const limits = { least: 0.3, fromWords: 0.15 } as const
const lengths = [2, 1, 0.5, limits.least] as const

/**
 * The quietest even stretch of a take: what is laid under cuts, held pictures and cards, so that the room does not drop
 * out of hearing. `peaks` are its loudest samples, `perSecond` a second, on any scale; null where words leave no room.
 */
export function roomToneOf(
  peaks: ArrayLike<number>,
  perSecond: number,
  words: readonly Pick<HeardWord, 'start' | 'end'>[],
): RoomTone | null {
  const said = [...words].sort((a, b) => a.start - b.start)
  const gaps: RoomTone[] = []
  let from = 0
  for (const w of [...said, { start: peaks.length / perSecond, end: Infinity }]) {
    const to = w.start - limits.fromWords
    if (to - from >= limits.least) gaps.push({ from, to })
    from = Math.max(from, w.end + limits.fromWords)
  }
  let best: { cost: number; tone: RoomTone } | null = null
  for (const g of gaps) {
    const [a, b] = [Math.ceil(g.from * perSecond), Math.floor(g.to * perSecond)]
    for (const seconds of lengths) {
      const window = Math.min(b - a, Math.round(seconds * perSecond))
      if (window < limits.least * perSecond - 1) continue
      for (let i = a; i + window <= b; i += Math.max(1, Math.round(perSecond / 10))) {
        let loudest = 0
        for (let k = i; k < i + window; k++) loudest = Math.max(loudest, peaks[k] ?? 0)
        // Of stretches about as quiet the longer one repeats itself less.
        const cost = (loudest + 1) * (1 - 0.15 * (window / perSecond))
        if (!best || cost < best.cost)
          best = { cost, tone: { from: i / perSecond, to: (i + window) / perSecond } }
      }
    }
  }
  return best?.tone ?? null
}
