import { createHash } from 'node:crypto'
import type { Router } from 'express'
import Papa from 'papaparse'
import * as api from '@awlbox/core/contracts/api/progress'
import { fairness } from '@awlbox/core/judge/fairness'
import { checksOf } from '@awlbox/core/look/checks'
import { readLine } from '@awlbox/core/look/line'
import { reportFor } from '@awlbox/core/next/report'
import { statementOf } from '@awlbox/core/next/statements'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { languageOf } from '@awlbox/core/send/words/words'
import { photosIn } from '../look/store.ts'
import { mayChild, mayClass } from '../platform/access.ts'
import { hereOf } from '../platform/reach.ts'
import { notFound } from '../platform/problem.ts'
import { personRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { ladderOf } from '../settings/store.ts'
import {
  childWithClass,
  circumstancesOf,
  judgementsOfClass,
  newestJudgements,
  repliesOfChild,
} from './progress-store.ts'
import { reportPdf } from './report-pdf.ts'
import { evidenceIn, standingsOf } from './standing.ts'
import { evidenceFor, kidsOf } from './standing-store.ts'
import { thinkingOf } from './thinking.ts'

/** Replies of a child that are shown at once, and the most there can be. */
const [newest, everything] = [40, 5000]
/** A child through time, and what is taken along: reports, tables, statements. */
export function progressRoutes(router: Router, s: Services): void {
  personRoute(router, s, api.progress, async ({ person, params, query }) => {
    await mayChild(s.db, person, params.childId, 'read')
    const child = await childWithClass(s.db, params.childId)
    if (!child) throw notFound('This child')
    const ladder = await ladderOf(s.db, person.settingId)
    const most = query.all ? everything : newest
    const [standings, found] = await Promise.all([
      standingsOf(s.db, [child.id], ladder, Date.now()),
      repliesOfChild(s.db, child.id, most + 1),
    ])
    const sent = found.slice(0, most)
    const [judged, photos] = await Promise.all([
      newestJudgements(
        s.db,
        sent.map((r) => r.id),
      ),
      photosIn(
        s.db,
        sent.flatMap((r) => r.answers.flatMap((a) => (a.photoId ? [a.photoId] : []))),
      ),
    ])
    const readings = new Map(photos.map((p) => [p.id, p.reading]))
    const mine = standings.get(child.id)!
    return {
      child: { id: child.id, name: child.name, classId: child.classId, className: child.className ?? '' },
      ideas: [
        ...ladder
          .filter((i) => mine.has(i.id))
          .map(({ id, name }) => ({ id, name, standing: mine.get(id)! })),
        // An idea that has left the ladder keeps what was seen of it.
        ...[...mine]
          .filter(([id]) => !ladder.some((i) => i.id === id))
          .map(([id, standing]) => ({ id, name: id, standing })),
      ],
      replies: sent.map((r) => {
        const checks = checksOf(r.pack.tasks, r.answers, readings).flatMap((c) => (c.answer ? [c.check] : []))
        const j = judged.find((x) => x.replyId === r.id)
        const { pack, answers, ...kept } = r
        return {
          ...kept,
          title: pack.title,
          photoId: answers.find((a) => a.photoId && readings.has(a.photoId))?.photoId ?? null,
          right: checks.filter((c) => c.verdict === 'right').length,
          said: checks.filter((c) => c.verdict === 'right' || c.verdict === 'wrong').length,
          judged: j ? { level: j.level, help: j.help, rung: j.rung, note: j.note } : null,
        }
      }),
      older: found.length > most,
      lines: [...sent].reverse().flatMap((r) => linesOf(r)),
    }
  })
  personRoute(router, s, api.report, async ({ res, person, params }) => {
    await mayChild(s.db, person, params.childId, 'read')
    const child = await childWithClass(s.db, params.childId)
    if (!child) throw notFound('This child')
    const ladder = await ladderOf(s.db, person.settingId)
    const mine = (await standingsOf(s.db, [child.id], ladder, Date.now())).get(child.id)!
    const thinking = await thinkingOf(s.db, child.id, person.houseStyle)
    const parts = reportFor(
      child.name,
      ladder.filter((i) => mine.has(i.id)).map((i) => ({ name: i.name, standing: mine.get(i.id)! })),
      thinking.named.map((n) => n.next),
    )
    const day = new Date().toLocaleDateString('en-GB', { day: 'numeric', month: 'long', year: 'numeric' })
    res
      .type('application/pdf')
      .attachment(`${child.name}.pdf`)
      .send(await reportPdf({ child: child.name, setting: person.settingName, day }, parts))
  })
  personRoute(router, s, api.fairnessOf, async ({ person, params }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const rows = await circumstancesOf(s.db, params.classId)
    return {
      items: fairness(rows.map((r) => ({ ...r, otherLanguage: languageOf(r.languages) !== 'en' }))),
    }
  })
  personRoute(router, s, api.judgementsCsv, async ({ res, person, params }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const ladder = await ladderOf(s.db, person.settingId)
    const rows = (await judgementsOfClass(s.db, params.classId)).map((j) => ({
      at: j.at.toISOString(),
      child: j.child,
      lesson: j.lesson,
      idea: j.ideaId,
      idea_name: ideaById(j.ideaId, ladder)?.name ?? j.ideaId,
      level: j.level,
      help: j.help,
      rung: j.rung,
      note: j.note,
      by: j.by,
    }))
    res
      .type('text/csv; charset=utf-8')
      .attachment('judgements.csv')
      .send(Papa.unparse(rows, { escapeFormulae: true }))
  })
  personRoute(router, s, api.standingsCsv, async ({ res, person, params }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const ladder = await ladderOf(s.db, person.settingId)
    const kids = await kidsOf(s.db, params.classId)
    const all = await standingsOf(
      s.db,
      kids.map((k) => k.id),
      ladder,
      Date.now(),
    )
    const rows = kids.flatMap((k) =>
      [...all.get(k.id)!].map(([ideaId, x]) => ({
        child: k.name,
        idea: ideaId,
        idea_name: ideaById(ideaId, ladder)?.name ?? ideaId,
        word: x.word,
        level: x.level.toFixed(3),
        low: x.low.toFixed(3),
        high: x.high.toFixed(3),
        occasions: x.occasions,
        judged: x.judged,
        ready: x.ready,
        because: x.because,
      })),
    )
    res
      .type('text/csv; charset=utf-8')
      .attachment('standings.csv')
      .send(Papa.unparse(rows, { escapeFormulae: true }))
  })
  personRoute(router, s, api.statements, async ({ req, res, person, params }) => {
    await mayClass(s.db, person, params.classId, 'read')
    const ladder = await ladderOf(s.db, person.settingId)
    const kids = await kidsOf(s.db, params.classId)
    const src = await evidenceFor(
      s.db,
      kids.map((k) => k.id),
      null,
    )
    const home = hereOf(s, req)
    const idea = (id: string) => ideaById(id, ladder)?.name ?? id
    const lines = [
      ...evidenceIn(src).map((e) => ({
        id: uuidFrom(e.id),
        at: new Date(e.at).toISOString(),
        childId: e.childId,
        ideaId: e.ideaId,
        idea: idea(e.ideaId),
        lesson: e.title,
        words: e.words,
        right: e.right,
        level: null,
        help: e.help,
        rung: e.rung,
      })),
      ...src.told.map((j) => ({
        id: j.id,
        at: j.at.toISOString(),
        childId: j.childId,
        ideaId: j.ideaId,
        idea: idea(j.ideaId),
        lesson: src.sent.find((r) => r.id === j.replyId)?.pack.title ?? '',
        words: j.note,
        right: null,
        level: j.level,
        help: j.help,
        rung: j.rung,
      })),
    ].sort((a, b) => a.at.localeCompare(b.at))
    res
      .type('application/x-ndjson')
      .attachment('statements.jsonl')
      .send(lines.map((l) => `${JSON.stringify(statementOf(l, home))}\n`).join(''))
  })
}
/** The same statement has the same id each time it is written. */
const uuidFrom = (text: string): string => {
  const h = createHash('sha256').update(text).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-a${h.slice(17, 20)}-${h.slice(20, 32)}`
}
type Sent = Awaited<ReturnType<typeof repliesOfChild>>[number]
function linesOf(r: Sent): { at: Date; title: string; mean: number; statement: string }[] {
  return r.pack.tasks.flatMap((t) => {
    if (t.spec.kind !== 'line') return []
    const given = r.answers.find((a) => a.taskId === t.id)?.given ?? []
    const placed = t.spec.marks.flatMap((number, i) => {
      const at = given[i]?.trim() ? Number(given[i]) : NaN
      return Number.isFinite(at) ? [{ number, at }] : []
    })
    if (!placed.length) return []
    const { mean, statement } = readLine(placed, t.spec.from, t.spec.to)
    return [{ at: r.at, title: r.pack.title, mean, statement }]
  })
}
