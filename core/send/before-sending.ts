import type { Concern } from '../contracts/concern.ts'
import type { CutList } from '../contracts/cut.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import type { Lesson } from '../contracts/lesson.ts'
import type { FilmCheck } from '../contracts/render.ts'
import { told } from '../findings/say.ts'
import { proofread } from '../script/proof/proof.ts'

interface Going {
  lesson: Lesson
  style: HouseStyle
  /** When the script was last changed. */
  changedAt: Date
  /** The newest film, with the cut it was made from; null when none was rendered. */
  film: {
    cutRevision: number
    checks: readonly FilmCheck[] | null
    createdAt: Date
    cut: CutList | null
  } | null
  /** Revision of the cut as it stands; null when nothing was cut. */
  cutRevision: number | null
}
/** Most findings of one kind that are named one by one; more are counted. */
const most = 12

/** All that is not in order: wrong lines of the script, parts that are missing or older than what they were made from. */
export function beforeSending(g: Going): Concern[] {
  return [...ofScript(g), ...ofFilm(g), ...ofCut(g)]
}
const concern = (
  station: Concern['station'],
  key: string,
  what: string,
  at: Partial<Pick<Concern, 'segmentId' | 'stepId'>> = {},
): Concern => ({ key: `${station}:${key}`, station, what, segmentId: null, stepId: null, ...at })

function ofScript({ lesson, style }: Going): Concern[] {
  const { findings } = proofread(lesson, style)
  const wrong = findings.filter((f) => f.severity === 'wrong')
  const risky = findings.filter((f) => f.severity === 'risky').length
  const lines = new Map(lesson.segments.flatMap((s) => s.steps.map((x) => [x.id, x.text] as const)))
  const named = wrong.slice(0, most).map((f) => {
    const line = f.stepId ? lines.get(f.stepId) : undefined
    const what = `${f.certain === false ? 'Perhaps: ' : ''}${told('script', f)}${line ? ` (“${short(line)}”)` : ''}`
    return concern('script', `${f.code}:${f.stepId ?? ''}`, what, {
      segmentId: f.segmentId,
      stepId: f.stepId,
    })
  })
  if (wrong.length > most)
    named.push(concern('script', 'more', `And ${wrong.length - most} more lines that are not right.`))
  if (risky)
    named.push(
      concern(
        'script',
        'risky',
        risky === 1 ? 'One risk is open in the script.' : `${risky} risks are open in the script.`,
      ),
    )
  return named
}
const short = (text: string): string => (text.length > 50 ? `${text.slice(0, 48)}…` : text)

function ofFilm({ lesson, film }: Going): Concern[] {
  if (!film) return [concern('film', 'none', 'There is no film: homes get the tasks without one.')]
  const inCut = new Set(
    (film.cut?.segments ?? []).filter((s) => s.items.some((x) => x.kind === 'clip')).map((s) => s.segmentId),
  )
  const missing = lesson.segments.filter(
    (s) => s.audience === 'children' && s.steps.some((x) => x.verb !== 'pause') && !inCut.has(s.id),
  )
  if (!film.cut) return []
  return missing
    .slice(0, most)
    .map((s) =>
      concern('film', `missing:${s.id}`, `“${short(s.title)}” is not in the film.`, { segmentId: s.id }),
    )
}
function ofCut({ film, changedAt, cutRevision }: Going): Concern[] {
  if (!film) return []
  const out: Concern[] = []
  if (changedAt > film.createdAt)
    out.push(concern('cut', 'script-changed', 'The script was changed after the film was made.'))
  if (cutRevision !== null && cutRevision > film.cutRevision)
    out.push(concern('cut', 'stale', 'The cut was changed after the film was made: render it again.'))
  const wrong = (film.checks ?? []).filter((c) => c.severity === 'wrong')
  for (const [i, c] of wrong.slice(0, most).entries())
    out.push(concern('cut', `${c.code}:${i}`, told('film', c)))
  return out
}
