import type { MatKind } from '../table/state.ts'
import { readClause } from './clauses.ts'
import type { Group } from './groups.ts'
import { isVerbOf } from './verbs.ts'
import { type Word, wordsOf } from './words.ts'

/** Mats that may be laid with things on them, and how their place is said. */
const laden: Partial<Record<MatKind, string>> = {
  frame: 'on the frame',
  row: 'on the row',
  jar: 'in the jar',
  plates: 'on the plate',
  pairs: 'on the pair plate',
}
const withThings = new Set(['with', 'showing', 'holding'])
/** What follows is how the mat is made, not what lies on it. */
const ofTheMat = /^(parts?|places?|slots?|squares?|spaces?|rows?|digits?|numbers?|slips?|end|ends|sides?)$/
const closing = new Set(['on', 'in', 'onto', 'inside', 'it', 'them', 'each', 'one', 'already', 'of', 'both'])

/** Where the mat's words end and those of its things begin; -1 where it is laid bare. */
const jointIn = (act: readonly Word[], mat: Group): number =>
  act.findIndex(
    (w, i) =>
      i > mat.from &&
      (withThings.has(w.t) || (mat.mat === 'pairs' && (w.t === 'for' || w.t === 'of'))) &&
      act.slice(i + 1, i + 3).some((x) => x.n !== null),
  )

/** The things of "6 counters on it", and whether each place gets as many. */
function thingsIn(rest: readonly Word[]): { things: readonly Word[]; each: boolean } {
  let to = rest.length
  while (to > 0 && rest[to - 1]!.n === null && closing.has(rest[to - 1]!.t)) to--
  return { things: rest.slice(0, to), each: rest.slice(to).some((w) => w.t === 'each' || w.t === 'both') }
}

/**
 * "Lay out a ten frame with 6 counters on it" is two acts: the frame is laid, then 6 counters are put on it. An act that
 * is none of this kind stays one.
 */
export function laidThenPut(act: readonly Word[]): Word[][] {
  const one = [[...act]]
  const clause = readClause(act)
  const shows = clause.verb === 'show' || clause.verb === 'hold'
  if (!shows && !isVerbOf(clause.verb, 'lay')) return one
  const mat = clause.parts.find((p) => p.prep === null && p.group.mat !== null)?.group
  const place = mat?.mat ? laden[mat.mat] : undefined
  if (!mat || !place) return one
  const joint = jointIn(act, mat)
  if (joint < 0) return one
  const rest = act.slice(joint + 1)
  const first = rest.findIndex((w) => w.n !== null)
  if (ofTheMat.test(rest[first + 1]?.t ?? '')) return one
  // Two shapes are two plates, and there is one.
  if (mat.mat === 'pairs' && rest.filter((w) => w.n !== null).length > 1) return one
  const { things, each } = thingsIn(rest)
  const shape = mat.mat === 'pairs' && act.some((w) => /^shapes?$/.test(w.t))
  return [
    // Shown with things on it, a mat is laid with them.
    shows
      ? [...wordsOf('lay out'), ...act.slice(act.findIndex((w) => w.t === clause.verb) + 1, joint)]
      : act.slice(0, joint),
    [
      ...wordsOf(shape ? 'draw' : 'put'),
      ...things,
      ...(shape ? wordsOf('dots') : []),
      ...wordsOf(each ? place.replace('the', 'each') : place),
    ],
  ]
}
