import type { Example } from '../../contracts/lesson.ts'
import type { Line, Writing } from './lines.ts'

/** What an arc is made from: also how its idea is taught. */
export interface LessonWriting extends Writing {
  teach: Teaching
}
/** A word a lesson brings in, with a gesture of our own. */
export interface NewWord {
  word: string
  gesture: string
  means: string
}
/** A way children may say it, shown in a talk-first lesson: its name and its lines from a bare table. */
export interface Way {
  name: string
  /** What a grown-up is told of it beforehand, without numbers. */
  briefly: string
  lines: readonly Line[]
}

/** How one idea is taught: everything a template writes that is about the idea and not about the arc. */
export interface Teaching {
  /** "We will …": said at the start. */
  aim: (w: Writing) => string
  /** What a child works on or with beside them: "a plate", "an egg box with ten places". */
  tools: (examples: readonly Example[], w: Writing) => string[]
  /** Words it brings in, where they are not those of its structure. */
  words?: readonly NewWord[]
  story: (e: Example, w: Writing) => { tells: string; asks: string }
  /** One example from a bare table to a bare table: a wait before its answer, a check after it. */
  play: (e: Example, w: Writing, together: boolean) => Line[]
  /** What children do on their own while the film stands still. */
  alone: (e: Example, w: Writing) => string
  /** Three jobs to send back. */
  number: (e: Example, w: Writing) => Line
  choice: (e: Example, w: Writing) => Line
  photo: (e: Example, w: Writing) => Line
  /** Ways to talk about, where the idea has its own; else every way of working the fact. */
  ways?: (e: Example, w: Writing) => Way[]
  /** How a talk-first lesson begins, where a story told with its numbers would tell the answer. */
  looks?: (e: Example, w: Writing) => Line[]
  /** What was found, in one sentence. */
  found: (e: Example, w: Writing) => string
}
