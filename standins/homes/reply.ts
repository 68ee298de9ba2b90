import { randomUUID } from 'node:crypto'
import type { Answer, Help } from '@awlbox/core/contracts/reply'
import { seeded } from '@awlbox/core/plan/seeded'
import type { Client } from '../http.ts'
import { standInPhoto } from './photo.ts'

interface HomePack {
  children: { id: string; name: string }[]
  pack: { tasks: Asked[] }
}
interface Asked {
  id: string
  prompt: string
  kind: Answer['kind']
  choices: string[]
  slots: string[]
  numbers: number[]
}
/** What a home really knows; the teacher's side never sees it. */
export interface Hidden {
  /** Chance of a right answer, 0–1. */
  ability: number
  help: Help
  words: string
  /** The numbers this home's photo shows: saffron and blue things. */
  photo: { saffron: number; blue: number } | null
  seed: number
}

/** A household opens its link, does the tasks and sends them back. Answers are worked out from the words of the task alone. */
export async function replyFrom(http: Client, token: string, packId: string, hidden: Hidden): Promise<void> {
  const page = await http.get<HomePack>(`/api/home/${token}/packs/${packId}`)
  const random = seeded(hidden.seed)
  const knows = () => random(1000) / 1000 < hidden.ability
  for (const child of page.children) {
    const answers: Answer[] = []
    for (const task of page.pack.tasks) {
      if (task.kind === 'number') {
        const truth = solveWords(task.prompt)
        answers.push({
          taskId: task.id,
          kind: 'number',
          text: String(truth === null ? 3 : knows() ? truth : truth + 1),
        })
      } else if (task.kind === 'choice') {
        const right = task.choices.findIndex(holds)
        answers.push({
          taskId: task.id,
          kind: 'choice',
          choice: knows() && right >= 0 ? right : random(task.choices.length),
        })
      } else if (task.kind === 'tell') {
        answers.push({ taskId: task.id, kind: 'tell', text: hidden.words || 'We did it at the table.' })
      } else if (task.kind !== 'photo') {
        const given = pieces(task, knows(), random)
        if (given) answers.push({ taskId: task.id, kind: task.kind, given })
      } else if (hidden.photo) {
        const form = new FormData()
        const jpeg = await standInPhoto({
          ...hidden.photo,
          seed: hidden.seed,
          orientation: ([1, 6, 8, 3] as const)[hidden.seed % 4]!,
          sheet: hidden.seed % 2 === 0,
        })
        form.set('photo', new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }), 'table.jpg')
        const { id } = await http.send<{ id: string }>(
          'POST',
          `/api/home/${token}/packs/${packId}/photos`,
          form,
        )
        answers.push({ taskId: task.id, kind: 'photo', photoId: id })
      }
    }
    await http.send('PUT', `/api/home/${token}/packs/${packId}/reply`, {
      childId: child.id,
      key: randomUUID(),
      answers,
      help: hidden.help,
      words: hidden.words,
    })
  }
}

const words =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
    ' ',
  )
const tens = 'twenty thirty forty fifty sixty seventy eighty ninety'.split(' ')
const numbersIn = (text: string): number[] =>
  (text.toLowerCase().match(/\d+|[a-z]+/g) ?? []).flatMap((w) =>
    /^\d/.test(w)
      ? [Number(w)]
      : words.includes(w)
        ? [words.indexOf(w)]
        : tens.includes(w)
          ? [(tens.indexOf(w) + 2) * 10]
          : [],
  )
/** A grown-up reads the story: what is asked for is the part not told, what is left, or all of it. */
function solveWords(prompt: string): number | null {
  const [a, b] = numbersIn(prompt)
  if (a === undefined || b === undefined) return null
  return /more/.test(prompt) ? a + b : Math.max(0, a - b)
}
const holds = (choice: string): boolean => {
  const m = choice.match(/(\d+)\s*([+−-])\s*(\d+)\s*=\s*(\d+)/)
  return (
    m !== null && (m[2] === '+' ? Number(m[1]) + Number(m[3]) : Number(m[1]) - Number(m[3])) === Number(m[4])
  )
}

/** What a household lays, ticks, lists or shares, worked out from what stands before it; `well`: as it should be. */
function pieces(task: Asked, well: boolean, random: (n: number) => number): string[] | null {
  const [n = 0, m = 2] = task.numbers
  switch (task.kind) {
    case 'several':
      return well ? task.choices.filter(holds) : task.choices.filter(() => random(2) === 1)
    case 'sentence':
      return laidFrom(task.choices, well)
    case 'order': {
      const sorted = [...task.choices].sort((a, b) => (numbersIn(a)[0] ?? 0) - (numbersIn(b)[0] ?? 0))
      return well ? sorted : sorted.reverse()
    }
    case 'gaps':
      return filled(task.slots).map((x) => String(well ? x : x + 1))
    case 'share': {
      const each = Math.floor(n / m)
      return Array.from({ length: m }, (_, i) => String(!well && i === 0 ? Math.max(0, each - 1) : each))
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
      return null
  }
}
/** Three numbers among the tiles of which two make the third, with a sign and an equals between them. */
function laidFrom(tiles: readonly string[], well: boolean): string[] {
  const numbers = tiles.filter((t) => /^\d+$/.test(t))
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
/** What is missing in an even run. */
function filled(slots: readonly string[]): number[] {
  const known = slots.flatMap((s, i) => (s === '' ? [] : [[i, Number(s)] as const]))
  const [[i, a], [j, b]] = [known[0]!, known.at(-1)!]
  const by = j === i ? 1 : (b - a) / (j - i)
  return slots.flatMap((s, k) => (s === '' ? [Math.round(a + by * (k - i))] : []))
}
