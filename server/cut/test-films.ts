import type { Frames, Seconds } from '@awlbox/core/contracts/units'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import type { Clip, CutItem, Repair } from '@awlbox/core/contracts/cut'
import { plainRepair } from '@awlbox/core/cut/repairs'
import { renderSegment, type SegmentSource, type TakeFilm } from './render.ts'

/** Films for tests, made by ffmpeg from descriptions, and what can be measured in a film. */
export const takeA = 'aaaaaaaa-0000-4000-8000-000000000001'
export const takeB = 'bbbbbbbb-0000-4000-8000-000000000002'
export const clip = (from: number, to: number, over: Partial<Clip> = {}): Clip => ({
  kind: 'clip',
  id: `c${from}-${to}`,
  takeId: takeA,
  from,
  to,
  why: null,
  ...over,
})
export const repair = (over: Partial<Repair>): Repair => ({ ...plainRepair(takeA), ...over })

export function testFolder(): { dir: string; remove: () => void } {
  const dir = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-cut-test-'))
  return { dir, remove: () => fs.rmSync(dir, { recursive: true, force: true }) }
}
const ffmpeg = (args: readonly string[]): Buffer =>
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { maxBuffer: 1 << 28 })
/** A film of 1280 × 720 and 30 pictures a second, from ffmpeg's sources: `picture` a graph that makes [v], `sound` a source. */
export function makeFilm(file: string, picture: string, sound: string, seconds: Seconds): TakeFilm {
  ffmpeg([
    '-f',
    'lavfi',
    '-i',
    picture,
    '-f',
    'lavfi',
    '-i',
    sound,
    '-t',
    String(seconds),
    '-c:v',
    'libx264',
    '-preset',
    'ultrafast',
    '-qp',
    '0',
    '-pix_fmt',
    'yuv420p',
    '-c:a',
    'aac',
    file,
  ])
  return { sha: path.basename(file), file, seconds }
}
/** Mean colour, 0–255 each, of a square of the picture at a frame. */
export const colourAt = (
  file: string,
  frame: Frames,
  x: number,
  y: number,
  size = 12,
): [number, number, number] =>
  [
    ...ffmpeg([
      '-i',
      file,
      '-vf',
      `select=eq(n\\,${frame}),crop=${size}:${size}:${x}:${y},scale=1:1:flags=area,format=rgb24`,
      '-frames:v',
      '1',
      '-f',
      'rawvideo',
      '-',
    ]),
  ] as [number, number, number]
/** Loudness (root mean square, 0–1) of a stretch of a film's sound, through a filter. */
export function loudness(file: string, from: number, to: number, filter = 'anull'): number {
  const raw = ffmpeg([
    '-ss',
    String(from),
    '-t',
    String(to - from),
    '-i',
    file,
    '-vn',
    '-af',
    filter,
    '-ac',
    '1',
    '-ar',
    '16000',
    '-f',
    's16le',
    '-',
  ])
  const n = raw.length / 2
  let sum = 0
  for (let i = 0; i < n; i++) sum += (raw.readInt16LE(i * 2) / 32_768) ** 2
  return Math.sqrt(sum / Math.max(1, n))
}
export const framesIn = (file: string): number =>
  Number(
    execFileSync(
      'ffprobe',
      [
        '-v',
        'error',
        '-count_frames',
        '-select_streams',
        'v',
        '-show_entries',
        'stream=nb_read_frames',
        '-of',
        'csv=p=0',
        file,
      ],
      { encoding: 'utf8' },
    ).trim(),
  )

let made = 0
/** Renders items of takes to a file in the folder. */
export async function rendered(
  dir: string,
  items: readonly CutItem[],
  films: ReadonlyMap<string, TakeFilm>,
  more: Partial<SegmentSource> = {},
): Promise<string> {
  const out = path.join(dir, `out${(made += 1)}.mov`)
  await renderSegment(
    {
      fill: 'across',
      ...more,
      cut: { items: [...items], overlays: more.cut?.overlays ?? [] },
      films,
    },
    out,
    dir,
    {},
  )
  return out
}
