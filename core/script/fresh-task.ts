import type { Example, TaskSpec } from '../contracts/lesson.ts'
import { numbersIn, numberName, tokens } from '../plan/numbers/names.ts'
import { hasUnknown, inSigns, isTrue, sentencesIn, solve } from './sentence.ts'
import type { WorkedOut } from './worked-out.ts'

/** What a line says of what may come back from it, and what its lesson is about. */
interface From {
  text: string
  worked: WorkedOut | null
  example: Example | undefined
}
const capped = (n: number, least: number, most: number): number => Math.max(least, Math.min(most, n))

/** A task of a kind as the line's own words suggest it; where they say nothing, the lesson's last example does. */
export function freshTask(kind: TaskSpec['kind'], { text, worked, example }: From): TaskSpec {
  const numbers = numbersIn(tokens(text)).map((n) => n.value)
  const total = worked?.value ?? numbers[0] ?? example?.total ?? 5
  switch (kind) {
    case 'number':
      return { kind, answer: worked?.value ?? 0, ...(worked ? {} : { mine: true }) }
    case 'photo':
      return { kind, things: worked?.value ?? 1, ...(worked ? {} : { mine: true }) }
    case 'choice':
      return { kind, choices: ['Yes', 'No'], answer: 0 }
    case 'several':
      return { kind, choices: ['One', 'Another', 'A third'], right: [0] }
    case 'sentence':
      return { kind, sentence: sentenceFrom(text, example) }
    case 'ways':
      return { kind, total: capped(numbers[0] ?? total, 1, 20), parts: 2, zero: true, turned: false }
    case 'order':
      return { kind, items: orderFrom(numbers, total) }
    case 'gaps':
      return gapsFrom(text, total)
    case 'share': {
      const [things = total, plates = 2] = numbers
      return { kind, things: capped(things, 1, 24), plates: capped(plates, 2, 6) }
    }
    case 'match': {
      const some = [...new Set(numbers.length > 1 ? numbers : [total, total + 1, total + 2])].slice(0, 4)
      return { kind, pairs: some.map((n) => [String(n), numberName(n)] as [string, string]) }
    }
    case 'own':
      return /\bdoubles?\b/i.test(text)
        ? { kind, count: 5, rule: 'double' }
        : /\bmakes? \w+/i.test(text) && numbers.length
          ? { kind, count: 3, rule: 'makes', makes: capped(numbers.at(-1)!, 0, 100) }
          : { kind, count: 3, rule: 'any' }
    case 'tell':
      return { kind }
  }
}
function sentenceFrom(text: string, example: Example | undefined): string {
  const [found] = sentencesIn(text)
  if (found && !hasUnknown(found) && isTrue(found)) return inSigns(found)
  const missing = found ? solve(found) : null
  if (found && missing !== null) return inSigns(found).replace(/_+/, String(missing))
  if (example && (example.op === '+' || example.op === '-'))
    return example.op === '+'
      ? `${example.a} + ${example.b} = ${example.total}`
      : `${example.a} − ${example.b} = ${example.total}`
  return '2 + 3 = 5'
}
function orderFrom(numbers: readonly number[], total: number): string[] {
  const some = [...new Set(numbers)]
  const use = some.length > 2 ? some.slice(0, 8) : [total, total + 2, total + 5]
  return [...use].sort((a, b) => a - b).map(String)
}
/** "30, 40, __, 60": the run as the line writes it; else one up to the number it speaks of. */
function gapsFrom(text: string, total: number): Extract<TaskSpec, { kind: 'gaps' }> {
  const cells =
    text.match(/(?:(?:\d+|_{2,}),\s*){2,}(?:and\s+)?(?:\d+|_{2,})/)?.[0].split(/,\s*(?:and\s+)?/) ?? []
  const known = cells.flatMap((c, i) => (c.startsWith('_') ? [] : [{ i, n: Number(c) }]))
  const gaps = cells.flatMap((c, i) => (c.startsWith('_') ? [i] : []))
  if (known.length >= 2 && gaps.length) {
    const [first, last] = [known[0]!, known.at(-1)!]
    const by = (last.n - first.n) / (last.i - first.i)
    const run = cells.map((_, i) => first.n + by * (i - first.i))
    if (run.every((n) => Number.isInteger(n) && n >= 0 && n <= 1000)) return { kind: 'gaps', run, gaps }
  }
  const from = Math.max(0, Math.min(996, total - 3))
  return { kind: 'gaps', run: [0, 1, 2, 3, 4].map((i) => from + i), gaps: [2] }
}
