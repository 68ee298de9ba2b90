import { kinds, type Seen } from './seen.ts'
import { middle } from './middle.ts'
import { lengthOf, type Region, regions } from './regions.ts'

/*
 * What a patch of the picture that is things all through holds, told from the patches with one thing in them. Round
 * things of one colour that lie half on one another have no outline between them and are seen as one: their common
 * outline tells how many it takes. Of what stands up several faces are seen, and may be taken for several things: a
 * patch hardly larger than the others holds one.
 */

interface Spot {
  x: number
  y: number
  r: number
}
/** One that was seen. */
export interface SeenSpot extends Spot {
  /** It may be none: what is clearly there is never taken away. */
  doubtful: boolean
}
/** Shares of an area, but for the numbers of things. */
const patch = {
  /** So many with one thing in them tell what shape one has. */
  alone: 2,
  /** How much one of them and the shape of all have in common: a disc or an ellipse, and all of them alike. */
  alike: 0.86,
  /** So many of them are so. */
  mostOf: 0.6,
  /** Pairs of them from which it is told how sizes change downwards. */
  slopes: 6,
  /** An ellipse so much longer than wide is no round thing seen aslant. */
  longest: 1.6,
  /** Pixels of a radius under which the map is laid out twice as fine. */
  small: 9,
  /** What lies together: at most so many, on so much more area than those seen take; each of these hides a little. */
  most: 4,
  more: 0.22,
  hides: 0.1,
  /** How well one more than is seen must fit, and how much more of one it must explain. */
  fits: 0.9,
  better: 0.2,
  /** Where fewer than four tell: how alike they and how good the fit must be then. */
  few: 4,
  alikeFew: 0.92,
  fitsFew: 0.93,
  /** Radii between the middles of two. */
  apart: 0.6,
  /** So much better than one larger one. */
  asOne: 0.05,
  /** Several faces of one thing: together no larger than so many, and one of them so much smaller. */
  faces: 1.22,
  smaller: 0.87,
  /** Two small ones side by side are longer: at most so much longer than single ones are. */
  longer: 1.35,
  /** Told from so many single ones, of which the last share differs by less than this. */
  single: 3,
  differs: 0.2,
  likeSingles: 0.7,
  /** A shadow or a face that is a patch of its own: smaller than this. */
  speck: 0.3,
} as const
const thing = kinds.indexOf('thing')

/** Some that were seen, and what they are instead. */
export interface Instead {
  seen: readonly number[]
  spots: readonly Spot[]
}
/**
 * Where more or fewer things lie than were seen (`spots`, in pixels of the map). `what`: kind of each pixel. Nothing
 * where too few lie alone to tell from.
 */
export function instead(
  { width, height }: Pick<Seen, 'width' | 'height'>,
  what: Uint8Array,
  spots: readonly SeenSpot[],
): Instead[] {
  const usual = middle(spots.map((s) => s.r))
  if (usual === null) return []
  // Small ones are laid more finely than whole pixels.
  const k = usual < patch.small ? 2 : 1
  const [w, h] = [width * k, height * k]
  const { labels, list } = regions(
    w * h,
    w,
    (i) => what[Math.floor(i / w / k) * width + Math.floor((i % w) / k)] === thing,
  )
  const scaled = (s: Spot, by: number) => ({ x: s.x * by, y: s.y * by, r: s.r * by })
  const inside = new Map<number, number[]>()
  const fine = spots.map((s) => ({ ...scaled(s, k), doubtful: s.doubtful }))
  fine.forEach((s, i) => {
    const label = labels[Math.min(h - 1, Math.floor(s.y)) * w + Math.min(w - 1, Math.floor(s.x))]!
    if (label) inside.set(label, [...(inside.get(label) ?? []), i])
  })
  const patches = list
    .filter((r) => inside.has(r.label) && r.left > 0 && r.top > 0 && r.right < w - 1 && r.bottom < h - 1)
    .map((region): Patch => ({ region, seen: inside.get(region.label)! }))
  const all = { patches, spots: fine, labels, w }
  return [...oneMore(all), ...facesOfOne(all)].map((m) => ({
    seen: m.seen,
    spots: m.spots.map((s) => scaled(s, 1 / k)),
  }))
}
interface Patch {
  region: Region
  seen: readonly number[]
}
interface Patches {
  patches: readonly Patch[]
  spots: readonly SeenSpot[]
  labels: Int32Array
  w: number
}
const aloneIn = (all: Patches): Region[] =>
  all.patches.filter((p) => p.seen.length === 1).map((p) => p.region)

