import { assertNever } from '../../contracts/assert-never.ts'
import { type Action, emptyTable, type Mat, type MatKind, type Region, TableError, type TableState, type Target, type Thing, thingsOn } from './state.ts'

const region = (name: string, slots: number | null = null): Region => ({ name, slots, things: [] })

/** A mat as it is first laid out. `parts` counts frames (1–3) for a frame and places for parts and plates. */
export function layMat(kind: MatKind, parts: number, from = 0, to = 10): Mat {
  const mat = (regions: Region[]): Mat => ({ kind, regions, covered: false, line: null })
  switch (kind) {
    case 'table': return mat([region('the table')])
    case 'row': return mat([region('the row', 20)])
    case 'frame': return mat([region('the frame', 10 * Math.min(3, Math.max(1, parts)))])
    case 'parts': return mat([region('the whole'), ...Array.from({ length: Math.min(6, Math.max(2, parts)) }, (_, i) => region(`part ${i + 1}`))])
    case 'shelves': return mat([region('the top shelf'), region('the bottom shelf')])
    case 'plates': return mat(Array.from({ length: Math.min(6, Math.max(2, parts)) }, (_, i) => region(`plate ${i + 1}`)))
    case 'jar': return mat([region('the jar')])
    case 'line': return { kind, regions: [], covered: false, line: { from, to, hops: [], at: null } }
    default: return assertNever(kind)
  }
}

/**
 * The table after one action. Pure: the state given is not changed.
 * @throws TableError when the action breaks what holds of real things (nothing taken that isn't there,
 * nothing beyond a mat's places, nothing lost in a move or split).
 */
export function act(state: TableState, action: Action): TableState {
  const next = perform(state, action)
  const out = thingsOn(next).length
  return { ...next, start: action.type === 'clear' ? 0 : Math.max(next.start, out) }
}

function perform(state: TableState, action: Action): TableState {
  switch (action.type) {
    case 'lay': return { ...state, mats: [...state.mats.filter((m) => m.kind !== action.mat), layMat(action.mat, action.parts, action.from, action.to)] }
    case 'put': return put(state, action.target, Array.from({ length: action.count }, () => ({ kind: action.kind, face: action.face, crossed: false })))
    case 'take': {
      const [after] = lift(state, action.target, action.count)
      return { ...after, taken: after.taken + action.count }
    }
    case 'move': {
      const [after, things] = lift(state, action.source, action.count)
      return put(after, action.target, things)
    }
    case 'turn': return turnOver(state, action.count)
    case 'cover': return cover(state, action.target, true)
    case 'uncover': return cover(state, action.target, false)
    case 'cross': return crossOut(state, action.count)
    case 'uncross': return mapThings(state, (t) => ({ ...t, crossed: false }))
    case 'split': return split(state, action.parts)
    case 'join': return join(state)
    case 'hop': return hop(state, action.from, action.by)
    case 'mark': return onLine(state, (line) => ({ ...line, at: within(line, action.at) }))
    case 'hold': return { ...state, held: action.number }
    case 'rub out': return { ...state, written: [] }
    case 'rearrange':
    case 'roll': return state
    case 'clear': return { ...emptyTable, mats: state.mats.map((m) => clearMat(m)) }
    default: return assertNever(action)
  }
}

const clearMat = (m: Mat): Mat => ({
  ...m,
  covered: false,
  regions: m.regions.map((r) => ({ ...r, things: [] })),
  line: m.line && { ...m.line, hops: [], at: null },
})
const mapThings = (state: TableState, f: (t: Thing, i: number) => Thing): TableState => {
  let i = 0
  return { ...state, mats: state.mats.map((m) => ({ ...m, regions: m.regions.map((r) => ({ ...r, things: r.things.map((t) => f(t, i++)) })) })) }
}

/** Index of the mat and region a target means; lays the mat when it is named and not there yet. */
function place(state: TableState, target: Target, lay: boolean): { state: TableState; mat: number; region: number } {
  let s = state
  let mat = target.mat ? s.mats.findIndex((m) => m.kind === target.mat) : s.mats.findIndex((m) => m.regions.length > 0)
  if (mat < 0) {
    if (!lay) throw new TableError('no-mat', target.mat ? `There is no ${matName(target.mat)} on the table yet.` : 'Nothing is on the table yet.')
    s = { ...s, mats: [...s.mats, layMat(target.mat ?? 'row', target.mat === 'frame' ? 1 : 2)] }
    mat = s.mats.length - 1
  }
  const m = s.mats[mat]!
  const offset = m.kind === 'parts' ? 1 : 0
  const region = target.region === null ? 0 : target.region + offset
  if (region < 0 || region >= m.regions.length) throw new TableError('no-mat', `The ${matName(m.kind)} has no such place.`)
  return { state: s, mat, region }
}
export const matName = (kind: MatKind): string =>
  ({ table: 'open table', row: 'row', frame: 'ten frame', parts: 'part-whole', shelves: 'shelves', plates: 'plates', jar: 'jar', line: 'number line' })[kind]

const withRegion = (state: TableState, mat: number, at: number, things: readonly Thing[]): TableState => ({
  ...state,
  mats: state.mats.map((m, i) => (i === mat ? { ...m, regions: m.regions.map((r, j) => (j === at ? { ...r, things } : r)) } : m)),
})

function put(state: TableState, target: Target, things: readonly Thing[]): TableState {
  const p = place(state, target, true)
  const r = p.state.mats[p.mat]!.regions[p.region]!
  const room = r.slots === null ? Infinity : r.slots - r.things.length
  if (things.length > room) throw new TableError('no-room', `${r.name[0]!.toUpperCase()}${r.name.slice(1)} has room for ${room} more, not ${things.length}.`)
  return withRegion(p.state, p.mat, p.region, [...r.things, ...things])
}

