import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import type { PackTask } from '../../contracts/pack.ts'
import { type Asked, truthOf, type Weighed } from './asked.ts'
import { explains } from './explain.ts'
import { askedIn, weighedOf } from './from-replies.ts'
import { diagnose } from './rank.ts'
import { chanceUnder, rules, speaksOf } from './rules.ts'
import { tryNext } from './try-next.ts'

const w = (asked: Asked, answer: string | number, id = JSON.stringify(asked)): Weighed => ({
  id,
  words: id,
  asked,
  answer: String(answer),
})
const add = (a: number, b: number): Asked => ({ form: 'add', a, b })
const take = (a: number, b: number): Asked => ({ form: 'take', a, b })

describe('what a way of thinking leads to', () => {
  test.each<[string, Asked, string]>([
    ['counts-start', add(6, 3), '8'],
    ['counts-standing', take(11, 4), '8'],
    ['counts-where-they-are', add(6, 3), '8'],
    ['counts-where-they-are', take(11, 4), '8'],
    ['skips-thirteen', { form: 'after', from: 12, by: 1 }, '14'],
    ['decade', { form: 'after', from: 39, by: 1 }, '50'],
    ['decade', { form: 'after', from: 29, by: 1 }, '20'],
    ['teen-ty', { form: 'write', n: 13 }, '30'],
    ['teen-ty', { form: 'write', n: 30 }, '13'],
    ['adds-instead', take(7, 2), '9'],
    ['gives-larger', add(2, 5), '5'],
    ['joined-digits', add(2, 3), '23'],
    ['double-one-more', { form: 'double', n: 3 }, '4'],
    ['double-twice-digit', { form: 'double', n: 3 }, '33'],
    ['part-as-whole', { form: 'missing', op: '+', known: 4, total: 7 }, '7'],
    ['part-added', { form: 'missing', op: '+', known: 4, total: 7 }, '11'],
    ['equals-next', { form: 'missing', op: '+', known: 2, total: 9, resultFirst: true }, '11'],
    ['equals-next', { ...take(17, 6), resultFirst: true } as Asked, '17'],
    ['smaller-from-larger', take(62, 19), '57'],
    ['forgets-put-back', take(62, 19), '42'],
    ['puts-back-wrong', take(62, 19), '41'],
    ['puts-back-ten', take(62, 19), '52'],
    ['changes-ones', add(34, 10), '45'],
    ['drops-a-ten', add(34, 20), '44'],
    ['digits-turned', { form: 'write', n: 13 }, '31'],
    ['ten-and-ones-apart', { form: 'write', n: 16 }, '106'],
    ['nought-in-front', { form: 'write', n: 70 }, '07'],
    ['more-fewer-turned', { form: 'which', a: 3, b: 5, more: true }, '3'],
    ['difference-as-larger', { form: 'compare', a: 8, b: 5 }, '8'],
    ['longer-is-more', { form: 'which', a: 4, b: 5, more: true, longer: 'a' }, '4'],
    ['unequal-shares', { form: 'share', things: 8, among: 2 }, '5, 3'],
    ['leftover-ignored', { form: 'share', things: 7, among: 3 }, '3'],
    ['half-one-less', { form: 'half', n: 8 }, '7'],
    ['zero-as-one', add(4, 0), '5'],
    ['zero-makes-zero', add(4, 0), '0'],
    ['zero-makes-zero', take(4, 0), '0'],
  ])('%s: %j gives %s', (id, asked, answer) => {
    const rule = rules.find((r) => r.id === id)!
    expect(speaksOf(rule, asked)).toBe(true)
    expect(chanceUnder(rule, asked, answer)).toBeGreaterThan(0.4)
    expect(explains({ asked, answer }).map((r) => r.id)).toContain(id)
  })
  test('a right answer is explained by nothing', () =>
    expect(explains({ asked: add(6, 3), answer: '9' })).toEqual([]))
  test('every rule is said in words, and says what to do next', () => {
    for (const r of rules)
      expect([r.words.length > 10, r.next.length > 30, r.strategies.length > 0]).toEqual([true, true, true])
    expect(new Set(rules.map((r) => r.id)).size).toBe(rules.length)
  })
})

