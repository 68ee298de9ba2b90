import { isRight, type Weighed } from './asked.ts'
import { chanceUnder, type Rule, rules, speaksOf } from './rules.ts'

/** Ways of thinking that would lead to just this wrong answer, commonest first: what may be looked for, not what is so. */
export function explains({
  asked,
  answer,
}: Pick<Weighed, 'asked' | 'answer'>): Pick<Rule, 'id' | 'words' | 'next'>[] {
  if (isRight(asked, answer)) return []
  return rules
    .filter((r) => speaksOf(r, asked) && chanceUnder(r, asked, answer) > 0)
    .sort((a, b) => b.base - a.base)
    .map(({ id, words, next }) => ({ id, words, next }))
}
