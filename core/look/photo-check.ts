import type { PhotoLaid } from '../contracts/lesson.ts'
import type { PhotoReading, PhotoStructure } from '../contracts/reading.ts'
import { numberName } from '../plan/numbers/names.ts'
import type { Check } from './check.ts'
import { readLine } from './line.ts'

/** A photo held against its task: the verdict, and what differs in a sentence with its place. */
export interface PhotoCheck extends Check {
  /** What is different, or what also counts: "same total, other split: also right". Empty where all is as asked. */
  difference: string
}
const many = (n: number, one: string, more = `${one}s`): string => `${n} ${n === 1 ? one : more}`
const listed = (ns: readonly number[]): string => ns.join(' | ')

/** What was seen, in one line: "10 and 6", "5 | 2", "8 found". */
function seenIn(r: PhotoReading, laid: PhotoLaid | null): string {
  const own = laid && ownWords[laid.as]?.(r)
  if (own) return own
  const range = r.low === r.high ? `${r.count} found` : `${r.low} to ${r.high} found`
  if (r.count === 0) return 'nothing found'
  const where = structureInWords(r.structure)
  const beside = r.structure?.kind === 'groups' ? r.count - inGroups(r.structure) : 0
  return where ? `${range}, ${where}${beside > 0 ? ` and ${beside} beside` : ''}` : range
}
const inGroups = ({ groups }: Extract<PhotoStructure, { kind: 'groups' }>): number =>
  groups.reduce((n, g) => n + g.count, 0)
/** What lies in which place, in one line; null where nothing gives places. */
export function structureInWords(s: PhotoStructure | null): string | null {
  switch (s?.kind) {
    case undefined:
      return null
    case 'frames':
      return `${s.frames.map((f) => f.cells.length).join(' and ')} in ${many(s.frames.length, 'frame')}`
    case 'parts':
      return listed(s.parts.map((p) => p.count))
    case 'groups':
      return listed(s.groups.map((g) => g.count))
  }
}

/** What is seen of ways of lying that are no count of things. */
const ownWords: { [A in PhotoLaid['as']]?: (r: PhotoReading) => string | null } = {
  tally: ({ tally: t }) => t && `a tally of ${t.low === t.high ? t.count : `${t.low} to ${t.high}`}`,
  dice: ({ dice }) =>
    dice.some((d) => d.pips > 0) ? `dice showing ${listed(dice.map((d) => d.pips))}` : null,
  towers: ({ towers, count }) =>
    towers.some((t) => t > 1) ? `${count} found, towers of ${listed(towers)}` : null,
  sides: ({ sides, count }) => sides && `${count} found, ${listed(sides)}`,
  crossed: ({ things, count }) => `${count} found, ${things.filter((t) => t.crossed).length} crossed out`,
  line: ({ line, count }) => line && `${count} found, ${line.at.length} along a line`,
}

/**
 * Holds a reading against what a photo task asks for. Finding nothing proves nothing, a doubtful count is a reason to
 * look and no verdict, and a right total is not right where the groups were what was asked.
 */
export function checkPhoto(things: number, laid: PhotoLaid | null, r: PhotoReading): PhotoCheck {
  const shown = seenIn(r, laid)
  const tell = (verdict: Check['verdict'], difference: string): PhotoCheck => ({
    ...say(verdict, difference),
    shown,
  })
  if (r.warnings.includes('not a photo of things'))
    return tell('look', 'this seems to be no photo of things on a table')
  if (laid?.as === 'tally') return { ...tallied({ total: things, laid, r }), shown }
  if (r.count === 0)
    return tell(
      'look',
      things === 0
        ? 'nothing was found; whether it shows none is for your eye'
        : 'an empty photo needs your eye',
    )
  const total = things
  if (laid?.as === 'dice') return { ...thrown({ total, laid, r }), shown }
  if (r.low !== r.high)
    return tell(
      'look',
      total >= r.low && total <= r.high ? `${total} were asked: look closer` : `${total} were asked`,
    )
  const off = r.count - total
  if (laid) return { ...checkLaid(total, laid, r), shown }
  if (off === 0) return tell('right', '')
  return tell('wrong', differs(off))
}
const differs = (off: number): string =>
  off > 0 ? `${numberName(off)} more than asked` : `${numberName(-off)} fewer than asked`

