import type { Seconds } from '../../contracts/units.ts'
import {
  type HeardFinding,
  type HeardLine,
  type HeardWord,
  type Hearing,
  plainCodes,
  type SoundAdvice,
  type Understanding,
} from '../../contracts/heard.ts'
import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Segment } from '../../contracts/lesson.ts'
import type { Piece } from '../ear/chunks.ts'
import { type Attempt, follow, type Followed } from '../follow/align.ts'
import { clapSlips } from './claps.ts'
import { countSlips, mendRetries, numbersSaid, passedOver, type Said, withGuesses } from './count-heard.ts'
import { gapsOf, silentBetween } from './gaps.ts'
import { hearing } from './limits.ts'
import { likelySaid } from '../follow/likely.ts'
import { lineSlips } from './line-heard.ts'
import { inCount, isNumberWord, soundsLike } from '../ear/sounds.ts'
import { spokenLines, type SpokenLine } from '../follow/spoken.ts'
import { triesOf } from '../follow/tries.ts'
import {
  asSureAsHeard,
  understand,
  understandCaptions,
  withAdvice,
  withOthers,
  withoutStretches,
} from './understood.ts'
import { type OtherVoice, withoutOthers } from '../ear/voices.ts'
import { soundEnd, unheardVoice, withinVoice } from '../ear/voiced.ts'

export interface HearOptions {
  style: HouseStyle
  age: number
  /** Script words the recogniser could not listen for: not hearing them says nothing. */
  unpronounced?: readonly string[]
  /** Nothing in it can be certain: telephone sound. */
  unsure?: boolean
  /** Where anything sounds, from `voicedIn`: tells what was not said from what was not understood. */
  voiced?: readonly Piece[]
  /** What would make it be heard better, from the sound itself. */
  advice?: readonly SoundAdvice[]
  /** Where somebody else speaks, from `otherVoices`. */
  others?: readonly OtherVoice[]
  /** When claps and taps were heard, in seconds; null where nobody listened for them. */
  claps?: readonly number[] | null
}

/**
 * Holds a take against its segment. `words` come from recognition or captions, in order; `duration` is the
 * take's length in seconds. A take in which everything was said as written gives no finding but plain ones.
 */
export function hear(
  segment: Segment,
  words: readonly HeardWord[],
  duration: Seconds,
  options: HearOptions,
): Hearing {
  const style = options.style
  const voiced = options.voiced ?? []
  const others = options.others ?? []
  const heard = withoutEchoes(withoutOthers(withinVoice(voiced, words), others)).map((w) => ({
    ...w,
    word: w.word.toLowerCase().replace(/[‘’]/g, "'"),
  }))
  const unpronounced = options.unpronounced ?? []
  const lines = spokenLines(segment, style)
  const advice = options.advice ?? []
  const understood = (perLine: readonly HeardLine[]): Understanding =>
    withOthers(
      withAdvice(
        voiced.length
          ? understand(heard, withoutStretches(voiced, others), perLine)
          : understandCaptions(heard, perLine),
        advice,
      ),
      others,
    )
  if (heard.length === 0) {
    const findings: HeardFinding[] = lines.length
      ? [
          {
            code: 'dead-air',
            start: 0,
            end: duration,
            stepId: lines[0]!.stepId,
            expected: lines[0]!.text,
            heard: '',
            certain: true,
            params: { case: 'whole' },
          },
        ]
      : []
    const missing = lines.map((l) => lineOf(l, null, heard))
    return {
      words: heard,
      lines: missing,
      ...(voiced.length ? { understood: understood(missing) } : {}),
      findings,
      drops: [],
      pace: null,
      quality: 0,
      unpronounced: [...unpronounced],
    }
  }
  const followed = follow(lines, heard)
  followed.final.forEach((a) => a && withItsPhrase(a, heard, followed.lineOf))
  const perLine = lines.map((l, i) => lineOf(l, followed.final[i]!, heard))
  const pace = paceOf(heard)
  if (strange(perLine, heard))
    return {
      words: heard,
      lines: perLine,
      findings: [],
      drops: [],
      pace,
      quality: 0,
      unpronounced: [...unpronounced],
      understood: understood(perLine),
      note: 'Hardly a word of this segment was heard in it: another segment, another language, or music?',
      claps: options.claps ? [...options.claps] : null,
      voiced: [...voiced],
    }
  const tries = triesOf(lines, followed, heard, voiced)
  const findings = [
    ...tries.findings,
    ...linesJudged(lines, perLine, followed, heard, duration, new Set(unpronounced), tries.used, voiced),
    ...told(lines, perLine),
  ]
  const gaps = gapsOf(
    lines,
    perLine,
    heard,
    wellHeard(followed, perLine),
    silentBetween(segment, lines, options.age, style),
    tries.used,
    duration,
    voiced,
  )
  findings.push(...gaps.findings)
  if (options.claps) findings.push(...clapSlips(segment, perLine, options.claps, duration))
  if (pace !== null && (pace > hearing.fastest || pace < hearing.slowest))
    findings.push({
      code: 'pace',
      start: 0,
      end: duration,
      stepId: null,
      expected: `${hearing.slowest}–${hearing.fastest}`,
      heard: String(Math.round(pace)),
      certain: true,
      params: { pace: Math.round(pace) },
    })
  findings.sort((a, b) => a.start - b.start)
  const how = understood(perLine)
  const sure = asSureAsHeard(findings, how, options.unsure)
  const drops = [...tries.drops, ...gaps.drops].sort((a, b) => a.from - b.from)
  return {
    words: heard,
    lines: perLine,
    findings: sure,
    understood: how,
    drops,
    pace,
    quality: qualityOf(sure, how),
    unpronounced: [...unpronounced],
    claps: options.claps ? [...options.claps] : null,
    voiced: [...voiced],
  }
}

