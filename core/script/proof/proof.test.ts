import { lessonOf } from '../../cut/test-words.ts'
import { describe, expect, test } from 'vitest'
import { type Lesson } from '../../contracts/lesson.ts'
import { defaultHouseStyle, HouseStyle } from '../../contracts/house-style.ts'
import { aimOf } from '../../plan/aim.ts'
import { findExamples } from '../../plan/examples.ts'
import { applyFix } from '../edit.ts'
import { fromMarkdown } from '../formats/markdown.ts'
import { fromTemplate } from '../template/lesson.ts'
import { proofread } from './proof.ts'

const ids = () => {
  let n = 0
  return () => `s${(n += 1)}`
}
const lesson = (steps: string, more = ''): Lesson =>
  fromMarkdown(
    `# Post\nAge: 4\nNeeds: 10 two-faced counters, 1 ten frame${more}\n\n## Together {together}\n${steps}`,
    ids(),
  ).lesson
const codes = (steps: string, more = '', style = defaultHouseStyle): string[] =>
  proofread(lesson(steps, more), style).findings.map((f) => f.code)

/** Each finding: a script that has it, and its nearest neighbour that has not. */
const pairs: [code: string, bad: string, good: string, more?: string][] = [
  ['false-sentence', 'Do: Put 7 on the frame\nWrite: 4 + 3 = 8', 'Do: Put 7 on the frame\nWrite: 4 + 3 = 7'],
  [
    'false-sentence',
    'Say: Four and three make eight.\nDo: Put 1 on the frame',
    'Say: Four and three make seven.\nDo: Put 1 on the frame',
  ],
  [
    'sentence-table',
    'Do: Put 7 on the frame\nDo: Turn over 3\nWrite: 5 + 2 = 7',
    'Do: Put 7 on the frame\nDo: Turn over 3\nWrite: 3 + 4 = 7',
  ],
  [
    'sentence-table',
    'Do: Put 7 on the frame\nDo: Cross out 2\nWrite: 7 - 3 = 4',
    'Do: Put 7 on the frame\nDo: Cross out 2\nWrite: 7 - 2 = 5',
  ],
  ['count-skip', 'Do: Put 5 on the frame\nCount: 1, 2, 4, 5', 'Do: Put 5 on the frame\nCount: 1, 2, 3, 4, 5'],
  [
    'count-repeat',
    'Do: Put 5 on the frame\nCount: 1, 2, 3, 3, 4, 5',
    'Do: Put 5 on the frame\nCount: 1, 2, 3, 4, 5',
  ],
  [
    'count-end',
    'Do: Put 5 on the frame\nCount: 1 to 6, touching each',
    'Do: Put 5 on the frame\nCount: 1 to 5, touching each',
  ],
  [
    'count-start',
    'Do: Put 5 on the frame\nCount: 0 to 5, touching each',
    'Do: Put 5 on the frame\nCount: 1 to 5, touching each',
  ],
  [
    'count-covered',
    'Do: Put 5 in the jar; cover the jar\nCount: 1 to 5, touching each',
    'Do: Put 5 in the jar; cover the jar\nDo: Uncover the jar\nCount: 1 to 5, touching each',
    ', 1 jar',
  ],
  [
    'claim-table',
    'Do: Put 5 on the frame\nSay: There are six parcels.',
    'Do: Put 5 on the frame\nSay: There are five parcels.',
  ],
  [
    'answer-early',
    'Do: Put 5 on the frame\nAsk: How many?\nReveal: Five.',
    'Do: Put 5 on the frame\nAsk: How many?\nWait: 5 s\nReveal: Five.',
  ],
  [
    'no-wait',
    'Do: Put 5 on the frame\nAsk: How many?\nSay: Let us go on.',
    'Do: Put 5 on the frame\nAsk: Shall we go on?\nSay: Let us go on.',
  ],
  [
    'short-wait',
    'Do: Put 5 on the frame\nAsk: How many?\nWait: 2 s',
    'Do: Put 5 on the frame\nAsk: How many?\nWait: 3 s',
  ],
  [
    'answer-before-wait',
    'Do: Put 5 on the frame\nAsk: How many?\nReveal: Five.\nWait: 5 s',
    'Do: Put 5 on the frame\nAsk: How many?\nWait: 5 s\nReveal: Five.',
  ],
  ['wait-alone', 'Do: Put 5 on the frame\nWrite: 5 + 0 = 5\nWait: 5 s', 'Do: Put 5 on the frame\nWait: 5 s'],
  [
    'table-not-cleared',
    'Do: Put 4 on the frame\nWrite: 4 + 0 = 4\nDo: Put 3 on the frame',
    'Do: Put 4 on the frame\nWrite: 4 + 0 = 4\nDo: Clear the frame\nDo: Put 3 on the frame',
  ],
  ['not-listed', 'Do: Put 5 in the jar', 'Do: Put 5 on the frame'],
  [
    'too-few-listed',
    'Do: Put 8 on the row\nDo: Put 5 on the frame',
    'Do: Put 5 on the row\nDo: Put 5 on the frame',
  ],
  ['listed-unused', 'Say: Hello.\nDo: Put 2 on the row', 'Do: Put 2 on the frame'],
  ['table-not-there', 'Do: Put 3 on the frame\nDo: Take away 4', 'Do: Put 3 on the frame\nDo: Take away 3'],
  ['unread-line', 'Do: Put 3 on the frame\nDo: Sing', 'Do: Put 3 on the frame\nDo: Take away 1'],
  ['pause-empty', 'Do: Put 3 on the frame\nPause: (90 s)', 'Do: Put 3 on the frame\nPause: Your turn (90 s)'],
  [
    'all-numbers',
    'Do: Put 3 on the frame\nSay: Adding makes numbers bigger.',
    'Do: Put 3 on the frame\nSay: Adding two made it bigger.',
  ],
  [
    'caution-height',
    'Do: Put 3 on the frame\nSay: Stand on a chair.',
    'Do: Put 3 on the frame\nSay: Sit on a chair.',
  ],
  ['caution-food', 'Do: Put 3 on the frame\nSay: Use grapes.', 'Do: Put 3 on the frame\nSay: Use socks.'],
  [
    'expires',
    'Do: Put 3 on the frame\nSay: See you on Friday.',
    'Do: Put 3 on the frame\nSay: See you soon.',
  ],
  [
    'house-word',
    'Do: Put 3 on the frame\nSay: Two plus one equals three.',
    'Do: Put 3 on the frame\nSay: Two add one equals three.',
  ],
]
describe('findings', () => {
  test.each(pairs)('%s fires: %s', (code, bad, _good, more) => expect(codes(bad, more)).toContain(code))
  test.each(pairs)('%s stays quiet: ', (code, _bad, good, more) =>
    expect(codes(good, more)).not.toContain(code),
  )
  test('a mistake on purpose is left alone', () =>
    expect(codes('Do: Put 7 on the frame\nWrite: 4 + 3 = 8 {on purpose}')).not.toContain('false-sentence'))
})

