import type { Seconds } from '../contracts/units.ts'
import type { CaptionEdit, CutSegment } from '../contracts/cut.ts'
import { type HouseStyle } from '../contracts/house-style.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Segment } from '../contracts/lesson.ts'
import type { Cue } from '../film/desk/captions.ts'
import { spokenWordsOf } from '../film/follow/spoken.ts'
import { numberName } from '../plan/numbers/names.ts'
import { showsSymbols } from '../script/template/lines.ts'
import { pauseWords, readCount } from '../script/reading.ts'
import { captionBreaks, linesOf } from './break-lines.ts'
import { heardTakes, layOut, segmentFrames, stretchesOf, toSeconds } from './timeline.ts'

/**
 * Letters a second that can be read: adults at about 17 (170 words a minute, the usual ceiling of broadcast
 * guidelines); the slow version is for those who learn the language or read with a child. `shortest` seconds: in less
 * nobody reads a word. `early` is how much before it is said a slow caption may come.
 */
export const captionLimits = { adults: 17, slow: 10, shortest: 1, early: 0.6 } as const

export interface CaptionPart {
  segment: Segment
  cut: Pick<CutSegment, 'items'>
  /** Of every take that is shown or heard, by its id. */
  hearings: ReadonlyMap<string, Hearing>
}
/** A caption of the film, seconds into it. */
export interface FilmCue extends Cue {
  /** The same as long as the take and the script's line are; what is changed by hand goes by it. */
  id: string
  segmentId: string
  /** The take its words are heard in, and where in it (seconds); null for a card's. */
  source: { takeId: string; stepId: string; start: Seconds; end: Seconds } | null
  /** Changed by hand. */
  edited: boolean
  /** Its upper edge in the film's 720 lines, where it stands higher than at the foot. */
  top?: number | null
  /** It covers something written: there was no better place. */
  covers?: boolean
  /** The script's words, though what was said there was not understood as them. */
  guess?: boolean
}
export interface CaptionOptions {
  style: HouseStyle
  /** Of the lesson: whether signs are shown depends on it. */
  age?: number
  edits?: readonly CaptionEdit[]
  /** `slow`: on screen for as long as slow readers need, where there is room. */
  speed?: 'adults' | 'slow'
}

/** Captions of a film: the script's words by house style, timed by what was heard, in the cut's own time, two lines at most. */
export function captionsOf(parts: readonly CaptionPart[], options: CaptionOptions): FilmCue[] {
  let at = 0
  return parts.flatMap((p) => {
    const mine = segmentCaptions(p, options).map((c) => ({ ...c, start: c.start + at, end: c.end + at }))
    at += toSeconds(segmentFrames(p.cut))
    return mine
  })
}
/** Captions of one segment, in its own time; none is on screen longer than the segment is. */
export function segmentCaptions(
  p: CaptionPart,
  { style, age = 5, edits = [], speed = 'adults' }: CaptionOptions,
): FilmCue[] {
  const changed = new Map(edits.map((e) => [e.id, e]))
  const cues: FilmCue[] = []
  const heard = heardTakes(p.cut)
  for (const [takeId, hearing] of p.hearings)
    for (const line of heard.has(takeId) ? hearing.lines : []) {
      const step = p.segment.steps.find((s) => s.id === line.stepId)
      if (!step || line.start === null) continue
      pieces(captionText(step.verb, step.text, style, age), line, hearing).forEach((piece, i) => {
        const id = `${takeId.slice(0, 8)}-${step.id}-${i}`
        const edit = changed.get(id)
        const [start, end] = [edit?.start ?? piece.start, edit?.end ?? piece.end]
        const text = edit?.text ?? piece.text
        if (!text.trim() || end <= start) return
        for (const left of stretchesOf(p.cut, takeId, start, end)) {
          // Of a line cut down to a breath nothing is worth reading.
          if (left.end - left.start >= 0.2)
            cues.push({
              id,
              segmentId: p.segment.id,
              source: { takeId, stepId: step.id, start, end },
              edited: edit !== undefined,
              start: left.start,
              end: left.end,
              text: linesOf(text),
              ...(piece.guess && edit?.text == null ? { guess: true } : {}),
            })
        }
      })
    }
  for (const { item, at } of layOut(p.cut))
    if (item.kind === 'card')
      cues.push({
        id: item.id,
        segmentId: p.segment.id,
        source: null,
        edited: false,
        start: toSeconds(at),
        end: toSeconds(at + item.frames),
        text: [item.title, ...item.lines].join(' '),
      })
  return withTimeToRead(
    cues.sort((a, b) => a.start - b.start),
    toSeconds(segmentFrames(p.cut)),
    speed,
  )
}

/** Each caption for as long as it takes to read, never into the next one; slow ones may come a little before they are said. */
function withTimeToRead(cues: readonly FilmCue[], last: number, speed: 'adults' | 'slow'): FilmCue[] {
  const early = cues.map((c, i) =>
    speed === 'slow' && c.source
      ? Math.max(c.start - captionLimits.early, i ? Math.min(c.start, cues[i - 1]!.end) : 0, 0)
      : c.start,
  )
  return cues
    .map((c, i) => {
      const start = early[i]!
      const needed = Math.max(captionLimits.shortest, [...c.text].length / captionLimits[speed])
      return {
        ...c,
        start,
        end: Math.min(
          Math.max(c.end + 0.3, start + needed),
          early[i + 1] ?? Infinity,
          Math.max(last, start + 0.1),
        ),
      }
    })
    .filter((c) => c.end > c.start)
}
/** Letters a second at which a caption has to be read. */
export const readingSpeed = (c: Pick<Cue, 'start' | 'end' | 'text'>): number =>
  [...c.text].length / Math.max(0.01, c.end - c.start)

/** What a line of script says as a caption: a count as its numbers in words, a pause without its seconds, signs in the house's words unless it shows them. */
export function captionText(verb: string, text: string, style: HouseStyle, age = 5): string {
  const count = verb === 'count' ? readCount(text) : null
  if (count) return count.numbers.map((n) => numberName(n)).join(', ')
  const words = verb === 'pause' ? pauseWords(text) : text
  return showsSymbols(style, age)
    ? words
    : words
        .replace(/\s\+\s/g, ` ${style.add} `)
        .replace(/\s[−–-]\s(?=\d|_)/g, ` ${style.takeAway} `)
        .replace(/\s=\s/g, ` ${style.equals} `)
}

/** A caption is its line's where at least this share of its words was heard as written. */
const heardShare = 0.6
/** Parts a long line into captions, each timed by its own words. */
function pieces(
  text: string,
  line: Hearing['lines'][number],
  hearing: Hearing,
): (Cue & { guess: boolean })[] {
  let k = 0
  const timed = captionBreaks(text).map((lines) => {
    const words = lines.flat()
    const n = words.reduce((s, w) => s + spokenWordsOf(w).length, 0)
    const mine = line.words.slice(k, k + n)
    const ats = mine.flatMap((w) => (w.at === null ? [] : [hearing.words[w.at]!]))
    k += n
    return {
      text: words.join(' '),
      start: ats[0]?.start ?? null,
      end: ats.at(-1)?.end ?? null,
      half: mine.filter((w) => w.status === 'said').length < mine.length * heardShare,
    }
  })
  const lost = hearing.understood?.stretches.filter((s) => s.how === 'not understood') ?? []
  let last = line.start!
  return timed.map((t) => {
    const start = t.start ?? last
    const end = Math.max(t.end ?? start + 1, start + 0.2)
    last = end
    const guess = t.half || lost.some((s) => s.from < end && s.to > start)
    return { text: t.text, start, end, guess }
  })
}
