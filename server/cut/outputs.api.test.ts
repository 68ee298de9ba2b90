import { execFileSync, spawnSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { Writable } from 'node:stream'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { type CutList, plainList } from '@awlbox/core/contracts/cut'
import { chapterMetadata } from '@awlbox/core/cut/chapters'
import { programOf } from '@awlbox/core/cut/program'
import { faceFinder } from '../platform/media/faces.ts'
import { drawnFace } from '../platform/media/test-face.ts'
import { loudnessOf } from '../platform/media/loudness.ts'
import { toPng } from '../platform/media/raster.ts'
import { writeBundle } from './exchange.ts'
import { checkFilm } from './film-checks.ts'
import { bytesAllowed, makeSmall, makeSound } from './outputs.ts'
import { joinSegments } from './render.ts'
import { clip, framesIn, makeFilm, rendered, takeA, testFolder } from './test-films.ts'

const { dir, remove } = testFolder()
afterAll(remove)
const file = (name: string): string => path.join(dir, name)
const film = (name: string, picture: string, sound = 'sine=f=500:d=6', seconds = 6): string =>
  makeFilm(file(name), picture, sound, seconds).file

describe('the small version', () => {
  test('of a picture that never rests stays under its size; of a still one it is far smaller', async () => {
    const busy = film('busy.mp4', 'testsrc2=s=1280x720:r=30:d=5,noise=alls=40:allf=t', 'sine=d=5', 5)
    const still = film('still.mp4', 'color=c=gray:s=1280x720:r=30:d=5', 'sine=d=5', 5)
    const allowed = bytesAllowed(5, 25)
    const [a, b] = [
      await makeSmall(busy, file('busy-small.mp4'), 5, allowed, {}),
      await makeSmall(still, file('still-small.mp4'), 5, allowed, {}),
    ]
    expect(a).toBeLessThanOrEqual(allowed)
    expect(b).toBeLessThan(allowed / 2)
    expect(framesIn(file('busy-small.mp4'))).toBe(150)
    await makeSound(still, file('still.m4a'), {})
    expect(
      fs.statSync(file('still.m4a')).size,
      'sound alone is no larger than sound with a picture',
    ).toBeLessThan(b)
  })
  test('ten minutes at 25 MB is 25 MB', () => expect(bytesAllowed(600, 25)).toBe(25_000_000))
  test('sound only has no picture', async () => {
    await makeSound(film('s.mp4', 'color=c=gray:s=1280x720:r=30:d=6'), file('s.m4a'), {})
    expect(
      execFileSync(
        'ffprobe',
        ['-v', 'error', '-show_entries', 'stream=codec_type', '-of', 'csv=p=0', file('s.m4a')],
        { encoding: 'utf8' },
      ).trim(),
    ).toBe('audio')
  })
})

describe('the finished film looked through', () => {
  const kinds = async (f: string, still: { from: number; to: number }[] = []) =>
    (await checkFilm(f, still)).map((c) => c.code)
  test('a quiet film has nothing', async () =>
    expect(await kinds(film('quiet.mp4', 'testsrc2=s=1280x720:r=30:d=6'))).toEqual([]))
  test('flashes are found with where', async () => {
    const found = await checkFilm(
      film(
        'flash.mp4',
        "color=c=black:s=1280x720:r=30:d=6,format=gray,geq=lum='if(between(N,60,120)*mod(floor(N/3),2),235,40)',format=yuv420p",
      ),
      [],
    )
    expect(found).toMatchObject([{ code: 'flash', severity: 'wrong' }])
    expect(found[0]!.start).toBeGreaterThan(1.5)
    expect(found[0]!.start).toBeLessThan(2.5)
  })
  test('a black stretch is found', async () =>
    expect(
      await kinds(
        film('black.mp4', "testsrc2=s=1280x720:r=30:d=6,drawbox=t=fill:c=black:enable='between(t,2,4)'"),
      ),
    ).toContain('black'))
  test('a picture that stands still is found, unless it is meant to', async () => {
    const f = film('frozen.mp4', 'color=c=gray:s=1280x720:r=30:d=26', 'sine=d=26', 26)
    expect(await kinds(f)).toEqual(['frozen'])
    expect(await kinds(f, [{ from: 0, to: 780 }])).toEqual([])
  })
  test('sound shorter than the picture is found', async () => {
    const f = file('short.mp4')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc2=s=1280x720:r=30:d=4',
      '-f',
      'lavfi',
      '-i',
      'sine=d=2',
      '-c:v',
      'libx264',
      '-preset',
      'ultrafast',
      '-c:a',
      'aac',
      f,
    ])
    expect(await kinds(f)).toContain('sync')
  })
})

