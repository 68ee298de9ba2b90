import { z } from 'zod'
import { Lesson } from './lesson.ts'

/** The lesson document as JSON Schema, made from the contract that reads it. */
export const lessonSchema = (): Record<string, unknown> => ({
  $id: 'awlbox-lesson.schema.json',
  title: 'Awlbox lesson',
  ...z.toJSONSchema(Lesson, { io: 'input' }),
})
