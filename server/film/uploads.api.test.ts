import { told } from '@awlbox/core/findings/say'
import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import path from 'node:path'
import { eq } from 'drizzle-orm'
import { describe, expect, test } from 'vitest'
import { probe } from '../platform/media/ffmpeg.ts'
import { takes as takeTable } from '../platform/schema.ts'
import { b64, hook, idOf, linesOf, show, takesWorld, together } from './test-takes.ts'

const { at, dir, film, upload, takes, take, workThrough, prepare } = takesWorld()

describe('uploading', () => {
  test('a text file named .mp4 is refused, and nothing is changed', async () => {
    const r = await upload(
      new TextEncoder().encode('this is a shopping list, whatever its name says\n'.repeat(20)),
    )
    expect(r.status).toBe(415)
    expect(r.body.detail).toMatch(/Nothing was changed/)
    expect(await takes()).toEqual([])
  })
  test('a photo is no film', async () => {
    const sharp = (await import('sharp')).default
    expect(
      (
        await upload(
          await sharp({ create: { width: 30, height: 30, channels: 3, background: 'red' } })
            .png()
            .toBuffer(),
        )
      ).status,
    ).toBe(415)
  })
  test('a half-sent film goes on where it stopped, and only for whoever began it', async () => {
    const bytes = fs.readFileSync(film('half', ['hello']))
    const made = await at.world.teacher.call('POST', '/api/uploads', undefined, {
      'tus-resumable': '1.0.0',
      'upload-length': String(bytes.length),
      'upload-metadata': `lessonId ${b64(at.world.here.lessonId)},segmentId ${b64(show.id)}`,
    })
    const begun = new URL(made.headers.get('location')!, at.app.address).pathname
    const part = { 'tus-resumable': '1.0.0', 'content-type': 'application/offset+octet-stream' }
    const half = Math.floor(bytes.length / 2)
    await at.world.teacher.call('PATCH', begun, new Uint8Array(bytes.subarray(0, half)), {
      ...part,
      'upload-offset': '0',
    })
    expect(
      (await at.world.stranger.call('HEAD', begun, undefined, { 'tus-resumable': '1.0.0' })).status,
    ).toBe(404)
    const head = await at.world.teacher.call('HEAD', begun, undefined, { 'tus-resumable': '1.0.0' })
    expect(head.headers.get('upload-offset')).toBe(String(half))
    expect((await takes()).length).toBe(0)
    expect(
      (
        await at.world.teacher.call('PATCH', begun, new Uint8Array(bytes.subarray(half)), {
          ...part,
          'upload-offset': String(half),
        })
      ).status,
    ).toBe(204)
    expect((await takes()).length).toBe(1)
  })
  test('on a disk with no room left it is refused at its start', async () => {
    const { config } = at.app
    const before = config.diskReserve
    Object.assign(config, { diskReserve: Number.MAX_SAFE_INTEGER })
    const r = await upload(film('full', ['hello']))
    Object.assign(config, { diskReserve: before })
    expect(r.status).toBe(507)
    expect(r.body.detail).toMatch(/kept/)
  })
  test('to a segment that is gone is refused', async () =>
    expect((await upload(film('gone', ['hello']), 'nowhere')).status).toBe(404))
})

