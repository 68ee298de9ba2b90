import { setTimeout as delay } from 'node:timers/promises'
import type { CutList } from '@awlbox/core/contracts/cut'
import { decideAll } from '@awlbox/core/cut/edit'
import type { Slip, StandInOrder } from '@awlbox/core/contracts/stand-in'
import { isInFilm, type Lesson } from '@awlbox/core/contracts/lesson'
import { client, type Client } from '../http.ts'

/** One day of the demo, lived over HTTP like any user: a lesson filmed, heard, cut, rendered, sent and answered. */
const address = process.env.AWLBOX_ADDRESS ?? 'http://127.0.0.1:4180'
const email = 'marnie@cobblegate.example'
const password = 'bobbin-parcels'
const title = 'Seven parcels, two pigeon-holes'

interface Jobs {
  items: { id: string; kind: string; status: string; problem: string | null }[]
}
interface Homes {
  homes: { householdId: string; child: string; link: string | null }[]
  sent: { id: string }[]
}

async function settle(http: Client, lessonId: string, say: (open: number) => void): Promise<void> {
  for (let i = 0; i < 1200; i++) {
    const { items } = await http.get<Jobs>(`/api/lessons/${lessonId}/jobs`)
    const failed = items.find((j) => j.status === 'failed')
    if (failed) throw new Error(`${failed.kind}: ${failed.problem}`)
    const open = items.filter((j) => j.status === 'queued' || j.status === 'running').length
    if (!open) return
    say(open)
    await delay(500)
  }
  throw new Error('The demo day took more than ten minutes')
}

async function live(http: Client, lessonId: string): Promise<void> {
  // Loaded only on the day itself: later starts need none of it.
  const { replyFrom } = await import('../homes/reply.ts')
  const { doc } = await http.get<{ doc: Lesson }>(`/api/lessons/${lessonId}`)
  const segments = doc.segments.filter(isInFilm)
  const { items: takes } = await http.get<{ items: { segmentId: string }[] }>(
    `/api/lessons/${lessonId}/takes`,
  )
  const missing = segments.filter((s) => !takes.some((t) => t.segmentId === s.id))
  if (missing.length) {
    console.log(
      `Demo: the stand-in camera films ${missing.length} segments of “${title}” (first start only, some minutes; watch it on the Shelf).`,
    )
    const firstTogether = segments.find((x) => x.kind === 'together')
    for (const s of missing) {
      const slips: Slip[] = s.kind === 'show' ? ['false start'] : s === firstTogether ? ['dead air'] : []
      await http.send('POST', `/api/lessons/${lessonId}/stand-in`, {
        segmentId: s.id,
        slips,
        voice: 'slt',
        room: 'quiet kitchen',
      } satisfies Partial<StandInOrder> & { segmentId: string })
    }
  }
  let shown = -1
  const say = (what: string) => (open: number) => {
    if (open !== shown) console.log(`Demo: ${what}, ${open} to go`)
    shown = open
  }
  await settle(http, lessonId, say('filming and hearing'))
  const { items: renders } = await http.get<{ items: unknown[] }>(`/api/lessons/${lessonId}/renders`)
  if (!renders.length) {
    const cut = await http.get<{ revision: number; doc: CutList }>(`/api/lessons/${lessonId}/cut`)
    await http.send('PUT', `/api/lessons/${lessonId}/cut`, {
      revision: cut.revision,
      doc: decideAll(cut.doc, () => true, 'accepted'),
    })
    await http.send('POST', `/api/lessons/${lessonId}/render`)
    await settle(http, lessonId, say('cutting and rendering'))
  }
  await http.send('POST', `/api/lessons/${lessonId}/publish`, { withFilm: true })
  const { homes, sent } = await http.get<Homes>(`/api/lessons/${lessonId}/send`)
  console.log('Demo: the stand-in homes watch and reply.')
  const silent = new Set(['Leyla', 'Anouk'])
  for (const [i, home] of homes.filter((h) => h.link && !silent.has(h.child)).entries()) {
    const split = [
      [4, 3],
      [5, 2],
      [3, 4],
      [6, 1],
      [4, 4],
      [7, 0],
      [2, 5],
      [4, 3],
      [3, 3],
      [5, 2],
    ][i % 10]!
    await replyFrom(http, home.link!.slice(3), sent[0]!.id, {
      ability: [0.9, 0.5, 0.95, 0.9, 0.5, 0.98, 0.4, 0.7, 0.5, 0.8][i % 10]!,
      help: (
        [
          'alone',
          'nudged',
          'alone',
          'alone',
          'together',
          'alone',
          'nudged',
          'nudged',
          'together',
          'alone',
        ] as const
      )[i % 10]!,
      words: [
        'She moved them one by one and told me each time.',
        'I reminded him about the last one.',
        'Did it twice, both ways round.',
        '',
        'Tired today; we did it together.',
        'All on one side, very pleased with it.',
        '',
        'Used buttons.',
        'One rolled under the sofa.',
        'Counted them in his head.',
      ][i % 10]!,
      shows: i === 3 ? null : { saffron: split[0]!, blue: split[1]! },
      seed: 20 + i,
    })
  }
}

async function day(): Promise<void> {
  const http = client(address)
  await http.send('POST', '/api/sign-in', { email, password })
  const shelf = await http.get<{ lessons: { id: string; title: string; facts: { sent: boolean } }[] }>(
    '/api/shelf',
  )
  const lesson = shelf.lessons.find((l) => l.title === title)
  console.log(`
Teacher              ${email}        password  ${password}
Colleague            desh@cobblegate.example          password  ${password}
Owner                owner@cobblegate.example         password  ${password}`)
  if (lesson && !lesson.facts.sent) await live(http, lesson.id)
  const homes = lesson ? (await http.get<Homes>(`/api/lessons/${lesson.id}/send`)).homes : []
  const home = homes.find((h) => h.link && h.child === 'Suri')
  console.log(`A home's link        ${home?.link ? address + home.link : '(send a lesson first)'}`)
}

/** One line of what went wrong: a cause is told where the error itself says nothing. */
const reason = (error: unknown): string => {
  const e = error as { message?: string; cause?: { message?: string } }
  return [e.message, e.cause?.message].filter(Boolean).join(': ') || String(error)
}
await day().then(
  () => process.exit(0),
  (error: unknown) => {
    console.error(
      `Demo: the day went wrong (${reason(error)}). Everything done so far is kept; the next start goes on from there.`,
    )
    process.exit(1)
  },
)
