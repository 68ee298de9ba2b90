import { describe, expect, test } from 'vitest'
import { decodeText } from './decode.ts'

describe('a file of text, from whatever program', () => {
  const letters = 'Inés;Zoë'
  test.each([
    ['UTF-8', new TextEncoder().encode(letters), null],
    ['UTF-8 with a mark', Uint8Array.from([0xef, 0xbb, 0xbf, ...new TextEncoder().encode(letters)]), null],
    ['Windows', Uint8Array.from([...letters].map((c) => c.charCodeAt(0))), /older/],
    ['UTF-16', Uint8Array.from([0xff, 0xfe, ...[...letters].flatMap((c) => [c.charCodeAt(0), 0])]), /UTF-16/],
    [
      'UTF-16 the other way',
      Uint8Array.from([0xfe, 0xff, ...[...letters].flatMap((c) => [0, c.charCodeAt(0)])]),
      /UTF-16/,
    ],
  ])('%s', (_name, bytes, as) => {
    const d = decodeText(bytes)
    expect(d.text).toBe(letters)
    if (as) expect(d.as).toMatch(as)
    else expect(d.as).toBeNull()
  })
})
