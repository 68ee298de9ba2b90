import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type CutList, framesPerSecond } from '@awlbox/core/contracts/cut'
import type { HeardWord } from '@awlbox/core/contracts/heard'
import { readCaptions } from '@awlbox/core/film/desk/captions'
import { hear } from '@awlbox/core/film/judge/heard'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { segmentFrames } from '@awlbox/core/cut/timeline'
import { probe } from '../platform/media/ffmpeg.ts'
import { toTakeFilm } from '../platform/media/take-film.ts'
import { children as named, jobs, renderFiles, renders, segmentFiles } from '../platform/schema.ts'
import { addTake, removeTake, saveHearing, setTake, takeById, takeFacts } from '../film/store.ts'
import { lookOver } from '../film/look-over.ts'
import { toSpeechWav } from '../platform/media/ffmpeg.ts'
import { toPng } from '../platform/media/raster.ts'
import { sampleLesson, testWorld } from '../testing.ts'
import { renderFilm } from './jobs.ts'
import { renderSegment } from './render.ts'
import { clip, framesIn, makeFilm, testFolder } from './test-films.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const { dir, remove } = testFolder()
afterAll(remove)
const at = testWorld()
const doc = sampleLesson()
const children = doc.segments.filter((s) => s.audience === 'children')
const adults = doc.segments.find((s) => s.audience === 'adults')!
const filmOf = (name: string, picture = 'testsrc2=s=1280x720:r=30:d=6', seconds = 6): string =>
  makeFilm(path.join(dir, name), picture, `sine=f=500:d=${seconds}`, seconds).file

/** A take with a film of its own, heard as saying the first words of its segment. */
async function filmed(segmentId: string, file: string, seconds: number): Promise<string> {
  const segment = doc.segments.find((s) => s.id === segmentId)!
  const sha = await at.app.blobs.put(at.app.db, { file }, 'video/mp4')
  const id = await addTake(at.app.db, {
    lessonId: at.world.here.lessonId,
    segmentId,
    source: 'uploaded',
    original: sha,
  })
  await setTake(at.app.db, id, {
    film: sha,
    seconds,
    hasSound: true,
    status: 'ready',
    peaks: Buffer.alloc(Math.round(seconds * 50), 30),
  })
  const words = spokenLines(segment, defaultHouseStyle)
    .flatMap((l) => l.words)
    .slice(0, 8)
    .map((word, i): HeardWord => ({ word, start: 0.5 + i * 0.5, end: 0.9 + i * 0.5, confidence: 1 }))
  await saveHearing(at.app.db, id, hear(segment, words, seconds, usual), 1)
  return id
}
const cutNow = async () =>
  (await at.world.teacher.call('GET', `${at.lesson}/cut`)).body as { revision: number; doc: CutList }
const save = (revision: number, list: CutList) =>
  at.world.teacher.call('PUT', `${at.lesson}/cut`, { revision, doc: list })
/** Asks for a render and does it here, without the queue. */
async function renderNow(
  signal = new AbortController().signal,
  progress: (step: string) => void = () => undefined,
): Promise<void> {
  await at.world.teacher.call('POST', `${at.lesson}/render`)
  const waiting = await at.app.db.select().from(jobs).where(eq(jobs.status, 'queued'))
  for (const job of waiting) await at.app.db.update(jobs).set({ status: 'done' }).where(eq(jobs.id, job.id))
  await renderFilm(at.app, {
    job: waiting.find((j) => j.kind === 'render')!,
    signal,
    progress: (step) => Promise.resolve(progress(step)),
  })
}
const count = async (table: typeof renders | typeof segmentFiles | typeof renderFiles): Promise<number> =>
  (await at.app.db.select().from(table as typeof renders)).length
let first: string

beforeAll(async () => {
  first = await filmed(children[0]!.id, filmOf('one.mp4'), 6)
  await filmed(children[1]!.id, filmOf('two.mp4', 'smptebars=s=1280x720:r=30:d=6'), 6)
  await filmed(adults.id, filmOf('adults.mp4', 'color=c=blue:s=1280x720:r=30:d=6'), 6)
})

