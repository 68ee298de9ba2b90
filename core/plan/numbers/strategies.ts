import { type HouseStyle } from '../../contracts/house-style.ts'
import type { Example, Step } from '../../contracts/lesson.ts'
import type { Hop } from '../../script/table/state.ts'
import { exampleSentence, leftOver } from './facts.ts'
import { numberName } from './names.ts'
import { countOnLine } from './runs.ts'
import { capital } from '../../words.ts'

const rungNames = ['things', 'picture', 'track', 'head'] as const
/** What a way of working stands on: things, a picture, a line or square, or nothing but the head. */
type Rung = (typeof rungNames)[number]

interface ScriptLine {
  verb: Step['verb']
  text: string
}
export interface Worked {
  id: string
  name: string
  rung: Rung
  /** Script lines from a bare table to the answer, ready to be steps. */
  lines: ScriptLine[]
  hops: Hop[]
  answer: number
  /** Where the answer is read off when the lines have been played. */
  shown: 'left' | 'line' | 'hops' | 'plate' | 'written' | 'unmatched'
}
interface Strategy {
  id: string
  name: string
  rung: Rung
  applies: (e: Example) => boolean
  work: (e: Example, say: Saying) => Omit<Worked, 'id' | 'name' | 'rung' | 'answer'>
}
interface Saying {
  style: HouseStyle
  /** Makes "4 + 3 = 7" as it is said here. */
  sentence: (a: number, op: '+' | '-', b: number, total: number) => string
}

const n = numberName
const doing = (text: string): ScriptLine => ({ verb: 'do', text })
const saying = (text: string): ScriptLine => ({ verb: 'say', text: capital(text) })
const counting = (text: string): ScriptLine => ({ verb: 'count', text })
const writing = (text: string): ScriptLine => ({ verb: 'write', text })
const frames = (most: number): ScriptLine =>
  doing(most > 20 ? 'Lay out three ten frames' : most > 10 ? 'Lay out two ten frames' : 'Lay out a ten frame')
const put = (count: number, where: string, face = ''): ScriptLine[] =>
  count > 0 ? [doing(`Put ${count}${face} on the ${where}`)] : []
const line = (from: number, to: number): ScriptLine =>
  doing(
    to <= 20
      ? `Lay out a number line 0 to ${to <= 10 ? 10 : 20}`
      : `Lay out an empty line ${Math.floor(from / 10) * 10} to ${Math.max(10, Math.ceil(to / 10) * 10)}`,
  )
const hop = (from: number, to: number): Hop => ({ from, to })
const hopLine = (h: Hop): ScriptLine => doing(`Hop from ${h.from} to ${h.to}`)
const within =
  (most: number) =>
  (e: Example): boolean =>
    Math.max(e.a, e.total) <= most
const plus = (e: Example): boolean => e.op === '+' && e.a > 0 && e.b > 0
const minus = (e: Example): boolean => e.op === '-' && e.b > 0

