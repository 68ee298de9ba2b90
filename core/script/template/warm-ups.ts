import type { Line, Writing } from './lines.ts'
import type { LessonWriting, NewWord } from './teaching.ts'
import { capital } from '../../words.ts'

export interface WarmUp {
  id: string
  name: string
  /** Largest number it counts to, and whether it is done seated and quiet. */
  upTo: number
  quiet: boolean
  lines: (w: Writing) => Line[]
}
/** Short ways into the numbers, our own: movement with a seated way beside it, or a chant. Picked by the range of the lesson. */
const warmUps: readonly WarmUp[] = [
  {
    id: 'knees-5',
    name: 'Five pats on your knees',
    upTo: 5,
    quiet: true,
    lines: () => [
      ['say', 'Pat your knees and count with me.'],
      ['count', '1 to 5, with a tap for each'],
      ['count', '5 to 1'],
    ],
  },
  {
    id: 'post-round-10',
    name: 'Up and down the post round',
    upTo: 10,
    quiet: false,
    lines: (w) => [
      ['say', `${w.story.who} climbs ten steps. March on the spot, or walk two fingers up your arm.`],
      ['count', '1 to 10, with a stamp for each'],
      ['say', 'And down again.'],
      ['count', '10 to 1'],
    ],
  },
  {
    id: 'fingers-10',
    name: 'Fingers up, fingers down',
    upTo: 10,
    quiet: true,
    lines: (w) => [
      ...(w.style.fingers === 'welcome' ? [['say', 'Fingers are good helpers.'] as Line] : []),
      ['do', 'Put 5 fingers up'],
      ['count', '1 to 5'],
      ['do', 'Put 2 fingers up'],
      ['ask', 'How many fingers are up?'],
      ['wait', '5 s'],
      ['reveal', 'Seven: five and two.'],
      ['do', 'Clear the table'],
    ],
  },
  {
    id: 'door-chant-20',
    name: 'The door chant to twenty',
    upTo: 20,
    quiet: true,
    lines: () => [
      ['say', 'Whisper the doors, and say the tens out loud.'],
      ['count', '1 to 20'],
    ],
  },
  {
    id: 'back-20',
    name: 'Back from twenty',
    upTo: 20,
    quiet: true,
    lines: () => [
      ['say', 'The van drives home past every door. Count back with me.'],
      ['count', '20 to 10'],
    ],
  },
  {
    id: 'tens-100',
    name: 'Ten doors at a time',
    upTo: 100,
    quiet: false,
    lines: () => [
      ['say', 'One big step for every ten doors, or one clap if you are sitting.'],
      ['count', 'in tens from 10 to 100, with a clap for each'],
    ],
  },
]
/** Warm-ups that fit a lesson: they reach its numbers without going far past them. */
export const warmUpsFor = (upTo: number): WarmUp[] => {
  const range = upTo <= 5 ? 5 : upTo <= 10 ? 10 : upTo <= 20 ? 20 : 100
  return warmUps.filter((x) => x.upTo === range || (range === 100 && x.upTo === 20))
}

export const theSameAgain: NewWord = {
  word: 'double',
  gesture: 'Two fists knock together.',
  means: 'the same again',
}
/** Words a structure brings in, each with a gesture of our own. */
const newWords: Readonly<Partial<Record<Writing['aim']['structure'], readonly NewWord[]>>> = {
  parts: [{ word: 'part', gesture: 'One flat hand for each part.', means: 'some of the whole' }],
  add: [{ word: 'altogether', gesture: 'Both hands sweep together.', means: 'all of them' }],
  'count-on': [{ word: 'hold', gesture: 'One hand on your head.', means: 'keep the number in your head' }],
  'take-away': [{ word: 'left', gesture: 'An open hand over what stays.', means: 'still here' }],
  doubles: [theSameAgain],
  halves: [{ word: 'half', gesture: 'One hand cuts the other palm.', means: 'one of two the same' }],
  share: [{ word: 'fair', gesture: 'Two palms level, like a balance.', means: 'everyone has the same' }],
  missing: [
    { word: 'missing', gesture: 'A hand hides behind your back.', means: 'there, but not to be seen' },
  ],
  compare: [{ word: 'fewer', gesture: 'Hands close together.', means: 'not as many' }],
  teens: [{ word: 'teen', gesture: 'Ten fingers, then some more.', means: 'ten and some' }],
}
const wordsOf = (w: LessonWriting): readonly NewWord[] => w.teach.words ?? newWords[w.aim.structure] ?? []
export const wordLines = (w: LessonWriting): Line[] =>
  wordsOf(w).map((x) => ['say', `${capital(x.word)} means ${x.means}. ${x.gesture}`])
export const lessonWords = (w: LessonWriting): { word: string; gesture: string }[] =>
  wordsOf(w).map(({ word, gesture }) => ({ word, gesture }))
