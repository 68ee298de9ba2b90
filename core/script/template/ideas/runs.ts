import type { Example } from '../../../contracts/lesson.ts'
import { capital } from '../../../words.ts'
import { type Line, n, several, wait, type Writing, written } from '../lines.ts'
import type { Teaching } from '../teaching.ts'
import { counting, photoOf } from './counting.ts'

/** Runs of numbers and what two digits are worth: facts are single numbers (`#`), to 100. */

const clear: Line = ['do', 'Clear the table']
const now = (together: boolean): string => (together ? 'Now you. ' : '')
const oneTen = (w: Writing, and = ''): Line =>
  photoOf(w, `Put ${n(10)} of your own things in two rows of five: that is one ten.${and}`, 10)

/** A run on and the same run back: `by` apart, three numbers beyond the first. */
const ends = (e: Example, by: number): [number, number] => [e.a, e.a + 3 * by]
const names = (from: number, to: number, by: number): string =>
  Array.from({ length: Math.abs(to - from) / by + 1 }, (_, i) => n(from + i * (to < from ? -by : by))).join(
    ', ',
  )

const toTwenty: Teaching = {
  ...counting,
  aim: () => 'We will count on from any number, and back again.',
  tools: () => ['a number line to twenty or paper to draw one'],
  story: (e, w) => ({
    tells: `${w.story.who} stands at door ${n(e.a)} of a street.`,
    asks: 'Which doors come next?',
  }),
  play: (e, w, together) => {
    const [from, to] = ends(e, 1)
    return [
      ['say', `${w.story.who} stands at door ${n(from)} of a street.`],
      ['do', 'Lay out a number line 0 to 20'],
      ['do', `Mark ${from} on the line`],
      ['ask', `${now(together)}Which three doors come next?`],
      wait(w),
      ['count', `${from} to ${to}`],
      ['reveal', `${capital(names(from + 1, to, 1))}.`],
      ['ask', `Now back. Which door comes just before ${n(from)}?`],
      wait(w),
      ['reveal', `${capital(n(from - 1))}.`],
      ['count', `back from ${to} to ${from - 1}`],
      clear,
    ]
  },
  alone: (e) => `Say the numbers from ${n(e.a)} on to twenty, then back to ${n(e.a)}.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} counts: ${names(e.a, e.a + 2, 1)}. Which number comes next?`,
    { kind: 'number', answer: e.a + 3 },
  ],
  choice: (e) => {
    const [from, to] = ends(e, 1)
    return [
      'ask',
      'Which run has every number?',
      {
        kind: 'choice',
        choices: [
          [from, from + 1, to, to + 1],
          [from, from + 1, from + 2, to],
          [from, from + 2, to, to + 1],
        ].map((list) => capital(list.map(n).join(', '))),
        answer: 1,
      },
    ]
  },
  photo: (_, w) =>
    photoOf(w, 'Write the numbers eleven to twenty in order and put one of your own things on each.', 10),
  looks: (e) => [
    ['do', 'Lay out a number line 0 to 20'],
    ['do', `Mark ${e.a} on the line`],
  ],
  ways: (e) => [
    {
      name: 'Along the line',
      briefly: 'They may go along a number line with a finger.',
      lines: [
        ['do', 'Lay out a number line 0 to 20'],
        ['do', `Hop from ${e.a} to ${e.a + 3}`],
      ],
    },
    {
      name: 'Say the run',
      briefly: 'They may say the numbers from there.',
      lines: [['count', `${e.a} to ${e.a + 3}`]],
    },
  ],
  found: (e) => `After ${n(e.a)} comes ${n(e.a + 1)}.`,
}

