import fs from 'node:fs'
import path from 'node:path'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { emptyReading } from '@awlbox/core/contracts/reading'
import type { PackTask } from '@awlbox/core/contracts/pack'
import type { Answer } from '@awlbox/core/contracts/reply'
import { evidenceOf } from '@awlbox/core/judge/evidence'
import { propose } from '@awlbox/core/judge/proposal'
import { checksOf } from '@awlbox/core/look/checks'
import { laidOf } from '@awlbox/core/look/laid'
import { ladder } from '@awlbox/core/plan/ladder/ladder'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { packOf, shownTasks } from '@awlbox/core/send/pack'
import { solve } from '../../standins/homes/solve.ts'
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
function replied(file: string, ability: number) {
  const lesson = lessonOf(file)
  const pack = packOf(lesson, ladder, defaultHouseStyle)
  let n = 0
  const random = (of: number) => (n++ * 7 + 3) % of
  const answers = pack.tasks.flatMap((t): Answer[] => {
    if (t.spec.kind === 'photo') return [{ taskId: t.id, kind: 'photo', photoId: `photo ${t.id}` }]
    const answer = said(t, ability > 0.5, random)
    return answer ? [answer] : []
  })
  // What is seen in each photo: as many as the task asks for, or one fewer.
  const readings = new Map(
    pack.tasks.flatMap((t) => {
      if (t.spec.kind !== 'photo') return []
      const count = Math.max(0, t.spec.things - (ability > 0.5 ? 0 : 1))
      const laid = laidOf(t)
      const groups =
        laid?.as === 'gone'
          ? [count - laid.go, laid.go]
          : laid?.as === 'shares'
            ? Array.from({ length: laid.plates }, () => count / laid.plates)
            : laid?.as === 'parts'
              ? (laid.split ?? [count - laid.parts + 1, ...Array.from({ length: laid.parts - 1 }, () => 1)])
              : [count]
      return [
        [
          `photo ${t.id}`,
          { ...emptyReading({ width: 800, height: 600 }), count, low: count, high: count, places: groups },
        ],
      ] as const
    }),
  )
  const checks = checksOf(pack.tasks, answers, readings)
  const evidence = evidenceOf(
    { id: 'r', childId: 'c', lessonId: 'l', at: new Date(0), pack, answers, help: 'alone', rung: null },
    readings,
  )
  return { lesson, pack, answers, checks, evidence }
}

describe('every kind of lesson', () => {
  test('is there', () => expect(files.length).toBeGreaterThanOrEqual(21))
  test.each(files)('%s: what comes back is looked at by what was asked, and moves its idea', (file) => {
    const { lesson, checks, evidence } = replied(file, 1)
    expect(checks.length, 'asks for something back').toBeGreaterThan(0)
    // A sound child is never wrong; what no rule can tell is for a person, not left out.
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
  test.each(files)('%s: a child that cannot do it yet is not taken for one that can', (file) => {
    const { checks, evidence } = replied(file, 0)
    expect(checks.some((c) => c.check.verdict === 'wrong' || c.check.verdict === 'look')).toBe(true)
    expect(evidence.length === 0 || evidence.some((e) => !e.right)).toBe(true)
  })
})
