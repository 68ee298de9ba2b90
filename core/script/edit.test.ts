import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { Lesson } from '../contracts/lesson.ts'
import { changeStep, insertStep, moveStep, placeStep, removeStep } from './edit.ts'
import { fromMarkdown } from './formats/markdown.ts'
import { mergeLessons } from './merge.ts'

let n = 0
const lesson = fromMarkdown(
  '# Post\n\n## A {show}\nSay: One.\nDo: Put 2 on the row\nSay: Three.\n\n## B {together}\nSay: Four.\n\n## C {close}\n',
  () => `e${(n += 1)}`,
).lesson
const order = (d: Lesson) => d.segments.map((s) => s.steps.map((x) => x.text))
const all = (d: Lesson) => order(d).flat().sort()
const steps = lesson.segments.flatMap((s) => s.steps.map((x) => x.id))
const segments = lesson.segments.map((s) => s.id)

describe('lines are moved, never lost', () => {
  test('across the border of a segment, both ways, and not beyond the ends', () => {
    const last = lesson.segments[0]!.steps[2]!.id
    expect(order(moveStep(lesson, last, 1))).toEqual([['One.', 'Put 2 on the row'], ['Three.', 'Four.'], []])
    expect(order(moveStep(lesson, lesson.segments[1]!.steps[0]!.id, -1))[0]).toHaveLength(4)
    expect(moveStep(lesson, steps[0]!, -1)).toBe(lesson)
  })
  test('dropped on another segment it comes last there', () =>
    expect(order(placeStep(lesson, steps[0]!, segments[2]!, null))).toEqual([
      ['Put 2 on the row', 'Three.'],
      ['Four.'],
      ['One.'],
    ]))
  test('any number of moves keeps every line once', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.record({ move: fc.constantFrom(...steps), by: fc.constantFrom(1 as const, -1 as const) }),
            fc.record({
              place: fc.constantFrom(...steps),
              to: fc.constantFrom(...segments),
              before: fc.option(fc.constantFrom(...steps)),
            }),
          ),
          { maxLength: 15 },
        ),
        (moves) => {
          const after = moves.reduce(
            (d, m) => ('move' in m ? moveStep(d, m.move, m.by) : placeStep(d, m.place, m.to, m.before)),
            lesson,
          )
          expect(all(after)).toEqual(all(lesson))
          expect(new Set(after.segments.flatMap((s) => s.steps.map((x) => x.id))).size).toBe(steps.length)
        },
      ),
    ))
  test('a change touches its own segment and leaves the others as they were', () => {
    const after = changeStep(lesson, steps[0]!, { text: 'Uno.' })
    expect(after.segments[1]).toBe(lesson.segments[1])
    expect(after.segments[0]).not.toBe(lesson.segments[0])
    expect(changeStep(lesson, 'gone', { text: 'x' }).segments).toEqual(lesson.segments)
  })
  test('put in and taken out again it is the same', () =>
    expect(
      removeStep(insertStep(lesson, segments[1]!, 1, { id: 'new', verb: 'say', text: 'X' }), 'new'),
    ).toEqual(lesson))
})

describe('two people on one lesson', () => {
  const edit = (i: number, text: string) => (d: Lesson) => changeStep(d, steps[i]!, { text })
  test('on different segments both changes stay', () => {
    const merged = mergeLessons(lesson, edit(0, 'Mine.')(lesson), edit(3, 'Theirs.')(lesson))
    expect([
      merged.ok,
      merged.doc.segments[0]!.steps[0]!.text,
      merged.doc.segments[1]!.steps[0]!.text,
    ]).toEqual([true, 'Mine.', 'Theirs.'])
  })
  test('on the same segment it is a conflict that names it', () => {
    const merged = mergeLessons(lesson, edit(0, 'Mine.')(lesson), edit(1, 'Theirs.')(lesson))
    expect(merged.ok ? [] : merged.conflicts.map((c) => c.title)).toEqual(['A'])
  })
  test('whoever changed nothing gives way, whatever the other did', () =>
    fc.assert(
      fc.property(fc.constantFrom(...steps), fc.constantFrom(...segments), (step, to) => {
        const theirs = placeStep(edit(2, 'Drei.')(lesson), step, to, null)
        const merged = mergeLessons(lesson, lesson, theirs)
        expect(merged.ok).toBe(true)
        expect(order(merged.doc)).toEqual(order(theirs))
      }),
    ))
})