type Laid<A extends PhotoLaid['as']> = Extract<PhotoLaid, { as: A }>
type Told = Omit<PhotoCheck, 'shown'>
interface Held<A extends PhotoLaid['as']> {
  total: number
  laid: Laid<A>
  r: PhotoReading
}
const say = (verdict: Check['verdict'], difference: string): Told => ({
  verdict,
  why: difference,
  difference,
})
/** How each way of lying is looked at. */
const ways: { [A in PhotoLaid['as']]: (h: Held<A>) => Told } = {
  frame: framed,
  parts: parted,
  shares: shared,
  gone,
  row: inRow,
  towers: built,
  sides: onSides,
  crossed: crossedOut,
  tally: tallied,
  line: onLine,
  dice: thrown,
}
const checkLaid = (total: number, laid: PhotoLaid, r: PhotoReading): Told =>
  ways[laid.as]({ total, laid: laid as never, r })

function parted({ total, laid, r }: Held<'parts'>): Told {
  const groups = groupsIn(r, laid.parts, { apart: false, split: laid.split })
  if (r.count !== total) return say('wrong', differs(r.count - total))
  if (!groups) return say('look', 'the total is right; its groups were not seen')
  if (groups.length !== laid.parts)
    return say('look', `the total is right, in ${many(groups.length, 'group')}: ${listed(groups)}`)
  if (!laid.split) return say('right', listed(groups))
  return same(groups, laid.split)
    ? say('right', listed(groups))
    : say(
        'look',
        `the same total, split another way: ${listed(groups)} where ${listed(laid.split)} was asked`,
      )
}
function shared({ total, laid, r }: Held<'shares'>): Told {
  // Two colours in one heap are no shares.
  const groups = groupsIn(r, laid.plates, { apart: true })
  const each = Math.floor(total / laid.plates)
  if (r.count !== total) return say('wrong', differs(r.count - total))
  if (!groups) return say('look', 'the total is right; the shares were not seen')
  if (groups.length !== laid.plates) return say('look', `${listed(groups)}: look which are the shares`)
  return new Set(groups).size === 1
    ? say('right', `${listed(groups)}: equal`)
    : say('wrong', `${listed(groups)}: the shares are not equal, ${each} each would be`)
}
function gone({ total, laid, r }: Held<'gone'>): Told {
  const stay = total - laid.go
  const groups = groupsIn(r, 2, { apart: true })
  if (r.count === stay && laid.go > 0)
    return say('look', `${stay} are in view: those that went are not in the picture`)
  if (r.count !== total) return say('wrong', differs(r.count - total))
  if (groups?.length !== 2) return say('look', `all ${total} are in view; which went was not seen`)
  return same(groups, [stay, laid.go])
    ? say('right', `${stay} left, ${laid.go} moved away`)
    : say('wrong', `${listed(groups)}: ${laid.go} were to go, ${stay} to stay`)
}
function inRow({ total, laid, r }: Held<'row'>): Told {
  const row = r.rows.find((x) => x.length === r.count)
  if (r.count !== total) return say('wrong', differs(r.count - total))
  if (!row) return say('look', 'the total is right; no single row was seen')
  const asAsked = (a: readonly string[]) => a.every((c, i) => c === laid.colours[i])
  if (!laid.colours.length) return say('right', '')
  if (asAsked(row)) return say('right', row.join(', '))
  return asAsked([...row].reverse())
    ? say('look', 'the row, seen from its other end')
    : say('look', `${row.join(', ')}: the colours are for your eye`)
}
/** Towers by their heights: one too low is named; those that were seen as one heap are for a person's eye. */
function built({ total, laid, r }: Held<'towers'>): Told {
  if (r.count !== total) return say('wrong', `${differs(r.count - total)}: ${listed(r.towers)}`)
  if (!r.towers.some((t) => t > 1) && laid.heights.some((t) => t > 1))
    return say('look', 'the total is right; no towers were seen')
  if (r.towers.join() === laid.heights.join()) return say('right', '')
  if (same(r.towers, laid.heights)) return say('right', 'in another order')
  return say(
    'look',
    `the total is right; towers of ${listed(r.towers)} where ${listed(laid.heights)} were asked`,
  )
}
function onSides({ total, laid, r }: Held<'sides'>): Told {
  if (r.count !== total) return say('wrong', differs(r.count - total))
  if (!r.sides) return say('look', 'the total is right; they do not lie along one line')
  return same(r.sides, [laid.one, total - laid.one])
    ? say('right', listed(r.sides))
    : say('wrong', `${listed(r.sides)}: ${laid.one} and ${total - laid.one} were asked`)
}
/** Strokes are seen less surely than things: what was not seen crossed is no proof that it was not. */
function crossedOut({ total, laid, r }: Held<'crossed'>): Told {
  const crossed = r.things.filter((t) => t.crossed).length
  if (r.count !== total) return say('look', `${r.count} were found where ${total} were to be drawn`)
  if (crossed === laid.crossed) return say('right', `${crossed} crossed out, ${total - crossed} left`)
  return say('look', `${crossed} seem crossed out, ${laid.crossed} were to be`)
}
function tallied({ total, r }: Held<'tally'>): Told {
  const t = r.tally
  if (!t) return say('look', 'no tally was seen in it')
  if (t.low !== t.high)
    return say(
      'look',
      total >= t.low && total <= t.high ? `${total} were asked: look closer` : `${total} were asked`,
    )
  return t.count === total ? say('right', '') : say('wrong', differs(t.count - total))
}
/** Where things lie along a line against the numbers they stand for, the smallest first. */
function onLine({ laid, r }: Held<'line'>): Told {
  if (!r.line || laid.to <= laid.from) return say('look', 'no line with things along it was seen')
  const asked = [...laid.at].sort((a, b) => a - b)
  if (r.line.at.length !== asked.length)
    return say('look', `${many(r.line.at.length, 'lies', 'lie')} along the line, ${asked.length} were asked`)
  const read = (at: readonly number[]) =>
    readLine(
      asked.map((number, i) => ({ number, at: laid.from + (laid.to - laid.from) * at[i]! })),
      laid.from,
      laid.to,
    )
  // A photo from across the table shows the line from its other end.
  const [here, there] = [read(r.line.at), read([...r.line.at].map((a) => 1 - a).reverse())]
  const { errors, mean } = here.mean <= there.mean ? here : there
  const worst = Math.max(...errors)
  const percent = Math.round(mean * 100)
  return mean <= near && worst <= 2 * near
    ? say('right', `spaced within ${percent} % of the line`)
    : say('look', `${percent} % of the line away on average, ${asked[errors.indexOf(worst)]!} most`)
}
/** As close as careful hands lay things on a line: a twentieth of it, with what the photo's slant adds. */
const near = 0.08
function thrown({ laid, r }: Held<'dice'>): Told {
  const faces = r.dice.map((d) => d.pips)
  if (!r.dice.length || r.dice.some((d) => !d.sure))
    return say('look', r.dice.length ? 'not every die’s dots are clear' : 'no dice were seen')
  // One that was not found, or something else that was, is no other throw.
  if (faces.length !== laid.faces.length || r.low !== r.high)
    return say('look', `${listed(faces)} seen where ${listed(laid.faces)} was asked`)
  return same(faces, laid.faces)
    ? say('right', listed(faces))
    : say('wrong', `${listed(faces)} where ${listed(laid.faces)} was asked`)
}
/** The same numbers, in whatever order. */
const same = (a: readonly number[], b: readonly number[]): boolean =>
  [...a].sort((x, y) => x - y).join() === [...b].sort((x, y) => x - y).join()