const inTens: Teaching = {
  ...counting,
  aim: () => 'We will count in tens and see each ten on the hundred square.',
  tools: () => ['a hundred square or squared paper'],
  story: (e, w) => ({
    tells: `${w.story.who} ties ${w.story.things} up in tens, up to ${n(e.a)}.`,
    asks: 'Which numbers do we say?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} ties ${w.story.things} up in tens.`],
    ['do', `Lay out a hundred square${w.style.squareFrom === 0 ? ' from 0' : ''}`],
    ['do', `Mark ${Array.from({ length: e.a / 10 }, (_, i) => 10 * (i + 1)).join(', ')} on the square`],
    ['ask', `${now(together)}Which numbers do we say, ten by ten?`],
    wait(w),
    ['count', `in tens from 10 to ${e.a}`],
    ['reveal', `${capital(n(e.a / 10))} tens are ${n(e.a)}.`],
    clear,
  ],
  alone: (e) => `Say the tens from ten to ${n(e.a)} and back. Show ten fingers for each.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} counts in tens: ${names(e.a - 20, e.a, 10)}. Which ten comes next?`,
    { kind: 'number', answer: e.a + 10 },
  ],
  choice: (e) => [
    'ask',
    `How many tens are in ${n(e.a)}?`,
    {
      kind: 'choice',
      choices: [e.a / 10 - 1, e.a / 10, e.a / 10 + 1].map((k) => `${capital(n(k))} tens`),
      answer: 1,
    },
  ],
  photo: (_, w) => oneTen(w),
  looks: (e, w) => [
    ['do', `Lay out a hundred square${w.style.squareFrom === 0 ? ' from 0' : ''}`],
    ['do', `Mark ${Array.from({ length: e.a / 10 }, (_, i) => 10 * (i + 1)).join(', ')} on the square`],
  ],
  ways: (e, w) => [
    {
      name: 'Rods, one ten each',
      briefly: 'They may lay out a rod for each ten.',
      lines: [
        ['do', `Put ${e.a / 10} tens on the table`],
        ['count', `in tens from 10 to ${e.a}`],
      ],
    },
    {
      name: 'Down the hundred square',
      briefly: 'They may go down a hundred square.',
      lines: [
        ['do', `Lay out a hundred square${w.style.squareFrom === 0 ? ' from 0' : ''}`],
        ['do', `Jump ${e.a / 10 - 1} tens from 10`],
      ],
    },
  ],
  found: (e) => `${capital(n(e.a / 10))} tens are ${n(e.a)}.`,
}

const digits = (e: Example): [number, number] => [Math.floor(e.a / 10), e.a % 10]
const lots = (k: number, one: string): string => `${n(k)} ${one}${k === 1 ? '' : 's'}`
const tensAndOnes: Teaching = {
  ...counting,
  aim: () => 'We will build numbers from tens and ones and read what we built.',
  tools: () => ['paper', 'a pencil'],
  story: (e, w) => ({
    tells: `${w.story.who} has ${lots(digits(e)[0], 'box').replace(/boxs$/, 'boxes')} of ten and ${several(digits(e)[1], w.story)} more.`,
    asks: 'Which number is that?',
  }),
  play: (e, w, together) => {
    const [t, o] = digits(e)
    return [
      ['say', `${w.story.who} has some full boxes of ten, and some ${w.story.things} more.`],
      ['do', o ? `Put ${t} tens and ${o} ones on the table` : `Put ${t} tens on the table`],
      ['ask', `${now(together)}Which number is that?`],
      wait(w),
      ['count', `in tens from 10 to ${10 * t}`],
      ['reveal', `${capital(n(e.a))}: ${lots(t, 'ten')} and ${o ? lots(o, 'one') : 'no ones'}.`],
      ...(o ? written(w, `${10 * t} + ${o} = ${e.a}`) : [['write', String(e.a)] as Line]),
      clear,
    ]
  },
  alone: (e) => `Write ${e.a} on paper. Draw a long stick for each ten and a dot for each one.`,
  number: (e) => [
    'ask',
    `${capital(lots(digits(e)[0], 'ten'))} and ${digits(e)[1] ? lots(digits(e)[1], 'one') : 'no ones'}: which number is that?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e) => {
    const [t, o] = digits(e)
    const say = (x: number, y: number) => `${capital(lots(x, 'ten'))} and ${y ? lots(y, 'one') : 'no ones'}`
    return [
      'ask',
      `What is ${e.a} made of?`,
      {
        kind: 'choice',
        choices: [o !== t && o > 0 ? say(o, t) : say(t - 1, o), say(t, o), say(t + 1 > 9 ? t - 2 : t + 1, o)],
        answer: 1,
      },
    ]
  },
  photo: (_, w) => oneTen(w),
  looks: (e) => [
    [
      'do',
      digits(e)[1]
        ? `Put ${digits(e)[0]} tens and ${digits(e)[1]} ones on the table`
        : `Put ${digits(e)[0]} tens on the table`,
    ],
  ],
  found: (e) =>
    `${capital(n(e.a))} is ${lots(digits(e)[0], 'ten')} and ${digits(e)[1] ? lots(digits(e)[1], 'one') : 'no ones'}.`,
}

export const runIdeas: Readonly<Record<string, Teaching>> = {
  'count-20': toTwenty,
  tens: inTens,
  'two-digits': tensAndOnes,
}
