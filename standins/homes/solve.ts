import type { Answer } from '@awlbox/core/contracts/reply'
import type { Household } from './household.ts'

/** A task as a home's page shows it. */
export interface Asked {
  id: string
  prompt: string
  kind: Answer['kind']
  choices: string[]
  slots: string[]
  numbers: number[]
  sets: string[]
}
type Random = (n: number) => number
export type Knows = Pick<Household, 'ability' | 'belief' | 'words'>

const words =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  )
const tens = 'twenty thirty forty fifty sixty seventy eighty ninety'.split(' ')
export const numbersIn = (text: string): number[] =>
  (text.toLowerCase().match(/\d+|[a-z]+/g) ?? []).flatMap((w) =>
    /^\d/.test(w)
      ? [Number(w)]
      : words.includes(w)
        ? [words.indexOf(w)]
        : tens.includes(w)
          ? [(tens.indexOf(w) + 2) * 10]
          : [],
  )
const takes = (prompt: string): boolean => !/more|altogether|in all|join/.test(prompt)
/** A grown-up reads the story: what is asked for is the part not told, what is left, or all of it. */
function solveWords(prompt: string): { a: number; b: number; truth: number } | null {
  const [a, b] = numbersIn(prompt)
  if (a === undefined || b === undefined) return null
  return { a, b, truth: takes(prompt) ? Math.max(0, a - b) : a + b }
}
/** What a child who believes something says instead. */
function believed(
  at: { a: number; b: number; truth: number },
  prompt: string,
  belief: Household['belief'],
): number {
  switch (belief) {
    case 'counts the start':
      return takes(prompt) ? at.truth + 1 : at.truth - 1
    case 'one too few':
      return Math.max(0, at.truth - 1)
    case 'adds for take away':
      return at.a + at.b
    case 'says the larger':
      return Math.max(at.a, at.b)
    default:
      return at.truth + 1
  }
}
const holds = (choice: string): boolean => {
  const m = choice.match(/(\d+)\s*([+−-])\s*(\d+)\s*=\s*(\d+)/)
  return (
    m !== null && (m[2] === '+' ? Number(m[1]) + Number(m[3]) : Number(m[1]) - Number(m[3])) === Number(m[4])
  )
}

/** An answer without a photo or a voice, worked out from the words of the task alone; null where there is none. */
export function solve(task: Asked, home: Knows, random: Random): Answer | null {
  const well = random(1000) / 1000 < home.ability
  const base = { taskId: task.id, kind: task.kind }
  switch (task.kind) {
    case 'number': {
      const at = solveWords(task.prompt)
      return { ...base, text: String(!at ? 3 : well ? at.truth : believed(at, task.prompt, home.belief)) }
    }
    case 'choice': {
      const right = task.choices.findIndex(holds)
      return { ...base, choice: well && right >= 0 ? right : random(task.choices.length) }
    }
    case 'tell':
      return { ...base, text: home.words || 'We did it at the table.' }
    case 'draw':
      return { ...base, drawing: drawn(random) }
    case 'photo':
      return null
    default: {
      const given = pieces(task, well, home, random)
      return given && { ...base, given }
    }
  }
}
/** Two rings and some dots in them, as a finger draws them. */
function drawn(random: Random): string {
  const ring = (x: number): string =>
    Array.from({ length: 13 }, (_, i) => {
      const turn = (i / 12) * 2 * Math.PI
      return `${i ? 'L' : 'M'}${Math.round(x + 150 * Math.cos(turn))} ${Math.round(350 + 150 * Math.sin(turn))}`
    }).join('')
  const dots = Array.from({ length: 3 + random(5) }, () => {
    const at = `${200 + random(600)} ${300 + random(100)}`
    return `M${at}L${at}`
  })
  return ring(300) + ring(700) + dots.join('')
}

