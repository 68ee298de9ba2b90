import { told } from '../../findings/say.ts'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import fs from 'node:fs'
import path from 'node:path'
import { describe, expect, test } from 'vitest'
import type { Lesson } from '../../contracts/lesson.ts'
import { proofread } from '../proof/proof.ts'
import { fromMarkdown, toMarkdown } from './markdown.ts'

const folder = path.resolve(import.meta.dirname, '../../lessons')
const files = fs.readdirSync(folder).filter((f) => f.endsWith('.md'))
const read = (text: string) => {
  let n = 0
  return fromMarkdown(text, () => `k${(n += 1)}`)
}
const withoutIds = (lesson: Lesson): unknown =>
  JSON.parse(JSON.stringify(lesson, (k, v: unknown) => (k === 'id' ? undefined : v)))

test('there is one of every kind', () => expect(files.length).toBeGreaterThanOrEqual(21))
describe.each(files)('%s', (file) => {
  const text = fs.readFileSync(path.join(folder, file), 'utf8')
  const { lesson, unplaced } = read(text)
  const proof = proofread(lesson, defaultHouseStyle)
  test('imports with nothing left over', () => expect(unplaced).toEqual([]))
  test('plays on the table: every line is read, none refused', () =>
    expect(
      proof.moments
        .filter((m) => m.unread || m.error)
        .map((m) => `${m.step.verb}: ${m.step.text} — ${m.error?.code ?? 'unread'}`),
    ).toEqual([]))
  test('has nothing wrong in it', () =>
    expect(
      proof.findings.map(
        (f) =>
          `${f.code}: ${told('script', f)} (${proof.moments.find((m) => m.step.id === f.stepId)?.step.text ?? ''})`,
      ),
    ).toEqual([]))
  test('asks for something that can be sent back', () =>
    expect(lesson.segments.flatMap((s) => s.steps).some((s) => s.task)).toBe(true))
  test('reads back from what it writes', () =>
    expect(withoutIds(read(toMarkdown(lesson)).lesson)).toEqual(withoutIds(lesson)))
})
