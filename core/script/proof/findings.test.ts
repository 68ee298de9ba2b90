import { describe, expect, test } from 'vitest'
import { HouseStyle } from '../../contracts/house-style.ts'
import type { Lesson } from '../../contracts/lesson.ts'
import { aimOf } from '../../plan/aim.ts'
import { applyFix } from '../edit.ts'
import { fromMarkdown } from '../formats/markdown.ts'
import { scriptCodes } from '../../findings/codes.ts'
import { say } from '../../findings/say.ts'
import { proofread } from './proof.ts'

const ids = () => {
  let n = 0
  return () => `s${(n += 1)}`
}
interface Given {
  kit?: string
  style?: Partial<HouseStyle>
  age?: number
  head?: string
  lesson?: Partial<Lesson>
}
const read = (steps: string, g: Given = {}): Lesson => ({
  ...fromMarkdown(
    `# Post\nAge: ${g.age ?? 4}\nNeeds: 10 two-faced counters, 1 ten frame${g.kit ?? ''}\n\n${steps.startsWith('##') ? steps : `## ${g.head ?? 'Together {together}'}\n${steps}`}`,
    ids(),
  ).lesson,
  ...g.lesson,
})
const proof = (steps: string, g: Given = {}) => proofread(read(steps, g), HouseStyle.parse(g.style ?? {}))
const codes = (steps: string, g: Given = {}): string[] => proof(steps, g).findings.map((f) => f.code)

const put = (n: number, where = 'frame') => `Do: Put ${n} on the ${where}\n`
const long = (seconds: number) =>
  Array.from(
    { length: Math.ceil(seconds / 5) },
    (_, i) =>
      `Say: This is line ${['a', 'b', 'c', 'd', 'e', 'f', 'g'][i % 7]} of a story that goes on and on here.`,
  ).join('\n')
const examples = (list: [number, number][]) =>
  list.map(([a, b]) => ({ a, b, total: a + b, op: '+' as const }))

