import { defaultHouseStyle } from '../contracts/house-style.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type Lesson, Lesson as LessonSchema, segmentKinds, verbs } from '../contracts/lesson.ts'
import { moveStep, placeStep, removeStep } from './edit.ts'
import { fromMarkdown, toMarkdown } from './formats/markdown.ts'
import { mergeLessons } from './merge.ts'
import { simulate } from './simulate.ts'
import { compareStock, needed } from './stock.ts'
import { clock, timeLesson } from './time.ts'

const ids = () => {
  let n = 0
  return () => `s${(n += 1)}`
}
const lesson = (body: string): Lesson => fromMarkdown(`# Post\nAge: 4\n\n${body}`, ids()).lesson
const words = fc
  .array(
    fc.constantFrom(
      'Bobbin',
      'puts',
      '7',
      'parcels',
      'on',
      'the',
      'frame,',
      'how',
      'many?',
      '4 + 3 = 7',
      'é',
      '“so”',
    ),
    { minLength: 1, maxLength: 8 },
  )
  .map((w) => w.join(' '))
const anyStep = fc.record({
  verb: fc.constantFrom(...verbs),
  text: words,
  deliberate: fc.constantFrom(undefined, true),
  task: fc.constantFrom(
    undefined,
    { kind: 'number' as const, answer: 4 },
    { kind: 'photo' as const, things: 7 },
    { kind: 'choice' as const, choices: ['4', '5'], answer: 1 },
    { kind: 'number' as const, answer: 4, also: [6, 8], mine: true },
    { kind: 'photo' as const, things: 7, mine: true, unchecked: true },
    { kind: 'choice' as const, choices: ['4', '5', '6'], answer: 0, also: [2], unchecked: true },
  ),
})
const anyLesson = fc
  .array(
    fc.record({
      title: words,
      kind: fc.constantFrom(...segmentKinds),
      steps: fc.array(anyStep, { maxLength: 6 }),
    }),
    { minLength: 1, maxLength: 5 },
  )
  .map((segments): Lesson => {
    const id = ids()
    return LessonSchema.parse(
      JSON.parse(
        JSON.stringify({
          format: 'awlbox-lesson',
          version: 1,
          title: 'Post',
          ideaId: 'parts-10',
          age: 5,
          aim: { structure: 'parts', upTo: 10, count: 4, mustHave: [], noRepeatedTotal: false },
          examples: [],
          kit: [{ thing: 'jar', count: 1 }],
          segments: segments.map((s) => ({
            ...s,
            id: id(),
            audience: s.kind === 'note to adults' ? 'adults' : 'children',
            steps: s.steps.map((x) => ({ ...x, id: id() })),
          })),
        }),
      ),
    )
  })
const noIds = (l: Lesson) => ({
  title: l.title,
  age: l.age,
  kit: l.kit,
  segments: l.segments.map((s) => ({
    title: s.title,
    kind: s.kind,
    audience: s.audience,
    steps: s.steps.map(({ id: _id, ...x }) => x),
  })),
})

describe('Markdown', () => {
  test('what is written reads back the same', () => {
    fc.assert(
      fc.property(anyLesson, (l) => {
        const back = fromMarkdown(toMarkdown(l), ids())
        expect(back.unplaced).toEqual([])
        expect(noIds(back.lesson)).toEqual(noIds(l))
      }),
      { numRuns: 80 },
    )
  })
  test('lines that fit nowhere are returned with their number, not lost', () => {
    const { unplaced, lesson: l } = fromMarkdown(
      '# Post\n\n## Show {show}\nSay: Hello.\nremember the jar',
      ids(),
    )
    expect(unplaced).toEqual([
      { line: 5, text: 'remember the jar', why: expect.stringContaining('verb') as string },
    ])
    expect(l.segments[0]!.steps).toHaveLength(1)
  })
})

describe('time', () => {
  test('speech follows the age, counting and waiting the clock', () => {
    const say = lesson('## A {show}\nSay: one two three four five six seven eight nine ten')
    expect(timeLesson({ ...say, age: 3 }, defaultHouseStyle).film).toBeCloseTo((10 / 115) * 60, 3)
    expect(timeLesson({ ...say, age: 6 }, defaultHouseStyle).film).toBeCloseTo((10 / 145) * 60, 3)
    expect(timeLesson(lesson('## A {show}\nCount: 1 to 12'), defaultHouseStyle).film).toBeCloseTo(
      10 * clock.countTo10 + 2 * clock.countTo20,
      3,
    )
    expect(timeLesson(lesson('## A {show}\nCount: 1 to 4, jumping'), defaultHouseStyle).film).toBeCloseTo(
      4 * (clock.countTo10 + clock.movement),
      3,
    )
  })
  test('a question with no wait gets the house’s wait; a pause costs home time', () => {
    const apart = timeLesson(
      lesson('## A {show, no film}\nSay: Ten words.\nPause: Go (2 min)'),
      defaultHouseStyle,
    )
    expect([apart.film, apart.home]).toEqual([0, 120])
    const t = timeLesson(lesson('## A {show}\nAsk: How many?\nPause: Go (2 min)'), defaultHouseStyle)
    expect(t.home).toBe(120)
    const lone = timeLesson(lesson('## A {show}\nAsk: How many?\nSay: So.'), defaultHouseStyle)
    expect(lone.film).toBeCloseTo((2 / 125) * 60 + 5 + (1 / 125) * 60, 3)
  })
  test('segments start where the one before ends', () => {
    const t = timeLesson(lesson('## A {show}\nWait: 5 s\n## B {show}\nWait: 7 s'), defaultHouseStyle)
    expect(t.segments.map((s) => [s.start, s.film])).toEqual([
      [0, 5],
      [5, 7],
    ])
  })
})

