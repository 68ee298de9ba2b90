import type { Told } from '../contracts/told.ts'
import type { Help, Rung } from '../contracts/reply.ts'
import type { Check } from '../look/check.ts'
import { told } from '../send/words/words.ts'

export interface Replied {
  child: string
  help: Help | null
  way: Rung | null
  couldNot: boolean
  checks: readonly Check[]
  /** What the photo shows, where one was counted without doubt. */
  photo: number | null
}
/** Only short answers read well in a sentence. */
const shortest = 24

/**
 * Words back to a home on one reply, from facts alone: what was done, how, and one thing to try next. In the home's
 * language when they are spoken; a teacher edits them before they go.
 */
export function feedbackFor(r: Replied): Told[] {
  if (r.couldNot) return [told('back.couldNot', { child: r.child })]
  const right = r.checks.filter((c) => c.verdict === 'right')
  const said = r.checks.filter((c) => c.verdict === 'right' || c.verdict === 'wrong').length
  const what = right
    .map((c) => c.shown)
    .filter((s) => s.length <= shortest && /\d/.test(s) && !s.includes('found'))
    .slice(0, 3)
    .join('; ')
  return [
    right.length === 0
      ? told('back.tried', { child: r.child })
      : right.length === said
        ? told(what ? 'back.all' : 'back.allPlain', { child: r.child, what })
        : told(what ? 'back.some' : 'back.somePlain', {
            child: r.child,
            right: right.length,
            all: said,
            what,
          }),
    ...(r.photo !== null && r.photo > 0 ? [told('back.photo', { n: r.photo })] : []),
    ...(r.help ? [told(`back.${r.help}`)] : []),
    told(nextOf(r, right.length, said)),
  ]
}
/** One next thing, done with what is at hand: on the way up one rung, or once more with less help. */
function nextOf(
  r: Replied,
  right: number,
  said: number,
): 'back.next.things' | 'back.next.alone' | 'back.next.cover' | 'back.next.another' {
  if (right < said || said === 0) return 'back.next.things'
  if (r.help === 'together' || r.help === 'nudged') return 'back.next.alone'
  return r.way === 'things' || r.way === 'picture' ? 'back.next.cover' : 'back.next.another'
}
