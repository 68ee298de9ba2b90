import { z } from 'zod'

/** What homes are written about. */
export const letterKinds = ['new', 'nudge', 'thanks', 'feedback'] as const
export type LetterKind = (typeof letterKinds)[number]
/**
 * `waiting` for its hour or another try; `sent` to the mail server; `failed` after the last try; `refused`: the address
 * takes no letters; `to copy` where there is no mail: a person passes it on; `copied` when that was done; `not needed`
 * where what it asks for came meanwhile.
 */
export const letterStates = [
  'waiting',
  'sent',
  'failed',
  'refused',
  'to copy',
  'copied',
  'not needed',
] as const
export type LetterState = (typeof letterStates)[number]

const Hour = z.number().int().min(0).max(23)
/** When homes are written to, by the setting's clock. */
export const PostRules = z.object({
  /** No letter from this hour … */
  quietFrom: Hour,
  /** … until this one. */
  quietTo: Hour,
  /** Days after a lesson went out until homes that sent nothing are reminded, once; null: never. */
  nudgeAfter: z.number().int().min(1).max(14).nullable(),
  /** Whether a home hears that its reply arrived. */
  thanks: z.boolean(),
})
export type PostRules = z.infer<typeof PostRules>
/** Evenings from seven and mornings before seven belong to families. */
const usualPost: PostRules = { quietFrom: 19, quietTo: 7, nudgeAfter: 3, thanks: false }
export const postRulesOf = (own: Partial<PostRules>): PostRules => ({ ...usualPost, ...own })
