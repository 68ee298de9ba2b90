import fs from 'node:fs/promises'
import path from 'node:path'
import sharp from 'sharp'
import type { FilmBox } from '@awlbox/core/contracts/cut'
import type { WordRead } from '@awlbox/core/cut/private-words'
import { run } from './run.ts'

/**
 * Ways a picture is read: degrees it is turned by (a label seldom hangs level) and how much larger or smaller it is made;
 * what is missed one way is read another. With ink parted from paper place by place (Sauvola) instead of over the whole
 * picture. Chosen with bench/reading.ts on its seeds 101–380: of 301–380 these read 0.84 of the labels, as of 80001–80080,
 * which were not looked at; level and turned by 4° at its own size, parted as a whole, 0.38 of 101–140.
 */
const views = [
  [0, 1.5],
  [-6, 1.5],
  [6, 1.5],
  [-3, 0.7],
  [3, 0.7],
] as const
/** What the reader is unsure of is noise (of 100). */
const leastSure = 40

/** Where a box of a picture turned by `degrees` (and grown to hold its corners) stood before, as an upright box around it. */
export function turnedBack(
  box: FilmBox,
  degrees: number,
  from: { width: number; height: number },
  grown: { width: number; height: number },
): FilmBox {
  const a = (-degrees * Math.PI) / 180
  const [cx, cy] = [box.x + box.w / 2 - grown.width / 2, box.y + box.h / 2 - grown.height / 2]
  const [w, h] = [
    box.w * Math.cos(a) + box.h * Math.abs(Math.sin(a)),
    box.h * Math.cos(a) + box.w * Math.abs(Math.sin(a)),
  ]
  return {
    x: cx * Math.cos(a) - cy * Math.sin(a) + from.width / 2 - w / 2,
    y: cx * Math.sin(a) + cy * Math.cos(a) + from.height / 2 - h / 2,
    w,
    h,
  }
}

/** The columns of the reader's table that are used here. */
const columns = [
  'page_num',
  'block_num',
  'par_num',
  'line_num',
  'left',
  'top',
  'width',
  'height',
  'conf',
  'text',
] as const
function rowsOf(tsv: string): Record<(typeof columns)[number], string>[] {
  const [head = '', ...rows] = tsv.split('\n')
  const at = new Map(head.split('\t').map((name, i) => [name, i]))
  return rows.filter(Boolean).map((r) => {
    const cells = r.split('\t')
    return Object.fromEntries(columns.map((c) => [c, cells[at.get(c) ?? -1] ?? ''])) as Record<
      (typeof columns)[number],
      string
    >
  })
}

let able: Promise<boolean> | null = null
/** Whether this machine can read, asked once: without the program, a take says nothing about writing. */
export const canRead = (): Promise<boolean> =>
  (able ??= run('tesseract', ['--version']).then(
    () => true,
    () => false,
  ))

/** Printed words in a picture (any the image library reads), boxes in its own pixels. @throws ToolError when reading fails. */
export async function readWords(picture: string, folder: string, signal?: AbortSignal): Promise<WordRead[]> {
  const { width: full = 0 } = await sharp(picture).metadata()
  const sizes = new Map(
    [...new Set(views.map(([, larger]) => larger))].map(
      (larger) =>
        [
          larger,
          sharp(picture)
            .resize({ width: Math.round(full * larger) })
            .grayscale()
            .raw()
            .toBuffer({ resolveWithObject: true }),
        ] as const,
    ),
  )
  const pages = await Promise.all(
    views.map(async ([degrees, larger], i) => {
      const file = path.join(folder, `read-${i}.png`)
      const { data, info: size } = await sizes.get(larger)!
      const { width, height } = await sharp(data, { raw: size })
        .rotate(degrees, { background: '#808080' })
        .png({ compressionLevel: 1 })
        .toFile(file)
      return { degrees, larger, size, file, width, height }
    }),
  )
  const list = path.join(folder, 'read.txt')
  await fs.writeFile(list, pages.map((p) => p.file).join('\n'))
  // Writing scattered over a picture, not a page of it; Sauvola's thresholds.
  const { stdout } = await run(
    'tesseract',
    [list, 'stdout', '-l', 'eng', '--psm', '11', '-c', 'thresholding_method=2', 'tsv'],
    { ...(signal ? { signal } : {}), limit: 60_000, env: { OMP_THREAD_LIMIT: '1' } },
  )
  return rowsOf(stdout).flatMap((r): WordRead[] => {
    const page = pages[Number(r.page_num) - 1]
    if (!page || !r.text.trim() || Number(r.conf) < leastSure) return []
    const box = { x: Number(r.left), y: Number(r.top), w: Number(r.width), h: Number(r.height) }
    const line = [r.page_num, r.block_num, r.par_num, r.line_num].reduce(
      (n, part) => n * 1000 + Number(part),
      0,
    )
    const back = turnedBack(box, page.degrees, page.size, page)
    return [
      {
        text: r.text,
        line,
        box: {
          x: back.x / page.larger,
          y: back.y / page.larger,
          w: back.w / page.larger,
          h: back.h / page.larger,
        },
      },
    ]
  })
}
