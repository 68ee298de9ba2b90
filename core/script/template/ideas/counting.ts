import type { Example } from '../../../contracts/lesson.ts'
import { capital } from '../../../words.ts'
import { type Line, n, several, wait, type Writing, written } from '../lines.ts'
import type { Teaching } from '../teaching.ts'

/** Counting, giving, grouping and hearing numbers of things: facts are single numbers (`#`), 0–20 things. */

const clear: Line = ['do', 'Clear the table']
const now = (together: boolean): string => (together ? 'Now you. ' : '')
export const photoOf = (w: Writing, makes: string, things: number): Line => [
  'pause',
  `${makes} Then ask ${w.style.helper} to take one photo of the table, with no faces in it. (180 s)`,
  { kind: 'photo', things },
]
/** Three numbers in words of which the given one is right, its neighbours wrong; never below zero. */
export const near = (right: number, say: (k: number) => string): { choices: string[]; answer: number } =>
  right === 0
    ? { choices: [0, 1, 2].map(say), answer: 0 }
    : { choices: [right - 1, right, right + 1].map(say), answer: 1 }
const runOf = (from: number, to: number): string =>
  Array.from({ length: to - from + 1 }, (_, i) => n(from + i)).join(', ')
/** What a home can have out at once for a photo. */
const few = (e: Example): number => Math.min(10, Math.max(1, e.a))
const things = (k: number, w: Writing): string => capital(several(k, w.story))
export const twoBoxesOfTen = 'two egg boxes with ten places or two drawn ten frames'
export const boxOfTen = 'an egg box with ten places or a drawn ten frame'

/** Zero on its own: a place that could hold something and holds nothing. */
function noneLeft(e: Example, w: Writing, together: boolean): Line[] {
  const ask: Line[] = [
    ['ask', `${now(together)}How many ${w.story.things} are in the jar?`],
    wait(w),
    ['reveal', `None. Zero ${w.story.things}.`],
  ]
  return [
    ...(e.a === 0
      ? [['say', 'Here is a jar. We look inside.'] as Line, ['do', 'Lay out an empty jar'] as Line]
      : [
          ['say', `${w.story.who} has ${several(e.a, w.story)} in a jar.`] as Line,
          ['do', `Put ${e.a} in the jar`] as Line,
          ['count', `1 to ${e.a}, touching each`] as Line,
          ['say', 'Out they come, every one.'] as Line,
          ['do', 'Empty the jar'] as Line,
        ]),
    ...ask,
    ...written(w, '0'),
    clear,
  ]
}

export const counting: Teaching = {
  aim: () => 'We will count things, one number for each, and say how many.',
  tools: () => [],
  story: (_, w) => ({
    tells: `${w.story.who} lays some ${w.story.things} in a row.`,
    asks: `How many ${w.story.things} are there?`,
  }),
  play: (e, w, together) =>
    e.a === 0
      ? noneLeft(e, w, together)
      : [
          ['say', `${w.story.who} lays some ${w.story.things} in a row.`],
          ['do', `Put ${e.a} in a row`],
          ['ask', `${now(together)}How many ${w.story.things} are there?`],
          wait(w),
          ['count', `1 to ${e.a}, touching each`],
          ['reveal', `${things(e.a, w)}.`],
          ['say', 'The last number tells how many there are.'],
          clear,
        ],
  alone: (e) => `Put out ${n(e.a)} of your things. Count them, one number for each.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} counts to the end: ${runOf(1, Math.max(1, e.a))}. How many ${w.story.things} are there?`,
    { kind: 'number', answer: Math.max(1, e.a) },
  ],
  choice: (e, w) => [
    'ask',
    `${w.story.who} counts ${several(Math.max(1, e.a), w.story)}. Which number is said last?`,
    { kind: 'choice', ...near(Math.max(1, e.a), (k) => capital(n(k))) },
  ],
  photo: (e, w) => photoOf(w, `Put ${n(few(e))} of your own things in a row.`, few(e)),
  looks: (e) => [['do', `Put ${Math.max(1, e.a)} in a row`]],
  found: (e, w) => `There ${e.a === 1 ? 'is' : 'are'} ${several(e.a, w.story)}.`,
}

