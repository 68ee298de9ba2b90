import fc from 'fast-check'
import { expect, test } from 'vitest'
import type { LiveGame } from '../contracts/live.ts'
import { checkAnswer } from '../look/answers.ts'
import { readHands } from '../script/language/read.ts'
import { emptyTable } from '../script/table/state.ts'
import { seeded } from '../plan/seeded.ts'
import { canCome, goOnAfter, play, throwFor } from './games.ts'

const ask = fc.constantFrom('same' as const, 'one more' as const, 'one fewer' as const)
const numbers = fc.uniqueArray(fc.integer({ min: 0, max: 20 }), { minLength: 2, maxLength: 8 })
const game: fc.Arbitrary<LiveGame> = fc.oneof(
  fc.record({
    kind: fc.constant('dice' as const),
    dice: fc.integer({ min: 1, max: 3 }),
    start: fc.option(fc.integer({ min: 0, max: 20 })),
  }),
  fc.record({ kind: fc.constant('cards' as const), numbers, ask }),
  fc.record({ kind: fc.constant('spinner' as const), numbers, ask }),
  fc.record({
    kind: fc.constant('bowl' as const),
    digits: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 2, maxLength: 12 }),
  }),
  fc.record({ kind: fc.constant('skittles' as const), of: fc.integer({ min: 3, max: 10 }) }),
  fc.record({ kind: fc.constant('hidden' as const), total: fc.integer({ min: 2, max: 20 }) }),
  fc
    .tuple(fc.integer({ min: 6, max: 40 }), fc.integer({ min: 0, max: 39 }))
    .map(([to, at]) => ({ kind: 'track' as const, to, at: Math.min(at, to - 1) })),
  fc.record({ kind: fc.constant('to and fro' as const), total: fc.integer({ min: 2, max: 20 }) }),
  fc.record({ kind: fc.constant('more or fewer' as const), upTo: fc.integer({ min: 3, max: 20 }) }),
)
/** What is right, worked out here by hand: nothing of the games' own reckoning. */
function isRight(g: LiveGame, thrown: readonly number[], n: number): boolean {
  const [a = 0, b = 0] = thrown
  switch (g.kind) {
    case 'dice':
      return n - (g.start ?? 0) === thrown.reduce((x, y) => x + y)
    case 'cards':
    case 'spinner':
      return { same: n === a, 'one more': n - 1 === a, 'one fewer': n + 1 === a }[g.ask]
    case 'bowl':
      return String(n).padStart(2, '0') === `${a}${b}`
    case 'skittles':
      return n + a === g.of
    case 'hidden':
    case 'to and fro':
      return n + a === g.total
    case 'track':
      return n === (g.at + a > g.to ? g.to : g.at + a)
    case 'more or fewer':
      return b === 0 ? n > a : n < a
  }
}
const throws = fc.tuple(game, fc.integer({ min: 1, max: 1e6 }))

test('whatever is thrown can come, its table can be laid line by line, and just the right numbers are right', () => {
  fc.assert(
    fc.property(throws, ([g, seed]) => {
      const thrown = throwFor(g, seeded(seed))
      expect(canCome(g, thrown)).toBe(true)
      const p = play(g, thrown)
      let table = emptyTable
      for (const line of p.lines) {
        const read = readHands(line, table)
        expect([line, read.whole, read.error]).toEqual([line, true, null])
        table = read.after
      }
      const most = g.kind === 'more or fewer' ? g.upTo : 70
      for (let n = 0; n <= most; n++) {
        const check = checkAnswer(
          { id: 'r1', prompt: p.prompt, spec: p.spec },
          { taskId: 'r1', kind: 'number', text: String(n) },
        )
        expect([g.kind, thrown, n, check.verdict]).toEqual([
          g.kind,
          thrown,
          n,
          isRight(g, thrown, n) ? 'right' : 'wrong',
        ])
      }
    }),
    { numRuns: 150 },
  )
})
test('a covered row does not tell how many are covered, and the question tells how many there are in all', () => {
  const p = play({ kind: 'hidden', total: 9 }, [4])
  expect(p.lines).toEqual(['Put 9 in a row', 'Cover the last 5'])
  expect(p.prompt).toContain('9 in all')
  expect(p.sentence).toBe('9 = 4 + 5')
})
test.each([
  [{ kind: 'dice', dice: 2, start: null }, [7, 1]],
  [{ kind: 'dice', dice: 2, start: null }, [3]],
  [{ kind: 'bowl', digits: [1, 2, 3] }, [2, 2]],
  [{ kind: 'bowl', digits: [1, 2, 3] }, [4, 1]],
  [{ kind: 'skittles', of: 6 }, [7]],
  [{ kind: 'to and fro', total: 5 }, [6]],
  [{ kind: 'more or fewer', upTo: 10 }, [0, 1]],
  [{ kind: 'more or fewer', upTo: 10 }, [10, 0]],
  [{ kind: 'cards', numbers: [0, 1], ask: 'one fewer' }, [0]],
] as [LiveGame, number[]][])('in %o %o cannot come up', (g, thrown) => {
  expect(canCome(g, thrown)).toBe(false)
})
test('a bowl that holds a digit twice can give it twice', () => {
  expect(canCome({ kind: 'bowl', digits: [2, 2, 3] }, [2, 2])).toBe(true)
})
test('a track is walked from where the last throw landed, and begins again past its end', () => {
  const first = play({ kind: 'track', to: 10, at: 0 }, [4])
  expect(first.then).toEqual({ kind: 'track', to: 10, at: 4 })
  const second = play(first.then, [5])
  expect(second.prompt).toContain('From 4')
  expect(play(second.then, [6]).then).toEqual({ kind: 'track', to: 10, at: 0 })
})
test('ball-to-and-fro goes at the pace of the class: half as long again as the middle answer, between four and twenty seconds', () => {
  expect(goOnAfter([6_000, 4_000, 5_000], 12)).toEqual({ share: 0.8, at: 7_500 })
  expect(goOnAfter([500, 600], 12).at).toBe(4_000)
  expect(goOnAfter([40_000], 3)).toEqual({ share: 1, at: 20_000 })
  expect(goOnAfter([], 1).at).toBe(12_000)
})
