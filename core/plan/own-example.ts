import type { Aim, Example, Structure } from '../contracts/lesson.ts'
import { factFrom } from './numbers/facts.ts'
import { numbersIn, tokens } from './numbers/names.ts'

/** How a fact of each structure is written by hand, shown where one is asked for. */
export const ownExampleHint: Record<Structure, string> = {
  parts: '4 + 3',
  add: '4 + 3',
  'take-away': '7 − 3',
  'count-on': '8 + 2',
  doubles: '4 + 4',
  halves: '8',
  share: '9',
  missing: '4 + 3',
  compare: '6 and 4',
  teens: '10 + 4',
  tens: '34 + 20',
  'round-back': '45 − 19',
  order: '37',
  numbers: '6',
}

/** A fact written by hand, or why it cannot be one of this aim. */
export type OwnExample = { ok: true; example: Example } | { ok: false; why: string }
const no = (why: string): OwnExample => ({ ok: false, why })

/**
 * Reads "8 + 1", "nine take away two", "6 and 4" or "12" as a fact of an aim's structure. The range of the aim does not
 * bind what is written by hand; what would be no fact of the structure at all is refused with the reason.
 */
export function readOwnExample(text: string, aim: Pick<Aim, 'structure' | 'upTo' | 'among'>): OwnExample {
  const before = text.split(/=|\bis\b|\bequals\b|\bmakes\b/i)[0]!
  const plain = before.replace(/[−–-]/g, ' minus ').replace(/\+/g, ' plus ')
  const words = tokens(plain)
  const found = numbersIn(words).map((n) => n.value)
  const { structure } = aim
  const hint = `Write it like ${ownExampleHint[structure]}.`
  if (found.some((n) => n > 200)) return no('Numbers go up to 200.')
  if (!found.length) return no(hint)
  const minus = words.some((w) => ['minus', 'take', 'subtract', 'less'].includes(w))
  return ofOne(found, aim, hint) ?? ofTwo(found, minus, aim, hint)
}

/** Structures that one number is enough for; null of the others. */
function ofOne(
  found: readonly number[],
  aim: Pick<Aim, 'structure' | 'among'>,
  hint: string,
): OwnExample | null {
  const [a, b] = found as [number, number?]
  const alone = (fact: Example): OwnExample =>
    b === undefined ? { ok: true, example: fact } : no(`One number is enough here. ${hint}`)
  switch (aim.structure) {
    case 'numbers':
      return alone(factFrom('#', a, 0))
    case 'order':
      return alone(factFrom('@', a, 0))
    case 'halves':
      return b !== undefined && b !== 2 ? no(hint) : { ok: true, example: factFrom('÷', a, 2) }
    case 'share':
      return (b ?? aim.among) !== aim.among
        ? no(`Things are shared among ${aim.among} in this lesson.`)
        : { ok: true, example: factFrom('÷', a, aim.among) }
    default:
      return null
  }
}
function ofTwo(
  found: readonly number[],
  minus: boolean,
  { structure, upTo }: Pick<Aim, 'structure' | 'upTo'>,
  hint: string,
): OwnExample {
  const [a, b] = found
  if (found.length !== 2 || a === undefined || b === undefined) return no(hint)
  if (structure === 'compare') return { ok: true, example: factFrom('~', a, b) }
  const onlyTakes = structure === 'take-away' || structure === 'round-back'
  if (onlyTakes && !minus) return no(`This idea takes away. ${hint}`)
  if (minus && !onlyTakes && structure !== 'tens' && structure !== 'add') return no(`This idea adds. ${hint}`)
  if (minus) return b > a ? no('More would go than there are.') : { ok: true, example: factFrom('-', a, b) }
  if (structure === 'parts' && a + b !== upTo) return no(`The parts must make ${upTo}.`)
  if (structure === 'doubles' && a !== b) return no('A double has the same number twice.')
  if (structure === 'teens' && a !== 10) return no('The first part is ten.')
  return { ok: true, example: factFrom('+', a, b) }
}