const anyhow: Teaching = {
  ...counting,
  aim: () => 'We will count things that lie anyhow, and count none of them twice.',
  story: (_, w) => ({
    tells: `${w.story.who} drops some ${w.story.things} and they lie anyhow.`,
    asks: `How many ${w.story.things} are there?`,
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} drops some ${w.story.things} and they lie anyhow.`],
    ['do', `Scatter ${e.a} over the table`],
    ['ask', `${now(together)}How could we count them and miss none?`],
    wait(w),
    ['say', 'We move each one to the row as we count it.'],
    ['do', 'Push them into a row'],
    ['count', `1 to ${e.a}, touching each`],
    ['reveal', `${things(e.a, w)}.`],
    clear,
  ],
  alone: (e) => `Drop ${n(e.a)} of your things gently on the table. Move each one as you count it.`,
  choice: (e, w) => [
    'ask',
    `${several(e.a, w.story).replace(/^./, (c) => c.toUpperCase())} lie anyhow. How do you make sure that none is counted twice?`,
    {
      kind: 'choice',
      choices: ['Look very hard', 'Move each one as it is counted', 'Count as fast as you can'],
      answer: 1,
    },
  ],
  photo: (e, w) => photoOf(w, `Let ${n(few(e))} of your own things lie anyhow and count them.`, few(e)),
  looks: (e) => [['do', `Scatter ${e.a} over the table`]],
}

const seeing: Teaching = {
  ...counting,
  aim: () => 'We will see how many without counting.',
  story: (_, w) => ({
    tells: `${w.story.who} shows some ${w.story.things} for a moment.`,
    asks: `How many ${w.story.things} did you see?`,
  }),
  play: (e, w, together) => [
    ['say', 'Look quickly. Do not count.'],
    ['do', 'Lay out a dot card'],
    ['do', `Put ${e.a} on the left square of the dot card`],
    ['do', 'Cover the dot card'],
    ['ask', `${now(together)}How many did you see?`],
    wait(w),
    ['do', 'Uncover the dot card'],
    ['reveal', `${capital(n(e.a))}. You can see it without counting.`],
    clear,
  ],
  alone: (e) => `Put ${n(e.a)} things under a cup. Lift it quickly for somebody: how many did they see?`,
  choice: (e, w) => [
    'ask',
    `${w.story.who} sees ${n(e.a)} at a glance, then moves them about. How many are there now?`,
    { kind: 'choice', ...near(e.a, (k) => capital(n(k))) },
  ],
  number: (e, w) => [
    'ask',
    `${w.story.who} sees ${several(e.a, w.story)} at a glance. How many things is that to fetch?`,
    { kind: 'number', answer: e.a },
  ],
  photo: (e, w) => photoOf(w, `Put ${n(few(e))} of your own things so that one look is enough.`, few(e)),
  looks: (e) => [
    ['do', 'Lay out a dot card'],
    ['do', `Put ${e.a} on the left square of the dot card`],
  ],
}

/** Two groups an eye takes in: five and the rest, two and the rest for less. */
const groupsIn = (k: number): [number, number] => (k > 5 ? [5, k - 5] : k > 2 ? [2, k - 2] : [k, 0])
const grouping: Teaching = {
  ...counting,
  aim: () => 'We will see a number in groups and say which groups we see.',
  tools: () => [boxOfTen],
  story: (_, w) => ({
    tells: `${w.story.who} puts some ${w.story.things} on a frame in two colours.`,
    asks: 'Which groups do you see, and how many is that?',
  }),
  play: (e, w, together) => {
    const [a, b] = groupsIn(e.a)
    return [
      ['say', 'Look for groups.'],
      ['do', 'Lay out a ten frame'],
      ['do', `Put ${a} on the frame`],
      ...(b ? [['do', `Put ${b} blue on the frame`] as Line] : []),
      ['ask', `${now(together)}Which groups do you see, and how many is that?`],
      wait(w),
      ['reveal', b ? `${capital(n(a))} and ${n(b)}: ${n(e.a)}.` : `${capital(n(a))}.`],
      ...(b ? written(w, `${a} + ${b} = ${e.a}`) : []),
      ['ask', 'Did you see other groups?'],
      wait(w),
      clear,
    ]
  },
  alone: (e) => `Put out ${n(e.a)} in two groups, then in two others. Say the groups each time.`,
  number: (e, w) => {
    const [a, b] = groupsIn(e.a)
    return [
      'ask',
      `${w.story.who} sees a group of ${n(a)} and a group of ${n(b)}. How many is that?`,
      { kind: 'number', answer: e.a },
    ]
  },
  choice: (e) => {
    const [a, b] = groupsIn(e.a)
    return [
      'ask',
      `Which groups make ${n(e.a)}?`,
      {
        kind: 'choice',
        choices: [[a, b + 1] as const, [a, b] as const, [a + 1, b + 1] as const].map(
          ([x, y]) => `${capital(n(x))} and ${n(y)}`,
        ),
        answer: 1,
      },
    ]
  },
  photo: (e, w) => photoOf(w, `Put ${n(few(e))} of your own things in groups you can see at once.`, few(e)),
  looks: (e) => {
    const [a, b] = groupsIn(e.a)
    return [
      ['do', 'Lay out a ten frame'],
      ['do', `Put ${a} on the frame`],
      ...(b ? [['do', `Put ${b} blue on the frame`] as Line] : []),
    ]
  },
}

const sameNumber: Teaching = {
  ...counting,
  aim: () => 'We will move things about and see that the number stays the same.',
  story: (_, w) => ({
    tells: `${w.story.who} lays some ${w.story.things} out and moves them about.`,
    asks: 'How many are there now?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} lays ${several(e.a, w.story)} out.`],
    ['do', `Scatter ${e.a} over the table`],
    ['count', `1 to ${e.a}, touching each`],
    ['do', 'Shuffle them about'],
    ['ask', `${now(together)}How many are there now?`],
    wait(w),
    ['reveal', `Still ${n(e.a)}. None came and none went.`],
    ['do', 'Push them into a row'],
    ['ask', 'And now?'],
    wait(w),
    ['count', `1 to ${e.a}, touching each`],
    ['reveal', `Still ${n(e.a)}.`],
    clear,
  ],
  alone: (e) => `Make ${n(e.a)} look three ways. Is it still ${n(e.a)} each time?`,
  number: (e, w) => [
    'ask',
    `${w.story.who} has ${several(e.a, w.story)} and moves them far apart. How many are there now?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e) => [
    'ask',
    `A row of ${n(e.a)} is made longer by moving them apart. Which is true?`,
    {
      kind: 'choice',
      choices: ['Now there are more', `There are still ${n(e.a)}`, 'Now there are not so many'],
      answer: 1,
    },
  ],
  photo: (e, w) => photoOf(w, `Make ${n(few(e))} of your own things look another way.`, few(e)),
  looks: (e) => [['do', `Scatter ${e.a} over the table`]],
}

const giving: Teaching = {
  ...counting,
  aim: () => 'We will take just as many as we are asked for, and stop.',
  tools: () => ['a plate'],
  story: (e, w) => ({
    tells: `${w.story.who} asks for ${several(e.a, w.story)}.`,
    asks: 'When do we stop?',
  }),
  play: (e, w, together) => [
    ['do', `Put ${e.a + 3} on the open table`],
    ['say', `${w.story.who} asks for ${several(e.a, w.story)}, and no more.`],
    ['ask', `${now(together)}When do we stop?`],
    wait(w),
    ['do', 'Lay out a plate'],
    ['do', `Move ${e.a} to the plate`],
    ['count', `1 to ${e.a}, touching each on the plate`],
    ['reveal', `We stop at ${n(e.a)}. ${things(e.a, w)} on the plate.`],
    ['say', 'The rest stay where they are.'],
    clear,
  ],
  alone: (e) => `Give ${n(e.a)} of your things to somebody. Stop when you have said ${n(e.a)}.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} asks for ${several(e.a, w.story)}. Which number do you say when you stop?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e, w) => [
    'ask',
    `${w.story.who} asked for ${several(e.a, w.story)}. Which plate is right?`,
    { kind: 'choice', ...near(e.a, (k) => `A plate with ${n(k)}`) },
  ],
  photo: (e, w) =>
    photoOf(w, `Put ${n(few(e))} of your own things on a plate, and put the rest away.`, few(e)),
  looks: (e) => [['do', `Put ${e.a + 3} on the open table`]],
  ways: (e) => [
    {
      name: 'Say a number with each one',
      briefly: 'They may say one number with each thing they give.',
      lines: [
        ['do', `Put ${e.a + 3} on the open table`],
        ['do', 'Lay out a plate'],
        ['do', `Move ${e.a} to the plate`],
        ['count', `1 to ${e.a}, touching each on the plate`],
      ],
    },
    {
      name: 'Give it in two lots',
      briefly: 'They may give some, then the others.',
      lines: [
        ['do', `Put ${e.a + 3} on the open table`],
        ['do', 'Lay out a plate'],
        ['do', `Move ${Math.max(1, e.a - 1)} to the plate`],
        ...(e.a > 1 ? [['do', 'Move 1 to the plate'] as Line] : []),
        ['count', `1 to ${e.a}, touching each on the plate`],
      ],
    },
  ],
  found: (e) => `We stop at ${n(e.a)}.`,
}