/** A frame is filled from its first cell on, one in each, the first full before the second. */
function framed({ total, r }: Held<'frame'>): Told {
  const s = r.structure
  const off = r.count - total
  if (s?.kind !== 'frames')
    return off ? say('wrong', differs(off)) : say('look', 'the total is right; the frame was not seen')
  const inside = s.frames.reduce((n, f) => n + f.cells.length, 0)
  if (off) return say('wrong', `${differs(off)}: ${s.frames.map((f) => f.cells.length).join(' and ')}`)
  if (inside < r.count)
    return say('look', `${many(r.count - inside, 'thing lies', 'things lie')} beside the frame`)
  const twice = s.frames.flatMap((f) => f.cells.filter((c, i) => f.cells.indexOf(c) !== i))
  if (twice.length) return say('look', `two things in cell ${twice[0]! + 1}`)
  const early = s.frames.findIndex(
    (f, i) => i > 0 && f.cells.length > 0 && s.frames[i - 1]!.cells.length < 10,
  )
  if (early > 0)
    return say('look', 'the total is right; the second frame was begun before the first was full')
  const gap = s.frames.find((f) => !inOrder(f.cells))
  if (gap) return say('look', `the total is right; cell ${firstGap(gap.cells) + 1} was left out`)
  return say('right', s.frames.length > 1 ? s.frames.map((f) => f.cells.length).join(' and ') : '')
}
/** Filled across in fives or down in pairs, from one end, from either side: a photo may be taken from across the table. */
function inOrder(cells: readonly number[]): boolean {
  const set = new Set(cells)
  const orders = [
    [0, 1, 2, 3, 4, 5, 6, 7, 8, 9],
    [0, 5, 1, 6, 2, 7, 3, 8, 4, 9],
  ]
  const turned = (o: readonly number[]) => [
    o,
    o.map((c) => 9 - c),
    o.map((c) => (c < 5 ? c + 5 : c - 5)),
    o.map((c) => (c < 5 ? 4 - c : 14 - c)),
  ]
  return orders.flatMap(turned).some((o) => o.slice(0, set.size).every((c) => set.has(c)))
}
const firstGap = (cells: readonly number[]): number =>
  [0, 1, 2, 3, 4, 5, 6, 7, 8, 9].find((c) => !cells.includes(c)) ?? 0

