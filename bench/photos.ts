/**
 * How well photos are counted, on ray-traced pictures with crossed factors, beside a plain program.
 * `node --import tsx bench/photos.ts [MANY] [--tuning] [--folder FOLDER_WITH_TRUTH]`
 * Held-out seeds by default; `--tuning` takes seeds the network was taught with. Needs Debian's povray.
 */
import { existsSync } from 'node:fs'
import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { readPhoto } from '../core/look/photo/read.ts'
import { photoEyes } from '../server/platform/media/seeing.ts'
import { plainCount } from './photos/baseline.ts'
import { render } from './photos/render.ts'
import { draw, scene } from './photos/scene.ts'

interface Truth {
  file: string
  count: number
  cutOff: number
  [factor: string]: string | number | null | undefined | number[][]
}
const words = process.argv.slice(2)
const given = words.includes('--folder') ? words[words.indexOf('--folder') + 1] : undefined
const many = Number(words.find((w) => /^\d+$/.test(w)) ?? 60)
/** Seeds taught with begin at 1001; those below were never shown to it. */
const from = words.includes('--tuning') ? 1001 : 1
const factors = ['kind', 'ground', 'arrangement', 'structure', 'clutter', 'light'] as const

async function rendered(): Promise<{ folder: string; truths: Truth[] }> {
  const folder = path.join(os.tmpdir(), 'awlbox-photos')
  await fs.mkdir(folder, { recursive: true })
  const truths: Truth[] = []
  for (let seed = from; seed < from + many; seed++) {
    const name = `s${String(seed).padStart(5, '0')}`
    const file = path.join(folder, `${name}.json`)
    if (!existsSync(file)) {
      const s = scene(draw(seed), seed)
      const things = await render(s, { folder, name, width: 1000, height: 750 })
      const truth: Truth = {
        file: `${name}.png`,
        ...s.factors,
        structureTruth: s.structureTruth,
        count: things.length,
        cutOff: things.filter((t) => t.cutOff).length,
      }
      await fs.writeFile(file, JSON.stringify(truth))
      truths.push(truth)
    } else truths.push(JSON.parse(await fs.readFile(file, 'utf8')) as Truth)
  }
  return { folder, truths }
}
const { folder, truths } = given
  ? {
      folder: given,
      truths: JSON.parse(await fs.readFile(path.join(given, 'truth.json'), 'utf8')) as Truth[],
    }
  : await rendered()

interface Sums {
  n: number
  exact: number
  inside: number
  sure: number
  wrongAndSure: number
  plain: number
}
const sums = new Map<string, Sums>()
const see = await photoEyes()
let cpu = 0
for (const t of truths) {
  const { data, info } = await sharp(path.join(folder, t.file))
    .ensureAlpha()
    .raw()
    .toBuffer({ resolveWithObject: true })
  const before = process.cpuUsage()
  const r = await readPhoto(data, info.width, info.height, see)
  cpu += process.cpuUsage(before).user / 1e6
  const plain = await plainCount(data, info.width, info.height)
  // One the edge cuts counts or does not: both are right.
  const right = [t.count, t.count - t.cutOff]
  const sure = r.low === r.high
  for (const key of [
    'all',
    ...factors.flatMap((f) => (t[f] === undefined ? [] : [`${f} ${t[f] as string | number | null}`])),
  ]) {
    const s = sums.get(key) ?? { n: 0, exact: 0, inside: 0, sure: 0, wrongAndSure: 0, plain: 0 }
    s.n++
    if (right.includes(r.count)) s.exact++
    if (right.some((n) => r.low <= n && n <= r.high)) s.inside++
    if (sure) s.sure++
    if (sure && !right.includes(r.count)) s.wrongAndSure++
    if (right.includes(plain)) s.plain++
    sums.set(key, s)
  }
}
const share = (n: number, of: number): string => `${Math.round((100 * n) / of)} %`.padStart(6)
console.log(`${truths.length} pictures, ${(cpu / truths.length).toFixed(2)} s of CPU each`)
for (const [key, s] of [...sums].sort((a, b) => a[0].localeCompare(b[0])))
  console.log(
    `${key.padEnd(26)} ${String(s.n).padStart(4)}  exact ${share(s.exact, s.n)}  inside ${share(s.inside, s.n)}  sure ${share(s.sure, s.n)}, wrong ${s.wrongAndSure}  plain program ${share(s.plain, s.n)}`,
  )