/** Without the second of each number where a count is called and copied: "one, one, two, two, three, three". */
function withoutEchoes(words: readonly HeardWord[]): HeardWord[] {
  const copied = new Set<number>()
  for (let i = 0; i < words.length;) {
    let k = i
    while (
      k + 1 < words.length &&
      isNumberWord(words[k]!.word) &&
      words[k]!.word === words[k + 1]!.word &&
      words[k + 1]!.start - words[k]!.end < 3
    )
      k += 2
    // Twice or three times over is a slip or emphasis; from three on it is a call and its answer.
    if (k - i >= 6) for (let j = i + 1; j < k; j += 2) copied.add(j)
    i = Math.max(i + 1, k)
  }
  return words.filter((_, i) => !copied.has(i))
}

/** A take of something else: much was heard, and next to none of it is this segment's. */
function strange(lines: readonly HeardLine[], heard: readonly HeardWord[]): boolean {
  const words = lines.flatMap((l) => l.words)
  const said = words.filter((w) => w.status === 'said').length
  return words.length >= 8 && heard.length >= 8 && said < words.length * 0.25 && said < heard.length * 0.35
}

/** The line of each heard word, but for words matched in a line most of which was not heard: they may be another line's. */
const wellHeard = (f: Followed, per: readonly HeardLine[]): (number | null)[] =>
  f.lineOf.map((l) =>
    l !== null && per[l]!.words.filter((w) => w.at !== null).length >= per[l]!.words.length * 0.5 ? l : null,
  )

/** Points a finding takes off a take's hundred; a doubt takes half. */
const weight: Partial<Record<HeardFinding['code'], number>> = {
  'count-skip': 25,
  'count-repeat': 15,
  'count-order': 25,
  'count-end': 20,
  'total-mismatch': 30,
  'false-sentence': 30,
  'number-changed': 20,
  'line-skipped': 20,
  'clap-mismatch': 20,
  'false-start': 8,
  'dead-air': 6,
  'wait-short': 8,
  'answer-early': 10,
}
/** A take's hundred less its slips; of one that was not all understood only the share that was. */
export function qualityOf(findings: readonly HeardFinding[], understood?: Understanding): number {
  const lost = findings.reduce(
    (s, f) => s + (plainCodes.has(f.code) ? 0 : (weight[f.code] ?? 3) * (f.certain ? 1 : 0.5)),
    0,
  )
  const share = understood && understood.how !== 'understood' ? understood.share : 1
  return Math.max(0, Math.round((100 - lost) * share))
}

/**
 * "… six, six. Five altogether": the number nearer to the rest of the line is the line's own, though the earlier one is
 * the right one. Moves a matched number to an extra number that follows it and stands closer to the next word.
 */
