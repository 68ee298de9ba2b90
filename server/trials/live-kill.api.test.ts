import { randomUUID } from 'node:crypto'
import { expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { createLesson } from '../lessons/store.ts'
import { children, households, liveAnswers } from '../platform/schema.ts'
import { homeToken } from '../platform/tokens.ts'
import { openLinks } from '../send/store.ts'
import { caller, sampleLesson } from '../testing.ts'
import { openSystem } from './system.ts'

test('the web falls in the middle of a round: what a home was told was received is there, the lesson goes on where it was, and a second try is one answer', async () => {
  const system = await openSystem()
  try {
    const { app, world, address } = system
    const { here } = world
    const homes = await app.db
      .insert(households)
      .values(
        Array.from({ length: 12 }, (_, i) => ({ settingId: here.setting.id, name: `${i + 1} Sorting Lane` })),
      )
      .returning()
    const kids = await app.db
      .insert(children)
      .values(
        homes.map((h, i) => ({ classId: here.classId, householdId: h.id, given: `C${i}`, name: `C${i}` })),
      )
      .returning()
    await openLinks(
      app.db,
      app.secret,
      homes.map((h) => h.id),
    )
    const lessonId = await createLesson(app.db, {
      classId: here.classId,
      day: '2026-11-28',
      doc: {
        ...sampleLesson('Live, and the web falls'),
        segments: [
          {
            id: 's',
            title: 'Parcels',
            kind: 'show',
            audience: 'children',
            steps: [{ id: 'a', verb: 'ask', text: 'How many parcels?', task: { kind: 'number', answer: 7 } }],
          },
        ],
      },
      byId: here.teacher(),
      style: defaultHouseStyle,
    })
    const teacher = caller(address, world.teacher.cookie)
    const liveId = (
      await teacher.call('POST', `/api/lessons/${lessonId}/live`, {
        startsAt: new Date().toISOString(),
        minutes: 20,
      })
    ).body.id as string
    const act = async (seq: number, one: unknown) =>
      (await teacher.call('POST', `/api/live/${liveId}/acts`, { seq, desk: 'd', act: one })).status
    expect([
      await act(0, { do: 'start' }),
      await act(1, { do: 'round', line: 0, show: 'card', think: 0 }),
    ]).toEqual([200, 200])
    const keys = homes.map(() => randomUUID())
    const send = (i: number) =>
      caller(address)
        .call('PUT', `/api/home/${homeToken(app.secret, homes[i]!.id, 1)}/live/${liveId}/rounds/r1`, {
          childId: kids[i]!.id,
          key: keys[i],
          answer: { taskId: 'r1', kind: 'number', text: '7' },
        })
        .then(
          (r) => r.status,
          () => 0,
        )
    let told = 0
    const first = await Promise.all(
      homes.map(async (_, i) => {
        const status = await send(i)
        if (status === 200 && (told += 1) === 4) await system.kill('web')
        return status
      }),
    )
    const kept = async () =>
      (await app.db.select().from(liveAnswers)).filter((a) => a.liveId === liveId).map((a) => a.childId)
    const before = new Set(await kept())
    expect(first.filter((s) => s === 200).length).toBeGreaterThan(3)
    first.forEach((status, i) => status === 200 && expect(before.has(kids[i]!.id)).toBe(true))
    await system.mend()
    // Phones try again with the same key, the desk goes on with the act it knows.
    expect(new Set(await Promise.all(homes.map((_, i) => send(i))))).toEqual(new Set([200]))
    expect((await kept()).sort()).toEqual(kids.map((k) => k.id).sort())
    expect(await act(2, { do: 'show' })).toBe(200)
    const { tally } = (await teacher.call('GET', `/api/live/${liveId}`)).body as { tally: { sent: string[] } }
    expect(tally.sent).toHaveLength(12)
  } finally {
    await system.close()
  }
})
