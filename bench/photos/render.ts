import { spawn } from 'node:child_process'
import fs from 'node:fs/promises'
import path from 'node:path'
import sharp from 'sharp'
import { classes } from './parts.ts'
import type { Scene } from './scene.ts'

/** A thing as its visible pixels show it, in pixels of the photo. */
export interface SeenThing {
  x: number
  y: number
  r: number
  cutOff: boolean
}
/** Where a picture goes, and how large it is. */
interface Frame {
  folder: string
  name: string
  width: number
  height: number
}
async function trace(
  text: string,
  to: string,
  { width, height, smooth }: Pick<Frame, 'width' | 'height'> & { smooth: boolean },
): Promise<void> {
  const file = `${to}.pov`
  await fs.writeFile(file, text)
  await new Promise<void>((resolve, reject) => {
    const size = [`+W${width}`, `+H${height}`]
    const p = spawn(
      'povray',
      [
        `+I${file}`,
        '+L/usr/share/fonts/truetype',
        `+O${to}`,
        ...size,
        '-D',
        '-V',
        '+FN',
        '+WT1',
        smooth ? '+A0.3' : '-A',
        '-GA',
      ],
      { stdio: 'ignore' },
    )
    p.on('error', () => reject(new Error('The ray tracer is missing: apt-get install povray')))
    p.on('close', (code) =>
      code === 0 ? resolve() : reject(new Error(`The ray tracer ended with ${code}: ${file}`)),
    )
  })
  await fs.rm(file)
}
/** Renders a scene as a photo and as the picture that says what each pixel is. */
export async function render(s: Scene, { folder, name, width, height }: Frame): Promise<SeenThing[]> {
  const photo = path.join(folder, `${name}.png`)
  const labels = path.join(folder, `${name}-is.png`)
  await trace(s.photo, photo, { width, height, smooth: true })
  await trace(s.labels, labels, { width, height, smooth: false })
  return seen(labels)
}
async function seen(labels: string): Promise<SeenThing[]> {
  const { data, info } = await sharp(labels).removeAlpha().raw().toBuffer({ resolveWithObject: true })
  const by = new Map<number, { n: number; x: number; y: number; cut: boolean }>()
  for (let i = 0; i < info.width * info.height; i++) {
    if (Math.round(data[i * 3]! / 30) !== classes.thing) continue
    const id = Math.round(data[i * 3 + 1]! / 16) + 16 * Math.round(data[i * 3 + 2]! / 16)
    const [x, y] = [i % info.width, Math.floor(i / info.width)]
    const t = by.get(id) ?? { n: 0, x: 0, y: 0, cut: false }
    t.n++
    t.x += x
    t.y += y
    if (x === 0 || y === 0 || x === info.width - 1 || y === info.height - 1) t.cut = true
    by.set(id, t)
  }
  return [...by.values()]
    .filter((t) => t.n > 12)
    .map((t) => ({ x: t.x / t.n, y: t.y / t.n, r: Math.sqrt(t.n / Math.PI), cutOff: t.cut }))
}
