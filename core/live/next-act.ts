import type { LiveAct, LiveRound, LiveState, ShowWay } from '../contracts/live.ts'
import { lineBefore, type LiveRun, nextLine } from './run.ts'
import { momentOf } from './round.ts'
import { roundNow } from './state.ts'

export interface NextAct {
  /** What the one large button says. */
  words: string
  act: LiveAct | null
  /** Milliseconds by the server's clock before which it waits; null where it can be pressed. */
  from: number | null
}
/** What comes next in a live lesson: the one key a teacher presses with a camera on them. `show`: how a number is shown. */
export function nextAct(run: LiveRun, s: LiveState, now: number, show: ShowWay): NextAct {
  if (s.phase === 'waiting') return { words: 'Begin', act: { do: 'start' }, from: null }
  if (s.phase === 'over') return { words: 'Over', act: null, from: null }
  const r = roundNow(s)
  return (r?.spec ? ofRound(r, now) : null) ?? ofLine(run, s, show)
}
/** What comes next in a round that is answered; null once it has been shown. */
function ofRound(r: LiveRound, now: number): NextAct | null {
  switch (momentOf(r, now)) {
    case 'thinking':
      return { words: 'They are thinking', act: { do: 'show' }, from: r.opens }
    case 'open':
      return { words: 'Three, two, one, show', act: { do: 'show' }, from: null }
    case 'counting':
      return { words: 'Three, two, one …', act: null, from: r.shows }
    case 'shown':
      return null
  }
}
/** What comes next at a line: its round where it has one that was not asked, else the next line, else the end. */
function ofLine(run: LiveRun, s: LiveState, show: ShowWay): NextAct {
  const round = roundNow(s)
  if (s.game && round) return { words: 'Close the round', act: { do: 'close' }, from: null }
  const line = run.lines[s.line]
  const asked = round !== null || s.rounds.some((x) => x.stepId === line?.step.id && !x.undone)
  if (!s.game && line?.kind === 'round' && !asked)
    return {
      words: line.task ? 'Ask it' : 'Let them do it',
      act: { do: 'round', line: s.line, show, think: Math.min(120, Math.round(line.think)) },
      from: null,
    }
  const next = nextLine(run, s.leftOut, s.line)
  return next < run.lines.length
    ? { words: 'Go on', act: { do: 'go', line: next }, from: null }
    : { words: 'End the lesson', act: { do: 'end' }, from: null }
}
/** A line back; null where there is none. */
export function backAct(run: LiveRun, s: LiveState): LiveAct | null {
  if (s.phase !== 'on' || s.line === 0) return null
  return { do: 'go', line: lineBefore(run, s.leftOut, s.line) }
}
