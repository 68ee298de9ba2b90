import { matName } from './mats.ts'
import { type Mat, type Region, type TableState, type Thing, thingsIn, thingsOn } from './state.ts'

const faces = (r: Region): string[] => {
  const saffron = r.things.filter((t) => t.face === 'saffron').length
  const green = r.things.filter((t) => t.face === 'green').length
  const blue = r.things.length - saffron - green
  const crossed = r.things.filter((t) => t.crossed).length
  const hidden = r.things.filter((t) => t.hidden).length
  const tens = r.things.filter((t) => t.worth !== 1)
  return [
    saffron && `${saffron} saffron`,
    blue && `${blue} blue`,
    green && `${green} green`,
    tens.length && `${tens.length} of them worth ${[...new Set(tens.map((t) => t.worth))].join(' or ')}`,
    crossed && `${crossed} crossed out`,
    hidden && `${hidden} covered`,
    r.label && `marked ${r.label}`,
  ].filter((x): x is string => Boolean(x))
}
/** A marked number with its colour, where it was marked in one. */
const penned =
  (pens: readonly { number: number; face: string }[]) =>
  (n: number): string => {
    const face = pens.find((p) => p.number === n)?.face
    return face ? `${n} in ${face}` : String(n)
  }
const list = (words: readonly string[]): string => words.join(', ') || 'empty'

function describeMat(m: Mat): string {
  const name = matName(m.kind)
  if (m.covered && m.kind !== 'sound') return `${name}, covered`
  if (m.line) {
    const hops = m.line.hops.map((h) => `a hop from ${h.from} to ${h.to}`)
    const marks = m.line.marks.length
      ? [`${m.kind === 'square' ? 'shaded' : 'marked'}: ${m.line.marks.map(penned(m.line.pens)).join(', ')}`]
      : []
    return `${name} ${m.line.from} to ${m.line.to}${m.line.every === 0 ? ', empty' : ''}${hops.length + marks.length ? `: ${[...marks, ...hops].join(', ')}` : ''}`
  }
  const all = thingsIn(m)
  switch (m.kind) {
    case 'sound':
      return m.covered ? 'a sound to listen for' : `${all.length} ${all.length === 1 ? 'clap' : 'claps'}`
    case 'scene':
      return `picture: ${m.regions.map((r) => `${r.things.length === 0 ? 'no' : r.things.length} ${r.name}`).join(', ') || 'empty'}`
    case 'hands':
      return `hands: ${all.length} ${all.length === 1 ? 'finger' : 'fingers'} up (${m.regions[0]!.things.length} left, ${m.regions[1]!.things.length} right)`
    case 'skittles':
      return `skittles: ${all.filter((t) => !t.crossed).length} standing, ${all.filter((t) => t.crossed).length} knocked over`
    case 'cards':
      return `cards: ${m.cards.map((c) => (c.up ? c.text : 'one face down')).join(', ') || 'none yet'}`
    case 'dice':
      return `dice: ${m.cards.map((c) => (c.up ? c.text : 'not thrown')).join(' and ') || 'not thrown'}`
    case 'spinner':
      return `spinner: ${m.cards.find((c) => c.up)?.text ?? 'not spun'}`
    case 'bowl':
      return `bowl with ${m.cards.length} ${m.cards.length === 1 ? 'slip' : 'slips'}: ${m.cards.map((c) => c.text).join(', ')}`
    case 'pairs':
      return `pair plate: ${all.length}${all.length % 2 ? ', one on its own' : all.length ? ', all in pairs' : ''}`
    case 'tower':
      return `tower of ${all.length}`
    case 'frame': {
      const r = m.regions[0]!
      return `${name}: ${list([...faces(r), ...(r.slots !== null && r.slots > all.length ? [`${r.slots - all.length} empty`] : [])])}`
    }
    default: {
      const regions = m.regions.map((r) => `${m.regions.length > 1 ? `${r.name} ` : ''}${list(faces(r))}`)
      const parted = m.divider === null ? '' : `; parted ${m.divider} and ${all.length - m.divider}`
      const rings = m.rings.length ? `; ringed: ${m.rings.map((r) => r.to - r.from).join(', ')}` : ''
      return `${name}: ${regions.join('; ')}${parted}${rings}`
    }
  }
}

/** The table in words, for those who hear it rather than see it: "ten frame: 4 saffron, 3 blue, 3 empty". */
export function describeTable(state: TableState): string {
  const mats = state.mats.map(describeMat)
  if (state.held !== null) mats.push(`${state.held} held in the head`)
  if (state.written.length) mats.push(`written: ${state.written.join('; ')}`)
  return mats.join('. ') || 'The table is bare'
}

/** What they are all called, one or many: "1 finger", "3 tens and 4 ones", "7 counters". */
function nameOfAll(state: TableState, all: readonly Thing[]): string {
  const n = all.length
  const holding = state.mats.filter((m) => thingsIn(m).length > 0)
  if (holding.every((m) => m.kind === 'hands')) return n === 1 ? 'finger' : 'fingers'
  const kind = all.every((t) => t.kind === all[0]!.kind) ? all[0]!.kind.replace(/^drawn /, '') : 'things'
  return n === 1 ? kind.replace(/(ies)$/, 'y').replace(/(?<!s)s$/, '') : kind
}
/** What is out, for the line under the drawing: "7 counters: 4 saffron, 3 blue". */
export function inHand(state: TableState): string {
  const all = thingsOn(state)
  if (!all.length) return 'nothing'
  const told = (['saffron', 'blue', 'green'] as const)
    .map((face) => ({ face, n: all.filter((t) => t.face === face).length }))
    .filter((x) => x.n > 0)
  const crossed = all.filter((t) => t.crossed).length
  const kind = nameOfAll(state, all)
  const sides =
    told.length > 1 || told[0]?.face === 'green' ? `: ${told.map((x) => `${x.n} ${x.face}`).join(', ')}` : ''
  return `${all.length} ${kind}${sides}${crossed ? `, ${crossed} ${kind === 'skittles' ? 'knocked over' : 'crossed out'}` : ''}`
}
