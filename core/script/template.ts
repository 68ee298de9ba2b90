import { type HouseStyle, defaultHouseStyle } from '../contracts/house-style.ts'
import type { Aim, Example, KitItem, Lesson, Segment, Step, TaskSpec } from '../contracts/lesson.ts'
import { assertNever } from '../contracts/assert-never.ts'
import { numberName } from '../plan/numbers/names.ts'
import { exampleSentence } from '../plan/numbers/facts.ts'
import { needed } from './stock.ts'

type Line = [Step['verb'], string, TaskSpec?]

/** A fact as this setting says it: "four add three equals seven". */
export function spoken(e: Example, style: HouseStyle): string {
  return `${numberName(e.a)} ${e.op === '+' ? style.add : style.takeAway} ${numberName(e.b)} ${style.equals} ${numberName(e.total)}`
}
const cap = (s: string): string => s[0]!.toUpperCase() + s.slice(1)
const parcels = (n: number): string => `${numberName(n)} ${n === 1 ? 'parcel' : 'parcels'}`

/** One example played on the table from bare to bare, with a wait before its answer and a check after it. */
function playExample(e: Example, aim: Aim, style: HouseStyle, together: boolean): Line[] {
  const ask = together ? 'Now you. ' : ''
  switch (aim.structure) {
    case 'parts': return [
      ['say', `Bobbin has ${parcels(e.total)} to sort.`],
      ['do', `Put ${e.total} on the frame`],
      ['count', `1 to ${e.total}, touching each`],
      ...(e.b ? [['do', `Turn over ${e.b}`] as Line] : [['say', 'None go to the second pigeon-hole this time.'] as Line]),
      ['ask', `${ask}How many for each pigeon-hole?`],
      ['wait', '5 s'],
      ['reveal', `${cap(numberName(e.a))} and ${numberName(e.b)}.`],
      ['write', exampleSentence(e)],
      ['say', `${cap(spoken(e, style))}.`],
      ['do', 'Clear the frame'],
    ]
    case 'add': return [
      ['say', e.a ? `Bobbin has ${parcels(e.a)} in the egg box.` : 'Bobbin has an empty egg box.'],
      ['do', `Put ${e.a} on the frame`],
      ['say', e.b ? `${cap(numberName(e.b))} more come${e.b === 1 ? 's' : ''}.` : 'No more come.'],
      ['do', `Put ${e.b} blue on the frame`],
      ['ask', `${ask}How many parcels altogether?`],
      ['wait', '5 s'],
      ['count', `1 to ${e.total}, touching each`],
      ['reveal', `${cap(numberName(e.total))} altogether.`],
      ['write', exampleSentence(e)],
      ['say', `${cap(spoken(e, style))}.`],
      ['do', 'Clear the frame'],
    ]
    case 'take-away': return [
      ['say', `Bobbin has ${parcels(e.a)}.`],
      ['do', `Put ${e.a} on the frame`],
      ['count', `1 to ${e.a}, touching each`],
      ['say', e.b ? `${cap(numberName(e.b))} ${e.b === 1 ? 'goes' : 'go'} to the first house.` : 'None go to the first house.'],
      ['do', `Cross out ${e.b}`],
      ['ask', `${ask}How many parcels are left?`],
      ['wait', '5 s'],
      ['reveal', `${cap(numberName(e.total))} left.`],
      ['write', exampleSentence(e)],
      ['say', `${cap(spoken(e, style))}.`],
      ['do', 'Clear the frame'],
    ]
    case 'count-on': return [
      ['say', `Bobbin hides ${parcels(e.a)} in the sack.`],
      ['do', `Put ${e.a} in the jar; cover the jar`],
      ['say', `Hold ${numberName(e.a)} in your head.`],
      ['do', `Hold ${e.a}`],
      ['do', `Put ${e.b} blue on the row`],
      ['ask', `${ask}How many parcels altogether?`],
      ['wait', '5 s'],
      ['count', `on from ${e.a} to ${e.total}, touching each`],
      ['do', 'Uncover the jar'],
      ['count', `1 to ${e.total}, touching each`],
      ['write', exampleSentence(e)],
      ['say', `${cap(spoken(e, style))}.`],
      ['do', 'Clear the table'],
    ]
    default: return assertNever(aim.structure)
  }
}