function withItsPhrase(a: Attempt, heard: readonly HeardWord[], lineOf: (number | null)[]): void {
  // "… five, six, seven. Eight." where "Seven." is the line: the seven was a recount's, and what follows it is the line.
  const [only, before, next] = [a.words[0] ?? -1, (a.words[0] ?? 0) - 1, (a.words[0] ?? -2) + 1]
  if (
    a.words.length === 1 &&
    before >= 0 &&
    next > 0 &&
    next < heard.length &&
    lineOf[before] === null &&
    lineOf[next] === null &&
    isNumberWord(heard[next]!.word)
  ) {
    const [n, m] = [before, only].map((k) => numbersSaid(heard, k, k + 1)[0]?.n)
    const [beat, pause] = [heard[only]!.start - heard[before]!.start, heard[next]!.start - heard[only]!.start]
    if (n !== undefined && m === n + 1 && pause > beat * 1.3 && pause < 8) {
      lineOf[only] = null
      lineOf[next] = a.line
      a.words[0] = next
    }
  }
  a.words.forEach((at, k) => {
    const next = a.words[k + 1]
    if (
      at === null ||
      next === null ||
      next === undefined ||
      next <= at + 1 ||
      !isNumberWord(heard[at]!.word)
    )
      return
    const e = next - 1
    if (
      isNumberWord(heard[e]!.word) &&
      heard[e]!.start - heard[at]!.end > heard[next]!.start - heard[e]!.end + 0.3
    )
      a.words[k] = e
  })
}

function lineOf(line: SpokenLine, attempt: Attempt | null, heard: readonly HeardWord[]): HeardLine {
  const words = line.words.map((word, k) => {
    const at = attempt?.words[k] ?? null
    return {
      word,
      at,
      status:
        at === null
          ? ('missing' as const)
          : soundsLike(word, heard[at]!.word) || nearly(word, heard[at]!.word)
            ? ('said' as const)
            : ('changed' as const),
    }
  })
  const ats = words.flatMap((w) => (w.at === null ? [] : [w.at]))
  return {
    stepId: line.stepId,
    words,
    start: ats.length ? heard[ats[0]!]!.start : null,
    end: ats.length ? heard[ats.at(-1)!]!.end : null,
  }
}
/** A plural or an ending more or less. */
const nearly = (a: string, b: string): boolean =>
  a.length > 3 && b.length > 3 && (a.startsWith(b) || b.startsWith(a)) && Math.abs(a.length - b.length) <= 2

function linesJudged(
  lines: readonly SpokenLine[],
  per: readonly HeardLine[],
  followed: Followed,
  heard: readonly HeardWord[],
  duration: Seconds,
  unpronounced: ReadonlySet<string>,
  used: ReadonlySet<number>,
  voiced: readonly Piece[],
): HeardFinding[] {
  const out: HeardFinding[] = []
  let counted: { total: number; line: number } | null = null
  const maybe = per.some((l) => l.start === null || l.words.some((w) => w.at === null))
    ? likelySaid(lines, heard)
    : []
  lines.forEach((line, i) => {
    const l = per[i]!
    if (line.numbers) counted = { total: line.numbers.at(-1)!, line: i }
    if (line.deliberate) return
    const audible = l.words.filter((w) => !unpronounced.has(w.word))
    const share = audible.length ? audible.filter((w) => w.status === 'said').length / audible.length : 1
    const otherNumber =
      l.words.length <= 2 && l.words.some((w) => w.status === 'changed' && isNumberWord(heard[w.at!]!.word))
    if (share < hearing.skippedShare && !(line.numbers && share > 0) && !otherNumber) {
      // Words that were matched in it speak for its having been said, not for something else.
      const matched = new Set(followed.final[i]?.words.filter((w) => w !== null))
      const finding = skipped(
        line,
        i,
        per,
        heard.filter((_, k) => !matched.has(k)),
        duration,
        voiced,
      )
      if (finding) out.push((maybe[i] ?? 0) > hearing.maybeSaid ? { ...finding, certain: false } : finding)
      return
    }
    if (line.numbers) out.push(...countLine(line, followed.final[i]!, i, followed, heard, used, voiced))
    else out.push(...lineSlips(line, l, heard, counted && i - counted.line <= 2 ? counted.total : null))
  })
  return out
}