describe('a film rendered', () => {
  test('comes with every version of it; what adults are told is a film of its own, not part of it', async () => {
    await renderNow()
    const list = (await cutNow()).doc
    const [render] = (await at.world.teacher.call('GET', `${at.lesson}/renders`)).body.items as {
      id: string
      seconds: number
      checks: unknown[]
      files: { kind: string; bytes: number }[]
    }[]
    expect(render!.files.map((f) => f.kind).sort()).toEqual([
      'adults',
      'adults-captions',
      'captions-slow',
      'chapters',
      'descriptions',
      'small',
      'sound',
      'srt',
    ])
    for (const f of render!.files) {
      const r = await at.world.teacher.call('GET', `/api/renders/${render!.id}/files/${f.kind}`)
      expect(r.status).toBe(200)
    }
    const ofChildren = list.segments
      .filter((s) => children.some((c) => c.id === s.segmentId))
      .reduce((n, s) => n + segmentFrames(s), 0)
    expect(Math.round(render!.seconds * framesPerSecond)).toBe(ofChildren)
    expect(Array.isArray(render!.checks)).toBe(true)
    const captions = (await at.world.teacher.call('GET', `/api/renders/${render!.id}/captions`)).body
      .text as string
    expect(readCaptions(captions).length).toBeGreaterThan(0)
  })
  test('again, with one segment changed, makes that segment anew and no other; unchanged, nothing', async () => {
    const before = await count(segmentFiles)
    await renderNow()
    expect([await count(segmentFiles), await count(renders)]).toEqual([before, 1])
    const { revision, doc: list } = await cutNow()
    await save(revision, {
      ...list,
      segments: list.segments.map((s) =>
        s.segmentId === children[0]!.id
          ? {
              ...s,
              byHand: true,
              items: [{ kind: 'clip', id: 'x', takeId: first, from: 0, to: 60, why: null }],
            }
          : s,
      ),
    })
    await renderNow()
    expect(await count(segmentFiles)).toBe(before + 1)
  })
  test('cancelled half-way leaves nothing half done, and goes on from there', async () => {
    const { revision, doc: list } = await cutNow()
    await save(revision, { ...list, captions: { ...list.captions, burnt: true } })
    const [before, stop] = [await count(renders), new AbortController()]
    await expect(
      renderNow(stop.signal, (step) => step.startsWith('segment 2') && stop.abort()),
    ).rejects.toThrow()
    expect(await count(renders)).toBe(before)
    await renderNow()
    expect(await count(renders)).toBe(before + 1)
    await save((await cutNow()).revision, list)
  })
  test('on a full disk: words, and everything kept', async () => {
    const { config } = at.app
    const reserve = config.diskReserve
    Object.assign(config, { diskReserve: Number.MAX_SAFE_INTEGER })
    await expect(renderNow()).rejects.toThrow(/disk is full.*kept/)
    Object.assign(config, { diskReserve: reserve })
  })
})

describe('when ffmpeg dies', () => {
  /** Puts a program named ffmpeg before the real one that dies at its n-th call. */
  function dying(n: number, words = ''): () => void {
    const bin = path.join(dir, `bin${n}`)
    fs.mkdirSync(bin, { recursive: true })
    fs.writeFileSync(path.join(bin, 'count'), '0')
    fs.writeFileSync(
      path.join(bin, 'ffmpeg'),
      `#!/bin/bash\nn=$(($(cat ${bin}/count) + 1)); echo $n > ${bin}/count\nif [ $n -eq ${n} ]; then echo '${words}' >&2; kill -9 $$; fi\nexec /usr/bin/ffmpeg "$@"\n`,
      { mode: 0o755 },
    )
    const before = process.env.PATH
    process.env.PATH = `${bin}:${before}`
    return () => void (process.env.PATH = before)
  }
  test('at any of its stages, no half film is shown, and the next try gives a whole one', async () => {
    // A second or so of each segment: what is tried is every stage, many times over, and not the length.
    const { revision, doc: list } = await cutNow()
    await save(revision, {
      ...list,
      segments: list.segments.map((s) =>
        s.takeId ? { ...s, byHand: true, overlays: [], items: [clip(5, 50, { takeId: s.takeId })] } : s,
      ),
    })
    const whole = async (): Promise<boolean> => {
      const all = await at.app.db.select().from(renders)
      return all.every((r) => framesIn(at.app.blobs.path(r.film)) === Math.round(r.seconds * framesPerSecond))
    }
    let stages = 0
    // Every stage at first, then some: what was done before the fall is not done again.
    for (const n of [1, 2, 3, 4, 6, 9, 13, 18, 24, 30]) {
      const heal = dying(n)
      const died = await renderNow().then(
        () => false,
        () => true,
      )
      heal()
      expect(await whole()).toBe(true)
      if (!died) break
      stages++
    }
    expect(stages).toBeGreaterThan(5)
    expect(fs.readdirSync(path.join(at.app.config.blobs, 'tmp'))).toEqual([])
    const [last] = (await at.world.teacher.call('GET', `${at.lesson}/renders`)).body.items as {
      files: unknown[]
    }[]
    expect(last!.files).toHaveLength(8)
  }, 240_000)
  test('for want of room it says so', async () => {
    const { revision, doc: list } = await cutNow()
    await save(revision, {
      ...list,
      segments: list.segments.map((s) =>
        s.segmentId === children[0]!.id
          ? {
              ...s,
              byHand: true,
              items: [{ kind: 'clip', id: 'z', takeId: first, from: 7, to: 50, why: null }],
            }
          : s,
      ),
    })
    const heal = dying(1, 'av_interleaved_write_frame(): No space left on device')
    await expect(renderNow()).rejects.toThrow(/disk is full/)
    heal()
  })
})

