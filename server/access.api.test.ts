import { randomUUID } from 'node:crypto'
import { afterAll, beforeAll, expect, test } from 'vitest'
import { allRoutes } from '@awlbox/core/contracts/api/all'
import { nobodyTried } from './platform/limits.ts'
import { routeList } from './platform/route.ts'
import { addTake } from './film/store.ts'
import { plainList } from '@awlbox/core/contracts/cut'
import { addRender } from './cut/store.ts'
import { jobs, people, takes } from './platform/schema.ts'
import { eq } from 'drizzle-orm'
import { type Caller, caller, openTestApp, populate, sampleLesson, type TestApp } from './testing.ts'

let app: TestApp
let world: Awaited<ReturnType<typeof populate>>
const id: Record<string, string> = {}

beforeAll(async () => {
  app = await openTestApp()
  world = await populate(app)
  const { here, teacher } = world
  const blob = await app.blobs.put(app.db, Buffer.from('film'), 'video/mp4')
  const segmentId = sampleLesson().segments[0]!.id
  id.take = await addTake(app.db, { lessonId: here.lessonId, segmentId, source: 'uploaded', original: blob })
  await app.db
    .update(takes)
    .set({ film: blob, seconds: 2, status: 'ready', peaks: Buffer.from([1]) })
    .where(eq(takes.id, id.take))
  id.spareTake = await addTake(app.db, {
    lessonId: here.lessonId,
    segmentId,
    source: 'uploaded',
    original: blob,
  })
  id.render = randomUUID()
  await addRender(app.db, {
    id: id.render,
    lessonId: here.lessonId,
    cutRevision: 1,
    film: blob,
    captions: blob,
    poster: blob,
    seconds: 2,
    bytes: 4,
  })
  const [job] = await app.db
    .insert(jobs)
    .values({
      settingId: here.setting.id,
      lessonId: here.lessonId,
      kind: 'render',
      subject: here.lessonId,
      data: {},
      status: 'done',
      step: 'done',
      share: 1,
    })
    .returning()
  id.job = job!.id
  await teacher.call('POST', `/api/lessons/${here.lessonId}/publish`, { withFilm: true })
  const home = caller(app.address)
  id.pack = ((await home.call('GET', `/api/home/${here.tokens[0]}`)).body.packs as { id: string }[])[0]!.id
  const sharp = (await import('sharp')).default
  const form = new FormData()
  form.set(
    'photo',
    new Blob([
      new Uint8Array(
        await sharp({ create: { width: 40, height: 30, channels: 3, background: '#a96' } })
          .jpeg()
          .toBuffer(),
      ),
    ]),
    'a.jpg',
  )
  id.photo = (await home.call('POST', `/api/home/${here.tokens[0]}/packs/${id.pack}/photos`, form)).body
    .id as string
  await teacher.call('POST', `/api/lessons/${here.lessonId}/letters`, { kind: 'nudge' })
  id.letter = (
    (await teacher.call('GET', `/api/lessons/${here.lessonId}/letters`)).body.items as { id: string }[]
  )[0]!.id
  await home.call('PUT', `/api/home/${here.tokens[0]}/packs/${id.pack}/reply`, {
    childId: here.kids[0]!.id,
    key: randomUUID(),
    answers: [],
    help: 'alone',
    words: '',
  })
  const staff = await app.db.select().from(people).where(eq(people.settingId, here.setting.id))
  id.colleague = staff.find((p) => p.name === 'Desh')!.id
  for (const name of ['spareChild', 'spareHome']) {
    const added = await teacher.call('POST', `/api/classes/${here.classId}/children`, {
      children: [{ given: name, home: name }],
    })
    const [child] = added.body.added as string[]
    const rows = (await teacher.call('GET', '/api/homes')).body.items as {
      id: string
      householdId: string
    }[]
    id[name] = name === 'spareChild' ? child! : rows.find((r) => r.id === child)!.householdId
  }
  id.live = (
    await teacher.call('POST', `/api/lessons/${here.lessonId}/live`, {
      startsAt: new Date().toISOString(),
      minutes: 30,
    })
  ).body.id as string
  id.segment = (await teacher.call('POST', '/api/library', { segment: sampleLesson().segments[0], age: 4 }))
    .body.id as string
  id.reply = (
    (await teacher.call('GET', `/api/lessons/${here.lessonId}/replies`)).body.items as { id: string }[]
  )[0]!.id
})
afterAll(() => app.close())

