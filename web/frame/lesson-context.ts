import { createContext, useContext } from 'react'
import type { Proofed } from '@awlbox/core/script/proof/proof'
import type { LessonDocument } from './document.ts'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'
import type { Me } from '@awlbox/core/contracts/api/people'

export interface LessonContext extends LessonDocument {
  me: Me
  record: LessonRecord
  proofed: Proofed
  /** The segment one is on, kept from station to station. */
  at: string | null
  goTo: (segmentId: string) => void
}
const Context = createContext<LessonContext | null>(null)
export const LessonProvider = Context.Provider
export function useLesson(): LessonContext {
  const value = useContext(Context)
  if (!value) throw new Error('Not inside a lesson')
  return value
}
