import type { HouseStyle } from '../contracts/house-style.ts'
import { isInFilm, type Lesson, type Segment, type Step, type TaskSpec } from '../contracts/lesson.ts'
import type { LiveState } from '../contracts/live.ts'
import type { TableState } from '../contracts/table.ts'
import type { Seconds } from '../contracts/units.ts'
import { facesOf, withRoll } from '../film/desk/rolls.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'
import { pauseWords, readCount, readSeconds } from '../script/reading.ts'
import { type Moment, simulate } from '../script/simulate.ts'
import { clock, timeOf } from '../script/time.ts'
import { choiceHolds, workedOut } from '../script/worked-out.ts'

/** One line of the run-of-show. */
export interface LiveLine {
  index: number
  segmentId: string
  step: Step
  /** Words to say, or what hands do, as the desk shows them. */
  words: string
  /** `round`: homes answer; `wait`: silence that is timed; else words or hands. */
  kind: 'say' | 'hands' | 'wait' | 'round'
  /** Seconds it is planned to take, answers included. */
  seconds: Seconds
  /** Seconds of thinking before anything can be sent; 0 for lines that are no round. */
  think: Seconds
  /** What homes answer; null where they only say that they are ready, and for lines that are no round. */
  task: TaskSpec | null
  /** Whether it is a question that may be answered on devices or only said. */
  offered: boolean
  /** The table once this line is done. */
  table: TableState
  /** Faces written in a roll; null for lines that roll nothing. */
  faces: readonly number[] | null
}
export interface LiveSegment {
  id: string
  title: string
  kind: Segment['kind']
  /** First line and one past the last. */
  from: number
  to: number
  seconds: Seconds
}
/** A script as it is run with the children there. */
export interface LiveRun {
  lines: readonly LiveLine[]
  segments: readonly LiveSegment[]
  /** Steps whose tasks are given without a film: for later, at home. */
  athome: readonly string[]
  seconds: Seconds
}

/**
 * Seconds of a round beside its thinking. With everybody waiting nobody answers as long as alone at home: half of that,
 * thirty seconds at most; then three, two, one, and a look at what came.
 */
const round = { share: 0.5, most: 30, countdown: 3, look: 8, photo: 40 } as const
/** Kinds that take a home minutes, or are a game's own record: for after the lesson unless the teacher says otherwise. */
const long = new Set<TaskSpec['kind']>(['record', 'ways', 'draw'])

/** Whether a task stays for home unless somebody asks for it live. */
const staysForLater = (segment: Pick<Segment, 'kind'>, task: TaskSpec | undefined): boolean =>
  task !== undefined && (segment.kind === 'home task' || long.has(task.kind))

/** What is revealed: its only number, or the one it opens with and says alone ("Three. Seven is three more than four."). */
function revealedIn(text: string): number | null {
  const all = numbersIn(tokens(text))
  const opening = tokens(/^[^.!?]*/.exec(text)![0])
  const first = numbersIn(opening)[0]
  if (first && first.to - first.from === opening.length) return first.value
  return all.length === 1 ? all[0]!.value : null
}
/** Numbers a script itself gives to a question before the next one, and which of them it reveals as the answer. */
function toldAfter({ segment, stepIndex }: Pick<Moment, 'segment' | 'stepIndex'>): {
  numbers: number[]
  revealed: number | null
} | null {
  for (const { verb, text } of segment.steps.slice(stepIndex + 1)) {
    if (verb === 'ask' || verb === 'pause') return null
    const numbers =
      verb === 'count'
        ? (readCount(text)?.numbers.slice(-1) ?? [])
        : verb === 'reveal' || verb === 'say'
          ? numbersIn(tokens(text)).map((n) => n.value)
          : []
    if (numbers.length || verb === 'reveal')
      return { numbers, revealed: verb === 'reveal' ? revealedIn(text) : null }
  }
  return null
}
/**
 * The number a spoken question asks for: worked out of its words, its story or the table, and held against what the
 * script says after it. The number it reveals is the answer, whatever was worked out. What was only read off the
 * table counts where the script agrees: much is asked about a table that is not how many lie there. Null: no number is
 * asked for, as far as can be told.
 */