const actors = ['owner', 'teacher', 'colleague', 'stranger', 'home', 'otherHome', 'nobody'] as const
type Actor = (typeof actors)[number]
/** Statuses by actor. Staff of another setting never learn that a thing exists. Homes hold no session, so they are nobody here. */
const read = {
  owner: 200,
  teacher: 200,
  colleague: 200,
  stranger: 404,
  home: 401,
  otherHome: 401,
  nobody: 401,
}
const change = { ...read, colleague: 403 }
const owners = { ...change, teacher: 403 }
const nowhere = '00000000-0000-4000-8000-000000000000'
const any = {
  owner: 200,
  teacher: 200,
  colleague: 200,
  stranger: 200,
  home: 401,
  otherHome: 401,
  nobody: 401,
}
const open = {
  owner: 200,
  teacher: 200,
  colleague: 200,
  stranger: 200,
  home: 200,
  otherHome: 200,
  nobody: 200,
}
const usedUp = {
  owner: 410,
  teacher: 410,
  colleague: 410,
  stranger: 410,
  home: 410,
  otherHome: 410,
  nobody: 410,
}
/** Behind a home's link: who holds the link is let in, whoever else they are. The path carries the actor's own link, or none. */
const linked = {
  owner: 404,
  teacher: 404,
  colleague: 404,
  stranger: 404,
  home: 200,
  otherHome: 404,
  nobody: 404,
}

interface Case {
  expect: Record<Actor, number>
  path: () => string
  body?: () => unknown
  headers?: Record<string, string>
  whole?: boolean
}
const L = () => `/api/lessons/${world.here.lessonId}`
const meta = () =>
  `lessonId ${Buffer.from(world.here.lessonId).toString('base64')},segmentId ${Buffer.from('x1').toString('base64')}`
const H = (actor: Actor) =>
  `/api/home/${actor === 'home' ? world.here.tokens[0] : actor === 'otherHome' ? world.here.tokens[1] : 'A'.repeat(22)}`
