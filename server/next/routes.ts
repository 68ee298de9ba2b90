import type { Router } from 'express'
import * as api from '@awlbox/core/contracts/api/next'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Idea } from '@awlbox/core/contracts/idea'
import { groupsFor, readyFor } from '@awlbox/core/next/groups'
import { aimOfIdea } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { exampleSentence } from '@awlbox/core/plan/numbers/facts'
import { classById } from '../look/store.ts'
import { mayChild, mayClass } from '../platform/access.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { houseStyleOf, ladderOf } from '../settings/store.ts'
import { draftLesson } from './draft.ts'
import { evidenceIn, standingsOf, toldOf, unseen } from './standing.ts'
import { addOverride, evidenceFor, kidsOf, sentIdeas } from './standing-store.ts'
import { thinkingOf } from './thinking.ts'

const day = 86_400_000
const fewIdeas = 5

export function nextRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.classStanding, async ({ person, params, query }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const now = Date.now()
    const [kids, sent, ladder, style] = await Promise.all([
      kidsOf(s.db, params.classId),
      sentIdeas(s.db, params.classId),
      ladderOf(s.db, person.settingId),
      houseStyleOf(s.db, person.settingId),
    ])
    const standings = await standingsOf(
      s.db,
      kids.map((k) => k.id),
      ladder,
      now,
    )
    const met = new Set([...sent, ...[...standings.values()].flatMap((m) => [...m.keys()])])
    const ideas = ladder.filter((i) => met.has(i.id))
    const rows = kids.map((k) => ({
      childId: k.id,
      name: k.name,
      ideas: Object.fromEntries(ideas.map((i) => [i.id, standings.get(k.id)!.get(i.id) ?? unseen])),
      last: k.last === null ? null : new Date(k.last).getTime(),
    }))
    const idea =
      ideas.find((i) => i.id === query.idea) ?? ideas.find((i) => i.id === sent.at(-1)) ?? ideas.at(-1)
    const numbers = idea ? numbersFor(idea, style) : null
    const groups = idea
      ? groupsFor(
          rows.map((r) => ({
            childId: r.childId,
            name: r.name,
            standing: r.ideas[idea.id]!,
            quietDays: r.last ? Math.floor((now - r.last) / day) : null,
          })),
        )
      : []
    return {
      class: (await classById(s.db, params.classId))!,
      ideas: ideas.map(({ id, name }) => ({ id, name })),
      rows,
      idea: idea?.id ?? '',
      groups: groups.map((g) => ({
        ...g,
        children: g.children.map(({ set, ...c }) => ({
          ...c,
          numbers: `${set}${numbers?.[set] ? `: ${numbers[set]}` : ''}`,
        })),
      })),
      readyFor: readyFor(ladder, [...standings.values()]).slice(0, fewIdeas),
    }
  })
  personRoute(router, s, api.evidence, async ({ person, params: { childId, ideaId } }) => {
    await mayChild(s.db, person, childId, 'read')
    const ladder = await ladderOf(s.db, person.settingId)
    const [standings, src] = await Promise.all([
      standingsOf(s.db, [childId], ladder, Date.now()),
      evidenceFor(s.db, [childId], [ideaId]),
    ])
    const lessonOf = new Map(src.sent.map((r) => [r.id, r]))
    const trail = [
      ...toldOf(src, childId, ideaId).map((j) => {
        const replyId = 'replyId' in j ? (j.replyId as string) : null
        return {
          id: j.id,
          at: j.at,
          words: j.override
            ? `${j.by}, of the child: ${j.level}${j.note ? ` — ${j.note}` : ''}`
            : `${j.by}: ${j.level}, ${j.help}, ${j.rung}${j.note ? ` — ${j.note}` : ''}`,
          kind: j.override ? ('override' as const) : ('judgement' as const),
          right: null,
          title: (replyId && lessonOf.get(replyId)?.pack.title) ?? '',
          lessonId: (replyId && lessonOf.get(replyId)?.lessonId) || null,
          replyId,
        }
      }),
      ...evidenceIn(src).map((e) => ({
        id: e.id,
        at: e.at,
        words: `${e.words}, ${e.help}`,
        kind: 'answer' as const,
        right: e.right,
        title: e.title,
        lessonId: e.lessonId,
        replyId: e.id.split(':')[0]!,
      })),
    ].sort((a, b) => b.at - a.at)
    return { standing: standings.get(childId)!.get(ideaId) ?? unseen, trail }
  })
  personRoute(router, s, api.override, async ({ person, params, body }) => {
    await mayChild(s.db, person, params.childId, 'change')
    return { id: await addOverride(s.db, { ...params, ...body, byId: person.id }) }
  })
  personRoute(router, s, api.draftNext, async ({ person, params, body }) => {
    await mayClass(s.db, person, params.classId, 'change')
    return { id: await draftLesson(s.db, person, params.classId, body) }
  })
  personRoute(router, s, api.thinking, async ({ person, params }) => {
    await mayChild(s.db, person, params.childId, 'read')
    return thinkingOf(s.db, params.childId, await houseStyleOf(s.db, person.settingId))
  })
}
/** The numbers of an idea's three sets, as they are said; null where none can be found. */
function numbersFor(idea: Idea, style: HouseStyle): Partial<Record<string, string>> | null {
  const house = { zero: style.zeroIsPart, turnRounds: style.turnRoundsCount }
  const found = findExamples(aimOfIdea(idea, house), { ...house, seed: 1 })
  return found.ok
    ? Object.fromEntries(found.sets.map((set) => [set.level, set.examples.map(exampleSentence).join(', ')]))
    : null
}