function homeTasks(aim: Aim, examples: readonly Example[]): Line[] {
  const e = examples.at(-1)!
  const wholeNumber = aim.structure === 'take-away' ? e.a : e.total
  const other = examples[0]!
  const number: Line = aim.structure === 'parts'
    ? ['ask', `Bobbin has ${numberName(e.total)} parcels. He puts ${numberName(e.a)} on the top shelf. How many go below?`, { kind: 'number', answer: e.b }]
    : aim.structure === 'take-away'
      ? ['ask', `Bobbin has ${numberName(e.a)} parcels and leaves ${numberName(e.b)} at a house. How many are left?`, { kind: 'number', answer: e.total }]
      : ['ask', `Bobbin has ${numberName(e.a)} parcels and gets ${numberName(e.b)} more. How many has he now?`, { kind: 'number', answer: e.total }]
  const sign = other.op === '+' ? '+' : '−'
  const wrong = Math.max(0, other.total - 1) === other.total ? other.total + 1 : other.total - 1
  const choices = [`${other.a} ${sign} ${other.b} = ${wrong}`, exampleSentence(other), `${other.a} ${sign} ${other.b} = ${other.total + 2}`]
  return [
    number,
    ['ask', 'Which one is true?', { kind: 'choice', choices, answer: 1 }],
    ['pause', `Make ${numberName(wholeNumber)} with your own things in two groups. Then ask your grown-up to take one photo of the table, with no faces in it. (180 s)`, { kind: 'photo', things: wholeNumber }],
  ]
}

const aimLines = {
  parts: 'We will find ways to part a number in two.', add: 'We will put parcels together and find how many.',
  'take-away': 'We will send parcels off and find how many are left.', 'count-on': 'We will count on from a number we hold in our heads.',
} as const
const things = { parts: 'frame', add: 'frame', 'take-away': 'frame', 'count-on': 'jar' } as const

/** The show–together–alone lesson for an example set: every segment filled, the list of things counted from it. */
export function fromTemplate(input: { title: string; ideaId: string; age: number; aim: Aim; examples: Example[]; style?: HouseStyle; newId: () => string }): Lesson {
  const { aim, examples, newId } = input
  const style = input.style ?? defaultHouseStyle
  const segment = (title: string, kind: Segment['kind'], lines: Line[], audience: Segment['audience'] = 'children'): Segment => ({
    id: newId(), title, kind, audience,
    steps: lines.map(([verb, text, task]) => ({ id: newId(), verb, text, ...(task ? { task } : {}) })),
  })
  const most = Math.max(1, ...examples.map((e) => (e.op === '+' ? e.total : e.a)))
  const [first, second, ...rest] = examples
  const box = things[aim.structure] === 'jar' ? 'a tub with a lid' : 'an egg box with ten places, or a drawn ten frame'
  const segments: Segment[] = [
    segment('Hello from Bobbin', 'hook', [
      ['say', 'Hello. Bobbin the postie has parcels to sort, and he needs your help.'],
      ['say', aimLines[aim.structure]],
    ]),
    segment('Things you need', 'things needed', [
      ['say', `You need ${numberName(most)} small things and ${box}. Ask your grown-up first.`],
      ['pause', `Fetch your things. Press play when they are in front of you. (90 s)`],
    ]),
  ]
  if (first) segments.push(segment('Watch me first', 'show', playExample(first, aim, style, false)))
  const middle = rest.length ? [second!, ...rest.slice(0, -1)] : second ? [second] : []
  middle.forEach((e, i) => segments.push(segment(`We do it together ${i + 1}`, 'together', playExample(e, aim, style, true))))
  const last = examples.length > 2 ? examples.at(-1)! : null
  if (last) segments.push(segment('On your own', 'alone', [
    ['say', 'Your turn, with your own things.'],
    ['pause', `${aim.structure === 'take-away' ? `Put out ${numberName(last.a)}. Take away ${numberName(last.b)}. How many are left?` : aim.structure === 'parts' ? `Put out ${numberName(aim.upTo)}. Find another way to part them.` : `Put out ${numberName(last.a)}, then ${numberName(last.b)} more. How many?`} (90 s)`],
  ]))
  if (examples.length) segments.push(segment('What to send', 'home task', [
    ['say', 'Three little jobs to finish. Mistakes are welcome: they show what to do next.'],
    ...homeTasks(aim, examples),
  ]))
  segments.push(segment('Goodbye', 'close', [['say', 'You sorted parcels with me. Bobbin says thank you.']]))
  segments.push(segment('For the grown-up', 'note to adults', [
    ['say', `This part is for the grown-up with you. Let the child move the things. Ask “how do you know?” and wait while they think. Say how much help you gave: it is no test of you or the child.`],
  ], 'adults'))
  const lesson: Lesson = { format: 'awlbox-lesson', version: 1, title: input.title, ideaId: input.ideaId, age: input.age, aim, examples, kit: [], segments }
  return { ...lesson, kit: kitFor(lesson) }
}

/** The list of things a home needs, counted from the script's table. */
export const kitFor = (lesson: Pick<Lesson, 'segments'>): KitItem[] => needed(lesson).map(({ thing, count }) => ({ thing, count }))
