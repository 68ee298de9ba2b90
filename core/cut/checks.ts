import type { Seconds } from '../contracts/units.ts'
import type { LessonTime } from '../script/time.ts'
import type { CutList, CutSegment, FilmBox, Overlay } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import type { HeardWord, Hearing } from '../contracts/heard.ts'
import type { Segment } from '../contracts/lesson.ts'
import { hear } from '../film/judge/heard.ts'
import type { Found, Params } from '../contracts/finding.ts'
import { type Codes, type CutCode, cutCodes, takeCodes } from '../findings/codes.ts'
import { spokenWordsOf } from '../film/follow/spoken.ts'
import { inCount, isNumberWord, likeNumber, soundsLike } from '../film/ear/sounds.ts'
import { expires, identifies } from '../script/proof/care-rules.ts'
import type { Moment } from '../script/simulate.ts'
import { captionLimits, type FilmCue, readingSpeed } from './captions.ts'
import { meet } from './boxes.ts'
import { countedBoxes, captionLine, safe, sentenceSize } from './overlays.ts'
import { film, readable } from '../film/camera/frame.ts'
import { cardFits } from './card.ts'
import { filmFrames, tableAfter } from './propose.ts'
import { isCovered, repairOf } from './repairs.ts'
import { heardTakes, layOut, plays, segmentFrames, stretchesOf, toSeconds } from './timeline.ts'

export type CheckKind =
  'counts' | 'answers' | 'lines' | 'words' | 'captions' | 'overlays' | 'cards' | 'length' | 'people' | 'sound'
/** Something to see to before the film is rendered. `wrong`: children would be taught wrongly, or someone shown. */
export interface Check extends Found<Codes['cut']> {
  severity: 'wrong' | 'risky'
  segmentId: string | null
  /** Seconds into the segment's film; null where it has no moment. */
  start: Seconds | null
}
/** What each check looks after. What is heard in a take and is none of a film's matters has no place. */
const kindOf: Readonly<Partial<Record<Codes['cut'], CheckKind>>> = {
  'count-skip': 'counts',
  'count-repeat': 'counts',
  'count-order': 'counts',
  'count-end': 'counts',
  'total-mismatch': 'counts',
  'false-sentence': 'counts',
  'number-changed': 'counts',
  'answer-early': 'answers',
  'wait-short': 'answers',
  'line-skipped': 'lines',
  'false-start': 'lines',
  filler: 'lines',
  expires: 'words',
  identifies: 'words',
  'caption-number': 'captions',
  'caption-quick': 'captions',
  'caption-missing': 'captions',
  'caption-covers': 'captions',
  'caption-guess': 'captions',
  'overlay-counted': 'overlays',
  'overlay-edge': 'overlays',
  'overlay-captions': 'overlays',
  'overlay-small': 'overlays',
  'card-small': 'cards',
  'card-cut-off': 'cards',
  'person-seen': 'people',
  'film-long': 'length',
  'segment-long': 'length',
  'sound-clipped': 'sound',
}
export const checkKind = (c: Pick<Check, 'code'>): CheckKind | null => kindOf[c.code] ?? null

/** A word must be left for at least this share of itself to be heard. */
const enough = 0.5
/** The words that can be heard in a segment's film, in its own time, as if it were a take. */
export function keptWords(
  cut: Pick<CutSegment, 'items'>,
  hearings: ReadonlyMap<string, Pick<Hearing, 'words'>>,
): HeardWord[] {
  const out: HeardWord[] = []
  const heard = heardTakes(cut)
  for (const [takeId, h] of hearings)
    for (const w of heard.has(takeId) ? h.words : [])
      for (const s of stretchesOf(cut, takeId, w.start, w.end))
        if (s.end - s.start >= enough * (w.end - w.start)) out.push({ ...w, start: s.start, end: s.end })
  return out.sort((a, b) => a.start - b.start)
}

/**
 * Holds what is left of a segment against its script, as a take is: a cut can take out the "seven" that was said, the
 * wait before an answer, half a sentence. `words` are those that are kept. Words that expire or tell where someone is are looked for in what is left.
 */
