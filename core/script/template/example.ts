import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Example } from '../../contracts/lesson.ts'
import { assertNever } from '../../contracts/assert-never.ts'
import { exampleSentence, leftOver } from '../../plan/numbers/facts.ts'
import { countOnLine } from '../../plan/numbers/runs.ts'
import { type Line, n, several, wait, type Writing, written } from './lines.ts'
import { capital } from '../../words.ts'

/** A fact as this setting says it: "four add three equals seven". */
export function spoken(e: Example, style: HouseStyle): string {
  switch (e.op) {
    case '+':
      return `${n(e.a)} ${style.add} ${n(e.b)} ${style.equals} ${n(e.total)}`
    case '-':
      return `${n(e.a)} ${style.takeAway} ${n(e.b)} ${style.equals} ${n(e.total)}`
    case '÷':
      return e.b === 2 && !leftOver(e)
        ? `half of ${n(e.a)} is ${n(e.total)}`
        : `${n(e.a)} shared among ${n(e.b)}: ${n(e.total)} each${leftOver(e) ? ` and ${n(leftOver(e))} left over` : ''}`
    case '~':
      return e.a === e.b
        ? `${n(e.a)} and ${n(e.b)} are the same`
        : `${n(Math.max(e.a, e.b))} is ${n(e.total)} more than ${n(Math.min(e.a, e.b))}`
    case '@':
      return `${n(e.a)} is nearest to ${n(e.b)}`
    case '#':
      return n(e.a)
  }
}

/** The story of a fact with its question, numbers slotted in: sensible for every fact of the structure. */
export function storyOf(e: Example, w: Writing): { tells: string; asks: string } {
  const { story, aim } = w
  const who = story.who
  const has = (k: number) => `${who} has ${several(k, story)}`
  switch (aim.structure) {
    case 'parts':
      return { tells: `${has(e.total)} to sort into two places.`, asks: 'How many for each place?' }
    case 'add':
    case 'count-on':
      return {
        tells: `${has(e.a)}. ${e.b === 0 ? 'No more come.' : `${capital(n(e.b))} more come${e.b === 1 ? 's' : ''}.`}`,
        asks: `How many ${story.things} altogether?`,
      }
    case 'take-away':
    case 'round-back':
      return {
        tells: `${has(e.a)}. ${e.b === 0 ? `None go to ${story.place}.` : `${capital(n(e.b))} ${e.b === 1 ? 'goes' : 'go'} to ${story.place}.`}`,
        asks: `How many ${story.things} are left?`,
      }
    case 'doubles':
      return {
        tells: `${who} brings ${several(e.a, story)} to one door and the same again to the next.`,
        asks: `How many ${story.things} altogether?`,
      }
    case 'halves':
    case 'share':
      return {
        tells: `${has(e.a)} for ${n(e.b)} houses. Each house must get the same.`,
        asks: `How many ${story.things} for each house?`,
      }
    case 'missing':
      return {
        tells: `${has(e.total)}. ${capital(n(e.a))} ${e.a === 1 ? 'is' : 'are'} on the table and the rest ${e.b === 1 ? 'is' : 'are'} in the sack.`,
        asks: 'How many are in the sack?',
      }
    case 'compare':
      return {
        tells: `${who} has ${several(e.a, story)} for one street and ${n(e.b)} for the next.`,
        asks: e.a === e.b ? 'Which street has more?' : 'How many more has the longer list?',
      }
    case 'teens':
      return {
        tells: `${who} fills a box of ten and has ${several(e.b, story)} over.`,
        asks: `How many ${story.things} is that?`,
      }
    case 'tens':
      return {
        tells: `${who} stands at door ${n(e.a)}. ${e.op === '+' ? 'The next parcel is for a door' : 'The last parcel was for a door'} ${n(e.b)} ${e.op === '+' ? 'further on' : 'back'}.`,
        asks: 'Which door is that?',
      }
    case 'numbers':
      return { tells: `${who} has some ${story.things}.`, asks: `How many ${story.things} are there?` }
    case 'order':
      return { tells: `${who} looks for door ${n(e.a)} on a long street.`, asks: 'Where on the line is it?' }
    default:
      return assertNever(aim.structure)
  }
}

