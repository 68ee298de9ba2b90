import { Idea, Ladder } from '../../contracts/idea.ts'
import { structures } from '../../contracts/lesson.ts'

export const ladderHeader = [
  'id',
  'name',
  'structure',
  'least',
  'up to',
  'from age',
  'to age',
  'after',
  'evidence',
  'misconceptions',
  'codes',
] as const

/** A ladder as rows of cells; lists inside a cell are parted by a bar. */
export const ladderRows = (ideas: readonly Idea[]): string[][] =>
  ideas.map((i) => [
    i.id,
    i.name,
    i.structure ?? '',
    String(i.least),
    String(i.upTo),
    String(i.ages[0]),
    String(i.ages[1]),
    i.after.join('|'),
    i.evidence,
    i.misconceptions.join('|'),
    i.codes.join('|'),
  ])

export type LadderReading =
  { ok: true; ladder: Idea[] } | { ok: false; errors: { row: number; what: string }[] }

/**
 * Reads rows of cells (the first is the header) as a ladder. Every fault is named with its row, counted as a
 * spreadsheet does; with one fault nothing is taken over.
 */
export function readLadder(table: readonly (readonly string[])[]): LadderReading {
  const header = (table[0] ?? []).map((h) => h.trim().toLowerCase())
  const missing = ladderHeader.filter((h) => !header.includes(h) && h !== 'codes')
  if (missing.length)
    return {
      ok: false,
      errors: [
        {
          row: 1,
          what: `The header lacks ${missing.map((m) => `“${m}”`).join(', ')}. It should read: ${ladderHeader.join(', ')}.`,
        },
      ],
    }
  const errors: { row: number; what: string }[] = []
  const ideas: Idea[] = []
  table.slice(1).forEach((cells, i) => {
    if (cells.every((c) => !c.trim())) return
    const cell = (name: (typeof ladderHeader)[number]) => (cells[header.indexOf(name)] ?? '').trim()
    const listed = (name: 'after' | 'misconceptions' | 'codes') =>
      cell(name)
        .split('|')
        .map((x) => x.trim())
        .filter(Boolean)
    const number = (name: 'least' | 'up to' | 'from age' | 'to age') => {
      const n = Number(cell(name))
      if (cell(name) === '' || !Number.isInteger(n))
        errors.push({ row: i + 2, what: `“${name}” should be a whole number, not “${cell(name)}”.` })
      return n
    }
    const structure = cell('structure')
    if (structure && !(structures as readonly string[]).includes(structure)) {
      errors.push({
        row: i + 2,
        what: `“${structure}” is no structure; one of ${structures.join(', ')}, or empty.`,
      })
      return
    }
    const before = errors.length
    const row = {
      id: cell('id'),
      name: cell('name'),
      structure: structure || null,
      least: number('least'),
      upTo: number('up to'),
      ages: [number('from age'), number('to age')],
      after: listed('after'),
      evidence: cell('evidence'),
      misconceptions: listed('misconceptions'),
      codes: listed('codes'),
    }
    if (errors.length > before) return
    const parsed = Idea.safeParse(row)
    if (parsed.success) ideas.push(parsed.data)
    else
      errors.push(
        ...parsed.error.issues.map((x) => ({
          row: i + 2,
          what: `${x.path.join(' ') || 'row'}: ${x.message}`,
        })),
      )
  })
  if (errors.length) return { ok: false, errors }
  const whole = Ladder.safeParse(ideas)
  if (whole.success) return { ok: true, ladder: whole.data }
  return {
    ok: false,
    errors: whole.error.issues.map((x) => ({
      row: typeof x.path[0] === 'number' ? x.path[0] + 2 : 1,
      what: x.message,
    })),
  }
}