export function checkSegment(
  segment: Segment,
  cut: Pick<CutSegment, 'items'>,
  words: readonly HeardWord[],
  by: { style: HouseStyle; age: number },
): Check[] {
  if (!words.length) return []
  const seconds = toSeconds(segmentFrames(cut))
  const again = hear(segment, words, seconds, by)
  const out: Check[] = []
  for (const f of again.findings) {
    if (!kindOf[f.code]) continue
    // What was never heard rightly in a take is told in Film; here it is a doubt.
    out.push({
      code: f.code,
      severity: f.certain && (takeCodes[f.code] === 'wrong' || f.code === 'answer-early') ? 'wrong' : 'risky',
      segmentId: segment.id,
      start: f.start,
      params: f.params,
    })
  }
  const lines = new Map(again.lines.map((l) => [l.stepId, l]))
  for (const step of segment.steps) {
    const line = lines.get(step.id)
    if (!line || line.start === null || line.words.every((w) => w.at === null)) continue
    const late = step.text.match(expires)
    if (late)
      out.push({
        code: 'expires',
        severity: 'risky',
        segmentId: segment.id,
        start: line.start,
        params: { word: late[0] },
      })
    const who = step.text.match(identifies)
    if (who)
      out.push({
        code: 'identifies',
        severity: 'wrong',
        segmentId: segment.id,
        start: line.start,
        params: { word: who[0] },
      })
  }
  // Words said beside the script are looked through as they were heard.
  const scripted = new Set(again.lines.flatMap((l) => l.words.flatMap((w) => (w.at === null ? [] : [w.at]))))
  const beside = again.words.map((w, i) => (scripted.has(i) ? '.' : w.word))
  const late = beside.join(' ').match(expires)
  if (late) {
    const first = beside.findIndex(
      (w, i) =>
        late[0].toLowerCase().startsWith(w.toLowerCase()) &&
        beside.slice(i).join(' ').toLowerCase().startsWith(late[0].toLowerCase()),
    )
    out.push({
      code: 'expires',
      severity: 'risky',
      segmentId: segment.id,
      start: again.words[Math.max(0, first)]!.start,
      params: { word: late[0] },
    })
  }
  return out.sort((a, b) => (a.start ?? 0) - (b.start ?? 0))
}

/** Seconds a caption and what is said may be apart. */
const near = 0.5
/** A segment's captions (in its own time) against what is said in it: the numbers must be the same, what is said must be captioned, and there must be time to read. */
export function checkCaptions(
  cues: readonly FilmCue[],
  segment: Pick<Segment, 'id'>,
  words: readonly HeardWord[],
): Check[] {
  const out: Check[] = []
  const mine = cues.filter((c) => c.source)
  for (const c of mine) {
    const text = c.text.replace(/\n/g, ' ')
    const said = words
      .filter((w) => (w.start + w.end) / 2 >= c.start - near && (w.start + w.end) / 2 <= c.end + near)
      .map((w) => w.word.toLowerCase())
    // "to" may be two: what sounds like the number is taken for it.
    const missing = spokenWordsOf(c.text).filter(
      (w) =>
        isNumberWord(w) && !said.some((h) => soundsLike(w, h) || inCount(h) === w || likeNumber(h) === w),
    )
    if (missing.length)
      out.push({
        code: 'caption-number',
        severity: c.edited ? 'wrong' : 'risky',
        segmentId: segment.id,
        start: c.start,
        params: { number: missing[0]!, caption: text },
      })
    else if (c.guess)
      out.push({
        code: 'caption-guess',
        severity: 'risky',
        segmentId: segment.id,
        start: c.start,
        params: { caption: text },
      })
    else if (readingSpeed(c) > captionLimits.adults * 1.25)
      out.push({
        code: 'caption-quick',
        severity: 'risky',
        segmentId: segment.id,
        start: c.start,
        params: { letters: Math.round(readingSpeed(c)), caption: text },
      })
  }
  // Some words in a row with no caption at all were said beside the script.
  let run: HeardWord[] = []
  for (const w of [...words, { word: '', start: Infinity, end: Infinity, confidence: 0 }]) {
    if (w.start < Infinity && !mine.some((c) => c.start - near <= w.end && c.end + near >= w.start))
      run.push(w)
    else {
      if (run.length >= 4)
        out.push({
          code: 'caption-missing',
          severity: 'risky',
          segmentId: segment.id,
          start: run[0]!.start,
          params: { words: run.map((x) => x.word).join(' ') },
        })
      run = []
    }
  }
  return out
}

const inside = (b: FilmBox): boolean =>
  b.x >= safe.x - 1 &&
  b.y >= safe.y - 1 &&
  b.x + b.w <= film.width - safe.x + 1 &&
  b.y + b.h <= film.height - safe.y + 1

/** Overlays that are shown: over nothing that is counted, inside the safe margin, large enough for a phone. */
export function checkOverlays(
  segment: Segment,
  cut: CutSegment,
  list: Pick<CutList, 'repairs'>,
  moments: readonly Moment[],
  fill: HouseStyle['frameFill'],
): Check[] {
  const out: Check[] = []
  const tell = (o: Overlay, code: CutCode, more: Params = {}): void => {
    const shown = stretchesOf(cut, o.takeId, toSeconds(o.from), toSeconds(o.to), 'picture')[0]
    if (shown)
      out.push({
        code,
        severity: cutCodes[code][0],
        segmentId: segment.id,
        start: shown.start,
        params: { overlay: o.look, ...more },
      })
  }
  for (const o of cut.overlays) {
    if (!plays(o)) continue
    if (o.look !== 'ring' && o.look !== 'arrow') {
      const repair = repairOf(list, o.takeId)
      const table = moments.find((m) => m.step.id === o.stepId)?.after
      if (table && countedBoxes(table, repair, o.from, fill).some((b) => meet(b, o.place)))
        tell(o, 'overlay-counted')
      if (!inside(o.place)) tell(o, 'overlay-edge')
      if (o.place.y + o.place.h > captionLine + 40) tell(o, 'overlay-captions')
    }
    if (o.look === 'sentence' && sentenceSize(o) < readable) tell(o, 'overlay-small', { case: 'read' })
    if ((o.look === 'table' || o.look === 'hops') && o.place.w < 280)
      tell(o, 'overlay-small', { case: 'seen' })
  }
  return out
}

