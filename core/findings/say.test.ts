import { describe, expect, test } from 'vitest'
import { cutCodes, filmCodes, scriptCodes, takeCodes } from './codes.ts'
import { say, told } from './say.ts'
import { en } from './words/en.ts'
import type { Partly, Words } from './words/language.ts'

const skipped = (numbers: number[]) =>
  ({ code: 'count-skip', params: { case: 'out', skipped: numbers, count: numbers.length } }) as const

describe('a finding in words', () => {
  test('bends to its numbers', () => {
    expect(told('take', skipped([4]))).toBe('4 is left out of the count.')
    expect(told('take', skipped([4, 5]))).toBe('4 and 5 are left out of the count.')
    expect(told('take', skipped([4, 5, 6]))).toBe('4, 5 and 6 are left out of the count.')
  })
  test('shows seconds as a clock, and values by their names', () => {
    expect(
      told('script', {
        code: 'segment-long',
        params: { title: 'Post', filmSeconds: 271, limitSeconds: 240 },
      }),
    ).toBe('“Post” runs 4:31; 4:00 is the limit.')
    expect(told('cut', { code: 'overlay-edge', params: { overlay: 'magnify' } })).toMatch(
      /^The magnifier comes/,
    )
  })
  test('says of a cut what is heard again in it as it is said of a take', () =>
    expect(told('cut', skipped([4]))).toBe(told('take', skipped([4]))))
  test('says what its repair does, with what the repair brings', () =>
    expect(
      say('script', {
        code: 'not-listed',
        params: { thing: 'egg box' },
        fix: { kind: 'list-thing', thing: 'egg box', count: 2 },
      }).fix,
    ).toBe('List 2 egg box'))
  test('that was told before there were codes’ words keeps the words it had', () =>
    expect(told('take', { code: 'pace', params: { asTold: 'Too quick.' } })).toBe('Too quick.'))
  test('with a case nobody knows, or without what its words need, is no sentence with a hole in it', () => {
    expect(() => told('take', { code: 'count-end', params: { case: 'sideways' } })).toThrow(RangeError)
    expect(() => told('take', { code: 'pace', params: {} })).toThrow(/pace/)
  })
})

describe('another language', () => {
  const german: Partly = {
    take: { 'count-skip': { when: '', what: { out: '{skipped} fehlen.', unheard: '…' } } },
    cut: { 'overlay-edge': { when: '', what: 'Der {overlay} ist zu nah.' } },
    names: { overlay: { ring: 'Kreis' } },
  }
  test('is a file beside English, with its own names and lists', () => {
    expect(say('take', skipped([4, 5]), 'de', { de: german }).what).toBe('4 und 5 fehlen.')
    expect(say('cut', { code: 'overlay-edge', params: { overlay: 'ring' } }, 'de', { de: german }).what).toBe(
      'Der Kreis ist zu nah.',
    )
  })
  test('says in English what its file has not', () =>
    expect(say('take', { code: 'pace', params: { pace: 200 } }, 'de', { de: german }).what).toBe(
      'Spoken at 200 words a minute.',
    ))
})

describe('English', () => {
  const all: [string, object, Readonly<Record<string, Words>>][] = [
    ['script', scriptCodes, en.script],
    ['take', takeCodes, en.take],
    ['cut', cutCodes, en.cut],
    ['film', filmCodes, en.film],
  ]
  test.each(all)('has words for every code of a %s, and none for codes that are gone', (_, codes, words) =>
    expect(Object.keys(words).sort()).toEqual(Object.keys(codes).sort()),
  )
  test.each(all)(
    'says when each code of a %s is told, and the same cases in all its parts',
    (_, codes, words) => {
      for (const code of Object.keys(codes)) {
        const w = words[code]!
        expect(w.when, code).toMatch(/\.$/)
        for (const part of [w.why, w.fix])
          if (typeof part === 'object' && typeof w.what === 'object')
            expect(Object.keys(part), code).toEqual(Object.keys(w.what))
      }
    },
  )
})
