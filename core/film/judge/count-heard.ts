import type { Seconds } from '../../contracts/units.ts'
import type { Params } from '../../contracts/finding.ts'
import type { HeardFinding, HeardWord } from '../../contracts/heard.ts'
import { type NumberAt, numbersIn, parseNumber, readNumberAt } from '../../plan/numbers/names.ts'
import type { Piece } from '../ear/chunks.ts'
import { hearing, slipTalk } from './limits.ts'
import { confusable, inCount, isNumberWord, likeNumber } from '../ear/sounds.ts'
import { nameWords } from '../follow/spoken.ts'

/** A number said in a count: which heard words it took (first … last) and when. */
export interface Said {
  n: number
  first: number
  last: number
  start: Seconds
  end: Seconds
  confidence: number
  /** Heard as no number, or not understood at all, where a number has its place: `n` is what it may have been, or NaN. */
  guess?: boolean
}
/** Words that pass between the numbers of a count and change nothing. */
export const passedOver: ReadonlySet<string> = new Set([
  'and',
  'then',
  'oh',
  'is',
  'now',
  'next',
  'a',
  'the',
  ...slipTalk,
])

/** Seconds of silence that part "twenty" from "one": within a number nobody waits so long. */
const parting = 0.6
/** A "hundred" whose "one" was lost at a stretch's edge or never said: "ninety, hundred". */
const loneHundred = (list: readonly string[], i: number): NumberAt | null =>
  list[i] === 'hundred' && list[i + 1] !== 'square' ? { value: 100, from: i, to: i + 1 } : null

/** "One hundred, ninety, eighty" is 100 and 90, "one hundred ninety, one hundred ninety-one" is 190: by what comes next. */
function apart(list: readonly string[], i: number, found: NumberAt | null): NumberAt | null {
  if (
    !found ||
    found.value <= 100 ||
    found.value >= 1000 ||
    list[i + 1] !== 'hundred' ||
    list[i + 2] === 'and'
  )
    return found
  const next = numbersIn(list.slice(found.to, found.to + 6))[0]
  const hundreds = Math.floor(found.value / 100) * 100
  const nearer = next && Math.abs(next.value - (found.value - hundreds)) < Math.abs(next.value - found.value)
  return nearer ? { value: hundreds, from: i, to: i + 2 } : found
}

/** The numbers among heard words from index `from` up to `to`. `spell` says which word stands for which: in a count "to" is two, "for" is four. */
export function numbersSaid(
  words: readonly HeardWord[],
  from = 0,
  to = words.length,
  spell: (word: string, at: number) => string = inCount,
): Said[] {
  const list = words.slice(from, to).map((w, i) => spell(w.word, from + i))
  const out: Said[] = []
  // "Twenty. One more": a tens word and a unit are one number only where nothing parts them.
  const together = (k: number): boolean => {
    const [before, here] = [words[from + k - 1], words[from + k]]
    return !before || !here || (here.start - before.end < parting && !/[.!?;]/.test(before.mark ?? ''))
  }
  for (let i = 0; i < list.length;) {
    const found =
      list[i] === 'nothing' || list[i] === 'none' || list[i] === 'double'
        ? null
        : (apart(list, i, readNumberAt(list, i, together)) ?? loneHundred(list, i))
    if (!found) {
      i++
      continue
    }
    const part = words.slice(from + i, from + found.to)
    out.push({
      n: found.value,
      first: from + i,
      last: from + found.to - 1,
      start: part[0]!.start,
      end: part.at(-1)!.end,
      confidence: Math.min(...part.map((w) => w.confidence)),
    })
    i = found.to
  }
  return out
}

/** A number by itself takes about this long, in seconds: shorter is a knock, longer is talk. */
const loneNumber = { least: 0.2, most: 0.95 } as const
/**
 * The numbers of a count with the sounds among and right after them that were not understood as numbers: each may be
 * one, and what was heard in its place says which. `belongs` says which words may be the count's.
 */
