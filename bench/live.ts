import { randomUUID } from 'node:crypto'
import { type ChildProcess, spawn } from 'node:child_process'
import fs from 'node:fs'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { LiveDesk, LiveSeen } from '@awlbox/core/contracts/api/live'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import type { LiveAct } from '@awlbox/core/contracts/live'
import { createLesson } from '../server/lessons/store.ts'
import { eventsOf } from '../standins/events.ts'
import { freePort } from '../server/platform/free-port.ts'
import { children, classes, households, liveAnswers } from '../server/platform/schema.ts'
import { homeToken } from '../server/platform/tokens.ts'
import { openLinks } from '../server/send/store.ts'
import { openTestApp, populate, sampleLesson, until } from '../server/testing.ts'

/**
 * A live lesson with many homes: how soon a change of step reaches them, how soon the tally is whole after "all at
 * once", what memory an hour of it takes (the acts of an hour, one after another), and whether an answer that a home was
 * told was received outlives the web process. Once with one web process and once with two, half the homes at each.
 * Needs AWLBOX_TEST_PG and AWLBOX_BLOBS, as ./awlbox test sets them. `node --import tsx bench/live.ts [HOMES] [ACTS]`
 */
const count = Number(process.argv[2] ?? 200)
/** An hour with something done every ten seconds. */
const hour = Number(process.argv[3] ?? 360)
const app = await openTestApp()
const { here, teacher } = await populate(app)
const doc: Lesson = {
  ...sampleLesson('Live, many homes'),
  segments: [
    {
      id: 's',
      title: 'Parcels',
      kind: 'show',
      audience: 'children',
      steps: Array.from({ length: 60 }, (_, i) =>
        i % 3 === 2
          ? {
              id: `a${i}`,
              verb: 'ask' as const,
              text: 'How many parcels?',
              task: { kind: 'number' as const, answer: 7 },
            }
          : { id: `a${i}`, verb: 'say' as const, text: `Line ${i}: Bobbin brings another parcel.` },
      ),
    },
  ],
}
const p95 = (xs: readonly number[]): number =>
  [...xs].sort((a, b) => a - b)[Math.floor(xs.length * 0.95)] ?? NaN
const show = (name: string, value: string) => console.log(`${name.padEnd(62)} ${value}`)

interface Web {
  address: string
  child: ChildProcess
  memory: () => number
}
async function startWeb(port: number): Promise<Web> {
  const child = spawn(process.execPath, ['--import', 'tsx', 'server/web.ts'], {
    stdio: ['ignore', 'ignore', 'inherit', 'ipc'],
    env: {
      ...process.env,
      DATABASE_URL: app.url,
      AWLBOX_BLOBS: app.config.blobs,
      AWLBOX_SECRET: app.secret,
      AWLBOX_LOG: 'error',
      PORT: String(port),
    },
  })
  await new Promise<void>((resolve) => child.on('message', (m) => m === 'ready' && resolve()))
  return {
    address: `http://127.0.0.1:${port}`,
    child,
    memory: () =>
      Number(/VmRSS:\s+(\d+)/.exec(fs.readFileSync(`/proc/${child.pid}/status`, 'utf8'))![1]) / 1024,
  }
}

interface Page {
  home: { token: string; childId: string }
  address: string
  seen: LiveSeen | null
  onSeen: (s: LiveSeen) => void
  stop: AbortController
}
/** Lines that dropped, and why: those of a process that fell. */
const ends: string[] = []
function follow<T>(address: string, path: string, take: (t: T) => void, cookie = ''): AbortController {
  const stop = new AbortController()
  void (async () => {
    for await (const one of eventsOf<T>(address + path, { cookie, signal: stop.signal })) take(one)
  })().catch((error: unknown) => stop.signal.aborted || ends.push(String(error)))
  return stop
}

