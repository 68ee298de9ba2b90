import fs from 'node:fs'
import path from 'node:path'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { projectRoot } from '../platform/root.ts'

/** Lessons of the demo that came as Markdown files, as unlike each other as the kinds of lesson allow: file, class, days from now. */
export const kinds: readonly (readonly [file: string, className: 'Wagtails' | 'Goldcrests', day: number])[] =
  [
    ['skittles-in-the-hall', 'Wagtails', 8],
    ['hold-and-count-on', 'Wagtails', 9],
    ['pairs-of-ten-on-a-rail', 'Wagtails', 10],
    ['ten-by-die', 'Wagtails', 14],
    ['sounds-cards-and-zero', 'Wagtails', 15],
    ['tens-on-and-back', 'Wagtails', 16],
    ['talk-first-twenty-five', 'Wagtails', 17],
    ['digits-from-a-bowl', 'Wagtails', 21],
    ['fair-for-four', 'Wagtails', 22],
    ['names-fingers-joining', 'Goldcrests', 9],
  ]
export function lessonFrom(file: string, newId: () => string): Lesson {
  return fromMarkdown(fs.readFileSync(path.join(projectRoot, 'core/lessons', `${file}.md`), 'utf8'), newId)
    .lesson
}
