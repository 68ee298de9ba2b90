import type { Example } from '../../../contracts/lesson.ts'
import { capital } from '../../../words.ts'
import { type Line, n, several, wait } from '../lines.ts'
import type { Teaching } from '../teaching.ts'
import { boxOfTen, counting, near, photoOf, twoBoxesOfTen } from './counting.ts'

/** Numerals, number words and their order: facts are single numbers (`#`), 0–20. */

const clear: Line = ['do', 'Clear the table']
const now = (together: boolean): string => (together ? 'Now you. ' : '')
const largest = (examples: readonly Example[]): number => Math.max(1, ...examples.map((e) => e.a))
const frames = (k: number): string => (k > 10 ? 'Lay out two ten frames' : 'Lay out a ten frame')
const teen = (k: number): string => (k > 10 && k < 20 ? ` ${capital(n(k))} is ten and ${n(k - 10)}.` : '')
const few = (e: Example): number => Math.min(10, e.a)
const build = (k: number): Line[] => [
  ['do', frames(k)],
  ...(k > 0 ? [['do', `Put ${k} on the frame`] as Line] : []),
]

/** Numeral to things, and things to numeral: both ways in every example. */
const numerals: Teaching = {
  ...counting,
  aim: () => 'We will read numerals and put out as many as they say.',
  tools: (examples) => [
    `cards with the numbers zero to ${n(Math.max(5, largest(examples)))}`,
    largest(examples) > 10 ? twoBoxesOfTen : boxOfTen,
  ],
  story: (_, w) => ({
    tells: `${w.story.who} finds a card with a number on it.`,
    asks: 'Which number is it?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} finds a card.`],
    ['do', `Show the card ${e.a}`],
    ['ask', `${now(together)}Which number is it?`],
    wait(w),
    ['reveal', `${capital(n(e.a))}.${teen(e.a)}`],
    ...build(e.a),
    ...(e.a > 0
      ? [['count', `1 to ${e.a}, touching each`] as Line]
      : [['say', 'Zero: the frame stays empty.'] as Line]),
    ['say', `${capital(several(e.a, w.story))}: the card and the frame tell the same.`],
    ['write', String(e.a)],
    clear,
  ],
  alone: (e) => `Write ${e.a} with a finger in the air, then put out as many things as it says.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} writes the numeral for ${n(e.a)}. Which one is it?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e) => [
    'ask',
    `Which numeral says ${n(e.a)}?`,
    { kind: 'choice', ...(e.a > 12 && e.a < 20 ? turned(e.a) : near(e.a, String)) },
  ],
  photo: (e, w) =>
    e.a === 0
      ? photoOf(
          w,
          'Write 0 on paper, large, and one more numeral with as many things as it says. Choose three.',
          3,
        )
      : photoOf(w, `Write ${few(e)} on paper, large, and put ${n(few(e))} of your own things on it.`, few(e)),
  looks: (e) => [['do', `Show the card ${e.a}`]],
  ways: (e) => [
    {
      name: 'Count along to it',
      briefly: 'They may say the numbers up to it.',
      lines: [
        ['do', `Show the card ${e.a}`],
        ['count', e.a > 1 ? `1 to ${e.a}` : '0, 1'],
      ],
    },
    {
      name: 'Put things to it',
      briefly: 'They may put out as many things as it says.',
      lines: [['do', `Show the card ${e.a}`], ...build(e.a)],
    },
  ],
  found: (e) => `The numeral ${e.a} says ${n(e.a)}.`,
}
/** A teen, the same digits turned round, and ten and ones written side by side. */
const turned = (k: number): { choices: string[]; answer: number } => ({
  choices: [`${k % 10}1`, String(k), `10${k % 10}`],
  answer: 1,
})

/** Words easily heard or read for each other. */
const alike: Readonly<Record<number, readonly [string, string]>> = {
  0: ['one', 'ten'],
  1: ['none', 'nine'],
  2: ['ten', 'too'],
  3: ['tree', 'thirteen'],
  4: ['five', 'for'],
  5: ['four', 'nine'],
  6: ['seven', 'sixty'],
  7: ['six', 'eleven'],
  8: ['ate', 'three'],
  9: ['five', 'one'],
  10: ['two', 'then'],
}
const wordsToTen: Teaching = {
  ...numerals,
  aim: () => 'We will match number words, numerals and things.',
  story: (_, w) => ({
    tells: `${w.story.who} finds a card with a word on it.`,
    asks: 'Which number does the word say?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} finds a card with a word on it.`],
    ['do', `Show the cards "${n(e.a)}, ${e.a}"`],
    ['say', 'One card has the word and one has the numeral.'],
    ['do', 'Shuffle'],
    ['ask', `${now(together)}Which card is the word?`],
    wait(w),
    ['reveal', `This one. It says ${n(e.a)}, and so does the numeral.`],
    ...build(e.a),
    ...(e.a > 0 ? [['count', `1 to ${e.a}, touching each`] as Line] : []),
    ['say', 'The word, the numeral and the things tell the same number.'],
    clear,
  ],
  alone: (e) => `Say “${n(e.a)}” slowly. Put out as many things as the word says.`,
  number: (e, w) => [
    'ask',
    `The card on the door of ${w.story.who} says “${n(e.a)}”. Which numeral is that?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e) => {
    const [one, other] = alike[e.a] ?? alike[10]!
    return [
      'ask',
      `Which word is the number ${e.a}?`,
      { kind: 'choice', choices: [one, n(e.a), other].map(capital), answer: 1 },
    ]
  },
  photo: (e, w) =>
    photoOf(
      w,
      `Copy the word “${n(few(e) || 1)}” onto paper and put ${n(few(e) || 1)} of your own things on it.`,
      few(e) || 1,
    ),
  looks: (e) => [['do', `Show the card "${n(e.a)}"`]],
}

/** Three neighbours of a number, out of order: the largest first. */
const trio = (e: Example): [number, number, number] => {
  const middle = Math.max(1, e.a)
  return [middle - 1, middle, middle + 1]
}
const ordering: Teaching = {
  ...numerals,
  aim: () => 'We will put number cards in order, from any start.',
  tools: (examples) => [`cards with the numbers zero to ${n(Math.max(10, largest(examples) + 1))}`],
  story: (_, w) => ({
    tells: `${w.story.who} drops some number cards and they lie in a muddle.`,
    asks: 'Which comes first, and which comes next?',
  }),
  play: (e, w, together) => {
    const [x, y, z] = trio(e)
    return [
      ['say', `${w.story.who} drops some number cards and they lie in a muddle.`],
      ['do', `Show the cards ${z}, ${x}, ${y}`],
      ['ask', `${now(together)}Which comes first, and which comes next?`],
      wait(w),
      ['do', 'Put the cards in order'],
      ['count', `${x} to ${z}`],
      ['reveal', `${capital(n(x))}, ${n(y)}, ${n(z)}. We need not start again from one.`],
      clear,
    ]
  },
  alone: (e) => `Take your cards ${trio(e).map(n).join(', ')}. Mix them and put them in order.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} has door ${n(trio(e)[1])}. Which number comes next?`,
    { kind: 'number', answer: trio(e)[2] },
  ],
  choice: (e) => {
    const [x, y, z] = trio(e)
    return [
      'ask',
      'Which cards are in order?',
      { kind: 'choice', choices: [`${y}, ${x}, ${z}`, `${x}, ${y}, ${z}`, `${x}, ${z}, ${y}`], answer: 1 },
    ]
  },
  photo: (_, w) => photoOf(w, 'Lay five of your number cards in order, with no number left out.', 5),
  looks: (e) => {
    const [x, y, z] = trio(e)
    return [['do', `Show the cards ${z}, ${x}, ${y}`]]
  },
  ways: (e) => {
    const [x, y, z] = trio(e)
    return [
      {
        name: 'Find the smallest',
        briefly: 'They may look for the smallest number first.',
        lines: [
          ['do', `Show the cards ${z}, ${x}, ${y}`],
          ['do', 'Put the cards in order'],
        ],
      },
      {
        name: 'Say the numbers along',
        briefly: 'They may say the numbers along from any one.',
        lines: [
          ['do', 'Lay out a number line 0 to 10'],
          ['count', `${x} to ${z}`],
          ['do', `Mark ${x}, ${y} and ${z} on the line`],
        ],
      },
    ]
  },
  found: (e) => `In order they are ${trio(e).map(n).join(', ')}.`,
}

export const numeralIdeas: Readonly<Record<string, Teaching>> = {
  'numerals-5': numerals,
  'numerals-10': numerals,
  'words-10': wordsToTen,
  'order-10': ordering,
}
/** Numerals of teens, where the fact is ten and some ones. */
export const numeralsOfTeens: Teaching = (() => {
  const alone = (e: Example): Example => ({ a: e.total, b: 0, total: e.total, op: '#' })
  return {
    ...numerals,
    story: (e, w) => numerals.story(alone(e), w),
    play: (e, w, together) => numerals.play(alone(e), w, together),
    alone: (e, w) => numerals.alone(alone(e), w),
    tools: (examples, w) => numerals.tools(examples.map(alone), w),
    number: (e, w) => numerals.number(alone(e), w),
    choice: (e, w) => numerals.choice(alone(e), w),
    photo: (e, w) =>
      photoOf(w, `Write ${e.total} on paper, large, and put a row of ten things under it.`, 10),
    looks: (e, w) => numerals.looks!(alone(e), w),
    ways: (e, w) => numerals.ways!(alone(e), w),
    found: (e, w) => numerals.found(alone(e), w),
  } satisfies Teaching
})()