/** What a household lays, ticks, lists or shares; `well`: as it should be. */
function pieces(task: Asked, well: boolean, home: Knows, random: Random): string[] | null {
  const [n = 0, m = 2] = task.numbers
  switch (task.kind) {
    case 'several':
      return well ? task.choices.filter(holds) : task.choices.filter(() => random(2) === 1)
    case 'sentence':
      return task.slots.length ? [hiddenIn(task, well)] : lanes(task, well)
    case 'order': {
      const sorted = [...task.choices].sort((a, b) => (numbersIn(a)[0] ?? 0) - (numbersIn(b)[0] ?? 0))
      return well ? sorted : sorted.reverse()
    }
    case 'gaps':
      return filled(task.slots).map((x) => String(well ? x : x + 1))
    case 'share': {
      const each = Math.floor(n / m)
      const uneven = home.belief === 'unequal shares are fine' || !well
      return Array.from({ length: m }, (_, i) => String(uneven && i === 0 ? Math.max(0, each - 1) : each))
    }
    case 'match': {
      const of = (slot: string) => task.choices.find((c) => numbersIn(c)[0] === numbersIn(slot)[0]) ?? ''
      const right = task.slots.map(of)
      return well || right.length < 2 ? right : [right[1]!, right[0]!, ...right.slice(2)]
    }
    case 'ways': {
      const all =
        m === 3
          ? Array.from({ length: n + 1 }, (_, a) => `${a} + 0 + ${n - a}`)
          : Array.from({ length: n + 1 }, (_, a) => `${a} + ${n - a}`)
      return well ? all : all.slice(0, Math.max(2, Math.floor(all.length / 2)))
    }
    case 'own': {
      const double = /double/i.test(task.prompt)
      return Array.from({ length: n }, (_, i) => {
        const [a, b] = [i + 2, double ? i + 2 : i + 1]
        return `${a} + ${b} = ${a + b + (well || i ? 0 : 1)}`
      })
    }
    default:
      return drawnPieces(task, well, home, random)
  }
}
/** The same of what is placed, drawn and played. */
function drawnPieces(task: Asked, well: boolean, home: Knows, random: Random): string[] | null {
  const [n = 0] = task.numbers
  switch (task.kind) {
    case 'line':
      return placed(task, well, home, random)
    case 'circles':
      return task.slots.map((s, i) => String(Math.max(0, Number(s) - (well || i ? 0 : 1))))
    case 'cross': {
      const go = numbersIn(task.prompt).at(-1) ?? 1
      return Array.from({ length: Math.max(0, Math.min(n, well ? go : go + 1)) }, (_, i) => String(n - i))
    }
    case 'record':
      return played(task, well, random)
    default:
      return null
  }
}
/** Where a child puts numbers: a little off; or bunched towards the end, as a line is felt before it is known. */
function placed(task: Asked, well: boolean, home: Knows, random: Random): string[] {
  const [from = 0, to = 100] = task.numbers
  return task.slots.map((s) => {
    const part = (Number(s) - from) / (to - from)
    const felt = home.belief === 'bunches the line' || !well ? Math.log1p(part * 9) / Math.log(10) : part
    const shaken = felt + (random(100) - 50) / 1500
    return String(Math.round(Math.max(0, Math.min(1, shaken)) * (to - from) + from))
  })
}
/** Rounds played with a die; a start number and whether things go are told by the words. */
function played(task: Asked, well: boolean, random: Random): string[] {
  const [rounds = 5] = task.numbers
  const start = numbersIn(task.prompt)[0] ?? 10
  const away = /take|fall|fell|left|rub|gone/i.test(task.prompt)
  return Array.from({ length: rounds }, (_, i) => {
    const came = 1 + random(Math.max(1, Math.min(6, start)))
    const end = (away ? start - came : start + came) + (!well && i === 0 ? 1 : 0)
    return `${came}|${end}|${start} ${away ? '−' : '+'} ${came} = ${end}`
  })
}
/** Which of the tiles makes the sentence hold. */
function hiddenIn(task: Asked, well: boolean): string {
  const right = task.choices.find((c) => {
    const [l, r] = task.slots
      .map((s) => (s === '' ? c : s))
      .join(' ')
      .split('=')
      .map((side) =>
        side
          .match(/[+−]?\s*\d+/g)
          ?.reduce((sum, t) => sum + Number(t.replace('−', '-').replace(/\s/g, '')), 0),
      )
    return l !== undefined && l === r
  })
  return well && right ? right : (task.choices.find((c) => c !== right) ?? task.choices[0]!)
}
/** One sentence; where more are asked for, its turn-round beside it. */
function lanes(task: Asked, well: boolean): string[] {
  const one = laidFrom(task, well)
  if ((task.numbers[0] ?? 1) < 2 || one.length < 5) return one
  const [a, sign, b, , c] = one as [string, string, string, string, string]
  const turned = sign === '+' ? [b, sign, a, '=', c] : [a, sign, c, '=', b]
  return [...one, '/', ...turned]
}
/** Three numbers among the tiles of which two make the third, those the words speak of first, with a sign and an equals between them. */
function laidFrom({ choices: tiles, prompt }: Pick<Asked, 'choices' | 'prompt'>, well: boolean): string[] {
  const told = new Set(numbersIn(prompt).map(String))
  const numbers = tiles
    .filter((t) => /^\d+$/.test(t))
    .sort((x, y) => Number(told.has(y)) - Number(told.has(x)))
  for (const [i, a] of numbers.entries())
    for (const [j, b] of numbers.entries())
      for (const [k, c] of numbers.entries())
        if (i !== j && j !== k && i !== k) {
          if (tiles.includes('+') && Number(a) + Number(b) === Number(c))
            return [a, '+', b, '=', well ? c : a]
          if (tiles.includes('−') && Number(a) - Number(b) === Number(c))
            return [a, '−', b, '=', well ? c : a]
        }
  return numbers.slice(0, 2)
}
/** What is missing in an even run, or in a row of a square. */
function filled(slots: readonly string[]): number[] {
  const known = slots.flatMap((s, i) => (s === '' ? [] : [[i, Number(s)] as const]))
  const [[i, a], [j, b]] = [known[0]!, known.at(-1)!]
  const by = j === i ? 1 : (b - a) / (j - i)
  return slots.flatMap((s, k) => {
    if (s !== '') return []
    // A neighbour tells a square better than its ends do.
    const before = slots[k - 1]
    const even = Math.round(a + by * (k - i))
    return [Number.isInteger(by) || !before ? even : Number(before) + 1]
  })
}