test('chapters are in the joined film with their titles, and in its small version and its sound', async () => {
  const films = new Map([[takeA, makeFilm(file('take.mp4'), 'testsrc2=s=1280x720:r=30:d=3', 'sine=d=3', 3)]])
  const out = file('joined.mp4')
  await joinSegments(
    [await rendered(dir, [clip(0, 45)], films), await rendered(dir, [clip(45, 90)], films)],
    out,
    dir,
    {},
    chapterMetadata([
      { start: 0, end: 1.5, title: 'Hello = hello', stop: false },
      { start: 1.5, end: 3, title: 'Stop here; have a go', stop: true },
    ]),
  )
  const [small, sound] = [file('joined-small.mp4'), file('joined.m4a')]
  await makeSmall(out, small, 3, 1e6, {})
  await makeSound(out, sound, {})
  for (const made of [out, small, sound]) {
    const probed = spawnSync('ffprobe', ['-v', 'warning', '-show_chapters', '-of', 'json', made], {
      encoding: 'utf8',
    })
    const { chapters } = JSON.parse(probed.stdout) as {
      chapters: { start_time: string; tags: { title: string } }[]
    }
    expect([made, ...chapters.map((c) => [Number(c.start_time), c.tags.title])]).toEqual([
      made,
      [0, 'Hello = hello'],
      [1.5, 'Stop here; have a go'],
    ])
    expect(probed.stderr).not.toContain('chapter track not found')
  }
})

test.each([
  ['a whisper', 0.01],
  ['a shout', 0.9],
])('%s is levelled to −16 LUFS, with no peak above −1.5 dB', async (name, size) => {
  // Bursts a second long, with a click of full strength in each.
  const sound = `aevalsrc='${size}*sin(2*PI*320*t)*lt(mod(t,1.3),1)+${size}*gt(mod(t,1.3),0.5)*lt(mod(t,1.3),0.502)':s=48000:d=12`
  const films = new Map([
    [takeA, makeFilm(file(`${size}.mp4`), 'color=c=gray:s=1280x720:r=30:d=12', sound, 12)],
  ])
  const out = file(`${name}.mp4`)
  await joinSegments([await rendered(dir, [clip(0, 360)], films)], out, dir, {})
  const { integrated, peak } = await loudnessOf(['-i', out], { peaks: true })
  expect(Math.abs(integrated! + 16)).toBeLessThan(0.7)
  expect(peak).toBeLessThanOrEqual(-1.2)
})

describe('the cut for other programs', () => {
  const list: CutList = {
    ...plainList,
    segments: [
      {
        segmentId: 's',
        takeId: takeA,
        overlays: [],
        byHand: true,
        items: [
          clip(10, 55),
          { kind: 'hold', id: 'h', frames: 20, stepId: null, why: null },
          {
            kind: 'card',
            id: 'k',
            look: 'stop',
            title: 'Stop',
            lines: [],
            frames: 30,
            stepId: null,
            why: null,
          },
          clip(60, 61),
        ],
      },
    ],
  }
  const unpacked = file('bundle')
  beforeAll(async () => {
    const take = makeFilm(file('for-bundle.mp4'), 'testsrc2=s=1280x720:r=30:d=3', 'sine=d=3', 3)
    const parts: Buffer[] = []
    await writeBundle(
      new Writable({
        write: (c: Buffer, _e, done) => {
          parts.push(c)
          done()
        },
      }),
      list,
      'Seven parcels',
      () => take.file,
    )
    fs.mkdirSync(unpacked)
    fs.writeFileSync(file('bundle.zip'), Buffer.concat(parts))
    execFileSync('python3', ['-m', 'zipfile', '-e', file('bundle.zip'), unpacked])
  })
  test('everything it speaks of is there', () =>
    expect(
      fs
        .readdirSync(unpacked, { recursive: true })
        .map(String)
        .filter((f) => f.includes('.'))
        .sort(),
    ).toEqual([
      'cards/card-1.png',
      'film.cut.json',
      'film.edl',
      'film.mlt',
      'film.otio',
      `stills/${takeA.slice(0, 8)}-54.png`,
      `takes/${takeA}.mp4`,
    ]))
  test('MLT plays it, as long as the film to the frame', () => {
    execFileSync(
      'melt',
      [
        'film.mlt',
        '-consumer',
        `avformat:${file('melted.mp4')}`,
        'vcodec=libx264',
        'preset=ultrafast',
        'acodec=aac',
        'real_time=-1',
      ],
      {
        cwd: unpacked,
        stdio: 'ignore',
        timeout: 60_000,
        env: { ...process.env, QT_QPA_PLATFORM: 'offscreen' },
      },
    )
    expect(framesIn(file('melted.mp4'))).toBe(programOf(list).frames)
  })
})

test('a face drawn in a picture is found, things on a table are none', async () => {
  const find = (await faceFinder())!
  const face = drawnFace(200, 150, 0.7)
  const things = Array.from(
    { length: 10 },
    (_, i) =>
      `<circle cx="${80 + (i % 5) * 100}" cy="${120 + Math.floor(i / 5) * 100}" r="34" fill="#F2B705" stroke="#C48F00" stroke-width="3"/>`,
  ).join('')
  const grey = (inner: string): Uint8Array => {
    fs.writeFileSync(
      file('p.png'),
      toPng(
        `<svg xmlns="http://www.w3.org/2000/svg" width="640" height="360"><rect width="640" height="360" fill="#8d9a92"/>${inner}</svg>`,
        640,
      ),
    )
    return new Uint8Array(
      execFileSync('ffmpeg', [
        '-v',
        'error',
        '-i',
        file('p.png'),
        '-vf',
        'format=gray',
        '-f',
        'rawvideo',
        '-',
      ]),
    )
  }
  const [found] = find(grey(face), 640, 360)
  expect(Math.hypot(found!.x + found!.w / 2 - 200, found!.y + found!.h / 2 - 150)).toBeLessThan(30)
  expect(find(grey(things), 640, 360)).toEqual([])
})
