import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { HouseStyle } from '../../contracts/house-style.ts'
import type { Example } from '../../contracts/lesson.ts'
import { spokenLines } from '../../film/follow/spoken.ts'
import { simulate } from '../../script/simulate.ts'
import { isTrue, sentencesIn } from '../../script/sentence.ts'
import { leftOn, type TableState } from '../../script/table/state.ts'
import { strategyIds, waysToWork, type Worked } from './strategies.ts'

const played = (w: Worked) =>
  simulate({
    segments: [
      {
        id: 's',
        title: 'A',
        kind: 'show',
        audience: 'children',
        steps: w.lines.map((l, i) => ({ id: `s${i}`, ...l })),
      },
    ],
  })
function answerOn(table: TableState, w: Worked): number {
  switch (w.shown) {
    case 'left':
      return leftOn(table)
    case 'line':
      return table.mats.find((m) => m.line)!.line!.at!
    case 'hops':
      return table.mats.find((m) => m.line)!.line!.hops.reduce((s, h) => s + Math.abs(h.to - h.from), 0)
    case 'plate':
      return table.mats.find((m) => m.kind === 'plates')?.regions[0]!.things.length ?? w.answer
    case 'unmatched':
      return Math.abs(table.mats[0]!.regions[0]!.things.length - table.mats[0]!.regions[1]!.things.length)
    case 'written': {
      const last = sentencesIn(table.written.at(-1)!)[0]!
      return last.right[0]!.value!
    }
  }
}
const range: Example[] = []
for (let a = 0; a <= 40; a++) for (let b = 0; a + b <= 60; b++) range.push({ a, b, total: a + b, op: '+' })
for (let a = 0; a <= 99; a++) for (let b = 0; b <= a; b++) range.push({ a, b, total: a - b, op: '-' })
for (let a = 0; a <= 20; a++)
  for (let b = 0; b <= 20; b++) range.push({ a, b, total: Math.abs(a - b), op: '~' })
for (let a = 0; a <= 30; a++)
  for (let b = 2; b <= 6; b++) range.push({ a, b, total: Math.floor(a / b), op: '÷' })
for (let a = 0; a <= 99; a++) range.push({ a, b: 0, total: a, op: '#' })

// Every fact to twenty, and every fifth of the larger ones: they differ in nothing but their size.
const all = range.filter((e, i) => Math.max(e.a, e.b) <= 20 || i % 5 === 0)

describe('every way of working', () => {
  test('ends at the right answer over its whole range, and the table never refuses it', () => {
    const met = new Set<string>()
    for (const e of all)
      for (const w of waysToWork(e, HouseStyle.parse({}))) {
        met.add(w.id)
        const moments = played(w)
        const bad = moments.find((m) => m.error || m.unread)
        expect(
          bad && `${w.id} ${e.a}${e.op}${e.b}: ${bad.step.text} ${bad.error?.code ?? 'unread'}`,
        ).toBeUndefined()
        expect([w.id, e.a, e.op, e.b, answerOn(moments.at(-1)!.after, w)]).toEqual([
          w.id,
          e.a,
          e.op,
          e.b,
          e.total,
        ])
        for (const m of moments)
          for (const s of sentencesIn(m.step.text))
            expect([m.step.text, isTrue(s)]).toEqual([m.step.text, true])
      }
    expect([...met].sort()).toEqual([...strategyIds].sort())
  }, 60_000)
  test('hops told apart from the table are the hops on it', () => {
    fc.assert(
      fc.property(fc.constantFrom(...all.filter((e) => e.op !== '÷')), (e) => {
        for (const w of waysToWork(e, HouseStyle.parse({}))) {
          if (!w.hops.length) continue
          const on = played(w)
            .at(-1)!
            .after.mats.find((m) => m.line)!.line!.hops
          expect(on.at(-1)!.to).toBe(w.hops.at(-1)!.to)
          expect(on[0]!.from).toBe(w.hops[0]!.from)
        }
      }),
      { numRuns: 300 },
    )
  })
})

test('easiest comes first, unless the learner chooses', () => {
  const e: Example = { a: 8, b: 5, total: 13, op: '+' }
  const rungs = (style: Partial<HouseStyle>) => waysToWork(e, HouseStyle.parse(style)).map((w) => w.rung)
  expect(rungs({})[0]).toBe('things')
  expect(rungs({}).join()).toBe(
    [...rungs({})]
      .sort(
        (a, b) =>
          ['things', 'picture', 'track', 'head'].indexOf(a) -
          ['things', 'picture', 'track', 'head'].indexOf(b),
      )
      .join(),
  )
  expect(
    waysToWork(e, HouseStyle.parse({ strategyOrder: 'learner' }))
      .map((w) => w.id)
      .sort(),
  ).toEqual(
    waysToWork(e, HouseStyle.parse({}))
      .map((w) => w.id)
      .sort(),
  )
})
test('the house says where counting on begins', () => {
  const counts = (countingOn: 'held' | 'next') => {
    const style = HouseStyle.parse({ countingOn })
    const w = waysToWork({ a: 5, b: 2, total: 7, op: '+' }, style).find((x) => x.id === 'count-on')!
    return spokenLines(played(w)[0]!.segment, style).find((l) => l.numbers)!.words
  }
  expect(counts('held')).toEqual(['five', 'six', 'seven'])
  expect(counts('next')).toEqual(['six', 'seven'])
})
test('the house words stand in what is said', () => {
  const said = (style: Partial<HouseStyle>) =>
    waysToWork({ a: 62, b: 19, total: 43, op: '-' }, HouseStyle.parse(style))
      .flatMap((w) => w.lines.map((l) => l.text))
      .join(' ')
  expect(said({})).toContain('ixty-two take away nineteen equals forty-three')
  expect(said({ takeAway: 'minus', equals: 'makes' })).toContain('ixty-two minus nineteen makes forty-three')
})
test('62 − 19 is 62 − 20 + 1', () => {
  const w = waysToWork({ a: 62, b: 19, total: 43, op: '-' }, HouseStyle.parse({})).find(
    (x) => x.id === 'round-and-back',
  )!
  expect(w.lines.find((l) => l.verb === 'write')!.text).toBe('62 − 20 + 1 = 43')
  expect(w.hops).toEqual([
    { from: 62, to: 42 },
    { from: 42, to: 43 },
  ])
})
