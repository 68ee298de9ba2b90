import { createHash } from 'node:crypto'
import { setTimeout as delay } from 'node:timers/promises'
import { seeded } from '@awlbox/core/plan/seeded'
import { eventsOf } from '../events.ts'
import { client, type Client } from '../http.ts'
import { type Household, householdOf } from './household.ts'
import { type Asked, numbersIn, solve } from './solve.ts'

/** What a home is told of a live lesson: as it comes over the wire. */
interface Seen {
  seq: number
  now: number
  phase: 'waiting' | 'on' | 'over'
  round: { id: string; prompt: string; task: Asked | null; opens: number; shows: number | null } | null
}
interface Page {
  seen: Seen
  children: { id: string; name: string; photos: boolean }[]
}
export interface LiveStreet {
  address: string
  tokens: readonly string[]
  liveId: string
  seed: number
  /** Told of every change that reaches a home. */
  onSeen?: (home: number, seen: Seen) => void
  /** Milliseconds a home takes at most to answer once it may. */
  slowest?: number
  signal?: AbortSignal
}

/** A home keeps its page open this long at most: milliseconds. */
const longest = 2 * 3_600_000
const uuidOf = (...of: (string | number)[]): string => {
  const h = createHash('sha256').update(of.join(' ')).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`
}

/** A street of made-up homes comes to a live lesson: each answers as its seed has it, late, twice, drops and comes back, or stays away. */
export async function joinLive(s: LiveStreet): Promise<void> {
  await Promise.all(
    s.tokens.map((token, n) =>
      stay(s, token, householdOf(s.seed, n)).catch((error: unknown) => {
        if (!s.signal?.aborted) console.error(`home ${n}: ${String(error)}`)
      }),
    ),
  )
}

async function stay(s: LiveStreet, token: string, home: Household): Promise<void> {
  if (home.manner === 'silent') return
  const http = client(s.address)
  const path = `/api/home/${token}/live/${s.liveId}`
  const page = await http.get<Page>(path)
  const answered = new Set<string>()
  const until = Date.now() + longest
  let over = false
  for (let visit = 0; !over && Date.now() < until && !s.signal?.aborted; visit++) {
    // A home whose line drops loses it after a few changes, and is back some seconds later.
    let changesLeft = home.manner === 'dropped' || home.manner === 'half' ? 3 + visit * 4 : Infinity
    const device = `stand-in-${home.n}`
    for await (const seen of lineOf(s, `${path}/follow?device=${device}`)) {
      s.onSeen?.(home.n, seen)
      over = seen.phase === 'over'
      if (over) return
      const { round } = seen
      if (round && !answered.has(round.id)) {
        answered.add(round.id)
        void answer(http, s, { path, home, page, round, wait: Math.max(0, round.opens - seen.now) }).catch(
          () => {
            // The page tries again when it is told anew, as a phone does.
            answered.delete(round.id)
          },
        )
      }
      if (--changesLeft <= 0) break
    }
    if (s.signal?.aborted) return
    await delay(1500 + (home.n % 7) * 400)
  }
}
/** Things on the shared table, as a child counts them in its picture. */
async function lookAt(path: string): Promise<number> {
  const picture = await (await fetch(`${path}/table.svg`)).text()
  return picture.match(/<circle [^>]*fill="#(?:F2B705|1F5F99)"[^>]*stroke=/g)?.length ?? 0
}
interface Answering {
  path: string
  home: Household
  page: Page
  round: NonNullable<Seen['round']>
  /** Milliseconds of thinking time left. */
  wait: number
}
async function answer(http: Client, s: LiveStreet, a: Answering): Promise<void> {
  const { home, page, round, path } = a
  const own = seeded(home.seed + Number(round.id.slice(1)) * 31)
  const slowest = s.slowest ?? 9_000
  const takes = home.manner === 'late' ? slowest * 2 : 400 + own(Math.max(1, slowest - 400))
  await delay(a.wait + takes, undefined, s.signal ? { signal: s.signal } : {})
  // A child looks at the table where the words tell no number.
  const looks = round.task?.kind === 'number' && !numbersIn(round.prompt).length
  const seen = looks ? await lookAt(s.address + path) : 0
  for (const child of page.children) {
    const off = own(1000) / 1000 < home.ability ? 0 : own(2) ? 1 : -1
    const given = looks
      ? { taskId: round.id, kind: 'number' as const, text: String(Math.max(0, seen + off)) }
      : round.task
        ? solve({ ...round.task, id: round.id, sets: [] }, home, own)
        : { taskId: round.id, kind: 'tell' as const, text: 'ready' }
    // Photos are not taken in the middle of a rehearsal: the grown-up says it in words.
    const said = given ?? { taskId: round.id, kind: round.task!.kind, text: 'We made it.' }
    await http.send('PUT', `${path}/rounds/${round.id}`, {
      childId: child.id,
      key: uuidOf(s.liveId, round.id, child.id, home.seed),
      answer: said,
    })
  }
}

/** What a home is told, until its line ends; one that drops is no failure: the home comes back. */
async function* lineOf(s: LiveStreet, path: string): AsyncGenerator<Seen> {
  try {
    yield* eventsOf<Seen>(s.address + path, s.signal ? { signal: s.signal } : {})
  } catch (error) {
    if (!s.signal?.aborted) console.error(`a line dropped: ${String(error)}`)
  }
}
