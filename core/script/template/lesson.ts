import type { HouseStyle } from '../../contracts/house-style.ts'
import {
  type Aim,
  type Arc,
  defaultStory,
  type Example,
  type Lesson,
  type Segment,
  type Story,
} from '../../contracts/lesson.ts'
import { thingNamed } from '../../plan/things.ts'
import { kitFor } from '../kit-follows.ts'
import { needed } from '../stock.ts'
import { deviceLines, deviceRound, deviceTools } from './device-lines.ts'
import { answers, homeTasks } from './tasks.ts'
import { teachingOf } from './teach.ts'
import type { LessonWriting } from './teaching.ts'
import { type Line, n, segment } from './lines.ts'
import { briefing, talkSegments, waysOf } from './talk-first.ts'
import { lessonWords, wordLines } from './warm-ups.ts'

export interface TemplateInput {
  title: string
  ideaId: string
  age: number
  aim: Aim
  examples: readonly Example[]
  style: HouseStyle
  arc?: Arc
  story?: Story
  /** Gentle, middle and stretch sets, for the choice at the end of a talk-first lesson. */
  sets?: readonly (readonly Example[])[]
  newId: () => string
}

/** A whole lesson for an example set, in one of the four arcs: every segment filled, the list of things counted from it. */
export function fromTemplate(input: TemplateInput): Lesson {
  const style = input.style
  const arc = input.arc ?? style.arc
  const story = input.story ?? defaultStory
  const examples = [...input.examples]
  const teach = teachingOf(input.ideaId, input.aim, examples)
  const w: LessonWriting = { aim: input.aim, age: input.age, style, story, newId: input.newId, teach }
  const taught = [...middle(arc, w, examples, input.sets ?? []), ...ending(w, examples, arc)]
  const segments = [...opening(w, { examples, arc, taught }), ...taught]
  // A talk-first briefing comes before anything a child sees.
  const first = arc === 'talk-first' && examples[0] ? [briefing(w, waysOf(examples[0], w))] : []
  const lesson: Lesson = {
    format: 'awlbox-lesson',
    version: 1,
    title: input.title,
    ideaId: input.ideaId,
    age: input.age,
    aim: input.aim,
    examples,
    kit: [],
    segments: [...first, ...segments],
    story,
    words: lessonWords(w),
    arc,
  }
  return { ...lesson, kit: kitFor(lesson) }
}

interface Opening {
  examples: readonly Example[]
  arc: Arc
  taught: readonly Segment[]
}
/** What follows "You need": as many small things as are ever out at once, and what they are worked on. */
function needsOf(w: LessonWriting, { examples, arc, taught }: Opening): string {
  const counted = needed({ segments: [...taught] }).filter(
    (n) => thingNamed(n.thing)?.properties.includes('counted') ?? true,
  )
  const things = Math.max(0, ...counted.map((n) => n.count))
  // Where ways are talked about they are watched; only the jobs at the end are done by hand.
  const tools =
    arc === 'talk-first'
      ? ['paper', 'a pencil']
      : [...w.teach.tools(examples, w), ...deviceTools(w.aim.device)]
  const all = [...(things ? [`${n(things)} small thing${things === 1 ? '' : 's'}`] : []), ...tools]
  return all.length === 1 ? all[0]! : `${all.slice(0, -1).join(', ')} and ${all.at(-1)!}`
}

function opening(w: LessonWriting, o: Opening): Segment[] {
  return [
    segment(w, `Hello from ${w.story.who}`, 'hook', [
      ['say', `Hello. ${w.story.who} has ${w.story.things} to sort and needs your help.`],
      ...wordLines(w),
      ['say', w.teach.aim(w)],
    ]),
    segment(w, 'Things you need', 'things needed', [
      ['say', `You need ${needsOf(w, o)}. Ask ${w.style.helper} first.`],
      ['pause', `Fetch your things. Press play when they are in front of you. (${w.style.defaultPause} s)`],
    ]),
  ]
}

/** An example from a bare table to a bare table, its numbers first where a device gives them. */
export const play = (e: Example, w: LessonWriting, together: boolean): Line[] => [
  ...deviceLines(e, w.aim),
  ...w.teach.play(e, w, together),
]

