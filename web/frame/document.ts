import { useCallback } from 'react'
import { toldFollow } from '@awlbox/core/script/answers-told'
import { kitFollows } from '@awlbox/core/script/kit-follows'
import { answersFollow } from '@awlbox/core/script/worked-out'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { type LessonConflict, mergeLessons } from '@awlbox/core/script/merge'
import { ask, askLeaving } from '../api.ts'
import type { DocumentKind, Saving } from '../saving/saved-document.ts'
import { useSavedDocument } from '../saving/use-saved-document.ts'

type SaveState = Saving<Lesson, LessonConflict[]>
export interface LessonDocument {
  doc: Lesson
  state: SaveState
  /** Changes the document. Changes with the same `typing` key, close after one another, are undone as one. */
  edit: (change: (doc: Lesson) => Lesson, typing?: string) => void
  undo: () => void
  redo: () => void
  canUndo: boolean
  canRedo: boolean
  resolve: (doc: Lesson) => void
}

const read = (kept: unknown): Lesson | null => Lesson.safeParse(kept).data ?? null
/** A lesson: letters typed close after one another are one step, undo reaches across sessions, a conflict is asked about. */
const lessonKind = (lessonId: string): DocumentKind<Lesson, LessonConflict[]> => ({
  draftKey: `awlbox-draft-${lessonId}`,
  undoKey: `awlbox-undo-${lessonId}`,
  undoDepth: 40,
  read,
  save: ({ revision }, doc) => ask(lessonsApi.saveLesson, { lessonId }, { revision, doc }),
  saveLeaving: ({ revision }, doc) => askLeaving(lessonsApi.saveLesson, { lessonId }, { revision, doc }),
  newest: ({ more }) => ({
    revision: more.revision as number,
    doc: more.doc as Lesson,
    base: more.base as Lesson | null,
  }),
  merge: mergeLessons,
  onConflict: { ask: true },
  earlier: async (revision) => (await ask(lessonsApi.readRevision, { lessonId, revision })).doc,
  growsUnsaved: false,
  pause: 500,
  together: 1500,
})

/** Holds a lesson's document: every change is kept on this device at once and saved soon after; undo reaches across sessions. */
export function useLessonDocument(record: LessonRecord): LessonDocument {
  const { doc, saving, edit, undo, redo, canUndo, canRedo, resolve } = useSavedDocument(
    () => lessonKind(record.id),
    record,
  )
  const editWith = useCallback<LessonDocument['edit']>(
    (change, typing) => edit((d) => kitFollows(d, toldFollow(d, answersFollow(d, change(d)))), typing),
    [edit],
  )
  return { doc, state: saving, edit: editWith, undo, redo, canUndo, canRedo, resolve }
}
