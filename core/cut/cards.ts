import { en } from '../findings/words/en.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { type Card, cardLines, type CardLook, type CutItem, framesPerSecond } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import { isInFilm, type Lesson, type Segment, type Step } from '../contracts/lesson.ts'
import { swapsFor } from '../plan/things.ts'
import { needed } from '../script/stock.ts'
import { pauseWords } from '../script/reading.ts'
import { sentencesIn } from '../script/sentence.ts'
import { sentenceNear } from '../script/sentence-near.ts'
import { type Moment, simulate } from '../script/simulate.ts'
import { visibleThings } from '../script/table/state.ts'
import { timeLesson } from '../script/time.ts'
import { fetchLine } from './things-card.ts'
import { toFrame } from './timeline.ts'

/** The least seconds of each card: a stop and a guard must be noticed, and reached for. */
const least: Record<CardLook, number> = { aim: 4, things: 5, stop: 5, sentence: 4, guard: 5, thanks: 3 }
/** The most: who needs longer stops the film. Things are fetched while they are read. */
const longest = (look: CardLook): number => (look === 'things' ? 20 : 12)
/** Words a second at which an adult reads a card aloud to a child, and seconds to notice that it is there. */
const [aloud, noticed] = [2.2, 1.5]
/**
 * Seconds a card stays: as long as it takes to be read aloud once, never a wait of its own. Where the film is `tight`
 * against its limit, no longer than it must.
 */
export function cardSeconds(look: CardLook, title: string, lines: readonly string[], tight = false): number {
  if (tight) return least[look]
  const words = [title, ...lines].join(' ').split(/\s+/).filter(Boolean).length
  return Math.round(Math.min(longest(look), Math.max(least[look], noticed + words / aloud)))
}
/** Seconds of cards a film usually gets: with less room than this under its limit it is tight. */
const usual = 40
const known = new WeakMap<Lesson['segments'], { style: HouseStyle; tight: boolean }>()
/** Whether the clock leaves little room for cards; worked out once for a script, however many of its segments are cut. */
export function isTight(lesson: Pick<Lesson, 'segments' | 'age'>, style: HouseStyle): boolean {
  const before = known.get(lesson.segments)
  if (before?.style === style) return before.tight
  const time = timeLesson({ ...lesson, segments: lesson.segments.filter(isInFilm) }, style)
  const tight = time.watched + usual > time.filmLimit
  known.set(lesson.segments, { style, tight })
  return tight
}
/** Where a card goes: before everything, after everything, or at a second of the take. */
type CardPlace = 'start' | 'end' | { after: number }
export interface ProposedCard {
  place: CardPlace
  card: Card
}
type Whole = Pick<Lesson, 'segments' | 'title' | 'kit' | 'age'>

const newCard = (
  look: CardLook,
  id: string,
  title: string,
  lines: readonly string[] = [],
  stepId: string | null = null,
  more: { tight?: boolean; table?: string | null } = {},
): Card => ({
  kind: 'card',
  id: `card-${id}`,
  look,
  title: title.slice(0, 160),
  lines: lines.slice(0, cardLines).map((l) => l.slice(0, 120)),
  frames: cardSeconds(look, title, lines, more.tight) * framesPerSecond,
  stepId,
  ...(more.table ? { table: more.table } : {}),
  why: {
    id: `c-${id}`,
    act: 'add',
    kind: 'card',
    note: `${cardNames[look]} card: ${title}`.slice(0, 240),
    sure: true,
    state: 'open',
  },
})
export const cardNames: Record<CardLook, string> = en.names.card
const firstSaid = (s: Segment): Step | undefined => s.steps.find((x) => x.verb === 'say')
const isAnswers = (s: Segment): boolean => s.kind === 'close' && /^answers?\b/i.test(s.title.trim())

/** A card as it is added by hand. `words` are the script's own; the table is drawn on it as it is after the step `table`. */
export const plainCard = (look: CardLook, id: string, words: string, table: string | null = null): Card => ({
  ...newCard(look, id, words || cardNames[look], [], null, { table }),
  id,
  why: null,
})

