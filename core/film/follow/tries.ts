import type { Seconds } from '../../contracts/units.ts'
import type { HeardFinding, HeardWord, ProposedDrop } from '../../contracts/heard.ts'
import { type Attempt, coverage, type Followed } from './align.ts'
import type { Piece } from '../ear/chunks.ts'
import { hearing, slipTalk } from '../judge/limits.ts'
import { inCount, isNumberWord, soundsLike } from '../ear/sounds.ts'
import type { SpokenLine } from './spoken.ts'

export interface Tries {
  findings: HeardFinding[]
  drops: ProposedDrop[]
  /** Heard words that belong to a try given up, or to the slip between two tries. */
  used: Set<number>
}
const indices = (a: Attempt): number[] => a.words.filter((w) => w !== null)
/** A line said whole twice over is said so on purpose, unless something like "oops" stands between. */
const whole = 0.85

/**
 * Lines begun and said again: the first try is a false start, with the drop that takes it out. A line said whole and
 * then again is a repeat and left alone; a count done whole and again is a recount.
 */
export function triesOf(
  lines: readonly SpokenLine[],
  followed: Followed,
  heard: readonly HeardWord[],
  voiced: readonly Piece[] = [],
): Tries {
  const out: Tries = { findings: [], drops: [], used: new Set() }
  followed.attempts.forEach((attempt) => {
    const final = followed.final[attempt.line]
    const line = lines[attempt.line]!
    if (!final || attempt === final || line.deliberate) return
    const [mine, theirs] = [indices(attempt), indices(final)]
    if (mine[0]! > theirs[0]!) return
    const until = theirs[0]!
    const between = heard.slice(mine[0], until).filter((_, k) => followed.lineOf[mine[0]! + k] === null)
    const sorry = between.some((w) => slipTalk.has(w.word))
    if (coverage(attempt) >= whole && !sorry) {
      if (line.numbers)
        out.findings.push({
          code: 'recount',
          start: heard[theirs[0]!]!.start,
          end: heard[theirs.at(-1)!]!.end,
          stepId: line.stepId,
          expected: '',
          heard: line.numbers.join(' '),
          certain: true,
          params: { case: 'line' },
        })
      return
    }
    const spoken = heard.slice(mine[0], until).map((w) => w.word)
    if (
      mine.length < 2 &&
      !sorry &&
      !saidAgain(
        [...leading(followed, heard, mine[0]!), ...spoken],
        [
          ...leading(followed, heard, until),
          ...heard.slice(until, until + spoken.length + 4).map((w) => w.word),
        ],
      )
    )
      return
    // Lines begun on the way go with the first of them.
    if (out.used.has(mine[0]!)) return
    giveUp(out, line, heard, mine[0]!, until)
  })
  brokenOff(lines, followed, heard, out)
  loneStarts(lines, followed, heard, out)
  borrowedStarts(lines, followed, heard, out)
  fillersOf(followed, heard, voiced, out)
  return out
}

const fillers: ReadonlySet<string> = new Set(['um', 'oops', 'er', 'erm', 'whoops'])
/** What is said by itself and belongs there: praise and answers to viewers. */
const replies: ReadonlySet<string> = new Set([
  'yes',
  'no',
  'well',
  'good',
  'right',
  'now',
  'okay',
  'so',
  'ready',
  'look',
  'nice',
  'great',
])
/** Seconds a lone "oops" or "um" takes, and the quiet it stands in. */
const lone = { least: 0.2, most: 0.9, quiet: 0.4 } as const

