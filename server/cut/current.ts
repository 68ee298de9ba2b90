import type { CutList } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { reconcile, type TakeFacts } from '@awlbox/core/cut/propose'
import { takeFacts } from '../film/store.ts'
import { houseStyleOf } from '../settings/store.ts'
import { lessonById } from '../lessons/store.ts'
import type { Db } from '../platform/db.ts'
import { cutOf } from './store.ts'

/** A lesson's cut as it stands: what is stored, in line with its script and its takes. */
export interface CurrentCut {
  lesson: Lesson
  takes: TakeFacts[]
  style: HouseStyle
  /** 0 while nothing was saved. */
  revision: number
  doc: CutList
}
/** Undefined when the lesson is gone. */
export async function currentCut(db: Db, lessonId: string): Promise<CurrentCut | undefined> {
  const [lesson, cut, takes] = await Promise.all([
    lessonById(db, lessonId),
    cutOf(db, lessonId),
    takeFacts(db, lessonId),
  ])
  if (!lesson) return undefined
  const style = await houseStyleOf(db, lesson.settingId)
  return {
    lesson: lesson.doc,
    takes,
    style,
    revision: cut?.revision ?? 0,
    doc: reconcile(cut?.doc ?? null, lesson.doc, takes, style),
  }
}
