import fs from 'node:fs/promises'
import path from 'node:path'
import { render } from './render.ts'
import { draw, drawHard, scene } from './scene.ts'

/** Renders pictures of seeds FROM to TO into FOLDER, each with a label picture and its truth; those there already stay. */
const hard = process.argv.includes('--hard')
const [folder, from, to, width] = process.argv.slice(2).filter((w) => w !== '--hard')
if (!folder || !from || !to) throw new Error('make.ts FOLDER FROM TO [WIDTH] [--hard]')
await fs.mkdir(folder, { recursive: true })
const w = Number(width ?? 720)
for (let seed = Number(from); seed <= Number(to); seed++) {
  const name = `s${String(seed).padStart(5, '0')}`
  const truth = path.join(folder, `${name}.json`)
  if (
    await fs.stat(truth).then(
      () => true,
      () => false,
    )
  )
    continue
  const s = scene(hard ? drawHard(seed) : draw(seed), seed)
  const things = await render(s, { folder, name, width: w, height: (w * 3) / 4 }).catch((error: unknown) => {
    console.error(seed, String(error))
    return null
  })
  if (things)
    await fs.writeFile(
      truth,
      JSON.stringify({
        file: `${name}.png`,
        ...s.factors,
        things,
        structureTruth: s.structureTruth,
        tilt: s.tilt,
        count: things.length,
        cutOff: things.filter((t) => t.cutOff).length,
      }),
    )
}
