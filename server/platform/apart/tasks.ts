import { type CutList } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { readList } from '@awlbox/core/cut/exchange/read'
import { readLadder } from '@awlbox/core/plan/ladder/csv'
import { captionWords, readCaptions } from '@awlbox/core/film/desk/captions'
import { proofread } from '@awlbox/core/script/proof/proof'
import Papa from 'papaparse'

/** What is computed beside the process that answers people: each takes as long as what somebody outside sent makes it take. */
export const tasks = {
  /** Words in captions: how many; @throws SyntaxError where there are none. */
  captions: ({ text }: { text: string }): { words: number } => ({
    words: captionWords(readCaptions(text)).length,
  }),
  cutList: ({
    name,
    text,
    lesson,
    takes,
  }: {
    name: string
    text: string
    lesson: Lesson
    takes: Parameters<typeof readList>[3]
  }): CutList => readList(name, text, lesson, takes),
  ladder: ({ csv }: { csv: string }): ReturnType<typeof readLadder> =>
    readLadder(Papa.parse<string[]>(csv.replace(/^\uFEFF/, '').trim(), { skipEmptyLines: true }).data),
  /** What lists show of a lesson: its open findings and the seconds of its film. */
  derived: ({
    doc,
    style,
  }: {
    doc: Lesson
    style: HouseStyle
  }): { findings: number; filmSeconds: number } => {
    const p = proofread(doc, style)
    return { findings: p.findings.length, filmSeconds: p.time.film }
  },
} as const
type Tasks = typeof tasks
export type TaskName = keyof Tasks
export type Given<T extends TaskName> = Parameters<Tasks[T]>[0]
export type Made<T extends TaskName> = ReturnType<Tasks[T]>
