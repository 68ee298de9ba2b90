import type { Hearing } from '@awlbox/core/contracts/heard'
import type { TakeLooked } from '@awlbox/core/contracts/render'
import type { Sorting, TakeMark, TakeSound } from '@awlbox/core/contracts/take'
import type { Correction } from '@awlbox/core/film/corrections'
import type { FirstFrame } from '@awlbox/core/film/first-frame'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import type { LessonFacts, NextAct, Station } from '@awlbox/core/next/minutes'

export interface Me {
  name: string
  role: 'owner' | 'teacher'
  setting: string
  houseStyle: HouseStyle
  camera: boolean
  pace: number | null
}
export type Facts = LessonFacts & {
  lastFilmSeconds: number | null
  sentAt: string | null
  oldestWaiting: string | null
}
export type Sewn = Record<Station, 0 | 0.5 | 1>
export interface LessonRecord {
  id: string
  classId: string
  className: string
  day: string
  filmBy: string | null
  sendBy: string | null
  revision: number
  doc: Lesson
  facts: Facts
  sewn: Sewn
  act: NextAct
  mayChange: boolean
}
export interface TakeRecord {
  id: string
  segmentId: string | null
  number: number
  source: 'recorded' | 'uploaded' | 'stand-in'
  name: string | null
  part: { from: number; to: number } | null
  sorting: Sorting | null
  marks: TakeMark[]
  corrections: Correction[]
  sound: TakeSound | null
  looked: TakeLooked | null
  firstFrame: FirstFrame | null
  captioned: boolean
  seconds: number | null
  hasSound: boolean | null
  status: 'preparing' | 'ready' | 'refused'
  problem: string | null
  createdAt: string
  hearing: Hearing | null
  heardAtRevision: number | null
}
export interface JobRecord {
  id: string
  kind: 'film' | 'take' | 'render'
  subject: string
  data: { segmentId?: string }
  status: 'queued' | 'running' | 'done' | 'failed' | 'cancelled'
  step: string
  share: number
  problem: string | null
  startedAt: string | null
  createdAt: string
}