describe('cut lists that are odd', () => {
  const put = async (items: unknown[]) => {
    const { revision, doc: list } = await cutNow()
    return save(revision, {
      ...list,
      segments: list.segments.map((s) =>
        s.segmentId === children[0]!.id
          ? { ...s, byHand: true, items: items as CutList['segments'][0]['items'] }
          : s,
      ),
    })
  }
  test('spans of one frame and spans that overlap are rendered as they stand', async () => {
    await put([
      clip(0, 1, { takeId: first }),
      clip(0, 30, { takeId: first }),
      clip(10, 40, { takeId: first }),
    ])
    await renderNow()
    const row = (await cutNow()).doc.segments.find((s) => s.segmentId === children[0]!.id)!
    expect(segmentFrames(row)).toBe(61)
  })
  test('a span of no frames is refused, and the cut is as it was', async () => {
    const before = await cutNow()
    expect((await put([clip(30, 30, { takeId: first })])).status).toBe(400)
    expect(await cutNow()).toEqual(before)
  })
  test('of two who cut at once the second is told, with both versions', async () => {
    const { revision, doc: list } = await cutNow()
    expect((await save(revision, list)).status).toBe(200)
    const late = await save(revision, list)
    expect(late.status).toBe(409)
    expect(late.body).toMatchObject({ revision: revision + 1, doc: { version: 3 } })
  })
  test('a take replaced by a shorter film ends where the film does; one deleted leaves the cut', async () => {
    const spare = await filmed(children[0]!.id, filmOf('spare.mp4'), 6)
    await put([clip(0, 60, { takeId: first }), clip(60, 170, { takeId: spare })])
    const sha = await at.app.blobs.put(
      at.app.db,
      { file: filmOf('shorter.mp4', 'color=c=red:s=1280x720:r=30:d=3', 3) },
      'video/mp4',
    )
    await setTake(at.app.db, spare, { film: sha, seconds: 3 })
    const items = async () =>
      (await cutNow()).doc.segments
        .find((s) => s.segmentId === children[0]!.id)!
        .items.map((i) => (i.kind === 'clip' ? [i.from, i.to] : i.kind))
    expect(await items()).toEqual([
      [0, 60],
      [60, 90],
    ])
    await renderNow()
    await removeTake(at.app.db, spare)
    expect(await items()).toEqual([[0, 60]])
    await renderNow()
  })
  test('written for another program and read back it is the same; nonsense is refused in words', async () => {
    const list = (await cutNow()).doc
    for (const format of ['otio', 'json'] as const) {
      const text = JSON.stringify(
        (await at.world.teacher.call('GET', `${at.lesson}/cut/export/${format}`)).body,
      )
      const read = await at.world.teacher.call('POST', `${at.lesson}/cut/read`, { name: `x.${format}`, text })
      expect(read.status).toBe(200)
      const rows = (read.body.doc as CutList).segments
      expect(rows.map(segmentFrames)).toEqual(
        list.segments.filter((s) => s.segmentId !== adults.id).map(segmentFrames),
      )
    }
    expect((await at.world.teacher.call('GET', `${at.lesson}/cut/export/edl`)).body.text).toMatch(
      /^TITLE: Seven parcels/,
    )
    expect((await at.world.teacher.call('GET', `${at.lesson}/cut/export/avi`)).status).toBe(404)
    const wrong = await at.world.teacher.call('POST', `${at.lesson}/cut/read`, {
      name: 'x.edl',
      text: 'hello',
    })
    expect([wrong.status, String(wrong.body.detail)]).toEqual([
      422,
      expect.stringContaining('no CMX 3600') as string,
    ])
  })
})

