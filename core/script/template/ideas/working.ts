import type { Example } from '../../../contracts/lesson.ts'
import { exampleSentence, factFrom, leftOver } from '../../../plan/numbers/facts.ts'
import { capital } from '../../../words.ts'
import { spoken, storyOf } from '../example.ts'
import { type Line, n, several, showsSymbols, wait, type Writing, written } from '../lines.ts'
import type { Teaching } from '../teaching.ts'
import { theSameAgain } from '../warm-ups.ts'
import { boxOfTen, near, photoOf, twoBoxesOfTen } from './counting.ts'

/** Ideas that share a structure with others and differ in what they teach of it: each says only what is its own. */

const clear: Line = ['do', 'Clear the table']
const now = (together: boolean): string => (together ? 'Now you. ' : '')
const put = (k: number, where: string, face = ''): Line[] =>
  k > 0 ? [['do', `Put ${k}${face} on the ${where}`]] : []
const frames = (most: number): Line => ['do', most > 10 ? 'Lay out two ten frames' : 'Lay out a ten frame']
const close = (e: Example, w: Writing): Line[] => [
  ...written(w, exampleSentence(e)),
  ['say', `${capital(spoken(e, w.style))}.`],
  clear,
]
const count = (k: number): Line[] => (k > 0 ? [['count', `1 to ${k}, touching each`]] : [])
const said = (e: Example, w: Writing): string =>
  showsSymbols(w.style, w.age) ? exampleSentence(e) : capital(spoken(e, w.style))

const oneComesOrGoes: Teaching['story'] = (e, w) => ({
  tells: `${w.story.who} has ${several(e.a, w.story)}. ${e.op === '+' ? 'One more comes.' : `One goes to ${w.story.place}.`}`,
  asks: `How many ${w.story.things} now?`,
})
const oneMoreOrFewer: Partial<Teaching> = {
  aim: () => 'We will say the next number and the one before without counting from one.',
  story: oneComesOrGoes,
  tools: () => [],
  words: [],
  play: (e, w, together) => [
    ['say', `${w.story.who} has ${several(e.a, w.story)}.`],
    ...put(e.a, 'row'),
    ['say', e.op === '+' ? 'One more comes.' : `One goes to ${w.story.place}.`],
    ['do', e.op === '+' ? 'Put 1 blue on the row' : 'Take 1 from the row'],
    ['ask', `${now(together)}How many ${w.story.things} now? Need we count them all?`],
    wait(w),
    [
      'reveal',
      `${e.total ? capital(n(e.total)) : 'None'}. ${e.op === '+' ? 'It is the next number' : 'It is the number before'}.`,
    ],
    ...close(e, w),
  ],
  number: (e, w) => {
    const { tells, asks } = oneComesOrGoes(e, w)
    return ['ask', `${tells} ${asks}`, { kind: 'number', answer: e.total }]
  },
  alone: (e) =>
    `Put out ${n(e.a)}. ${e.op === '+' ? 'Put one more' : 'Take one away'}. Say how many without counting from one.`,
  choice: (e) => [
    'ask',
    e.op === '+' ? `Which is one more than ${n(e.a)}?` : `Which number comes just before ${n(e.a)}?`,
    { kind: 'choice', ...near(e.total, (k) => capital(n(k))) },
  ],
  photo: (e, w) =>
    photoOf(
      w,
      e.op === '+'
        ? `Put ${n(Math.min(9, e.a))} of your own things in a row, and one more in another place.`
        : `Put ${n(Math.min(10, Math.max(1, e.total)))} of your own things in a row: one before ${n(Math.min(10, Math.max(1, e.total)) + 1)}.`,
      e.op === '+' ? Math.min(9, e.a) + 1 : Math.min(10, Math.max(1, e.total)),
    ),
}

