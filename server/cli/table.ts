import fs from 'node:fs/promises'
import path from 'node:path'
import { told } from '@awlbox/core/findings/say'
import { refusalCode } from '@awlbox/core/script/proof/count-rules'
import { sayActions } from '@awlbox/core/script/language/say'
import { type Moment, simulate } from '@awlbox/core/script/simulate'
import { describeTable } from '@awlbox/core/script/table/description'
import { matName } from '@awlbox/core/script/table/mats'
import { heapsIn, type Mat, type Region, type TableState } from '@awlbox/core/script/table/state'
import { type Printed, readLesson } from './printed.ts'

/** `table LESSON`: the whole table after each line of the script, and how the line was read. */
export async function table(args: string[]): Promise<Printed> {
  const { lesson, unplaced } = await readLesson(args[0])
  const moments = simulate(lesson)
  const lines = await linesOf(args[0]!, moments)
  const rows = moments.map((m, i) => ({
    line: lines[i] ?? null,
    step: i + 1,
    segment: m.segment.title,
    verb: m.step.verb,
    text: m.step.text,
    read: readingOf(m),
    acts: m.actions,
    ...tableOf(m.after),
  }))
  const text = moments
    .map((m, i) => {
      const { read } = rows[i]!
      const how =
        read.how === 'not read' || read.how === 'refused' || read.how === 'in part'
          ? `  (${read.how}${read.why ? `: ${read.why}` : ''}${read.offers ? `; perhaps: ${read.offers.join(' / ')}` : ''})`
          : ''
      return `${String(lines[i] ?? i + 1).padStart(4)}  ${m.step.verb}: ${m.step.text}${how}\n      ${describeTable(m.after)}`
    })
    .join('\n')
  return {
    json: { version: 1, title: lesson.title, lines: rows, unplaced },
    text,
    clean: moments.every((m) => !m.unread && !m.error) && unplaced.length === 0,
  }
}

/** Whether the table knew what a line does: its hands read, refused, not read; or only said. */
interface HowRead {
  how: 'read' | 'in part' | 'refused' | 'not read' | 'said'
  /** The line it was understood as. */
  says?: string
  why?: string
  left?: readonly string[]
  offers?: string[]
}
function readingOf(m: Moment): HowRead {
  if (m.error)
    return { how: 'refused', why: told('script', { code: refusalCode(m.error), params: m.error.params }) }
  if (m.unread) {
    const offers = (m.reading?.offers ?? []).map((actions) => sayActions(actions, m.before)).filter(Boolean)
    return offers.length
      ? { how: 'in part', left: m.reading!.unread, offers: [...new Set(offers)] }
      : { how: 'not read' }
  }
  if (m.reading?.whole) return { how: 'read', says: sayActions(m.actions, m.before) }
  return { how: m.count ? 'read' : 'said' }
}

interface Place {
  name: string
  mat: Mat['kind']
  things: { kind: string; colour: string; count: number; crossed: boolean; hidden: boolean; worth: number }[]
  covered: boolean
  label: string | null
  /** Sizes of the heaps that lie apart in it; only where there is more than one. */
  groups?: number[]
}
/** Every place of a table with what is on it, alike things together, in the order they lie. */
function tableOf(state: TableState) {
  return {
    places: state.mats.flatMap((m) => {
      const whole = {
        divider: m.divider,
        rings: m.rings.map((r) => [r.from, r.to]),
        marks: m.line?.marks ?? [],
        at: m.line?.at ?? null,
        hops: m.line?.hops ?? [],
        cards: m.cards,
      }
      const places = m.regions.map((r) => placeOf(m, r))
      // A number line or dice have no places to put things on, and are there all the same.
      const all = places.length ? places : [placeOf(m, { name: '', slots: null, things: [], label: null })]
      return all.map((p, i) => ({ ...p, ...(i ? {} : whole) }))
    }),
    held: state.held,
    written: state.written,
  }
}
function placeOf(m: Mat, r: Region): Place {
  const things: Place['things'] = []
  for (const { kind, face, crossed, hidden, worth } of r.things) {
    const same = things.find(
      (t) =>
        t.kind === kind &&
        t.colour === face &&
        t.crossed === crossed &&
        t.hidden === hidden &&
        t.worth === worth,
    )
    if (same) same.count++
    else things.push({ kind, colour: face, count: 1, crossed, hidden, worth })
  }
  return {
    name: m.regions.length > 1 ? r.name : matName(m.kind),
    mat: m.kind,
    things,
    covered: m.covered,
    label: r.label,
    ...(heapsIn(r).length > 1 ? { groups: heapsIn(r).map((h) => h.length) } : {}),
  }
}

/** The line of the file each step stands in, from 1; none of a lesson file, which has no lines of its own. */
async function linesOf(file: string, moments: readonly Moment[]): Promise<(number | null)[]> {
  if (path.extname(file) === '.json') return []
  const lines = (await fs.readFile(file, 'utf8')).split(/\r?\n/)
  let from = 0
  return moments.map((m) => {
    const at = lines.findIndex(
      (l, i) => i >= from && m.step.text !== '' && l.includes(m.step.text.slice(0, 40)),
    )
    if (at < 0) return null
    from = at + 1
    return from
  })
}
