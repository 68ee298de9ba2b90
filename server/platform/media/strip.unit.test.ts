import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { fileTypeFromFile } from 'file-type'
import { afterAll, describe, expect, test } from 'vitest'
import { stripMedia } from './strip.ts'

const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'strip-'))
afterAll(() => fs.rmSync(folder, { recursive: true }))
const told = [
  'title=Weir Lane kitchen',
  'comment=Weir Lane kitchen',
  'artist=Weir Lane',
  'location=+51.5074-000.1278/',
  'make=Weir Lane phone',
  'model=Weir Lane 7',
]
const made = (name: string, args: string[]): string => {
  const file = path.join(folder, name)
  execFileSync('ffmpeg', [
    '-v',
    'error',
    '-y',
    '-f',
    'lavfi',
    '-i',
    'testsrc2=s=160x90:r=10:d=1',
    '-f',
    'lavfi',
    '-i',
    'sine=d=1',
    ...told.flatMap((t) => ['-metadata', t]),
    ...args,
    file,
  ])
  return file
}
/** Every picture and every stretch of sound, as hashes. */
const content = (file: string): string =>
  execFileSync('ffmpeg', ['-v', 'error', '-i', file, '-f', 'framemd5', '-'], { encoding: 'utf8' })
    .split('\n')
    .filter((l) => !l.startsWith('#'))
    .join('\n')

describe.each([
  ['phone.mp4', ['-shortest', '-movflags', 'use_metadata_tags']],
  ['fast.mp4', ['-shortest', '-movflags', '+faststart']],
  ['camera.mov', ['-shortest', '-movflags', 'use_metadata_tags']],
  ['parts.mp4', ['-shortest', '-movflags', 'frag_keyframe+empty_moov']],
  ['browser.webm', ['-shortest', '-c:v', 'libvpx', '-c:a', 'libopus']],
  ['other.mkv', ['-shortest']],
  ['talk.wav', ['-map', '1:a']],
  ['talk.mp3', ['-map', '1:a']],
  ['talk.ogg', ['-map', '1:a', '-c:a', 'libopus']],
  ['talk.m4a', ['-map', '1:a']],
] as [string, string[]][])('%s', (name, args) => {
  test('tells nothing of where, by what and as what it was made, and shows and sounds the same', async () => {
    const file = made(name, args)
    expect(fs.readFileSync(file).includes('Weir Lane')).toBe(true)
    const before = content(file)
    const bare = await stripMedia(file, (await fileTypeFromFile(file))!.mime, folder)
    const bytes = fs.readFileSync(bare)
    expect([bytes.includes('Weir Lane'), bytes.includes('51.5074')]).toEqual([false, false])
    expect(content(bare)).toBe(before)
    // Once more changes nothing: the same file sent twice stays the same file.
    expect(
      fs.readFileSync(await stripMedia(file, (await fileTypeFromFile(file))!.mime, folder)).equals(bytes),
    ).toBe(true)
  })
})
test('a file cut off, or of boxes within boxes that lie about their size, is left standing', async () => {
  const whole = made('cut.mp4', ['-shortest'])
  const cut = path.join(folder, 'half.mp4')
  fs.writeFileSync(cut, fs.readFileSync(whole).subarray(0, 3000))
  await stripMedia(cut, 'video/mp4', folder)
  expect(fs.statSync(cut).size).toBe(3000)
  const liar = Buffer.alloc(64)
  liar.writeUInt32BE(0xffffffff, 0)
  liar.write('moov', 4)
  fs.writeFileSync(cut, liar)
  await stripMedia(cut, 'video/mp4', folder)
  expect(fs.readFileSync(cut).equals(liar)).toBe(true)
})
