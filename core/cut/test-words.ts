import type { HeardWord } from '../contracts/heard.ts'
import type { Lesson } from '../contracts/lesson.ts'
import { fromMarkdown } from '../script/formats/markdown.ts'

/** Lessons and heard words for tests, from text. */
export function lessonOf(text: string): Lesson {
  let n = 0
  return fromMarkdown(text, () => `s${(n += 1)}`).lesson
}
/** Words half a second apart; "~3" is a silence. */
export const said = (text: string, at = 0.5, each = 0.5): HeardWord[] =>
  text.split(' ').flatMap((word) => {
    if (word.startsWith('~')) {
      at += Number(word.slice(1))
      return []
    }
    at += each
    return [{ word, start: at - each, end: at - each * 0.2, confidence: 1 }]
  })
