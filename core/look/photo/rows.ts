import { middle } from './middle.ts'

interface Spot {
  x: number
  y: number
  r: number
}

/** Things in rows from the upper left, whichever way the photo was tilted: the tilt (±15°) at which rows are flattest. Indices of the spots given. */
export function rowsOf(spots: readonly Spot[]): number[][] {
  const r = middle(spots.map((t) => t.r)) || 1
  const rowsAt = (angle: number) => {
    const [c, s] = [Math.cos(angle), Math.sin(angle)]
    const turned = spots
      .map((t, i) => ({ i, x: t.x * c + t.y * s, y: t.y * c - t.x * s }))
      .sort((p, q) => p.y - q.y)
    let [top, spread] = [turned[0]?.y ?? 0, 0]
    const rows: (typeof turned)[] = [[]]
    for (const p of turned) {
      if (p.y - top > 1.3 * r) {
        rows.push([])
        top = p.y
      }
      spread += p.y - top
      rows.at(-1)!.push(p)
    }
    return { rows, cost: spread + rows.length * 0.6 * r }
  }
  let best = rowsAt(0)
  for (let degrees = 1.5; degrees <= 15; degrees += 1.5)
    for (const sign of [1, -1]) {
      const other = rowsAt((sign * degrees * Math.PI) / 180)
      if (other.cost < best.cost) best = other
    }
  return best.rows.filter((row) => row.length).map((row) => row.sort((p, q) => p.x - q.x).map((p) => p.i))
}

/** Sizes of the heaps things lie in, largest first: things nearer than two and a half of their widths belong together. */
export function heapsOf(spots: readonly Spot[]): number[] {
  const left = new Set(spots)
  const sizes: number[] = []
  for (const start of spots) {
    if (!left.delete(start)) continue
    let size = 0
    const queue = [start]
    while (queue.length) {
      const f = queue.pop()!
      size++
      for (const g of left)
        if (Math.hypot(f.x - g.x, f.y - g.y) < 2.5 * (f.r + g.r)) {
          left.delete(g)
          queue.push(g)
        }
    }
    sizes.push(size)
  }
  return sizes.sort((p, q) => q - p)
}
