import { type Asked, isRight, platesOf, truthOf } from './asked.ts'

/** An answer a rule leads to, and how often it does where the rule holds. */
interface Predicted {
  answer: string
  p: number
}
/** A way of thinking that leads to wrong answers, each time in its own way. */
export interface Rule {
  id: string
  /** How it is said to a teacher: "counts the starting number when counting on". */
  words: string
  /** Share of children who think so while an idea is new. Rough: only their order matters. */
  base: number
  /** What it predicts; null where it says nothing of the question. */
  predicts: (q: Asked) => Predicted[] | null
  /** For answers that are no single number: whether this one is as the rule would have it. */
  fits?: (q: Asked, answer: string) => boolean
  /** What may help, in words that say what to do with things; and strategies of core/plan/numbers that show it. */
  next: string
  strategies: readonly string[]
}
const only = (n: number): Predicted[] | null => (n >= 0 ? [{ answer: String(n), p: 1 }] : null)
const either = (...ns: number[]): Predicted[] | null => {
  const fit = [...new Set(ns)].filter((n) => n >= 0)
  return fit.length ? fit.map((n) => ({ answer: String(n), p: 1 / fit.length })) : null
}
const reversed = (n: number): string => [...String(n)].reverse().join('')
const isTeen = (n: number): boolean => n >= 13 && n <= 19
const isTens = (n: number): boolean => n >= 20 && n <= 90 && n % 10 === 0
/** How far a number taken or added lies under its next ten, where rounding it helps: 18 and 19, 28 and 29. */
const toRound = (b: number): number | null => (b > 10 && b % 10 >= 8 ? 10 - (b % 10) : null)
/** Whole numbers walked over in counting from a to b, a itself left out. */
const passes = (a: number, b: number, n: number): boolean => (a < b ? a < n && n <= b : b <= n && n < a)
/** The walk a question is worked by, in ones; null where nobody would count. */
function walk(q: Asked): { from: number; to: number } | null {
  switch (q.form) {
    case 'add':
      return q.b > 0 && q.b <= 20 ? { from: Math.max(q.a, q.b), to: q.a + q.b } : null
    case 'count':
      return { from: 0, to: q.n }
    case 'double':
      return { from: q.n, to: 2 * q.n }
    default:
      return null
  }
}
const skips =
  (n: number): Rule['predicts'] =>
  (q) => {
    if (q.form === 'after') return q.from + q.by === n && Math.abs(q.by) === 1 ? only(n + q.by) : null
    const w = walk(q)
    return w && passes(w.from, w.to, n) ? only(w.to + 1) : null
  }
const borrow = (a: number, b: number): number => {
  const [x, y] = [String(a), String(b).padStart(String(a).length, '0')]
  return Number([...x].map((d, i) => Math.abs(Number(d) - Number(y[i]))).join(''))
}
const teenTy = (n: number): number | null =>
  isTeen(n) ? (n - 10) * 10 : n >= 30 && isTens(n) ? n / 10 + 10 : null

