import type { Frames, Seconds } from '../contracts/units.ts'
import { en } from '../findings/words/en.ts'
import type { FilmBox, Overlay, OverlayLook, Repair } from '../contracts/cut.ts'
import { framesPerSecond } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Segment, Step } from '../contracts/lesson.ts'
import { showsSymbols } from '../script/template/lines.ts'
import { hasUnknown, inSigns, isTrue, sentencesIn } from '../script/sentence.ts'
import { sentenceNear } from '../script/sentence-near.ts'
import type { Moment } from '../script/simulate.ts'
import { layTable } from '../script/table/drawing/table.ts'
import { type TableState, thingsOn } from '../script/table/state.ts'
import { film, tableInTake } from '../film/camera/frame.ts'
import { meet } from './boxes.ts'
import { boxInFilm, takeToFilm } from './repairs.ts'
import { toFrame } from './timeline.ts'

/** Nothing stands nearer to the frame's edge than this: a twentieth of each side. */
export const safe = { x: 64, y: 36 } as const
/** Captions come below this line. */
export const captionLine = 590

/** The boxes of what is counted on a table, in the film's picture at a frame of a take. */
export const countedBoxes = (
  table: TableState,
  repair: Repair,
  frame: Frames,
  fill: HouseStyle['frameFill'],
): FilmBox[] =>
  inFilm(
    layTable(table, fill).things.map((t) => ({ x: t.x - t.r, y: t.y - t.r, w: 2 * t.r, h: 2 * t.r })),
    repair,
    frame,
  )
/** The boxes of the mats things lie on. */
const matBoxes = (
  table: TableState,
  repair: Repair,
  frame: Frames,
  fill: HouseStyle['frameFill'],
): FilmBox[] => inFilm(layTable(table, fill).zones, repair, frame)
/** Boxes of the table's drawing as they come in the film. */
export function inFilm(boxes: readonly FilmBox[], repair: Repair, frame: Frames): FilmBox[] {
  const h = takeToFilm(repair, frame)
  const { scale, x, y } = tableInTake
  return boxes.map((b) =>
    boxInFilm(h, { x: x + b.x * scale, y: y + b.y * scale, w: b.w * scale, h: b.h * scale }),
  )
}

/** Sizes tried for what is drawn, the largest first. */
const tableSizes = [
  [480, 312],
  [380, 248],
  [300, 196],
] as const
const hopSizes = [
  [760, 158],
  [620, 129],
  [480, 100],
] as const
/** The first place, from the upper right round, where a box of one of the sizes covers nothing; null where there is none. */
export function freePlace(
  sizes: readonly (readonly [number, number])[],
  taken: readonly FilmBox[],
): FilmBox | null {
  const [right, bottom] = [film.width - safe.x, captionLine]
  for (const [w, h] of sizes)
    for (const [x, y] of [
      [right - w, safe.y],
      [safe.x, safe.y],
      [(film.width - w) / 2, safe.y],
      [right - w, bottom - h],
      [safe.x, bottom - h],
      [right - w, (safe.y + bottom - h) / 2],
      [safe.x, (safe.y + bottom - h) / 2],
      [(film.width - w) / 2, bottom - h],
    ] as const) {
      const box = { x, y, w, h }
      if (taken.every((t) => !meet(box, t))) return box
    }
  return null
}
/** The box a number sentence needs: Andika's figures are about 0.6 of their height wide. */
const figure = 0.6
/** Letter height of a number sentence in its box. */
export const sentenceSize = (o: Pick<Overlay, 'text' | 'place'>): number =>
  Math.min(o.place.h / 1.5, (o.place.w - 40) / Math.max(1, o.text.length * figure))
const sentenceSizes = (text: string): [number, number][] =>
  [72, 56, 44].map((px) => [Math.min(1100, Math.ceil(text.length * px * figure + 56)), Math.ceil(px * 1.5)])

/** Seconds a sentence stays after it was said. */
const stays = 2
const frameOf = (seconds: Seconds, last: number): number => Math.min(last, Math.max(0, toFrame(seconds)))

/** What an overlay's words are by house style: signs where the house shows them at that age. */
function sentenceText(signs: string, style: HouseStyle, age: number): string {
  if (showsSymbols(style, age)) return signs
  return signs
    .replaceAll('+', style.add === 'and' ? 'and' : style.add)
    .replaceAll('−', style.takeAway)
    .replaceAll('=', style.equals)
}

/**
 * Overlays the script asks for, over a take as it was heard: a number sentence where it is said, the table beside it
 * while it is counted, the hops of a number line as they are made. None covers what is being counted: where no place
 * is free, none is proposed. Sentences of deliberate mistakes are never written.
 */
