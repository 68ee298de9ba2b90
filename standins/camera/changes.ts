import type { Slip } from '@awlbox/core/contracts/stand-in'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { isNumberWord } from '@awlbox/core/film/ear/sounds'
import type { SpokenLine } from '@awlbox/core/film/follow/spoken'
import { nameWords } from '@awlbox/core/film/follow/spoken'
import { numbersIn, numberName } from '@awlbox/core/plan/numbers/names'
import { readHands } from '@awlbox/core/script/language/read'
import { emptyTable } from '@awlbox/core/script/table/state'
import { readClaps, readSeconds } from '@awlbox/core/script/reading'
import { isTrue, sentencesIn } from '@awlbox/core/script/sentence'
import type { Label } from './slips.ts'

/** What one step of a take becomes because of a slip. */
export type Change =
  | {
      kind: 'count'
      numbers: number[]
      /** Index of the number that is wrong, or that follows what is missing. */ at: number
      label: Label
    }
  | { kind: 'words'; words: string; label: Label }
  | { kind: 'before'; said: string[]; gaps: number[]; label: Label }
  | { kind: 'leave out'; label: Label }
  | { kind: 'air'; seconds: number; label: Label }
  | { kind: 'wait'; seconds: number; label: Label }
  | { kind: 'roll'; text: string; label: Label }
  | { kind: 'claps'; count: number; label: Label }

/** A place where a slip can be made: the steps it takes up, the line said there, and a number it is about. */
export interface Target {
  steps: string[]
  line: SpokenLine | null
  text: string
  number: number | null
  /** The later line in which a die's number is said. */
  later?: SpokenLine
}

const spokenText = (l: SpokenLine): string => l.words.join(' ')
/** Numbers said as numbers: "nothing" and "double four" are left as they are. */
const numbersOf = (l: SpokenLine): number[] =>
  numbersIn(l.words)
    .filter((n) => isNumberWord(l.words[n.from]!))
    .map((n) => n.value)
const at = (l: SpokenLine, number: number | null = null): Target => ({
  steps: [l.stepId],
  line: l,
  text: l.text,
  number,
})

/** Every place in a segment where a slip of this kind can be made. */
export function targetsFor(slip: Slip, segment: Segment, lines: readonly SpokenLine[]): Target[] {
  const counts = lines.filter((l) => l.numbers && !l.deliberate)
  const said = lines.filter((l) => !l.numbers && !l.deliberate)
  const mustSpeak = (l: SpokenLine) => l.words.length >= 4
  switch (slip) {
    case 'leave out a number':
    case 'say a number twice':
      return counts.filter((l) => l.numbers!.length >= 3).map((l) => at(l))
    case 'swap two numbers':
      return counts.filter((l) => l.numbers!.length >= 5).map((l) => at(l))
    // Where the next line begins with the number left off, nobody can hear that the count had stopped before it.
    case 'stop a count early':
      return counts
        .filter(
          (l) =>
            l.numbers!.length >= 4 && numbersOf(lines[lines.indexOf(l) + 1] ?? l)[0] !== l.numbers!.at(-1),
        )
        .map((l) => at(l))
    case 'count one too far':
      return counts
        .filter(
          (l) => l.numbers!.length >= 3 && l.numbers!.at(-1)! > l.numbers![0]! && l.numbers!.at(-1)! < 99,
        )
        .map((l) => at(l))
    case 'wrong total':
      return said.flatMap((l) => {
        const i = lines.indexOf(l)
        const count = lines
          .slice(Math.max(0, i - 2), i)
          .filter((x) => x.numbers)
          .at(-1)
        const total = count?.numbers?.at(-1)
        return total !== undefined &&
          total >= 2 &&
          sentencesIn(spokenText(l)).length === 0 &&
          numbersOf(l).at(-1) === total
          ? [at(l, total)]
          : []
      })
    case 'wrong sentence':
      return said
        .filter((l) => sentencesIn(spokenText(l)).some(isTrue) && numbersOf(l).length >= 3)
        .map((l) => at(l, numbersOf(l).at(-1)))
    case 'change a number':
      return said
        .filter(
          (l) => numbersOf(l).length >= 1 && l.words.length >= 4 && sentencesIn(spokenText(l)).length === 0,
        )
        .map((l) => at(l, numbersOf(l)[0]))
    case 'skip a line':
      return said.filter((l) => mustSpeak(l) && lines.length > 2).map((l) => at(l))
    case 'false start':
      return said.filter((l) => l.words.length >= 5).map((l) => at(l))
    case 'start a count again':
      return counts.filter((l) => l.numbers!.length >= 5 && l.numbers![0] === 1).map((l) => at(l))
    case 'say oops':
      return said.map((l) => at(l))
    case 'dead air':
      return said.filter((l) => l.verb === 'say' && l !== lines.at(-1)).map((l) => at(l))
    case 'answer too soon':
    case 'cut a wait short':
      return segment.steps.flatMap((s, i) => {
        const [asked, next] = [segment.steps[i - 1], segment.steps[i + 1]]
        const spoken = next && lines.some((l) => l.stepId === next.id)
        return s.verb === 'wait' &&
          asked?.verb === 'ask' &&
          !asked.task &&
          spoken &&
          (readSeconds(s.text) ?? 5) >= 4
          ? [{ steps: [s.id, asked.id, next.id], line: null, text: s.text, number: readSeconds(s.text) ?? 5 }]
          : []
      })
    case 'wrong die':
      return segment.steps.flatMap((s, i) => {
        const roll =
          s.verb === 'do' ? readHands(s.text, emptyTable).actions.find((a) => a.type === 'roll') : undefined
        const faces = roll?.faces ?? []
        const later = said.find(
          (l) =>
            segment.steps.findIndex((x) => x.id === l.stepId) > i &&
            faces.some((f) => numbersOf(l).includes(f)) &&
            l.words.length >= 3,
        )
        const face = later && faces.find((f) => numbersOf(later).includes(f))
        return later && face !== undefined
          ? [{ steps: [s.id, later.stepId], line: null, text: s.text, number: face, later }]
          : []
      })
    case 'wrong claps':
      return segment.steps.flatMap((s) => {
        const claps = s.verb === 'sound' ? readClaps(s.text) : null
        return claps && claps.count >= 2
          ? [{ steps: [s.id], line: null, text: s.text, number: claps.count }]
          : []
      })
  }
}

