import { type Step, type Verb, verbs } from '../contracts/lesson.ts'

/** What a line would be with the kind its first word names. */
export interface KindOffer {
  verb: Verb
  text: string
}
const first = new RegExp(`^(${verbs.join('|')})(:?)\\s+(\\S.*)$`, 'i')

/**
 * The kind a line may have been meant to have: its first word names one and is written as a sign and not as speech:
 * with a colon ("Ask: How many?"), small ("ask How many?"), or before a time ("Wait 5 s"). "Count with me as I draw."
 * and "Do you have six too?" are spoken. Null where nothing is offered; it is only ever offered.
 */
export function kindOffer(step: Pick<Step, 'verb' | 'text'>): KindOffer | null {
  const [, word, colon, rest] = step.text.match(first) ?? []
  if (!word || !rest) return null
  const verb = word.toLowerCase() as Verb
  const timed = (verb === 'wait' || verb === 'pause') && /^\d+\s*(s|sec|seconds|min|minutes?)?\b/i.test(rest)
  if (verb === step.verb || !(colon || word === verb || timed)) return null
  return { verb, text: rest }
}