describe('a take', () => {
  test('read as written gives no slip; with a number left out it is found at its time', async () => {
    const said = linesOf(show)
    await upload(film('whole', said))
    await upload(
      film(
        'short',
        said.map((l) => (l.startsWith('one, two') ? l.replace('four, ', '') : l)),
      ),
    )
    await workThrough('take')
    const [, whole, short] = (await takes()).filter((t) => t.segmentId === show.id)
    expect(
      whole!.hearing!.findings.filter((f) => f.code !== 'wait-short' && f.code !== 'answer-early'),
    ).toEqual([])
    const skip = short!.hearing!.findings.filter((f) => f.code.startsWith('count') && f.certain)
    expect(skip.map((f) => [f.code, f.expected])).toEqual([['count-skip', '4']])
    const three = short!.hearing!.words.find((w) => w.word === 'three')!
    expect(Math.abs(skip[0]!.start - three.end)).toBeLessThan(0.5)
    expect(
      (await probe(
        at.app.blobs.path(
          (await at.app.pool.query<{ film: string }>('select film from takes where id = $1', [whole!.id]))
            .rows[0]!.film,
        ),
      ))!.video,
    ).toEqual({ width: 1280, height: 720 })
  })
  test('without sound is ready, plays, and says there is nothing to hear', async () => {
    const mute = path.join(dir, 'mute.mp4')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=30:d=2',
      '-pix_fmt',
      'yuv420p',
      mute,
    ])
    await upload(mute, hook.id)
    await workThrough('take')
    expect((await takes()).find((t) => t.segmentId === hook.id)).toMatchObject({
      status: 'ready',
      hasSound: false,
      hearing: null,
    })
  })
  test('of silence says that nothing was heard', async () => {
    const silent = path.join(dir, 'silent.mp4')
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=320x240:r=30:d=3',
      '-f',
      'lavfi',
      '-i',
      'anullsrc=r=48000',
      '-shortest',
      '-pix_fmt',
      'yuv420p',
      silent,
    ])
    await upload(silent, hook.id)
    await workThrough('take')
    const t = (await takes()).filter((x) => x.segmentId === hook.id)[1]!
    expect(t.hearing!.findings.map((f) => told('take', f))).toEqual(['Nothing was heard in this take.'])
  })
})