describe('things needed', () => {
  test('are the most out at once when picked up again, the sum when left out', () => {
    expect(
      needed(lesson('## A {show}\nDo: Put 4 on the frame\nDo: Clear\nDo: Put 6 on the frame')).find(
        (n) => n.thing === 'two-faced counters',
      )?.count,
    ).toBe(6)
    expect(
      needed(lesson('## A {show}\nDo: Put 4 on the frame\nDo: Put 6 on the row')).find(
        (n) => n.thing === 'two-faced counters',
      )?.count,
    ).toBe(10)
  })
  test('adults’ segments do not count, own things asked for do', () => {
    expect(needed(lesson('## A {note to adults}\nDo: Put 9 on the frame'))).toEqual([])
    expect(needed(lesson('## A {alone}\nPause: Put out 5, then 3 more. (90 s)'))[0]?.count).toBe(8)
  })
  test('a listed swap serves for what is used', () => {
    const needs = needed(lesson('## A {show}\nDo: Put 4 on the frame'))
    expect(
      compareStock(
        [
          { thing: 'bottle tops', count: 4 },
          { thing: 'egg box', count: 1 },
        ],
        needs,
      ),
    ).toEqual({ missing: [], short: [], unused: [] })
  })
})

describe('editing', () => {
  const two = () => lesson('## A {show}\nSay: a\nSay: b\n## B {show}\nSay: c')
  const texts = (l: Lesson) => l.segments.map((s) => s.steps.map((x) => x.text).join(''))
  test('a line moves within its segment and across into the next', () => {
    const l = two()
    const [a, b] = l.segments[0]!.steps
    expect(texts(moveStep(l, a!.id, 1))).toEqual(['ba', 'c'])
    expect(texts(moveStep(l, b!.id, 1))).toEqual(['a', 'bc'])
    expect(moveStep(l, a!.id, -1)).toBe(l)
    expect(texts(placeStep(l, a!.id, l.segments[1]!.id, null))).toEqual(['b', 'ca'])
  })
  test('an edit leaves the document before it untouched', () => {
    const l = two()
    const before = JSON.stringify(l)
    removeStep(l, l.segments[0]!.steps[0]!.id)
    expect(JSON.stringify(l)).toBe(before)
  })
})

describe('two people on one lesson', () => {
  const base = lesson('## A {show}\nSay: a\n## B {show}\nSay: b\n## C {show}\nSay: c')
  const change = (l: Lesson, i: number, text: string): Lesson => ({
    ...l,
    segments: l.segments.map((s, k) => (k === i ? { ...s, steps: [{ ...s.steps[0]!, text }] } : s)),
  })
  test('changes to different segments merge', () => {
    const m = mergeLessons(base, change(base, 0, 'mine'), change(base, 2, 'theirs'))
    expect(m.ok).toBe(true)
    expect(m.doc.segments.map((s) => s.steps[0]!.text)).toEqual(['mine', 'b', 'theirs'])
  })
  test('changes to the same segment conflict, and mine stays until chosen', () => {
    const m = mergeLessons(base, change(base, 1, 'mine'), change(base, 1, 'theirs'))
    expect(m.ok ? [] : m.conflicts.map((c) => c.title)).toEqual(['B'])
    expect(m.doc.segments[1]!.steps[0]!.text).toBe('mine')
  })
  test('a segment they added and one I took out both hold', () => {
    const added = { ...base, segments: [...base.segments, { ...base.segments[0]!, id: 'new', title: 'D' }] }
    const m = mergeLessons(base, { ...base, segments: base.segments.slice(1) }, added)
    expect(m.doc.segments.map((s) => s.title)).toEqual(['B', 'C', 'D'])
  })
  const theirs: Lesson = {
    ...base,
    title: 'Post',
    age: 5,
    ideaId: 'add-10',
    aim: { ...base.aim, upTo: 8 },
    examples: [{ a: 3, b: 5, total: 8, op: '+' }],
    kit: [{ thing: 'jar', count: 1 }],
    story: { ...base.story, who: 'Suri' },
    words: [{ word: 'part', gesture: 'One flat hand.' }],
    arc: 'game',
    leftOut: ['pot'],
  }
  test('what they took off altogether goes, where I did not touch it', () => {
    const before = { ...base, leftOut: ['pot'] }
    const { leftOut, ...gone } = before
    expect(leftOut).toEqual(['pot'])
    expect(mergeLessons(before, change(before, 0, 'mine'), gone).doc.leftOut).toBeUndefined()
  })
  test.each([
    'title',
    'age',
    'ideaId',
    'aim',
    'examples',
    'kit',
    'story',
    'words',
    'arc',
    'leftOut',
  ] as const)('their %s comes in beside my segment, and mine stays where I changed it', (key) => {
    const mine = change(base, 0, 'mine')
    expect(mergeLessons(base, mine, theirs)).toMatchObject({ ok: true, doc: { [key]: theirs[key] } })
    expect(mergeLessons(base, { ...mine, [key]: theirs[key] }, base).doc[key]).toEqual(theirs[key])
  })
})
test('adults’ segments have a table of their own', () => {
  const moments = simulate(
    lesson(
      '## A {show}\nDo: Put 3 on the frame\n## N {note to adults}\nDo: Put 5 on the frame\n## B {show}\nDo: Put 2 on the frame',
    ),
  )
  expect(moments.at(-1)!.after.mats[0]!.regions[0]!.things).toHaveLength(5)
})
