import type { Structure } from '../contracts/lesson.ts'

export interface Idea {
  id: string
  name: string
  structure: Structure | null
  upTo: number
  ages: readonly [number, number]
  /** What comes before it on the ladder. */
  after: readonly string[]
}

/** The rungs of the ladder this edition knows, easiest first. Ages are typical ranges, not targets. */
export const ideas: readonly Idea[] = [
  { id: 'count-10', name: 'Count to 10', structure: null, upTo: 10, ages: [3, 5], after: [] },
  { id: 'parts-5', name: 'Parts of 5', structure: 'parts', upTo: 5, ages: [3, 5], after: ['count-10'] },
  { id: 'parts-7', name: 'Parts of 7', structure: 'parts', upTo: 7, ages: [4, 6], after: ['parts-5'] },
  { id: 'parts-10', name: 'Parts of 10', structure: 'parts', upTo: 10, ages: [4, 6], after: ['parts-7'] },
  { id: 'add-10', name: 'Add within 10', structure: 'add', upTo: 10, ages: [4, 6], after: ['parts-5'] },
  { id: 'take-10', name: 'Take away within 10', structure: 'take-away', upTo: 10, ages: [4, 6], after: ['add-10'] },
  { id: 'count-on', name: 'Counting on', structure: 'count-on', upTo: 10, ages: [4, 6], after: ['add-10'] },
]
export const ideaById = (id: string): Idea | undefined => ideas.find((i) => i.id === id)
