import type { Router } from 'express'
import type { Evidence, Judged } from '@awlbox/core/judge/standing'
import { standing } from '@awlbox/core/judge/standing'
import { checkAnswer } from '@awlbox/core/look/answers'
import { groupsFor } from '@awlbox/core/next/groups'
import { ladder as ideas } from '@awlbox/core/plan/ladder/ladder'
import { classById, classEvidence } from '../look/store.ts'
import { mayClass } from '../platform/access.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'

const day = 86_400_000
type Source = Awaited<ReturnType<typeof classEvidence>>

/** What one answer says, when it says anything: blank and unreadable answers are no evidence. */
function evidenceOf(src: Source): (Evidence & { childId: string; ideaId: string; words: string; lessonId: string; title: string })[] {
  return src.sent.flatMap((r) => r.pack.tasks.flatMap((task) => {
    const answer = r.answers.find((a) => a.taskId === task.id)
    const check = checkAnswer(task, answer, answer?.photoId ? (src.readings.get(answer.photoId) ?? null) : null)
    if (check.verdict !== 'right' && check.verdict !== 'wrong') return []
    const judged = src.told.find((j) => j.replyId === r.id)
    const rung = judged?.rung ?? (task.spec.kind === 'photo' ? 'things' : task.spec.kind === 'choice' ? 'picture' : 'head')
    return [{
      id: `${r.id}:${task.id}`, at: r.at.getTime(), kind: task.spec.kind, ...(task.spec.kind === 'choice' ? { choices: task.spec.choices.length } : {}),
      right: check.verdict === 'right', help: r.help ?? 'nudged', rung, childId: r.childId, ideaId: r.pack.ideaId, lessonId: r.lessonId, title: r.pack.title,
      words: `${task.prompt} ${check.shown}${check.why ? ` (${check.why})` : ''}`,
    }]
  }))
}

export function nextRoutes(router: Router, s: Services): void {
  personRoute(router, s, 'get', '/api/classes/:classId/standing', null, async ({ req, person, params }) => {
    await mayClass(s.db, person, params.classId!, 'read')
    const src = await classEvidence(s.db, params.classId!)
    const evidence = evidenceOf(src)
    const now = Date.now()
    const rows = src.kids.map((child) => ({
      childId: child.id, name: child.name,
      ideas: Object.fromEntries(ideas.map((idea) => {
        const mine = evidence.filter((e) => e.childId === child.id && e.ideaId === idea.id)
        const told = src.told.filter((j) => j.childId === child.id && j.ideaId === idea.id).map((j): Judged & { note: string } => ({ ...j, at: j.at.getTime() }))
        return [idea.id, {
          ...standing(mine, told, now),
          trail: [
            ...told.map((j) => ({ id: j.id, at: j.at, words: `${j.by}: ${j.level}, ${j.help}, ${j.rung}${j.note ? ` — ${j.note}` : ''}`, kind: 'judgement' as const, right: null as boolean | null, title: '' })),
            ...mine.map((e) => ({ id: e.id, at: e.at, words: `${e.words}, ${e.help}`, kind: 'answer' as const, right: e.right as boolean | null, title: e.title })),
          ].sort((a, b) => b.at - a.at),
        }]
      })),
      last: Math.max(0, ...src.sent.filter((r) => r.childId === child.id).map((r) => r.at.getTime())) || null,
    }))
    const asked = String(req.query.idea ?? '')
    const idea = ideas.find((i) => i.id === asked) ?? ideas[1]!
    return {
      class: await classById(s.db, params.classId!), ideas: ideas.map(({ id, name }) => ({ id, name })), rows, idea: idea.id,
      groups: groupsFor(rows.map((r) => ({ childId: r.childId, name: r.name, standing: r.ideas[idea.id]!, quietDays: r.last ? Math.floor((now - r.last) / day) : null }))),
    }
  })
}
