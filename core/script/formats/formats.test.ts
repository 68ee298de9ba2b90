import { defaultHouseStyle } from '../../contracts/house-style.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { arcs, Lesson, segmentKinds, factKinds, structures, verbs, wishes } from '../../contracts/lesson.ts'
import { judgeWays } from '../../look/ways.ts'
import { toFountain } from './fountain.ts'
import { fromMarkdown, toMarkdown } from './markdown.ts'
import { fromPlainText, looksLikeMarkdown } from './plain-text.ts'

const ids = () => {
  let n = 0
  return () => `f${(n += 1)}`
}
const line = fc
  .stringMatching(/^[A-Za-z0-9 ,.?!’“”{}|:+=−_()-]{0,60}$/)
  .map((s) => s.replace(/\s+/g, ' ').trim())
const name = fc.stringMatching(/^[A-Z][a-z]{1,12}( [a-z]{1,8})?$/)
const task = fc.oneof(
  fc.record({ kind: fc.constant('number' as const), answer: fc.integer({ min: 0, max: 1000 }) }),
  fc.record({ kind: fc.constant('photo' as const), things: fc.integer({ min: 0, max: 40 }) }),
  fc.record({
    kind: fc.constant('choice' as const),
    choices: fc.uniqueArray(name, { minLength: 2, maxLength: 4 }),
    answer: fc.integer({ min: 0, max: 1 }),
  }),
)
const maybe = <T, K extends string>(key: K, arb: fc.Arbitrary<T>) =>
  fc.option(arb, { nil: undefined }).map((v) => (v === undefined ? {} : { [key]: v }))
const step = fc
  .tuple(
    fc.constantFrom(...verbs),
    line,
    maybe('task', task),
    fc.option(fc.constant(true), { nil: undefined }),
  )
  .map(([verb, text, t, deliberate]) => ({ verb, text, ...t, ...(deliberate ? { deliberate } : {}) }))
const device = fc.oneof(
  fc.constant({ kind: 'none' as const }),
  fc.record({
    kind: fc.constant('dice' as const),
    faces: fc.array(fc.integer({ min: 0, max: 20 }), { minLength: 2, maxLength: 6 }),
    dice: fc.integer({ min: 1, max: 3 }),
  }),
  fc.record({
    kind: fc.constant('spinner' as const),
    parts: fc.array(
      fc.record({ number: fc.integer({ min: 0, max: 9 }), share: fc.integer({ min: 1, max: 9 }) }),
      { minLength: 2, maxLength: 5 },
    ),
    spins: fc.integer({ min: 1, max: 3 }),
  }),
  fc.record({
    kind: fc.constant('bowl' as const),
    digits: fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 2, maxLength: 10 }),
    draws: fc.integer({ min: 1, max: 2 }),
    back: fc.boolean(),
  }),
  fc.record({
    kind: fc.constant('cards' as const),
    numbers: fc.array(fc.integer({ min: 0, max: 99 }), { minLength: 2, maxLength: 9 }),
    draws: fc.integer({ min: 1, max: 3 }),
    back: fc.boolean(),
  }),
)
const anyLesson = fc
  .record({
    title: name,
    ideaId: fc.constantFrom('add-10', 'parts-7', 'zero'),
    age: fc.integer({ min: 3, max: 7 }),
    arc: fc.constantFrom(...arcs),
    aim: fc.record({
      structure: fc.constantFrom(...structures),
      upTo: fc.integer({ min: 2, max: 100 }),
      count: fc.integer({ min: 1, max: 12 }),
      mustHave: fc.subarray([...wishes]),
      only: fc.constantFrom(...factKinds),
      noRepeatedTotal: fc.boolean(),
      least: fc.integer({ min: 0, max: 99 }),
      mostThings: fc.integer({ min: 0, max: 100 }),
      among: fc.integer({ min: 2, max: 6 }),
      parts: fc.integer({ min: 2, max: 6 }),
      device,
    }),
    examples: fc.array(
      fc
        .tuple(
          fc.integer({ min: 0, max: 99 }),
          fc.integer({ min: 0, max: 99 }),
          fc.constantFrom('+' as const, '-' as const, '÷' as const, '~' as const, '@' as const, '#' as const),
          fc.integer({ min: 0, max: 198 }),
          fc.option(fc.constant(true), { nil: undefined }),
        )
        .map(([a, b, op, total, locked]) => ({ a, b, op, total, ...(locked ? { locked } : {}) })),
      { maxLength: 6 },
    ),
    kit: fc.array(
      fc.record({
        count: fc.integer({ min: 1, max: 200 }),
        thing: name.map((s) => s.toLowerCase()).filter((s) => !/\band\b/.test(s)),
      }),
      { maxLength: 5 },
    ),
    words: fc.array(fc.record({ word: name, gesture: name }), { maxLength: 3 }),
    story: fc.record({ who: name, thing: name, things: name, place: name }),
    segments: fc.array(
      fc.record({
        title: name,
        kind: fc.constantFrom(...segmentKinds),
        audience: fc.constantFrom('children' as const, 'adults' as const),
        unfilmed: fc.option(fc.constant(true as const), { nil: undefined }),
        steps: fc.array(step, { maxLength: 6 }),
      }),
      { maxLength: 5 },
    ),
  })
  .map((l): Lesson => {
    const id = ids()
    return Lesson.parse({
      format: 'awlbox-lesson',
      version: 1,
      ...l,
      segments: l.segments.map((s) => ({ ...s, id: id(), steps: s.steps.map((x) => ({ ...x, id: id() })) })),
    })
  })