const cases: Record<string, Case> = {
  'get /api/health': { expect: open, path: () => '/api/health' },
  'post /api/sign-in': {
    expect: {
      owner: 401,
      teacher: 401,
      colleague: 401,
      stranger: 401,
      home: 401,
      otherHome: 401,
      nobody: 401,
    },
    path: () => '/api/sign-in',
    body: () => ({ email: 'a@b.example', password: 'wrong' }),
  },
  'post /api/sign-out': { expect: open, path: () => '/api/sign-out' },
  // One-time addresses: a wrong one leads nowhere, whoever asks.
  'get /api/set-up/:link': { expect: usedUp, path: () => '/api/set-up/nothing-here' },
  'post /api/set-up/:link': {
    expect: usedUp,
    path: () => '/api/set-up/nothing-here',
    body: () => ({
      setting: { name: 'X', timeZone: 'UTC' },
      owner: { name: 'X', email: 'x@x.example', password: 'ten letters long' },
      class: { name: 'X', age: 4 },
      houseStyle: {},
      children: [],
    }),
  },
  'post /api/set-up/:link/owner': {
    expect: usedUp,
    path: () => '/api/set-up/nothing-here/owner',
    body: () => ({ name: 'X', email: 'x@x.example', password: 'ten letters long' }),
  },
  'get /api/me': { expect: any, path: () => '/api/me' },
  // Of oneself alone: everybody has an account, nobody another's.
  'get /api/me/account': { expect: any, path: () => '/api/me/account' },
  'put /api/me/account': { expect: any, path: () => '/api/me/account', body: () => ({ name: 'Same' }) },
  'delete /api/me/sessions/:sessionId': {
    expect: { ...any, owner: 404, teacher: 404, colleague: 404, stranger: 404 },
    path: () => `/api/me/sessions/${nowhere}`,
  },
  'delete /api/me/sessions': {
    expect: { ...any, owner: 401, teacher: 401, colleague: 401, stranger: 401 },
    path: () => '/api/me/sessions',
  },
  'get /api/people': { expect: any, path: () => '/api/people' },
  'post /api/people/invitations': {
    expect: { ...owners, stranger: 403 },
    path: () => '/api/people/invitations',
    body: () => ({ email: 'new@cobblegate.example', role: 'teacher' }),
  },
  'delete /api/people/invitations/:invitationId': {
    expect: { ...owners, owner: 404, stranger: 403 },
    path: () => `/api/people/invitations/${nowhere}`,
  },
  'post /api/people/:personId/password-link': {
    expect: { ...owners, stranger: 403 },
    path: () => `/api/people/${id.colleague}/password-link`,
  },
  'put /api/people/:personId/role': {
    expect: { ...owners, stranger: 403 },
    path: () => `/api/people/${id.colleague}/role`,
    body: () => ({ role: 'teacher' }),
  },
  'post /api/people/:personId/end': {
    expect: { ...owners, owner: 404, stranger: 403 },
    path: () => `/api/people/${nowhere}/end`,
    body: () => ({ classesTo: null }),
  },
  'get /api/join/:link': { expect: usedUp, path: () => '/api/join/nothing-here' },
  'post /api/join/:link': {
    expect: usedUp,
    path: () => '/api/join/nothing-here',
    body: () => ({ name: 'X', password: 'ten letters long' }),
  },
  'get /api/classes': { expect: any, path: () => '/api/classes' },
  'post /api/classes': {
    expect: { ...owners, stranger: 403 },
    path: () => '/api/classes',
    body: () => ({ name: 'Siskins', age: 5, teacherId: id.colleague }),
  },
  'put /api/classes/:classId': {
    expect: owners,
    path: () => `/api/classes/${world.here.classId}`,
    body: () => ({ age: 4 }),
  },
  'post /api/classes/:classId/covers': {
    expect: owners,
    path: () => `/api/classes/${world.here.classId}/covers`,
    body: () => ({ personId: id.colleague, from: '2020-01-01', until: '2020-01-02' }),
  },
  'delete /api/covers/:coverId': {
    expect: { ...owners, owner: 404, stranger: 403 },
    path: () => `/api/covers/${nowhere}`,
  },
  'post /api/year': {
    expect: { ...owners, stranger: 403 },
    path: () => '/api/year',
    body: () => ({ moves: [] }),
  },
  'post /api/year/:yearId/undo': {
    expect: { ...owners, owner: 409, stranger: 403 },
    path: () => `/api/year/${nowhere}/undo`,
  },
  'post /api/lessons/:lessonId/carry': {
    expect: change,
    path: () => `${L()}/carry`,
    body: () => ({ classId: world.here.classId, day: '2026-12-02' }),
  },
  'get /api/homes': { expect: any, path: () => '/api/homes' },
  'get /api/homes.csv': { expect: any, path: () => '/api/homes.csv' },
  'put /api/children/:childId': {
    // Of a state that is long gone, as told to whoever may change it.
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `/api/children/${world.here.kids[0]!.id}`,
    body: () => ({ revision: 99, change: { note: '' } }),
  },
  'post /api/classes/:classId/children': {
    expect: change,
    path: () => `/api/classes/${world.here.classId}/children`,
    body: () => ({ children: [{ given: 'Suri', home: 'Weir Lane' }] }),
  },
  'post /api/children/:childId/move': {
    expect: change,
    path: () => `/api/children/${world.here.kids[0]!.id}/move`,
    body: () => ({ classId: world.here.classId }),
  },
  'post /api/children/:childId/consents': {
    expect: change,
    path: () => `/api/children/${world.here.kids[0]!.id}/consents`,
    body: () => ({ kind: 'photos', given: true, giver: 'gran', day: '2026-11-01' }),
  },
  'get /api/children/:childId/consents': {
    expect: read,
    path: () => `/api/children/${world.here.kids[0]!.id}/consents`,
  },
  'get /api/children/:childId/kept': {
    expect: change,
    path: () => `/api/children/${world.here.kids[0]!.id}/kept`,
  },
  'get /api/children/:childId/export': {
    expect: change,
    path: () => `/api/children/${world.here.kids[0]!.id}/export`,
  },
  'delete /api/children/:childId': {
    // The owner comes first, and then it is gone.
    expect: { ...change, teacher: 404 },
    path: () => `/api/children/${id.spareChild}`,
  },
  'delete /api/households/:householdId': {
    expect: { ...change, teacher: 404 },
    path: () => `/api/households/${id.spareHome}`,
  },
  'get /api/record': { expect: { ...owners, stranger: 403 }, path: () => '/api/record' },
  'get /api/record.csv': { expect: { ...owners, stranger: 403 }, path: () => '/api/record.csv' },
  'get /api/keeping/times': { expect: any, path: () => '/api/keeping/times' },
  'put /api/keeping/times': {
    expect: { ...owners, stranger: 403 },
    path: () => '/api/keeping/times',
    body: () => ({ photos: 200 }),
  },
  'get /api/shelf': { expect: any, path: () => '/api/shelf' },
  'post /api/classes/:classId/lessons': {
    expect: change,
    path: () => `/api/classes/${world.here.classId}/lessons`,
    body: () => ({ day: '2026-11-27', doc: sampleLesson('Another') }),
  },
  'get /api/lessons/:lessonId': { expect: read, path: L },
  'put /api/lessons/:lessonId/doc': {
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `${L()}/doc`,
    body: () => ({ revision: 99, doc: sampleLesson() }),
  },
  'get /api/lessons/:lessonId/revisions': { expect: read, path: () => `${L()}/revisions` },
  'get /api/lessons/:lessonId/revisions/:revision': { expect: read, path: () => `${L()}/revisions/1` },
  'post /api/lessons/:lessonId/revisions/:revision/name': {
    expect: change,
    path: () => `${L()}/revisions/1/name`,
    body: () => ({ name: 'First draft' }),
  },
  'get /api/lessons/:lessonId/export/:format': { expect: read, path: () => `${L()}/export/md` },
  'get /api/lessons/:lessonId/print/:kind': {
    expect: read,
    path: () => `${L()}/print/ten-frame?paper=Letter`,
  },
  'put /api/lessons/:lessonId/dates': {
    expect: change,
    path: () => `${L()}/dates`,
    body: () => ({ day: '2026-12-01', filmBy: null, sendBy: '2026-11-30' }),
  },
  'get /api/formats/lesson.schema.json': { expect: open, path: () => '/api/formats/lesson.schema.json' },
  'get /api/house-style': { expect: any, path: () => '/api/house-style' },
  'put /api/house-style': {
    expect: { ...any, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/house-style',
    body: () => ({}),
  },
  'get /api/ladder': { expect: any, path: () => '/api/ladder' },
  'get /api/ladder.csv': { expect: any, path: () => '/api/ladder.csv' },
  'put /api/ladder': {
    expect: { ...any, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/ladder',
    body: () => ({
      ideas: [{ id: 'parts-7', name: 'Parts of 7', structure: 'parts', upTo: 7, ages: [4, 6] }],
    }),
  },
  'post /api/ladder/csv': {
    expect: { ...any, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/ladder/csv',
    body: () => ({
      csv: 'id,name,structure,least,up to,from age,to age,after,evidence,misconceptions\nparts-7,Parts of 7,parts,0,7,4,6,,,',
    }),
  },
  'get /api/keeping': { expect: any, path: () => '/api/keeping' },
  'put /api/keeping': {
    expect: { ...any, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/keeping',
    body: () => ({ on: false, folder: '' }),
  },
  'post /api/keeping/backup': {
    // No folder was chosen: to an owner that is said.
    expect: { ...any, owner: 409, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/keeping/backup',
  },
  'get /api/library': { expect: any, path: () => '/api/library' },
  'post /api/library': {
    expect: any,
    path: () => '/api/library',
    body: () => ({ segment: sampleLesson().segments[0], age: 4 }),
  },
  'delete /api/library/:segmentRowId': {
    expect: { ...any, owner: 404, teacher: 404, colleague: 200, stranger: 404 },
    path: () => `/api/library/${id.segment}`,
  },
  'get /api/week': { expect: any, path: () => '/api/week' },
  'get /api/week.ics': { expect: any, path: () => '/api/week.ics' },
  'put /api/me/hours': {
    expect: any,
    path: () => '/api/me/hours',
    body: () => ({ minutes: [60, 60, 60, 60, 60, 0, 0] }),
  },
  'get /api/classes/:classId/coverage': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/coverage?structure=parts`,
  },
  'post /api/classes/:classId/kit': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/kit`,
    body: () => ({ kit: [{ thing: 'ten frame', count: 1 }] }),
  },
  'get /api/lessons/:lessonId/takes': { expect: read, path: () => `${L()}/takes` },
  'post /api/lessons/:lessonId/stand-in': {
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `${L()}/stand-in`,
    body: () => ({ segmentId: 'x1', slip: 'none', voice: 'slt' }),
  },
  'get /api/takes/:takeId/film': { expect: read, path: () => `/api/takes/${id.take}/film` },
  'get /api/takes/:takeId/peaks': { expect: read, path: () => `/api/takes/${id.take}/peaks` },
  'get /api/takes/:takeId/sheet': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/takes/${id.take}/sheet`,
  },
  'post /api/takes/:takeId/hear': { expect: change, path: () => `/api/takes/${id.take}/hear` },
  'put /api/takes/:takeId/segment': {
    expect: change,
    path: () => `/api/takes/${id.take}/segment`,
    body: () => ({ segmentId: sampleLesson().segments[0]!.id }),
  },
  'put /api/takes/:takeId/marks': {
    expect: change,
    path: () => `/api/takes/${id.take}/marks`,
    body: () => ({ marks: [] }),
  },
  'post /api/takes/:takeId/corrections': {
    expect: change,
    path: () => `/api/takes/${id.take}/corrections`,
    body: () => ({ from: 0, to: 1, heard: 'a', said: 'b' }),
  },
  'post /api/takes/:takeId/captions': {
    expect: change,
    path: () => `/api/takes/${id.take}/captions`,
    body: () => ({ text: 'WEBVTT\n\n00:01.000 --> 00:02.000\nHello\n' }),
  },
  'delete /api/takes/:takeId/captions': { expect: change, path: () => `/api/takes/${id.take}/captions` },
  'get /api/lessons/:lessonId/pronunciations': { expect: read, path: () => `${L()}/pronunciations` },
  'delete /api/lessons/:lessonId/pronunciations/:segmentId/:word': {
    expect: change,
    path: () => `${L()}/pronunciations/x1/bobbin`,
  },
  'post /api/lessons/:lessonId/prompter': {
    expect: read,
    path: () => `${L()}/prompter`,
    body: () => ({ to: 'prompter', act: 'where' }),
  },
  'post /api/lessons/:lessonId/mic-test': {
    expect: { ...read, teacher: 422, colleague: 422, owner: 422 },
    path: () => `${L()}/mic-test`,
    body: () => new Uint8Array(200),
  },
  'delete /api/takes/:takeId': {
    expect: { ...change, teacher: 404 },
    path: () => `/api/takes/${id.spareTake}`,
  },
  'get /api/lessons/:lessonId/jobs': { expect: read, path: () => `${L()}/jobs` },
  'post /api/jobs/:jobId/cancel': { expect: change, path: () => `/api/jobs/${id.job}/cancel` },
  'get /api/events': { expect: any, path: () => '/api/events', whole: false },
  'get /api/lessons/:lessonId/cut': { expect: read, path: () => `${L()}/cut` },
  'put /api/lessons/:lessonId/cut': {
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `${L()}/cut`,
    body: () => ({ revision: 99, doc: plainList }),
  },
  'get /api/lessons/:lessonId/cut/export/:format': { expect: read, path: () => `${L()}/cut/export/otio` },
  'post /api/lessons/:lessonId/cut/read': {
    expect: { ...read, owner: 422, teacher: 422, colleague: 422 },
    path: () => `${L()}/cut/read`,
    body: () => ({ name: 'a.edl', text: 'nothing' }),
  },
  'post /api/lessons/:lessonId/render': { expect: change, path: () => `${L()}/render` },
  'get /api/lessons/:lessonId/renders': { expect: read, path: () => `${L()}/renders` },
  'get /api/renders/:renderId/film': { expect: read, path: () => `/api/renders/${id.render}/film` },
  'get /api/renders/:renderId/captions': { expect: read, path: () => `/api/renders/${id.render}/captions` },
  'get /api/renders/:renderId/poster': { expect: read, path: () => `/api/renders/${id.render}/poster` },
  'get /api/renders/:renderId/files/:kind': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/renders/${id.render}/files/small`,
  },
  'post /api/publications/:publicationId/film': {
    expect: { ...change, owner: 404, teacher: 404 },
    path: () => `/api/publications/${id.pack}/film`,
    body: () => ({ renderId: '00000000-0000-4000-8000-000000000000', changes: [] }),
  },
  'get /api/recordings/:recordingId': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/recordings/${nowhere}`,
  },
  'put /api/lessons/:lessonId/sets/:childId': {
    expect: change,
    path: () => `${L()}/sets/${world.here.kids[0]!.id}`,
    body: () => ({ level: 'gentle' }),
  },
  'get /api/classes/:classId/letters.pdf': {
    expect: change,
    path: () => `/api/classes/${world.here.classId}/letters.pdf`,
  },
  'get /api/home-words/:language': { expect: any, path: () => '/api/home-words/pl' },
  'put /api/home-words/:language': {
    expect: any,
    path: () => '/api/home-words/pl',
    body: () => ({ key: 'send.send', words: 'Wyślij to' }),
  },
  'get /api/lessons/:lessonId/words/:language': { expect: read, path: () => `${L()}/words/ar` },
  'get /api/lessons/:lessonId/letters': { expect: change, path: () => `${L()}/letters` },
  'post /api/lessons/:lessonId/letters': {
    expect: change,
    path: () => `${L()}/letters`,
    body: () => ({ kind: 'new' }),
  },
  'put /api/letters/:letterId/copied': {
    expect: change,
    path: () => `/api/letters/${id.letter}/copied`,
    body: () => ({ copied: true }),
  },
  'post /api/letters/:letterId/again': {
    expect: change,
    path: () => `/api/letters/${id.letter}/again`,
  },
  'get /api/post-rules': { expect: any, path: () => '/api/post-rules' },
  'put /api/post-rules': {
    expect: { ...any, teacher: 403, colleague: 403, stranger: 403 },
    path: () => '/api/post-rules',
    body: () => ({ quietFrom: 19, quietTo: 7, nudgeAfter: 3, thanks: false }),
  },
  // No stand-ins run beside the tests.
  'post /api/lessons/:lessonId/street': {
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `${L()}/street`,
    body: () => ({ seed: 1 }),
  },
  'get /api/lessons/:lessonId/send': { expect: read, path: () => `${L()}/send` },
  'post /api/lessons/:lessonId/publish': {
    expect: change,
    path: () => `${L()}/publish`,
    body: () => ({ withFilm: false }),
  },
  'post /api/households/:householdId/link': {
    expect: change,
    path: () => `/api/households/${world.here.homes[1]!.id}/link`,
  },
  'delete /api/households/:householdId/link': {
    expect: change,
    path: () => `/api/households/${world.here.homes[1]!.id}/link`,
  },
  'get /api/qr': { expect: any, path: () => `/api/qr?link=/h/${'A'.repeat(22)}` },
  'get /api/lessons/:lessonId/replies': { expect: read, path: () => `${L()}/replies` },
  'get /api/photos/:photoId': { expect: read, path: () => `/api/photos/${id.photo}` },
  'post /api/photos/:photoId/correction': {
    expect: read,
    path: () => `/api/photos/${id.photo}/correction`,
    body: () => ({ things: [] }),
  },
  'get /api/corrections': { expect: any, path: () => '/api/corrections' },
  'post /api/lessons/:lessonId/judgements': {
    expect: read,
    path: () => `${L()}/judgements`,
    body: () => ({ judgements: [{ replyId: nowhere, level: 'secure', help: 'alone', rung: 'head' }] }),
  },
  'post /api/replies/:replyId/askings': {
    expect: { ...change, owner: 404, teacher: 404 },
    path: () => `/api/replies/${id.reply}/askings`,
    body: () => ({ taskId: 'no-such-task' }),
  },
  'get /api/replies/:replyId/feedback': { expect: read, path: () => `/api/replies/${id.reply}/feedback` },
  'put /api/replies/:replyId/feedback': {
    expect: change,
    path: () => `/api/replies/${id.reply}/feedback`,
    body: () => ({ body: 'Well counted.', send: false }),
  },
  'get /api/lessons/:lessonId/second-rounds': { expect: read, path: () => `${L()}/second-rounds` },
  'post /api/lessons/:lessonId/second-rounds': {
    // Nothing has been judged yet that could be judged again.
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `${L()}/second-rounds`,
    body: () => ({ secondId: id.colleague, many: 4 }),
  },
  'get /api/second-rounds/:roundId/next': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/second-rounds/${nowhere}/next`,
  },
  'post /api/second-rounds/:roundId/judgements': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/second-rounds/${nowhere}/judgements`,
    body: () => ({ replyId: nowhere, level: 'secure', help: 'alone', rung: 'head' }),
  },
  'post /api/second-rounds/:roundId/settlements': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/second-rounds/${nowhere}/settlements`,
    body: () => ({ replyId: nowhere, level: 'secure' }),
  },
  'get /api/lessons/:lessonId/pairs': { expect: read, path: () => `${L()}/pairs` },
  'post /api/lessons/:lessonId/pairs': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `${L()}/pairs`,
    body: () => ({ betterId: nowhere, otherId: nowhere }),
  },
  'get /api/children/:childId/ideas/:ideaId/evidence': {
    expect: read,
    path: () => `/api/children/${world.here.kids[0]!.id}/ideas/parts-7/evidence`,
  },
  'post /api/children/:childId/ideas/:ideaId/override': {
    expect: change,
    path: () => `/api/children/${world.here.kids[0]!.id}/ideas/parts-7/override`,
    body: () => ({ level: 'nearly' }),
  },
  'get /api/children/:childId/thinking': {
    expect: read,
    path: () => `/api/children/${world.here.kids[0]!.id}/thinking`,
  },
  'get /api/children/:childId/progress': {
    expect: read,
    path: () => `/api/children/${world.here.kids[0]!.id}/progress`,
  },
  'get /api/children/:childId/report': {
    expect: read,
    path: () => `/api/children/${world.here.kids[0]!.id}/report`,
  },
  'post /api/classes/:classId/next-lesson': {
    expect: change,
    path: () => `/api/classes/${world.here.classId}/next-lesson`,
    body: () => ({ ideaId: 'parts-7', day: '2026-12-01' }),
  },
  'get /api/classes/:classId/fairness': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/fairness`,
  },
  'get /api/classes/:classId/judgements.csv': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/judgements.csv`,
  },
  'get /api/classes/:classId/standings.csv': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/standings.csv`,
  },
  'get /api/classes/:classId/statements.jsonl': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/statements.jsonl`,
  },
  'post /api/replies/:replyId/judgements': {
    expect: read,
    path: () => `/api/replies/${id.reply}/judgements`,
    body: () => ({ level: 'nearly', help: 'alone', rung: 'things' }),
  },
  'get /api/classes/:classId/standing': {
    expect: read,
    path: () => `/api/classes/${world.here.classId}/standing`,
  },
  'get /api/lessons/:lessonId/live': { expect: read, path: () => `${L()}/live` },
  'post /api/lessons/:lessonId/live': {
    expect: change,
    path: () => `${L()}/live`,
    body: () => ({ startsAt: new Date().toISOString(), minutes: 20 }),
  },
  'get /api/live/:liveId': { expect: read, path: () => `/api/live/${id.live}` },
  'put /api/live/:liveId': {
    expect: change,
    path: () => `/api/live/${id.live}`,
    body: () => ({ minutes: 25 }),
  },
  'post /api/live/:liveId/acts': {
    expect: change,
    path: () => `/api/live/${id.live}/acts`,
    body: () => ({ seq: 0, desk: 'here', act: { do: 'note', text: 'Somebody said nine' } }),
  },
  'post /api/live/:liveId/throw': {
    // No game is on.
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `/api/live/${id.live}/throw`,
    body: () => ({ seq: 0, desk: 'here', show: 'card', think: 0 }),
  },
  'get /api/live/:liveId/follow': { expect: read, path: () => `/api/live/${id.live}/follow`, whole: false },
  'get /api/live/:liveId/calendar.ics': { expect: read, path: () => `/api/live/${id.live}/calendar.ics` },
  'get /api/live/:liveId/after': { expect: read, path: () => `/api/live/${id.live}/after` },
  'get /api/live/:liveId/photos/:photoId': {
    expect: { ...read, owner: 404, teacher: 404, colleague: 404 },
    path: () => `/api/live/${id.live}/photos/${nowhere}`,
  },
  'post /api/live/:liveId/street': {
    // Made-up homes come to rehearsals alone.
    expect: { ...change, owner: 409, teacher: 409 },
    path: () => `/api/live/${id.live}/street`,
    body: () => ({ seed: 1 }),
  },
  'post /api/uploads': {
    expect: { ...change, owner: 201, teacher: 201 },
    path: () => '/api/uploads',
    headers: { 'tus-resumable': '1.0.0', 'upload-length': '10' },
  },
  'get /api/uploads/:uploadId': {
    expect: {
      owner: 405,
      teacher: 405,
      colleague: 405,
      stranger: 405,
      home: 401,
      otherHome: 401,
      nobody: 401,
    },
    path: () => '/api/uploads/nothing-here',
    headers: { 'tus-resumable': '1.0.0' },
  },
}
/** Behind a link: [method and path, whether the other home of the setting may open it too]. */
const homeCases: Record<
  string,
  {
    path: (h: string) => string
    body?: () => unknown
    expect?: Partial<Record<Actor, number>>
    whole?: false
  }
