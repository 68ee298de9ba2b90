import { z } from 'zod'
import { TaskSpec } from './lesson.ts'

/** Milliseconds since 1970 by the server's clock: the only one that counts in a live lesson. */
const At = z.number().int().min(0)
const Words = z.string().trim().min(1).max(600)
const Whole = z.number().int().min(0).max(100)

/** How a home shows a number on its device. A card with its numeral, fingers up, dots, counters in a frame. */
export const showWays = ['card', 'fingers', 'dots', 'frame'] as const
export const ShowWay = z.enum(showWays)
export type ShowWay = z.infer<typeof ShowWay>
/** The largest number each way can show: two hands, two frames, dots that can still be seen apart, three digits. */
export const showsUpTo: Record<ShowWay, number> = { card: 999, fingers: 10, dots: 20, frame: 20 }

const asks = ['same', 'one more', 'one fewer'] as const
const pack = { numbers: z.array(Whole).min(2).max(30), ask: z.enum(asks) }
/** A game as it is set up; what is thrown, drawn or said in it makes one round. */
export const LiveGame = z.discriminatedUnion('kind', [
  /** `start`: the number held while the dots are counted on; null where the dice alone are asked. */
  z.object({
    kind: z.literal('dice'),
    dice: z.number().int().min(1).max(3),
    start: Whole.nullable(),
  }),
  z.object({ kind: z.literal('cards'), ...pack }),
  z.object({ kind: z.literal('spinner'), ...pack }),
  /** Two digits drawn, the first one the tens; none is put back. */
  z.object({ kind: z.literal('bowl'), digits: z.array(z.number().int().min(0).max(9)).min(2).max(20) }),
  /** So many stand, some fall. */
  z.object({ kind: z.literal('skittles'), of: z.number().int().min(3).max(10) }),
  /** So many in all, some of them under a cover. */
  z.object({ kind: z.literal('hidden'), total: z.number().int().min(2).max(20) }),
  /** A row of numbers to walk on by a die; `at`: where it stands. */
  z.object({ kind: z.literal('track'), to: z.number().int().min(6).max(40), at: Whole }),
  /** A number is said, its partner comes back. */
  z.object({ kind: z.literal('to and fro'), total: z.number().int().min(2).max(20) }),
  /** A number and a die that says more or fewer. */
  z.object({ kind: z.literal('more or fewer'), upTo: z.number().int().min(3).max(20) }),
])
export type LiveGame = z.infer<typeof LiveGame>

/** One question that homes answer on their own device, or a doing they say they are ready with. */
export const LiveRound = z.object({
  id: z.string().regex(/^r\d{1,3}$/),
  /** The line of the script it comes from; null in a game, or asked on the spot. */
  stepId: z.string().max(40).nullable(),
  segmentId: z.string().max(40).nullable(),
  prompt: z.string().max(1000),
  /** Null: nothing is answered, homes say that they are ready. */
  spec: TaskSpec.nullable(),
  show: ShowWay,
  /** How many lie in each of two places as it is asked: what a wrong answer may have taken for the whole. Empty where nothing lies so. */
  parts: z.array(z.number().int().min(0).max(400)).max(2),
  game: z.boolean(),
  began: At,
  /** From when it may be sent: the thinking before is nobody's but the child's. */
  opens: At,
  /** The moment of "all at once"; null while it is open. */
  shows: At.nullable(),
  closed: At.nullable(),
  /** Taken back: nothing of it counts. */
  undone: z.boolean(),
})
export type LiveRound = z.infer<typeof LiveRound>