const bare = (lesson: Lesson): unknown =>
  JSON.parse(JSON.stringify(lesson, (k, v: unknown) => (k === 'id' ? undefined : v)))

describe('round trips', () => {
  test('any lesson reads back from its Markdown with nothing left over', () =>
    fc.assert(
      fc.property(anyLesson, (lesson) => {
        const read = fromMarkdown(toMarkdown(lesson), ids())
        expect(read.unplaced).toEqual([])
        expect(bare(read.lesson)).toEqual(bare(lesson))
      }),
      { numRuns: 300 },
    ))
  test('any lesson reads back from its JSON', () =>
    fc.assert(
      fc.property(anyLesson, (lesson) => {
        expect(Lesson.parse(JSON.parse(JSON.stringify(lesson)))).toEqual(lesson)
      }),
    ))
  test('any lesson becomes a screenplay with a scene for each segment and no line that is read as another kind', () =>
    fc.assert(
      fc.property(anyLesson, (lesson) => {
        const text = toFountain(lesson, defaultHouseStyle)
        expect(text.match(/^\.[^\n]*\([a-z -]+\)$/gm)?.length ?? 0).toBe(lesson.segments.length)
      }),
      { numRuns: 60 },
    ))
})

describe('notes as a teacher keeps them', () => {
  const notes = `Parcels to seven
Ages 4-5
You need: 10 bottle tops, an egg box, glitter

1. Warm up
- Count 1 to 10
- Clap 4 times
Watch me:
• Put 4 on the frame
• Put 3 blue on the frame
• How many parcels altogether?
• 4 + 3 = 7
T: Four and three make seven.
(wait 5 seconds)
Stop the video and find your own way
| a | b |
ok
For parents:
Let them count. Ask how they know.`
  const { lesson, unplaced } = fromPlainText(notes, ids())
  test('title, age, things and segments are found', () => {
    expect([lesson.title, lesson.age, lesson.kit.map((k) => k.thing)]).toEqual([
      'Parcels to seven',
      4,
      ['bottle tops', 'egg box', 'glitter'],
    ])
    expect(lesson.segments.map((s) => [s.title, s.kind])).toEqual([
      ['Warm up', 'warm-up'],
      ['Watch me', 'show'],
      ['For parents', 'note to adults'],
    ])
  })
  test('lines become the steps they mean, and a question gets a wait', () => {
    expect(lesson.segments[0]!.steps.map((s) => s.verb)).toEqual(['count', 'sound'])
    expect(lesson.segments[1]!.steps.map((s) => s.verb)).toEqual([
      'do',
      'do',
      'ask',
      'wait',
      'write',
      'say',
      'wait',
      'pause',
    ])
    expect(lesson.segments[2]!.steps).toMatchObject([{ verb: 'say' }])
  })
  test('what could not be placed is said with its line and the reason', () =>
    expect(unplaced.map((u) => [u.line, u.text])).toEqual([
      [3, 'glitter'],
      [16, '| a | b |'],
      [17, 'ok'],
    ]))
  test('nothing but air gives a lesson with nothing in it', () =>
    expect(fromPlainText('\n \n', ids()).lesson.segments).toEqual([]))
  test('any text at all is taken in, and every line is somewhere', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 80 }), { maxLength: 30 }), (lines) => {
        expect(() => fromPlainText(lines.join('\n'), ids())).not.toThrow()
      }),
    ))
  test('our own Markdown is told from notes', () => {
    expect(looksLikeMarkdown(notes)).toBe(false)
    expect(looksLikeMarkdown('# T\n\n## A {show}\nSay: Hello.')).toBe(true)
  })
})

describe('lists of ways', () => {
  const rule = { ordered: true, zero: true }
  test('valid, false, repeated and missing', () => {
    const r = judgeWays(5, '5+0, 4 and 1, 3+2; 3+2, 2+2, oh', rule)
    expect(r.list.map((w) => w.verdict)).toEqual(['valid', 'valid', 'valid', 'repeated', 'false', 'unread'])
    expect(r.missing.map((m) => m.join('+'))).toEqual(['2+3', '1+4', '0+5'])
    expect([r.possible, r.found, r.complete]).toEqual([6, 3, false])
  })
  test('a turn-round is no new way where the house says so', () =>
    expect(judgeWays(5, '4+1, 1+4, 4+1', { ordered: false, zero: false }).list.map((w) => w.verdict)).toEqual(
      ['valid', 'turn-round', 'repeated'],
    ))
  test('zero is told when it is not allowed', () =>
    expect(judgeWays(5, '5+0', { ordered: true, zero: false }).list[0]!.verdict).toBe('zero'))
  test('working in order is seen, and so is its lack', () => {
    expect(judgeWays(7, '7+0, 6+1, 5+2, 4+3, 3+4, 2+5, 1+6, 0+7', rule)).toMatchObject({
      complete: true,
      order: 'in order',
      systematic: 1,
    })
    expect(judgeWays(7, '3+4, 7+0, 1+6, 5+2', rule).order).toBe('no order')
    expect(judgeWays(7, '1+6, 6+1, 2+5, 5+2, 3+4, 4+3', rule).order).toBe('in order')
    expect(judgeWays(7, '1+6', rule).order).toBe('too few to tell')
  })
  test('a whole of 200 and one part are refused in words', () => {
    expect(() => judgeWays(200, '1+1', rule)).toThrow(/0 to 100/)
    expect(() => judgeWays(5, '5', rule, 1)).toThrow(/Two to six/)
  })
})