/** Cards that are shown: every word on them, and large enough for a phone. */
export function checkCards(row: CutSegment, moments: readonly Moment[] = []): Check[] {
  return layOut(row).flatMap(({ item, at }): Check[] => {
    if (item.kind !== 'card') return []
    const fits = cardFits(item, item.table !== undefined && tableAfter({ moments }, item.table) !== null)
    if (fits === 'well') return []
    return [
      {
        code: fits === 'small' ? 'card-small' : 'card-cut-off',
        severity: fits === 'small' ? 'risky' : 'wrong',
        segmentId: row.segmentId,
        start: toSeconds(at),
        params: { card: item.look },
      },
    ]
  })
}

/** Faces and names: what is proposed to be covered and was not decided, and covers that leave the picture. */
export function checkPeople(list: Pick<CutList, 'repairs' | 'segments'>): Check[] {
  const out: Check[] = []
  for (const s of list.segments) {
    const takes = new Set(s.items.flatMap((i) => (i.kind === 'clip' && plays(i) ? [i.takeId] : [])))
    for (const takeId of takes)
      for (const h of repairOf(list, takeId).hidden) {
        const shown = stretchesOf(s, takeId, toSeconds(h.from), toSeconds(h.to), 'picture')[0]
        if (!shown || isCovered(h)) continue
        if (h.why?.state === 'open')
          out.push({
            code: 'person-seen',
            severity: 'wrong',
            segmentId: s.segmentId,
            start: shown.start,
            params: { hidden: h.what },
          })
      }
  }
  return out
}

/** Seconds that the segments nobody has filmed are planned to take, by their script. */
export const unfilmed = (
  rows: readonly Pick<CutSegment, 'segmentId' | 'takeId'>[],
  time: Pick<LessonTime, 'segments'>,
): Seconds =>
  rows
    .filter((r) => !r.takeId)
    .reduce((n, r) => n + (time.segments.find((s) => s.id === r.segmentId)?.film ?? 0), 0)

/**
 * The whole film against the clock: its limit, each segment's, and the cards' share. Seconds; `toFilm` of what is not
 * filmed yet count as they are planned.
 */
export function checkLength(
  rows: readonly CutSegment[],
  limits: { film: number; segment: number },
  titleOf: (segmentId: string) => string,
  toFilm: Seconds = 0,
): Check[] {
  const out: Check[] = []
  const whole = toSeconds(filmFrames({ segments: rows })) + toFilm
  const cards = toSeconds(
    rows.reduce((n, r) => n + segmentFrames({ items: r.items.filter((i) => i.kind === 'card') }), 0),
  )
  if (whole > limits.film)
    out.push({
      code: 'film-long',
      severity: 'risky',
      segmentId: null,
      start: null,
      params: {
        case: toFilm > 0 ? 'planned' : cards > 20 ? 'cards' : 'film',
        plannedSeconds: toFilm,
        filmSeconds: whole,
        limitSeconds: limits.film,
        cardSeconds: cards,
      },
    })
  for (const r of rows) {
    const seconds = toSeconds(segmentFrames(r))
    if (seconds > limits.segment)
      out.push({
        code: 'segment-long',
        severity: 'risky',
        segmentId: r.segmentId,
        start: null,
        params: { title: titleOf(r.segmentId), filmSeconds: seconds, limitSeconds: limits.segment },
      })
  }
  return out
}

/** Loudest samples of a fiftieth of a second (0–255) from here on are cut off at the top; so many in a second are heard as crackling. */
const [full, crackles] = [254, 3]
/** Sound that was too loud to be recorded, in what is kept. `peaks` by take, so many a second. */
export function checkSound(
  row: CutSegment,
  peaks: ReadonlyMap<string, ArrayLike<number>>,
  perSecond: number,
): Check[] {
  const out: Check[] = []
  for (const item of row.items) {
    if (item.kind !== 'clip' || !plays(item)) continue
    const source = item.voice ?? item
    const mine = peaks.get(source.takeId)
    if (!mine) continue
    const [a, b] = [
      Math.floor(toSeconds(source.from) * perSecond),
      Math.ceil(toSeconds(source.from + item.to - item.from) * perSecond),
    ]
    for (let i = a, run: number[] = []; i < b; i++) {
      if (mine[i]! < full) continue
      run = [...run.filter((k) => i - k < perSecond), i]
      if (run.length < crackles) continue
      const at = stretchesOf(row, source.takeId, i / perSecond, (i + 1) / perSecond)[0]?.start ?? null
      out.push({
        code: 'sound-clipped',
        severity: 'risky',
        segmentId: row.segmentId,
        start: at,
        params: {},
      })
      break
    }
  }
  return out
}