/** Every "um" and "oops"; and what stands by itself between silences and is in no script, whatever it was taken for. All are doubts. */
function fillersOf(
  followed: Followed,
  heard: readonly HeardWord[],
  voiced: readonly Piece[],
  out: Tries,
): void {
  for (const [k, w] of heard.entries()) {
    if (out.used.has(k) || followed.lineOf[k] !== null || (w.mark !== undefined && !fillers.has(w.word)))
      continue
    const known = fillers.has(w.word)
    const alone =
      standsAlone(w, voiced) &&
      !heard.some(
        (x, j) =>
          j !== k &&
          Math.abs(j - k) <= 2 &&
          x.start < w.end + lone.quiet / 2 &&
          x.end > w.start - lone.quiet / 2,
      )
    // Several extra words in a row are talk.
    const amongLines = [k - 1, k + 1].every((j) => j < 0 || j >= heard.length || followed.lineOf[j] !== null)
    const said = known
      ? w.confidence >= (alone ? hearing.faint : 0.5)
      : alone &&
        amongLines &&
        w.confidence >= hearing.faint &&
        !isNumberWord(inCount(w.word)) &&
        !replies.has(w.word)
    if (!said) continue
    out.used.add(k)
    out.findings.push({
      code: 'filler',
      start: w.start,
      end: w.end,
      stepId: null,
      expected: '',
      heard: w.word,
      certain: false,
      params: { case: known ? 'known' : 'unknown', word: w.word },
    })
  }
}
function standsAlone(w: HeardWord, voiced: readonly Piece[]): boolean {
  const i = voiced.findIndex((v) => v.from < w.end && v.to > w.start)
  const v = voiced[i]
  return (
    v !== undefined &&
    v.to - v.from >= lone.least &&
    v.to - v.from <= lone.most &&
    v.from - (voiced[i - 1]?.to ?? -Infinity) >= lone.quiet &&
    (voiced[i + 1]?.from ?? Infinity) - v.to >= lone.quiet
  )
}

/** A line broken off with "no, wait" or "oops" and begun again, of which the path took the first words from the first try: "how … many parcels, no wait, how many parcels". */
function brokenOff(
  lines: readonly SpokenLine[],
  followed: Followed,
  heard: readonly HeardWord[],
  out: Tries,
): void {
  followed.final.forEach((a, i) => {
    const line = lines[i]!
    if (!a || line.deliberate || line.numbers) return
    const ats = indices(a)
    for (const [k, at] of ats.slice(0, -1).entries()) {
      const next = ats[k + 1]!
      const extra = heard.slice(at + 1, next)
      const start = ats[0]! - leading(followed, heard, ats[0]!).length
      const again = extra.length >= 2 ? begunAgain(heard, start, next) : null
      if (
        again !== null &&
        !Array.from({ length: again - start }, (_, j) => start + j).some((j) => out.used.has(j))
      ) {
        giveUp(out, line, heard, start, again)
        return
      }
      const slip = extra.findLastIndex((w) => slipTalk.has(w.word) && w.word !== 'oh')
      // Something of the line was said again, before the slip or after it.
      if (
        slip < 0 ||
        extra.length < 2 ||
        !extra.some((w) => !slipTalk.has(w.word) && line.words.some((l) => soundsLike(l, w.word)))
      )
        continue
      if (Array.from({ length: next - ats[0]! }, (_, j) => ats[0]! + j).some((j) => out.used.has(j))) continue
      giveUp(out, line, heard, ats[0]!, at + 2 + slip)
      return
    }
  })
}

/** The extra words right before a matched one, which may be its line's first words misheard. */
function leading(followed: Followed, heard: readonly HeardWord[], at: number): string[] {
  let from = at
  while (
    from > 0 &&
    at - from < 3 &&
    followed.lineOf[from - 1] === null &&
    heard[from]!.start - heard[from - 1]!.end < 0.5
  )
    from--
  return heard.slice(from, at).map((w) => w.word)
}