const layFrames = (most: number): Line[] =>
  most > 20 ? [['do', 'Lay out three ten frames']] : most > 10 ? [['do', 'Lay out two ten frames']] : []
const put = (k: number, where: string, face = ''): Line[] =>
  k > 0 ? [['do', `Put ${k}${face} on the ${where}`]] : []
const clear: Line = ['do', 'Clear the table']

/** One example played on the table from bare to bare, with a wait before its answer and a check after it. */
export function playExample(e: Example, w: Writing, together: boolean): Line[] {
  const { style, aim, story } = w
  const { tells, asks } = storyOf(e, w)
  const ask: Line[] = [['ask', `${together ? 'Now you. ' : ''}${asks}`], wait(w)]
  const close: Line[] = [...written(w, exampleSentence(e)), ['say', `${capital(spoken(e, style))}.`], clear]
  switch (aim.structure) {
    case 'parts':
      return [
        ['say', tells],
        ...layFrames(e.total),
        ...put(e.total, 'frame'),
        ['count', `1 to ${e.total}, touching each`],
        ...(e.b
          ? [['do', `Turn over ${e.b}`] as Line]
          : [['say', 'None go to the second place this time.'] as Line]),
        ...ask,
        ['reveal', `${capital(n(e.a))} and ${n(e.b)}.`],
        ...close,
      ]
    case 'add':
      if (e.total > 20)
        return [
          ['say', tells],
          ['do', `Lay out an empty line 0 to ${Math.ceil(e.total / 10) * 10}`],
          ...ask,
          ...(e.b ? [['do', `Hop ${e.b} on from ${e.a}`] as Line] : []),
          ['reveal', `${capital(n(e.total))} altogether.`],
          ...close,
        ]
      return [
        ['say', tells],
        ...layFrames(e.total),
        ...put(e.a, 'frame'),
        ...put(e.b, 'frame', ' blue'),
        ...ask,
        ...(e.total ? [['count', `1 to ${e.total}, touching each`] as Line] : []),
        ['reveal', `${capital(n(e.total))} altogether.`],
        ...close,
      ]
    case 'count-on':
      return [
        ['say', `${story.who} hides ${several(e.a, story)} in the sack.`],
        ['do', `Put ${e.a} in the jar; cover the jar`],
        ['say', `Hold ${n(e.a)} in your head.`],
        ['do', `Hold ${e.a}`],
        ...put(e.b, 'row', ' blue'),
        ...ask,
        ['count', countOnLine(e.a, e.total, true)],
        ['do', 'Uncover the jar'],
        ['count', `1 to ${e.total}, touching each`],
        ...close,
      ]
    case 'take-away':
    case 'round-back':
      if (e.a > 20) {
        const up = aim.structure === 'round-back' ? Math.ceil(e.b / 10) * 10 : 0
        const steps: Line[] =
          up > e.b && e.a - up >= 0
            ? [
                [
                  'say',
                  `${capital(n(e.b))} is nearly ${n(up)}. Take ${n(up)}, then put ${n(up - e.b)} back.`,
                ],
                ['do', `Hop back ${up} from ${e.a}`],
                ['do', `Hop ${up - e.b} on`],
              ]
            : [['do', `Hop back ${e.b} from ${e.a}`]]
        return [
          ['say', tells],
          ['do', `Lay out an empty line 0 to ${Math.ceil((e.a + 1) / 10) * 10}`],
          ...ask,
          ...steps,
          ['reveal', `${capital(n(e.total))} left.`],
          ...close,
        ]
      }
      return [
        ['say', tells],
        ...layFrames(e.a),
        ...put(e.a, 'frame'),
        ['count', `1 to ${e.a}, touching each`],
        ...(e.b ? [['do', `Cross out ${e.b}`] as Line] : []),
        ...ask,
        ['reveal', `${e.total ? capital(n(e.total)) : 'None'} left.`],
        ...close,
      ]
    case 'doubles':
      return [
        ['say', tells],
        ['do', 'Lay out a dot card'],
        ['do', `Put ${e.a} on the left square of the dot card`],
        ['do', `Put ${e.b} on the right square of the dot card`],
        ...ask,
        ...(e.total ? [['count', `1 to ${e.total}, touching each`] as Line] : []),
        ['reveal', `Double ${n(e.a)} is ${n(e.total)}.`],
        ...close,
      ]
    case 'halves':
    case 'share': {
      const over = leftOver(e)
      return [
        ['say', tells],
        ...put(e.a, 'open table'),
        ...ask,
        ['do', `Share ${e.a} among ${e.b} plates, one at a time`],
        ['reveal', `${capital(n(e.total))} each${over ? `, and ${n(over)} left over` : ''}.`],
        ...(over
          ? [
              [
                'say',
                `${capital(n(over))} ${over === 1 ? 'is' : 'are'} left over, so it is fair only if ${over === 1 ? 'that one waits' : 'those wait'}.`,
              ] as Line,
            ]
          : []),
        ['say', `${capital(spoken(e, style))}.`],
        clear,
      ]
    }
    case 'missing': {
      // An unknown in the middle stands only where the house allows one; else the story alone asks.
      const open = style.unknownAnywhere ? written(w, `${e.a} + __ = ${e.total}`) : []
      return [
        ['say', tells],
        ...put(e.total, 'row'),
        ['count', `1 to ${e.total}, touching each`],
        ...(e.b ? [['do', `Cover ${e.b}`] as Line] : []),
        ...open,
        ...ask,
        ...(e.b ? [['do', 'Uncover them'] as Line] : []),
        ['reveal', `${capital(n(e.b))} ${e.b === 1 ? 'is' : 'are'} in the sack.`],
        ...close,
      ]
    }
    case 'compare':
      return [
        ['say', tells],
        ['do', 'Lay out two shelves'],
        ...put(e.a, 'top shelf'),
        ...put(e.b, 'bottom shelf', ' blue'),
        ...ask,
        ['say', 'Match them one to one.'],
        ['reveal', `${capital(spoken(e, style))}.`],
        ...(e.a === e.b
          ? []
          : [
              [
                'say',
                `${capital(n(Math.min(e.a, e.b)))} is ${n(e.total)} fewer than ${n(Math.max(e.a, e.b))}.`,
              ] as Line,
            ]),
        clear,
      ]
    case 'teens':
      return [
        ['say', tells],
        ['do', 'Lay out two ten frames'],
        ['do', 'Put 10 on the frame'],
        ...put(e.b, 'frame', ' blue'),
        ['say', 'The full frame is ten. We need not count it again.'],
        ...ask,
        ['count', countOnLine(10, e.total, false)],
        ['reveal', `${capital(n(e.total))}: ten and ${n(e.b)}.`],
        ...close,
      ]
    case 'tens':
      return [
        ['say', tells],
        ['do', `Lay out a hundred square${style.squareFrom === 0 ? ' from 0' : ''}`],
        ['do', `Mark ${e.a} on the square`],
        ...ask,
        ['do', `Jump ${e.op === '-' ? 'back ' : ''}${e.b / 10} tens from ${e.a}`],
        ['reveal', `Door ${n(e.total)}.`],
        ...close,
      ]
    case 'numbers':
      return [
        ['say', tells],
        ...put(e.a, 'row'),
        ...ask,
        ...(e.a ? [['count', `1 to ${e.a}, touching each`] as Line] : []),
        clear,
      ]
    case 'order':
      return [
        ['say', tells],
        ['do', 'Lay out a number line 0 to 100 in tens'],
        ...ask,
        ['do', `Mark ${e.a} on the line`],
        [
          'reveal',
          e.a === e.b
            ? `${capital(n(e.a))} is a ten, so it has its own mark.`
            : `${capital(spoken(e, style))}, ${e.a > e.b ? 'a little past it' : 'a little before it'}.`,
        ],
        clear,
      ]
    default:
      return assertNever(aim.structure)
  }
}
