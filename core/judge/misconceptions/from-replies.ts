import type { TaskSpec } from '../../contracts/lesson.ts'
import type { PackTask } from '../../contracts/pack.ts'
import type { PhotoReading } from '../../contracts/reading.ts'
import type { Answer, Help } from '../../contracts/reply.ts'
import { type Readings, readingFor } from '../../look/checks.ts'
import { laidOf } from '../../look/laid.ts'
import { readTypedNumber } from '../../look/typed-number.ts'
import { numbersIn, tokens } from '../../plan/numbers/names.ts'
import { hasUnknown, type Sentence, sentencesIn } from '../../script/sentence.ts'
import type { Asked, Weighed } from './asked.ts'
import { truthOf } from './asked.ts'

type Of<K extends TaskSpec['kind']> = Extract<TaskSpec, { kind: K }>
interface Replied {
  id: string
  tasks: readonly PackTask[]
  answers: readonly Answer[]
  help: Help | null
}

/** Every answer of a reply that can tell how a child thinks; a blank is none, nor is what no question can be read of. */
export function weighedOf(reply: Replied, readings: Readings): Weighed[] {
  return reply.tasks.flatMap((task, place) => {
    const answer = reply.answers.find((a) => a.taskId === task.id)
    if (!answer || task.spec.unchecked) return []
    return partsOf(task, answer, readingFor(answer, readings, place)).map((w, i) => ({
      id: `${reply.id}:${task.id}${i ? `:${i}` : ''}`,
      help: reply.help ?? 'nudged',
      ...w,
    }))
  })
}
type Part = Omit<Weighed, 'id' | 'help'>

interface Given {
  prompt: string
  answer: Answer
  /** What was laid, ticked or shared, piece by piece. */
  given: readonly string[]
  /** What was seen in its photo. */
  reading: PhotoReading | null
}
function partsOf(task: PackTask, answer: Answer, reading: PhotoReading | null): Part[] {
  const read = readers[task.spec.kind] as ((spec: TaskSpec, g: Given) => Part[]) | undefined
  return read?.(task.spec, { prompt: task.prompt, answer, given: answer.given ?? [], reading }) ?? []
}
/** Kinds of answers that tell how a child thinks, each with what it asked. */
const readers: { [K in TaskSpec['kind']]?: (spec: Of<K>, g: Given) => Part[] } = {
  number: (spec, { prompt, answer }) => {
    const text = answer.text?.trim() ?? ''
    const asked = text ? askedIn(prompt, spec.answer) : null
    return asked && isNumeric(text) ? [{ asked, answer: asTyped(text), words: `${prompt} ${text}` }] : []
  },
  choice: ofChoice,
  photo: (spec, { prompt, reading }) => {
    // Strokes, dots and places on a line are no count of things.
    const laid = laidOf({ prompt, spec })?.as
    const counts = laid !== 'tally' && laid !== 'dice' && laid !== 'line'
    // Only what was counted without doubt tells anything of the child's counting.
    return counts && reading && reading.count > 0 && reading.low === reading.high
      ? [
          {
            asked: { form: 'count', n: spec.things },
            answer: String(reading.count),
            words: `${prompt} ${reading.count} in the photo`,
          },
        ]
      : []
  },
  gaps: (spec, { given }) =>
    spec.gaps.flatMap((g, i) => {
      const [before, here] = [spec.run[g - 1], spec.run[g]!]
      const text = given[i]?.trim()
      return before !== undefined && text && isNumeric(text)
        ? [
            {
              asked: { form: 'after' as const, from: before, by: here - before },
              answer: text,
              words: `${before}, then ${text}`,
            },
          ]
        : []
    }),
  share: (spec, { given }) =>
    given.length
      ? [
          {
            asked: { form: 'share', things: spec.things, among: spec.plates },
            answer: given.join(', '),
            words: `${spec.things} shared among ${spec.plates}: ${given.join(', ')}`,
          },
        ]
      : [],
  circles: (spec, { given }) =>
    spec.under.flatMap((n, i) =>
      given[i] === undefined
        ? []
        : [
            {
              asked: { form: 'count' as const, n },
              answer: given[i],
              words: `${given[i]} circles under ${n}`,
            },
          ],
    ),
  cross: (spec, { answer, given }) =>
    answer.given
      ? [
          {
            asked: { form: 'take', a: spec.things, b: spec.go },
            answer: String(spec.things - new Set(given).size),
            words: `${new Set(given).size} of ${spec.things} crossed off, ${spec.go} were to go`,
          },
        ]
      : [],
  record: (spec, { given }) => given.flatMap((round) => ofRound(spec, round)),
  sentence: (spec, { given }) => (spec.hidden === undefined ? [] : ofHidden(spec, given[0])),
}
const isNumeric = (text: string): boolean => /^\d+$/.test(text.trim()) || readTypedNumber(text) !== null
/** Digits stay as they were typed ("07"); a number word becomes its number. */
const asTyped = (text: string): string =>
  /^\d+$/.test(text.trim()) ? text.trim() : String(readTypedNumber(text))

