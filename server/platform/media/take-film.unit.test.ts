import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { probe } from './ffmpeg.ts'
import { toTakeFilm } from './take-film.ts'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-take-film-test-'))
afterAll(() => fs.rmSync(folder, { recursive: true, force: true }))
const ff = (...args: string[]) =>
  execFileSync('ffmpeg', ['-v', 'error', '-y', ...args], { cwd: folder, encoding: 'utf8', stdio: 'pipe' })
/** What every frame shows, one line each: coded again, no line stays the same. */
const framesOf = (file: string): string[] =>
  ff('-i', file, '-map', '0:v:0', '-fps_mode', 'passthrough', '-f', 'framemd5', '-')
    .split('\n')
    .filter((l) => /^\d/.test(l))
    .map((l) => l.split(',').at(-1)!.trim())
const coded = '-c:v libx264 -preset ultrafast -g 60 -pix_fmt yuv420p -c:a aac -b:a 64k'.split(' ')
/** A clip of a picture that moves with a tone; `picture` and `after` as ffmpeg wants them. */
function clip(name: string, picture: string, after: string[] = [], sound = 1): string {
  ff(
    ...['-f', 'lavfi', '-i', picture, '-f', 'lavfi', '-i', `sine=f=400:d=${sound}`],
    ...coded,
    ...after,
    name,
  )
  return path.join(folder, name)
}
async function taken(source: string) {
  const out = path.join(folder, `take-${path.basename(source)}.mp4`)
  await toTakeFilm(source, out, (await probe(source))!, {})
  return { out, made: (await probe(out))!, same: framesOf(out).join() === framesOf(source).join() }
}

describe('a clip made a take', () => {
  test('is taken over to the frame when it is as a take is, without what a camera wrote between the pictures', async () => {
    const secret = '-bsf:v h264_metadata=sei_user_data=086f3693-b7b3-4f2c-9653-21492feee5b8+WeirLane'.split(
      ' ',
    )
    const source = clip('alike.mp4', 'testsrc2=s=1280x720:r=30:d=1', [...secret, '-metadata', 'title=Weir'])
    expect(fs.readFileSync(source).includes('WeirLane')).toBe(true)
    const { out, made, same } = await taken(source)
    expect(same).toBe(true)
    expect(made).toMatchObject({ frames: 30, video: { width: 1280, height: 720 }, audio: true })
    expect(made.seconds).toBeCloseTo(1, 1)
    expect(fs.readFileSync(out).includes('WeirLane')).toBe(false)
    expect(fs.readFileSync(out).includes('title')).toBe(false)
  })
  test('whose sound ends before its picture is silent to its end; where it goes on the last picture stays', async () => {
    const short = await taken(clip('short.mp4', 'testsrc2=s=1280x720:r=30:d=1', [], 0.5))
    expect(short.same).toBe(true)
    expect(short.made.seconds).toBeCloseTo(1, 1)
    const long = await taken(clip('long.mp4', 'testsrc2=s=1280x720:r=30:d=1', [], 2))
    expect(long.same).toBe(false)
    expect(long.made.frames).toBe(60)
  })
  test.each([
    ['of another rate', 'testsrc2=s=1280x720:r=25:d=1', []],
    ['of another size', 'testsrc2=s=960x720:r=30:d=1', []],
    ['whose rate changes', "testsrc2=s=1280x720:r=30:d=1,select='not(eq(mod(n,7),3))'", ['-fps_mode', 'vfr']],
    ['with few whole pictures', 'testsrc2=s=1280x720:r=30:d=3', ['-g', '300', '-sc_threshold', '0']],
    ['of ten bits a colour', 'testsrc2=s=1280x720:r=30:d=1', ['-pix_fmt', 'yuv420p10le']],
    ['too heavy for homes', 'nullsrc=s=1280x720:r=30:d=1,geq=random(1)*255:128:128', ['-qp', '12']],
    [
      'on its side',
      'testsrc2=s=1280x720:r=30:d=1',
      ['-bsf:v', 'h264_metadata=rotate=90:display_orientation=insert'],
    ],
  ])('%s is coded anew, as long as it was', async (_what, picture, after) => {
    const { made, same } = await taken(clip(`other${_what.length}.mp4`, picture, after))
    expect(same).toBe(false)
    expect(made.frames).toBe(picture.includes('d=3') ? 90 : 30)
    expect(made.video).toEqual({ width: 1280, height: 720 })
  })
  test('that is damaged in its middle is coded anew, so that what is made of it is whole', async () => {
    const source = clip('whole.mp4', 'testsrc2=s=1280x720:r=30:d=1')
    const bytes = fs.readFileSync(source)
    bytes.fill(0x5a, Math.round(bytes.length * 0.4), Math.round(bytes.length * 0.45))
    const broken = path.join(folder, 'broken.mp4')
    fs.writeFileSync(broken, bytes)
    const { out, made } = await taken(broken)
    expect(made.frames).toBe(30)
    expect(ff('-xerror', '-i', out, '-f', 'null', '-')).toBe('')
  })
})
