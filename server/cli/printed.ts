import { issueInWords } from '@awlbox/core/contracts/issue-words'
import fs from 'node:fs/promises'
import path from 'node:path'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { fromPlainText, looksLikeMarkdown } from '@awlbox/core/script/formats/plain-text'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'

/** What a command prints: the same facts for people and for programs. */
export interface Printed {
  json: unknown
  text: string
  clean: boolean
}
/** Input that cannot be worked with; its message is all that is printed. */
export class BadInput extends Error {}

export async function readFile(file: string | undefined, what: string): Promise<Buffer> {
  if (!file) throw new BadInput(`say which ${what}.`)
  try {
    const bytes = await fs.readFile(file)
    if (!bytes.length) throw new BadInput(`${file} is empty.`)
    return bytes
  } catch (error) {
    if (error instanceof BadInput) throw error
    const code = (error as NodeJS.ErrnoException).code
    throw new BadInput(
      code === 'ENOENT'
        ? `${file} is not there.`
        : code === 'EISDIR'
          ? `${file} is a folder.`
          : `${file} cannot be read.`,
    )
  }
}

/** A lesson from JSON or Markdown, with the lines of Markdown that fit nowhere. */
export async function readLesson(
  file: string | undefined,
): Promise<{ lesson: Lesson; unplaced: { line: number; text: string; why: string }[] }> {
  const text = (await readFile(file, 'lesson')).toString('utf8')
  if (path.extname(file!) === '.json' || text.trimStart().startsWith('{')) {
    let data: unknown
    try {
      data = JSON.parse(text)
    } catch {
      throw new BadInput(`${file} is not valid JSON.`)
    }
    const parsed = Lesson.safeParse(data)
    if (!parsed.success)
      throw new BadInput(`${file} is not a lesson: ${issueInWords(parsed.error.issues[0])}`)
    return { lesson: parsed.data, unplaced: [] }
  }
  let n = 0
  const newId = () => `m${(n += 1)}`
  const reading = looksLikeMarkdown(text) ? fromMarkdown(text, newId) : fromPlainText(text, newId)
  if (!reading.lesson.segments.length)
    throw new BadInput(
      `${file} has nothing that could be a step: a lesson in Markdown has lines like “## Watch me {show}” and “Say: …” under them, notes have sentences.`,
    )
  return reading
}
