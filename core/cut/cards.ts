import { type Card, type CardLook, type CutItem, framesPerSecond } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Lesson, Segment, Step } from '../contracts/lesson.ts'
import { pauseWords } from '../script/reading.ts'
import { toFrame } from './timeline.ts'

/** Seconds a card stays: long enough to be read twice aloud by an adult, short enough not to be a wait of its own. */
export const cardSeconds: Record<CardLook, number> = { aim: 5, things: 7, stop: 6, sentence: 4, guard: 5, thanks: 4 }
/** Where a card goes: before everything, after everything, or at a second of the take. */
export type CardPlace = 'start' | 'end' | { after: number }
export interface ProposedCard {
  place: CardPlace
  card: Card
}
type Whole = Pick<Lesson, 'segments' | 'title' | 'kit'>

const card = (look: CardLook, id: string, title: string, lines: readonly string[] = [], stepId: string | null = null): Card => ({
  kind: 'card', id: `card-${id}`, look, title: title.slice(0, 160), lines: lines.slice(0, 8).map((l) => l.slice(0, 120)), frames: cardSeconds[look] * framesPerSecond, stepId,
  why: { id: `c-${id}`, act: 'add', kind: 'card', note: `${cardNames[look]} card: ${title}`.slice(0, 240), sure: true, state: 'open' },
})
export const cardNames: Record<CardLook, string> = { aim: 'Aim', things: 'Things', stop: 'Stop', sentence: 'Number sentence', guard: 'Answers come', thanks: 'Thank-you' }
const firstSaid = (s: Segment): Step | undefined => s.steps.find((x) => x.verb === 'say')
const isAnswers = (s: Segment): boolean => s.kind === 'close' && /^answers?\b/i.test(s.title.trim())

/** A card as it is added by hand. `words` are the script's own. */
export const plainCard = (look: CardLook, id: string, words: string): Card => ({ ...card(look, id, words || cardNames[look]), id, why: null })

/**
 * The cards a segment calls for, from the script's own words: the aim where it is told, the things needed, a stop
 * where viewers are told to stop the film, a guard before the answers, thanks at the end.
 */
export function cardsFor(lesson: Whole, segment: Segment, hearing: Pick<Hearing, 'lines'> | null): ProposedCard[] {
  const out: ProposedCard[] = []
  const seen = lesson.segments.filter((s) => s.audience === 'children')
  const aimed = seen.find((s) => s.kind === 'aim') ?? seen[0]
  if (segment.id === aimed?.id) out.push({ place: 'start', card: card('aim', `aim-${segment.id}`, (segment.kind === 'aim' ? firstSaid(segment)?.text : null) ?? lesson.title) })
  if (segment.kind === 'things needed' && lesson.kit.length) out.push({ place: 'end', card: card('things', `things-${segment.id}`, 'You need', lesson.kit.map((k) => `${k.count} ${k.thing}`)) })
  if (isAnswers(segment)) out.push({ place: 'start', card: card('guard', `guard-${segment.id}`, 'Answers come next.', ['Stop here if you are still working.']) })
  segment.steps.forEach((step, i) => {
    if (step.verb !== 'pause') return
    const line = hearing?.lines.find((l) => l.stepId === step.id)
    const todo = segment.steps.slice(0, i).findLast((s) => s.verb === 'ask')?.text
    if (line?.end !== null && line?.end !== undefined) out.push({ place: { after: line.end + 0.3 }, card: card('stop', `stop-${step.id}`, 'Stop the film', [pauseWords(step.text), ...(todo && todo !== step.text ? [todo] : [])], step.id) })
  })
  if (segment.id === seen.at(-1)?.id) out.push({ place: 'end', card: card('thanks', `thanks-${segment.id}`, 'Thank you for working with us.') })
  return out
}

/** Puts cards among items: at the ends, or after the span of the take in which their moment lies. */
export function withCards(items: readonly CutItem[], cards: readonly ProposedCard[], takeId: string): CutItem[] {
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