function skipped(
  line: SpokenLine,
  i: number,
  all: readonly HeardLine[],
  heard: readonly HeardWord[],
  duration: Seconds,
  voiced: readonly Piece[],
): HeardFinding | null {
  const before =
    all
      .slice(0, i)
      .reverse()
      .find((l) => l.end !== null)?.end ?? 0
  const after = all.slice(i + 1).find((l) => l.start !== null)?.start ?? duration
  const from = soundEnd(voiced, before)
  const start = afterEcho(heard, from, after)
  const mumbled = unheardVoice(voiced, heard, from, after)
  const needed = line.words.length * hearing.shortestWord
  // As much was said here as the line takes, and not understood: most likely it was the line.
  if (mumbled > needed && mumbled < needed * 4 + 1) return null
  // A word or two may have been said and not heard; so may a line where something sounds that was not understood.
  const doubt = mumbled > Math.min(1, needed / 2)
  return {
    code: 'line-skipped',
    start,
    end: Math.max(start, after),
    stepId: line.stepId,
    expected: line.text,
    heard: '',
    certain: line.words.length >= 3 && !doubt,
    params: { case: doubt ? 'something' : 'silent', line: line.text },
  }
}

/** Past words that follow a line closely and belong to none: "yes, ten" after "ten altogether". */
function afterEcho(heard: readonly HeardWord[], from: Seconds, to: Seconds): number {
  let at = from
  for (const w of heard)
    if (w.confidence >= 0.5 && w.start >= at - 0.05 && w.start - at < 1.2 && w.end < to) at = w.end
  return at
}

/** The numbers said in the counting of one line, and what went wrong among them. */
function countLine(
  line: SpokenLine,
  attempt: Attempt,
  i: number,
  followed: Followed,
  heard: readonly HeardWord[],
  used: ReadonlySet<number>,
  voiced: readonly Piece[],
): HeardFinding[] {
  const ats = attempt.words.filter((w) => w !== null)
  let [from, to] = [ats[0]!, ats.at(-1)! + 1]
  const gap = hearing.countGap
  // Numbers right before and after, that belong to no line, were counted too.
  const free = (k: number): boolean => followed.lineOf[k] === null && !used.has(k)
  while (
    from > 0 &&
    free(from - 1) &&
    heard[from]!.start - heard[from - 1]!.end < 1.2 &&
    numbersSaid(heard, from - 1, from).length
  )
    from--
  while (
    to < heard.length &&
    free(to) &&
    heard[to]!.start - heard[to - 1]!.end < gap &&
    (numbersSaid(heard, to, to + 1).length > 0 || passedOver.has(heard[to]!.word))
  )
    to++
  const said = numbersSaid(heard, from, to).filter((s: Said) =>
    Array.from({ length: s.last - s.first + 1 }, (_, k) => s.first + k).every(
      (k) => !used.has(k) && (followed.lineOf[k] === null || followed.lineOf[k] === i),
    ),
  )
  // A number that nobody else speaks of, recognised with next to no confidence, is a sound like any other.
  const planned = new Set(line.numbers)
  // "To" may be two, and may be any number at all: it fills its place and is no slip.
  const trusted = said
    .filter((x) => planned.has(x.n) || x.confidence >= 0.2)
    .map((x) =>
      x.first === x.last && inCount(heard[x.first]!.word) !== heard[x.first]!.word
        ? { ...x, guess: true }
        : x,
    )
  const { said: mended, findings } = mendRetries(
    withGuesses(trusted, heard, voiced, (k) => free(k) || followed.lineOf[k] === i),
    heard,
    line.stepId,
  )
  return [...findings, ...countSlips(line.numbers!, mended, line.stepId, heard[0]!.mark === undefined)]
}

/** Where viewers were told to stop the film: the pause lines that were said. */
function told(lines: readonly SpokenLine[], per: readonly HeardLine[]): HeardFinding[] {
  return lines.flatMap((line, i): HeardFinding[] => {
    const l = per[i]!
    if (
      line.verb !== 'pause' ||
      l.start === null ||
      l.words.filter((w) => w.status === 'said').length < l.words.length * 0.5
    )
      return []
    return [
      {
        code: 'pause-cue',
        start: l.start,
        end: l.end!,
        stepId: line.stepId,
        expected: line.text,
        heard: '',
        certain: true,
        params: {},
      },
    ]
  })
}

function paceOf(words: readonly HeardWord[]): number | null {
  // Only while speaking: gaps over a second are waits, handling or breath.
  let seconds = 0
  words.forEach((w, i) => {
    seconds += w.end - w.start + (i ? Math.min(1, Math.max(0, w.start - words[i - 1]!.end)) : 0)
  })
  return words.length >= 25 && seconds > 0 ? words.length / (seconds / 60) : null
}