export function overlaysFor(
  segment: Segment,
  take: { id: string; seconds: Seconds; hearing: Pick<Hearing, 'lines' | 'words'> | null },
  moments: readonly Moment[],
  repair: Repair,
  style: HouseStyle,
  age = 5,
): Overlay[] {
  const hearing = take.hearing
  if (!hearing) return []
  const last = toFrame(take.seconds)
  const lineOf = (step: Step) =>
    hearing.lines.find((l) => l.stepId === step.id && l.start !== null && l.end !== null)
  const out: Overlay[] = []
  const add = (
    look: OverlayLook,
    step: Step,
    from: number,
    to: number,
    text: string,
    table: readonly TableState[],
    sizes: readonly (readonly [number, number])[],
    note: string,
  ): void => {
    if (to - from < framesPerSecond / 2) return
    const taken = [
      ...table.flatMap((t) => countedBoxes(t, repair, from, style.frameFill)),
      ...out.filter((o) => o.from < to && o.to > from).map((o) => o.place),
    ]
    // Best beside the mats too; a sentence may lie on an empty part of one, a drawing may not: nobody could tell them apart.
    const place =
      freePlace(sizes, [...taken, ...table.flatMap((t) => matBoxes(t, repair, from, style.frameFill))]) ??
      (look === 'sentence' ? freePlace(sizes, taken) : null)
    if (!place) return
    out.push({
      id: `${look}-${step.id}-${take.id.slice(0, 8)}`,
      look,
      takeId: take.id,
      from,
      to,
      text,
      stepId: step.id,
      place,
      at: null,
      why: { id: `v-${look}-${step.id}`, act: 'add', kind: 'overlay', note, sure: true, state: 'open' },
    })
  }
  const mine = moments.filter((m) => m.segment.id === segment.id)
  const nextSaid = (i: number): number => {
    for (const m of mine.slice(i + 1)) {
      const line = lineOf(m.step)
      if (line) return line.start!
    }
    return take.seconds
  }
  const saidBefore = (i: number): number =>
    mine
      .slice(0, i)
      .flatMap((m) => lineOf(m.step)?.end ?? [])
      .at(-1) ?? 0
  mine.forEach((m, i) => {
    const line = lineOf(m.step)
    if (line && !m.step.deliberate && (m.step.verb === 'say' || m.step.verb === 'reveal')) {
      const sentence = sentencesIn(m.step.text).find((s) => !hasUnknown(s) && isTrue(s))
      if (sentence) {
        const text = sentenceText(inSigns(sentence), style, age)
        const said = line.words.flatMap((w) => (w.at === null ? [] : [hearing.words[w.at]!]))
        add(
          'sentence',
          m.step,
          frameOf(said[0]?.start ?? line.start!, last),
          frameOf(Math.min(line.end! + stays, Math.max(line.end!, nextSaid(i))), last),
          text,
          [m.after],
          sentenceSizes(text),
          `“${text}” while it is said.`,
        )
      }
    }
    if (
      line &&
      m.step.verb === 'count' &&
      m.after.mats.some((x) => x.kind !== 'line' && x.kind !== 'square' && x.kind !== 'sound') &&
      thingsOn(m.after).length
    )
      add(
        'table',
        m.step,
        frameOf(line.start! - 0.3, last),
        frameOf(line.end! + 0.6, last),
        '',
        [m.before, m.after],
        tableSizes,
        'The table drawn beside it while it is counted.',
      )
    if (m.step.verb === 'do' && m.actions.some((a) => a.type === 'hop'))
      add(
        'hops',
        m.step,
        frameOf(saidBefore(i), last),
        frameOf(nextSaid(i) + 1, last),
        '',
        [m.before, m.after],
        hopSizes,
        'The hops drawn over the number line.',
      )
  })
  return out
}
/** An overlay put in by hand over a stretch of a take. */
export function plainOverlay(
  look: OverlayLook,
  id: string,
  takeId: string,
  from: number,
  to: number,
  words: { text: string; stepId: string | null },
): Overlay {
  const about =
    look === 'ring' || look === 'arrow' || look === 'magnify' ? { x: 540, y: 290, w: 200, h: 140 } : null
  const size =
    look === 'table'
      ? { w: 380, h: 248 }
      : look === 'hops'
        ? { w: 620, h: 129 }
        : look === 'sentence'
          ? { w: sentenceSizes(words.text)[1]![0], h: 84 }
          : look === 'magnify'
            ? { w: 400, h: 280 }
            : about!
  const place =
    look === 'ring' || look === 'arrow' ? about! : { x: film.width - safe.x - size.w, y: safe.y, ...size }
  return {
    id,
    look,
    takeId,
    from,
    to: Math.max(from + 1, to),
    text: words.text.slice(0, 80),
    stepId: words.stepId,
    place,
    at: about,
    why: null,
  }
}

/** Seconds an overlay put in by hand is shown, if its span lasts as long. */
const handSeconds = 4
/** An overlay put in by hand at a frame of a span: about the line that is being said there, with its number sentence. */
export function handOverlay(
  look: OverlayLook,
  id: string,
  segment: Segment,
  hearing: Pick<Hearing, 'lines'> | null,
  span: { takeId: string; to: number },
  frame: Frames,
): Overlay {
  const line = hearing?.lines.findLast((l) => l.start !== null && toFrame(l.start) <= frame + 6)
  const stepId = (segment.steps.find((s) => s.id === line?.stepId) ?? segment.steps[0])?.id ?? null
  return plainOverlay(
    look,
    id,
    span.takeId,
    frame,
    Math.min(span.to, frame + handSeconds * framesPerSecond),
    { text: look === 'sentence' ? sentenceNear(segment, stepId) : '', stepId },
  )
}

export const overlayNames: Record<OverlayLook, string> = en.names.overlay
