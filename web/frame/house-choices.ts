import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { arcWords } from '@awlbox/core/plan/aim-words'
import { countWays, waysInWords } from '@awlbox/core/plan/numbers/facts'
import { numberName } from '@awlbox/core/plan/numbers/names'
import { spokenRun } from '@awlbox/core/plan/numbers/runs'
import { waysToWork } from '@awlbox/core/plan/numbers/strategies'
import { spoken } from '@awlbox/core/script/template/example'
import { showsSymbols } from '@awlbox/core/script/template/lines'
import { capital } from '@awlbox/core/words'

type Key = keyof HouseStyle
export interface Choice {
  key: Key
  label: string
  options: readonly (readonly [value: HouseStyle[Key], words: string])[]
  example: (s: HouseStyle) => string
}

const add = { a: 4, b: 3, total: 7, op: '+' as const }
const away = { a: 7, b: 2, total: 5, op: '-' as const }
export const groups: readonly { title: string; choices: readonly Choice[] }[] = [
  {
    title: 'Words',
    choices: [
      {
        key: 'add',
        label: 'Adding is',
        options: [
          ['add', '“add”'],
          ['plus', '“plus”'],
          ['and', '“and”'],
        ],
        example: (s) => `${capital(spoken(add, s))}.`,
      },
      {
        key: 'takeAway',
        label: 'Taking away is',
        options: [
          ['take away', '“take away”'],
          ['minus', '“minus”'],
          ['subtract', '“subtract”'],
        ],
        example: (s) => `${capital(spoken(away, s))}.`,
      },
      {
        key: 'equals',
        label: 'The result',
        options: [
          ['equals', '“equals”'],
          ['makes', '“makes”'],
          ['is the same as', '“is the same as”'],
        ],
        example: (s) => `${capital(spoken(add, s))}.`,
      },
      {
        key: 'pairsName',
        label: 'Pairs that make a total are',
        options: [
          ['number bonds', 'number bonds'],
          ['partners', 'partners'],
          ['part-part-whole', 'part-part-whole'],
        ],
        example: (s) => `Six and four are ${s.pairsName} of ten.`,
      },
      {
        key: 'fewer',
        label: 'Of things you count',
        options: [
          ['strict', 'always “fewer”'],
          ['either', '“less” is allowed too'],
        ],
        example: (s) =>
          s.fewer === 'strict'
            ? 'The second house has fewer parcels.'
            : 'The second house has fewer parcels, or less: both may be said.',
      },
      {
        key: 'helper',
        label: 'Whoever helps at home is',
        options: [],
        example: (s) => `Ask ${s.helper} first.`,
      },
    ],
  },
  {
    title: 'Counting and numbers',
    choices: [
      {
        key: 'countingOn',
        label: 'Counting on',
        options: [
          ['held', 'the held number is said first'],
          ['next', 'the next number is said first'],
        ],
        example: (s) => `Five are hidden and two more come: “${spokenRun(5, 7, 1, s, true)}”.`,
      },
      {
        key: 'frameFill',
        label: 'A ten frame fills',
        options: [
          ['across', 'across, in fives'],
          ['pairs', 'down, in pairs'],
        ],
        example: () => '',
      },
      {
        key: 'zeroIsPart',
        label: 'Zero',
        options: [
          [true, 'is a part: five and nothing'],
          [false, 'comes later'],
        ],
        example: (s) =>
          `Five in two parts: ${countWays(5, 2, { ordered: s.turnRoundsCount, zero: s.zeroIsPart })} ways (${waysInWords({ ordered: s.turnRoundsCount, zero: s.zeroIsPart })}).`,
      },
      {
        key: 'turnRoundsCount',
        label: 'Turned-round pairs',
        options: [
          [true, 'are two ways, named as turn-rounds'],
          [false, 'are one way'],
        ],
        example: (s) =>
          s.turnRoundsCount
            ? 'Two and three, and three and two, turned round: two ways.'
            : 'Two and three, turned round, is the same way.',
      },
      {
        key: 'unknownAnywhere',
        label: 'The unknown stands',
        options: [
          [true, 'anywhere: 6 = 4 + 2'],
          [false, 'on the right only'],
        ],
        example: (s) =>
          s.unknownAnywhere
            ? '__ = 17 − 6 and 6 = 4 + 2 may be written.'
            : '17 − 6 = __ and 4 + 2 = 6 are written.',
      },
      {
        key: 'squareFrom',
        label: 'A hundred square begins at',
        options: [
          [1, 'one'],
          [0, 'zero'],
        ],
        example: (s) => (s.squareFrom === 1 ? 'Its first row is 1 to 10.' : 'Its first row is 0 to 9.'),
      },
      {
        key: 'symbols',
        label: 'The signs + − = are shown',
        options: [
          ['secure', 'when words are secure (from four)'],
          ['start', 'from the start'],
          ['never', 'not at all'],
        ],
        example: (s) =>
          [3, 5]
            .map((age) => `At ${age}: ${showsSymbols(s, age) ? '4 + 3 = 7' : 'said, not written'}`)
            .join('. '),
      },
    ],
  },
  {
    title: 'Teaching',
    choices: [
      {
        key: 'arc',
        label: 'A lesson usually goes',
        options: (Object.keys(arcWords) as (keyof typeof arcWords)[]).map((a) => [a, arcWords[a]] as const),
        example: (s) =>
          ({
            'show-together-alone': 'Watch me first. We do it together. On your own.',
            'talk-first': 'A story, a silent think, what children say, then your numbers.',
            game: 'How the game goes, a round together, now you play.',
            explore: 'Find out for yourself. What it is called. One more, your way.',
          })[s.arc],
      },
      {
        key: 'strategyOrder',
        label: 'Ways of working come',
        options: [
          ['things-first', 'things, picture, line, in the head'],
          ['learner', 'as the learner chooses'],
        ],
        example: (s) =>
          `8 + 5: ${waysToWork({ a: 8, b: 5, total: 13, op: '+' }, s)
            .slice(0, 3)
            .map((w) => w.name.toLowerCase())
            .join(', ')} …`,
      },
      {
        key: 'fingers',
        label: 'Fingers',
        options: [
          ['welcome', 'are welcome, and the lesson says so'],
          ['unmentioned', 'are never marked down, and not mentioned'],
        ],
        example: (s) =>
          s.fingers === 'welcome'
            ? '“Fingers are good helpers.”'
            : 'Nothing is said of fingers; forbidding them is still a finding.',
      },
      {
        key: 'rivalry',
        label: 'Speed and winning',
        options: [
          [false, 'are left out'],
          [true, 'may be part of games'],
        ],
        example: (s) =>
          s.rivalry ? '“Who has the most at the end wins.”' : '“You play together, against nobody.”',
      },
      {
        key: 'answers',
        label: 'Answers to home tasks stand',
        options: [
          ['spoiler', 'at the end, after a spoiler card'],
          ['adults', 'in the grown-ups’ notes only'],
          ['never', 'nowhere'],
        ],
        example: (s) =>
          ({
            spoiler: 'The film ends with a card before the answers.',
            adults: 'The answers are in the part for grown-ups.',
            never: 'No answers are given.',
          })[s.answers],
      },
      {
        key: 'judging',
        label: 'Judging goes',
        options: [
          ['scale', 'by secure, nearly, not yet, can’t tell'],
          ['pairs', 'by comparing pairs of replies'],
        ],
        example: (s) =>
          s.judging === 'scale' ? 'One reply, one of four.' : 'Two replies to one task: which shows more?',
      },
      {
        key: 'proposals',
        label: 'What the checks propose is seen',
        options: [
          ['before', 'before you judge'],
          ['after', 'only after you have judged'],
        ],
        example: (s) =>
          s.proposals === 'before'
            ? '“Proposed: secure, alone” stands beside the keys.'
            : 'You judge first; then it is said whether the checks agree.',
      },
      {
        key: 'defaultWait',
        label: 'A question with no wait gets',
        options: [
          [3, '3 seconds'],
          [5, '5 seconds'],
          [8, '8 seconds'],
          [10, '10 seconds'],
        ],
        example: (s) => `“How many are left?” … ${numberName(s.defaultWait)} seconds to think.`,
      },
      {
        key: 'defaultPause',
        label: 'A stop of the film with no time gets',
        options: [
          [60, '1 minute'],
          [90, '90 seconds'],
          [120, '2 minutes'],
          [180, '3 minutes'],
        ],
        example: (s) => `“Find another way.” The clock counts ${s.defaultPause} s at home.`,
      },
      {
        key: 'smallMegabytes',
        label: 'The small version of a film has at most',
        options: [
          [15, '15 MB for ten minutes'],
          [25, '25 MB for ten minutes'],
          [40, '40 MB for ten minutes'],
        ],
        example: (s) =>
          `A film of six minutes: up to ${Math.round(s.smallMegabytes * 0.6)} MB for homes that pay for what they load.`,
      },
    ],
  },
]