const sounds: Teaching = {
  ...counting,
  aim: () => 'We will count sounds we hear and do not see.',
  story: (_, w) => ({
    tells: `${w.story.who} knocks behind the door.`,
    asks: 'How many knocks did you hear?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} knocks behind the door. Shut your eyes and listen.`],
    ['sound', `Knock ${e.a} times, behind the door`],
    ['ask', `${now(together)}How many knocks did you hear?`],
    wait(w),
    ['do', `Put ${e.a} in a row`],
    ['count', `1 to ${e.a}, touching each`],
    ['reveal', `${capital(n(e.a))} knocks, one thing for each.`],
    clear,
  ],
  alone: (e) => `Ask somebody to knock ${n(e.a)} times. Put one thing out for each knock.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} knocks: ${Array.from({ length: e.a }, () => 'knock').join(', ')}. How many knocks?`,
    { kind: 'number', answer: e.a },
  ],
  choice: (e, w) => [
    'ask',
    `${w.story.who} says one number for each of ${n(e.a)} knocks. Which number is said last?`,
    { kind: 'choice', ...near(e.a, (k) => capital(n(k))) },
  ],
  photo: (e, w) =>
    photoOf(w, `Let somebody knock ${n(few(e))} times and put one of your own things out for each.`, few(e)),
  looks: (e) => [['sound', `Knock ${e.a} times, behind the door`]],
  ways: (e) => [
    {
      name: 'A thing for each knock',
      briefly: 'They may put one thing out for each sound.',
      lines: [
        ['sound', `Knock ${e.a} times, behind the door`],
        ['do', `Put ${e.a} in a row`],
        ['count', `1 to ${e.a}, touching each`],
      ],
    },
    {
      name: 'A finger for each knock',
      briefly: 'They may put a finger up for each sound.',
      lines: [
        ['sound', `Knock ${e.a} times, behind the door`],
        ['do', `Hold up ${e.a} fingers`],
      ],
    },
  ],
  found: (e) => `${capital(n(e.a))} knocks.`,
}

