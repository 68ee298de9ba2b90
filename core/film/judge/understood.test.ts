import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import { type HeardWord, plainCodes } from '../../contracts/heard.ts'
import { sayUnderstood } from '../../findings/understood.ts'
import { lessonOf } from '../../cut/test-words.ts'
import { captionWords, readCaptions } from '../desk/captions.ts'
import { hear } from './heard.ts'
import { understand, understandCaptions, withAdvice } from './understood.ts'

const segment = lessonOf(
  '# Post\n\n## Show {show}\nSay: Bobbin has seven parcels.\nCount: 1 to 7\nSay: Four and three make seven.\n',
).segments[0]!
const right = 'bobbin has seven parcels one two three four five six seven four and three make seven'
/** Words at a steady pace, each sounding for as long as it takes, heard with a confidence. */
const heardAs = (text: string, confidence: number, from = 0.5): HeardWord[] =>
  text.split(' ').map((word, i) => ({ word, start: from + i * 0.5, end: from + i * 0.5 + 0.4, confidence }))
const sounding = (words: readonly HeardWord[]) => words.map((w) => ({ from: w.start, to: w.end }))
const taken = (words: readonly HeardWord[], advice: Parameters<typeof withAdvice>[1] = []) =>
  hear(segment, words, words.at(-1)!.end + 1, {
    style: defaultHouseStyle,
    age: 4,
    voiced: sounding(words),
    advice,
  })
const slips = (h: ReturnType<typeof taken>) => h.findings.filter((f) => !plainCodes.has(f.code))

describe('a take', () => {
  test('read as written and clearly heard is understood', () => {
    const h = taken(heardAs(right, 0.95))
    expect([h.understood!.how, slips(h)]).toEqual(['understood', []])
  })
  test('in which the right words were guessed at is not passed as understood', () =>
    expect(taken(heardAs(right, 0.3)).understood!.how).not.toBe('understood'))
  test('that was guessed at is worth less than one with a slip that was clearly heard', () =>
    expect(taken(heardAs(right, 0.3)).quality).toBeLessThan(
      taken(heardAs(right.replace(' five six', ' six'), 0.95)).quality,
    ))
  test('of other talk is not understood, however sure each word was', () => {
    const other = 'we went to the shop and got a big red box for her and then we came home again'
    expect(taken(heardAs(other, 0.8)).understood!.how).not.toBe('understood')
  })
  test('half of which makes no words is understood in part, with where', () => {
    const words = heardAs(right, 0.95)
    const noise = Array.from({ length: 12 }, (_, i) => ({ from: 12 + i * 0.5, to: 12.4 + i * 0.5 }))
    const u = understand(words, [...sounding(words), ...noise], [])
    expect(u.stretches.at(-1)).toMatchObject({ how: 'not understood' })
    expect(u.how).not.toBe('understood')
  })
  test('a slip is certain where its stretch was understood, and a doubt where it was not', () => {
    const skipped = right.replace(' five six', ' six')
    const clear = slips(taken(heardAs(skipped, 0.95)))
    const muddy = slips(taken(heardAs(skipped, 0.35)))
    expect(clear.map((f) => [f.code, f.certain])).toEqual([['count-skip', true]])
    expect(muddy.length).toBeGreaterThan(0)
    expect(muddy.every((f) => !f.certain)).toBe(true)
  })
  test.each(['telephone', 'cut off'] as const)(
    'with sound that is %s is never passed, and tells no slip for certain',
    (advice) => {
      const h = taken(heardAs(right.replace(' five six', ' six'), 0.95), [advice])
      expect(h.understood!.how).toBe('partly')
      expect(slips(h).every((f) => !f.certain)).toBe(true)
      expect(sayUnderstood(h.understood!)).toHaveLength(2)
    },
  )
  test('with nothing sounding leaves nothing to understand', () =>
    expect(understand([], [], null)).toMatchObject({ how: 'understood', stretches: [] }))
})

describe('captions', () => {
  const words = (text: string) => captionWords(readCaptions(`WEBVTT\n\n00:00.000 --> 00:09.000\n${text}\n`))
  test.each([
    'Put five buttons on the plate and count them with me: one, two, three, four, five.',
    'Bobbin has seven parcels. How many go on the top shelf?',
  ])('in English are understood: %s', (text) =>
    expect(understandCaptions(words(text), null).how).toBe('understood'),
  )
  test.each([
    'Legg fem knapper på tallerkenen og tell sammen med meg.',
    'Zxq wvrt plmk qqs trrn vbbl kkst prrf.',
  ])('in another language, or none, are not: %s', (text) =>
    expect(understandCaptions(words(text), null).how).not.toBe('understood'),
  )
})
