import { randomUUID } from 'node:crypto'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { packOf } from '../core/send/pack.ts'
import { ladder } from '../core/plan/ladder/ladder.ts'
import { createLesson } from '../server/lessons/store.ts'
import { children, households, judgements, publications, replies } from '../server/platform/schema.ts'
import { openTestApp, populate, sampleLesson } from '../server/testing.ts'

/**
 * Whether five years open as fast as a few weeks: the Shelf, a class's standing and one lesson's replies, thirty children,
 * first with a term's sixty lessons, then with 770 and some 7,400 replies. Each as the median of nine, and as a ratio.
 * Needs AWLBOX_TEST_PG and AWLBOX_BLOBS, as ./awlbox test sets them. `node --import tsx bench/years.ts`
 */
const app = await openTestApp()
const { here, teacher } = await populate(app)
const byId = here.teacher()
const homes = await app.db
  .insert(households)
  .values(Array.from({ length: 30 }, (_, i) => ({ settingId: here.setting.id, name: `House ${i}` })))
  .returning()
const kids = await app.db
  .insert(children)
  .values(
    homes.map((h, i) => ({
      classId: here.classId,
      householdId: h.id,
      given: `Child ${i}`,
      name: `Child ${i}`,
    })),
  )
  .returning()
const ideas = ladder.filter((i) => i.structure === 'parts' || i.structure === 'add').map((i) => i.id)
const doc = sampleLesson()
const pack = packOf(doc, ladder, defaultHouseStyle)
const task = pack.tasks.find((t) => t.spec.kind === 'number')!
const day = 86_400_000
async function lessons(from: number, to: number): Promise<string> {
  let last = ''
  for (let n = from; n < to; n++) {
    const at = new Date(Date.now() - (to - n) * 2 * day)
    last = await createLesson(app.db, {
      classId: here.classId,
      day: at.toISOString().slice(0, 10),
      doc: { ...doc, title: `Lesson ${n}` },
      byId,
      style: defaultHouseStyle,
    })
    const [p] = await app.db
      .insert(publications)
      .values({
        lessonId: last,
        lessonRevision: 1,
        pack: { ...pack, ideaId: ideas[n % ideas.length]! },
        byId,
        sentAt: at,
      })
      .returning()
    const made = await app.db
      .insert(replies)
      .values(
        kids.slice(n % 3, (n % 3) + 10).map((k, i) => ({
          publicationId: p!.id,
          childId: k.id,
          key: randomUUID(),
          answers: [{ taskId: task.id, kind: 'number' as const, text: String(i % 4 ? 3 : 4) }],
          help: 'alone' as const,
          receivedAt: at,
        })),
      )
      .returning()
    await app.db.insert(judgements).values(
      made.map((r) => ({
        replyId: r.id,
        childId: r.childId,
        ideaId: ideas[n % ideas.length]!,
        level: 'nearly' as const,
        help: 'alone' as const,
        rung: 'things' as const,
        byId,
        at,
      })),
    )
  }
  return last
}
async function timed(path: string): Promise<{ ms: number; kb: number }> {
  const times: number[] = []
  let kb = 0
  for (let i = 0; i < 10; i++) {
    const from = performance.now()
    const { body, status } = await teacher.call('GET', path)
    if (status !== 200) throw new Error(`${path}: ${status}`)
    times.push(performance.now() - from)
    kb = JSON.stringify(body).length / 1000
  }
  // The first works out what changed; it is told apart.
  const rest = times.slice(1).sort((a, b) => a - b)
  return { ms: rest[4]!, kb }
}
const paths = (lesson: string) =>
  ({
    Shelf: '/api/shelf',
    'a class’s standing': `/api/classes/${here.classId}/standing`,
    'replies of a lesson': `/api/lessons/${lesson}/replies`,
    'one child': `/api/children/${kids[3]!.id}/progress`,
  }) as const
const all = async (lesson: string) => {
  const out: Record<string, { ms: number; kb: number }> = {}
  for (const [name, path] of Object.entries(paths(lesson))) out[name] = await timed(path)
  return out
}
const few = await all(await lessons(0, 60))
const last = await lessons(60, 770)
await app.pool.query('analyze')
const many = await all(last)
for (const name of Object.keys(few))
  console.log(
    `${name.padEnd(22)} ${few[name]!.ms.toFixed(0).padStart(5)} ms, ${few[name]!.kb.toFixed(0)} kB  →  ${many[name]!.ms.toFixed(0).padStart(5)} ms, ${many[name]!.kb.toFixed(0)} kB   ratio ${(many[name]!.ms / few[name]!.ms).toFixed(2)}`,
  )
await app.close()
