import type { Device } from '../../contracts/chance.ts'
import type { Aim, Example } from '../../contracts/lesson.ts'
import { read, rollsFor, usualReading } from '../../plan/chance/plan.ts'
import { capital } from '../../words.ts'
import { type Line, n } from './lines.ts'

/** "0 to 9", or each by itself. */
const range = (numbers: readonly number[]): string =>
  numbers.length > 2 && numbers.every((k, i) => i === 0 || k === numbers[i - 1]! + 1)
    ? `${numbers[0]} to ${numbers.at(-1)}`
    : numbers.join(', ')
const joined = (numbers: readonly number[]): string => numbers.join(' and ')
/** A spinner's parts by their shares, in whole parts: a third and two thirds are one and two. */
const partsOf = (d: Extract<Device, { kind: 'spinner' }>): number[] => {
  const least = Math.min(...d.parts.map((p) => p.share))
  return d.parts.flatMap((p) =>
    Array.from({ length: Math.max(1, Math.round(p.share / least)) }, () => p.number),
  )
}

/**
 * How the numbers of a fact come from the lesson's device, before the fact is told; nothing where there is no device,
 * or the device never gives them.
 */
export function deviceLines(e: Example, aim: Pick<Aim, 'device' | 'structure'>): Line[] {
  const d = aim.device
  const rolled = d.kind === 'none' ? null : (rollsFor(d, [e], aim.structure)[0] ?? null)
  if (!rolled) return []
  switch (d.kind) {
    case 'none':
      return []
    case 'dice':
      return [['do', `Roll ${rolled.length === 1 ? 'a die' : `${n(rolled.length)} dice`}: ${joined(rolled)}`]]
    case 'cards':
      return [['do', `Show the ${rolled.length === 1 ? 'card' : 'cards'} ${rolled.join(', ')}`]]
    case 'spinner':
      return [
        ['do', `Lay out a spinner with ${partsOf(d).join(', ')}`],
        ...rolled.map((k): Line => ['do', `Spin a ${k}`]),
      ]
    case 'bowl': {
      const number = read(rolled, usualReading(d))
      return [
        ['do', `Lay out a bowl with digits ${range([...new Set(d.digits)].sort((a, b) => a - b))}`],
        ...(d.back
          ? rolled.map((k): Line => ['do', `Draw ${k} from the bowl and put it back`])
          : [['do', `Draw ${joined(rolled)} from the bowl`] as Line]),
        ...(rolled.length > 1
          ? [['say', `${capital(rolled.map(n).join(' and '))}: ${n(number)}.`] as Line]
          : []),
      ]
    }
  }
}

/** What a home needs for the device, as it follows "You need". */
export function deviceTools(d: Device): string[] {
  switch (d.kind) {
    case 'none':
      return []
    case 'dice':
      return [d.dice === 1 ? 'a die' : `${n(d.dice)} dice`]
    case 'cards':
      return [`cards with the numbers ${range([...new Set(d.numbers)].sort((a, b) => a - b))}`]
    case 'spinner':
      return ['the printed spinner, with a paper clip to spin']
    case 'bowl':
      return ['a bowl with a slip of paper for each digit']
  }
}
/** What is done with it in a round of a game: "Roll the dice each time." */
export function deviceRound(d: Device): string {
  switch (d.kind) {
    case 'none':
      return ''
    case 'dice':
      return ` Roll the ${d.dice === 1 ? 'die' : 'dice'} each time.`
    case 'cards':
      return ` Draw ${d.draws === 1 ? 'a card' : `${n(d.draws)} cards`} each time.`
    case 'spinner':
      return ' Spin each time.'
    case 'bowl':
      return ` Draw ${d.draws === 1 ? 'a slip' : `${n(d.draws)} slips`} each time.`
  }
}
