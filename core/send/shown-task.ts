import type { HomeTask } from '../contracts/api/home.ts'
import type { TaskSpec } from '../contracts/lesson.ts'
import { seeded } from '../plan/seeded.ts'
import { hiddenPlace, sentenceParts } from '../script/sentence-parts.ts'

type Shown = Pick<HomeTask, 'choices' | 'slots' | 'numbers' | 'look'>
const nothing: Shown = { choices: [], slots: [], numbers: [], look: null }

/** The same things mixed, always alike for one task, and never as they should be in the end. */
export function mixed(items: readonly string[], name: string): string[] {
  const next = seeded([...name].reduce((h, c) => (h * 31 + c.codePointAt(0)!) % 2_147_483_647, 7))
  const out = [...items]
  for (let i = out.length - 1; i > 0; i--) {
    const j = next(i + 1)
    ;[out[i], out[j]] = [out[j]!, out[i]!]
  }
  return out.length > 1 && out.every((x, i) => x === items[i]) ? [...out.slice(1), out[0]!] : out
}

/** The tiles a sentence is laid from: its own, and one number beside each that it is not. */
function tilesOf(sentence: string, name: string): string[] {
  const own = sentenceParts(sentence)
  const numbers = new Set(own.filter((t) => /\d/.test(t)).map(Number))
  const beside = [...numbers].flatMap((n) => [n + 1, n - 1]).filter((n) => n >= 0 && !numbers.has(n))
  const more = [...new Set(beside)].slice(0, 2).map(String)
  const signs = own.includes('+') ? ['−'] : ['+']
  return mixed([...own, ...more, ...signs], name)
}

/** Tiles to lay; or, where one number is hidden, the sentence with its gap and the numbers it may be. */
function shownSentence(id: string, spec: Extract<TaskSpec, { kind: 'sentence' }>): Shown {
  const parts = sentenceParts(spec.sentence)
  if (spec.hidden === undefined)
    return { ...nothing, choices: tilesOf(spec.sentence, id), numbers: [spec.count ?? 1] }
  const place = hiddenPlace(spec.sentence, spec.hidden)
  const right = Number(parts[place] ?? 0)
  const beside = [right - 1, right + 1, ...parts.filter((p) => /^\d+$/.test(p)).map(Number)]
  const choices = [...new Set([right, ...beside])].filter((n) => n >= 0).slice(0, 5)
  return {
    ...nothing,
    slots: parts.map((p, i) => (i === place ? '' : p)),
    choices: choices.sort((a, b) => a - b).map(String),
    numbers: [1],
  }
}
/** A task as a home gets it, with nothing that gives its answer away. `id` mixes what is mixed. */
export function shownTask(id: string, spec: TaskSpec): Shown {
  switch (spec.kind) {
    case 'choice':
    case 'several':
      return { ...nothing, choices: spec.choices, look: spec.look ?? 'words' }
    case 'sentence':
      return shownSentence(id, spec)
    case 'ways':
      return { ...nothing, numbers: [spec.total, spec.parts] }
    case 'order':
      return { ...nothing, choices: mixed(spec.items, id) }
    case 'gaps':
      return {
        ...nothing,
        slots: spec.run.map((n, i) => (spec.gaps.includes(i) ? '' : String(n))),
        numbers: spec.wide ? [spec.wide] : [],
      }
    case 'share':
      return { ...nothing, numbers: [spec.things, spec.plates] }
    case 'match':
      return {
        ...nothing,
        slots: spec.pairs.map((p) => p[0]),
        choices: mixed(
          spec.pairs.map((p) => p[1]),
          id,
        ),
      }
    case 'own':
      return { ...nothing, numbers: [spec.count] }
    default:
      return shownMore(spec)
  }
}
/** The same of kinds that show what they ask, or nothing. */
function shownMore(spec: TaskSpec): Shown {
  switch (spec.kind) {
    case 'number':
      return { ...nothing, slots: spec.unit ? [spec.unit] : [] }
    case 'line':
      return { ...nothing, slots: spec.marks.map(String), numbers: [spec.from, spec.to] }
    case 'circles':
      return { ...nothing, slots: spec.under.map(String) }
    case 'cross':
      return { ...nothing, numbers: [spec.things] }
    case 'record':
      return { ...nothing, numbers: [spec.rounds] }
    default:
      return nothing
  }
}