describe('ranking', () => {
  test('one wrong answer names nothing: it could be a slip', () => {
    const d = diagnose([w(add(6, 3), 8), w(add(5, 2), 7)])
    expect(d.named).toEqual([])
    expect(d.considered.map((c) => c.id)).toContain('counts-start')
  })
  test('two that speak for it and none against name it, with the answers that do', () => {
    const d = diagnose([w(take(11, 4), 8), w(take(9, 2), 8), w(take(7, 3), 5), w(add(5, 2), 7)])
    expect(d.named[0]?.id).toBe('counts-standing')
    expect(d.named[0]?.for).toHaveLength(3)
    expect(d.words).toContain('3 answers speak for it')
  })
  test('one too few on and one too many back have one root; each alone has its own name', () => {
    const on = [w(add(6, 3), 8), w(add(5, 4), 8), w(add(7, 2), 8)]
    const back = [w(take(11, 4), 8), w(take(9, 3), 7)]
    expect(diagnose([...on, ...back]).named[0]?.id).toBe('counts-where-they-are')
    expect(diagnose(on).named[0]?.id).toBe('counts-start')
    expect(diagnose([...on, w(take(11, 4), 7), w(take(9, 3), 6)]).named[0]?.id).toBe('counts-start')
    expect(diagnose([...back, w(add(6, 3), 9), w(add(5, 4), 9)]).named[0]?.id).toBe('counts-standing')
  })
  test('answers against it hold it back', () => {
    const d = diagnose([
      w(take(11, 4), 8),
      w(take(9, 2), 8),
      w(take(7, 3), 4),
      w(take(8, 2), 6),
      w(take(6, 1), 5),
      w(take(9, 3), 6),
    ])
    expect(d.named).toEqual([])
  })
  test('nothing given is not nothing wrong', () => {
    expect(diagnose([]).words).toBe('No answers yet.')
    expect(diagnose([], 3).words).toMatch(/None of these answers says/)
  })
  test('all right: nothing is named, whatever was asked', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.integer({ min: 1, max: 9 }), fc.integer({ min: 1, max: 9 })), {
          minLength: 1,
          maxLength: 12,
        }),
        (pairs) => {
          const d = diagnose(pairs.map(([a, b], i) => w(add(a, b), a + b, String(i))))
          expect(d.named).toEqual([])
          expect(d.sound).toBeGreaterThan(0.6)
        },
      ),
    ))
  test('what was done together weighs less than what was done alone', () => {
    const answers = [w(take(11, 4), 8), w(take(9, 2), 8)]
    const alone = diagnose(answers).considered[0]!.p
    const together = diagnose(answers.map((a) => ({ ...a, help: 'together' as const }))).considered[0]!.p
    expect(together).toBeLessThan(alone)
  })
  test('two ways of thinking that say the same are named together', () => {
    const d = diagnose([w(take(9, 4), 9), w(take(7, 2), 7), w(take(8, 3), 8)])
    expect(d.named.map((n) => n.id).sort()).toEqual(['gives-first', 'gives-larger'])
  })
})

