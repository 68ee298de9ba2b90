import type { Arc, Structure } from '../contracts/lesson.ts'

/** What example sets are made of, in words of a sentence. */
export const structureWords: Record<Structure, string> = {
  parts: 'parts of a number',
  add: 'adding',
  'take-away': 'taking away',
  'count-on': 'counting on',
  doubles: 'doubles',
  halves: 'halves',
  share: 'sharing',
  missing: 'a missing part',
  compare: 'comparing',
  teens: 'ten and ones',
  tens: 'tens on and back',
  'round-back': 'round and put back',
  order: 'order on a line',
  numbers: 'numbers themselves',
}
/** Arcs of a lesson, in words. */
export const arcWords: Record<Arc, string> = {
  'show-together-alone': 'show, together, alone',
  'talk-first': 'talk first',
  game: 'game led',
  explore: 'explore, then name',
}