const zero: Teaching = {
  ...counting,
  aim: () => 'We will find places with nothing in them, and say none of what.',
  tools: () => ['a jar or a cup'],
  story: (_, w) => ({
    tells: `${w.story.who} looks into a jar.`,
    asks: `How many ${w.story.things} are in the jar?`,
  }),
  play: noneLeft,
  alone: (e) =>
    `Put ${n(Math.max(1, e.a))} in a cup and take them out again, one by one. Say how many are left each time, to the end.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} has ${several(Math.max(1, e.a), w.story)} in a jar and takes out all of them. How many are left in the jar?`,
    { kind: 'number', answer: 0 },
  ],
  choice: (_, w) => [
    'ask',
    'Which jar is the one with zero?',
    {
      kind: 'choice',
      choices: [`The jar with one ${w.story.thing}`, 'The jar with nothing in it', 'The jar that is full'],
      answer: 1,
    },
  ],
  photo: (e, w) =>
    photoOf(
      w,
      `Put an empty plate on the table and ${n(few(e))} of your own things beside it. Say what there are none of on the plate.`,
      few(e),
    ),
  looks: () => [['do', 'Lay out an empty jar']],
  ways: (e, w) => [
    {
      name: 'Take them out one by one',
      briefly: 'They may take things out until nothing is left.',
      lines: noneLeft({ ...e, a: Math.max(2, e.a) }, w, false)
        .filter(([v]) => v === 'do')
        .slice(0, 2),
    },
    {
      name: 'Say none of what',
      briefly: 'They may say what there are none of.',
      lines: [
        ['do', 'Lay out an empty jar'],
        ['say', `There are no ${w.story.things} in the jar.`],
      ],
    },
  ],
  found: (_, w) => `None is zero: zero ${w.story.things}.`,
}

export const countingIdeas: Readonly<Record<string, Teaching>> = {
  'count-3': counting,
  'count-5': counting,
  'count-10': counting,
  'count-scattered': anyhow,
  'see-3': seeing,
  'see-groups': grouping,
  'same-number': sameNumber,
  'give-n': giving,
  sounds,
  zero,
}