export function withGuesses(
  said: readonly Said[],
  words: readonly HeardWord[],
  voiced: readonly Piece[],
  belongs: (k: number) => boolean,
): Said[] {
  if (said.length < 2) return [...said]
  const beat = Math.min(beatOf(said) ?? 1.2, 2.5)
  const out = [...said]
  let last = said.at(-1)!.start
  for (const v of voiced) {
    if (v.from <= said[0]!.end - 0.1) continue
    if (v.from > last + beat * 1.7) break
    if (v.to - v.from < loneNumber.least || v.to - v.from > loneNumber.most) continue
    const inside = words.flatMap((w, k) =>
      Math.min(w.end, v.to) - Math.max(w.start, v.from) > 0.06 ? [k] : [],
    )
    if (
      said.some((n) => n.start < v.to && n.end > v.from) ||
      inside.some((k) => isNumberWord(inCount(words[k]!.word)) && words[k]!.confidence >= 0.3)
    )
      continue
    // What comes after the count is its own as long as it is in no line and no slip is told.
    if (
      inside.some(
        (k) =>
          !belongs(k) ||
          (slipTalk.has(words[k]!.word) && inside.length === 1) ||
          (passedOver.has(words[k]!.word) && words[k]!.confidence > 0.9),
      )
    ) {
      if (v.from > last) break
      continue
    }
    const like = inside.map((k) => likeNumber(words[k]!.word)).find((n) => n !== null)
    const first = inside[0] ?? words.findIndex((w) => w.start >= v.to)
    out.push({
      n: like ? parseNumber(like)! : NaN,
      first,
      last: inside.at(-1) ?? first - 1,
      start: v.from,
      end: v.to,
      confidence: 0,
      guess: true,
    })
    last = Math.max(last, v.from)
  }
  return out.sort((a, b) => a.start - b.start)
}

/** The usual time from one number to the next, or null when there are too few to tell. */
function beatOf(said: readonly Said[]): number | null {
  const gaps = said
    .slice(1)
    .map((s, i) => s.start - said[i]!.start)
    .sort((a, b) => a - b)
  return gaps.length < 2 ? null : gaps[Math.floor(gaps.length / 2)]!
}

type Op =
  | { kind: 'match' | 'other'; p: number; s: number }
  | { kind: 'missing'; p: number }
  | { kind: 'extra'; s: number }
const cost = {
  other: 1.4,
  mixedUp: 0.6,
  missing: 1.05,
  extra: 1,
  guessed: 0.1,
  unknown: 0.3,
  guessedOther: 0.5,
  guessedExtra: 0.25,
} as const
const mixedUp = (a: number, b: number): boolean =>
  a <= 100 && b <= 100 && confusable(nameWords(a).join(' '), nameWords(b).join(' '))

/** Least-cost way from what was planned to what was said. */
function compare(planned: readonly number[], said: readonly Said[]): Op[] {
  const [n, m] = [planned.length, said.length]
  const c = Array.from({ length: n + 1 }, () => new Float64Array(m + 1))
  const extra = (s: number): number => (said[s]!.guess ? cost.guessedExtra : cost.extra)
  const swap = (p: number, s: number): number =>
    said[s]!.guess
      ? Number.isNaN(said[s]!.n)
        ? cost.unknown
        : said[s]!.n === planned[p]
          ? cost.guessed
          : cost.guessedOther
      : planned[p] === said[s]!.n
        ? 0
        : mixedUp(planned[p]!, said[s]!.n)
          ? cost.mixedUp
          : cost.other
  for (let p = n; p >= 0; p--)
    for (let s = m; s >= 0; s--) {
      if (p === n && s === m) continue
      c[p]![s] = Math.min(
        p < n && s < m ? c[p + 1]![s + 1]! + swap(p, s) : Infinity,
        p < n ? c[p + 1]![s]! + cost.missing : Infinity,
        s < m ? c[p]![s + 1]! + extra(s) : Infinity,
      )
    }
  const ops: Op[] = []
  for (let [p, s] = [0, 0]; p < n || s < m;) {
    const here = c[p]![s]!
    const is = (x: number) => Math.abs(here - x) < 1e-9
    const exact = p < n && s < m && planned[p] === said[s]!.n
    // Of ways that cost the same, a number left out comes before one said in another's place.
    if (p < n && !exact && is(c[p + 1]![s]! + cost.missing)) ops.push({ kind: 'missing', p: p++ })
    else if (p < n && s < m && is(c[p + 1]![s + 1]! + swap(p, s))) {
      ops.push({ kind: planned[p] === said[s]!.n || said[s]!.guess ? 'match' : 'other', p, s })
      p++
      s++
    } else if (s < m && is(c[p]![s + 1]! + extra(s))) ops.push({ kind: 'extra', s: s++ })
    else ops.push({ kind: 'missing', p: p++ })
  }
  return ops
}

