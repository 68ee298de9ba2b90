import type { TaskSpec } from '../contracts/lesson.ts'
import {
  type Done,
  type LiveAct,
  type LiveRound,
  type LiveState,
  type ShowWay,
  showsUpTo,
} from '../contracts/live.ts'
import type { TableState } from '../contracts/table.ts'
import { readHands } from '../script/language/read.ts'
import { emptyTable, partitionsOn } from '../script/table/state.ts'
import { canCome, play } from './games.ts'
import { momentOf } from './round.ts'
import { laterOf, type LiveRun, nextLine, saidOf } from './run.ts'
import type { Lesson } from '../contracts/lesson.ts'

/** Milliseconds from "three" to all at once. */
export const countdown = 3_000
/** Milliseconds a connection may bring an answer after "all at once" without its being called late. */
export const grace = 1_500
/** Milliseconds an answer may be early by: what the way to a device takes. */
const early = 300

/** Why an act cannot be done now, in words. */
export class LiveRefusal extends Error {
  constructor(message: string) {
    super(message)
    this.name = 'LiveRefusal'
  }
}

export const startState = (doc: Pick<Lesson, 'segments'>): LiveState => ({
  seq: 0,
  phase: 'waiting',
  startedAt: null,
  endedAt: null,
  line: 0,
  since: 0,
  longer: 0,
  again: 0,
  visits: [],
  acts: [],
  thrown: [],
  leftOut: [],
  later: laterOf(doc),
  said: saidOf(doc),
  rounds: [],
  game: null,
  sentence: '',
  window: { names: false, words: false, tally: false },
  lead: null,
  notes: [],
})

/** The round that is under way, or was shown and not closed; null where none is. */
export const roundNow = (s: Pick<LiveState, 'rounds'>): LiveRound | null => {
  const last = s.rounds.at(-1)
  return last && !last.undone && last.closed === null ? last : null
}
/** Whether what homes gave may be seen: three, two, one is over. */
export const isShown = (r: Pick<LiveRound, 'opens' | 'shows'>, now: number): boolean =>
  momentOf(r, now) === 'shown'

const tables = new WeakMap<LiveRun, Map<string, TableState>>()
/** The table as it is shared now: the script's, or a game's, with what hands did to it since. */
export function tableNow(run: LiveRun, s: Pick<LiveState, 'line' | 'acts' | 'game'>): TableState {
  const key = JSON.stringify([s.game ? 'game' : s.line, s.acts])
  const known = tables.get(run) ?? new Map<string, TableState>()
  tables.set(run, known)
  let table = known.get(key)
  if (!table) {
    const base = s.game
      ? emptyTable
      : (run.lines[Math.min(s.line, run.lines.length - 1)]?.table ?? emptyTable)
    table = s.acts.reduce((t, text) => readHands(text, t).after, base)
    if (known.size > 50) known.clear()
    known.set(key, table)
  }
  return table
}

/** The visits with the one to a line's segment, where that is another than the last. */
function visiting(s: LiveState, run: LiveRun, at: { line: number; at: number }): LiveState['visits'] {
  const segmentId = run.lines[at.line]?.segmentId
  return segmentId === undefined || s.visits.at(-1)?.segmentId === segmentId
    ? s.visits
    : [...s.visits, { segmentId, at: at.at }].slice(-400)
}
const closed = (s: LiveState, at: number): LiveRound[] =>
  s.rounds.map((r, i) =>
    i === s.rounds.length - 1 && !r.undone && r.closed === null
      ? { ...r, shows: r.shows ?? at, closed: Math.max(at, r.shows ?? at) }
      : r,
  )

interface Asking {
  stepId: string | null
  segmentId: string | null
  prompt: string
  spec: TaskSpec | null
  show: ShowWay
  think: number
  game: boolean
}
/** The first way to see two parts on a table; none where it shows none. */
const partsOn = (table: TableState): number[] =>
  partitionsOn(table).find((p) => p.length === 2 && p.every((n) => n > 0)) ?? []
/** The way that was chosen, or a card where an answer that is right is more than it can show. */
const wayFor = (spec: TaskSpec | null, way: ShowWay): ShowWay =>
  spec?.kind === 'number' && Math.max(spec.answer, ...(spec.also ?? [])) > showsUpTo[way] ? 'card' : way