describe('a lesson with nothing wrong gives nothing', () => {
  for (const structure of ['parts', 'add', 'take-away', 'count-on'] as const)
    for (const seed of [1, 2, 3, 4, 5])
      for (const [upTo, count] of [
        [10, 4],
        [6, 3],
        [9, 5],
      ] as const)
        test(`${structure} to ${upTo}, ${count} examples, seed ${seed}`, () => {
          const aim = aimOf({ structure, upTo, count })
          const found = findExamples(aim, { zero: true, seed })
          if (!found.ok) throw new Error(found.conflict)
          for (const { examples } of found.sets)
            expect(
              proofread(
                fromTemplate({
                  style: defaultHouseStyle,
                  title: 'Post',
                  ideaId: 'parts-10',
                  age: 4,
                  aim,
                  examples,
                  newId: ids(),
                }),
                defaultHouseStyle,
              ).findings,
            ).toEqual([])
        })
})

test.each([
  'One of you can come here.',
  'We start at four o’clock.',
  'First, sit down. Second, look.',
  'Give me two minutes and three claps.',
  'There are two of us here.',
  'Is one and two a good start?',
  'You did it in one go.',
  'Seven is the number of the day.',
  'I have two hands and ten fingers.',
  'Take away the cloth.',
  'Add your name to the card.',
  'There are four seasons and one is winter.',
])('number words that are no sums do not fire: %s', (text) =>
  expect(codes(`Do: Put 7 on the frame\nSay: ${text}`)).toEqual([]),
)

test('every fix, once applied, takes its finding away', () => {
  let fixed = 0
  for (const [code, bad, , more] of pairs) {
    const doc = lesson(bad, more)
    const finding = proofread(doc, defaultHouseStyle).findings.find((f) => f.code === code)
    if (!finding?.fix) continue
    let n = 0
    const after = proofread(
      applyFix(doc, finding.fix, () => `f${(n += 1)}`),
      defaultHouseStyle,
    ).findings
    expect(after.filter((f) => f.code === code && f.stepId === finding.stepId)).toEqual([])
    fixed++
  }
  expect(fixed).toBeGreaterThan(8)
})
test('house style decides which word is amiss', () => {
  const plus = HouseStyle.parse({ add: 'plus' })
  expect(codes('Do: Put 3 on the frame\nSay: Two plus one equals three.', '', plus)).not.toContain(
    'house-word',
  )
  expect(codes('Do: Put 3 on the frame\nSay: Two add one equals three.', '', plus)).toContain('house-word')
  expect(
    codes('Do: Put 7 on the frame\nWrite: 7 = 4 + 3', '', HouseStyle.parse({ unknownAnywhere: false })),
  ).toContain('unknown-left')
  expect(codes('Do: Put 7 on the frame\nWrite: 7 = 4 + 3')).not.toContain('unknown-left')
})

test('of number sentences to choose from, all true, the one that fits the story is a person’s to mark', () => {
  const lesson = lessonOf(
    '# T\n\n## Send {home task}\nAsk: Three up and five down. Which sum tells it? {choose 7 + 2 = 9 | 3 + 5 = 8 * | 5 + 5 = 10}',
  )
  expect(proofread(lesson, defaultHouseStyle).findings.map((f) => f.code)).not.toContain('choice-answer')
})