describe('clips from a phone', () => {
  test('the same file twice is one take, and the second sender is told which', async () => {
    const file = film('twice', ['Hello there, this is said only here'])
    const first = await upload(file)
    const before = (await takes()).length
    const again = await upload(file, null)
    expect([idOf(again), again.headers.get('awlbox-known')]).toEqual([idOf(first), '1'])
    expect((await takes()).length).toBe(before)
  })
  test('a clip is given to its segment by what is said in it, with the words that told', async () => {
    const id = idOf(await upload(film('sorted', linesOf(show), 1.3), null))
    expect((await take(id))!.segmentId).toBeNull()
    await prepare(id)
    const t = (await take(id))!
    expect(t.segmentId).toBe(show.id)
    expect(t.name).toBe('a.mp4')
    expect(t.sorting!.reason).toContain(show.title)
    expect(
      t.hearing!.findings.filter((f) => f.code.startsWith('count') || f.code === 'line-skipped'),
    ).toEqual([])
  })
  test('one that says something else waits in the tray with the reason, until a person gives it to a segment', async () => {
    const id = idOf(
      await upload(
        film('other', [
          'The recipe needs two eggs and a little butter',
          'Stir it well and bake it for half an hour',
        ]),
        null,
      ),
    )
    await prepare(id)
    expect(await take(id)).toMatchObject({
      segmentId: null,
      status: 'ready',
      hearing: null,
      sorting: { byHand: false, reason: expect.stringMatching(/Hardly|Only/) as string },
    })
    expect(
      (await at.world.teacher.call('PUT', `/api/takes/${id}/segment`, { segmentId: 'nowhere' })).status,
    ).toBe(409)
    expect(
      (await at.world.teacher.call('PUT', `/api/takes/${id}/segment`, { segmentId: show.id })).status,
    ).toBe(200)
    expect(await take(id)).toMatchObject({ segmentId: show.id, sorting: { byHand: true } })
    await prepare(id)
    expect((await take(id))!.hearing!.note).toMatch(/another segment/)
  })
  test('a recording of two segments becomes a take of each, and nothing twice when it is begun again', async () => {
    const id = idOf(await upload(film('both', [...linesOf(hook), ...linesOf(together)]), null))
    await prepare(id)
    const parts = (await takes()).filter((t) => t.part).sort((a, b) => a.part!.from - b.part!.from)
    expect(parts.map((t) => t.segmentId)).toEqual([hook.id, together.id])
    expect(await take(id)).toBeUndefined()
    expect(parts[1]!.part!.from).toBeCloseTo(parts[0]!.part!.to)
    for (const p of parts) await prepare(p.id)
    for (const p of parts) {
      const done = (await take(p.id))!
      expect(done.seconds).toBeCloseTo(p.part!.to - p.part!.from, 0)
      expect(done.hearing!.findings.filter((f) => f.code === 'line-skipped')).toEqual([])
    }
  })
  test('HEVC, lying on its side, at a changing rate: upright, whole, at thirty frames a second', async () => {
    const [lying, clip] = [path.join(dir, 'lying.mov'), path.join(dir, 'phone.mp4')]
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-f',
      'lavfi',
      '-i',
      'testsrc=s=640x360:r=30:d=4',
      '-f',
      'lavfi',
      '-i',
      'sine=220:d=4',
      '-vf',
      "select='not(mod(n,3))+lt(n,40)'",
      '-vsync',
      'vfr',
      '-c:v',
      'libx265',
      '-preset',
      'ultrafast',
      '-x265-params',
      'log-level=error',
      '-tag:v',
      'hvc1',
      '-pix_fmt',
      'yuv420p',
      '-c:a',
      'aac',
      lying,
    ])
    execFileSync('ffmpeg', [
      '-v',
      'error',
      '-y',
      '-i',
      lying,
      '-c',
      'copy',
      '-metadata:s:v',
      'rotate=90',
      clip,
    ])
    const id = idOf(await upload(clip, hook.id))
    await prepare(id)
    const film = at.app.blobs.path(
      (await at.app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!.film!,
    )
    expect(await probe(film)).toMatchObject({ video: { width: 1280, height: 720 }, frames: 120 })
    // Upright it is a narrow picture in the middle: at the sides lies the plain ground.
    const [r, g, b] = execFileSync('ffmpeg', [
      '-v',
      'error',
      '-ss',
      '1',
      '-i',
      film,
      '-frames:v',
      '1',
      '-vf',
      'crop=2:2:40:360',
      '-f',
      'rawvideo',
      '-pix_fmt',
      'rgb24',
      'pipe:1',
    ])
    expect([r, g, b].map((x) => Math.abs(x! - 233) < 8)).toEqual([true, true, true])
  })
  test('a recording straight through is parted where the prompter went on', async () => {
    const id = idOf(
      await upload(film('straight', ['Hello from here for a while', 'And now something else again']), null),
    )
    await at.world.teacher.call('PUT', `/api/takes/${id}/marks`, {
      marks: [
        { kind: 'segment', at: 0, segmentId: hook.id },
        { kind: 'slip', at: 1 },
        { kind: 'segment', at: 2.5, segmentId: show.id },
      ],
    })
    await prepare(id)
    const parts = (await at.app.db.select().from(takeTable)).filter(
      (t) => t.part && t.part.to < 20 && t.sorting?.reason.includes('prompter'),
    )
    expect(parts.map((t) => [t.segmentId, t.part!.from])).toEqual([
      [hook.id, 0],
      [show.id, 2.5],
    ])
    expect(parts[0]!.marks).toEqual([{ kind: 'slip', at: 1, by: 'key' }])
  })
  test('marks that come after it was sorted part it all the same', async () => {
    const id = idOf(
      await upload(film('late', ['Good evening to all of you', 'Here is another matter']), null),
    )
    await prepare(id)
    expect((await take(id))!.segmentId).toBeNull()
    const { original } = (await at.app.db.select().from(takeTable).where(eq(takeTable.id, id)))[0]!
    await at.world.teacher.call('PUT', `/api/takes/${id}/marks`, {
      marks: [
        { kind: 'segment', at: 0, segmentId: hook.id },
        { kind: 'segment', at: 2.5, segmentId: show.id },
      ],
    })
    await workThrough('take')
    const parts = (await at.app.db.select().from(takeTable)).filter((t) => t.original === original)
    expect(parts.map((t) => t.segmentId).sort()).toEqual([hook.id, show.id].sort())
  })
})

describe('a teacher’s own pace', () => {
  test('the paces heard so far are the teacher’s own, and drive the clock', async () => {
    const { pace } = (await at.world.teacher.call('GET', '/api/me')).body as { pace: number | null }
    expect(pace).toBeGreaterThan(60)
    expect(pace).toBeLessThan(260)
  })
})