/** How many lie in each group: by plates, rings, parts or rows where those were seen, by heaps otherwise; null where they are not told apart. */
function groupsIn(r: PhotoReading, wanted: number, lie: Lie): number[] | null {
  const s = r.structure
  const inside =
    s?.kind === 'parts'
      ? s.parts.map((p) => p.count)
      : s?.kind === 'groups'
        ? s.groups.map((g) => g.count)
        : s?.kind === 'frames' && s.frames.length === wanted
          ? s.frames.map((f) => f.cells.length)
          : null
  if (inside && inside.reduce((a, b) => a + b, 0) === r.count) return inside
  if (inside && inside.length > 1 && inside.reduce((a, b) => a + b, 0) === r.count - 1) return null
  // Heaps as many as were asked for are the groups, whatever their colours.
  if (r.places.length === wanted) return r.places
  // Two colours laid beside each other are two groups, before the rows they happen to lie in.
  const ways = lie.apart ? [] : [r.groups.map((g) => g.count), r.rows.map((x) => x.length)]
  const { split } = lie
  const found = (split && ways.find((w) => same(w, split))) ?? ways.find((w) => w.length === wanted)
  return found ?? (r.places.length > 1 && r.places.length <= 6 ? [...r.places] : null)
}
/** How groups may be told: by lying `apart` alone, or also by colour or row; where a `split` was asked, any way that shows it. */
interface Lie {
  apart: boolean
  split?: readonly number[] | undefined
}
