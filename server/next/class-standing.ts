import type { Idea } from '@awlbox/core/contracts/idea'
import { evidenceOf } from '@awlbox/core/judge/evidence'
import { type Judged, standing } from '@awlbox/core/judge/standing'
import { classEvidence } from '../look/store.ts'
import type { Db } from '../platform/db.ts'

/** Where every child of a class stands on the ideas it has met, with what each figure rests on. */
export async function classStanding(db: Db, classId: string, ladder: readonly Idea[], now: number) {
  const src = await classEvidence(db, classId)
  const evidence = src.sent.flatMap((r) =>
    evidenceOf({ ...r, rung: src.told.find((j) => j.replyId === r.id)?.rung ?? null }, src.readings),
  )
  const met = new Set([
    ...evidence.map((e) => e.ideaId),
    ...src.told.map((j) => j.ideaId),
    ...src.sent.map((r) => r.pack.ideaId),
  ])
  const ideas = ladder.filter((i) => met.has(i.id))
  const rows = src.kids.map((child) => ({
    childId: child.id,
    name: child.name,
    ideas: Object.fromEntries(
      ideas.map((idea) => {
        const mine = evidence.filter((e) => e.childId === child.id && e.ideaId === idea.id)
        const told = src.told
          .filter((j) => j.childId === child.id && j.ideaId === idea.id)
          .map((j): Judged & { note: string } => ({ ...j, at: j.at.getTime() }))
        return [
          idea.id,
          {
            ...standing(mine, told, now),
            trail: [
              ...told.map((j) => ({
                id: j.id,
                at: j.at,
                words: `${j.by}: ${j.level}, ${j.help}, ${j.rung}${j.note ? ` — ${j.note}` : ''}`,
                kind: 'judgement' as const,
                right: null as boolean | null,
                title: '',
              })),
              ...mine.map((e) => ({
                id: e.id,
                at: e.at,
                words: `${e.words}, ${e.help}`,
                kind: 'answer' as const,
                right: e.right,
                title: e.title,
              })),
            ].sort((a, b) => b.at - a.at),
          },
        ]
      }),
    ),
    last: Math.max(0, ...src.sent.filter((r) => r.childId === child.id).map((r) => r.at.getTime())) || null,
  }))
  return { ideas, rows }
}
