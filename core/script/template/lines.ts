import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Aim, Segment, Step, Story, TaskSpec } from '../../contracts/lesson.ts'
import { numberName } from '../../plan/numbers/names.ts'

/** A step before it has an id. */
export type Line = readonly [verb: Step['verb'], text: string, task?: TaskSpec]

/** What every text of a template is made from. */
export interface Writing {
  aim: Aim
  age: number
  style: HouseStyle
  story: Story
  newId: () => string
}

export const n = numberName
export const several = (count: number, story: Story): string =>
  `${count === 0 ? 'no' : n(count)} ${count === 1 ? story.thing : story.things}`

/** + − = are shown when the house shows them: from the start, once words are secure (from age four), or never. */
export const showsSymbols = (style: HouseStyle, age: number): boolean =>
  style.symbols === 'start' || (style.symbols === 'secure' && age >= 4)
export const written = (w: Writing, text: string): Line[] =>
  showsSymbols(w.style, w.age) ? [['write', text]] : []
export const wait = (w: Writing): Line => ['wait', `${w.style.defaultWait} s`]

export function segment(
  w: Writing,
  title: string,
  kind: Segment['kind'],
  lines: readonly Line[],
  audience: Segment['audience'] = 'children',
): Segment {
  return {
    id: w.newId(),
    title,
    kind,
    audience,
    steps: lines.map(([verb, text, task]) => ({ id: w.newId(), verb, text, ...(task ? { task } : {}) })),
  }
}