> = {
  'get /api/home/:token': { path: (h) => h, expect: { otherHome: 200 } },
  'get /api/home/:token/live': { path: (h) => `${h}/live`, expect: { otherHome: 200 } },
  'get /api/home/:token/live/:liveId': { path: (h) => `${h}/live/${id.live}` },
  'get /api/home/:token/live/:liveId/follow': { path: (h) => `${h}/live/${id.live}/follow`, whole: false },
  'get /api/home/:token/live/:liveId/table.svg': { path: (h) => `${h}/live/${id.live}/table.svg` },
  // Nothing was asked.
  'put /api/home/:token/live/:liveId/rounds/:roundId': {
    path: (h) => `${h}/live/${id.live}/rounds/r1`,
    body: () => ({
      childId: world.here.kids[0]!.id,
      key: randomUUID(),
      answer: { taskId: 'r1', kind: 'number', text: '7' },
    }),
    expect: { home: 404 },
  },
  'post /api/home/:token/live/:liveId/photos': {
    path: (h) => `${h}/live/${id.live}/photos`,
    expect: { home: 400 },
  },
  'get /api/home/:token/live/:liveId/calendar.ics': { path: (h) => `${h}/live/${id.live}/calendar.ics` },
  'get /api/home/:token/kit': { path: (h) => `${h}/kit`, expect: { otherHome: 200 } },
  'put /api/home/:token/kit': {
    path: (h) => `${h}/kit`,
    body: () => ({ has: ['buttons'], countable: 10, canPrint: false }),
    expect: { otherHome: 200 },
  },
  'get /api/home/:token/packs/:packId': { path: (h) => `${h}/packs/${id.pack}` },
  'get /api/home/:token/packs/:packId/film': { path: (h) => `${h}/packs/${id.pack}/film` },
  'get /api/home/:token/packs/:packId/files/:kind': {
    path: (h) => `${h}/packs/${id.pack}/files/small`,
    expect: { home: 404 },
  },
  'get /api/home/:token/packs/:packId/captions': { path: (h) => `${h}/packs/${id.pack}/captions` },
  'get /api/home/:token/packs/:packId/poster': { path: (h) => `${h}/packs/${id.pack}/poster` },
  'post /api/home/:token/packs/:packId/photos': {
    path: (h) => `${h}/packs/${id.pack}/photos`,
    expect: { home: 400 },
  },
  // The reply was judged by the matrix above, so a changed one comes too late.
  'put /api/home/:token/packs/:packId/reply': {
    path: (h) => `${h}/packs/${id.pack}/reply`,
    body: () => ({ childId: world.here.kids[0]!.id, key: randomUUID(), answers: [], help: null, words: '' }),
    expect: { home: 409 },
  },
  'delete /api/home/:token/packs/:packId/children/:childId/reply': {
    path: (h) => `${h}/packs/${id.pack}/children/${world.here.kids[0]!.id}/reply`,
    expect: { home: 409 },
  },
  'get /api/home/:token/packs/:packId/print/:kind': {
    path: (h) => `${h}/packs/${id.pack}/print/ten-frame`,
  },
  'put /api/home/:token/language': {
    path: (h) => `${h}/language`,
    body: () => ({ language: 'pl' }),
    expect: { otherHome: 200 },
  },
  'get /api/home/:token/consents': { path: (h) => `${h}/consents`, expect: { otherHome: 200 } },
  'post /api/home/:token/children/:childId/consents': {
    path: (h) => `${h}/children/${world.here.kids[0]!.id}/consents`,
    body: () => ({ kind: 'showing', given: false, giver: 'mum' }),
  },
  'post /api/home/:token/code': { path: (h) => `${h}/code`, expect: { otherHome: 200 } },
  'get /api/home/:token/lessons.ics': { path: (h) => `${h}/lessons.ics`, expect: { otherHome: 200 } },
  // Without the protocol's own header nothing is begun.
  'post /api/home/:token/uploads': {
    path: (h) => `${h}/uploads`,
    expect: Object.fromEntries(actors.map((a) => [a, 412])),
  },
  'get /api/home/:token/uploads/:uploadId': {
    path: (h) => `${h}/uploads/nothing-here`,
    expect: Object.fromEntries(actors.map((a) => [a, 412])),
  },
}
const who = (actor: Actor): Caller =>
  actor === 'home' || actor === 'otherHome' ? world.nobody : world[actor]

