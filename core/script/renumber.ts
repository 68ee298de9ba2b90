import type { Example, Segment } from '../contracts/lesson.ts'
import { exampleSentence } from '../plan/numbers/facts.ts'
import { numberName, readNumberAt } from '../plan/numbers/names.ts'
import { pauseWords } from './reading.ts'
import { sentencesIn } from './sentence.ts'
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
  segment: Segment
  /** Lines whose numbers belonged to no part of the fact and were left as they were. */
  unchanged: string[]
}
/** A copy of a segment played with another fact: every line that depends on the numbers follows. */
export function duplicateWith(segment: Segment, from: Example, to: Example, newId: () => string): Renumbered {
  const unchanged: string[] = []
  // What is put out takes turns over the whole segment: of two fours the first put is the first part.
  const puts = { a: 0, b: 0, total: 0 }
  const steps = segment.steps.map((s) => {
    // Seconds to wait or at home are no part of the fact.
    const words = s.verb === 'pause' ? pauseWords(s.text) : s.text
    const text =
      s.verb === 'wait'
        ? s.text
        : renumberText(words, from, to, s.verb === 'do' ? puts : undefined) + s.text.slice(words.length)
    const numbers = s.text.match(/\d+/g) ?? []
    if (text === s.text && numbers.length && s.verb !== 'wait' && s.verb !== 'pause') unchanged.push(s.text)
    const answer = s.task?.kind === 'number' ? s.task.answer : null
    const role = (['total', 'b', 'a'] as const).find((r) => from[r] === answer)
    const task = s.task?.kind === 'number' && role ? { ...s.task, answer: to[role] } : s.task
    return { ...s, id: newId(), text, ...(task ? { task } : {}) }
  })
  return { segment: { ...segment, id: newId(), title: renumberTitle(segment.title), steps }, unchanged }
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
      [e.a, e.b].every((n) => new RegExp(`\\b(${n}|${numberName(n)})\\b`, 'i').test(text)),
    ) ?? null
  )
}