function lift(state: TableState, source: Target, count: number): [TableState, Thing[]] {
  if (source.mat === null && source.region === null) return liftAnywhere(state, count)
  const p = place(state, source, false)
  const r = p.state.mats[p.mat]!.regions[p.region]!
  if (count > r.things.length) throw new TableError('not-there', `Only ${r.things.length} in ${r.name}: ${count} cannot be taken.`)
  return [withRegion(p.state, p.mat, p.region, r.things.slice(0, r.things.length - count)), r.things.slice(r.things.length - count)]
}

/** Without a named place, things are taken from where they were put last. */
function liftAnywhere(state: TableState, count: number): [TableState, Thing[]] {
  const there = thingsOn(state).length
  if (count > there) throw new TableError('not-there', there ? `Only ${there} on the table: ${count} cannot be taken.` : 'Nothing is on the table to take.')
  let s = state
  const taken: Thing[] = []
  for (let m = s.mats.length - 1; m >= 0 && taken.length < count; m--)
    for (let r = s.mats[m]!.regions.length - 1; r >= 0 && taken.length < count; r--) {
      const things = s.mats[m]!.regions[r]!.things
      const n = Math.min(things.length, count - taken.length)
      taken.unshift(...things.slice(things.length - n))
      s = withRegion(s, m, r, things.slice(0, things.length - n))
    }
  return [s, taken]
}

/** Turns over the last `count` saffron faces (or, when none are left saffron, blue ones back). */
function turnOver(state: TableState, count: number): TableState {
  const things = thingsOn(state)
  if (count > things.length) throw new TableError('not-there', `Only ${things.length} on the table: ${count} cannot be turned over.`)
  const saffron = things.flatMap((t, i) => (t.face === 'saffron' ? [i] : []))
  const from = saffron.length >= count ? saffron : things.map((_, i) => i)
  const turned = new Set(from.slice(from.length - count))
  return mapThings(state, (t, i) => (turned.has(i) ? { ...t, face: t.face === 'saffron' ? 'blue' : 'saffron' } : t))
}

function cover(state: TableState, target: Target, covered: boolean): TableState {
  const open = state.mats.findIndex((m) => (target.mat ? m.kind === target.mat : m.regions.length > 0 && m.covered !== covered))
  if (open < 0) throw new TableError('no-mat', covered ? 'There is nothing on the table to cover.' : 'Nothing is covered.')
  return { ...state, mats: state.mats.map((m, i) => (i === open ? { ...m, covered } : m)) }
}

function crossOut(state: TableState, count: number): TableState {
  const open = thingsOn(state).flatMap((t, i) => (t.crossed ? [] : [i]))
  if (count > open.length) throw new TableError('not-there', `Only ${open.length} are left to cross out, not ${count}.`)
  const crossed = new Set(open.slice(open.length - count))
  return mapThings(state, (t, i) => (crossed.has(i) ? { ...t, crossed: true } : t))
}

function split(state: TableState, parts: readonly number[]): TableState {
  const things = thingsOn(state)
  const sum = parts.reduce((a, b) => a + b, 0)
  if (sum !== things.length) throw new TableError('not-conserved', `${parts.join(' and ')} are ${sum}, but ${things.length} are on the table.`)
  const mat = state.mats.findIndex((m) => m.regions.length > 1)
  if (mat < 0) {
    // On one mat a split is shown by turning the second part over.
    if (parts.length > 2) throw new TableError('no-mat', 'Three parts need a part-whole, plates or shelves on the table.')
    return mapThings(state, (t, i) => ({ ...t, face: i < parts[0]! ? 'saffron' : 'blue' }))
  }
  const m = state.mats[mat]!
  const offset = m.kind === 'parts' ? 1 : 0
  if (parts.length > m.regions.length - offset) throw new TableError('no-room', `The ${matName(m.kind)} has ${m.regions.length - offset} places, not ${parts.length}.`)
  let used = 0
  const regions = m.regions.map((r, i) => {
    const n = i < offset ? 0 : (parts[i - offset] ?? 0)
    used += n
    return { ...r, things: things.slice(used - n, used) }
  })
  return { ...state, mats: state.mats.map((other, i) => (i === mat ? { ...m, regions } : { ...other, regions: other.regions.map((r) => ({ ...r, things: [] })) })) }
}

function join(state: TableState): TableState {
  const things = thingsOn(state)
  const mat = state.mats.findIndex((m) => m.regions.length > 1)
  if (mat < 0) return mapThings(state, (t) => ({ ...t, face: 'saffron' }))
  return {
    ...state,
    mats: state.mats.map((m, i) => ({ ...m, regions: m.regions.map((r, j) => ({ ...r, things: i === mat && j === 0 ? things : [] })) })),
  }
}

type Line = NonNullable<Mat['line']>
const within = (line: Line, n: number): number => {
  if (n < line.from || n > line.to) throw new TableError('off-the-line', `The line runs from ${line.from} to ${line.to}; ${n} is not on it.`)
  return n
}
function onLine(state: TableState, change: (line: Line) => Line): TableState {
  const s = state.mats.some((m) => m.line) ? state : { ...state, mats: [...state.mats, layMat('line', 1)] }
  return { ...s, mats: s.mats.map((m) => (m.line ? { ...m, line: change(m.line) } : m)) }
}
function hop(state: TableState, from: number | null, by: number): TableState {
  return onLine(state, (line) => {
    const start = within(line, from ?? line.at ?? line.from)
    const to = within(line, start + by)
    return { ...line, hops: [...line.hops, { from: start, to }], at: to }
  })
}
