import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { framesPerSecond, type CutItem, type Overlay } from '@awlbox/core/contracts/cut'
import { play } from '@awlbox/core/script/table/play'
import { checkFilm } from '../server/cut/film-checks.ts'
import { bytesAllowed, makeSmall } from '../server/cut/outputs.ts'
import { framesOf, joinSegments, renderSegment, type SegmentSource } from '../server/cut/render.ts'
import { videoCodec } from '../server/platform/media/ffmpeg.ts'

/**
 * Rendering a lesson of ten minutes in ten segments, side by side with one plain encode of the same material, length
 * and settings; then again with one segment changed; and the most memory the worker and its programs had. Prints
 * ratios. node --import tsx bench/render.ts
 */
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-bench-'))
const time = async (work: () => Promise<unknown>): Promise<number> => {
  const start = performance.now()
  await work()
  return performance.now() - start
}
/** Memory in use by this process and what it started, bytes. */
function memory(): number {
  const of = new Map<number, { parent: number; bytes: number }>()
  for (const name of fs.readdirSync('/proc')) {
    if (!/^\d+$/.test(name)) continue
    try {
      const stat = fs.readFileSync(`/proc/${name}/stat`, 'utf8')
      const after = stat.slice(stat.lastIndexOf(')') + 2).split(' ')
      of.set(Number(name), { parent: Number(after[1]), bytes: Number(after[21]) * 4096 })
    } catch {
      // It ended meanwhile.
    }
  }
  const mine = (pid: number): boolean =>
    pid === process.pid || (of.has(pid) && of.get(pid)!.parent > 1 && mine(of.get(pid)!.parent))
  return [...of].reduce((n, [pid, p]) => n + (mine(pid) ? p.bytes : 0), 0)
}
let peak = 0
const watch = setInterval(() => (peak = Math.max(peak, memory())), 200)

// A camera over a table: a hand moves, and no two pictures are quite the same.
const take = path.join(folder, 'take.mp4')
execFileSync('ffmpeg', [
  '-v',
  'error',
  '-y',
  '-f',
  'lavfi',
  '-i',
  "color=c=0xC2A27A:s=1280x720:r=30:d=66,drawbox=x=180:y=80:w=900:h=560:c=0xF7F5EF:t=fill,drawbox=x='300+200*sin(t)':y=300:w=140:h=320:c=0xC99A7A:t=fill,noise=alls=2:allf=t",
  '-f',
  'lavfi',
  '-i',
  'sine=f=220:d=66',
  ...videoCodec,
  '-c:a',
  'aac',
  take,
])
const films = new Map([['take', { sha: 'take', file: take, seconds: 66, tone: { from: 1, to: 2 } }]])
const table = play(['Lay a ten frame', 'Put 4 saffron on the frame', 'Put 3 blue on the frame'])
const clip = (from: number, to: number): CutItem => ({
  kind: 'clip',
  id: `c${from}`,
  takeId: 'take',
  from,
  to,
  why: null,
})
const overlay = (over: Partial<Overlay>): Overlay => ({
  id: 'o',
  look: 'sentence',
  takeId: 'take',
  from: 300,
  to: 420,
  text: '4 + 3 = 7',
  stepId: 's',
  place: { x: 820, y: 40, w: 360, h: 84 },
  at: null,
  why: null,
  ...over,
})
const segment = (k: number): SegmentSource => ({
  films,
  fill: 'across',
  tables: () => table,
  cut: {
    items: [
      clip(10 + k, 600),
      clip(640, 1200),
      { kind: 'hold', id: 'h', frames: 90, stepId: null, why: null },
      clip(1200, 1620),
      {
        kind: 'card',
        id: 'k',
        look: 'stop',
        title: 'Stop the film',
        lines: ['Find another way.'],
        frames: 150,
        stepId: null,
        why: null,
      },
    ],
    overlays: [
      overlay({}),
      overlay({ id: 'p', look: 'table', from: 700, to: 1000, place: { x: 64, y: 36, w: 380, h: 248 } }),
    ],
  },
})
const sources = Array.from({ length: 10 }, (_, k) => segment(k))
const frames = sources.reduce((n, s) => n + framesOf(s), 0)
const files = sources.map((_, k) => path.join(folder, `${k}.mov`))
const film = path.join(folder, 'film.mp4')
const list = path.join(folder, 'plain.txt')
fs.writeFileSync(list, Array.from({ length: 12 }, () => `file '${take}'`).join('\n'))
try {
  const plain = await time(() =>
    Promise.resolve(
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-y',
        '-f',
        'concat',
        '-safe',
        '0',
        '-i',
        list,
        '-t',
        String(frames / framesPerSecond),
        ...videoCodec,
        '-c:a',
        'aac',
        '-b:a',
        '96k',
        path.join(folder, 'plain.mp4'),
      ]),
    ),
  )
  peak = 0
  const full = await time(async () => {
    for (const [k, s] of sources.entries()) await renderSegment(s, files[k]!, folder, {})
    await joinSegments(files, film, folder, {})
  })
  const most = peak
  const again = await time(async () => {
    await renderSegment(segment(99), files[4]!, folder, {})
    await joinSegments(files, film, folder, {})
  })
  const seconds = frames / framesPerSecond
  const show = (name: string, value: string): void => console.log(`${name.padEnd(64)} ${value}`)
  show(
    `a film of ${(seconds / 60).toFixed(1)} min ÷ one plain ffmpeg encode`,
    `${(full / plain).toFixed(2)} (${(full / 1000).toFixed(0)} s ÷ ${(plain / 1000).toFixed(0)} s)`,
  )
  show('one of ten segments changed ÷ the whole', (again / full).toFixed(2))
  show('most memory, the worker and its programs', `${Math.round(most / 1e6)} MB`)
  show(
    'looking the finished film through ÷ the plain encode',
    ((await time(() => checkFilm(film, []))) / plain).toFixed(2),
  )
  const allowed = bytesAllowed(seconds, 25)
  let size = 0
  const small = await time(
    async () => (size = await makeSmall(film, path.join(folder, 'small.mp4'), seconds, allowed, {})),
  )
  show(
    'the small version ÷ the plain encode; its size of what is allowed',
    `${(small / plain).toFixed(2)}; ${(size / allowed).toFixed(2)}`,
  )
} finally {
  clearInterval(watch)
  fs.rmSync(folder, { recursive: true, force: true })
}
