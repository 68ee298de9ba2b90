import type { HomeTask } from '../contracts/api/home.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import type { LiveState } from '../contracts/live.ts'
import { shownTask } from '../send/shown-task.ts'
import { type LiveRun, silenceNow } from './run.ts'
import { roundNow, tableNow } from './state.ts'
import { isBare } from '../script/table/state.ts'
import type { LiveRoundSeen, LiveSeen } from '../contracts/api/live.ts'

/** The task of a round as a home gets it: nothing in it gives the answer away. */
function seenTask(
  id: string,
  prompt: string,
  spec: NonNullable<LiveState['rounds'][number]['spec']>,
): HomeTask {
  return { id, prompt, kind: spec.kind, sets: [], ...shownTask(id, spec) }
}
/** A short name of what lies on the table: another one whenever something moves, null while it is bare. */
function tableKey(run: LiveRun, s: LiveState): string | null {
  const table = tableNow(run, s)
  if (s.phase !== 'on' || (isBare(table) && !table.mats.length)) return null
  const text = JSON.stringify(table)
  let hash = 5381
  for (let i = 0; i < text.length; i++) hash = (hash * 33 + text.charCodeAt(i)) % 4_294_967_296
  return hash.toString(36)
}
/** What all homes see of a live lesson at a moment: never an answer, never who gave one, never another child. */
export function seenBy(run: LiveRun, s: LiveState, style: HouseStyle, now: number): LiveSeen {
  const line = run.lines[s.line]
  const r = s.phase === 'on' ? roundNow(s) : null
  const round: LiveRoundSeen | null = r && {
    id: r.id,
    prompt: r.prompt,
    task: r.spec && seenTask(r.id, r.prompt, r.spec),
    show: r.show,
    opens: r.opens,
    shows: r.shows,
  }
  return {
    seq: s.seq,
    now,
    phase: s.phase,
    // What hands do is seen on the table; what is asked stands in the round.
    words: s.phase === 'on' && !r && line && !s.game && line.kind === 'say' ? line.words : null,
    silence: r ? null : silenceNow(run, s, style),
    again: s.again,
    table: tableKey(run, s),
    round,
  }
}
