import { defaultHouseStyle } from '../contracts/house-style.ts'
import { Lesson, type Segment, type Step, Verb } from '../contracts/lesson.ts'
import { aimOf } from '../plan/aim.ts'

/** Lines "verb: words" as steps of a segment, for tests. */
export const stepsOf = (id: string, lines: readonly string[]): Step[] =>
  lines.map((l, i) => ({
    id: `${id}-${i + 1}`,
    verb: Verb.parse(l.slice(0, l.indexOf(':'))),
    text: l.slice(l.indexOf(':') + 1).trim(),
  }))
/** A lesson of these segments, for tests. */
export const lessonOf = (segments: readonly Partial<Segment>[]): Lesson =>
  Lesson.parse({
    format: 'awlbox-lesson',
    version: 1,
    title: 'Parcels, live',
    ideaId: 'parts-7',
    age: 4,
    aim: aimOf({ structure: 'parts', upTo: 7, count: 1 }),
    examples: [],
    kit: [],
    segments: segments.map((s, i) => ({
      id: `s${i + 1}`,
      title: `Part ${i + 1}`,
      kind: 'show',
      audience: 'children',
      steps: [],
      ...s,
    })),
  })
export const style = defaultHouseStyle