/** The words of a line with one number said otherwise: the last place it stands. */
function withNumber(l: SpokenLine, from: number, to: number): string {
  const place = numbersIn(l.words)
    .filter((n) => n.value === from)
    .at(-1)!
  return [...l.words.slice(0, place.from), ...nameWords(to), ...l.words.slice(place.to)].join(' ')
}
const off = (n: number, random: (n: number) => number): number => {
  const by = [1, -1, 2][random(3)]!
  return n + by > 0 ? n + by : n + 1
}

/** The changes a slip makes at its target. */
export function changesOf(slip: Slip, t: Target, random: (n: number) => number): [string, Change][] {
  const [step] = t.steps
  const one = (change: Change): [string, Change][] => [[step!, change]]
  const label = (where: Label['where'], planned: string, said: string): Label => ({
    slip,
    where,
    planned,
    said,
  })
  const numbers = t.line?.numbers ?? []
  const inside = 1 + random(Math.max(1, numbers.length - 2))
  switch (slip) {
    case 'leave out a number':
      return one({
        kind: 'count',
        numbers: numbers.filter((_, i) => i !== inside),
        at: inside,
        label: label('before', String(numbers[inside]), ''),
      })
    case 'say a number twice':
      return one({
        kind: 'count',
        numbers: [...numbers.slice(0, inside + 1), ...numbers.slice(inside)],
        at: inside + 1,
        label: label('during', '', String(numbers[inside])),
      })
    case 'swap two numbers': {
      const k = 1 + random(numbers.length - 3)
      return one({
        kind: 'count',
        numbers: [...numbers.slice(0, k), numbers[k + 1]!, numbers[k]!, ...numbers.slice(k + 2)],
        at: k,
        label: label('during', String(numbers[k]), String(numbers[k + 1])),
      })
    }
    case 'stop a count early':
      return one({
        kind: 'count',
        numbers: numbers.slice(0, -1),
        at: numbers.length,
        label: label('before', String(numbers.at(-1)), ''),
      })
    case 'count one too far': {
      const next = numbers.at(-1)! + (numbers.at(-1)! - numbers.at(-2)!)
      return one({
        kind: 'count',
        numbers: [...numbers, next],
        at: numbers.length,
        label: label('during', '', String(next)),
      })
    }
    case 'wrong total':
    case 'wrong sentence':
    case 'change a number': {
      const to = off(t.number!, random)
      return one({
        kind: 'words',
        words: withNumber(t.line!, t.number!, to),
        label: label('during', numberName(t.number!), numberName(to)),
      })
    }
    case 'skip a line':
      return one({ kind: 'leave out', label: label('before', t.text, '') })
    case 'false start': {
      const begun = t.line!.words.slice(0, 2 + random(3)).join(' ')
      const sorry = [['oops'], ['sorry'], ['no wait'], []][random(4)]!
      return one({
        kind: 'before',
        said: [begun, ...sorry],
        gaps: [0.4 + random(40) / 100, 0.7],
        label: label('during', t.text, begun),
      })
    }
    case 'start a count again': {
      const some = numbers.slice(0, 3 + random(numbers.length - 4))
      const wrong = [...some.slice(0, -1), some.at(-1)! + 1]
      return one({
        kind: 'before',
        said: [wrong.map((n) => numberName(n)).join(' , '), 'oops'],
        gaps: [0.4, 0.9],
        label: label('during', '', wrong.join(' ')),
      })
    }
    case 'say oops':
      return one({
        kind: 'before',
        said: [['oops', 'um'][random(2)]!],
        gaps: [0.7],
        label: label('during', '', 'oops'),
      })
    case 'dead air':
      return one({ kind: 'air', seconds: 7 + random(4), label: label('during', '', '') })
    case 'answer too soon':
      return one({ kind: 'wait', seconds: 0.2, label: label('before', `${t.number} s`, '') })
    case 'cut a wait short':
      return one({ kind: 'wait', seconds: 0.9 + random(5) / 10, label: label('before', `${t.number} s`, '') })
    case 'wrong die': {
      const to = (t.number! % 6) + 1
      // The whole roll is written anew, the first die that showed the number showing another.
      return [
        [
          step!,
          {
            kind: 'roll',
            text: t.text.replace(new RegExp(`\\b${t.number}\\b`), String(to)),
            label: label('during', String(t.number), String(to)),
          },
        ],
        [
          t.later!.stepId,
          {
            kind: 'words',
            words: withNumber(t.later!, t.number!, to),
            label: label('during', numberName(t.number!), numberName(to)),
          },
        ],
      ]
    }
    case 'wrong claps': {
      const to = t.number! + [1, -1][random(2)]!
      return one({ kind: 'claps', count: to, label: label('during', String(t.number), String(to)) })
    }
  }
}
