import { framesPerSecond } from '../contracts/cut.ts'
import type { Cue } from '../film/desk/captions.ts'
import type { Moment } from '../script/simulate.ts'
import { describeTable } from '../script/table/description.ts'
import type { CaptionPart } from './captions.ts'
import { segmentFrames, stretchesOf } from './timeline.ts'

/** Seconds a description may at most stay; spoken aloud it takes about a word every 0.4 s. */
const longest = 12

/**
 * What is on the table in words, each time it changes: for those who hear the film. A change comes where the next
 * words after it are said, so that it is told before they need it. Times are the film's.
 */
export function descriptionsOf(parts: readonly CaptionPart[], moments: readonly Moment[]): Cue[] {
  const cues: Cue[] = []
  let at = 0
  let told = ''
  for (const p of parts) {
    const seconds = segmentFrames(p.cut) / framesPerSecond
    const saidAt = (stepId: string): number | null => {
      const found = [...p.hearings].flatMap(([takeId, h]) =>
        h.lines
          .filter((l) => l.stepId === stepId && l.start !== null && l.end !== null)
          .flatMap((l) => stretchesOf(p.cut, takeId, l.start!, l.end!)),
      )
      return found.length ? Math.min(...found.map((s) => s.start)) : null
    }
    let before = 0
    let waiting: string | null = null
    for (const m of moments.filter((x) => x.segment.id === p.segment.id)) {
      const start = saidAt(m.step.id)
      if (start !== null) {
        if (waiting !== null)
          cues.push({ start: at + before, end: at + Math.max(before + 1, start), text: waiting })
        waiting = null
        before = Math.max(before, start)
      }
      const words = describeTable(m.after)
      if (words !== told && m.after !== m.before) {
        told = words
        waiting = words
      }
    }
    if (waiting !== null && seconds > before)
      cues.push({ start: at + before, end: at + seconds, text: waiting })
    at += seconds
  }
  return cues
    .sort((a, b) => a.start - b.start)
    .map((c, i, all) => ({
      ...c,
      end: Math.min(
        c.end,
        c.start + longest,
        all[i + 1] ? Math.max(c.start + 0.5, all[i + 1]!.start) : Infinity,
      ),
    }))
}
