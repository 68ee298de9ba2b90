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

type Kind = TaskSpec['kind']
interface Known extends From {
  /** Every number the line speaks of, in order. */
  numbers: number[]
  total: number
}
const fresh: { [K in Kind]: (k: Known) => Extract<TaskSpec, { kind: K }> } = {
  number: ({ worked }) => ({ kind: 'number', answer: worked?.value ?? 0, ...(worked ? {} : { mine: true }) }),
  photo: ({ worked }) => ({ kind: 'photo', things: worked?.value ?? 1, ...(worked ? {} : { mine: true }) }),
  choice: () => ({ kind: 'choice', choices: ['Yes', 'No'], answer: 0 }),
  several: () => ({ kind: 'several', choices: ['One', 'Another', 'A third'], right: [0] }),
  sentence: ({ text, example }) => ({ kind: 'sentence', sentence: sentenceFrom(text, example) }),
  ways: ({ numbers, total }) => ({
    kind: 'ways',
    total: capped(numbers[0] ?? total, 1, 20),
    parts: 2,
    zero: true,
    turned: false,
  }),
  order: ({ numbers, total }) => ({ kind: 'order', items: orderFrom(numbers, total) }),
  gaps: ({ text, total }) => gapsFrom(text, total),
  share: ({ numbers: [things, plates = 2], total }) => ({
    kind: 'share',
    things: capped(things ?? total, 1, 24),
    plates: capped(plates, 2, 6),
  }),
  match: ({ numbers, total }) => {
    const some = [...new Set(numbers.length > 1 ? numbers : [total, total + 1, total + 2])].slice(0, 4)
    return { kind: 'match', pairs: some.map((n) => [String(n), numberName(n)] as [string, string]) }
  },
  own: ({ text, numbers }) =>
    /\bdoubles?\b/i.test(text)
      ? { kind: 'own', count: 5, rule: 'double' }
      : /\bmakes? \w+/i.test(text) && numbers.length
        ? { kind: 'own', count: 3, rule: 'makes', makes: capped(numbers.at(-1)!, 0, 100) }
        : { kind: 'own', count: 3, rule: 'any' },
  tell: () => ({ kind: 'tell' }),
  line: ({ text, numbers, total }) => lineFrom(text, numbers, total),
  circles: ({ numbers, example }) => ({
    kind: 'circles',
    under: (numbers.length ? numbers : example ? [example.a, example.b] : [3, 4])
      .filter((n) => n <= 20)
      .slice(0, 4)
      .concat([3])
      .slice(0, Math.max(1, Math.min(4, numbers.length || 2))),
  }),
  cross: ({ numbers, total, example }) => {
    const [a, b] = numbers.length > 1 ? numbers : example?.op === '-' ? [example.a, example.b] : [total, 1]
    const things = capped(Math.max(a!, b!), 1, 20)
    return { kind: 'cross', things, go: capped(Math.min(a!, b!), 0, things) }
  },
  draw: () => ({ kind: 'draw' }),
  record: ({ text, numbers }) => ({
    kind: 'record',
    rounds: 5,
    ...(/\b(take|fall|fell|rub|left|away|gone)/i.test(text)
      ? { rule: 'take' as const, start: capped(numbers[0] ?? 10, 0, 100) }
      : numbers.length && /\b(add|more|on from|start)/i.test(text)
        ? { rule: 'add' as const, start: capped(numbers[0]!, 0, 100) }
        : { rule: 'any' as const }),
  }),
}
/** A line as the words have it ("0 to 100"), else the shortest usual one that holds its numbers. */
function lineFrom(
  text: string,
  numbers: readonly number[],
  total: number,
): Extract<TaskSpec, { kind: 'line' }> {
  const ends = text.match(/\b(\d+) to (\d+)\b/)
  const all = numbers.length ? numbers : [total]
  const most = Math.max(...all)
  const [from, to] = ends
    ? [Number(ends[1]), Number(ends[2])]
    : [0, most <= 10 ? 10 : most <= 20 ? 20 : most <= 100 ? 100 : 1000]
  const inside = [...new Set(all)].filter((n) => n > from && n < to).slice(0, 8)
  return {
    kind: 'line',
    from,
    to: Math.max(to, from + 5),
    marks: inside.length ? inside : [Math.round((from + to) / 2)],
  }
}
/** A task of a kind as the line's own words suggest it; where they say nothing, the lesson's last example does. */
export function freshTask(kind: Kind, from: From): TaskSpec {
  const numbers = numbersIn(tokens(from.text)).map((n) => n.value)
  const total = from.worked?.value ?? numbers[0] ?? from.example?.total ?? 5
  return fresh[kind]({ ...from, numbers, total })
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
