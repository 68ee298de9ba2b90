import { choiceLooks, type PhotoLaid, taskSets, TaskSpec } from '../../contracts/lesson.ts'

/**
 * What comes back from a line, as it is written in notes: `{answer 7 or 8}`, `{photo of 5}`, `{choose A * | B}`,
 * `{tick A * | B * | C}`, `{sentence 4 + 3 = 7}`, `{ways of 7, 3 parts, no nought, turned count}`, `{order 3 | 5 | 9}`,
 * `{run 10, 20, (30), 40}`, `{share 10 on 3}`, `{match 3 = three | 4 = four}`, `{own 5 doubles}`, `{own 5 that make 10}`,
 * `{own 3 sums}`, `{tell}`, `{line 0 to 100: 30, 50}`, `{circles 3, 5}`, `{cross 4 of 7}`, `{draw}`,
 * `{record 5 rounds, take from 10}`, `{photo of 7, in 2 parts}`; and after it `, for gentle/middle`, `, mine` and `, not checked`. Numbers may have
 * a unit (`{answer 7 stamps}`), choices a look (`, as dots`), sentences `, hiding 2` or `, 2 of them`, runs `, wide 5`.
 */
type Kind = TaskSpec['kind']
type Of<K extends Kind> = Extract<TaskSpec, { kind: K }>
type Bare<K extends Kind> = Omit<Of<K>, 'mine' | 'follows' | 'unchecked' | 'sets'>

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

/** ", as dots" at the end of choices. */
const asLook = new RegExp(`,\\s*as (${choiceLooks.join('|')})$`)
function looked(text: string): { text: string; look?: string } {
  const m = text.match(asLook)
  return m ? { text: text.slice(0, m.index), look: m[1]! } : { text }
}
const withLook = (text: string, look: string | undefined): string =>
  look && look !== 'words' ? `${text}, as ${look}` : text
const numbersOf = (text: string): number[] => [...text.matchAll(/\d+/g)].map((m) => Number(m[0]))

/**
 * How the things of a photo are to lie: ", in a frame", ", in 2 parts 4 + 3", ", shared on 2", ", 3 gone", ", in a row
 * red, blue", ", in towers 3 + 4", ", 3 on one side", ", 2 crossed out", ", as a tally", ", on a line 0 to 100 at 30 + 50",
 * ", on dice 4 + 3".
 */
function laidFrom(text: string): PhotoLaid | null {
  if (text === 'in a frame') return { as: 'frame' }
  if (text === 'as a tally') return { as: 'tally' }
  const towers = text.match(/^in towers (\d+(?: \+ \d+)*)$/)
  if (towers) return { as: 'towers', heights: numbersOf(towers[1]!) }
  const dice = text.match(/^on dice (\d(?: \+ \d)*)$/)
  if (dice) return { as: 'dice', faces: numbersOf(dice[1]!) }
  const side = text.match(/^(\d+) on one side$/)
  if (side) return { as: 'sides', one: Number(side[1]) }
  const crossed = text.match(/^(\d+) crossed out$/)
  if (crossed) return { as: 'crossed', crossed: Number(crossed[1]) }
  const line = text.match(/^on a line (\d+) to (\d+) at (\d+(?: \+ \d+)*)$/)
  if (line) return { as: 'line', from: Number(line[1]), to: Number(line[2]), at: numbersOf(line[3]!) }
  const parts = text.match(/^in (\d) parts(?: (\d+(?: \+ \d+)*))?$/)
  if (parts)
    return { as: 'parts', parts: Number(parts[1]), ...(parts[2] ? { split: numbersOf(parts[2]) } : {}) }
  const shares = text.match(/^shared on (\d)$/)
  if (shares) return { as: 'shares', plates: Number(shares[1]) }
  const gone = text.match(/^(\d+) gone$/)
  if (gone) return { as: 'gone', go: Number(gone[1]) }
  const row = text.match(/^in a row(?: (.+))?$/)
  return (
    row && {
      as: 'row',
      colours: (row[1] ?? '')
        .split(',')
        .map((c) => c.trim())
        .filter(Boolean),
    }
  )
}
function laidWords(laid: PhotoLaid): string {
  switch (laid.as) {
    case 'frame':
      return 'in a frame'
    case 'parts':
      return `in ${laid.parts} parts${laid.split?.length ? ` ${laid.split.join(' + ')}` : ''}`
    case 'shares':
      return `shared on ${laid.plates}`
    case 'gone':
      return `${laid.go} gone`
    case 'row':
      return `in a row${laid.colours.length ? ` ${laid.colours.join(', ')}` : ''}`
    case 'towers':
      return `in towers ${laid.heights.join(' + ')}`
    case 'sides':
      return `${laid.one} on one side`
    case 'crossed':
      return `${laid.crossed} crossed out`
    case 'tally':
      return 'as a tally'
    case 'line':
      return `on a line ${laid.from} to ${laid.to} at ${laid.at.join(' + ')}`
    case 'dice':
      return `on dice ${laid.faces.join(' + ')}`
  }
}

