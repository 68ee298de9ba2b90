import type { Concern } from '../contracts/concern.ts'
import type { CutList, Why } from '../contracts/cut.ts'
import type { Understanding } from '../contracts/heard.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { isInFilm, type Lesson } from '../contracts/lesson.ts'
import type { FilmCheck } from '../contracts/render.ts'
import { told } from '../findings/say.ts'
import type { Check } from '../cut/checks.ts'
import type { Finding } from '../script/proof/finding.ts'
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

/** What is not in order before a film is rendered: the same, from the cut that is open. */
export function beforeRendering(g: {
  lesson: Lesson
  findings: readonly Finding[]
  /** Segments for children that no take is chosen for. */
  notFilmed: readonly { id: string; title: string }[]
  /** Segments whose chosen take was not understood, or only in part: nobody knows what is said in it. */
  notUnderstood: readonly { id: string; title: string; how: Understanding['how'] }[]
  /** Segments whose chosen take has slips that no cut takes away, and the number of a take without any. */
  filmAgain: readonly { id: string; title: string; slips: number; better: number | null }[]
  checks: readonly Check[]
  cut: Pick<CutList, 'segments'> | null
}): Concern[] {
  const wrong = g.checks.filter((c) => c.severity === 'wrong')
  return [
    ...ofFindings(g.lesson, g.findings),
    ...g.notFilmed
      .slice(0, most)
      .map((s) =>
        concern('film', `missing:${s.id}`, `“${short(s.title)}” is not filmed.`, { segmentId: s.id }),
      ),
    ...g.notUnderstood
      .slice(0, most)
      .map((s) =>
        concern(
          'film',
          `unheard:${s.id}`,
          `“${short(s.title)}” was ${s.how === 'partly' ? 'only partly understood' : s.how}: listen to it before it goes out.`,
          { segmentId: s.id },
        ),
      ),
    ...g.filmAgain.slice(0, most).map((s) => {
      const slips =
        s.slips === 1 ? 'a slip that cannot be cut away' : `${s.slips} slips that cannot be cut away`
      return s.better === null
        ? concern(
            'film',
            `again:${s.id}`,
            `“${short(s.title)}” has ${slips}, and no take is without: film it again.`,
            {
              segmentId: s.id,
            },
          )
        : concern(
            'cut',
            `again:${s.id}`,
            `“${short(s.title)}” has ${slips}; take ${s.better} has none: cut from that one.`,
            {
              segmentId: s.id,
            },
          )
    }),
    ...wrong
      .slice(0, most)
      .map((c, i) => concern('cut', `${c.code}:${i}`, told('cut', c), { segmentId: c.segmentId })),
    ...(wrong.length > most ? [concern('cut', 'more', `And ${wrong.length - most} more in the cut.`)] : []),
    ...slipsKept(g.lesson, g.cut),
  ]
}
/** Slips that were heard and are still in the film, whether nobody has decided or somebody chose to keep them. */
function slipsKept(lesson: Lesson, cut: Pick<CutList, 'segments'> | null): Concern[] {
  const titles = new Map(lesson.segments.map((s) => [s.id, s.title]))
  return (cut?.segments ?? []).flatMap((s) => {
    const kept = new Map(
      s.items.flatMap((i) =>
        i.why && i.why.act === 'drop' && isSlip(i.why.kind) && i.why.state !== 'accepted'
          ? [[i.why.id, i.why] as const]
          : [],
      ),
    )
    return [...kept.values()].map((w) =>
      concern(
        'cut',
        `kept:${s.segmentId}:${w.id}`.slice(0, 110),
        `“${short(titles.get(s.segmentId) ?? '')}” keeps a ${w.kind}: ${w.note}`,
        { segmentId: s.segmentId },
      ),
    )
  })
}
const isSlip = (kind: Why['kind']): boolean => kind === 'slip' || kind === 'false start'

const ofScript = ({ lesson, style }: Going): Concern[] =>
  ofFindings(lesson, proofread(lesson, style).findings)
function ofFindings(lesson: Lesson, findings: readonly Finding[]): Concern[] {
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
    (s) => isInFilm(s) && s.steps.some((x) => x.verb !== 'pause') && !inCut.has(s.id),
  )
  if (!film.cut) return []
  return missing
    .slice(0, most)
    .map((s) =>
      concern('film', `missing:${s.id}`, `“${short(s.title)}” is not in the film.`, { segmentId: s.id }),
    )
}
function ofCut({ lesson, film, changedAt, cutRevision }: Going): Concern[] {
  if (!film) return []
  const out: Concern[] = []
  if (changedAt > film.createdAt)
    out.push(concern('cut', 'script-changed', 'The script was changed after the film was made.'))
  if (cutRevision !== null && cutRevision > film.cutRevision)
    out.push(concern('cut', 'stale', 'The cut was changed after the film was made: render it again.'))
  const wrong = (film.checks ?? []).filter((c) => c.severity === 'wrong')
  for (const [i, c] of wrong.slice(0, most).entries())
    out.push(concern('cut', `${c.code}:${i}`, told('film', c)))
  out.push(...slipsKept(lesson, film.cut))
  return out
}