async function withWebs(many: number): Promise<void> {
  const webs: Web[] = []
  // One after another: a port that is free is free until it is taken.
  for (let k = 0; k < many; k++) webs.push(await startWeb(await freePort()))
  const [cls] = await app.db
    .insert(classes)
    .values({ settingId: here.setting.id, teacherId: here.teacher(), name: `Street ${many}`, age: 4 })
    .returning()
  const rows = await app.db
    .insert(households)
    .values(
      Array.from({ length: count }, (_, i) => ({ settingId: here.setting.id, name: `${many}.${i} Street` })),
    )
    .returning()
  const kids = await app.db
    .insert(children)
    .values(rows.map((h, i) => ({ classId: cls!.id, householdId: h.id, given: `C${i}`, name: `C${i}` })))
    .returning()
  await openLinks(
    app.db,
    app.secret,
    rows.map((h) => h.id),
  )
  const lessonId = await createLesson(app.db, {
    classId: cls!.id,
    day: '2026-11-28',
    doc,
    byId: here.teacher(),
    style: defaultHouseStyle,
  })
  const made = await teacher.call('POST', `/api/lessons/${lessonId}/live`, {
    startsAt: new Date().toISOString(),
    minutes: 60,
  })
  const liveId = made.body.id as string
  let seq = 0
  const act = async (a: LiveAct): Promise<void> => {
    const r = await fetch(`${webs[0]!.address}/api/live/${liveId}/acts`, {
      method: 'POST',
      headers: { cookie: teacher.cookie, 'content-type': 'application/json' },
      body: JSON.stringify({ seq, desk: 'bench', act: a }),
    })
    const body = (await r.json()) as { seq: number }
    if (!r.ok) throw new Error(JSON.stringify(body))
    seq = body.seq
  }
  const pages: Page[] = rows.map((h, i) => {
    const home = { token: homeToken(app.secret, h.id, 1), childId: kids[i]!.id }
    const { address } = webs[i % many]!
    const page: Page = { home, address, seen: null, onSeen: () => undefined, stop: new AbortController() }
    page.stop = follow<LiveSeen>(address, `/api/home/${home.token}/live/${liveId}/follow?device=b`, (s) => {
      page.seen = s
      page.onSeen(s)
    })
    return page
  })
  let desk: LiveDesk | null = null
  const deskLine = follow<LiveDesk>(
    webs[0]!.address,
    `/api/live/${liveId}/follow`,
    (d) => (desk = d),
    teacher.cookie,
  )
  await until('everybody here', () => Promise.resolve(pages.every((p) => p.seen)))
  await act({ do: 'start' })
  // A process that has just begun may not listen to the database yet: then its homes are told within two seconds.
  await until('all told', () => Promise.resolve(pages.every((p) => p.seen?.phase === 'on')))

  // A change of step, thirty times.
  const reached: number[] = []
  for (let k = 1; k <= 30; k++) {
    const from = performance.now()
    const before = seq
    const all = pages.map(
      (p) =>
        new Promise<void>((resolve) => {
          p.onSeen = (s) => {
            if (s.seq > before) {
              reached.push(performance.now() - from)
              p.onSeen = () => undefined
              resolve()
            }
          }
        }),
    )
    const next = (k * 3) % 58
    await Promise.all([act({ do: 'go', line: next - (next % 3) }), ...all])
  }
  show(`${many} web: a step reaches a home, p95 of ${reached.length}`, `${p95(reached).toFixed(0)} ms`)

  const sendAll = (round: string, onDone: (done: number) => unknown = () => undefined) => {
    let done = 0
    return Promise.all(
      pages.map(async (p) => {
        const from = performance.now()
        const r = await fetch(`${p.address}/api/home/${p.home.token}/live/${liveId}/rounds/${round}`, {
          method: 'PUT',
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({
            childId: p.home.childId,
            key: randomUUID(),
            answer: { taskId: round, kind: 'number', text: String(5 + (pages.indexOf(p) % 4)) },
          }),
        }).catch((error: unknown) => {
          ends.push(String(error))
          return null
        })
        if (r?.ok) onDone((done += 1))
        return { ok: r?.ok ?? false, ms: performance.now() - from, childId: p.home.childId }
      }),
    )
  }
  // All at once: nobody has sent before. Phones send what was begun when "three" is said; and, harder, when all is shown.
  const sent: number[] = []
  let n = 0
  const roundOf = async (from: 'three' | 'shown'): Promise<number> => {
    await act({ do: 'round', line: 2, show: 'card', think: 0 })
    n++
    await act({ do: 'show' })
    const shows = await until('the moment of all at once', () =>
      Promise.resolve(pages[0]!.seen?.round?.id === `r${n}` && pages[0]!.seen.round.shows),
    )
    if (from === 'shown') await until('all at once', () => Promise.resolve(Date.now() >= shows))
    const done = await sendAll(`r${n}`)
    sent.push(...done.map((d) => d.ms))
    if (done.some((d) => !d.ok)) console.log(`${done.filter((d) => !d.ok).length} were not taken`)
    await until('a whole tally', () =>
      Promise.resolve(
        desk?.tally?.roundId === `r${n}` && desk.tally.shown && desk.tally.sent.length === count,
      ),
    )
    const whole = Date.now() - shows
    await act({ do: 'close' })
    return whole
  }
  const slowest = async (from: 'three' | 'shown'): Promise<string> => {
    const all: number[] = []
    for (let k = 0; k < 5; k++) all.push(await roundOf(from))
    return `${Math.max(...all).toFixed(0)} ms`
  }
  show(`${many} web: whole tally after "all at once", sent at "three", slowest of 5`, await slowest('three'))
  show(`${many} web: the same, all sent in the moment of it`, await slowest('shown'))
  show(`${many} web: ${count} answers at once, p95 of one`, `${p95(sent).toFixed(0)} ms`)

  // An hour's acts.
  const memory: number[] = []
  for (let k = 0; k < hour; k++) {
    await act({ do: 'go', line: (k % 20) * 3 })
    if (k % 36 === 35) memory.push(webs[0]!.memory())
  }
  show(
    `${many} web: memory over an hour of acts, last third against the middle third`,
    `${(memory.slice(-3).reduce((a, b) => a + b) / memory.slice(3, 6).reduce((a, b) => a + b)).toFixed(3)} (${memory.at(-1)!.toFixed(0)} MB)`,
  )

  // The web falls while all answer: what a home was told was received is there.
  await act({ do: 'round', line: 2, show: 'card', think: 0 })
  n++
  // A quarter of them have been told when it falls.
  const told = (
    await sendAll(`r${n}`, (done) => done === Math.ceil(count / 4) && webs[0]!.child.kill('SIGKILL'))
  ).filter((d) => d.ok)
  const kept = new Set(
    (await app.db.select().from(liveAnswers))
      .filter((a) => a.liveId === liveId && a.roundId === `r${n}`)
      .map((a) => a.childId),
  )
  show(
    `${many} web: told as received when it fell, and lost`,
    `${told.length}, ${told.filter((d) => !kept.has(d.childId)).length}`,
  )
  for (const p of pages) p.stop.abort()
  deskLine.abort()
  for (const w of webs) w.child.kill('SIGKILL')
}

await withWebs(1)
await withWebs(2)
await app.close()
process.exit(0)
