import { z } from 'zod'
import { type Weighed } from '@awlbox/core/judge/misconceptions/asked'
import { askedIn } from '@awlbox/core/judge/misconceptions/from-replies'
import { diagnose as ranked } from '@awlbox/core/judge/misconceptions/rank'
import { helps } from '@awlbox/core/contracts/reply'
import { BadInput, type Printed, readFile } from './printed.ts'

const Item = z
  .object({
    task: z.string().max(500),
    answer: z.union([z.string().max(80), z.number()]).nullable(),
    /** The right answer, where the task's words leave it open. */
    right: z.number().int().optional(),
    help: z.enum(helps).optional(),
    choices: z.array(z.number()).max(10).optional(),
  })
  .loose()
const Replies = z.union([z.array(Item), z.object({ answers: z.array(Item) }).loose()])

/** `diagnose REPLIES.json`: one child's answers; ways of thinking ranked, with what speaks for and against. */
export async function diagnose(args: string[]): Promise<Printed> {
  const [file] = args.filter((a) => !a.startsWith('--'))
  if (!file) throw new BadInput('say which file of answers, as in: diagnose replies.json.')
  let given: unknown
  try {
    given = JSON.parse((await readFile(file, 'file of answers')).toString('utf8'))
  } catch (error) {
    if (error instanceof BadInput) throw error
    throw new BadInput(`${file} is no JSON that can be read.`)
  }
  const read = Replies.safeParse(given)
  if (!read.success) throw new BadInput(`${file} is no list of answers, each with "task" and "answer".`)
  const items = Array.isArray(read.data) ? read.data : read.data.answers
  const weighed = items.flatMap((item, i): Weighed[] => {
    if (item.answer === null || String(item.answer).trim() === '') return []
    const asked = askedIn(item.task, item.right ?? null)
    if (!asked) return []
    return [
      {
        id: String(i + 1),
        words: `${item.task} ${item.answer}`,
        asked,
        answer: String(item.answer).trim(),
        ...(item.help ? { help: item.help } : {}),
        ...(item.choices ? { choices: item.choices } : {}),
      },
    ]
  })
  const d = ranked(weighed, items.length)
  const lines = d.considered.map(
    (s) =>
      `${Math.round(s.p * 100)} %  ${s.words}: for ${s.for.map((x) => x.id).join(', ')}${s.against.length ? `; against ${s.against.map((x) => x.id).join(', ')}` : ''}. To try: ${s.next}`,
  )
  const named = new Set(d.named.map((n) => n.id))
  return {
    json: {
      version: 1,
      weighed: d.weighed,
      given: d.given,
      sound: d.sound,
      guessing: d.guessing,
      words: d.words,
      ranked: d.considered.map((s) => ({ ...s, named: named.has(s.id) })),
    },
    text: [d.words, ...lines].join('\n'),
    clean: d.named.length === 0 && d.weighed === d.given,
  }
}