/** "One. One. Two. Two.": a call with its answer. Each number counts once. */
export function withoutEcho(said: readonly Said[]): readonly Said[] {
  const twice = said.filter((s, i) => said[i + 1]?.n === s.n).length
  return twice >= 3 && twice >= said.length * 0.4 ? said.filter((s, i) => said[i - 1]?.n !== s.n) : said
}

/**
 * What went wrong in one count: numbers left out, said twice, in the wrong place, or a wrong end. `planned` are the
 * numbers in order; `said` what was heard. The last number said again ("ten… ten") is emphasis, and a drawn-out
 * number heard as two is one. `stepId` goes into the findings; `timed` says that words have times of their own, so that
 * a gap in the beat can speak for a number that was not heard.
 */
export function countSlips(
  planned: readonly number[],
  said: readonly Said[],
  stepId: string | null,
  timed = true,
): HeardFinding[] {
  if (!said.length) return []
  const beat = beatOf(said)
  const ops = compare(planned, said)
  const out: HeardFinding[] = []
  const tell = (
    code: HeardFinding['code'],
    start: number,
    end: number,
    expected: string,
    heard: string,
    certain: boolean,
    params: Params,
  ) => {
    out.push({ code, start, end: Math.max(start, end), stepId, expected, heard, certain, params })
  }
  /** What a sound in the count's place stood for: the number before the first missing one, where it was not understood. */
  const reached = (s: Said, missing: number): number => (Number.isNaN(s.n) ? planned[missing - 1]! : s.n)
  const sure = (s: Said): boolean => s.confidence >= hearing.unsure
  const step = planned.length > 1 ? planned[1]! - planned[0]! : 1
  const placeOf = (i: number): { before: Said | null; after: Said | null } => ({
    before: said[ops.slice(0, i).reduce((k, o) => (o.kind === 'missing' ? k : o.s), -1)] ?? null,
    after: said[ops.slice(i + 1).find((o) => o.kind !== 'missing')?.s ?? -1] ?? null,
  })
  const handled = new Set<number>()
  ops.forEach((op, i) => {
    if (handled.has(i) || op.kind === 'match') return
    if (op.kind === 'extra' && said[op.s]!.guess) {
      guessedExtra(said[op.s]!, placeOf(i).before)
      return
    }
    if (op.kind === 'other') {
      const s = said[op.s]!
      const planes = planned[op.p]!
      const again = op.p > 0 && planned[op.p - 1] === s.n
      tell(
        again ? 'count-repeat' : 'count-order',
        s.start,
        s.end,
        String(planes),
        String(s.n),
        sure(s) && !mixedUp(planes, s.n),
        { case: 'instead', said: s.n, planned: planes },
      )
      return
    }
    const number = op.kind === 'missing' ? planned[op.p]! : said[op.s]!.n
    // The same number missing here and extra close by has changed places with its neighbour.
    const partner = ops.findIndex(
      (o, k) =>
        k > i &&
        k <= i + 4 &&
        !handled.has(k) &&
        ((op.kind === 'missing' && o.kind === 'extra' && said[o.s]!.n === number) ||
          (op.kind === 'extra' && o.kind === 'missing' && planned[o.p] === number)),
    )
    if (partner > 0 && ops.slice(i + 1, partner).some((o) => o.kind === 'match')) {
      handled.add(partner)
      const first = op.kind === 'extra' ? said[op.s]! : placeOf(i).after!
      tell(
        'count-order',
        first.start,
        first.end,
        String(op.kind === 'missing' ? number : (planned[planned.indexOf(number) - 1] ?? number)),
        String(first.n),
        sure(first),
        { case: 'swapped', said: first.n },
      )
      return
    }
    const { before, after } = placeOf(i)
    if (op.kind === 'missing') missing(op.p, i, before, after)
    else extra(said[op.s]!, op.s, before, after)
  })
  return out

  /** Something like the number before it once more may be that number said twice; other talk is no part of the count. */
  function guessedExtra(s: Said, before: Said | null): void {
    if (before && before.n === s.n && s.start - before.end < 1.5)
      tell('count-repeat', s.start, s.end, String(s.n + step), String(s.n), false, {
        case: 'perhaps',
        said: s.n,
      })
  }
  function missing(p: number, i: number, before: Said | null, after: Said | null): void {
    const rest = ops.slice(i).every((o) => o.kind === 'missing')
    if (rest) {
      for (let k = i; k < ops.length; k++) handled.add(k)
      if (before)
        tell(
          'count-end',
          before.end,
          before.end + 0.5,
          String(planned.at(-1)),
          String(reached(before, p)),
          said.length >= 3 && planned.length - p <= Math.max(2, planned.length / 2),
          { case: 'stops', said: reached(before, p), planned: planned.at(-1)! },
        )
      return
    }
    const gone: number[] = []
    for (let k = i; ops[k]?.kind === 'missing'; k++) {
      handled.add(k)
      gone.push(planned[(ops[k] as { p: number }).p]!)
    }
    const from = before?.end ?? Math.max(0, after!.start - 0.5)
    // Where the beat leaves room for the number it may have been said and not heard; the first word of a take is often missed.
    const room =
      timed &&
      beat !== null &&
      before !== null &&
      after!.start - before.start > beat * (1 + gone.length * 0.75)
    tell('count-skip', from, after!.start, gone.join(' '), '', before !== null && !room && gone.length <= 3, {
      case: room ? 'unheard' : 'out',
      skipped: gone,
      count: gone.length,
    })
  }
  function extra(s: Said, at: number, before: Said | null, after: Said | null): void {
    const last = planned.at(-1)!
    if (after === null) {
      // The last number said over again is emphasis; a number further on goes past the end; any other begins the talk after the count.
      const inTime = before !== null && s.start - before.start <= (beat ?? 1.2) * 1.9
      if (s.n === last + step && before?.n === last && inTime && said.length - at === 1)
        tell('count-end', s.start, s.end, String(last), String(s.n), sure(s), {
          case: 'goes-on',
          said: s.n,
          planned: last,
        })
      return
    }
    if (before === null) return
    const same = [before, after].find((x) => x.n === s.n)
    if (same) {
      if (same.n === last && after.n === last) return
      // Said twice, a number takes two beats; one drawn out is sometimes heard as two.
      const [a, b] = same === before ? [before, s] : [s, after]
      if (beat !== null && b.start - a.start < beat * 0.45) return
      tell('count-repeat', b.start, b.end, String(s.n + step), String(s.n), sure(s), {
        case: 'sure',
        said: s.n,
      })
      return
    }
    const [low, high] = [
      said.slice(0, at).findLast((x) => !Number.isNaN(x.n)),
      said.slice(at + 1).find((x) => !Number.isNaN(x.n)),
    ]
    tell(
      'count-order',
      s.start,
      s.end,
      '',
      String(s.n),
      s.confidence >= hearing.sure,
      low && high ? { case: 'between', said: s.n, low: low.n, high: high.n } : { case: 'stray', said: s.n },
    )
  }
}