function numberFor(m: Pick<Moment, 'step' | 'before' | 'segment' | 'stepIndex'>): number | 'unsure' | null {
  const worked = workedOut(m)
  if (!worked) return null
  const told = toldAfter(m)
  if (told?.numbers.includes(worked.value)) return worked.value
  if (told && told.revealed !== null) return told.revealed
  return told?.numbers.length || worked.from === 'table' ? 'unsure' : worked.value
}

/**
 * What homes may answer at a question that stands in the script as spoken only: a number where one is asked for, not
 * checked where it cannot be told for sure; yes or no where it asks for that. Null where nothing can be told of it.
 */
function offeredTask(m: Pick<Moment, 'step' | 'before' | 'segment' | 'stepIndex'>): TaskSpec | null {
  if (m.step.verb !== 'ask' || m.step.task || m.step.deliberate) return null
  const n = numberFor(m)
  if (n === 'unsure') return { kind: 'number', answer: 0, unchecked: true }
  if (n !== null && n >= 0 && n <= 1000) return { kind: 'number', answer: n }
  if (!/^(is|are|does|do|can|will|has|have|did|was|were)\b/i.test(m.step.text.trim())) return null
  const holds = choiceHolds(m.step.text, 'Yes')
  return {
    kind: 'choice',
    choices: ['Yes', 'No'],
    answer: holds === false ? 1 : 0,
    ...(holds === null ? { unchecked: true as const } : {}),
  }
}
/** Questions that are only said when a live lesson is made: those while something is shown. The teacher changes it line by line. */
export const saidOf = (doc: Pick<Lesson, 'segments'>): string[] =>
  simulate(doc)
    .filter((m) => isInFilm(m.segment) && m.segment.kind === 'show' && offeredTask(m) !== null)
    .map((m) => m.step.id)
/** Tasks that stay for later when a live lesson is made: the teacher changes it line by line. */
export const laterOf = (doc: Pick<Lesson, 'segments'>): string[] =>
  doc.segments
    .filter(isInFilm)
    .flatMap((s) => s.steps.filter((x) => staysForLater(s, x.task)).map((x) => x.id))

const answerSeconds = (task: TaskSpec | null): Seconds =>
  task === null
    ? 0
    : task.kind === 'photo'
      ? round.photo
      : Math.min(round.most, clock.homeAnswer[task.kind] * round.share)

/** Segments with what really came up at their rolls. */
function asThrown(doc: Lesson, thrown: LiveState['thrown']): Segment[] {
  return doc.segments.map((segment) =>
    thrown
      .filter((t) => segment.steps.some((s) => s.id === t.stepId))
      .reduce((s, t) => withRoll(doc, s, t.stepId, t.faces)?.segment ?? s, segment),
  )
}

/** What of a state makes the run what it is: while it is the same, so is the run. */
export const runKey = (s: Pick<LiveState, 'thrown' | 'later' | 'said'>): string =>
  JSON.stringify([s.thrown, s.later, s.said])
/**
 * The run-of-show of a lesson: children's lines in order, with stops and tasks as rounds. A wait after a question
 * belongs to its round. `pace`: the teacher's words a minute, null while unknown.
 */
export function runOf(
  doc: Lesson,
  style: HouseStyle,
  pace: number | null,
  state: Pick<LiveState, 'thrown' | 'later' | 'said'>,
): LiveRun {
  const lesson = state.thrown.length ? { ...doc, segments: asThrown(doc, state.thrown) } : doc
  const lines: LiveLine[] = []
  let absorbed: Step | null = null
  for (const m of simulate(lesson)) {
    if (!isInFilm(m.segment)) continue
    if (m.step === absorbed) continue
    const line = lineOf(m, lines.length, { age: doc.age, style, pace, later: state.later, said: state.said })
    // The silence after a question that homes answer is its thinking time.
    const next = m.segment.steps[m.stepIndex + 1]
    if (line.kind === 'round' && next?.verb === 'wait' && !next.task) absorbed = next
    lines.push(line)
  }
  const segments = lesson.segments.filter(isInFilm).flatMap((s): LiveSegment[] => {
    const own = lines.filter((l) => l.segmentId === s.id)
    if (!own.length) return []
    return [
      {
        id: s.id,
        title: s.title,
        kind: s.kind,
        from: own[0]!.index,
        to: own.at(-1)!.index + 1,
        seconds: own.reduce((sum, l) => sum + l.seconds, 0),
      },
    ]
  })
  return {
    lines,
    segments,
    athome: lesson.segments
      .filter((x) => x.audience === 'children' && x.unfilmed)
      .flatMap((x) => x.steps.filter((step) => step.task).map((step) => step.id)),
    seconds: segments.reduce((sum, s) => sum + s.seconds, 0),
  }
}

