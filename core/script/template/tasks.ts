import type { Example } from '../../contracts/lesson.ts'
import { exampleSentence, leftOver, thingsFor } from '../../plan/numbers/facts.ts'
import { countsThings } from '../../plan/candidates.ts'
import type { LessonWriting } from './teaching.ts'
import { type Line, n, several, showsSymbols, type Writing } from './lines.ts'
import { spoken, storyOf } from './example.ts'
import { capital } from '../../words.ts'

/** The number a task asks for. */
const asked = (e: Example, w: Writing): number =>
  w.aim.structure === 'parts' || w.aim.structure === 'missing' ? e.b : e.total

export function numberTask(e: Example, w: Writing): Line {
  const { story } = w
  const task = { kind: 'number', answer: asked(e, w) } as const
  switch (w.aim.structure) {
    case 'parts':
      return [
        'ask',
        `${story.who} has ${several(e.total, story)}. ${capital(n(e.a))} ${e.a === 1 ? 'goes' : 'go'} on the top shelf. How many go below?`,
        task,
      ]
    case 'order':
      return [
        'ask',
        `${story.who} stands at door ${n(Math.max(0, e.a - 1))}. Which door comes next?`,
        { kind: 'number', answer: Math.max(0, e.a - 1) + 1 },
      ]
    default: {
      const { tells, asks } = storyOf(e, w)
      return ['ask', `${tells} ${asks}`, task]
    }
  }
}

/** Three answers of which one is true, in signs or, where none are shown, in words. */
export function choiceTask(e: Example, w: Writing): Line {
  const say = (x: Example) =>
    showsSymbols(w.style, w.age) && (x.op === '+' || x.op === '-')
      ? exampleSentence(x)
      : capital(spoken(x, w.style))
  if (w.aim.structure === 'order')
    return [
      'ask',
      `Which ten is ${n(e.a)} nearest to?`,
      {
        kind: 'choice',
        choices: [e.b >= 10 ? e.b - 10 : e.b + 20, e.b, e.b + 10].map((x) => capital(n(Math.min(x, 120)))),
        answer: 1,
      },
    ]
  if (e.op === '÷')
    return [
      'ask',
      `${w.story.who} shares ${several(e.a, w.story)} among ${n(e.b)} houses. Which is fair?`,
      {
        kind: 'choice',
        choices: [e.total > 1 ? e.total - 1 : e.total + 2, e.total, e.total + 1].map(
          (x) => `${capital(n(x))} each`,
        ),
        answer: 1,
      },
    ]
  const other = (by: number): Example => ({ ...e, total: Math.max(0, e.total + by) })
  const wrong = e.total > 0 ? other(-1) : other(1)
  const choices =
    e.op === '~' && e.a === e.b
      ? ['The first is more', 'They are the same', 'The second is more']
      : [say(wrong), say(e), say(other(2))]
  return ['ask', 'Which one is true?', { kind: 'choice', choices, answer: 1 }]
}

/** What to make and photograph, with the number of things the photo must show. */
export function photoTask(e: Example, w: Writing): Line {
  const end = `Then ask ${w.style.helper} to take one photo of the table, with no faces in it. (180 s)`
  const small = Math.min(10, countsThings(w.aim.structure) ? thingsFor(e) : 10) || 1
  const shown = Math.min(20, Math.max(1, e.a))
  const things =
    w.aim.structure === 'share' || w.aim.structure === 'halves' ? e.a - leftOver(e) || e.b : small
  switch (w.aim.structure) {
    case 'doubles': {
      const half = Math.min(5, e.a)
      return half
        ? [
            'pause',
            `Put ${n(half)} of your own things on each half of a folded paper. ${end}`,
            { kind: 'photo', things: 2 * half },
          ]
        : [
            'pause',
            `Put a folded paper on the table with nothing on it. ${end}`,
            { kind: 'photo', things: 0 },
          ]
    }
    case 'teens':
      return [
        'pause',
        `Put ${n(10)} of your own things in one row and ${n(e.b)} in another. ${end}`,
        { kind: 'photo', things: 10 + e.b },
      ]
    case 'share':
    case 'halves':
      return [
        'pause',
        `Share ${n(things)} of your own things so that ${n(e.b)} houses get the same. ${end}`,
        { kind: 'photo', things },
      ]
    case 'compare':
      return [
        'pause',
        `Put ${n(e.a)} of your own things in one row and ${n(e.b)} in another, matched one to one. ${end}`,
        { kind: 'photo', things: e.a + e.b || 1 },
      ]
    case 'take-away':
      return [
        'pause',
        `Put out ${n(shown)} of your own things and move away the ones that go. Leave both groups on the table. ${end}`,
        { kind: 'photo', things: shown },
      ]
    case 'tens':
    case 'round-back':
    case 'order':
      return [
        'pause',
        `Put ${n(10)} of your own things in two rows of five: that is one ten. ${end}`,
        { kind: 'photo', things: 10 },
      ]
    default:
      return [
        'pause',
        `Make ${n(small)} with your own things in two groups. ${end}`,
        { kind: 'photo', things: small },
      ]
  }
}

/** Three jobs to send back: a number, a choice and a photo. `e` is the last example, `other` an earlier one. */
export function homeTasks(e: Example, other: Example, w: LessonWriting): Line[] {
  return [w.teach.number(e, w), w.teach.choice(other, w), w.teach.photo(e, w)]
}

/** The answers to the first two jobs, in words; a photo has many right ones. */
export function answers(e: Example, other: Example, w: LessonWriting): string[] {
  const [number, choice] = [w.teach.number(e, w)[2], w.teach.choice(other, w)[2]]
  return [
    ...(number?.kind === 'number' ? [`The first job: ${n(number.answer)}.`] : []),
    ...(choice?.kind === 'choice' ? [`The second job: ${choice.choices[choice.answer]!}.`] : []),
  ]
}

/** What children do on their own while the film stands still, from their numbers. */
export function aloneText(e: Example, w: Writing): string {
  switch (w.aim.structure) {
    case 'parts':
      return `Put out ${n(e.total)}. Find another way to part them.`
    case 'take-away':
      return e.a > 20
        ? `Say the story of ${n(e.a)} and ${n(e.b)} to somebody and show the jump with a finger.`
        : `Put out ${n(e.a)}. Take away ${n(e.b)}. How many are left?`
    case 'share':
    case 'halves':
      return `Put out ${n(e.a)}. Share them among ${n(e.b)}. Is it fair?`
    case 'compare':
      return `Make a row of ${n(e.a)} and a row of ${n(e.b)}. Match them. How many more?`
    case 'doubles':
      return `Put out ${n(e.a)}, then ${n(e.b)} more. How many?`
    case 'missing':
      return `Put out ${n(e.total)}. Hide some under your hand and say how many are hidden.`
    case 'tens':
    case 'round-back':
      return `Say the story of ${n(e.a)} and ${n(e.b)} to somebody and show the jumps with a finger.`
    case 'order':
      return 'Draw a long line. Write zero at one end and a hundred at the other. Where does fifty go?'
    case 'teens':
      return `Put out ${n(10)}, then ${n(e.b)} more. How many?`
    case 'numbers':
      return `Put out ${n(e.a)}. Count them.`
    case 'add':
    case 'count-on':
      return e.total > 20
        ? `Say the story of ${n(e.a)} and ${n(e.b)} to somebody and show the jump with a finger.`
        : `Put out ${n(e.a)}, then ${n(e.b)} more. How many?`
  }
}