/**
 * A count broken off at "oops" and taken up again further back: what was said before the break from the number taken
 * up again on is dropped from the count and told as a false start.
 */
export function mendRetries(
  said: readonly Said[],
  words: readonly HeardWord[],
  stepId: string | null,
): { said: Said[]; findings: HeardFinding[] } {
  const out: Said[] = []
  const findings: HeardFinding[] = []
  for (const s of said) {
    const before = out.at(-1)
    const brokenOff =
      before &&
      words
        .slice(before.last + 1, s.first)
        .some((w) => slipTalk.has(w.word) && w.word !== 'oh' && w.confidence >= hearing.unsure)
    const way = out.length > 1 ? Math.sign(out[1]!.n - out[0]!.n) : 1
    const keep = brokenOff ? out.findIndex((o) => (o.n - s.n) * way >= 0) : -1
    const dropped = keep >= 0 ? out.splice(keep) : []
    if (dropped.length)
      findings.push({
        code: 'false-start',
        start: dropped[0]!.start,
        end: s.start,
        stepId,
        expected: '',
        heard: dropped.map((d) => d.n).join(' '),
        certain: true,
        params: { case: 'count', words: dropped.map((d) => d.n).join(', '), again: s.n },
      })
    out.push(s)
  }
  return { said: out, findings }
}