function lineOf(
  m: Moment,
  index: number,
  by: {
    age: number
    style: HouseStyle
    pace: number | null
    later: readonly string[]
    said: readonly string[]
  },
): LiveLine {
  const { step } = m
  const time = timeOf(m, by.age, by.style, by.pace)
  const next = m.segment.steps[m.stepIndex + 1]
  const kept = by.later.includes(step.id)
  const offered = offeredTask(m)
  const asked = step.task ?? (by.said.includes(step.id) ? null : offered)
  const isRound = !kept && (asked !== null || step.verb === 'pause')
  const task = isRound ? asked : null
  // What is done, not answered, wants no thinking first: they begin at once and say when they are ready.
  const think =
    !isRound || task === null
      ? 0
      : next?.verb === 'wait' && !next.task
        ? (readSeconds(next.text) ?? by.style.defaultWait)
        : by.style.defaultWait
  const doing = step.verb === 'pause' && !kept ? time.home : 0
  const seconds = !isRound
    ? time.film
    : task === null
      ? time.film + doing
      : time.film + think + Math.max(doing, answerSeconds(task)) + round.countdown + round.look
  return {
    index,
    segmentId: m.segment.id,
    step,
    words: liveWords(step.verb === 'pause' ? pauseWords(step.text) : step.text),
    kind: isRound ? 'round' : step.verb === 'wait' ? 'wait' : handsOf(step.verb),
    seconds,
    think,
    task,
    offered: offered !== null,
    table: m.after,
    faces: step.verb === 'do' ? facesOf(step.text) : null,
  }
}
/** A film is stopped and played; here homes say that they are ready. */
export const liveWords = (text: string): string =>
  text
    .replace(/\b(press|tap|push|hit) play( again)?\b/gi, (_, verb: string) =>
      verb.startsWith(verb[0]!.toUpperCase()) ? 'Say “ready”' : 'say “ready”',
    )
    .replace(/\b(pause|stop) the (film|video)( here)?\b/gi, (_, verb: string) =>
      verb.startsWith(verb[0]!.toUpperCase()) ? 'Stop here' : 'stop here',
    )
const handsOf = (verb: Step['verb']): 'say' | 'hands' =>
  verb === 'do' || verb === 'write' || verb === 'sound' ? 'hands' : 'say'

/** From when until when silence is kept at the line a lesson is at, in ms; null where it keeps none. */
export function silenceNow(
  run: LiveRun,
  s: Pick<LiveState, 'phase' | 'line' | 'since' | 'longer' | 'game'>,
  style: HouseStyle,
): { from: number; until: number } | null {
  const line = run.lines[s.line]
  if (line?.kind !== 'wait' || s.phase !== 'on' || s.game) return null
  const seconds = readSeconds(line.step.text) ?? style.defaultWait
  return { from: s.since, until: s.since + seconds * 1000 + s.longer }
}

/** The line after this one that is not left out; the number of lines at the end. */
export function nextLine(run: LiveRun, leftOut: readonly string[], line: number): number {
  let at = line + 1
  while (at < run.lines.length && leftOut.includes(run.lines[at]!.segmentId)) at++
  return at
}
/** The line before this one that is not left out; the first where there is none. */
export function lineBefore(run: LiveRun, leftOut: readonly string[], line: number): number {
  let at = line - 1
  while (at > 0 && leftOut.includes(run.lines[at]?.segmentId ?? '')) at--
  return Math.max(0, at)
}
