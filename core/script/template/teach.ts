import type { Aim, Example, Structure } from '../../contracts/lesson.ts'
import { ideaById, ladder } from '../../plan/ladder/ladder.ts'
import { crossesTen, thingsFor } from '../../plan/numbers/facts.ts'
import { capital } from '../../words.ts'
import { playExample, spoken, storyOf } from './example.ts'
import { boxOfTen, counting, countingIdeas, twoBoxesOfTen } from './ideas/counting.ts'
import { numeralIdeas, numeralsOfTeens } from './ideas/numerals.ts'
import { runIdeas } from './ideas/runs.ts'
import { workingIdeas } from './ideas/working.ts'
import { n, type Writing } from './lines.ts'
import { aloneText, choiceTask, numberTask, photoTask } from './tasks.ts'
import type { Teaching } from './teaching.ts'

const aimLines: Record<Exclude<Structure, 'numbers'>, string> = {
  parts: 'We will find ways to part a number in two:',
  add: 'We will put things together and find how many.',
  'take-away': 'We will send things off and find how many are left.',
  'count-on': 'We will count on from a number we hold in our heads.',
  doubles: 'We will find doubles: the same again.',
  halves: 'We will find halves: two that are the same.',
  share: 'We will share things so that it is fair.',
  missing: 'We will find the part that is hidden.',
  compare: 'We will find which has more and which has fewer.',
  teens: 'We will build numbers from ten and some more.',
  tens: 'We will go on and back in tens.',
  'round-back': 'We will take away a number that is nearly a ten.',
  order: 'We will find where numbers live on a long line.',
}
/** What a structure's own play is done on; nothing where a row of things is enough. */
const toolsOf = (
  structure: Exclude<Structure, 'numbers'>,
  examples: readonly Example[],
  w: Writing,
): string[] => {
  const most = Math.max(0, ...examples.map(thingsFor))
  switch (structure) {
    case 'count-on':
      return ['a tub with a lid']
    case 'share':
    case 'halves':
      return [`${n(structure === 'halves' ? 2 : w.aim.among)} plates`]
    case 'doubles':
      return ['a two-square card or paper folded once']
    case 'missing':
      return ['a cloth to hide some under']
    case 'compare':
      return []
    case 'tens':
      return ['a hundred square or squared paper']
    case 'order':
    case 'round-back':
      return ['paper', 'a pencil']
    case 'parts':
    case 'add':
    case 'take-away':
    case 'teens':
      return most > 20 ? ['paper', 'a pencil'] : [most > 10 ? twoBoxesOfTen : boxOfTen]
  }
}

/** What a structure teaches where its idea says nothing of its own. */
const ofStructure = (structure: Exclude<Structure, 'numbers'>): Teaching => ({
  aim: (w) => (structure === 'parts' ? `${aimLines.parts} its ${w.style.pairsName}.` : aimLines[structure]),
  tools: (examples, w) => toolsOf(structure, examples, w),
  story: storyOf,
  play: playExample,
  alone: aloneText,
  number: numberTask,
  choice: choiceTask,
  photo: photoTask,
  found: (e, w) => `${capital(spoken(e, w.style))}.`,
})

/** Whether an idea's own way of teaching suits every fact of a set; a teacher may have chosen others. */
const suits: Readonly<Record<string, (e: Example) => boolean>> = {
  'make-ten': (e) => crossesTen(e) && e.total <= 19 && e.a < 10 && e.b < 10,
  'through-ten': (e) => crossesTen(e) && e.a < 20 && e.b < 10,
  'near-doubles': (e) => Math.abs(e.a - e.b) === 1 && e.total <= 20,
  'next-before': (e) => e.b === 1 && e.a <= 20,
  'draw-to-add': (e) => e.total <= 10,
  'turn-rounds': (e) => e.total <= 20,
  'pairs-recall': (e) => e.total <= 20,
  'fact-family': (e) => e.total <= 20,
  equals: (e) => e.total <= 10,
  difference: (e) => Math.max(e.a, e.b) <= 20,
  'count-back': (e) => e.a <= 20,
  'odd-even': (e) => e.b === 2 && e.a <= 20,
  groups: (e) => e.a <= 20 && e.total > 0,
  'take-tens': (e) => e.b > 10 && e.b % 10 > 0,
  tens: (e) => e.a % 10 === 0 && e.a >= 30,
  'two-digits': (e) => e.a > 20 && e.a < 100,
  'count-20': (e) => e.a >= 1 && e.a <= 17,
  'order-10': (e) => e.a <= 19,
  'see-3': (e) => e.a > 0 && e.a <= 5,
  'see-groups': (e) => e.a > 2 && e.a <= 10,
  'numerals-5': (e) => e.a <= 20,
  'numerals-10': (e) => e.a <= 20,
  'words-10': (e) => e.a <= 10,
  zero: (e) => e.a <= 10,
}
const onThings = (e: Example): boolean => e.a > 0 && e.a <= 20

/**
 * How a lesson's idea is taught. An idea of the setting's own, or one whose numbers were changed past what its way can
 * show, is taught as its structure is.
 */
export function teachingOf(
  ideaId: string,
  aim: Pick<Aim, 'structure'>,
  examples: readonly Example[],
): Teaching {
  const fits = examples.every(suits[ideaId] ?? (aim.structure === 'numbers' ? onThings : () => true))
  if (aim.structure === 'numbers') {
    const own = countingIdeas[ideaId] ?? numeralIdeas[ideaId] ?? runIdeas[ideaId]
    if (own && fits) return own
    return examples.every((e) => e.a <= 20) ? counting : runIdeas['two-digits']!
  }
  if (ideaId === 'numerals-20' && aim.structure === 'teens') return numeralsOfTeens
  // A teacher may have made the idea's examples of something else.
  const own = ideaById(ideaId, ladder)?.structure === aim.structure ? workingIdeas[ideaId] : undefined
  return { ...ofStructure(aim.structure), ...(own && fits ? own : {}) }
}