/** Patches in which one more lies than was seen. */
function oneMore(all: Patches): Instead[] {
  const { patches, spots, labels, w } = all
  const family = familyOf(aloneIn(all), labels, w)
  if (!family) return []
  return patches.flatMap(({ region: r, seen }) => {
    const one = family.areaAt(r)
    const least = (seen.length - patch.hides * (seen.length - 1) + patch.more) * one
    if (seen.length > patch.most || r.area < least) return []
    const fit = new Cover(r, labels, w, family.shape(one))
    const n = fit.best(seen.map((i) => spots[i]!))
    const far = fit.farthest(n.at)
    const more = far && fit.best([...n.at, far])
    if (!more || more.share < family.fits || (more.share - n.share) * r.area < patch.better * one) return []
    // One that is merely larger than the others is better told by its own size.
    if (seen.length === 1) {
      const larger = new Cover(r, labels, w, family.shape(r.area)).best([r]).share
      if (more.share < larger + patch.asOne) return []
    }
    const radius = Math.sqrt(one / Math.PI)
    const nearest = Math.min(
      ...more.at.flatMap((p, i) => more.at.slice(i + 1).map((q) => Math.hypot(p.x - q.x, p.y - q.y))),
    )
    if (nearest < patch.apart * radius) return []
    return [{ seen, spots: more.at.map(({ x, y }) => ({ x: x + 0.5, y: y + 0.5, r: radius })) }]
  })
}

/** Patches in which several were seen that hold one, and such as are too small for any. */
function facesOfOne(all: Patches): Instead[] {
  const alone = all.patches.filter((p) => p.seen.length === 1)
  const areaAt = sizeBy(alone.map((p) => p.region))
  const radius = (area: number) => Math.sqrt(area / Math.PI)
  const isSpeck = (p: Patch) => p.region.area < patch.speck * areaAt(p.region)
  const things = alone.filter((p) => !isSpeck(p))
  const like = things.filter((p) => Math.abs(Math.log(p.region.area / areaAt(p.region))) < patch.differs)
  if (like.length < patch.single || like.length < patch.likeSingles * things.length) return []
  /** A single thing's radius as it is seen, for that of its patch. */
  const seenAs = middle(like.map((p) => all.spots[p.seen[0]!]!.r / radius(p.region.area)))!
  const length = middle(like.map((p) => lengthOf(p.region)))!
  return all.patches.flatMap((p): Instead[] => {
    const { region: r, seen } = p
    const one = areaAt(r)
    const usual = seenAs * radius(one)
    // What is clearly there is never taken away.
    if (!seen.some((i) => all.spots[i]!.doubtful)) return []
    const least = Math.min(...seen.map((i) => all.spots[i]!.r))
    const isOne =
      r.area <= patch.faces * one && least < patch.smaller * usual && lengthOf(r) < patch.longer * length
    if (seen.length > 1 && isOne) return [{ seen, spots: [{ x: r.x + 0.5, y: r.y + 0.5, r: usual }] }]
    return seen.length === 1 && isSpeck(p) ? [{ seen, spots: [] }] : []
  })
}

interface At {
  x: number
  y: number
}
/** The pixels of a shape about its middle. */
type Shape = readonly (readonly [dx: number, dy: number])[]
interface Family {
  /** Area of one where a region lies. */
  areaAt: (r: Region) => number
  shape: (area: number) => Shape
  /** How well one more must fit. */
  fits: number
}
/** What those that lie alone have in common; null where they are not round and alike. */
function familyOf(alone: readonly Region[], labels: Int32Array, w: number): Family | null {
  if (alone.length < patch.alone) return null
  const usual = (k: 'xx' | 'xy' | 'yy') => middle(alone.map((r) => r[k] / r.area))!
  const [xx, xy, yy] = [usual('xx'), usual('xy'), usual('yy')]
  const det = xx * yy - xy * xy
  const [half, diff] = [(xx + yy) / 2, Math.hypot((xx - yy) / 2, xy)]
  if (det <= 0 || half + diff > patch.longest ** 2 * (half - diff)) return null
  const shape = (area: number): Shape => {
    // The squared distance at the rim of an ellipse of this area with moments in these proportions.
    const rim = area / (Math.PI * Math.sqrt(det))
    const reach = Math.ceil(Math.sqrt(rim * Math.max(xx, yy))) + 1
    const out: [number, number][] = []
    for (let dy = -reach; dy <= reach; dy++)
      for (let dx = -reach; dx <= reach; dx++)
        if ((yy * dx * dx - 2 * xy * dx * dy + xx * dy * dy) / det <= rim) out.push([dx, dy])
    return out
  }
  const areaAt = sizeBy(alone)
  const few = alone.length < patch.few
  const least = few ? patch.alikeFew : patch.alike
  const alike = alone.filter((r) => new Cover(r, labels, w, shape(areaAt(r))).best([r]).share >= least)
  return alike.length < patch.alone || alike.length < patch.mostOf * alone.length
    ? null
    : { areaAt, shape, fits: few ? patch.fitsFew : patch.fits }
}
/** What is nearer to the camera, lower in the picture, is larger: areas by the median slope of their logarithms (Theil and Sen). */
function sizeBy(all: readonly Region[]): (r: Region) => number {
  // Specks and heaps among them tell nothing.
  const usual = middle(all.map((r) => r.area)) ?? 0
  const alone = all.filter((r) => r.area > 0.4 * usual && r.area < 2.5 * usual)
  const pairs = alone.flatMap((p, i) => alone.slice(i + 1).map((q) => [p, q] as const))
  const slopes = pairs
    .filter(([p, q]) => Math.abs(p.y - q.y) > Math.sqrt(p.area))
    .map(([p, q]) => Math.log(q.area / p.area) / (q.y - p.y))
  const slope = (slopes.length >= patch.slopes && middle(slopes)) || 0
  const level = middle(alone.map((r) => Math.log(r.area) - slope * r.y)) ?? 0
  return (r) => Math.exp(level + slope * r.y)
}