function middle(
  arc: Arc,
  w: LessonWriting,
  examples: readonly Example[],
  sets: readonly (readonly Example[])[],
): Segment[] {
  const [first, second, ...rest] = examples
  if (!first) return []
  const last = examples.length > 2 ? examples.at(-1)! : null
  const alone = (title: string): Segment[] =>
    last
      ? [
          segment(w, title, 'alone', [
            ['say', 'Your turn, with your own things.'],
            ['pause', `${w.teach.alone(last, w)} (${w.style.defaultPause} s)`],
          ]),
        ]
      : []
  const together = (list: readonly Example[]) =>
    list.map((e, i) => segment(w, `We do it together ${i + 1}`, 'together', play(e, w, true)))
  const middleOnes = rest.length ? [second!, ...rest.slice(0, -1)] : second ? [second] : []
  switch (arc) {
    case 'show-together-alone':
      return [
        segment(w, 'Watch me first', 'show', play(first, w, false)),
        ...together(middleOnes),
        ...alone('On your own'),
      ]
    case 'talk-first':
      return talkSegments(
        first,
        w,
        sets.length ? sets : [[second ?? first], [rest[0] ?? first], [rest.at(-1) ?? first]],
      )
    case 'game':
      return [
        segment(w, 'How the game goes', 'game', [
          [
            'say',
            `Each round ${w.story.who} gets new numbers. You play with ${w.style.helper}, side by side.`,
          ],
          ...(w.style.rivalry
            ? [['say', 'Who has the most at the end wins.'] as Line]
            : [['say', 'You play together, against nobody.'] as Line]),
        ]),
        segment(w, 'I play a round', 'show', play(first, w, false)),
        ...together(middleOnes),
        segment(w, 'Now you play', 'game', [
          [
            'pause',
            `Play five rounds with your own things.${deviceRound(w.aim.device)} Keep each number on a piece of paper. (300 s)`,
          ],
          ['ask', 'Which round made you think the most?'],
          ['wait', `${w.style.defaultWait} s`],
        ]),
      ]
    case 'explore':
      return [
        segment(w, 'Find out for yourself', 'alone', [
          ['say', 'I will not show you first.'],
          ['pause', `${w.teach.alone(first, w)} Try it in more than one way. (180 s)`],
          ['ask', 'What did you find?'],
          ['wait', `${Math.max(6, w.style.defaultWait)} s`],
        ]),
        segment(w, 'What it is called', 'show', [
          ['say', 'Let us do one and give it its name.'],
          ...play(first, w, false),
        ]),
        ...together(middleOnes),
        ...alone('One more, your way'),
      ]
  }
}

function ending(w: LessonWriting, examples: readonly Example[], arc: Arc): Segment[] {
  const { style } = w
  const out: Segment[] = []
  if (examples.length)
    out.push(
      segment(w, 'What to send', 'home task', [
        ['say', `Three little jobs to finish. Mistakes are welcome: they show what to do next.`],
        ...homeTasks(examples.at(-1)!, examples[0]!, w),
      ]),
    )
  if (examples.length && style.answers === 'spoiler')
    out.push(
      segment(w, 'Answers', 'close', [
        ['pause', 'Stop here until your jobs are done. Then press play. (60 s)'],
        ...answers(examples.at(-1)!, examples[0]!, w).map((text): Line => ['reveal', text]),
      ]),
    )
  out.push(
    segment(w, 'Goodbye', 'close', [
      ['say', `You sorted ${w.story.things} with me. ${w.story.who} says thank you.`],
    ]),
  )
  if (arc !== 'talk-first')
    out.push(
      segment(
        w,
        'For the grown-up',
        'note to adults',
        [
          [
            'say',
            `This part is for the grown-up with you. Let the child move the things. Ask “how do you know?” and wait while they think.${style.fingers === 'welcome' ? ' Fingers are welcome.' : ''} Say how much help you gave: it is no test of you or the child.`,
          ],
        ],
        'adults',
      ),
    )
  if (examples.length && style.answers === 'adults')
    out.push(
      segment(
        w,
        'Answers for the grown-up',
        'note to adults',
        [
          [
            'say',
            `These are for the grown-up with you, once the jobs are done. ${answers(examples.at(-1)!, examples[0]!, w).join(' ')}`,
          ],
        ],
        'adults',
      ),
    )
  return out
}
