import { TaskSpec } from '../../contracts/lesson.ts'

/**
 * What comes back from a line, as it is written in notes: `{answer 7 or 8}`, `{photo of 5}`, `{choose A * | B}`,
 * `{tick A * | B * | C}`, `{sentence 4 + 3 = 7}`, `{ways of 7, 3 parts, no nought, turned count}`, `{order 3 | 5 | 9}`,
 * `{run 10, 20, (30), 40}`, `{share 10 on 3}`, `{match 3 = three | 4 = four}`, `{own 5 doubles}`, `{own 5 that make 10}`,
 * `{own 3 sums}`, `{tell}`; and after it `, mine` and `, not checked`.
 */
type Kind = TaskSpec['kind']
type Of<K extends Kind> = Extract<TaskSpec, { kind: K }>
type Bare<K extends Kind> = Omit<Of<K>, 'mine' | 'follows' | 'unchecked'>

/** Marks after a task's own words: set by hand, and with no right answer. */
const [byHand, noCheck] = [', mine', ', not checked']

const list = (text: string): string[] =>
  text
    .split('|')
    .map((c) => c.trim())
    .filter(Boolean)
const starred = (items: readonly string[]): { words: string[]; right: number[] } => ({
  words: items.map((c) => c.replace(/\s*\*$/, '')),
  right: items.flatMap((c, i) => (c.endsWith('*') ? [i] : [])),
})
const withStars = (words: readonly string[], right: readonly number[]): string =>
  words.map((c, i) => (right.includes(i) ? `${c} *` : c)).join(' | ')

/** Each kind's own words: how they are read and written. What is no task of the kind is checked afterwards. */
const kinds: { [K in Kind]: { read: (text: string) => unknown; write: (t: Bare<K>) => string } } = {
  number: {
    read: (text) => {
      const m = text.match(/^answer (\d+(?: or \d+)*)$/)
      if (!m) return null
      const [answer, ...also] = m[1]!.split(' or ').map(Number)
      return { answer, ...(also.length ? { also } : {}) }
    },
    write: (t) => `answer ${[t.answer, ...(t.also ?? [])].join(' or ')}`,
  },
  photo: {
    read: (text) => {
      const m = text.match(/^photo of (\d+)$/)
      return m && { things: Number(m[1]) }
    },
    write: (t) => `photo of ${t.things}`,
  },
  choice: {
    read: (text) => {
      if (!text.startsWith('choose ')) return null
      const { words, right } = starred(
        text
          .slice(7)
          .split('|')
          .map((c) => c.trim()),
      )
      // With none marked right, none is: it is asked to be looked at.
      const [answer = 0, ...also] = right
      return {
        choices: words,
        answer,
        ...(also.length ? { also } : {}),
        ...(right.length ? {} : { unchecked: true }),
      }
    },
    write: (t) => `choose ${withStars(t.choices, [t.answer, ...(t.also ?? [])])}`,
  },
  several: {
    read: (text) => {
      if (!text.startsWith('tick ')) return null
      const { words, right } = starred(list(text.slice(5)))
      return { choices: words, right }
    },
    write: (t) => `tick ${withStars(t.choices, t.right)}`,
  },
  sentence: {
    read: (text) => (text.startsWith('sentence ') ? { sentence: text.slice(9).trim() } : null),
    write: (t) => `sentence ${t.sentence}`,
  },
  ways: {
    read: (text) => {
      const m = text.match(/^ways of (\d+)(?:, (2|3) parts)?(, no nought)?(, turned count)?$/)
      return m && { total: Number(m[1]), parts: Number(m[2] ?? 2), zero: !m[3], turned: m[4] !== undefined }
    },
    write: (t) =>
      `ways of ${t.total}${t.parts === 2 ? '' : `, ${t.parts} parts`}${t.zero ? '' : ', no nought'}${t.turned ? ', turned count' : ''}`,
  },
  order: {
    read: (text) => (text.startsWith('order ') ? { items: list(text.slice(6)) } : null),
    write: (t) => `order ${t.items.join(' | ')}`,
  },
  gaps: {
    read: (text) => {
      if (!text.startsWith('run ')) return null
      const cells = text
        .slice(4)
        .split(',')
        .map((c) => c.trim())
        .filter(Boolean)
      if (!cells.every((c) => /^\(?\d+\)?$/.test(c))) return null
      return {
        run: cells.map((c) => Number(c.replace(/[()]/g, ''))),
        gaps: cells.flatMap((c, i) => (c.startsWith('(') ? [i] : [])),
      }
    },
    write: (t) => `run ${t.run.map((n, i) => (t.gaps.includes(i) ? `(${n})` : String(n))).join(', ')}`,
  },
  share: {
    read: (text) => {
      const m = text.match(/^share (\d+) (?:on|between|among) (\d+)(?: plates)?$/)
      return m && { things: Number(m[1]), plates: Number(m[2]) }
    },
    write: (t) => `share ${t.things} on ${t.plates}`,
  },
  match: {
    read: (text) => {
      if (!text.startsWith('match ')) return null
      const pairs = list(text.slice(6)).map((p) => p.split(' = ').map((x) => x.trim()))
      return { pairs }
    },
    write: (t) => `match ${t.pairs.map((p) => p.join(' = ')).join(' | ')}`,
  },
  own: {
    read: (text) => {
      const m = text.match(/^own (\d) (doubles?|sums?|that makes? (\d+))$/)
      if (!m) return null
      const count = Number(m[1])
      if (m[3] !== undefined) return { count, rule: 'makes', makes: Number(m[3]) }
      return { count, rule: m[2]!.startsWith('double') ? 'double' : 'any' }
    },
    write: (t) =>
      `own ${t.count} ${t.rule === 'double' ? 'doubles' : t.rule === 'makes' ? `that make ${t.makes ?? 10}` : 'sums'}`,
  },
  tell: { read: (text) => (text === 'tell' ? {} : null), write: () => 'tell' },
}

/** Reads the words of a mark; null where they are no task. */
export function readTask(marked: string): TaskSpec | null {
  const unchecked = marked.endsWith(noCheck)
  const rest = unchecked ? marked.slice(0, -noCheck.length) : marked
  const mine = rest.endsWith(byHand)
  const text = (mine ? rest.slice(0, -byHand.length) : rest).trim()
  for (const kind of Object.keys(kinds) as Kind[]) {
    const read = kinds[kind].read(text)
    if (read === null) continue
    const task = TaskSpec.safeParse({
      kind,
      ...(mine ? { mine } : {}),
      ...(unchecked ? { unchecked } : {}),
      ...(read as object),
    })
    return task.success && holdsTogether(task.data) ? task.data : null
  }
  return null
}
/** What a schema cannot say: places that are in the run, choices that are not twice there. */
function holdsTogether(t: TaskSpec): boolean {
  const apart = (words: readonly string[]): boolean => new Set(words).size === words.length
  switch (t.kind) {
    case 'gaps':
      return t.gaps.every((g) => g < t.run.length) && t.gaps.length < t.run.length
    case 'several':
      return apart(t.choices) && t.right.every((r) => r < t.choices.length)
    case 'order':
      return apart(t.items)
    case 'match':
      return apart(t.pairs.map((p) => p[0])) && apart(t.pairs.map((p) => p[1]))
    case 'own':
      return t.rule !== 'makes' || t.makes !== undefined
    default:
      return true
  }
}
/** A task as its mark says it, without the braces. */
export function taskWords(t: TaskSpec): string {
  const write = kinds[t.kind].write as (t: TaskSpec) => string
  return `${write(t)}${t.mine ? byHand : ''}${t.unchecked ? noCheck : ''}`
}
