import { afterAll, beforeAll, expect, test } from 'vitest'
import { householdOf } from '@awlbox/standins/homes/household'
import { letTheStreetReply } from '@awlbox/standins/homes/street'
import { openTestApp, populate, type TestApp } from '../testing.ts'
import { homeToken } from '../platform/tokens.ts'
import { homesOf } from './store.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
const L = () => `/api/lessons/${world.here.lessonId}`
const homes = 14
beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
  await world.teacher.call('POST', `/api/classes/${world.here.classId}/children`, {
    children: Array.from({ length: homes }, (_, i) => ({ given: `Child ${i}`, home: `House ${i}` })),
  })
  await world.teacher.call('POST', `${L()}/publish`, { withFilm: false })
})
afterAll(() => app.close())

interface Came {
  childId: string
  couldNot: boolean
  help: string
  answers: unknown[]
  photos: unknown[]
}
test('a street replies as its seed has it: nothing lost, nothing doubled, and again the same', async () => {
  const all = await homesOf(app.db, world.here.lessonId)
  const here = all.filter((h) => h.home.startsWith('House'))
  const tokens = here.map((h) => homeToken(app.secret, h.householdId, h.linkVersion))
  const [sent] = (await world.teacher.call('GET', `${L()}/send`)).body.sent as { id: string }[]
  // One with each manner among so few.
  const seed = 2
  const walk = () => letTheStreetReply({ address: app.address, tokens, packId: sent!.id, seed, atOnce: 5 })
  const walked = await walk()
  expect(walked.failed).toEqual([])
  const came = async () =>
    ((await world.teacher.call('GET', `${L()}/replies`)).body as unknown as { items: Came[] }).items
  const first = await came()
  const by = new Map(first.map((r) => [r.childId, r]))
  here.forEach((h, n) => {
    const home = householdOf(seed, n)
    const reply = by.get(h.childId)
    expect([n, home.manner, reply !== undefined]).toEqual([
      n,
      home.manner,
      home.manner !== 'silent' && home.manner !== 'half',
    ])
    if (!reply) return
    expect(reply.help).toBe(home.help)
    expect(reply.couldNot).toBe(home.manner === 'could not')
    if (home.manner === 'dropped' && home.photo) expect(reply.photos.length).toBe(1)
  })
  // The same street a second time is the same replies.
  expect((await walk()).failed).toEqual([])
  const again = await came()
  expect(again.length).toBe(first.length)
  expect(again.map((r) => r.photos)).toEqual(first.map((r) => r.photos))
})