describe('reading questions', () => {
  test.each<[string, number | null, Asked | null]>([
    ['6 + 3 = ?', 9, add(6, 3)],
    ['6 + 3 =', 9, add(6, 3)],
    ['What is __ = 17 − 6?', 11, { ...take(17, 6), resultFirst: true } as Asked],
    ['9 = __ + 2', 7, { form: 'missing', op: '+', known: 2, total: 9, resultFirst: true }],
    ['4 + __ = 7', 3, { form: 'missing', op: '+', known: 4, total: 7 }],
    ['7 − __ = 4', 3, { form: 'missing', op: '-', known: 4, total: 7 }],
    ['What is double four?', 8, { form: 'double', n: 4 }],
    ['What is half of eight?', 4, { form: 'half', n: 8 }],
    ['What comes after twenty-nine?', 30, { form: 'after', from: 29, by: 1 }],
    ['Bobbin had six parcels and three more came. How many now?', 9, add(6, 3)],
    ['Bobbin had seven parcels. Two were taken away. How many are left?', 5, take(7, 2)],
    ['How many more is eight than five?', 3, { form: 'compare', a: 8, b: 5 }],
    ['Which way did you like?', null, null],
    ['Bobbin had six parcels and three more came. How many now?', 4, null],
  ])('%s', (question, right, asked) => expect(askedIn(question, right)).toEqual(asked))
  const task = (spec: PackTask['spec'], prompt = ''): PackTask => ({ id: 't', prompt, spec })
  const of = (t: PackTask, answer: object) =>
    weighedOf(
      { id: 'r', tasks: [t], answers: [{ taskId: 't', kind: t.spec.kind, ...answer }], help: 'alone' },
      new Map(),
    )
  test('pieces of other kinds are read too: shares, runs, rounds, what was crossed off', () => {
    expect(of(task({ kind: 'share', things: 8, plates: 2 }), { given: ['5', '3'] })[0]?.answer).toBe('5, 3')
    expect(of(task({ kind: 'gaps', run: [28, 29, 30], gaps: [2] }), { given: ['20'] })[0]?.asked).toEqual({
      form: 'after',
      from: 29,
      by: 1,
    })
    expect(
      of(task({ kind: 'record', rounds: 1, rule: 'take', start: 10 }), { given: ['4|7|10 − 4 = 7'] })[0],
    ).toMatchObject({ asked: take(10, 4), answer: '7' })
    expect(of(task({ kind: 'cross', things: 9, go: 3 }), { given: ['1', '2'] })[0]?.answer).toBe('7')
    expect(
      of(task({ kind: 'sentence', sentence: '4 + 3 = 7', hidden: 1 }), { given: ['7'] })[0]?.asked,
    ).toMatchObject({ form: 'missing', known: 4 })
  })
  test('a blank, words and what is not checked say nothing', () => {
    const n = task({ kind: 'number', answer: 9 }, '6 + 3 = ?')
    expect([
      of(n, { text: '' }),
      of(n, { text: 'we did it' }),
      of(task({ kind: 'number', answer: 9, unchecked: true }, '6 + 3 = ?'), { text: '8' }),
    ]).toEqual([[], [], []])
  })
  test('digits stay as they were typed', () =>
    expect(
      of(task({ kind: 'number', answer: 70 }, 'Write the number seventy as a numeral'), { text: '07' })[0]
        ?.answer,
    ).toBe('07'))
})

test('what to try next is worked with the child’s own numbers', () => {
  const next = tryNext(['count-back'], [take(11, 4)], defaultHouseStyle)
  expect(next?.lines.join(' ')).toMatch(/11|eleven/)
  expect(tryNext(['count-back'], [{ form: 'share', things: 8, among: 2 }], defaultHouseStyle)).toBeNull()
})
test('every question has an answer that is right by rule', () => {
  const all: Asked[] = [
    add(2, 3),
    take(5, 2),
    { form: 'missing', op: '+', known: 2, total: 6 },
    { form: 'double', n: 3 },
    { form: 'half', n: 6 },
    { form: 'compare', a: 2, b: 5 },
    { form: 'which', a: 2, b: 5, more: false },
    { form: 'count', n: 4 },
    { form: 'after', from: 4, by: 1 },
    { form: 'write', n: 12 },
    { form: 'share', things: 7, among: 3 },
  ]
  expect(all.map(truthOf)).toEqual([5, 3, 4, 6, 3, 3, 2, 4, 5, 12, 2])
})
