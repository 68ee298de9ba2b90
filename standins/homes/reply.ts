import { randomUUID } from 'node:crypto'
import type { Answer, Help } from '@awlbox/core/contracts/reply'
import { seeded } from '@awlbox/core/plan/seeded'
import type { Client } from '../http.ts'
import { standInPhoto } from './photo.ts'

interface HomePack {
  children: { id: string; name: string }[]
  pack: { tasks: { id: string; prompt: string; kind: 'number' | 'choice' | 'photo'; choices: string[] }[] }
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

const words = ['zero', 'one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten']
const numbersIn = (text: string): number[] =>
  (text.toLowerCase().match(/\d+|[a-z]+/g) ?? []).flatMap((w) =>
    /^\d/.test(w) ? [Number(w)] : words.includes(w) ? [words.indexOf(w)] : [],
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
