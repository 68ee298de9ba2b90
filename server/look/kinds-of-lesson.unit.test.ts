import fs from 'node:fs'
import path from 'node:path'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import type { PackTask } from '@awlbox/core/contracts/pack'
import type { Answer } from '@awlbox/core/contracts/reply'
import { evidenceOf } from '@awlbox/core/judge/evidence'
import { propose } from '@awlbox/core/judge/proposal'
import { checksOf } from '@awlbox/core/look/checks'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { seeded } from '@awlbox/core/plan/seeded'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { packOf, shownTasks } from '@awlbox/core/send/pack'
import { laidFrom } from '../../standins/homes/laying.ts'
import { type PhotoPlan, standInPhoto } from '../../standins/homes/photo.ts'
import { solve } from '../../standins/homes/solve.ts'
import { photoPixels } from '../platform/media/photo-pixels.ts'
import { photoEyes } from '../platform/media/seeing.ts'
import { projectRoot } from '../platform/root.ts'

const folder = path.join(projectRoot, 'core/lessons')
const files = fs.readdirSync(folder).filter((f) => f.endsWith('.md'))
const lessonOf = (file: string) => {
  let n = 0
  return fromMarkdown(fs.readFileSync(path.join(folder, file), 'utf8'), () => `s${n++}`).lesson
}
/** A number or a choice as its key has it, or one beside it; everything else as a stand-in home gives it. */
function said(task: PackTask, sound: boolean, random: (of: number) => number): Answer | null {
  const { spec } = task
  const base = { taskId: task.id, kind: spec.kind }
  if (spec.kind === 'number') return { ...base, text: String(spec.answer + (sound ? 0 : 1)) }
  if (spec.kind === 'choice')
    return {
      ...base,
      choice: sound
        ? spec.answer
        : spec.choices.findIndex((_, i) => i !== spec.answer && !spec.also?.includes(i)),
    }
  const home = { ability: sound ? 1 : 0, belief: 'one too few' as const, words: 'We did it at the table.' }
  return solve(shownTasks({ tasks: [task] })[0]!, home, random)
}
/** What a home answers to every task of a lesson, and what is seen in its photos. */
async function replied(file: string, sound: boolean) {
  const lesson = lessonOf(file)
  const pack = packOf(lesson, ladder, defaultHouseStyle)
  const random = seeded(sound ? 3 : 8)
  const readings = new Map<string, PhotoReading>()
  const answers: Answer[] = []
  for (const t of pack.tasks) {
    if (t.spec.kind === 'photo') {
      const photoId = `photo ${t.id}`
      const { things, laying } = laidFrom(t.prompt, sound, random)
      readings.set(
        photoId,
        await seen({ saffron: things >> 1, blue: things - (things >> 1), seed: 8, laying }),
      )
      answers.push({ taskId: t.id, kind: 'photo', photoId })
    } else {
      const answer = said(t, sound, random)
      if (answer) answers.push(answer)
    }
  }
  const checks = checksOf(pack.tasks, answers, readings)
  const evidence = evidenceOf(
    { id: 'r', childId: 'c', lessonId: 'l', at: new Date(0), pack, answers, help: 'alone', rung: null },
    readings,
  )
  return { lesson, checks, evidence }
}
/** A photo as a home's phone makes it, read as the server reads it. */
async function seen(plan: PhotoPlan): Promise<PhotoReading> {
  const { data, width, height } = await photoPixels(await standInPhoto({ ...plan, width: 1000 }))
  return readPhoto(data, width, height, await photoEyes())
}

describe('every kind of lesson', () => {
  test('is there', () => expect(files.length).toBeGreaterThanOrEqual(21))
  test.each(files)('%s: what comes back is looked at by what was asked, and moves its idea', async (file) => {
    const { lesson, checks, evidence } = await replied(file, true)
    expect(checks.length, 'asks for something back').toBeGreaterThan(0)
    // A sound child is never wrong, and its photo lies as was asked; what no rule can tell is for a person, not left out.
    expect(
      checks.filter((c) => c.task.spec.kind === 'photo' && c.check.verdict !== 'right').map((c) => c.check),
    ).toEqual([])
    expect(checks.filter((c) => c.check.verdict === 'wrong').map((c) => [c.task.prompt, c.check])).toEqual([])
    expect(checks.filter((c) => c.check.verdict === 'open').map((c) => c.task.prompt)).toEqual([])
    expect(evidence.length, 'tells of the child').toBeGreaterThan(0)
    expect(new Set(evidence.map((e) => e.ideaId))).toEqual(new Set([lesson.ideaId]))
    expect(evidence.every((e) => e.right)).toBe(true)
    expect(
      propose(
        checks.map((c) => c.check),
        'alone',
        'things',
      )?.level,
    ).not.toBe('not yet')
  })
  test.each(files)('%s: a child that cannot do it yet is not taken for one that can', async (file) => {
    const { checks, evidence } = await replied(file, false)
    expect(checks.some((c) => c.check.verdict === 'wrong' || c.check.verdict === 'look')).toBe(true)
    expect(evidence.length === 0 || evidence.some((e) => !e.right)).toBe(true)
  })
})