/** Shapes laid over one region: what they have in common with it, of all that either takes. */
class Cover {
  private readonly region: Region
  private readonly shape: Shape
  private readonly left: number
  private readonly top: number
  private readonly wide: number
  private readonly high: number
  private readonly is: Uint8Array
  private readonly times: Uint8Array
  private within = 0
  private beyond = 0

  constructor(region: Region, labels: Int32Array, w: number, shape: Shape) {
    this.region = region
    this.shape = shape
    const edge = shape.reduce((most, [x, y]) => Math.max(most, x, y), 0) + 1
    this.left = region.left - edge
    this.top = region.top - edge
    this.wide = region.right - region.left + 1 + 2 * edge
    this.high = region.bottom - region.top + 1 + 2 * edge
    this.is = new Uint8Array(this.wide * this.high)
    this.times = new Uint8Array(this.wide * this.high)
    for (let y = region.top; y <= region.bottom; y++)
      for (let x = region.left; x <= region.right; x++)
        if (labels[y * w + x] === region.label) this.is[(y - this.top) * this.wide + x - this.left] = 1
  }
  private lay({ x, y }: At, by: 1 | -1): void {
    for (const [dx, dy] of this.shape) {
      const [px, py] = [x + dx - this.left, y + dy - this.top]
      if (px < 0 || py < 0 || px >= this.wide || py >= this.high) {
        this.beyond += by
        continue
      }
      const i = py * this.wide + px
      const before = this.times[i]!
      this.times[i] = before + by
      if ((by === 1 && before === 0) || (by === -1 && before === 1)) {
        if (this.is[i]) this.within += by
        else this.beyond += by
      }
    }
  }
  private get share(): number {
    return this.within / (this.region.area + this.beyond)
  }
  /** Moves shapes from where they are until no step of any covers the region better. */
  best(from: readonly At[]): { at: At[]; share: number } {
    const at = from.map(({ x, y }) => ({ x: Math.round(x), y: Math.round(y) }))
    this.times.fill(0)
    this.within = this.beyond = 0
    at.forEach((p) => this.lay(p, 1))
    const longest = Math.max(1, Math.round(Math.sqrt(this.shape.length / Math.PI) / 2))
    for (let step = longest; step >= 1; step = step > 1 ? step >> 1 : 0)
      for (let moved = true, turns = 0; moved && turns < 40; turns++) {
        moved = false
        for (const p of at)
          for (const [dx, dy] of around) {
            const before = this.share
            const to = { x: p.x + dx * step, y: p.y + dy * step }
            this.lay(p, -1)
            this.lay(to, 1)
            if (this.share > before + 1e-9) {
              Object.assign(p, to)
              moved = true
            } else {
              this.lay(to, -1)
              this.lay(p, 1)
            }
          }
      }
    return { at, share: this.share }
  }
  /** The place in the region farthest from all that are laid, drawn in by half a shape; null where all is covered. */
  farthest(at: readonly At[]): At | null {
    let best: (At & { far: number }) | null = null
    for (let py = 0; py < this.high; py++)
      for (let px = 0; px < this.wide; px++) {
        const i = py * this.wide + px
        if (!this.is[i] || this.times[i]) continue
        const [x, y] = [px + this.left, py + this.top]
        const far = Math.min(...at.map((p) => Math.hypot(p.x - x, p.y - y)))
        if (!best || far > best.far) best = { x, y, far }
      }
    if (!best) return null
    const near = at.reduce((b, p) =>
      Math.hypot(p.x - best.x, p.y - best.y) < Math.hypot(b.x - best.x, b.y - best.y) ? p : b,
    )
    return { x: (best.x + near.x) / 2, y: (best.y + near.y) / 2 }
  }
}
const around = [
  [1, 0],
  [-1, 0],
  [0, 1],
  [0, -1],
  [1, 1],
  [-1, -1],
  [1, -1],
  [-1, 1],
] as const
