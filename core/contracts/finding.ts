import { z } from 'zod'

/** wrong: something said, shown or asked is not so. risky: it can go wrong for a child or a home. tidy: house style, order and economy. info: nothing went wrong. */
export const severities = ['wrong', 'risky', 'tidy', 'info'] as const
export type Severity = (typeof severities)[number]

/**
 * What a finding's words are filled with, by name: numbers as numbers, so that each language can bend its words to
 * them; lists as lists. `case` chooses among the wordings of one code; a name that ends in `Seconds` is shown as
 * minutes and seconds; one that the catalogue has names for (`mat`, `overlay`) is shown by its name there.
 */
export const Params = z.record(
  z.string(),
  z.union([z.number(), z.string(), z.array(z.union([z.number(), z.string()]))]),
)
export type Params = z.infer<typeof Params>

/** Where a finding stands. Seconds are those of what was read: the take, the segment's film, the film. Null: nowhere in particular. */
interface Place {
  segmentId: string | null
  stepId: string | null
  start: number | null
  end: number | null
}
/** Something found by whoever reads a script, a take, a cut or a film: a code, what fills its words, and its place. Words are the catalogue's. */
export interface Found<Code extends string = string> extends Partial<Place> {
  code: Code
  params: Params
}