/** Every rule that is weighed; sources: what practitioners and research of early number report again and again. */
export const rules: readonly Rule[] = [
  {
    id: 'counts-start',
    words: 'counts the number they start from when counting on',
    base: 4,
    predicts: (q) =>
      q.form === 'add' && q.a > 0 && q.b > 0 && Math.max(q.a, q.b) + Math.min(q.a, q.b) < 60
        ? only(q.a + q.b - 1)
        : null,
    next: 'Cover the first pile with a hand and say its number; the next number is said only when the next thing is touched. Uncover and count all to check.',
    strategies: ['count-on', 'count-on-larger'],
  },
  {
    id: 'counts-standing',
    words: 'counts the number they stand on when counting back',
    base: 3,
    predicts: (q) => (q.form === 'take' && q.b > 0 && q.a < 60 ? only(q.a - q.b + 1) : null),
    next: 'On a line, say nothing on the starting number: each jump is one, and the number is read where it lands.',
    strategies: ['count-back', 'take-things'],
  },
  {
    // Both at once have one root, and predict more than either, or than being one out now up, now down.
    id: 'counts-where-they-are',
    words: 'counts the number they are on as the first jump, on and back',
    base: 1.5,
    predicts: (q) => {
      if (q.form === 'take') return q.b > 0 && q.a < 60 ? only(q.a - q.b + 1) : null
      return q.form === 'add' && q.a > 0 && q.b > 0 && q.a + q.b < 60 ? only(q.a + q.b - 1) : null
    },
    next: 'Walk it on a floor line: stand on the start and say nothing; the first step is one. Walk back the same way.',
    strategies: ['count-on', 'count-back'],
  },
  {
    id: 'one-off',
    words: 'is one out in counting: touches a thing twice, or passes over one',
    base: 3,
    predicts: (q) =>
      q.form === 'count' || q.form === 'add' || q.form === 'take' || q.form === 'double'
        ? (q.form === 'count' ? q.n > 2 : true)
          ? either(truthOf(q) - 1, truthOf(q) + 1)
          : null
        : null,
    next: 'Move each thing across as it is counted, so that what is counted lies apart from what is not.',
    strategies: ['move-each', 'count-each'],
  },
  {
    id: 'skips-thirteen',
    words: 'leaves out thirteen in counting',
    base: 1,
    predicts: skips(13),
    next: 'Count along number cards from ten to twenty and put the thirteen in by hand each time.',
    strategies: ['ten-and-some'],
  },
  {
    id: 'skips-fifteen',
    words: 'leaves out fifteen in counting',
    base: 1,
    predicts: skips(15),
    next: 'Count along number cards from ten to twenty and put the fifteen in by hand each time.',
    strategies: ['ten-and-some'],
  },
  {
    id: 'decade',
    words: 'is stuck, or goes wrong, where the tens change',
    base: 2,
    predicts: (q) =>
      q.form === 'after' && q.by === 1 && q.from % 10 === 9 && q.from < 99 && q.from > 9
        ? either(q.from - 9, q.from + 11)
        : null,
    next: 'Count on a hundred square and stop at the end of each row: what is the next row called?',
    strategies: ['along-the-line'],
  },
  {
    id: 'teen-ty',
    words: 'takes teen and ty numbers for each other',
    base: 2,
    predicts: (q) => {
      const other = q.form === 'which' || q.form === 'share' ? null : teenTy(truthOf(q))
      return other === null ? null : only(other)
    },
    next: 'Build thirteen and thirty side by side, a ten and three ones, three tens; say both slowly and end the word.',
    strategies: ['ten-and-some', 'tens-and-ones'],
  },
  {
    id: 'adds-instead',
    words: 'adds where something is taken away',
    base: 3,
    predicts: (q) => (q.form === 'take' && q.b > 0 ? only(q.a + q.b) : null),
    next: 'Act the story with things before any number is written: do they come or go? Will there be more or fewer?',
    strategies: ['take-things', 'cross-off'],
  },
  {
    id: 'gives-larger',
    words: 'gives back the larger number of the question',
    base: 2,
    predicts: (q) =>
      q.form === 'add' || q.form === 'take' || q.form === 'compare'
        ? q.b > 0 && q.a !== q.b
          ? only(Math.max(q.a, q.b))
          : null
        : null,
    next: 'Tell the story again with things and ask what is asked: “how many now?” Let the answer be touched before it is said.',
    strategies: ['count-all', 'match'],
  },
  {
    id: 'gives-first',
    words: 'gives back the first number of the question',
    base: 1.5,
    predicts: (q) =>
      q.form === 'add' || q.form === 'take'
        ? q.b > 0
          ? only(q.a)
          : null
        : q.form === 'missing'
          ? only(q.known)
          : null,
    next: 'Ask for the end of the story to be shown with things: the first number is where it began.',
    strategies: ['count-all', 'take-things'],
  },
  {
    id: 'gives-second',
    words: 'gives back the second number of the question',
    base: 1.5,
    predicts: (q) => (q.form === 'add' || q.form === 'take' ? (q.a > 0 && q.b > 0 ? only(q.b) : null) : null),
    next: 'Ask for the whole story to be shown with things, not only what came last.',
    strategies: ['count-all', 'take-things'],
  },
  {
    id: 'joined-digits',
    words: 'writes both parts side by side as one number',
    base: 1,
    predicts: (q) =>
      q.form === 'add' && q.a > 0 && q.a < 10 && q.b < 10
        ? [{ answer: `${q.a}${q.b}`, p: 1 }]
        : q.form === 'double' && q.n < 10 && q.n > 0
          ? [{ answer: `${q.n}${q.n}`, p: 0.6 }]
          : null,
    next: 'Put the parts into one tray and count them before anything is written; write the sentence with its signs.',
    strategies: ['count-all'],
  },
  {
    id: 'double-one-more',
    words: 'takes a double for one more',
    base: 1.5,
    predicts: (q) => (q.form === 'double' ? only(q.n + 1) : null),
    next: 'Build the number on one side of a fold or a mirror, the same on the other: a double is the same again.',
    strategies: ['known-double', 'double-and-one'],
  },
  {
    id: 'double-twice-digit',
    words: 'writes a double as its digit twice',
    base: 1,
    predicts: (q) => (q.form === 'double' && q.n > 0 && q.n < 10 ? [{ answer: `${q.n}${q.n}`, p: 1 }] : null),
    next: 'Count both halves of the double as one heap, then write that number.',
    strategies: ['known-double', 'count-all'],
  },
  {
    id: 'part-as-whole',
    words: 'gives the whole where the missing part is asked',
    base: 2,
    predicts: (q) => (q.form === 'missing' && q.known > 0 ? only(q.total) : null),
    next: 'Lay out the whole, cover one part with a cup: how many are under the cup? Lift it and look.',
    strategies: ['count-up', 'take-things'],
  },
  {
    id: 'part-added',
    words: 'adds both numbers where a missing part is asked',
    base: 2,
    predicts: (q) => (q.form === 'missing' && !q.resultFirst && q.known > 0 ? only(q.total + q.known) : null),
    next: 'Lay out the whole first and find the known part in it; nothing more comes to it.',
    strategies: ['count-up', 'take-things'],
  },
  {
    id: 'equals-next',
    words: 'reads the equals sign as “the answer comes next”',
    base: 2,
    predicts: (q) =>
      q.form === 'missing' && q.resultFirst
        ? only(q.total + q.known)
        : (q.form === 'take' || q.form === 'add') && q.resultFirst
          ? either(q.a, q.form === 'take' ? q.a + q.b : q.a)
          : null,
    next: 'Lay both sides out on two plates and ask “is there the same on both?” before a sign is put between.',
    strategies: ['match'],
  },
  {
    id: 'smaller-from-larger',
    words: 'takes the smaller digit from the larger, whichever stands above',
    base: 2,
    predicts: (q) =>
      q.form === 'take' && q.a > 19 && q.a < 100 && q.a % 10 < q.b % 10 ? only(borrow(q.a, q.b)) : null,
    next: 'Lay the first number as tens and ones and take the ones away: there are too few, so a ten is opened.',
    strategies: ['tens-then-ones', 'through-ten'],
  },
  {
    id: 'forgets-put-back',
    words: 'rounds, and forgets to put back',
    base: 2,
    predicts: (q) => rounding(q, (by) => by),
    next: 'Say before starting what was borrowed: “I take one too many; I owe one”. Keep it in the hand.',
    strategies: ['round-and-back'],
  },
  {
    id: 'puts-back-wrong',
    words: 'rounds, and puts back the wrong way',
    base: 1.5,
    predicts: (q) => rounding(q, (by) => 2 * by),
    next: 'Do it with things: twenty are taken, one too many. Does one come back, or does one more go?',
    strategies: ['round-and-back'],
  },
  {
    id: 'puts-back-ten',
    words: 'rounds, and puts back a ten',
    base: 1,
    predicts: (q) => rounding(q, (by) => by - 10),
    next: 'Hold what was borrowed in the hand while the tens go: it is one, not a ten.',
    strategies: ['round-and-back'],
  },
  {
    id: 'changes-ones',
    words: 'changes the ones when counting in tens',
    base: 2,
    predicts: (q) => inTens(q, (n, sign) => n + sign * 1),
    next: 'Step straight down the hundred square, a finger on the ones: they stay as they are.',
    strategies: ['square-jumps', 'tens-along-a-line'],
  },
  {
    id: 'drops-a-ten',
    words: 'is a ten short, or a ten over, in counting tens',
    base: 2,
    predicts: (q) => inTens(q, (n, sign) => n - sign * 10),
    next: 'Put up a finger for each ten as it is said; the number they stand on is not one of them.',
    strategies: ['square-jumps', 'tens-along-a-line'],
  },
  {
    id: 'digits-turned',
    words: 'writes the digits the other way round',
    base: 2,
    predicts: (q) => {
      const n = q.form === 'which' || q.form === 'share' ? 0 : truthOf(q)
      return n > 9 && n < 100 && reversed(n) !== String(n) ? [{ answer: reversed(n), p: 1 }] : null
    },
    next: 'Build the number from a ten and ones, tens on the left; lay the digit cards under them, tens first.',
    strategies: ['tens-and-ones', 'ten-and-some'],
  },
  {
    id: 'ten-and-ones-apart',
    words: 'writes ten and ones side by side: 106 for sixteen',
    base: 1,
    predicts: (q) => {
      const n = q.form === 'which' || q.form === 'share' ? 0 : truthOf(q)
      return n > 10 && n < 100 && n % 10 ? [{ answer: `${Math.floor(n / 10) * 10}${n % 10}`, p: 1 }] : null
    },
    next: 'Slide the ones card over the nought of the ten: the nought is under there.',
    strategies: ['tens-and-ones', 'ten-and-some'],
  },
  {
    id: 'nought-in-front',
    words: 'writes the nought in front: 07 for seventy',
    base: 0.7,
    predicts: (q) => {
      const n = q.form === 'which' || q.form === 'share' ? 0 : truthOf(q)
      return isTens(n) || n === 10 ? [{ answer: `0${n / 10}`, p: 1 }] : null
    },
    next: 'Build seven ones and seven tens; which of the two cards goes with which?',
    strategies: ['tens-and-ones'],
  },
  {
    id: 'more-fewer-turned',
    words: 'takes fewer for more',
    base: 2,
    predicts: (q) =>
      q.form === 'which' && q.a !== q.b ? only(q.more ? Math.min(q.a, q.b) : Math.max(q.a, q.b)) : null,
    next: 'Match the two rows one to one; which row has some with no partner? That one has more.',
    strategies: ['match'],
  },
  {
    id: 'difference-as-larger',
    words: 'gives the larger set where the difference is asked',
    base: 2,
    predicts: (q) => (q.form === 'compare' && Math.min(q.a, q.b) > 0 ? only(Math.max(q.a, q.b)) : null),
    next: 'Match the rows one to one and push the pairs away: how many are left without a partner?',
    strategies: ['match'],
  },
  {
    id: 'longer-is-more',
    words: 'takes the longer row for more',
    base: 2,
    predicts: (q) =>
      q.form === 'which' && q.longer
        ? only(q.more ? (q.longer === 'a' ? q.a : q.b) : q.longer === 'a' ? q.b : q.a)
        : null,
    next: 'Lay the same things close together, then wide apart, and count both times: did any come or go?',
    strategies: ['match', 'count-each'],
  },
  {
    id: 'unequal-shares',
    words: 'is content with shares that are not equal',
    base: 2,
    predicts: () => null,
    fits: (q, answer) => {
      if (q.form !== 'share' || !answer.includes(',')) return false
      const plates = platesOf(answer)
      return (
        new Set(plates).size > 1 &&
        Math.max(...plates) - Math.min(...plates) >= 1 &&
        plates.reduce((s, p) => s + p, 0) <= q.things
      )
    },
    next: 'Share one at a time, all plates in turn; would you swap plates?',
    strategies: ['share-one-by-one'],
  },
  {
    id: 'leftover-ignored',
    words: 'shares out what is left over, or leaves it unsaid',
    base: 1,
    predicts: (q) =>
      q.form === 'share' && q.things % q.among ? only(Math.floor(q.things / q.among) + 1) : null,
    next: 'Share one at a time and put what cannot go round beside the plates: those are left over, and that is said.',
    strategies: ['share-one-by-one'],
  },
  {
    id: 'half-one-less',
    words: 'takes half for one less',
    base: 1.5,
    predicts: (q) => (q.form === 'half' && q.n > 2 ? only(q.n - 1) : null),
    next: 'Share out between two plates, one for you, one for me, until there are none; look at one plate.',
    strategies: ['halve', 'share-one-by-one'],
  },
  {
    id: 'zero-as-one',
    words: 'takes zero for one',
    base: 1.5,
    predicts: (q) =>
      q.form === 'add' && (q.a === 0 || q.b === 0)
        ? only(q.a + q.b + 1)
        : q.form === 'take' && q.b === 0
          ? only(q.a - 1)
          : q.form === 'count' && q.n === 0
            ? only(1)
            : null,
    next: 'Open an empty tin: how many are in it? Add “none” and look again.',
    strategies: ['count-all'],
  },
  {
    id: 'zero-makes-zero',
    words: 'thinks that with zero the answer is zero',
    base: 1.5,
    predicts: (q) =>
      q.form === 'add' && (q.a === 0) !== (q.b === 0)
        ? only(0)
        : q.form === 'take' && q.b === 0 && q.a > 0
          ? only(0)
          : null,
    next: 'Put the things out, then add an empty tin to them: what is there now?',
    strategies: ['count-all'],
  },
]

