import type { PackTask } from '../contracts/pack.ts'

/** One thing a home has to know to send something back. */
export interface SaidPart {
  part: 'what' | 'where' | 'how many' | 'by when' | 'mistakes' | 'picture'
  /** Whether the home is told. */
  said: boolean
  /** What it is told, or what is missing. */
  words: string
}
const counted = /\b(?:a|one|two|three|four|1|2|3|4) (?:more )?(?:photos?|pictures?)\b/i
const faceless =
  /\bno faces?\b|\bwithout (?:any )?faces?\b|\bhands only\b|\bjust the (?:things|table)\b|\bonly the (?:things|table)\b/i

/**
 * Whether homes are told all they need to send something back: what, where, how many, by when, that mistakes are welcome,
 * and what happens to a picture. Half of it the page says by itself; the rest is in the lesson's words and the sending.
 */
export function sendBack(
  tasks: readonly Pick<PackTask, 'prompt' | 'spec'>[],
  due: string | null,
): SaidPart[] {
  const photos = tasks.filter((t) => t.spec.kind === 'photo')
  const uncounted = photos.filter((t) => !counted.test(t.prompt))
  const faces = photos.filter((t) => !faceless.test(t.prompt))
  const things = (n: number, what: string): string => (n === 1 ? `one ${what}` : `${n} ${what}s`)
  return [
    {
      part: 'what',
      said: tasks.length > 0,
      words: tasks.length
        ? `${things(tasks.length, 'task')}${photos.length ? `, ${photos.length === 1 ? 'one of them' : `${photos.length} of them`} with a photo` : ''}`
        : 'nothing is asked for: a film without evidence teaches you nothing about them',
    },
    { part: 'where', said: true, words: 'on the home’s own page, task by task' },
    {
      part: 'how many',
      said: uncounted.length === 0,
      words: uncounted.length
        ? `“${shortened(uncounted[0]!.prompt)}” does not say how many photos`
        : photos.length
          ? 'each photo is counted in its words'
          : 'one answer a task',
    },
    {
      part: 'by when',
      said: due !== null,
      words:
        due === null ? 'no day is said: homes put it off' : 'the day stands on the page and in the letter',
    },
    {
      part: 'mistakes',
      said: true,
      words: 'the page says that they are welcome, and that tasks may be left out',
    },
    {
      part: 'picture',
      said: faces.length === 0,
      words: faces.length
        ? `“${shortened(faces[0]!.prompt)}” does not ask for a picture without faces`
        : 'the page says who sees it, what is taken out of it and how long it is kept',
    },
  ]
}
const shortened = (text: string): string => (text.length > 60 ? `${text.slice(0, 58)}…` : text)
