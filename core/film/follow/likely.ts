import type { HeardWord } from '../../contracts/heard.ts'
import { cost, differences, type Followable, linesBack, startOf } from './align.ts'

/**
 * One word amiss makes a path e^(1 / warmth) times less likely. On 600 drawn lessons of lines that resemble each other, up to
 * 45 % of their words lost or misheard, 0.2 names most lines left out surely and fewest wrongly (0.35: a quarter fewer).
 */
const warmth = 0.2
/** A heard word that fits a script word at this cost or better speaks for its having been said. */
const fits = 0.6

/** Each end of a leap from one line to another that lies within a line, in words amiss: people leave a line out, not its half and half of the next. */
const broken = 0.9

/** Under it numbers run out: more than three hundred words left out at the end are as unlikely as three hundred. */
const least = 1e-290

const likely = (amiss: number): number => Math.exp(-amiss / warmth)

/**
 * How likely each line was said at all: forward and backward over every path through the whole take that `follow` may
 * choose from, weighed by its cost. For each line the expected share of its words that were heard as they are written, 0–1.
 * Silences within lines are not weighed. Time and memory as `follow`.
 */
export function likelySaid(lines: readonly Followable[], heard: readonly HeardWord[]): number[] {
  const expected = lines.flatMap((l, line) => l.words.map((word) => ({ word, line })))
  const [n, m] = [expected.length, heard.length]
  if (!n || !m) return lines.map(() => 0)
  const differ = differences(expected, heard)
  const lattice = new Lattice(lines, expected)
  // Scaled a row at a time: the scale of a row is the same in both directions and falls out of the shares.
  const rows: Row[] = []
  let row = lattice.start()
  for (let j = 0; j < m; j++) {
    row = scaled(lattice.forward(row, (i) => likely(differ(i, j))))
    rows.push(row)
  }
  const said = new Float64Array(n)
  let after = lattice.end()
  for (let j = m - 1; j >= 0; j--) {
    const here = rows[j]!
    let total = 0
    for (let p = 0; p <= n; p++)
      total += here.matched[p]! * after.matched[p]! + here.extra[p]! * after.extra[p]!
    for (let i = 0; i < n && total > 0; i++)
      if (differ(i, j) <= fits) said[i]! += (here.matched[i + 1]! * after.matched[i + 1]!) / total
    after = scaled(lattice.backward(after, (i) => likely(differ(i, j))))
  }
  return lines.map((l, k) => {
    const from = startOf(lines, k)
    let sum = 0
    for (let i = from; i < from + l.words.length; i++) sum += Math.min(1, said[i]!)
    return l.words.length ? sum / l.words.length : 1
  })
}

/** Weights at one heard word: `p` words of the script are behind us, the last heard word matched there or extra. */
interface Row {
  matched: Float64Array
  extra: Float64Array
}
function scaled(row: Row): Row {
  let most = 0
  for (const w of row.matched) most = Math.max(most, w)
  for (const w of row.extra) most = Math.max(most, w)
  if (most > 0) for (const a of [row.matched, row.extra]) for (let p = 0; p < a.length; p++) a[p]! /= most
  return row
}

/** The ways from one heard word to the next, as `follow` has them, both ways round. */
class Lattice {
  private readonly n: number
  private readonly lines: readonly Followable[]
  private readonly within: Float64Array
  /** Whether a line begins with this word. */
  private readonly begins: boolean[]
  private readonly del = likely(cost.delete)
  private readonly gap = likely(cost.gap)
  private readonly ins = likely(cost.insert)

  constructor(lines: readonly Followable[], expected: readonly { line: number }[]) {
    this.lines = lines
    this.n = expected.length
    this.within = Float64Array.from({ length: this.n + 1 }, (_, q) =>
      q > 0 && q < this.n && expected[q]!.line === expected[q - 1]!.line ? likely(broken) : 1,
    )
    this.begins = expected.map((e, q) => q === 0 || e.line !== expected[q - 1]!.line)
  }

  private empty(): Row {
    return { matched: new Float64Array(this.n + 1), extra: new Float64Array(this.n + 1) }
  }
  start(): Row {
    const row = this.empty()
    row.extra[0] = 1
    return row
  }
  end(): Row {
    const row = this.empty()
    for (let p = 0; p <= this.n; p++)
      row.matched[p] = row.extra[p] = p < this.n ? Math.max(least, this.gap * this.del ** (this.n - p)) : 1
    return row
  }

  /** Each way back to the first word of a line: from which positions, and at what weight. */
  private eachBack(tell: (to: number, from: number, until: number, weight: number) => void): void {
    this.lines.forEach((l, i) => {
      if (!l.words.length) return
      for (let k = 0; k <= linesBack && i + k < this.lines.length; k++) {
        const from = startOf(this.lines, i + k)
        tell(
          startOf(this.lines, i),
          from + 1,
          from + this.lines[i + k]!.words.length,
          likely(cost.back + cost.backLine * k),
        )
      }
    })
  }

  forward(row: Row, fit: (i: number) => number): Row {
    const out = this.empty()
    const into = new Float64Array(this.n)
    // What leapt from before this line; from within it, to go on in it; and from within it, to go on in another.
    let [over, inside, leaving] = [0, 0, 0]
    for (let p = 0; p <= this.n; p++) {
      out.extra[p] = row.matched[p]! * this.gap * this.ins + row.extra[p]! * this.ins
      if (p === this.n) break
      if (this.begins[p]) [over, inside, leaving] = [over + leaving, 0, 0]
      const all = row.matched[p]! + row.extra[p]!
      into[p]! += all + (inside + over * this.within[p]!) * this.gap
      over *= this.del
      inside = (inside + all) * this.del
      leaving = (leaving + all * this.within[p]!) * this.del
    }
    this.eachBack((to, from, until, weight) => {
      for (let p = from; p <= until; p++) into[to]! += (row.matched[p]! + row.extra[p]!) * weight
    })
    for (let i = 0; i < this.n; i++) out.matched[i + 1] = into[i]! * fit(i)
    return out
  }

  backward(row: Row, fit: (i: number) => number): Row {
    const out = this.empty()
    const into = Float64Array.from({ length: this.n }, (_, i) => row.matched[i + 1]! * fit(i))
    let [over, inside, entering] = [0, 0, 0]
    for (let p = this.n; p >= 0; p--) {
      const last = p < this.n && (p + 1 === this.n || this.begins[p + 1]!)
      if (last) [over, inside, entering] = [over + entering, 0, 0]
      const on = p < this.n ? into[p]! + (inside + over * this.within[p]!) * this.gap : 0
      out.matched[p] = on + row.extra[p]! * this.gap * this.ins
      out.extra[p] = on + row.extra[p]! * this.ins
      if (p === this.n) continue
      over *= this.del
      inside = (inside + into[p]!) * this.del
      entering = (entering + into[p]! * this.within[p]!) * this.del
    }
    this.eachBack((to, from, until, weight) => {
      for (let p = from; p <= until; p++) {
        out.matched[p]! += into[to]! * weight
        out.extra[p]! += into[to]! * weight
      }
    })
    return out
  }
}