/** Each kind's own words: how they are read and written. What is no task of the kind is checked afterwards. */
const kinds: { [K in Kind]: { read: (text: string) => unknown; write: (t: Bare<K>) => string } } = {
  number: {
    read: (text) => {
      const m = text.match(/^answer (\d+(?: or \d+)*)(?: (\p{L}[\p{L}\p{M} '’-]*))?$/u)
      if (!m) return null
      const [answer, ...also] = m[1]!.split(' or ').map(Number)
      return { answer, ...(also.length ? { also } : {}), ...(m[2] ? { unit: m[2].trim() } : {}) }
    },
    write: (t) => `answer ${[t.answer, ...(t.also ?? [])].join(' or ')}${t.unit ? ` ${t.unit}` : ''}`,
  },
  photo: {
    read: (text) => {
      const m = text.match(/^photo of (\d+)(?:, (.+))?$/)
      if (!m) return null
      if (!m[2]) return { things: Number(m[1]) }
      const laid = laidFrom(m[2])
      return laid && { things: Number(m[1]), laid }
    },
    write: (t) => `photo of ${t.things}${t.laid ? `, ${laidWords(t.laid)}` : ''}`,
  },
  choice: {
    read: (text) => {
      if (!text.startsWith('choose ')) return null
      const { text: items, look } = looked(text.slice(7))
      const { words, right } = starred(items.split('|').map((c) => c.trim()))
      // With none marked right, none is: it is asked to be looked at.
      const [answer = 0, ...also] = right
      return {
        choices: words,
        answer,
        ...(also.length ? { also } : {}),
        ...(look ? { look } : {}),
        ...(right.length ? {} : { unchecked: true }),
      }
    },
    write: (t) => withLook(`choose ${withStars(t.choices, [t.answer, ...(t.also ?? [])])}`, t.look),
  },
  several: {
    read: (text) => {
      if (!text.startsWith('tick ')) return null
      const { text: items, look } = looked(text.slice(5))
      const { words, right } = starred(list(items))
      return { choices: words, right, ...(look ? { look } : {}) }
    },
    write: (t) => withLook(`tick ${withStars(t.choices, t.right)}`, t.look),
  },
  sentence: {
    read: (text) => {
      const m = text.match(/^sentence (.+?)(?:, hiding (\d))?(?:, (\d) of them)?$/)
      if (!m) return null
      return {
        sentence: m[1]!.trim(),
        ...(m[2] ? { hidden: Number(m[2]) - 1 } : {}),
        ...(m[3] ? { count: Number(m[3]) } : {}),
      }
    },
    write: (t) =>
      `sentence ${t.sentence}${t.hidden === undefined ? '' : `, hiding ${t.hidden + 1}`}${t.count ? `, ${t.count} of them` : ''}`,
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
      const wide = text.match(/,\s*wide (\d)$/)
      const cells = text
        .slice(4, wide?.index)
        .split(',')
        .map((c) => c.trim())
        .filter(Boolean)
      if (!cells.every((c) => /^\(?\d+\)?$/.test(c))) return null
      return {
        run: cells.map((c) => Number(c.replace(/[()]/g, ''))),
        gaps: cells.flatMap((c, i) => (c.startsWith('(') ? [i] : [])),
        ...(wide ? { wide: Number(wide[1]) } : {}),
      }
    },
    write: (t) =>
      `run ${t.run.map((n, i) => (t.gaps.includes(i) ? `(${n})` : String(n))).join(', ')}${t.wide ? `, wide ${t.wide}` : ''}`,
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
  line: {
    read: (text) => {
      const m = text.match(/^line (\d+) to (\d+): (\d+(?:, ?\d+)*)$/)
      return m && { from: Number(m[1]), to: Number(m[2]), marks: numbersOf(m[3]!) }
    },
    write: (t) => `line ${t.from} to ${t.to}: ${t.marks.join(', ')}`,
  },
  circles: {
    read: (text) => (/^circles \d+(, ?\d+)*$/.test(text) ? { under: numbersOf(text) } : null),
    write: (t) => `circles ${t.under.join(', ')}`,
  },
  cross: {
    read: (text) => {
      const m = text.match(/^cross (\d+) of (\d+)$/)
      return m && { go: Number(m[1]), things: Number(m[2]) }
    },
    write: (t) => `cross ${t.go} of ${t.things}`,
  },
  draw: { read: (text) => (text === 'draw' ? {} : null), write: () => 'draw' },
  record: {
    read: (text) => {
      const m = text.match(/^record (\d) rounds?(?:, (take from|add to) (\d+))?$/)
      if (!m) return null
      const rule = m[2] === 'take from' ? 'take' : m[2] === 'add to' ? 'add' : 'any'
      return { rounds: Number(m[1]), rule, ...(m[3] ? { start: Number(m[3]) } : {}) }
    },
    write: (t) =>
      `record ${t.rounds} rounds${t.rule === 'any' ? '' : `, ${t.rule === 'take' ? 'take from' : 'add to'} ${t.start ?? 10}`}`,
  },
}
/** ", for gentle/middle" at the end of a mark. */
const forSets = new RegExp(`, for ((?:${taskSets.join('|')})(?:/(?:${taskSets.join('|')}))*)$`)

/** Reads the words of a mark; null where they are no task. */
export function readTask(marked: string): TaskSpec | null {
  const unchecked = marked.endsWith(noCheck)
  const rest = unchecked ? marked.slice(0, -noCheck.length) : marked
  const mine = rest.endsWith(byHand)
  const own = (mine ? rest.slice(0, -byHand.length) : rest).trim()
  const sets = own.match(forSets)?.[1]?.split('/')
  const text = sets ? own.replace(forSets, '').trim() : own
  for (const kind of Object.keys(kinds) as Kind[]) {
    const read = kinds[kind].read(text)
    if (read === null) continue
    const task = TaskSpec.safeParse({
      kind,
      ...(mine ? { mine } : {}),
      ...(unchecked ? { unchecked } : {}),
      ...(sets ? { sets: taskSets.filter((x) => sets.includes(x)) } : {}),
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
    case 'line':
      return (
        t.from < t.to &&
        t.marks.every((m) => m >= t.from && m <= t.to) &&
        new Set(t.marks).size === t.marks.length
      )
    case 'cross':
      return t.go <= t.things
    case 'record':
      return t.rule === 'any' || t.start !== undefined
    case 'sentence':
      return t.hidden === undefined || t.hidden < numbersOf(t.sentence).length
    default:
      return true
  }
}
/** A task as its mark says it, without the braces. */
export function taskWords(t: TaskSpec): string {
  const write = kinds[t.kind].write as (t: TaskSpec) => string
  return `${write(t)}${t.sets ? `, for ${t.sets.join('/')}` : ''}${t.mine ? byHand : ''}${t.unchecked ? noCheck : ''}`
}