test('every route of the contract is served, and no other', () => {
  const named = (r: { method: string; path: string; who: string }) => `${r.method} ${r.path} ${r.who}`
  expect(routeList.map(named).sort()).toEqual(allRoutes.map((r) => named(r.route)).sort())
})
test('the matrix names every route there is, and no other', () => {
  const known = [...Object.keys(cases), ...Object.keys(homeCases)].sort()
  expect(routeList.map((r) => `${r.method.toLowerCase()} ${r.path}`).sort()).toEqual(known)
})

// Whoever may not comes first, so that one actor's change does not decide another's answer.
const order: readonly Actor[] = ['nobody', 'home', 'otherHome', 'stranger', 'colleague', 'owner', 'teacher']
/** The status of an answer that does not end: a stream of events. */
async function statusOf(path: string, cookie: string): Promise<number> {
  const stop = new AbortController()
  const r = await fetch(app.address + path, { headers: cookie ? { cookie } : {}, signal: stop.signal })
  stop.abort()
  return r.status
}
test.each(Object.keys(cases))('%s', async (route) => {
  const c = cases[route]!
  const got: Partial<Record<Actor, number>> = {}
  for (const actor of order) {
    // Signing out would end the session the other cases need.
    const as = /sign-out|delete \/api\/me\/sessions$/.test(route) ? world.nobody : who(actor)
    if (c.whole === false) got[actor] = await statusOf(c.path(), as.cookie)
    else
      got[actor] = (
        await as.call(route.split(' ')[0]!.toUpperCase(), c.path(), c.body?.(), {
          ...c.headers,
          ...(route === 'post /api/uploads' ? { 'upload-metadata': meta() } : {}),
        })
      ).status
  }
  expect(got).toEqual(c.expect)
})
test.each(Object.keys(homeCases))('%s', async (route) => {
  const c = homeCases[route]!
  const got: Partial<Record<Actor, number>> = {}
  // So many wrong links from one address would be turned away.
  nobodyTried()
  // A link renewed by the matrix above is opened again for this.
  if (route === 'get /api/home/:token') {
    const r = await world.teacher.call('POST', `/api/households/${world.here.homes[1]!.id}/link`)
    world.here.tokens[1] = String(r.body.link).slice(3)
  }
  for (const actor of actors)
    got[actor] =
      c.whole === false
        ? await statusOf(c.path(H(actor)), who(actor).cookie)
        : (await who(actor).call(route.split(' ')[0]!.toUpperCase(), c.path(H(actor)), c.body?.())).status
  expect(got).toEqual({ ...linked, ...c.expect })
})