function ofChoice(spec: Of<'choice'>, { prompt, answer }: Given): Part[] {
  const chosen =
    answer.choice === null || answer.choice === undefined ? undefined : spec.choices[answer.choice]
  const numbers = spec.choices.map((c) => readTypedNumber(c))
  if (chosen === undefined || numbers.some((n) => n === null)) return []
  const asked = askedIn(prompt, numbers[spec.answer]!)
  return asked
    ? [
        {
          asked,
          answer: String(readTypedNumber(chosen)),
          choices: numbers as number[],
          words: `${prompt} ${chosen}`,
        },
      ]
    : []
}
function ofRound(spec: Of<'record'>, round: string): Part[] {
  const [came = '', said = ''] = round.split('|').map((x) => x.trim())
  const [c, n] = [readTypedNumber(came), readTypedNumber(said)]
  if (c === null || n === null || spec.start === undefined || spec.rule === 'any') return []
  return [
    {
      asked: { form: spec.rule === 'take' ? 'take' : 'add', a: spec.start, b: c },
      answer: String(n),
      words: `${spec.start} ${spec.rule === 'take' ? '−' : '+'} ${c}: ${n}`,
    },
  ]
}
function ofHidden(spec: Of<'sentence'>, tile: string | undefined): Part[] {
  if (!tile || !isNumeric(tile)) return []
  let k = -1
  const open = spec.sentence.replace(/\d+/g, (d) => (++k === spec.hidden ? '__' : d))
  const [s] = sentencesIn(open)
  const asked = s ? askedBySentence(s) : null
  return asked ? [{ asked, answer: tile.trim(), words: open.replace('__', tile) }] : []
}

/** Reads a question as what it asks; `right` (its known answer) settles what its words leave open. Null where nothing can be read, or it would not come to the answer. */
export function askedIn(question: string, right: number | null): Asked | null {
  const [open] = sentencesIn(
    question.replace(/\?(?=\s*$|\s*=|\s*[+−-])/g, '__').replace(/=\s*(?:\?|_+|…|\.{3})?\s*$/, '= __'),
  ).filter(hasUnknown)
  const bySigns = open ? askedBySentence(open) : null
  if (bySigns) return right === null || truthOf(bySigns) === right ? bySigns : null
  const plain = question.toLowerCase()
  // "Double four" read as a number would be forty-four.
  const found = numbersIn(tokens(plain.replace(/\bdouble\b/g, 'twice'))).map((n) => n.value)
  // With no number in it, "how many" asks to count what is there; unless something was done to it first.
  if (!found.length) return right !== null && countsOnly(plain) ? { form: 'count', n: right } : null
  const reading = readings(plain, found).find((q) => right === null || truthOf(q) === right)
  return reading ?? null
}
const countsOnly = (plain: string): boolean =>
  /\bhow many\b/.test(plain) &&
  !/\b(left|more|fewer|less|now|both|hidden|under|missing|gone|other|each|need|ways)\b/.test(plain)
function readings(plain: string, found: readonly number[]): Asked[] {
  const [a, b] = found
  if (a === undefined) return []
  if (/\bdouble\b/.test(plain)) return [{ form: 'double', n: a }]
  if (/\bhalf\b|\bhalve\b/.test(plain)) return [{ form: 'half', n: a }]
  if (/\b(after|comes next|next number|one more than)\b/.test(plain) && b === undefined)
    return [{ form: 'after', from: a, by: 1 }]
  if (/\b(before|one (?:less|fewer) than)\b/.test(plain) && b === undefined)
    return [{ form: 'after', from: a, by: -1 }]
  if (/\bten more than\b/.test(plain)) return [{ form: 'after', from: found.at(-1)!, by: 10 }]
  if (/\bten (?:less|fewer) than\b/.test(plain)) return [{ form: 'after', from: found.at(-1)!, by: -10 }]
  if (b === undefined)
    return /\b(write|numeral|digits?)\b/.test(plain)
      ? [{ form: 'write', n: a }]
      : /\bhow many\b|\bcount\b/.test(plain)
        ? [{ form: 'count', n: a }]
        : []
  if (/\b(share[sd]?|among|between)\b/.test(plain)) return [{ form: 'share', things: a, among: b }]
  if (/\bhow many (more|fewer|less)\b|\bdifference\b/.test(plain) && /\bthan\b|\bdifference\b/.test(plain))
    return [{ form: 'compare', a, b }]
  const [add, take, missing, missingFirst]: Asked[] = [
    { form: 'add', a, b },
    { form: 'take', a, b },
    { form: 'missing', op: '+', known: Math.min(a, b), total: Math.max(a, b) },
    { form: 'missing', op: '+', known: b, total: a },
  ]
  if (
    /\b(left|away|gone|go(es)?|fall|fell|eats?|ate|gives?|gave|takes?|took|minus|fewer|lost|loses|remain)\b|−/.test(
      plain,
    )
  )
    return [take!, missing!, add!]
  if (/\b(need|needs|missing|to make|makes?|hidden|under|other)\b/.test(plain))
    return [missingFirst!, missing!, add!, take!]
  return [add!, missing!, take!]
}
/** A sentence with one unknown as what it asks. */
function askedBySentence(s: Sentence): Asked | null {
  const unknownLeft = s.left.some((t) => t.value === null)
  const [open, closed] = unknownLeft ? [s.left, s.right] : [s.right, s.left]
  if (open.length === 1 && closed.length === 2) {
    const [a, b] = closed
    return {
      form: b!.sign < 0 ? 'take' : 'add',
      a: a!.value!,
      b: b!.value!,
      ...(unknownLeft ? { resultFirst: true } : {}),
    }
  }
  if (open.length !== 2 || closed.length !== 1) return null
  const [first, second] = open
  const total = closed[0]!.value!
  // 9 = __ + 2: the whole stands before the equals.
  const resultFirst = unknownLeft ? {} : { resultFirst: true }
  if (second!.sign > 0)
    return { form: 'missing', op: '+', known: (first!.value ?? second!.value)!, total, ...resultFirst }
  // 7 − __ = 4 asks for what went; __ − 3 = 4 for the whole, which is a sum.
  return second!.value === null
    ? { form: 'missing', op: '-', known: total, total: first!.value!, ...resultFirst }
    : { form: 'add', a: total, b: second!.value }
}
