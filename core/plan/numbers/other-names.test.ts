import { describe, expect, test } from 'vitest'
import { readTypedNumber } from '../../look/typed-number.ts'
import { parseOtherNumber } from './other-names.ts'

describe('number words of other languages', () => {
  test.each<[string, number]>([
    ['siete', 7],
    ['dieciséis', 16],
    ['dieciseis', 16],
    ['veintitrés', 23],
    ['treinta y uno', 31],
    ['cien', 100],
    ['siedem', 7],
    ['sześć', 6],
    ['szesc', 6],
    ['czternaście', 14],
    ['dwadzieścia jeden', 21],
    ['dwie', 2],
    ['سبعة', 7],
    ['أربعة', 4],
    ['ثلاثة عشر', 13],
    ['أحد عشر', 11],
    ['واحد وعشرون', 21],
    ['خمسة و ثلاثون', 35],
    ['مئة', 100],
    ['SIETE', 7],
  ])('%s is %i', (text, n) => expect([parseOtherNumber(text), readTypedNumber(text)]).toEqual([n, n]))
  test.each([
    'siete siete',
    'veinte treinta',
    'dos tres',
    'y',
    'muchos',
    'veintiveinte',
    'dwa trzy cztery',
    '',
  ])('“%s” is no number', (text) => expect(parseOtherNumber(text)).toBeNull())
  test('no word of theirs is taken for an English one', () => {
    for (const [text, n] of [
      ['seven', 7],
      ['eleven', 11],
      ['once', 11],
      ['sto', 100],
    ] as const)
      expect(readTypedNumber(text)).toBe(n)
  })
})