const alone = (e: Example): boolean => e.op === '#' && e.a > 0
/** Every way of working the table knows, easiest first within its rung. */
const strategies: readonly Strategy[] = [
  {
    id: 'count-all',
    name: 'Count all',
    rung: 'things',
    applies: (e) => plus(e) && within(20)(e),
    work: (e) => ({
      lines: [
        frames(e.total),
        ...put(e.a, 'frame'),
        ...put(e.b, 'frame', ' blue'),
        saying('count them all.'),
        counting(`1 to ${e.total}, touching each`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'count-each',
    name: 'Touch and count each one',
    rung: 'things',
    applies: (e) => alone(e) && e.a <= 20,
    work: (e) => ({
      lines: [...put(e.a, 'row'), saying('touch each one once.'), counting(`1 to ${e.a}, touching each`)],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'move-each',
    name: 'Move each one as it is counted',
    rung: 'things',
    applies: (e) => alone(e) && e.a > 1 && e.a <= 10,
    work: (e) => ({
      lines: [
        ...put(e.a, 'open table'),
        saying('move each one away as you count it.'),
        doing(`Move ${e.a} to the row`),
        counting(`1 to ${e.a}, touching each`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'five-and-some',
    name: 'See five and some more',
    rung: 'picture',
    applies: (e) => alone(e) && e.a > 5 && e.a <= 10,
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(5, 'frame'),
        ...put(e.a - 5, 'frame', ' blue'),
        saying(`five and ${n(e.a - 5)} is ${n(e.a)}.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'ten-and-some',
    name: 'See ten and some more',
    rung: 'picture',
    applies: (e) => alone(e) && e.a > 10 && e.a <= 20,
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(10, 'frame'),
        ...put(e.a - 10, 'frame', ' blue'),
        saying(`ten and ${n(e.a - 10)} is ${n(e.a)}.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'see-twos',
    name: 'See it in twos',
    rung: 'picture',
    applies: (e) => alone(e) && e.a > 2 && e.a <= 10,
    work: (e) => ({
      lines: [
        doing('Lay out a pair plate'),
        doing(`Put ${e.a} on the pair plate`),
        saying(e.a % 2 ? 'two and two, and one alone.' : 'two and two, and none alone.'),
        counting(`1 to ${e.a}, touching each`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'along-the-line',
    name: 'Find it on a line',
    rung: 'track',
    applies: (e) => alone(e) && e.a <= 20,
    work: (e) => ({
      lines: [line(0, e.a), doing(`Hop from 0 to ${e.a}`)],
      hops: [hop(0, e.a)],
      shown: 'line',
    }),
  },
  {
    id: 'tens-and-ones',
    name: 'Build it from tens and ones',
    rung: 'things',
    applies: (e) => alone(e) && e.a > 20 && e.a < 100 && e.a % 10 > 0,
    work: (e) => ({
      lines: [
        doing(`Put ${Math.floor(e.a / 10)} tens and ${e.a % 10} ones on the table`),
        writing(`${Math.floor(e.a / 10) * 10} + ${e.a % 10} = ${e.a}`),
      ],
      hops: [],
      shown: 'written',
    }),
  },
  {
    id: 'tens-along-a-line',
    name: 'Jump in tens, then in ones',
    rung: 'track',
    applies: (e) => alone(e) && e.a > 20 && e.a <= 100,
    work: (e) => {
      const tens = Math.floor(e.a / 10) * 10
      const hops = [hop(0, tens), ...(e.a > tens ? [hop(tens, e.a)] : [])]
      return { lines: [line(0, e.a), ...hops.map(hopLine)], hops, shown: 'line' }
    },
  },
  {
    id: 'take-things',
    name: 'Take things away and count what is left',
    rung: 'things',
    applies: (e) => minus(e) && within(30)(e),
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(e.a, 'frame'),
        doing(`Take away ${e.b}`),
        ...(e.total ? [counting(`1 to ${e.total}, touching each`)] : [saying('none are left.')]),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'five-and-rest',
    name: 'Take five, then the rest',
    rung: 'things',
    applies: (e) => minus(e) && within(20)(e) && e.b > 5 && e.b <= 10,
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(e.a, 'frame'),
        saying(`${n(e.b)} is five and ${n(e.b - 5)}.`),
        doing('Take away 5'),
        doing(`Take away ${e.b - 5}`),
        ...(e.total ? [counting(`1 to ${e.total}, touching each`)] : []),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'five-and-five',
    name: 'Fives together, then the rest',
    rung: 'things',
    applies: (e) => plus(e) && e.a >= 5 && e.b >= 5 && e.a <= 10 && e.b <= 10,
    work: (e) => ({
      lines: [
        frames(e.total),
        doing('Put 5 on the frame'),
        doing('Put 5 blue on the frame'),
        saying(`five and five is ten. ${capital(n(e.a - 5))} and ${n(e.b - 5)} more.`),
        ...put(e.a - 5, 'frame'),
        ...put(e.b - 5, 'frame', ' blue'),
        saying(`that makes ${n(e.total)}.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'share-one-by-one',
    name: 'Share one at a time',
    rung: 'things',
    applies: (e) => e.op === '÷' && e.a > 0 && e.a <= 30,
    work: (e) => ({
      lines: [
        doing(`Share ${e.a} among ${e.b}`),
        saying(`${n(e.total)} each${leftOver(e) ? ` and ${n(leftOver(e))} left over` : ''}.`),
      ],
      hops: [],
      shown: 'plate',
    }),
  },
  {
    id: 'match',
    name: 'Match one to one',
    rung: 'things',
    applies: (e) => e.op === '~' && e.a <= 10 && e.b <= 10,
    work: (e) => ({
      lines: [
        doing('Lay out two shelves'),
        ...put(e.a, 'top shelf'),
        ...put(e.b, 'bottom shelf', ' blue'),
        saying(
          e.a === e.b
            ? 'each has a partner: the same.'
            : `${n(e.total)} ${e.total === 1 ? 'has' : 'have'} no partner.`,
        ),
      ],
      hops: [],
      shown: 'unmatched',
    }),
  },
  {
    id: 'double-and-one',
    name: 'Double and one',
    rung: 'picture',
    applies: (e) => plus(e) && Math.abs(e.a - e.b) === 1 && e.total <= 19,
    work: (e) => {
      const small = Math.min(e.a, e.b)
      return {
        lines: [
          doing('Lay out a dot card'),
          doing(`Put ${small} and ${small} on the dot card`),
          saying(`double ${n(small)} is ${n(2 * small)}.`),
          doing(`Put 1 blue on the ${e.a > e.b ? 'left' : 'right'} square of the dot card`),
          saying(`one more is ${n(e.total)}.`),
        ],
        hops: [],
        shown: 'left',
      }
    },
  },
  {
    id: 'make-ten',
    name: 'Make ten',
    rung: 'picture',
    applies: (e) => plus(e) && e.a < 10 && e.b < 10 && e.total > 10,
    work: (e) => ({
      lines: [
        frames(e.total),
        ...put(e.a, 'frame'),
        saying(`${n(10 - e.a)} more ${10 - e.a === 1 ? 'makes' : 'make'} ten.`),
        ...put(10 - e.a, 'frame', ' blue'),
        ...put(e.total - 10, 'frame', ' blue'),
        saying(`ten and ${n(e.total - 10)} is ${n(e.total)}.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'through-ten',
    name: 'Back to ten, then the rest',
    rung: 'picture',
    applies: (e) => minus(e) && e.a > 10 && e.a <= 20 && e.total < 10,
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(e.a, 'frame'),
        doing(`Take away ${e.a - 10}`),
        saying('ten are left.'),
        ...(e.b - (e.a - 10) > 0 ? [doing(`Take away ${e.b - (e.a - 10)}`)] : []),
        saying(`${n(e.total)} ${e.total === 1 ? 'is' : 'are'} left.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'cross-off',
    name: 'Draw and cross off',
    rung: 'picture',
    applies: (e) => minus(e) && within(30)(e),
    work: (e) => ({
      lines: [
        frames(e.a),
        ...put(e.a, 'frame'),
        doing(`Cross out ${e.b}`),
        saying(`${n(e.total)} ${e.total === 1 ? 'is' : 'are'} left.`),
      ],
      hops: [],
      shown: 'left',
    }),
  },
  {
    id: 'count-on',
    name: 'Count on from the first',
    rung: 'track',
    applies: (e) => plus(e) && e.b <= 10 && within(100)(e),
    work: (e) => ({
      lines: [
        line(e.a, e.total),
        doing(`Mark ${e.a} on the line`),
        saying(`start at ${n(e.a)}.`),
        doing(`Hop 1 on from ${e.a}`),
        ...Array.from({ length: e.b - 1 }, () => doing('Hop 1 on')),
        counting(countOnLine(e.a, e.total, false)),
      ],
      hops: Array.from({ length: e.b }, (_, i) => hop(e.a + i, e.a + i + 1)),
      shown: 'line',
    }),
  },
  {
    id: 'count-on-larger',
    name: 'Count on from the larger',
    rung: 'track',
    applies: (e) => plus(e) && e.a < e.b && e.a <= 10 && within(100)(e),
    work: (e) => ({
      lines: [
        line(e.b, e.total),
        saying(`${n(e.b)} is the larger. Start there.`),
        doing(`Mark ${e.b} on the line`),
        doing(`Hop 1 on from ${e.b}`),
        ...Array.from({ length: e.a - 1 }, () => doing('Hop 1 on')),
        counting(countOnLine(e.b, e.total, false)),
      ],
      hops: Array.from({ length: e.a }, (_, i) => hop(e.b + i, e.b + i + 1)),
      shown: 'line',
    }),
  },
  {
    id: 'count-back',
    name: 'Count back',
    rung: 'track',
    applies: (e) => minus(e) && e.b <= 10 && within(100)(e),
    work: (e) => ({
      lines: [
        line(e.total, e.a),
        doing(`Mark ${e.a} on the line`),
        saying(`stand on ${n(e.a)}. Only the jumps count.`),
        doing(`Hop back 1 from ${e.a}`),
        ...Array.from({ length: e.b - 1 }, () => doing('Hop back 1')),
        saying(`you land on ${n(e.total)}.`),
      ],
      hops: Array.from({ length: e.b }, (_, i) => hop(e.a - i, e.a - i - 1)),
      shown: 'line',
    }),
  },
  {
    id: 'count-up',
    name: 'Count up to find the difference',
    rung: 'track',
    applies: (e) =>
      (minus(e) || e.op === '~') && e.a !== e.b && Math.min(e.a, e.b) > 0 && Math.max(e.a, e.b) <= 100,
    work: (e) => {
      const [low, high] = [Math.min(e.a, e.b), Math.max(e.a, e.b)]
      const hops = upTo(low, high)
      return {
        lines: [
          line(low, high),
          saying(`from ${n(low)} up to ${n(high)}.`),
          ...hops.map(hopLine),
          saying(
            `${hops.map((h) => n(h.to - h.from)).join(' and ')}${hops.length > 1 ? ` make ${n(e.total)}` : ''}.`,
          ),
        ],
        hops,
        shown: 'hops',
      }
    },
  },
  {
    id: 'tens-then-ones',
    name: 'Tens, then ones',
    rung: 'track',
    applies: (e) => (plus(e) || minus(e)) && e.b >= 10 && within(100)(e),
    work: (e) => {
      const sign = e.op === '+' ? 1 : -1
      const middle = e.a + sign * Math.floor(e.b / 10) * 10
      const hops = [hop(e.a, middle), ...(middle !== e.total ? [hop(middle, e.total)] : [])]
      return {
        lines: [
          line(Math.min(e.a, e.total), Math.max(e.a, e.total, 21)),
          ...hops.map(hopLine),
          saying(`${n(e.a)}, ${hops.map((h) => n(h.to)).join(', ')}.`),
        ],
        hops,
        shown: 'line',
      }
    },
  },
  {
    id: 'square-jumps',
    name: 'Jumps on the hundred square',
    rung: 'track',
    applies: (e) => (plus(e) || minus(e)) && e.b >= 9 && e.a >= 10 && e.total >= 1 && within(99)(e),
    work: (e, { style }) => {
      const sign = e.op === '+' ? 1 : -1
      const [tens, ones] = [Math.floor(e.b / 10), e.b % 10]
      const middle = e.a + sign * tens * 10
      return {
        lines: [
          doing(`Lay out a hundred square${style.squareFrom === 0 ? ' from 0' : ''}`),
          ...(tens ? [doing(`Jump ${sign < 0 ? 'back ' : ''}${tens} tens from ${e.a}`)] : []),
          ...(ones ? [doing(`Hop ${sign < 0 ? 'back ' : ''}${ones} from ${middle}`)] : []),
          saying(`a ten is a row ${sign > 0 ? 'down' : 'up'}. You land on ${n(e.total)}.`),
        ],
        hops: [...(tens ? [hop(e.a, middle)] : []), ...(ones ? [hop(middle, e.total)] : [])],
        shown: 'line',
      }
    },
  },
  {
    id: 'round-and-back',
    name: 'Round, then put back',
    rung: 'track',
    applies: (e) =>
      (plus(e) || minus(e)) &&
      e.b > 8 &&
      e.b % 10 >= 8 &&
      within(100)(e) &&
      (e.op === '+' ? e.a + Math.ceil(e.b / 10) * 10 <= 100 : e.a - Math.ceil(e.b / 10) * 10 >= 0),
    work: (e, { sentence }) => {
      const up = Math.ceil(e.b / 10) * 10
      const sign = e.op === '+' ? 1 : -1
      const far = e.a + sign * up
      const hops = [hop(e.a, far), hop(far, e.total)]
      return {
        lines: [
          line(Math.min(e.a, far, e.total), Math.max(e.a, far, e.total, 21)),
          saying(`${n(e.b)} is nearly ${n(up)}.`),
          ...hops.map(hopLine),
          writing(`${e.a} ${sign > 0 ? '+' : '−'} ${up} ${sign > 0 ? '−' : '+'} ${up - e.b} = ${e.total}`),
          saying(`${sentence(e.a, sign > 0 ? '+' : '-', e.b, e.total)}.`),
        ],
        hops,
        shown: 'line',
      }
    },
  },
  {
    id: 'split-tens',
    name: 'Tens together, ones together',
    rung: 'head',
    applies: (e) => plus(e) && e.a >= 10 && e.b >= 10 && within(100)(e) && (e.a % 10) + (e.b % 10) < 10,
    work: (e) => {
      const [at, bt] = [Math.floor(e.a / 10) * 10, Math.floor(e.b / 10) * 10]
      const ones = (e.a % 10) + (e.b % 10)
      return {
        lines: [
          writing(`${at} + ${bt} = ${at + bt}`),
          writing(`${e.a % 10} + ${e.b % 10} = ${ones}`),
          writing(`${at + bt} + ${ones} = ${e.total}`),
        ],
        hops: [],
        shown: 'written',
      }
    },
  },
  {
    id: 'known-double',
    name: 'A double known by heart',
    rung: 'head',
    applies: (e) => plus(e) && e.a === e.b && e.total <= 20,
    work: (e) => ({
      lines: [saying(`double ${n(e.a)} is ${n(e.total)}.`), writing(exampleSentence(e))],
      hops: [],
      shown: 'written',
    }),
  },
  {
    id: 'halve',
    name: 'Half of a double',
    rung: 'head',
    applies: (e) => e.op === '÷' && e.b === 2 && leftOver(e) === 0 && e.a > 0 && e.a <= 40,
    work: (e) => ({
      lines: [
        saying(`double ${n(e.total)} is ${n(e.a)}, so half of ${n(e.a)} is ${n(e.total)}.`),
        writing(`${e.total} + ${e.total} = ${e.a}`),
      ],
      hops: [],
      shown: 'plate',
    }),
  },
]

/** Hops from low up to high, by way of the next ten and whole tens: 18 to 25 is 2 and 5. */
function upTo(low: number, high: number): Hop[] {
  const out: Hop[] = []
  let at = low
  const ten = Math.ceil(low / 10) * 10
  if (ten > low && ten < high) {
    out.push(hop(at, ten))
    at = ten
  }
  const tens = Math.floor((high - at) / 10) * 10
  if (tens > 0 && at + tens < high) {
    out.push(hop(at, at + tens))
    at += tens
  }
  out.push(hop(at, high))
  return out
}

export const strategyIds: readonly string[] = strategies.map((s) => s.id)

/**
 * The ways children may find a fact, each played out. Easiest first: things, picture, line or square, in the head;
 * or, where the house lets the learner choose, as they stand. Facts 0–100.
 */
export function waysToWork(e: Example, style: HouseStyle): Worked[] {
  const say: Saying = {
    style,
    sentence: (a, op, b, total) =>
      `${n(a)} ${op === '+' ? style.add : style.takeAway} ${n(b)} ${style.equals} ${n(total)}`,
  }
  const fits = strategies.filter((s) => s.applies(e))
  const ordered =
    style.strategyOrder === 'things-first'
      ? [...fits].sort((x, y) => rungNames.indexOf(x.rung) - rungNames.indexOf(y.rung))
      : fits
  return ordered.map((s) => ({ id: s.id, name: s.name, rung: s.rung, answer: e.total, ...s.work(e, say) }))
}