/** Extra words that begin as the next line does, too few or too amiss for the path to go back for them. */
function loneStarts(
  lines: readonly SpokenLine[],
  followed: Followed,
  heard: readonly HeardWord[],
  out: Tries,
): void {
  for (let k = 0; k < heard.length; k++) {
    if (followed.lineOf[k] !== null || out.used.has(k)) continue
    let to = k
    while (to < heard.length && followed.lineOf[to] === null) to++
    const next = followed.lineOf[to] ?? null
    const words = heard.slice(k, to).map((w) => w.word)
    const spoken = words.filter((w) => !slipTalk.has(w) && w !== 'no')
    const sorry = words.some((w) => slipTalk.has(w)) || words.at(-1) === 'no'
    const line = next === null ? undefined : lines[next]
    // The second try may begin among the extra words too, where its first words were misheard alike.
    const again = line && !line.deliberate ? begunAgain(heard, k, to) : null
    if (line && again !== null) {
      giveUp(out, line, heard, k, again)
      k = to
      continue
    }
    if (
      line &&
      !line.deliberate &&
      spoken.length >= (sorry ? 1 : 2) &&
      heard[to]!.start - heard[to - 1]!.end < 4 &&
      startsLike(spoken, line.words)
    )
      giveUp(out, line, heard, k, to)
    k = to
  }
}
/** A start broken off after a line that was left out: the path takes its words for scraps of the missing line, though what follows says them all again. */
function borrowedStarts(
  lines: readonly SpokenLine[],
  followed: Followed,
  heard: readonly HeardWord[],
  out: Tries,
): void {
  followed.final.forEach((a, i) => {
    const next = lines[i + 1]
    if (!a || !next || next.deliberate || coverage(a) >= hearing.skippedShare) return
    const ats = indices(a)
    const [from, to] = [ats[0]!, ats.at(-1)! + 1]
    if (
      to - from < 3 ||
      to - from > next.words.length ||
      followed.lineOf[to] !== i + 1 ||
      Array.from({ length: to - from }, (_, k) => from + k).some((k) => out.used.has(k))
    )
      return
    const words = (k: number, n: number) => heard.slice(k, k + n).map((w) => w.word)
    if (saidAgain(words(from, to - from), words(to, to - from + 4))) giveUp(out, next, heard, from, to)
  })
}

/** Where, from `from` up to and including `to`, what was said begins once more; null where it does not. */
function begunAgain(heard: readonly HeardWord[], from: Seconds, to: Seconds): number | null {
  const words = heard.slice(from, to + to - from + 4).map((w) => w.word)
  for (let n = to - from; n >= 3; n--)
    if (saidAgain(words.slice(0, n), words.slice(n, n * 2 + 4))) return from + n
  return null
}
/** What was said comes again at once, whatever the words were taken for: three words or more, nearly all of them. */
function saidAgain(extra: readonly string[], following: readonly string[]): boolean {
  if (extra.length < 3 || extra.every((w) => isNumberWord(w))) return false
  let row = new Array<number>(following.length + 1).fill(0)
  for (const w of extra) {
    const next = [0]
    following.forEach((f, j) => next.push(soundsLike(w, f) ? row[j]! + 1 : Math.max(row[j + 1]!, next[j]!)))
    row = next
  }
  return row.at(-1)! >= Math.max(3, extra.length * 0.75)
}
/** The extra words follow the line from its start, at most two of five amiss: a start is broken off because it went wrong. */
function startsLike(extra: readonly string[], line: readonly string[]): boolean {
  if (extra.length > line.length + 2) return false
  const matches = extra.filter((w, i) => line[i] !== undefined && soundsLike(w, line[i])).length
  return soundsLike(extra[0]!, line[0]!) && matches >= Math.ceil(extra.length * 0.6)
}

function giveUp(
  out: Tries,
  line: SpokenLine,
  heard: readonly HeardWord[],
  first: number,
  after: number,
): void {
  const block = heard.slice(first, after)
  for (let k = first; k < after; k++) out.used.add(k)
  const spoken = block.map((w) => w.word).filter((w) => !slipTalk.has(w))
  const [start, end] = [block[0]!.start, block.at(-1)!.end]
  out.findings.push({
    code: 'false-start',
    start,
    end,
    stepId: line.stepId,
    expected: line.text,
    heard: block.map((w) => w.word).join(' '),
    certain: true,
    params: { case: 'line', words: spoken.join(' ') },
  })
  out.drops.push({
    from: Math.max(0, start - 0.08),
    to: Math.max(end, (heard[after]?.start ?? end) - 0.12),
    reason: 'false start',
    note: block
      .map((w) => w.word)
      .join(' ')
      .slice(0, 200),
  })
}
