import { isTrue, sentencesIn } from './sentence.ts'
import type { Example, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import { exampleSentence } from '../plan/numbers/facts.ts'
import { numberName, numbersIn, readNumberAt, tokens } from '../plan/numbers/names.ts'
import { pauseWords } from './reading.ts'
import { play } from './template/lesson.ts'
import type { Line } from './template/lines.ts'
import type { LessonWriting } from './template/teaching.ts'
import { capital } from '../words.ts'

type Role = 'a' | 'b' | 'total'

/** Splits a text into words and what lies between them, so that numbers can be changed and nothing else. */
const pieces = (text: string): string[] => text.match(/\d+|[\p{L}']+|[^\p{L}\d']+/gu) ?? []
const isWord = (piece: string): boolean => /^[\p{L}\d']/u.test(piece)

/**
 * Which part of the old fact a number plays: told by its value and, where two parts are the same number (4 + 4), by
 * turns. A total is told first after "to", "altogether", "left" or "=".
 */
function roleOf(value: number, e: Example, before: string, used: Record<Role, number>): Role | null {
  const fits = (['a', 'b', 'total'] as const).filter((r) => e[r] === value)
  if (fits.length <= 1) return fits[0] ?? null
  if (fits.includes('total') && /(=|equals|makes|altogether|left|\bto|reveal)\s*$/i.test(before))
    return 'total'
  const parts = fits.filter((r) => r !== 'total')
  return (parts.length ? parts : fits).reduce((x, y) => (used[y] < used[x] ? y : x))
}

/** One line with the numbers of one fact put in place of another's; figures stay figures and words stay words. */
export function renumberText(
  text: string,
  from: Example,
  to: Example,
  used: Record<Role, number> = { a: 0, b: 0, total: 0 },
): string {
  if (text.trim() === exampleSentence(from)) return exampleSentence(to)
  const list = pieces(text)
  const words = list.flatMap((p, i) => (isWord(p) ? [{ word: p.toLowerCase(), at: i }] : []))
  const out = [...list]
  for (let w = 0; w < words.length;) {
    const found = readNumberAt(
      words.map((x) => x.word),
      w,
    )
    // "ten frame" and "part 2" count nothing.
    const next = words[found?.to ?? 0]?.word ?? ''
    const named =
      found &&
      (/^(frames?|slots?|square)$/.test(next) || /^(part|plate|shelf)$/.test(words[w - 1]?.word ?? ''))
    if (!found || named) {
      w = found ? found.to : w + 1
      continue
    }
    const [first, last] = [words[found.from]!.at, words[found.to - 1]!.at]
    const role = roleOf(found.value, from, list.slice(0, first).join(''), used)
    if (role) {
      used[role]++
      const was = list.slice(first, last + 1).join('')
      const said = /^\d/.test(was) ? String(to[role]) : numberName(to[role])
      out[first] = /^[A-Z]/.test(was) ? capital(said) : said
      for (let i = first + 1; i <= last; i++) out[i] = ''
    }
    w = found.to
  }
  return out.join('')
}

export interface Renumbered {
  /** The segment again, its steps with ids of their own and its title one further. */
  segment: Segment
  /** Lines whose numbers belonged to no part of the fact and were left as they were. */
  unchanged: string[]
}
/**
 * A copy of a segment played with another fact. What a template wrote is written again with the new numbers, whatever
 * they pass on their way; of other lines each number that is a part of the fact follows, choices included.
 */
export function duplicateWith(
  segment: Segment,
  from: Example,
  to: Example,
  make: { newId: () => string; w?: LessonWriting },
): Renumbered {
  const unchanged: string[] = []
  const written = make.w ? writtenAgain(segment, from, to, make.w) : new Map<Step, readonly Line[]>()
  // What is put out takes turns over the whole segment: of two fours the first put is the first part.
  const puts = { a: 0, b: 0, total: 0 }
  const steps = segment.steps.flatMap((s): Step[] => {
    const lines = written.get(s)
    if (lines)
      return lines.map(([verb, text, task]) => ({
        id: make.newId(),
        verb,
        text,
        ...(task ? { task } : {}),
      }))
    // Seconds to wait or at home are no part of the fact.
    const words = s.verb === 'pause' ? pauseWords(s.text) : s.text
    const text =
      s.verb === 'wait'
        ? s.text
        : renumberText(words, from, to, s.verb === 'do' ? puts : undefined) + s.text.slice(words.length)
    const numbers = s.text.match(/\d+/g) ?? []
    if (text === s.text && numbers.length && s.verb !== 'wait' && s.verb !== 'pause') unchanged.push(s.text)
    const task = s.task && renumberTask(s.task, from, to)
    return [{ ...s, id: make.newId(), text, ...(task ? { task } : {}) }]
  })
  return { segment: { ...segment, id: make.newId(), title: renumberTitle(segment.title), steps }, unchanged }
}

/** What a template wrote for a fact, as it writes it for another: all of it at the first of its lines, nothing at the rest. */
function writtenAgain(
  segment: Segment,
  from: Example,
  to: Example,
  w: LessonWriting,
): Map<Step, readonly Line[]> {
  const out = new Map<Step, readonly Line[]>()
  const same = (s: Step | undefined, [verb, text]: Line): boolean => s?.verb === verb && s.text === text
  for (const together of [false, true]) {
    const was = play(from, w, together)
    const at = segment.steps.findIndex((_, i) => was.every((line, k) => same(segment.steps[i + k], line)))
    if (at < 0 || !was.length) continue
    const old = segment.steps.slice(at, at + was.length)
    old.forEach((s, k) => out.set(s, k === 0 ? play(to, w, together) : []))
  }
  for (const job of [w.teach.number, w.teach.choice, w.teach.photo]) {
    const line = job(from, w)
    const step = segment.steps.find((s) => same(s, line))
    if (step) out.set(step, [job(to, w)])
  }
  return out
}

/** A task's answer with the new fact: a number by the part it is, choices as far from the right one as they were. */
function renumberTask(task: TaskSpec, from: Example, to: Example): TaskSpec {
  const roleOfKey = (n: number): Role | undefined => (['total', 'b', 'a'] as const).find((r) => from[r] === n)
  switch (task.kind) {
    case 'number': {
      const role = roleOfKey(task.answer)
      return role ? { ...task, answer: to[role] } : task
    }
    case 'photo': {
      const role = roleOfKey(task.things)
      return role ? { ...task, things: Math.min(40, to[role]) } : task
    }
    case 'choice': {
      const right = task.choices[task.answer] ?? ''
      const choices = task.choices.map((c) => renumberChoice(c, right, from, to))
      // Two that have become the same would make the question unfair: then they stay for the teacher to set.
      return new Set(choices).size === choices.length ? { ...task, choices } : task
    }
    default:
      return renumberPieces(task, from, to)
  }
}
/** The same of what is given in pieces: lists stand as a person wrote them. */
function renumberPieces(task: TaskSpec, from: Example, to: Example): TaskSpec {
  switch (task.kind) {
    case 'sentence': {
      const sentence = renumberText(task.sentence, from, to)
      return sentencesIn(sentence).some((s) => !isTrue(s)) ? task : { ...task, sentence }
    }
    case 'ways':
      return task.total === from.total && to.total >= 1 && to.total <= 20
        ? { ...task, total: to.total }
        : task
    case 'share':
      return task.things === from.a &&
        task.plates === from.b &&
        to.b >= 2 &&
        to.b <= 6 &&
        to.a >= 1 &&
        to.a <= 24
        ? { ...task, things: to.a, plates: to.b }
        : task
    default:
      return task
  }
}
/** "4 + 3 = 6" beside the right "4 + 3 = 7" is one too few of the new fact as well; "six" beside "seven" too. */
function renumberChoice(choice: string, right: string, from: Example, to: Example): string {
  const last = (text: string): number | undefined => numbersIn(tokens(text)).at(-1)?.value
  const [mine, key] = [last(choice), last(right)]
  const role = key === undefined ? undefined : (['total', 'b', 'a'] as const).find((r) => from[r] === key)
  if (mine === undefined || key === undefined || !role) return renumberText(choice, from, to)
  const off = mine - key
  // Below zero nothing can be chosen: as far on the other side.
  const value = to[role] + off < 0 ? to[role] - off : to[role] + off
  const all = numbersIn(tokens(choice))
  if (all.length > 1) {
    const start = choice.search(/[=]|\b(equals|makes|make|is the same as)\b/i)
    const front = start < 0 ? choice : choice.slice(0, start)
    const back = start < 0 ? '' : choice.slice(start)
    return start < 0
      ? renumberText(choice, from, to)
      : renumberText(front, from, to) + swapNumber(back, mine, value)
  }
  return swapNumber(choice, mine, value)
}
/** One number of a text for another, in figures or words as it stood. */
function swapNumber(text: string, was: number, is: number): string {
  const fact = { a: was, b: -1, total: -1, op: '#' } as const
  return renumberText(text, fact, { a: is, b: -1, total: -1, op: '#' })
}
const renumberTitle = (title: string): string => {
  const n = title.match(/^(.*?)(\d+)$/)
  return n ? `${n[1]}${Number(n[2]) + 1}` : `${title} again`.slice(0, 120)
}

/** The fact a segment plays, from its own written sentence or its examples' numbers; null when none is clear. */
export function factOf(segment: Segment, examples: readonly Example[]): Example | null {
  for (const s of [...segment.steps].reverse()) {
    const found = ['write', 'say', 'reveal'].includes(s.verb) ? sentencesIn(s.text)[0] : undefined
    if (!found || found.left.length !== 2 || found.right.length !== 1) continue
    const [a, b] = found.left
    const total = found.right[0]!.value
    if (a?.value == null || b?.value == null || total == null) continue
    return { a: a.value, b: b.value, total, op: b.sign > 0 ? '+' : '-' }
  }
  const text = segment.steps.map((s) => s.text).join(' ')
  return (
    examples.find((e) =>
      (e.op === '#' ? [e.a] : [e.a, e.b]).every((n) =>
        new RegExp(`\\b(${n}|${numberName(n)})\\b`, 'i').test(text),
      ),
    ) ?? null
  )
}