/** Each code: a script that has it, and its nearest neighbour that has not. */
const pairs: [code: string, bad: string, good: string, given?: Given, goodGiven?: Given][] = [
  [
    'needs-line',
    `## Things {things needed}\nSay: You need five counters and nine spoons.\n\n## Show {show}\n${put(6)}Do: Put 9 spoons on the table`,
    `## Things {things needed}\nSay: You need six counters and nine spoons.\n\n## Show {show}\n${put(6)}Do: Put 9 spoons on the table`,
  ],
  [
    'needs-line',
    `## Things {things needed}\nSay: You need six small things.\n\n## Show {show}\n${put(9)}`,
    `## Things {things needed}\nSay: You need nine small things.\n\n## Show {show}\n${put(9)}`,
  ],
  [
    'needs-line',
    `## Things {things needed}\nSay: You will need 20 counters and a cup.\n\n## Show {show}\n${put(5)}`,
    `## Things {things needed}\nSay: You will need 6 counters and a cup.\n\n## Show {show}\n${put(5)}`,
  ],
  [
    'false-sentence',
    `${put(7)}Say: One more than six is eight.`,
    `${put(7)}Say: One more than six is seven.`,
  ],
  [
    'false-sentence',
    `${put(7)}Say: Eight is two fewer than nine.`,
    `${put(7)}Say: Eight is one fewer than nine.`,
  ],
  ['false-sentence', `${put(7)}Say: Double five is eleven.`, `${put(7)}Say: Double five is ten.`],
  ['false-sentence', `${put(7)}Say: Half of eight is three.`, `${put(7)}Say: Half of eight is four.`],
  [
    'false-sentence',
    `${put(7)}Say: Seven take away three leaves five.`,
    `${put(7)}Say: Seven take away three leaves four.`,
  ],
  [
    'left-larger',
    `${put(7)}Do: Take away 2\nSay: Nine are left.`,
    `${put(7)}Do: Take away 2\nSay: Five are left.`,
  ],
  [
    'share-unfair',
    'Ask: Share 7 parcels equally between 2 houses.\nWait: 5 s',
    'Ask: Share 8 parcels equally between 2 houses.\nWait: 5 s',
  ],
  [
    'share-unfair',
    'Pause: Share 7 fairly between 2 plates. (60 s)',
    'Pause: Share 7 between 2 plates. Is it fair? (60 s)',
  ],
  ['count-order', `${put(5)}Count: 1, 2, 3, 5, 4`, `${put(5)}Count: 1, 2, 3, 4, 5`],
  ['count-nothing', 'Count: 1 to 5, touching each', `${put(5)}Count: 1 to 5, touching each`],
  ['number-unaccounted', `${put(5)}Say: Bobbin has nine parcels.`, `${put(5)}Say: Bobbin has five parcels.`],
  ['table-no-room', put(11), put(10)],
  ['table-not-conserved', `${put(7)}Do: Split into 4 and 4`, `${put(7)}Do: Split into 4 and 3`],
  [
    'table-no-mat',
    `${put(3)}Do: Uncover the jar`,
    `${put(3)}Do: Cover 3\nSay: Three are hidden.\nDo: Uncover them`,
  ],
  [
    'table-off-the-line',
    'Do: Lay out a number line 0 to 10\nDo: Hop from 8 by 5',
    'Do: Lay out a number line 0 to 20\nDo: Hop from 8 by 5',
  ],
  [
    'table-no-card',
    'Do: Draw 4 from the bowl\nDo: Draw 4 from the bowl',
    'Do: Draw 4 from the bowl and put it back\nDo: Draw 4 from the bowl',
  ],
  ['held-unsaid', `${put(3, 'row')}Do: Hold 5`, `${put(3, 'row')}Say: Hold five in your head.\nDo: Hold 5`],
  [
    'hidden-unsaid',
    `${put(7, 'row')}Do: Cover 3\nAsk: How many are hidden?\nWait: 5 s`,
    `${put(7, 'row')}Do: Cover 3\nAsk: How many are hidden?\nWait: 5 s\nDo: Uncover them\nReveal: Three.`,
  ],
  [
    'never-uncovered',
    `${put(7, 'row')}Do: Cover 3\nReveal: Three are hidden.\nDo: Clear the table`,
    `${put(7, 'row')}Do: Cover 3\nDo: Uncover them\nReveal: Three were hidden.\nDo: Clear the table`,
  ],
  [
    'answer-given',
    `${put(3)}Say: Two and one makes three.\nAsk: How many is that? {answer 3}`,
    `${put(3)}Ask: How many is that? {answer 3}`,
  ],
  [
    'asked-late',
    `Pause: Fetch your things. (90 s)\n${put(2)}Say: You also need a die.`,
    `Say: You also need a die.\nPause: Fetch your things. (90 s)\n${put(2)}`,
    { kit: ', 1 die' },
  ],
  [
    'example-repeat',
    put(5),
    put(5),
    {
      lesson: {
        examples: examples([
          [3, 2],
          [3, 2],
        ]),
      },
    },
    {
      lesson: {
        examples: examples([
          [3, 2],
          [2, 3],
        ]),
      },
    },
  ],
  [
    'example-range',
    put(5),
    put(5),
    { lesson: { examples: examples([[9, 2]]) } },
    { lesson: { examples: examples([[8, 2]]) } },
  ],
  [
    'example-aim',
    put(5),
    put(5),
    {
      lesson: {
        examples: examples([[3, 2]]),
        aim: aimOf({ structure: 'add', upTo: 10, mustHave: ['double'] }),
      },
    },
    {
      lesson: {
        examples: examples([[3, 3]]),
        aim: aimOf({ structure: 'add', upTo: 10, mustHave: ['double'] }),
      },
    },
  ],
  [
    'too-many-alike',
    put(5),
    put(5),
    {
      lesson: {
        examples: examples([
          [1, 1],
          [1, 2],
          [1, 3],
          [1, 4],
          [1, 5],
          [1, 6],
          [1, 7],
          [1, 8],
          [1, 9],
        ]),
      },
    },
    {
      lesson: {
        examples: examples([
          [1, 1],
          [1, 2],
          [1, 3],
        ]),
      },
    },
  ],
  [
    'zero-later',
    put(5),
    put(5),
    { style: { zeroIsPart: false }, lesson: { examples: examples([[5, 0]]) } },
    { lesson: { examples: examples([[5, 0]]) } },
  ],
  [
    'turn-round-twice',
    put(5),
    put(5),
    {
      style: { turnRoundsCount: false },
      lesson: {
        examples: examples([
          [3, 2],
          [2, 3],
        ]),
      },
    },
    {
      lesson: {
        examples: examples([
          [3, 2],
          [2, 3],
        ]),
      },
    },
  ],
  [
    'device-example',
    put(5),
    put(5),
    {
      lesson: {
        examples: examples([[7, 2]]),
        aim: aimOf({
          structure: 'parts',
          upTo: 10,
          device: { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 1 },
        }),
      },
    },
    {
      lesson: {
        examples: examples([[6, 4]]),
        aim: aimOf({
          structure: 'parts',
          upTo: 10,
          device: { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 1 },
        }),
      },
    },
  ],
  [
    'device-limits',
    put(5),
    put(5),
    {
      lesson: {
        aim: aimOf({
          structure: 'parts',
          upTo: 10,
          device: { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 1 },
        }),
      },
    },
    {
      lesson: {
        aim: aimOf({
          structure: 'parts',
          upTo: 10,
          device: { kind: 'dice', faces: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9, 10], dice: 1 },
        }),
      },
    },
  ],
  [
    'ways-unsaid',
    `${put(5)}Ask: How many ways are there?\nWait: 5 s`,
    `${put(5)}Say: Turned round is a new way, and a part may be nothing.\nAsk: How many ways are there?\nWait: 5 s`,
  ],
  [
    'challenge-easy',
    '## More {challenge}\nAsk: What is three and one?\nWait: 5 s',
    '## More {challenge}\nAsk: What is nine and one?\nWait: 5 s',
    { lesson: { examples: examples([[4, 3]]) } },
  ],
  [
    'task-no-answer',
    '## Send {home task}\nSay: Play with your parcels.',
    '## Send {home task}\nAsk: How many? {answer 3}',
  ],
  [
    'task-answer',
    '## Send {home task}\nAsk: Bobbin has nine parcels. Four go on the top shelf. How many go below? {answer 4}',
    '## Send {home task}\nAsk: Bobbin has nine parcels. Four go on the top shelf. How many go below? {answer 5}',
  ],
  [
    'choice-answer',
    '## Send {home task}\nAsk: Which one is true? {choose 2 + 6 = 8 | 3 + 6 = 8 * | 3 + 5 = 9}',
    '## Send {home task}\nAsk: Which one is true? {choose 2 + 6 = 8 * | 3 + 6 = 8 | 3 + 5 = 9}',
  ],
  [
    'photo-faces',
    '## Send {home task}\nPause: Take a photo of five things. (90 s) {photo of 5}',
    '## Send {home task}\nPause: Take a photo of five things, no faces in it. (90 s) {photo of 5}',
  ],
  [
    'no-hand-over',
    '## A {show}\nSay: Hello.\n## B {note to adults}\nSay: Let them think.',
    '## A {show}\nSay: Hello.\n## B {note to adults}\nSay: This is for the grown-up with you.',
  ],
  [
    'no-hand-back',
    '## A {show}\nSay: Hello.\n## B {note to adults}\nSay: For the grown-up.\n## C {show}\nSay: Let us count.',
    '## A {show}\nSay: Hello.\n## B {note to adults}\nSay: For the grown-up.\n## C {show}\nSay: Come back, children.',
  ],
  [
    'briefing-answer',
    '## A {note to adults}\nSay: For the grown-up. The answer to four and three is seven.\n## B {show}\nSay: Hello.',
    '## A {note to adults}\nSay: For the grown-up. The answer to two and six is eight.\n## B {show}\nSay: Hello.',
    { lesson: { examples: examples([[4, 3]]) } },
  ],
  [
    'film-long',
    Array.from({ length: 30 }, () => `${long(20)}\nAsk: Ready?`).join('\n'),
    long(20),
    { age: 3 },
  ],
  [
    'segment-long',
    Array.from({ length: 14 }, () => `${long(20)}\nAsk: What do you see?\nWait: 5 s`).join('\n'),
    long(20),
  ],
  ['talk-long', long(140), long(20)],
  ['house-word', `${put(7)}Say: Four plus three equals seven.`, `${put(7)}Say: Four add three equals seven.`],
  ['house-word', `${put(7)}Say: Four add three makes seven.`, `${put(7)}Say: That makes seven.`],
  [
    'fewer-less',
    `${put(3)}Say: The second house has less parcels.`,
    `${put(3)}Say: The second house has fewer parcels.`,
  ],
  [
    'fewer-less',
    `${put(3)}Say: There are less paper cups here.`,
    `${put(3)}Say: Seven is two less than nine.`,
  ],
  [
    'pairs-name',
    `${put(3)}Say: These are number bonds.`,
    `${put(3)}Say: These are partners.`,
    { style: { pairsName: 'partners' } },
  ],
  ['symbol-stage', `${put(3)}Write: 2 + 1 = 3`, `${put(3)}Write: 3`, { age: 3 }],
  [
    'unknown-left',
    `${put(6)}Write: 6 = 4 + 2`,
    `${put(6)}Write: 4 + 2 = 6`,
    { style: { unknownAnywhere: false } },
  ],
  [
    'counting-on',
    'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: 6 to 7, touching each',
    'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: on from 5 to 7, touching each',
  ],
  [
    'counting-on',
    'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: 5, 6, 7, touching each',
    'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: on from 5 to 7, touching each',
    { style: { countingOn: 'next' } },
  ],
  [
    'word-early',
    `${put(3)}Ask: How many altogether?\nWait: 5 s`,
    `Say: Altogether means all of them.\n${put(3)}Ask: How many altogether?\nWait: 5 s`,
    { lesson: { words: [{ word: 'altogether', gesture: '' }] } },
  ],
  ['praise-unseen', `${put(3)}Say: Well done, that is right.`, `${put(3)}Say: You counted with me.`],
  ['rivalry', `${put(3)}Say: Who is the fastest?`, `${put(3)}Say: Take your time.`],
  ['fingers', `${put(3)}Say: No fingers this time.`, `${put(3)}Say: Fingers are good helpers.`],
  ['helper-word', `${put(3)}Say: Ask your mum to help.`, `${put(3)}Say: Ask the grown-up with you to help.`],
  ['caution-height', `${put(3)}Say: Stand on a chair.`, `${put(3)}Say: Stand behind a chair.`],
  ['caution-never', `${put(3)}Say: Use magnets.`, `${put(3)}Say: Use buttons.`],
  ['caution-breakable', `${put(3)}Say: Fetch a glass jar.`, `${put(3)}Say: Fetch a tub.`],
  ['caution-food', `${put(3)}Say: Use raisins.`, `${put(3)}Say: Use socks.`],
  ['caution-sharp', `${put(3)}Say: Cut it with scissors.`, `${put(3)}Say: Tear it in two.`],
  [
    'caution-space',
    `${put(3)}Say: Jump up and down.`,
    `${put(3)}Say: Jump up and down, or clap if you are sitting.`,
  ],
  ['caution-hot', `${put(3)}Say: Light the candles.`, `${put(3)}Say: Lay the table.`],
  ['caution-flash', `${put(3)}Say: Look at the flashing lights.`, `${put(3)}Say: Look at the lights.`],
  ['expires', `${put(3)}Say: Today we count.`, `${put(3)}Say: Now we count.`],
  ['identifies', `${put(3)}Say: I live in Mill Lane.`, `${put(3)}Say: Bobbin lives in a van.`],
]
describe('each finding fires and its neighbour does not', () => {
  test.each(pairs)('%s fires: %s', (code, bad, _good, given) => expect(codes(bad, given)).toContain(code))
  test.each(pairs)('%s stays quiet: %s', (code, _bad, good, given, goodGiven) =>
    expect(codes(good, goodGiven ?? given)).not.toContain(code),
  )
  test('a fix leaves its own finding gone, wherever one is offered', () => {
    let tried = 0
    for (const [code, bad, , given] of pairs) {
      const style = HouseStyle.parse(given?.style ?? {})
      const lesson = read(bad, given)
      for (const f of proofread(lesson, style).findings.filter((x) => x.code === code && x.fix)) {
        tried++
        const after = proofread(
          applyFix(lesson, f.fix!, () => 'fix1'),
          style,
        ).findings.filter((x) => x.code === code && x.stepId === f.stepId)
        expect([code, say('script', f).fix, after]).toEqual([code, say('script', f).fix, []])
      }
    }
    expect(tried).toBeGreaterThan(8)
  })
})

describe('the catalogue', () => {
  test('names every code that fires, with its severity', () => {
    for (const [, bad, , given] of pairs)
      for (const f of proof(bad, given).findings) expect(scriptCodes[f.code]).toContain(f.severity)
  })
  test('has words for whatever fires, with nothing left unfilled, and a button for every repair', () => {
    for (const [, bad, , given] of pairs)
      for (const f of proof(bad, given).findings) {
        const said = say('script', f)
        expect(said.what).toMatch(/^[A-Z“0-9].*\.$/s)
        expect(`${said.what} ${said.why} ${said.fix}`).not.toMatch(/[{}]|undefined|NaN|null/)
        expect(said.fix !== '', f.code).toBe(f.fix !== undefined)
      }
  })
})
