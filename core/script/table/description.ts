import { matName } from './machine.ts'
import { type TableState, thingsOn } from './state.ts'

/** The table in words, for those who hear it rather than see it: "ten frame: 4 saffron, 3 blue, 3 empty". */
export function describeTable(state: TableState): string {
  const mats = state.mats.map((m) => {
    if (m.line) {
      const hops = m.line.hops.map((h) => `a hop from ${h.from} to ${h.to}`).join(', ')
      return `number line ${m.line.from} to ${m.line.to}${hops ? `: ${hops}` : ''}`
    }
    if (m.covered) return `${matName(m.kind)}, covered`
    const regions = m.regions.map((r) => {
      const saffron = r.things.filter((t) => t.face === 'saffron').length
      const blue = r.things.length - saffron
      const crossed = r.things.filter((t) => t.crossed).length
      const words = [saffron && `${saffron} saffron`, blue && `${blue} blue`, crossed && `${crossed} crossed out`, r.slots !== null && m.kind === 'frame' && `${r.slots - r.things.length} empty`].filter(Boolean)
      return `${m.regions.length > 1 ? `${r.name} ` : ''}${words.join(', ') || 'empty'}`
    })
    return `${matName(m.kind)}: ${regions.join('; ')}`
  })
  if (state.held !== null) mats.push(`${state.held} held in the head`)
  if (state.written.length) mats.push(`written: ${state.written.join('; ')}`)
  return mats.join('. ') || 'The table is bare'
}

/** What is out, for the line under the drawing: "7 counters: 4 saffron, 3 blue". */
export function inHand(state: TableState): string {
  const all = thingsOn(state)
  if (!all.length) return 'nothing'
  const blue = all.filter((t) => t.face === 'blue').length
  const crossed = all.filter((t) => t.crossed).length
  const kind = all.every((t) => t.kind === all[0]!.kind) ? all[0]!.kind : 'things'
  const faces = blue && blue < all.length ? `: ${all.length - blue} saffron, ${blue} blue` : ''
  return `${all.length} ${kind}${faces}${crossed ? `, ${crossed} crossed out` : ''}`
}