test('a write from another page is refused, with or without a session', async () => {
  for (const origin of ['http://elsewhere.example', 'null'])
    expect((await world.teacher.call('POST', `${L()}/publish`, { withFilm: false }, { origin })).status).toBe(
      403,
    )
  expect(
    (await world.teacher.call('POST', `${L()}/publish`, { withFilm: false }, { origin: app.address })).status,
  ).toBe(200)
})
test('a colleague sees no home’s link', async () => {
  const asColleague = (await world.colleague.call('GET', `${L()}/send`)).body.homes as {
    link: string | null
  }[]
  expect(asColleague.length).toBeGreaterThan(0)
  expect(asColleague.every((h) => h.link === null)).toBe(true)
})
test('problems are problem+json with no stack, and pages carry the headers that keep links private', async () => {
  const r = await world.stranger.call('GET', L())
  expect(r.headers.get('content-type')).toMatch('application/problem+json')
  expect(JSON.stringify(r.body)).not.toMatch(/at .*\.ts|node_modules/)
  const home = await world.nobody.call('GET', `/api/home/${world.here.tokens[0]}`)
  expect(home.headers.get('referrer-policy')).toBe('no-referrer')
  expect(home.headers.get('x-robots-tag')).toMatch('noindex')
  expect(home.headers.get('content-security-policy')).toMatch("script-src 'self'")
})
test('links are stored hashed and sessions too', async () => {
  const dump = JSON.stringify(
    (
      await app.pool.query(
        "select encode(token_hash, 'escape') h from home_links union all select encode(token_hash, 'escape') from sessions",
      )
    ).rows,
  )
  expect(dump).not.toContain(world.here.tokens[0])
  expect(dump).not.toContain(world.teacher.cookie.split('=')[1])
})