function withRound(s: LiveState, run: LiveRun, at: number, asked: Asking): LiveState {
  if (s.rounds.length >= 200) throw new LiveRefusal('Two hundred rounds are the most a lesson can hold.')
  const { think, ...r } = asked
  const round: LiveRound = {
    ...r,
    show: wayFor(asked.spec, asked.show),
    id: `r${s.rounds.length + 1}`,
    parts: partsOn(tableNow(run, s)),
    began: at,
    opens: at + think * 1000,
    shows: null,
    closed: null,
    undone: false,
  }
  return { ...s, rounds: [...closed(s, at), round] }
}
const changed = (s: LiveState, change: Partial<LiveRound>): LiveRound[] =>
  s.rounds.map((r, i) => (i === s.rounds.length - 1 ? { ...r, ...change } : r))

/** What may be done only while the lesson is on. */
const onlyOn = new Set<LiveAct['do']>([
  'go',
  'longer',
  'again',
  'round',
  'ask',
  'show',
  'close',
  'undo',
  'throw',
  'play',
  'game',
])

/**
 * A live lesson after one more act. The sum of its acts is all there is to know of it: any process that has them has the
 * same state. @throws LiveRefusal in words, with nothing changed
 */
export function after(s: LiveState, run: LiveRun, done: Done): LiveState {
  const { act } = done
  if (s.phase === 'over' && act.do !== 'note') throw new LiveRefusal('The lesson is over.')
  if (onlyOn.has(act.do) && s.phase !== 'on') throw new LiveRefusal('The lesson has not begun.')
  const doing = does[act.do] as (s: LiveState, run: LiveRun, a: Done) => LiveState
  const next = { ...doing(s, run, done), seq: s.seq + 1 }
  return next.lead ? next : { ...next, lead: done.by }
}

type Act<K extends LiveAct['do']> = Extract<LiveAct, { do: K }>
interface At<K extends LiveAct['do']> {
  act: Act<K>
  at: number
  by: Done['by']
}
const without = (list: readonly string[], one: string): string[] => list.filter((x) => x !== one)
const withOne = (list: readonly string[], one: string, most: number): string[] =>
  [...without(list, one), one].slice(-most)
const segmentAt = (s: LiveState, run: LiveRun): string | null => run.lines[s.line]?.segmentId ?? null

