import { consentKinds, type ChildFields, type ConsentKind, mostRows } from '../contracts/api/homes.ts'
import { looksFull } from './names.ts'

/** Columns of the table of children and homes: how they are headed when written, and what else they are called. */
const columns = {
  given: { head: 'name', known: /^(given |first |child'?s? )?(name|child|children|pupil|nickname)s?$/ },
  className: { head: 'class', known: /^(class|group|room)$/ },
  home: { head: 'home', known: /^(home|household|family|street)$/ },
  second: { head: 'second home', known: /^(second|other) (home|household|family)$/ },
  languages: { head: 'languages', known: /^(home )?languages?( spoken)?$/ },
  youngerChild: { head: 'younger child', known: /^(younger|smaller) (child|children|sibling|siblings)$/ },
  phone: { head: 'phone', known: /^(smart|mobile )?phone$/ },
  printer: { head: 'printer', known: /^(printer|can print|prints)$/ },
  metered: { head: 'metered', known: /^(metered|metered connection|limited data)$/ },
  email: { head: 'e-mail', known: /^(e-?mail|mail)( address)?$/ },
  note: { head: 'note', known: /^(notes?|private note|allerg(y|ies)|needs)$/ },
} as const
type Column = keyof typeof columns

/** What is asked for nowhere and is left behind where a table has it: the least is kept. */
const unwanted =
  /^(sur|last |family |full )name$|birth|^dob$|^age$|^(home |street )?address|post ?code|zip|^tel|phone number|nhs|^upn$|parent|mother|father|doctor|religion|ethnic/

export interface TableRow extends Partial<ChildFields> {
  given: string
  home: string
  /** The class it names; null where it names none. */
  className: string | null
  /** Its place in what was read, from 1, headings counted. */
  line: number
  /** Doubtful cells with the reason, in words. */
  doubts: { column: Column; why: string }[]
  /** Why it cannot be taken over; null where it can. */
  wrong: string | null
}
export interface ReadTable {
  rows: TableRow[]
  /** Columns that are left behind, with the reason. */
  leftOut: { head: string; why: string }[]
  /** Why nothing could be read; null where it could. */
  problem: string | null
}
export interface KnownChild {
  given: string
  home: string
  className: string
}

const clean = (cell: string): string =>
  cell
    .replace(/[\p{Cc}\p{Cf}]/gu, ' ')
    .replace(/\s+/g, ' ')
    .trim()
    // A spreadsheet's own mark that a cell is text and no sum.
    .replace(/^'(?=[=+\-@])/, '')
const like = (text: string): string => text.normalize('NFKC').trim().toLowerCase()
const yes = /^(y|yes|true|1|x|ja|oui|sí|si|✓)$/
const no = /^(n|no|false|0|-|nein|non)$/
const isSum = (cell: string): boolean => /^[=+@]|^-(?!$)/.test(cell)

/**
 * Reads a table of children: rows of cells as a spreadsheet gives them. The first row may be headings; without any the
 * columns are name, home, second home. Nothing is taken over here: every doubtful cell is named with the reason.
 * @param known children who are in the setting already
 * @param homesHere names of the setting's homes
 */
export function readTable(
  cells: readonly (readonly string[])[],
  known: readonly KnownChild[],
  homesHere: readonly string[],
): ReadTable {
  const lines = cells
    .map((row, i) => ({ line: i + 1, row: row.map(clean) }))
    .filter(({ row }) => row.some(Boolean))
  if (!lines.length) return { rows: [], leftOut: [], problem: 'There is nothing in it.' }
  if (lines.length > mostRows + 1)
    return { rows: [], leftOut: [], problem: `It has more than ${mostRows} rows: split it.` }
  const { places, leftOut, headed } = headings(lines[0]!.row)
  if (!places.has('given'))
    return { rows: [], leftOut, problem: 'No column is headed “name”: that one is needed.' }
  const homes = new Set(homesHere.map(like))
  const here = new Set(known.map((k) => `${like(k.given)}|${like(k.home)}`))
  const seen = new Set<string>()
  const names = new Set(known.map((k) => like(k.given)))
  const rows = (headed ? lines.slice(1) : lines).map(({ line, row }) => {
    const read = readRow(row, line, places)
    if (read.wrong) return read
    const key = `${like(read.given)}|${like(read.home)}`
    if (seen.has(key)) read.doubts.push({ column: 'given', why: 'Twice in this table: taken over once.' })
    else if (here.has(key)) read.doubts.push({ column: 'given', why: 'Here already: left as it is.' })
    else if (names.has(like(read.given)))
      read.doubts.push({ column: 'given', why: 'Another child of this name: told apart by their homes.' })
    seen.add(key)
    names.add(like(read.given))
    if (places.has('home') && homesHere.length > 0 && !homes.has(like(read.home)))
      read.doubts.push({ column: 'home', why: 'No such home yet: it is made.' })
    return read
  })
  return { rows, leftOut, problem: rows.length ? null : 'There are headings and no rows.' }
}

/** Which column stands where; a first row that heads nothing is a row like all others. */
function headings(first: readonly string[]): {
  places: Map<Column, number>
  leftOut: ReadTable['leftOut']
  headed: boolean
} {
  const places = new Map<Column, number>()
  const leftOut: ReadTable['leftOut'] = []
  const names = Object.entries(columns) as [Column, (typeof columns)[Column]][]
  const found = first.map((cell) => names.find(([, c]) => c.known.test(like(cell)))?.[0] ?? null)
  if (!found.some((f) => f !== null) && !first.some((cell) => unwanted.test(like(cell))))
    return {
      places: new Map((['given', 'home', 'second'] as const).slice(0, first.length).map((c, i) => [c, i])),
      leftOut,
      headed: false,
    }
  first.forEach((cell, i) => {
    const column = found[i] ?? null
    if (column && !places.has(column)) places.set(column, i)
    else if (cell)
      leftOut.push({
        head: cell.slice(0, 40),
        why: unwanted.test(like(cell)) ? 'not needed, so not kept' : 'no such column here',
      })
  })
  return { places, leftOut, headed: true }
}

/** Why a row cannot be taken over; null where it can. */
function wrongIn(cell: (c: Column) => string): string | null {
  if (!cell('given')) return 'No name.'
  const typed = ['given', 'home', 'second', 'note'] as const
  if (typed.some((c) => isSum(cell(c)))) return 'A cell begins like a formula: write it as words.'
  const long = typed.find((c) => cell(c).length > longest[c])
  return long ? `Too long: up to ${longest[long]} letters.` : null
}
const longest = { given: 40, home: 60, second: 60, note: 500 } as const

/** An address as it is kept; empty where what stands there is none. */
function emailIn(text: string, doubt: (column: Column, why: string) => void): string {
  const address = text.toLowerCase()
  const fits = address === '' || (/^[^\s@]+@[^\s@]+\.[^\s@]+$/.test(address) && address.length <= 200)
  if (!fits) doubt('email', `“${text.slice(0, 30)}” is no address: left empty.`)
  return fits ? address : ''
}
function readRow(row: readonly string[], line: number, places: ReadonlyMap<Column, number>): TableRow {
  const cell = (c: Column): string => row[places.get(c) ?? -1] ?? ''
  const given = cell('given')
  const home = cell('home') || (given ? `Home of ${given}` : '')
  const out: TableRow = { given, home, className: cell('className') || null, line, doubts: [], wrong: null }
  const doubt = (column: Column, why: string): void => void out.doubts.push({ column, why })
  out.wrong = wrongIn(cell)
  if (out.wrong) return out
  if (looksFull(given)) doubt('given', 'Looks like a full name: a given name or nickname is enough.')
  if (!places.has('home') || !cell('home')) doubt('home', 'No home said: it gets one of its own.')
  if (places.has('second')) out.second = cell('second')
  if (places.has('note')) out.note = cell('note')
  if (places.has('email')) out.email = emailIn(cell('email'), doubt)
  if (places.has('languages'))
    out.languages = cell('languages')
      .split(/[,;/]/)
      .map((l) => l.trim().slice(0, 30))
      .filter(Boolean)
      .slice(0, 6)
  for (const column of ['youngerChild', 'phone', 'printer', 'metered'] as const) {
    if (!places.has(column)) continue
    const said = like(cell(column))
    const value = yes.test(said) ? true : no.test(said) ? false : null
    if (value === null && said)
      doubt(column, `“${cell(column).slice(0, 20)}” is neither yes nor no: left open.`)
    if (column === 'youngerChild') out.youngerChild = value ?? false
    else out[column] = value
  }
  return out
}

/** A row as it is written out: notes and links stay here. */
export interface WrittenChild extends Omit<ChildFields, 'note'> {
  className: string
  consents: Record<ConsentKind, { given: boolean; day: string } | null>
}
const said = (value: boolean | null): string => (value === null ? '' : value ? 'yes' : 'no')
/** The table as rows of cells: what is read from it again is the same. */
export const writeTable = (children: readonly WrittenChild[]): string[][] => [
  [
    'name',
    'class',
    'home',
    'second home',
    'languages',
    'younger child',
    'phone',
    'printer',
    'metered',
    'e-mail',
    ...consentKinds.map((k) => `consent ${k}`),
  ],
  ...children.map((c) => [
    c.given,
    c.className,
    c.home,
    c.second,
    c.languages.join(', '),
    said(c.youngerChild),
    said(c.phone),
    said(c.printer),
    said(c.metered),
    c.email,
    ...consentKinds.map((k) => {
      const consent = c.consents[k]
      return consent ? `${said(consent.given)} ${consent.day}` : ''
    }),
  ]),
]