export const livePhases = ['waiting', 'on', 'over'] as const
export const LiveState = z.object({
  /** Acts done so far: a desk names the one it saw last. */
  seq: z.number().int().min(0),
  phase: z.enum(livePhases),
  startedAt: At.nullable(),
  endedAt: At.nullable(),
  /** Index of the run's line, and since when; `longer`: milliseconds its silence was lengthened by. */
  line: z.number().int().min(0).max(2000),
  since: At,
  longer: z.number().int().min(0).max(600_000),
  /** How often something was said again. */
  again: z.number().int().min(0),
  /** The segments it went through, each with when it came to it; the last one is where it is, or was as it ended. */
  visits: z.array(z.object({ segmentId: z.string().max(40), at: At })).max(400),
  /** What hands did to the shared table since the script's own, as lines of a script. */
  acts: z.array(z.string().max(200)).max(60),
  /** Faces that really came up at a line. */
  thrown: z.array(z.object({ stepId: z.string().max(40), faces: z.array(Whole).min(1).max(4) })).max(60),
  /** Segments left out to be in time, and tasks kept for home. */
  leftOut: z.array(z.string().max(40)).max(60),
  later: z.array(z.string().max(40)).max(200),
  /** Questions that are only said: nothing is answered on devices. */
  said: z.array(z.string().max(40)).max(400),
  rounds: z.array(LiveRound).max(200),
  game: LiveGame.nullable(),
  /** The number sentence that stands under a game's table; empty for none. */
  sentence: z.string().max(80),
  /** What the shared window shows beside the table. */
  window: z.object({ names: z.boolean(), words: z.boolean(), tally: z.boolean() }),
  /** Who leads. */
  lead: z.object({ id: z.uuid(), name: z.string(), desk: z.string() }).nullable(),
  notes: z.array(z.object({ at: At, segmentId: z.string().nullable(), text: z.string().max(300) })).max(200),
})
export type LiveState = z.infer<typeof LiveState>

/** What a desk does. Every act is kept, with who and when: the record of a live lesson is the sum of them. */
export const LiveAct = z.discriminatedUnion('do', [
  z.object({ do: z.literal('start') }),
  z.object({ do: z.literal('end') }),
  z.object({ do: z.literal('go'), line: z.number().int().min(0).max(2000) }),
  z.object({ do: z.literal('longer'), seconds: z.number().int().min(1).max(60) }),
  z.object({ do: z.literal('again') }),
  z.object({ do: z.literal('note'), text: z.string().trim().max(300) }),
  /** Begins the round of a line; `show` and `think` (seconds) as the teacher has it now. */
  z.object({
    do: z.literal('round'),
    line: z.number().int().min(0).max(2000),
    show: ShowWay,
    think: z.number().int().min(0).max(120),
  }),
  /** Asks something that stands in no script. */
  z.object({
    do: z.literal('ask'),
    prompt: Words,
    answer: z.number().int().min(0).max(1000).nullable(),
    show: ShowWay,
    think: z.number().int().min(0).max(120),
  }),
  /** Three, two, one: all at once. */
  z.object({ do: z.literal('show') }),
  z.object({ do: z.literal('close') }),
  /** Takes the round back that is under way, or the last one. */
  z.object({ do: z.literal('undo') }),
  z.object({ do: z.literal('table'), text: z.string().trim().min(1).max(200) }),
  z.object({ do: z.literal('table back') }),
  z.object({ do: z.literal('throw'), stepId: z.string().max(40), faces: z.array(Whole).min(1).max(4) }),
  z.object({ do: z.literal('game'), game: LiveGame.nullable() }),
  z.object({
    do: z.literal('play'),
    thrown: z.array(Whole).min(1).max(4),
    /** A die of wood was thrown, or the device's own. */
    real: z.boolean(),
    show: ShowWay,
    think: z.number().int().min(0).max(120),
  }),
  z.object({ do: z.literal('leave out'), segmentId: z.string().max(40) }),
  z.object({ do: z.literal('bring back'), segmentId: z.string().max(40) }),
  z.object({ do: z.literal('later'), stepId: z.string().max(40), later: z.boolean() }),
  z.object({ do: z.literal('said'), stepId: z.string().max(40), said: z.boolean() }),
  z.object({
    do: z.literal('window'),
    names: z.boolean().optional(),
    words: z.boolean().optional(),
    tally: z.boolean().optional(),
  }),
  z.object({ do: z.literal('lead') }),
])
export type LiveAct = z.infer<typeof LiveAct>
/** An act with who did it, from which desk, and when. */
export interface Done {
  act: LiveAct
  at: number
  by: { id: string; name: string; desk: string }
}