/** What each act does to a lesson. Each gives the whole state, or throws a refusal. */
const does: { [K in LiveAct['do']]: (s: LiveState, run: LiveRun, a: At<K>) => LiveState } = {
  start(s, run, { at, by }) {
    if (s.phase !== 'waiting') throw new LiveRefusal('It has begun already.')
    if (!run.lines.length) throw new LiveRefusal('Its script has no lines for children yet.')
    const line = nextLine(run, s.leftOut, -1) % run.lines.length
    return {
      ...s,
      phase: 'on',
      startedAt: at,
      line,
      since: at,
      lead: by,
      visits: visiting(s, run, { line, at }),
    }
  },
  end: (s, _run, { at }) => ({
    ...s,
    rounds: closed(s, at),
    phase: 'over',
    endedAt: at,
    startedAt: s.startedAt ?? at,
  }),
  go(s, run, { act, at }) {
    if (act.line >= run.lines.length) throw new LiveRefusal('That was the last line.')
    return {
      ...s,
      rounds: closed(s, at),
      visits: visiting(s, run, { line: act.line, at }),
      line: act.line,
      since: at,
      longer: 0,
      acts: [],
      game: null,
      sentence: '',
    }
  },
  longer(s, _run, { act, at }) {
    const r = roundNow(s)
    if (r && r.shows === null)
      return { ...s, rounds: changed(s, { opens: Math.max(r.opens, at) + act.seconds * 1000 }) }
    return { ...s, longer: Math.min(600_000, s.longer + act.seconds * 1000) }
  },
  again: (s) => ({ ...s, again: s.again + 1 }),
  lead: (s, _run, { by }) => ({ ...s, lead: by }),
  note: (s, run, { act, at }) => ({
    ...s,
    notes: [...s.notes.slice(-199), { at, segmentId: segmentAt(s, run), text: act.text }],
  }),
  'leave out'(s, run, { act }) {
    if (!run.segments.some((x) => x.id === act.segmentId)) throw new LiveRefusal('There is no such segment.')
    if (segmentAt(s, run) === act.segmentId && s.phase === 'on')
      throw new LiveRefusal('The lesson is in this segment now: go on to the next instead.')
    return { ...s, leftOut: withOne(s.leftOut, act.segmentId, 60) }
  },
  'bring back': (s, _run, { act }) => ({ ...s, leftOut: without(s.leftOut, act.segmentId) }),
  later: (s, _run, { act }) => ({
    ...s,
    later: act.later ? withOne(s.later, act.stepId, 200) : without(s.later, act.stepId),
  }),
  said: (s, _run, { act }) => ({
    ...s,
    said: act.said ? withOne(s.said, act.stepId, 400) : without(s.said, act.stepId),
  }),
  window(s, _run, { act: { names, words, tally } }) {
    const w = s.window
    return { ...s, window: { names: names ?? w.names, words: words ?? w.words, tally: tally ?? w.tally } }
  },
  round(s, run, { act, at }) {
    const line = run.lines[act.line]
    if (line?.kind !== 'round') throw new LiveRefusal('Homes answer nothing at this line.')
    return withRound(s, run, at, {
      stepId: line.step.id,
      segmentId: line.segmentId,
      prompt: line.words,
      spec: line.task,
      show: act.show,
      think: act.think,
      game: false,
    })
  },
  ask: (s, run, { act, at }) =>
    withRound(s, run, at, {
      stepId: null,
      segmentId: segmentAt(s, run),
      prompt: act.prompt,
      // With no answer named, only a person looks.
      spec: { kind: 'number', answer: act.answer ?? 0, ...(act.answer === null ? { unchecked: true } : {}) },
      show: act.show,
      think: act.think,
      game: false,
    }),
  show(s, _run, { at }) {
    const r = roundNow(s)
    if (!r) throw new LiveRefusal('Nothing is asked at the moment.')
    if (r.shows !== null) return s
    if (r.spec === null) throw new LiveRefusal('They are doing something: go on when they are ready.')
    if (at + early < r.opens) throw new LiveRefusal('They are still thinking.')
    return { ...s, rounds: changed(s, { shows: at + countdown }) }
  },
  close: (s, _run, { at }) => ({ ...s, rounds: closed(s, at) }),
  undo(s, _run, { at }) {
    const i = s.rounds.findLastIndex((r) => !r.undone)
    if (i < 0) throw new LiveRefusal('There is no round to take back.')
    return {
      ...s,
      rounds: s.rounds.map((r, k) => (k === i ? { ...r, undone: true, closed: r.closed ?? at } : r)),
    }
  },
  table(s, run, { act }) {
    const read = readHands(act.text, tableNow(run, s))
    if (read.error) throw new LiveRefusal(`The table does not allow “${act.text}”.`)
    if (!read.whole || !read.actions.length)
      throw new LiveRefusal(`“${act.text}” could not be read; nothing was moved.`)
    if (s.acts.length >= 60) throw new LiveRefusal('Go to another line first: much was moved at this one.')
    return { ...s, acts: [...s.acts, act.text] }
  },
  'table back': (s) => ({ ...s, acts: s.acts.slice(0, -1) }),
  throw(s, run, { act }) {
    const line = run.lines.find((l) => l.step.id === act.stepId)
    if (!line?.faces) throw new LiveRefusal('Nothing is thrown at this line.')
    if (line.faces.length !== act.faces.length)
      throw new LiveRefusal(`${line.faces.length} came up there: tell as many.`)
    const { stepId, faces } = act
    return { ...s, thrown: [...s.thrown.filter((t) => t.stepId !== stepId), { stepId, faces }] }
  },
  game: (s, _run, { act, at }) => ({
    ...s,
    rounds: closed(s, at),
    game: act.game,
    acts: [],
    sentence: '',
  }),
  play(s, run, { act, at }) {
    if (!s.game) throw new LiveRefusal('No game is on.')
    if (!canCome(s.game, act.thrown)) throw new LiveRefusal('That cannot come up in this game.')
    const p = play(s.game, act.thrown)
    return {
      ...withRound(s, run, at, {
        stepId: null,
        segmentId: segmentAt(s, run),
        prompt: p.prompt,
        spec: p.spec,
        show: act.show,
        think: act.think,
        game: true,
      }),
      game: p.then,
      acts: [...p.lines],
      sentence: p.sentence,
    }
  },
}

/** What becomes of an answer that arrives at `now` for a round. */
export type Arrival = 'in time' | 'late' | 'early' | 'undone' | 'unknown'
export function arrival(s: Pick<LiveState, 'rounds'>, roundId: string, now: number): Arrival {
  const r = s.rounds.find((x) => x.id === roundId)
  if (!r) return 'unknown'
  if (r.undone) return 'undone'
  if (now + early < r.opens) return 'early'
  return r.shows === null || now <= r.shows + grace ? 'in time' : 'late'
}
