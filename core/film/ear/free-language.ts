import { run } from '../../plan/numbers/names.ts'
import { nameWords, type SpokenLine } from '../follow/spoken.ts'

const count = (numbers: number[]): SpokenLine => ({
  stepId: 'free',
  verb: 'count',
  words: numbers.flatMap(nameWords),
  numbers,
  text: '',
  deliberate: false,
})
const say = (text: string): SpokenLine => ({
  stepId: 'free',
  verb: 'say',
  words: text.split(' '),
  numbers: null,
  text,
  deliberate: false,
})

/** Lines a recogniser may expect when there is no script: counting runs either way, and the frames of number sentences. */
export const freeLines: readonly SpokenLine[] = (() => {
  const small = run(0, 20).map(nameWords).flat()
  const tens = run(20, 100, 10).flatMap(nameWords)
  const other = (w: string, by: number): string => small[(small.indexOf(w) + by) % 11]!
  const sentences = small.flatMap((a) => [
    ...['add', 'plus', 'and', 'take away', 'minus'].flatMap((op, i) => [
      `${a} ${op} ${other(a, i + 2)} equals ${other(a, 5)}`,
      `${other(a, 3)} ${op} ${a} is ${other(a, i + 1)}`,
      `${other(a, i)} ${op} ${other(a, 4)} makes ${a}`,
    ]),
    `double ${a} is ${other(a, 4)}`,
    `double ${a} equals ${a}`,
    `half of ${a} is ${other(a, 3)}`,
    `one more than ${a} is ${other(a, 1)}`,
    `one less than ${a} is ${other(a, 1)}`,
    `there are ${a} altogether`,
    `${a} left`,
    `that is ${a}`,
  ])
  return [
    count(run(1, 20)),
    count(run(1, 20)),
    count(run(20, 0)),
    count(run(20, 0)),
    count(run(10, 100, 10)),
    count(run(100, 0, 10)),
    count(run(2, 20, 2)),
    count(run(5, 50, 5)),
    count(run(20, 40)),
    ...sentences.map(say),
    ...tens.flatMap((w) => [say(`${w} add ten equals ${w}`), say(`${w} take away ten is ${w}`)]),
    ...[
      'how many',
      'let us count',
      "let's count",
      'count with me',
      'we have',
      'i have',
      'there are',
      'left',
      'well done',
      'how many are there',
      'pause the video',
      'what is',
      'can you',
      'let us count them together',
    ].map(say),
  ]
})()