function rounding(q: Asked, out: (by: number) => number): Predicted[] | null {
  if (q.form !== 'take' && q.form !== 'add') return null
  const by = toRound(q.b)
  if (by === null) return null
  return q.form === 'take' ? only(q.a - q.b - out(by)) : only(q.a + q.b + out(by))
}
/** Whole tens on or back from a number that has ones. */
function inTens(q: Asked, wrong: (right: number, sign: 1 | -1) => number): Predicted[] | null {
  if (q.form === 'after')
    return Math.abs(q.by) === 10 && q.from % 10 !== 0 ? only(wrong(q.from + q.by, q.by > 0 ? 1 : -1)) : null
  if ((q.form !== 'add' && q.form !== 'take') || q.b < 10 || q.b % 10 || q.a % 10 === 0 || q.a < 10)
    return null
  const sign = q.form === 'add' ? 1 : -1
  return only(wrong(q.a + sign * q.b, sign))
}

/** Whether a rule has anything to say of a question: it leads elsewhere than the right answer does. */
export function speaksOf(rule: Rule, q: Asked): boolean {
  if (rule.fits) return q.form === 'share'
  const p = rule.predicts(q)
  return p !== null && p.some((x) => !isRight(q, x.answer))
}
/** Chance of an answer under a rule where it is followed without a slip, 0–1. */
export function chanceUnder(rule: Rule, q: Asked, answer: string): number {
  if (rule.fits) return rule.fits(q, answer) ? 1 : 0
  const given = answer.trim()
  const plates = q.form === 'share' && given.includes(',') ? platesOf(given) : null
  return (rule.predicts(q) ?? []).reduce(
    (s, x) => s + (x.answer === given || plates?.some((p) => String(p) === x.answer) ? x.p : 0),
    0,
  )
}