describe('clips of every kind', () => {
  test('of other rates, sizes, rotations and sound are cut alike, to the frame', async () => {
    const sources: readonly (readonly [string, string[]])[] = [
      [
        '25 a second, 1080p, 5.1',
        [
          '-f',
          'lavfi',
          '-i',
          'testsrc2=s=1920x1080:r=25:d=3',
          '-f',
          'lavfi',
          '-i',
          'aevalsrc=0.1*sin(440*2*PI*t)|0|0|0|0|0:c=5.1:d=3',
          '-c:v',
          'libx264',
          '-preset',
          'ultrafast',
          '-c:a',
          'aac',
          'a.mp4',
        ],
      ],
      [
        '59.94, small and upright, 8 kHz mono',
        [
          '-f',
          'lavfi',
          '-i',
          'testsrc2=s=360x640:r=60000/1001:d=3',
          '-f',
          'lavfi',
          '-i',
          'sine=r=8000:d=3',
          '-c:v',
          'libx264',
          '-preset',
          'ultrafast',
          '-c:a',
          'pcm_s16le',
          'b.mov',
        ],
      ],
      [
        'no sound, odd size',
        ['-f', 'lavfi', '-i', 'testsrc2=s=641x361:r=15:d=3', '-c:v', 'libvpx', '-b:v', '500k', 'c.webm'],
      ],
      ['sound only', ['-f', 'lavfi', '-i', 'sine=d=3', 'd.wav']],
    ]
    const films = new Map<string, { sha: string; file: string; seconds: number }>()
    for (const [name, args] of sources) {
      const raw = path.join(dir, args.at(-1)!)
      execFileSync('ffmpeg', ['-v', 'error', '-y', ...args.slice(0, -1), raw])
      const file = path.join(dir, `${args.at(-1)!.split('.')[0]}-film.mp4`)
      await toTakeFilm(raw, file, (await probe(raw))!, {})
      films.set(`${films.size}`, { sha: name, file, seconds: 3 })
    }
    const out = path.join(dir, 'mixed.mov')
    await renderSegment(
      {
        fill: 'across' as const,
        cut: {
          items: [...films.keys()].flatMap((id, i) => [
            clip(i, i + 31, { takeId: id, id }),
            clip(60, 61, { takeId: id, id: `${id}b` }),
          ]),
        },
        films,
      },
      out,
      dir,
      {},
    )
    expect(framesIn(out)).toBe(4 * 32)
  })
  test('a browser’s recording of sound alone says no length, and is as long as it sounds', async () => {
    const [wav, live] = [path.join(dir, 'line.wav'), path.join(dir, 'line.webm')]
    execFileSync('ffmpeg', ['-v', 'error', '-y', '-f', 'lavfi', '-i', 'sine=d=4', wav])
    // Written as it comes, the file's head is never mended.
    fs.writeFileSync(
      live,
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-i',
        wav,
        '-c:a',
        'libopus',
        '-f',
        'webm',
        '-live',
        '1',
        'pipe:1',
      ]),
    )
    const p = (await probe(live))!
    expect([p.video, Math.round(p.seconds)]).toEqual([null, 4])
    const film = path.join(dir, 'line.mp4')
    await toTakeFilm(live, film, p, {})
    expect(framesIn(film)).toBeGreaterThan(117)
  })
  /** A take of six seconds of one picture, looked over as it is when it arrives, and the covers then proposed for it. */
  async function lookedOver(segmentId: string, inside: string) {
    const [png, film, wav] = ['f.png', 'f.mp4', 'f.wav'].map((n) => path.join(dir, `${segmentId}-${n}`))
    fs.writeFileSync(
      png!,
      toPng(
        `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="720"><rect width="1280" height="720" fill="#8d9a92"/>${inside}</svg>`,
        1280,
      ),
    )
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-loop',
      '1',
      '-framerate',
      '30',
      '-t',
      '6',
      '-i',
      png!,
      '-f',
      'lavfi',
      '-i',
      'sine=d=6',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-pix_fmt',
      'yuv420p',
      '-shortest',
      film!,
    ])
    const id = await filmed(segmentId, film!, 6)
    await toSpeechWav(film!, wav!)
    await lookOver(at.app, (await takeById(at.app.db, id))!, wav!, {
      job: {} as never,
      signal: new AbortController().signal,
      progress: () => Promise.resolve(),
    })
    return {
      id,
      looked: (await takeById(at.app.db, id))!.looked!,
      covers: (await cutNow()).doc.repairs.find((r) => r.takeId === id)?.hidden ?? [],
    }
  }
  test('a face in a take is found while it is looked over, and a cover is proposed for it; nobody covers it unasked', async () => {
    const face =
      '<g transform="translate(400 300) scale(1.4)"><ellipse rx="78" ry="100" fill="#d9b08c"/><path d="M-80-30Q-70-115 0-112Q70-115 80-30Q60-70 0-72Q-60-70-80-30Z" fill="#3a2a20"/><ellipse cx="-32" cy="-18" rx="20" ry="11" fill="#b98c6a"/><ellipse cx="32" cy="-18" rx="20" ry="11" fill="#b98c6a"/><circle cx="-32" cy="-16" r="8" fill="#221"/><circle cx="32" cy="-16" r="8" fill="#221"/><path d="M-54-36Q-32-48-12-36M54-36Q32-48 12-36" stroke="#3a2a20" stroke-width="8" fill="none"/><path d="M-4-10L-10 24Q0 32 10 24L4-10Z" fill="#c99873"/><path d="M-12 26Q0 34 12 26" stroke="#8a5f43" stroke-width="5" fill="none"/><path d="M-30 52Q0 44 30 52Q0 76-30 52Z" fill="#9c4a44"/></g>'
    const {
      id,
      looked,
      covers: [cover],
    } = await lookedOver(children[2]!.id, face)
    expect(looked.faces.length).toBeGreaterThan(1)
    expect(looked.sheet).toMatchObject({ count: 6, across: 20 })
    expect((await at.world.teacher.call('GET', `/api/takes/${id}/sheet`)).status).toBe(200)
    expect(cover).toMatchObject({ what: 'face', why: { state: 'open', kind: 'face' } })
    const box = cover!.keys[0]!.box
    expect(box.x).toBeLessThan(400)
    expect(box.x + box.w).toBeGreaterThan(400)
  })
  test('a child’s name on a label is read, wherever it hangs, and a cover is proposed; what was read is kept nowhere, and number cards are left alone', async () => {
    const label = (text: string, x: number, y: number, turn: number): string =>
      `<g transform="translate(${x} ${y}) rotate(${turn})"><rect x="-140" y="-45" width="280" height="80" fill="#fff"/><text x="-120" y="12" font-family="Andika" font-size="48" fill="#222">${text}</text></g>`
    const numbers = [1, 2, 3, 4, 5]
      .map(
        (n) =>
          `<rect x="${150 + n * 150}" y="520" width="100" height="120" fill="#fff"/><text x="${180 + n * 150}" y="605" font-family="Andika" font-size="80" fill="#222">${n}</text>`,
      )
      .join('')
    const [child] = await at.app.db
      .select({ name: named.name })
      .from(named)
      .where(eq(named.classId, at.world.here.classId))
      .limit(1)
    for (const t of await takeFacts(at.app.db, at.world.here.lessonId))
      if (t.segmentId === children[1]!.id) await removeTake(at.app.db, t.id)
    const { looked, covers } = await lookedOver(
      children[1]!.id,
      label(child!.name, 900, 200, 5) + label('Bobbin', 300, 200, -3) + numbers,
    )
    expect(covers.map((c) => [c.what, c.why?.state])).toEqual([['name', 'open']])
    const box = covers[0]!.keys[0]!.box
    expect([box.x < 850, box.x + box.w > 900, box.y < 200, box.y + box.h > 200]).toEqual([
      true,
      true,
      true,
      true,
    ])
    expect(JSON.stringify([looked, covers])).not.toContain(child!.name)
  })
})