/** A card put in by hand, with the script's words: a sentence with the table it is about. */
export function handCard(look: CardLook, id: string, segment: Segment): Card {
  if (look === 'stop')
    return plainCard(
      look,
      id,
      segment.steps.some((s) => s.verb === 'pause')
        ? 'Stop the film. Press play when you are ready.'
        : 'Stop the film and have a go.',
    )
  if (look !== 'sentence')
    return plainCard(look, id, segment.steps.find((s) => s.verb === 'say' || s.verb === 'ask')?.text ?? '')
  const step = segment.steps.findLast((s) => sentencesIn(s.text).length > 0)
  return plainCard(look, id, sentenceNear(segment, step?.id ?? null), step?.id ?? null)
}

/**
 * The cards a segment calls for, from the script's own words: the aim where it is told, the things needed, a stop
 * where viewers are told to stop the film, a guard before the answers, thanks at the end.
 */
export function cardsFor(
  lesson: Whole,
  segment: Segment,
  hearing: Pick<Hearing, 'lines'> | null,
  style: HouseStyle,
): ProposedCard[] {
  const out: ProposedCard[] = []
  const tight = isTight(lesson, style)
  const card = (
    look: CardLook,
    id: string,
    title: string,
    lines: readonly string[] = [],
    stepId: string | null = null,
    table: string | null = null,
  ): Card => newCard(look, id, title, lines, stepId, { tight, table })
  const moments = simulate(lesson)
  const seen = lesson.segments.filter(isInFilm)
  const aimed = seen.find((s) => s.kind === 'aim') ?? seen[0]
  if (segment.id === aimed?.id)
    out.push({
      place: 'start',
      card: card(
        'aim',
        `aim-${segment.id}`,
        (segment.kind === 'aim' ? firstSaid(segment)?.text : null) ?? lesson.title,
      ),
    })
  if (isAnswers(segment))
    out.push({
      place: 'start',
      card: card('guard', `guard-${segment.id}`, 'Answers come next.', [
        'Stop here if you are still working.',
      ]),
    })
  segment.steps.forEach((step, i) => {
    if (step.verb !== 'pause') return
    const line = hearing?.lines.find((l) => l.stepId === step.id)
    const todo = segment.steps.slice(0, i).findLast((s) => s.verb === 'ask')?.text
    if (line?.end !== null && line?.end !== undefined)
      out.push({
        place: { after: line.end + 0.3 },
        card: card(
          'stop',
          `stop-${step.id}`,
          'Stop the film',
          [pauseWords(step.text), ...(todo && todo !== step.text ? [todo] : [])],
          step.id,
          tableOn(moments, step.id),
        ),
      })
  })
  if (segment.kind === 'things needed' && lesson.kit.length) {
    const uses = new Map(needed(lesson, moments).map((n) => [n.thing, n.uses]))
    const lines = lesson.kit.map((k) =>
      fetchLine({ ...k, swap: swapsFor(k.thing, uses.get(k.thing))[0]?.name ?? null }),
    )
    // Where viewers are told to stop and fetch, they see what before the film stands still. Of cards at one place the later goes before.
    const stop = out.find((c) => c.card.look === 'stop')
    out.push({ place: stop?.place ?? 'end', card: card('things', `things-${segment.id}`, 'You need', lines) })
  }
  if (segment.id === seen.at(-1)?.id)
    out.push({ place: 'end', card: card('thanks', `thanks-${segment.id}`, 'Thank you for working with us.') })
  return out
}

/** The step itself where something lies on the table after it and can be seen: that is drawn on its card. */
const tableOn = (moments: readonly Moment[], stepId: string): string | null => {
  const after = moments.find((m) => m.step.id === stepId)?.after
  return after && visibleThings(after).length > 0 ? stepId : null
}

/** Puts cards among items: at the ends, or after the span of the take in which their moment lies. */
export function withCards(
  items: readonly CutItem[],
  cards: readonly ProposedCard[],
  takeId: string,
): CutItem[] {
  const out = [...items]
  for (const { place, card: c } of cards) {
    if (place === 'start') out.unshift(c)
    else if (place === 'end') out.push(c)
    else {
      const at = toFrame(place.after)
      const i = out.findLastIndex((x) => x.kind === 'clip' && x.takeId === takeId && x.from < at)
      out.splice(i + 1, 0, c)
    }
  }
  return out
}
