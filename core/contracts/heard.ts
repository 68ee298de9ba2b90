import type { Seconds } from './units.ts'
import { z } from 'zod'
import { Params } from './finding.ts'

const AnySecond: z.ZodType<Seconds> = z.number()
const Second: z.ZodType<Seconds> = z.number().min(0)
/** A recognised word: seconds into the take, confidence 0–1. From captions it has the punctuation written after it, often none; from sound it has no mark. */
export const HeardWord = z.object({
  word: z.string().max(60),
  start: Second,
  end: Second,
  confidence: z.number().min(0).max(1),
  mark: z.string().max(4).optional(),
})
export type HeardWord = z.infer<typeof HeardWord>

export const heardCodes = [
  'count-skip',
  'count-repeat',
  'count-order',
  'count-end',
  'total-mismatch',
  'false-sentence',
  'number-changed',
  'line-skipped',
  'false-start',
  'filler',
  'dead-air',
  'wait-short',
  'answer-early',
  'clap-mismatch',
  'pace',
  'pause-cue',
  'wait',
  'recount',
] as const
export const HeardCode = z.enum(heardCodes)
export type HeardCode = z.infer<typeof HeardCode>
/** Codes that only inform: nothing went wrong. */
export const plainCodes: ReadonlySet<HeardCode> = new Set(['pause-cue', 'wait', 'recount'])

export const HeardFinding = z.object({
  code: HeardCode,
  /** Seconds into the take. */
  start: AnySecond,
  end: AnySecond,
  stepId: z.string().nullable(),
  expected: z.string(),
  heard: z.string(),
  /** False where recognition or captioning may be at fault: let the ear decide. */
  certain: z.boolean(),
  params: Params,
})
export type HeardFinding = z.infer<typeof HeardFinding>

export const ProposedDrop = z.object({
  from: AnySecond,
  to: AnySecond,
  reason: z.enum(['slip', 'false start', 'silence']),
  note: z.string(),
})
export type ProposedDrop = z.infer<typeof ProposedDrop>

/** One word of a script line against what was heard. `at` is an index into the heard words. */
const LineWord = z.object({
  word: z.string(),
  at: z.number().int().nullable(),
  status: z.enum(['said', 'changed', 'missing']),
})
export const HeardLine = z.object({
  stepId: z.string(),
  words: z.array(LineWord),
  start: AnySecond.nullable(),
  end: AnySecond.nullable(),
})
export type HeardLine = z.infer<typeof HeardLine>

/** What a recording's sound is like: decibels under full strength, and shares. */
export const SoundFacts = z.object({
  speech: z.number(),
  noise: z.number(),
  /** Share of loud samples at the very top: high where sound was cut off. */
  cutOff: z.number(),
  /** Decibels of what lies over 4.6 kHz against all of it. */
  high: z.number(),
})
export type SoundFacts = z.infer<typeof SoundFacts>
const soundAdvice = ['cut off', 'telephone', 'quiet', 'noise', 'second voice'] as const
export type SoundAdvice = (typeof soundAdvice)[number]
const How = z.enum(['understood', 'partly', 'not understood'])
/** How much of a recording was understood, 0–1, by stretches between silences; and what would make it be heard better. */
export const Understanding = z.object({
  how: How,
  share: z.number(),
  stretches: z.array(z.object({ from: AnySecond, to: AnySecond, how: How })),
  advice: z.array(z.enum(soundAdvice)),
  /** Where somebody else speaks: surely, or perhaps. What is found there is never certain. */
  others: z.array(z.object({ from: AnySecond, to: AnySecond, sure: z.boolean() })).optional(),
})
export type Understanding = z.infer<typeof Understanding>

export const Hearing = z.object({
  words: z.array(HeardWord),
  lines: z.array(HeardLine),
  findings: z.array(HeardFinding),
  drops: z.array(ProposedDrop),
  /** Words a minute while speaking; null when too little was said. */
  pace: z.number().nullable(),
  /** 0–100: 100 less the weight of its slips. */
  quality: z.number(),
  /** Script words the recogniser had no pronunciation for. */
  unpronounced: z.array(z.string()),
  /** Missing in hearings of before it was measured. */
  understood: Understanding.optional(),
  /** What the listener should know about the whole take: another segment, telephone sound. */
  note: z.string().optional(),
  /** When claps were heard, in seconds; null where nobody listened for them. */
  claps: z.array(z.number()).nullable().optional(),
  /** Where anything sounds, as pairs of seconds. */
  voiced: z.array(z.object({ from: z.number(), to: z.number() })).optional(),
})
export type Hearing = z.infer<typeof Hearing>
