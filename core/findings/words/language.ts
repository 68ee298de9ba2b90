import type { Codes, Reader } from '../codes.ts'

/** A wording, or several by the finding's `case`. ICU message syntax: `{n}`, `{n, plural, one {# thing} other {# things}}`. */
type Wording = string | Readonly<Record<string, string>>
/** What is said of one code. */
export interface Words {
  /** When it is told, for the documents. */
  when: string
  what: Wording
  /** Why it matters, or what to do. */
  why?: Wording
  /** What the button of its repair says; `text`, `thing` and `count` are the repair's own. */
  fix?: Wording
}
/** All words of one language: a file beside English. What a file has not is said in English. */
export type Language = Readonly<{
  [R in Reader]: Readonly<Record<R extends 'cut' ? Exclude<Codes['cut'], Codes['take']> : Codes[R], Words>>
}> & {
  /** What a parameter's value is called, by the parameter's name. */
  names: Readonly<Record<string, Readonly<Record<string, string>>>>
}
/** A language as a file may have it: not whole yet. */
export type Partly = {
  readonly [R in Reader]?: Partial<Language[R]>
} & { names?: Language['names'] }
