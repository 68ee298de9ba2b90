import type { Frames, Seconds } from '../contracts/units.ts'
import { told } from '../findings/say.ts'
import { type CutReason, framesPerSecond, type Why } from '../contracts/cut.ts'
import { type HeardWord, type Hearing } from '../contracts/heard.ts'
import { toFrame } from './timeline.ts'

/** A stretch of a take proposed to be left out, in frames. */
export interface Drop {
  from: number
  to: number
  why: Why
}
/** Time to think that was cut short: the picture before `at` is to be held. Frames. */
export interface Held {
  at: number
  frames: Frames
  stepId: string | null
  why: Why
}
export type HeardTake = Pick<Hearing, 'drops' | 'findings' | 'voiced'> & { words?: readonly HeardWord[] }

/** Seconds of silence left beside a filler that goes. */
const besideFiller = { own: 0.1, others: 0.05 } as const
/** A sound this close (seconds) before a slip that was taken for no word belongs to it. */
const unheardLead = 0.25
const open = (id: string, kind: CutReason, note: string, sure: boolean): Why => ({
  id,
  act: 'drop',
  kind,
  note: note.slice(0, 240),
  sure,
  state: 'open',
})

/**
 * Everything of a take that is proposed to go, in order, none overlapping: slips with their retry, false starts,
 * fillers, dead air beyond what is written, and what comes before the first word and after the last. `takeSeconds` is
 * the take's length.
 */
export function dropsOf(hearing: HeardTake, takeSeconds: Seconds): Drop[] {
  const last = toFrame(takeSeconds)
  const found: Drop[] = hearing.drops.map((d) => {
    const [from, to] = [toFrame(d.from), Math.min(last, toFrame(d.to))]
    const kind: CutReason = d.reason === 'silence' && (from === 0 || to === last) ? 'ends' : d.reason
    return { from, to, why: open(`${kind[0]}${from}-${to}`, kind, d.note, true) }
  })
  for (const f of hearing.findings) {
    if (
      (f.code !== 'filler' && f.code !== 'false-start') ||
      hearing.drops.some((d) => d.from < f.end && d.to > f.start)
    )
      continue
    const words = hearing.words ?? []
    const before = words.findLast((w) => w.end <= f.start + 0.01)?.end ?? 0
    const after = words.find((w) => w.start >= f.end - 0.01)?.start ?? takeSeconds
    const from = toFrame(Math.max(before + besideFiller.others, f.start - besideFiller.own))
    const to = Math.min(
      last,
      toFrame(Math.max(f.end, Math.min(after - besideFiller.others, f.end + besideFiller.own))),
    )
    const kind: CutReason = f.code === 'filler' ? 'filler' : 'false start'
    found.push({
      from,
      to,
      why: open(
        `${kind[0]}${from}-${to}`,
        kind,
        f.code === 'filler' ? told('take', f) : f.heard || told('take', f),
        f.certain,
      ),
    })
  }
  for (const d of found) if (d.why.kind !== 'silence' && d.why.kind !== 'ends') widen(d, hearing)
  const out: Drop[] = []
  for (const d of found.filter((x) => x.to > x.from).sort((a, b) => a.from - b.from || b.to - a.to)) {
    const end = out.at(-1)?.to ?? 0
    // What another drop covers already needs no second one.
    if (d.to <= end) continue
    out.push(d.from < end ? { ...d, from: end } : d)
  }
  return out
}

/** Waits cut short, with how long the picture has to stand still so that children get the time written. Frames. */
export function holdsOf(hearing: Pick<Hearing, 'findings'>): Held[] {
  return hearing.findings.flatMap((f) => {
    if (f.code !== 'wait-short' && f.code !== 'answer-early') return []
    const [written, left] = [Number.parseFloat(f.expected), Number.parseFloat(f.heard)]
    const frames = toFrame(written - left)
    if (!(frames > 0)) return []
    // Just before the answer, but never into the question.
    const at = toFrame(Math.max(f.start + Math.min(0.1, (f.end - f.start) / 2), f.end - 0.2))
    return [
      {
        at,
        frames,
        stepId: f.stepId,
        why: {
          id: `w${at}`,
          act: 'add' as const,
          kind: 'wait' as const,
          note: `Filmed ${left} s, written ${written} s: the last picture is held ${(written - left).toFixed(1)} s with a ring, so that children get the time you planned.`,
          sure: f.certain,
          state: 'open' as const,
        },
      },
    ]
  })
}

/** A slip may begin with a sound that was taken for no word: the drop begins where that sound does, if nothing else is said in it. */
function widen(d: Drop, hearing: HeardTake): void {
  const from = d.from / framesPerSecond
  const v = hearing.voiced?.findLast((x) => x.from < from && from - x.to < unheardLead)
  if (!v || hearing.words?.some((w) => w.end > v.from + 0.02 && (w.start + w.end) / 2 < from)) return
  d.from = toFrame(Math.max(0, v.from - besideFiller.others))
}
