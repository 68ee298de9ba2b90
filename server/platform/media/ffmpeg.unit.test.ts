import http from 'node:http'
import type { AddressInfo } from 'node:net'
import { afterAll, beforeAll, describe, expect, test } from 'vitest'
import { decode, ffmpeg, ffprobe, probe } from './ffmpeg.ts'

/** A server that counts who comes. */
let asked = 0
const server = http.createServer((_, answer) => {
  asked++
  answer.end()
})
let address = ''
beforeAll(async () => {
  await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve))
  address = `http://127.0.0.1:${(server.address() as AddressInfo).port}/film.mp4`
})
afterAll(() => void server.close())

describe('whatever is named as a film', () => {
  const ways: [string, () => Promise<unknown>][] = [
    ['looked at', () => ffprobe(address, ['-show_format'])],
    ['encoded', () => ffmpeg(['-i', address, '-f', 'null', '-'])],
    [
      'encoded as a second input',
      () => ffmpeg(['-f', 'lavfi', '-i', 'color', '-i', address, '-t', '1', '-f', 'null', '-']),
    ],
    ['decoded', () => decode(address, ['-f', 'null']).ended],
  ]
  test.each(ways)('%s, nothing is fetched from anywhere', async (_, open) => {
    await expect(open()).rejects.toThrow(/whitelist|not on whitelist|Invalid argument/i)
    expect(asked).toBe(0)
  })
  test('measured, it is no film', async () => {
    expect(await probe(address)).toBeNull()
    expect(asked).toBe(0)
  })
})
