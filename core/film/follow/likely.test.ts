import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import type { HeardWord } from '../../contracts/heard.ts'
import { seeded } from '../../plan/seeded.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { hear } from '../judge/heard.ts'
import { likelySaid } from './likely.ts'

const at = (words: readonly string[]): HeardWord[] =>
  words.map((word, k) => ({ word, start: k * 0.4, end: k * 0.4 + 0.3, confidence: 0.9 }))
const lines = (...texts: string[]) => texts.map((t) => ({ words: t.split(' ') }))

describe('how likely each line was said, over all paths', () => {
  test('said as written: all of each', () => {
    for (const share of likelySaid(
      lines('put five on the plate', 'put six on the plate'),
      at('put five on the plate put six on the plate'.split(' ')),
    ))
      expect(share).toBeGreaterThan(0.95)
  })
  test('one left out of two alike: the one that was said by far', () => {
    const [five, six] = likelySaid(
      lines('put five on the plate', 'put six on the plate'),
      at('put six on the plate'.split(' ')),
    )
    expect(six).toBeGreaterThan(0.9)
    expect(five).toBeLessThan(0.1)
  })
  test('the word that tells them apart is lost: either', () => {
    const shares = likelySaid(
      lines('put five on the plate', 'put six on the plate'),
      at('put on the plate'.split(' ')),
    )
    for (const s of shares) expect(s).toBeGreaterThan(0.2)
  })
  test('gone back over: both lines, from the start', () => {
    for (const s of likelySaid(
      lines('bobbin has seven parcels', 'where are they all'),
      at('bobbin has seven bobbin has seven parcels where are they all'.split(' ')),
    ))
      expect(s).toBeGreaterThan(0.9)
  })
  test('nothing heard, or nothing written', () => {
    expect(likelySaid(lines('one two'), [])).toEqual([0])
    expect(likelySaid([], at(['one']))).toEqual([])
  })
  test('a long script of which the first line alone was said', () => {
    const many = Array.from({ length: 120 }, (_, k) => `line number ${k} of the long script`)
    const shares = likelySaid(lines(...many), at(many[0]!.split(' ')))
    expect(shares[0]).toBeGreaterThan(0.9)
    expect(Math.max(...shares.slice(1))).toBeLessThan(0.1)
  })
})

describe('lines that resemble each other, with words lost and misheard', () => {
  const kinds = [
    ['put # on the plate', ['five', 'six', 'two', 'three', 'four', 'nine']],
    ['bobbin stops at the # door', ['red', 'blue', 'green', 'white', 'black', 'brown']],
    ['now take # out of the box', ['one', 'two', 'four', 'seven', 'eight', 'three']],
  ] as const
  const stray = ['the', 'a', 'and', 'of', 'so', 'there', 'he', 'in']
  /** Sixty lessons at one share of lost words: how many lines left out are named surely, and how many others. */
  function tried(lost: number): { asked: number; right: number; wrong: number } {
    const drawn = seeded(Math.round(lost * 100) + 1)
    const random = (): number => drawn(10_000) / 10_000
    const pick = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
    const out = { asked: 0, right: 0, wrong: 0 }
    for (let n = 0; n < 60; n++) {
      const [main, other] = [pick(kinds), pick(kinds)]
      const written = [
        ...new Set(
          main[1].flatMap((w) => [
            main[0].replace('#', w),
            ...(random() < 0.4 ? [other[0].replace('#', pick(other[1]))] : []),
          ]),
        ),
      ]
      const gone = Math.floor(random() * written.length)
      let now = 0.5
      const words = written.flatMap((line, k) => {
        if (k === gone) return []
        const said = line.split(' ').flatMap((word): HeardWord[] => {
          const dice = random()
          now += 0.3
          if (dice < lost / 2) return []
          const misheard = dice < lost
          return [
            {
              word: misheard ? pick(stray) : word,
              start: now - 0.3,
              end: now - 0.05,
              confidence: misheard ? 0.4 : 0.9,
            },
          ]
        })
        now += 1.2
        return said
      })
      let id = 0
      const { lesson } = fromMarkdown(
        `# P\n\n## S {show}\n${written.map((l) => `Say: ${l}.`).join('\n')}`,
        () => `s${(id += 1)}`,
      )
      const heard = hear(lesson.segments[0]!, words, now + 1, { style: defaultHouseStyle, age: 5 })
      const sure = heard.findings.filter((f) => f.code === 'line-skipped' && f.certain)
      out.asked += 1
      out.right += sure.filter((f) => f.expected === `${written[gone]!}.`).length
      out.wrong += sure.filter((f) => f.expected !== `${written[gone]!}.`).length
    }
    return out
  }
  test('every word heard: each line left out is named, and no other', () =>
    expect(tried(0)).toEqual({ asked: 60, right: 60, wrong: 0 }))
  test.each([
    [0.15, 30],
    [0.3, 24],
  ])(
    'with a share of %f lost at most one in sixty is named wrongly, and still many rightly',
    (lost, atLeast) => {
      const { right, wrong } = tried(lost)
      expect(wrong).toBeLessThanOrEqual(1)
      expect(right).toBeGreaterThanOrEqual(atLeast)
    },
  )
})