const streets = (e: Example): [number, number] => [Math.max(e.a, e.b), Math.min(e.a, e.b)]
const moreOrFewer: Partial<Teaching> = {
  aim: () => 'We will match one to one and say which has more and which has fewer.',
  story: (e, w) => ({
    tells: `${w.story.who} has ${several(e.a, w.story)} for one street and ${n(e.b)} for the next.`,
    asks: 'Which street has more, or are they the same?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} has some ${w.story.things} for two streets.`],
    ['do', 'Lay out two shelves'],
    ...put(e.a, 'top shelf'),
    ...put(e.b, 'bottom shelf', ' blue'),
    ['ask', `${now(together)}Which shelf has more, or are they the same?`],
    wait(w),
    ['say', 'Match them one to one.'],
    ['reveal', e.a === e.b ? 'They are the same.' : `The ${e.a > e.b ? 'top' : 'bottom'} shelf has more.`],
    ...(e.a === e.b
      ? []
      : [['say', `${capital(n(streets(e)[0]))} is more than ${n(streets(e)[1])}.`] as Line]),
    clear,
  ],
  alone: (e) => `Make a row of ${n(e.a)} and a row of ${n(e.b)}. Match them. Which row has more?`,
  number: (e, w) => [
    'ask',
    `One street gets ${several(streets(e)[0], w.story)} and the next gets ${n(streets(e)[1])}. How many for the street with more?`,
    { kind: 'number', answer: streets(e)[0] },
  ],
  choice: (e, w) => [
    'ask',
    `${capital(several(e.a, w.story))} on the first shelf, ${n(e.b)} on the second. Which shelf has more?`,
    {
      kind: 'choice',
      choices: ['The first', 'They are the same', 'The second'],
      answer: e.a > e.b ? 0 : e.a === e.b ? 1 : 2,
    },
  ],
}

const byCountingUp: Partial<Teaching> = {
  aim: () => 'We will count up from the smaller number to find the difference.',
  tools: () => ['a number line to twenty or paper to draw one'],
  words: [],
  photo: (e, w) => {
    const [more, less] = streets(e)
    return more === less
      ? photoOf(w, `Draw a line with numbers and put one of your own things on ${n(more)}.`, 1)
      : photoOf(
          w,
          `Draw a line with numbers to twenty. Put one of your own things on each number from ${n(less + 1)} to ${n(more)}.`,
          more - less,
        )
  },
  play: (e, w, together) => {
    const [more, less] = streets(e)
    return [
      ['say', storyOf(e, w).tells],
      ['do', `Lay out a number line 0 to ${more > 10 ? 20 : 10}`],
      ['do', more === less ? `Mark ${more} on the line` : `Mark ${less} and ${more} on the line`],
      ['ask', `${now(together)}${storyOf(e, w).asks}`],
      wait(w),
      ...(more === less ? [] : [['do', `Hop from ${less} to ${more}`] as Line]),
      ['reveal', `${capital(spoken(e, w.style))}.`],
      clear,
    ]
  },
  alone: (e) =>
    `Draw a line with numbers. Jump from ${n(streets(e)[1])} up to ${n(streets(e)[0])}. How many?`,
}

const byHeart: Partial<Teaching> = {
  aim: (w) => `We will say the ${w.style.pairsName} quickly, without counting.`,
  play: (e, w, together) => [
    ['say', `${capital(n(e.total))} places. Some are full.`],
    frames(e.total),
    ...put(e.a, 'frame'),
    ['ask', `${now(together)}Quickly: ${n(e.a)} and how many make ${n(e.total)}?`],
    ['wait', '3 s'],
    ...put(e.b, 'frame', ' blue'),
    ['reveal', e.b ? `${capital(n(e.b))}.` : 'None: it is full already.'],
    ...close(e, w),
  ],
  alone: (e) => `Show some fingers out of ${n(e.total)} to somebody. They say how many are folded. Be quick.`,
  choice: (e) => [
    'ask',
    `${capital(n(e.a))} and how many make ${n(e.total)}?`,
    { kind: 'choice', ...near(e.b, (k) => capital(n(k))) },
  ],
}

/** A fact of a missing part as the sum it comes from. */
const family = (e: Example): Example[] => {
  const all = [
    factFrom('+', e.a, e.b),
    factFrom('+', e.b, e.a),
    factFrom('-', e.total, e.b),
    factFrom('-', e.total, e.a),
  ]
  return all.filter((x, i) => all.findIndex((y) => exampleSentence(y) === exampleSentence(x)) === i)
}
const fourSentences: Partial<Teaching> = {
  aim: () => 'We will find the adding and the taking away that belong together.',
  tools: () => [boxOfTen],
  words: [],
  story: (e, w) => ({
    tells: `${w.story.who} has ${several(e.a, w.story)} for one door and ${n(e.b)} for the next, ${n(e.total)} altogether.`,
    asks: 'Which adding and which taking away can we tell?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} has ${several(e.a, w.story)} for one door and ${n(e.b)} for the next.`],
    frames(e.total),
    ...put(e.a, 'frame'),
    ...put(e.b, 'frame', ' blue'),
    ['ask', `${now(together)}Which adding and which taking away can we tell?`],
    wait(w),
    ...count(e.total),
    ...family(e).flatMap((x): Line[] => [
      ...written(w, exampleSentence(x)),
      ['say', `${capital(spoken(x, w.style))}.`],
    ]),
    clear,
  ],
  alone: (e) => `Put out ${n(e.a)} and ${n(e.b)} in two colours. Tell two addings and two takings away.`,
  number: (e, w) => [
    'ask',
    `${w.story.who} has ${several(e.total, w.story)}. ${capital(n(e.a))} ${e.a === 1 ? 'is' : 'are'} for the first door, the others for the next. How many for the next door?`,
    { kind: 'number', answer: e.b },
  ],
  choice: (e, w) => {
    const right = factFrom('-', e.total, e.a)
    const others = [
      { ...right, total: right.total + 1 },
      { ...right, total: right.total + 2 },
    ]
    return [
      'ask',
      `Which one belongs to ${said(factFrom('+', e.a, e.b), w)}?`.replace(
        /to ([A-Z])/,
        (_, c: string) => `to ${c.toLowerCase()}`,
      ),
      { kind: 'choice', choices: [others[0]!, right, others[1]!].map((x) => said(x, w)), answer: 1 },
    ]
  },
  found: (e, w) => `${capital(spoken(factFrom('-', e.total, e.a), w.style))}.`,
}

/** Two sides that are the same: the total first, where the house lets it stand there. */
const sides = (e: Example, w: Writing, b = e.b): { signs: string; words: string } => {
  const parts = [`${e.a} + ${b}`, `${n(e.a)} ${w.style.add} ${n(b)}`] as const
  return w.style.unknownAnywhere
    ? { signs: `${e.total} = ${parts[0]}`, words: `${capital(n(e.total))} ${w.style.equals} ${parts[1]}` }
    : { signs: `${parts[0]} = ${e.total}`, words: `${capital(parts[1])} ${w.style.equals} ${n(e.total)}` }
}
const sameAs: Partial<Teaching> = {
  aim: () => 'We will see that two sides can be the same, whichever side comes first.',
  tools: () => ['two strips of paper for shelves'],
  words: [],
  number: (e, w) => [
    'ask',
    `The top shelf has ${several(e.total, w.story)} and the bottom shelf has ${n(e.a)}. How many more for the bottom shelf, so that both are the same?`,
    { kind: 'number', answer: e.b },
  ],
  photo: (e, w) => {
    const side = Math.min(5, e.total)
    return photoOf(
      w,
      `Put ${n(side)} of your own things on one strip of paper and ${n(side)} on another.`,
      2 * side,
    )
  },
  story: (e, w) => ({
    tells: `${w.story.who} puts ${several(e.total, w.story)} on one side, and ${n(e.a)} and some more on the other. The sides are the same.`,
    asks: 'How many more are on the other side?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} wants both shelves to be the same.`],
    ['do', 'Lay out two shelves'],
    ...put(e.total, 'top shelf'),
    ...put(e.a, 'bottom shelf', ' blue'),
    ...(w.style.unknownAnywhere ? written(w, `${e.total} = ${e.a} + __`) : []),
    ['ask', `${now(together)}How many more on the bottom shelf?`],
    wait(w),
    ...put(e.b, 'bottom shelf'),
    [
      'reveal',
      e.b ? `${capital(n(e.b))} more, and the shelves are the same.` : 'None: they are the same already.',
    ],
    ...written(w, sides(e, w).signs),
    ['say', `${sides(e, w).words}.`],
    clear,
  ],
  alone: (e) => `Put ${n(e.total)} on one strip. Make the same on the other strip from two groups.`,
  choice: (e, w) => {
    const say = (b: number): string => sides(e, w, b)[showsSymbols(w.style, w.age) ? 'signs' : 'words']
    return ['ask', 'Which one is true?', { kind: 'choice', ...near(e.b, say) }]
  },
}

const turnedRound: Partial<Teaching> = {
  aim: () => 'We will turn two groups round and see that the total stays the same.',
  play: (e, w, together) => {
    const turned = factFrom('+', e.b, e.a)
    return [
      ['say', storyOf(e, w).tells],
      frames(e.total),
      ...put(e.a, 'frame'),
      ...put(e.b, 'frame', ' blue'),
      ['ask', `${now(together)}${storyOf(e, w).asks}`],
      wait(w),
      ...count(e.total),
      ['reveal', `${capital(n(e.total))} altogether.`],
      ...close(e, w),
      ['say', `Now turned round: ${n(e.b)} first, then ${n(e.a)}.`],
      ...put(e.b, 'frame', ' blue'),
      ...put(e.a, 'frame'),
      ['ask', 'How many now? Need we count again?'],
      wait(w),
      ['reveal', `${capital(n(e.total))} again. None came and none went.`],
      ...close(turned, w),
    ]
  },
  alone: (e) =>
    `Put out ${n(e.a)}, then ${n(e.b)}. Walk round the table and look from the other side. How many now?`,
  choice: (e, w) => {
    const say = (a: number, b: number): string =>
      showsSymbols(w.style, w.age) ? `${a} + ${b}` : `${capital(n(a))} ${w.style.add} ${n(b)}`
    return [
      'ask',
      `Which has the same total as ${say(e.a, e.b).replace(/^[A-Z]/, (c) => c.toLowerCase())}?`,
      { kind: 'choice', choices: [say(e.b, e.a + 1), say(e.b, e.a), say(e.b + 1, e.a + 1)], answer: 1 },
    ]
  },
}

const doubleAndOne: Partial<Teaching> = {
  aim: () => 'We will use a double we know to find its neighbour.',
  tools: () => ['a two-square card or paper folded once'],
  words: [theSameAgain],
  photo: (e, w) => {
    const small = Math.min(e.a, e.b, 4)
    return photoOf(
      w,
      `Put ${n(small)} of your own things on each half of a folded paper, and one more.`,
      2 * small + 1,
    )
  },
  play: (e, w, together) => {
    const small = Math.min(e.a, e.b)
    const side = e.a > e.b ? 'left' : 'right'
    return [
      ['say', storyOf(e, w).tells],
      ['do', 'Lay out a dot card'],
      ['do', `Put ${small} on the left square of the dot card`],
      ['do', `Put ${small} on the right square of the dot card`],
      ['say', `Double ${n(small)} is ${n(2 * small)}.`],
      ['do', `Put 1 blue on the ${side} square of the dot card`],
      ['ask', `${now(together)}And one more: how many altogether?`],
      wait(w),
      ['reveal', `${capital(n(e.total))}: double ${n(small)} and one more.`],
      ...close(e, w),
    ]
  },
  alone: (e) => `Make double ${n(Math.min(e.a, e.b))} with your things. Put one more. How many?`,
  choice: (e) => {
    const small = Math.min(e.a, e.b)
    return [
      'ask',
      `Which double helps with ${n(e.a)} and ${n(e.b)}?`,
      {
        kind: 'choice',
        choices: [small + 3, small, small + 2].map((k) => `Double ${n(k)}`),
        answer: 1,
      },
    ]
  },
}

const throughTenUp: Partial<Teaching> = {
  aim: () => 'We will fill the ten first, then put the rest.',
  tools: () => [twoBoxesOfTen],
  photo: (e, w) => {
    const big = Math.max(e.a, e.b)
    return photoOf(
      w,
      `Put ${n(big)} of your own things in a box of ten or on a drawn frame, and fill it with ${n(10 - big)} more.`,
      10,
    )
  },
  play: (e, w, together) => {
    const [big, small] = [Math.max(e.a, e.b), Math.min(e.a, e.b)]
    const fill = 10 - big
    return [
      ['say', storyOf(e, w).tells],
      frames(20),
      ...put(big, 'frame'),
      ['ask', `${now(together)}${storyOf(e, w).asks} What fills the ten?`],
      wait(w),
      ...put(fill, 'frame', ' blue'),
      [
        'say',
        `${capital(n(fill))} fill${fill === 1 ? 's' : ''} the ten. ${capital(n(small))} is ${n(fill)} and ${n(small - fill)}.`,
      ],
      ...put(small - fill, 'frame', ' blue'),
      ['reveal', `Ten and ${n(small - fill)}: ${n(e.total)}.`],
      ...close(e, w),
    ]
  },
  alone: (e) =>
    `Put out ${n(Math.max(e.a, e.b))} in a box of ten. Fill it from ${n(Math.min(e.a, e.b))} more. How many are over?`,
  number: (e, w) => [
    'ask',
    `${storyOf(e, w).tells} ${storyOf(e, w).asks}`,
    { kind: 'number', answer: e.total },
  ],
  choice: (e) => {
    const [big, small] = [Math.max(e.a, e.b), Math.min(e.a, e.b)]
    const fill = 10 - big
    return [
      'ask',
      `${capital(n(big))} and ${n(small)}: how do we part the ${n(small)} to make ten first?`,
      {
        kind: 'choice',
        choices: [
          `${capital(n(fill + 1))} and ${n(Math.max(0, small - fill - 1))}`,
          `${capital(n(fill))} and ${n(small - fill)}`,
          `${capital(n(fill + 2))} and ${n(Math.max(0, small - fill - 2))}`,
        ],
        answer: 1,
      },
    ]
  },
}

const throughTenDown: Partial<Teaching> = {
  aim: () => 'We will go back to ten first, then take the rest.',
  tools: () => [twoBoxesOfTen],
  play: (e, w, together) => {
    const first = e.a - 10
    return [
      ['say', storyOf(e, w).tells],
      frames(20),
      ...put(e.a, 'frame'),
      ['ask', `${now(together)}${storyOf(e, w).asks} What do we take to come to ten?`],
      wait(w),
      ['do', `Cross out ${first}`],
      [
        'say',
        `${capital(n(first))} away and ten are left. ${capital(n(e.b))} is ${n(first)} and ${n(e.b - first)}.`,
      ],
      ['do', `Cross out ${e.b - first}`],
      ['reveal', `${e.total ? capital(n(e.total)) : 'None'} left.`],
      ...close(e, w),
    ]
  },
  alone: (e) => `Put out ${n(e.a)}: ten and ${n(e.a - 10)}. Take ${n(e.b)} away, and stop at ten on the way.`,
  choice: (e) => {
    const first = e.a - 10
    return [
      'ask',
      `${capital(n(e.a))} take away ${n(e.b)}: what do we take first to come to ten?`,
      { kind: 'choice', ...near(first, (k) => capital(n(k))) },
    ]
  },
}

const drawing: Partial<Teaching> = {
  aim: () => 'We will draw both parts, cross them off while we count, and ring the total.',
  tools: () => ['paper', 'a pencil'],
  play: (e, w, together) => [
    ['say', storyOf(e, w).tells],
    ['do', 'Lay out a dot card'],
    ['do', `Write ${e.a} in the left square of the dot card`],
    ['do', `Write ${e.b} in the right square of the dot card`],
    ...(e.a ? [['do', `Draw ${e.a} dots in the left square of the dot card`] as Line] : []),
    ...(e.b ? [['do', `Draw ${e.b} dots in the right square of the dot card`] as Line] : []),
    ['ask', `${now(together)}How many circles altogether?`],
    wait(w),
    ...count(e.total),
    ['do', 'Lay out a number line 0 to 10'],
    ['do', `Ring ${e.total} on the line`],
    ['reveal', `${capital(n(e.total))} altogether.`],
    ...close(e, w),
  ],
  alone: (e) => `Draw ${n(e.a)} circles, then ${n(e.b)}. Cross each off while you count. How many?`,
  photo: (e, w) =>
    photoOf(
      w,
      `Draw a circle for each of ${n(Math.max(1, Math.min(10, e.total)))} and put one of your own things on every circle.`,
      Math.max(1, Math.min(10, e.total)),
    ),
}

const jumpsBack: Partial<Teaching> = {
  aim: () => 'We will count back and count the jumps, not the place we stand on.',
  tools: (examples) => [
    `a number line to ${examples.some((e) => e.a > 10) ? 'twenty' : 'ten'} or paper to draw one`,
  ],
  words: [],
  play: (e, w, together) => [
    ['say', `${w.story.who} stands at door ${n(e.a)} and goes ${n(e.b)} back.`],
    ['do', `Lay out a number line 0 to ${e.a > 10 ? 20 : 10}`],
    ['do', `Mark ${e.a} on the line`],
    ['ask', `${now(together)}Where does the last jump land?`],
    wait(w),
    ...(e.b ? [['do', `Hop back ${e.b} from ${e.a}`] as Line] : []),
    ['say', `${capital(n(e.b))} jump${e.b === 1 ? '' : 's'}. We do not count the place we stand on.`],
    ['reveal', `${e.total ? capital(n(e.total)) : 'Zero'}.`],
    ...close(e, w),
  ],
  alone: (e) => `Draw a line with numbers. Put a finger on ${n(e.a)} and jump back ${n(e.b)}. Where are you?`,
}

const noneOrAll: Partial<Teaching> = {
  aim: () => 'We will take nothing away, and take everything away.',
}

/** Whole things in twos: a number is odd when one is left alone. */
const oddOrEven: Partial<Teaching> = {
  aim: () => 'We will put things in pairs and say odd or even by the one left alone.',
  tools: () => [],
  words: [],
  story: (e, w) => ({
    tells: `${w.story.who} puts ${several(e.a, w.story)} in pairs.`,
    asks: 'Is one left alone?',
  }),
  play: (e, w, together) => [
    ['say', `${w.story.who} puts ${several(e.a, w.story)} in pairs.`],
    ['do', 'Lay out a pair plate'],
    ['do', `Put ${e.a} on the pair plate`],
    ['ask', `${now(together)}Is one left alone? Odd or even?`],
    wait(w),
    [
      'reveal',
      e.a % 2
        ? `One is left alone. ${capital(n(e.a))} is odd.`
        : `None is left alone. ${capital(n(e.a))} is even.`,
    ],
    clear,
  ],
  alone: (e) => `Put ${n(e.a)} of your things in pairs. Is one left alone?`,
  number: (e, w) => [
    'ask',
    `${w.story.who} puts ${several(e.a, w.story)} in pairs. How many are left alone?`,
    { kind: 'number', answer: e.a % 2 },
  ],
  choice: (e) => [
    'ask',
    `Is ${n(e.a)} odd or even?`,
    { kind: 'choice', choices: ['Odd', 'Even'], answer: e.a % 2 ? 0 : 1 },
  ],
  photo: (e, w) => photoOf(w, `Put ${n(Math.min(10, e.a))} of your own things in pairs.`, Math.min(10, e.a)),
  ways: (e) => [
    {
      name: 'Put them in pairs',
      briefly: 'They may put things in pairs.',
      lines: [
        ['do', 'Lay out a pair plate'],
        ['do', `Put ${e.a} on the pair plate`],
      ],
    },
    {
      name: 'Share them between two',
      briefly: 'They may share between two and see what is over.',
      lines: [
        ['do', `Put ${e.a} on the open table`],
        ['do', `Share ${e.a} among 2 plates, one at a time`],
      ],
    },
  ],
  found: (e) => `${capital(n(e.a))} is ${e.a % 2 ? 'odd' : 'even'}.`,
}

const groupsOfSize: Partial<Teaching> = {
  aim: () => 'We will make groups of one size and count the groups.',
  tools: () => [],
  words: [],
  story: (e, w) => ({
    tells: `${w.story.who} has ${several(e.a, w.story)} and puts ${n(e.b)} in each bag.`,
    asks: 'How many bags are full?',
  }),
  play: (e, w, together) => {
    const over = leftOver(e)
    return [
      ['say', `${w.story.who} has ${several(e.a, w.story)} and puts ${n(e.b)} in each bag.`],
      ['do', `Put ${e.a} on the open table`],
      ['ask', `${now(together)}How many bags will be full?`],
      wait(w),
      ['do', `Put them in groups of ${e.b}`],
      [
        'reveal',
        `${capital(n(e.total))} ${e.total === 1 ? 'group' : 'groups'} of ${n(e.b)}${over ? `, and ${n(over)} left over` : ''}.`,
      ],
      ['say', 'We count the groups, not the things.'],
      clear,
    ]
  },
  alone: (e) => `Put out ${n(e.a)}. Put them in groups of ${n(e.b)}. How many groups?`,
  number: (e, w) => [
    'ask',
    `${w.story.who} has ${several(e.a, w.story)} and puts ${n(e.b)} in each bag. How many bags are full?`,
    { kind: 'number', answer: e.total },
  ],
  choice: (e, w) => [
    'ask',
    `${capital(several(e.a, w.story))}, ${n(e.b)} in each bag. How many bags are full?`,
    { kind: 'choice', ...near(e.total, (k) => `${capital(n(k))} bag${k === 1 ? '' : 's'}`) },
  ],
  photo: (e, w) => {
    const things = Math.min(Math.floor(10 / e.b), Math.max(1, e.total)) * e.b
    return photoOf(w, `Put ${n(things)} of your own things in groups of ${n(e.b)}.`, things)
  },
  ways: (e) => [
    {
      name: 'Put them in groups',
      briefly: 'They may put things in groups and count the groups.',
      lines: [
        ['do', `Put ${e.a} on the open table`],
        ['do', `Put them in groups of ${e.b}`],
      ],
    },
    {
      name: 'Jump along a line',
      briefly: 'They may jump along a line.',
      lines: [
        ['do', 'Lay out a number line 0 to 20'],
        ...Array.from({ length: e.total }, (_, i): Line => ['do', `Hop from ${i * e.b} to ${(i + 1) * e.b}`]),
      ],
    },
  ],
  found: (e) => `${capital(n(e.total))} ${e.total === 1 ? 'group' : 'groups'} of ${n(e.b)}.`,
}

const tensThenOnes: Partial<Teaching> = {
  aim: () => 'We will take the tens off first, then the ones.',
  tools: () => ['paper', 'a pencil'],
  play: (e, w, together) => {
    const [tens, ones] = [Math.floor(e.b / 10) * 10, e.b % 10]
    return [
      ['say', storyOf(e, w).tells],
      ['do', `Lay out an empty line 0 to ${Math.ceil((e.a + 1) / 10) * 10}`],
      ['ask', `${now(together)}${storyOf(e, w).asks}`],
      wait(w),
      ['say', `${capital(n(e.b))} is ${n(tens)} and ${n(ones)}. The tens go first.`],
      ['do', `Hop back ${tens} from ${e.a}`],
      ['do', `Hop back ${ones}`],
      ['reveal', `${e.total ? capital(n(e.total)) : 'None'} left.`],
      ...close(e, w),
    ]
  },
  alone: (e) =>
    `Draw a line. Start at ${n(e.a)} and jump back ${n(Math.floor(e.b / 10) * 10)}, then ${n(e.b % 10)}. Where are you?`,
  choice: (e, w) => {
    const tens = Math.floor(e.b / 10) * 10
    return [
      'ask',
      `${capital(n(e.a))} ${w.style.takeAway} ${n(tens)} comes first. Where does that jump land?`,
      {
        kind: 'choice',
        choices: [e.a - tens + 10, e.a - tens, e.a - tens + 1].map((k) => capital(n(k))),
        answer: 1,
      },
    ]
  },
  photo: (_, w) => photoOf(w, `Put ${n(10)} of your own things in two rows of five: that is one ten.`, 10),
}

/** Ideas with a structure, where they differ from it. */
export const workingIdeas: Readonly<Record<string, Partial<Teaching>>> = {
  'next-before': oneMoreOrFewer,
  'more-fewer': moreOrFewer,
  difference: byCountingUp,
  'pairs-recall': byHeart,
  'fact-family': fourSentences,
  equals: sameAs,
  'turn-rounds': turnedRound,
  'near-doubles': doubleAndOne,
  'make-ten': throughTenUp,
  'through-ten': throughTenDown,
  'draw-to-add': drawing,
  'count-back': jumpsBack,
  'take-zero': noneOrAll,
  'odd-even': oddOrEven,
  groups: groupsOfSize,
  'take-tens': tensThenOnes,
}
