import { client } from '../http.ts'
import { householdOf, type Household, type Manner, manners } from './household.ts'
import { replyFrom } from './reply.ts'

export interface Street {
  address: string
  /** Links of the homes, without their address; their place is their number in the street. */
  tokens: readonly string[]
  packId: string
  seed: number
  /** Homes that sit down at the same time. */
  atOnce: number
  onHome?: (done: number, of: number) => void
}
export interface Walked {
  homes: number
  /** How many did what. */
  by: Record<Manner, number>
  failed: { n: number; why: string }[]
  /** Milliseconds of each home that did something, from opening its page to its last answer. */
  took: number[]
}

/** Lets a street reply: each home as its seed has it, in the order they sit down, over HTTP like any home. */
export async function letTheStreetReply(s: Street): Promise<Walked> {
  const homes = s.tokens
    .map((token, n) => ({ token, home: householdOf(s.seed, n) }))
    .sort((a, b) => a.home.after - b.home.after)
  const walked: Walked = {
    homes: homes.length,
    by: Object.fromEntries(manners.map((m) => [m, 0])) as Walked['by'],
    failed: [],
    took: [],
  }
  const waiting = [...homes]
  let done = 0
  const walk = async (): Promise<void> => {
    for (let next = waiting.shift(); next; next = waiting.shift()) {
      await one(s, next.token, next.home, walked)
      s.onHome?.((done += 1), homes.length)
    }
  }
  await Promise.all(Array.from({ length: Math.max(1, s.atOnce) }, walk))
  return walked
}
async function one(s: Street, token: string, home: Household, walked: Walked): Promise<void> {
  walked.by[home.manner]++
  if (home.manner === 'silent') return
  const began = performance.now()
  try {
    await replyFrom(client(s.address), token, s.packId, home)
    walked.took.push(performance.now() - began)
  } catch (error) {
    walked.failed.push({ n: home.n, why: error instanceof Error ? error.message : String(error) })
  }
}
