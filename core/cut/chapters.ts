import type { Seconds } from '../contracts/units.ts'
import { framesPerSecond } from '../contracts/cut.ts'
import { clockTime } from '../words.ts'
import type { CaptionPart } from './captions.ts'
import { layOut, segmentFrames, toSeconds } from './timeline.ts'

/** A place in the film to go to. `stop`: where viewers may leave, or come back to after having a go. */
export interface Chapter {
  /** Seconds into the film. */
  start: Seconds
  end: Seconds
  title: string
  stop: boolean
}
/** Seconds: chapters nearer than this to the one before are one with it. */
const apart = 2

const stopWords = 'Stop here and have a go'
/** Whether a chapter read from a file is one that stops the film. */
export const isStopTitle = (title: string): boolean => title.startsWith(stopWords)

/** A chapter for each segment, and one after each card that stops the film: there those who were away come back. */
export function chaptersOf(parts: readonly Pick<CaptionPart, 'segment' | 'cut'>[]): Chapter[] {
  const points: Omit<Chapter, 'end'>[] = []
  let at = 0
  for (const p of parts) {
    points.push({ start: at, title: p.segment.title, stop: false })
    let n = 0
    for (const { item, at: from } of layOut(p.cut))
      if (item.kind === 'card' && item.look === 'stop')
        points.push(
          {
            start: at + toSeconds(from),
            title: `${stopWords}${(n += 1) > 1 ? ` (${n})` : ''}: ${p.segment.title}`,
            stop: true,
          },
          { start: at + toSeconds(from + item.frames), title: `Go on: ${p.segment.title}`, stop: false },
        )
    at += toSeconds(segmentFrames(p.cut))
  }
  const kept = points.filter(
    (c, i) =>
      c.start < at - 1 / framesPerSecond &&
      (i === 0 || c.stop || c.start - points[i - 1]!.start >= apart || points[i - 1]!.stop),
  )
  return kept.map((c, i) => ({ ...c, end: kept[i + 1]?.start ?? at })).filter((c) => c.end > c.start)
}
/** Chapters as text, a line each: "0:00 Hello". */
export const chapterText = (chapters: readonly Chapter[]): string =>
  chapters.map((c) => `${clockTime(c.start)} ${c.title}`).join('\n')

/** Chapters as ffmpeg's metadata text, milliseconds. */
export function chapterMetadata(chapters: readonly Chapter[]): string {
  const clean = (t: string): string => t.replace(/[=;#\\\n]/g, (c) => (c === '\n' ? ' ' : `\\${c}`))
  return `;FFMETADATA1\n${chapters.map((c) => `[CHAPTER]\nTIMEBASE=1/1000\nSTART=${Math.round(c.start * 1000)}\nEND=${Math.round(c.end * 1000)}\ntitle=${clean(c.title)}\n`).join('')}`
}
