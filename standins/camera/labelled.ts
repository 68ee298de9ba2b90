import fs from 'node:fs'
import path from 'node:path'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import {
  type Habit,
  habits,
  type Slip,
  slips,
  type StandInRoom,
  standInRooms,
  type StandInVoice,
  standInVoices,
} from '@awlbox/core/contracts/stand-in'
import { type Lesson, type Segment, structures } from '@awlbox/core/contracts/lesson'
import { aimOf } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { seeded } from '@awlbox/core/plan/seeded'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { soundOf, type Sounded } from '../voice/beats.ts'
import { CannotSlip } from './slips.ts'
import { planTake } from './takes.ts'

/** A take whose slips are known: to try hearing on. */
export interface LabelledTake extends Sounded {
  seed: number
  lesson: Lesson
  segment: Segment
  asked: Slip[]
  habits: Habit[]
  voice: StandInVoice
  room: StandInRoom
}
const folder = path.resolve(import.meta.dirname, '../../core/lessons')
const written = fs
  .readdirSync(folder)
  .filter((f) => f.endsWith('.md'))
  .sort()

/** A lesson for a seed: three of four from the template with numbers of its own, else one of those written by hand. */
function lessonFor(random: (n: number) => number): Lesson {
  let n = 0
  const newId = () => `s${(n += 1)}`
  for (;;) {
    if (random(4) === 0)
      return fromMarkdown(fs.readFileSync(path.join(folder, written[random(written.length)]!), 'utf8'), newId)
        .lesson
    const structure = structures[random(structures.length)]!
    const aim = aimOf({ structure, upTo: [5, 7, 10, 10, 20][random(5)]!, count: 3 })
    const found = findExamples(aim, { zero: random(2) === 0, seed: random(1000) })
    if (found.ok)
      return fromTemplate({
        style: defaultHouseStyle,
        title: 'A take',
        ideaId: 'add-10',
        age: 3 + random(4),
        aim,
        examples: found.sets[random(found.sets.length)]!.examples,
        newId,
      })
  }
}

/**
 * The labelled take of a seed: a segment of some lesson with none to three slips, in one of four voices, at one of
 * several speeds, in one of four rooms, with a teacher's harmless habits now and then. The same seed gives the same take.
 * `wanted` puts one slip of that kind in it where any segment has a place for it.
 */
export async function labelledTake(seed: number, wanted: Slip | null): Promise<LabelledTake> {
  const random = seeded(seed * 7_919 + 11)
  for (;;) {
    const lesson = lessonFor(random)
    const segments = lesson.segments.filter((s) => s.audience === 'children' && s.steps.length >= 4)
    const segment = segments[random(segments.length)]
    if (!segment) continue
    const asked: Slip[] = wanted
      ? [wanted, ...Array.from({ length: random(3) }, () => slips[random(slips.length)]!)]
      : []
    const own = habits.filter(() => random(3) === 0)
    const voice = standInVoices[random(standInVoices.length)]!
    const room = standInRooms[random(standInRooms.length)]!
    const slowness = 1.05 + random(35) / 100
    for (let some = asked; ; some = some.slice(0, -1))
      try {
        const { beats } = planTake(lesson, segment.id, defaultHouseStyle, some, { seed, habits: own })
        return {
          ...(await soundOf(beats, voice, { slowness, room, seed })),
          seed,
          lesson,
          segment,
          asked: some,
          habits: own,
          voice,
          room,
        }
      } catch (error) {
        if (!(error instanceof CannotSlip)) throw error
        if (some.length <= 1) break
      }
  }
}
