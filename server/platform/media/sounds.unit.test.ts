import fs from 'node:fs'
import { describe, expect, test } from 'vitest'
import { rhymes, soundAlike } from '@awlbox/core/film/ear/sounds'

/** Kindred phones of the dictionary: a slip from one to another is half of one to any other. */
const kin = [
  'P B',
  'T D',
  'K G',
  'F V TH DH',
  'S Z SH ZH CH JH',
  'M N NG',
  'L R W Y',
  'HH',
  'IY IH EY',
  'EH AE',
  'AA AO AH OW',
  'UW UH',
  'AY',
  'AW',
  'OY',
  'ER',
].map((row) => new Set(row.split(' ')))
const isVowel = (p: string): boolean => 'AEIOU'.includes(p[0]!)
const differs = (a: string, b: string): number =>
  a === b ? 0 : kin.some((k) => k.has(a) && k.has(b)) ? 0.5 : isVowel(a) === isVowel(b) ? 1 : 1.5
function apart(a: readonly string[], b: readonly string[]): number {
  let row = Array.from({ length: b.length + 1 }, (_, j) => j)
  for (const x of a) {
    const next = [row[0]! + 1]
    b.forEach((y, j) => next.push(Math.min(row[j]! + differs(x, y), row[j + 1]! + 1, next[j]! + 1)))
    row = next
  }
  return row.at(-1)!
}
const dictionary = new Map<string, string[][]>()
for (const line of fs
  .readFileSync('/usr/share/pocketsphinx/model/en-us/cmudict-en-us.dict', 'utf8')
  .split('\n')) {
  const m = line.match(/^(\S+?)(?:\(\d\))? (.*)$/)
  if (m) dictionary.set(m[1]!, [...(dictionary.get(m[1]!) ?? []), m[2]!.split(' ')])
}
const between = (a: string, b: string): number =>
  Math.min(...(dictionary.get(a) ?? []).flatMap((x) => (dictionary.get(b) ?? []).map((y) => apart(x, y))))

describe('what is taken for one another by ear is near in the model’s own dictionary', () => {
  test.each(Object.entries(rhymes))('%s and %s', (word, number) =>
    expect(between(word, number)).toBeLessThanOrEqual(2),
  )
  // What the dictionary does not hold (nought) is said by spelling rules, and cannot be held against it.
  const rows = soundAlike.map((row) => row.filter((w) => dictionary.has(w))).filter((row) => row.length > 1)
  test.each(rows.map((row) => [row.join(', '), row] as const))('%s', (_, row) => {
    for (const word of row)
      expect([word, Math.min(...row.filter((x) => x !== word).map((x) => between(word, x))) <= 2]).toEqual([
        word,
        true,
      ])
  })
  test('and not everything is: the measure tells words apart', () => {
    expect(between('six', 'share')).toBeGreaterThan(2)
    expect(between('seven', 'eleven')).toBeLessThanOrEqual(2)
    expect(between('parcel', 'basket')).toBeGreaterThan(2)
  })
})
