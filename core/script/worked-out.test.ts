import { describe, expect, test } from 'vitest'
import { lessonOf } from '../cut/test-words.ts'
import { changeStep } from './edit.ts'
import { simulate } from './simulate.ts'
import { answersFollow, choiceHolds, workedOut } from './worked-out.ts'

/** What the last line of a segment that comes back is worked out to. */
function worked(line: string, before: string[] = []) {
  const lesson = lessonOf(`# T\n\n## Task {home task}\n${[...before, line].join('\n')}`)
  return workedOut(simulate(lesson).at(-1)!)
}

describe('an answer is worked out', () => {
  test.each([
    ['Ask: 4 + __ = 9 {answer 1}', 5, 'sentence'],
    ['Ask: What goes in: 17 − 6 = __? {answer 1}', 11, 'sentence'],
    ['Ask: Bobbin has seven parcels. Three go on the top shelf. How many go below? {answer 1}', 4, 'story'],
    ['Ask: There are nine eggs. Two break and are thrown away. How many are left? {answer 1}', 7, 'story'],
    ['Ask: Six ducks swim. Four more come. How many ducks are there altogether? {answer 1}', 10, 'story'],
    ['Ask: How much is ten more than 47? {answer 1}', 57, 'sentence'],
    ['Ask: Which number stands just before 60? {answer 1}', 59, 'sentence'],
    ['Ask: One is missing: 25, 30, __, 40. Which? {answer 1}', 35, 'sentence'],
    [
      'Pause: Lay ten shells down and slide four away. Photograph the ones that stay. (90 s) {photo of 1}',
      6,
      'story',
    ],
    ['Pause: Make nine with your own things in two groups. (90 s) {photo of 1}', 9, 'story'],
    [
      'Pause: Put four in one row and three in another. Then ask for a photo. (90 s) {photo of 1}',
      7,
      'story',
    ],
    [
      'Pause: Put out eleven and move away the ones that go. Leave both groups on the table. (90 s) {photo of 10}',
      11,
      'story',
    ],
    ['Pause: Put out nine and slide four away. Keep them all on the table. (90 s) {photo of 1}', 9, 'story'],
    ['Pause: Put six in a row, and one more in another place. (90 s) {photo of 1}', 7, 'story'],
    [
      'Ask: Bobbin has twelve parcels and puts three in each bag. How many bags are full? {answer 1}',
      4,
      'story',
    ],
    ['Ask: Fourteen stamps, four on each card. How many cards are full? {answer 1}', 3, 'story'],
    ['Ask: Bobbin fills six bags with three parcels in each bag. How many parcels? {answer 1}', 18, 'story'],
    ['Ask: There are three bags with five plums in each. How many plums? {answer 1}', 15, 'story'],
  ] as const)('%s', (line, value, from) => expect(worked(line)).toEqual({ value, from }))
  test('from the table it is asked at', () => {
    const out = ['Do: Lay out a ten frame', 'Do: Put 6 saffron and 2 blue on the frame']
    expect(worked('Ask: How many parcels are there? {answer 1}', out)).toEqual({ value: 8, from: 'table' })
  })
})

describe('nothing is worked out', () => {
  test.each([
    // More than one way to reckon, or none.
    ['Ask: Which do you like best? {answer 1}'],
    ['Ask: Bobbin has seven parcels, four letters and two stamps. How many altogether? {answer 1}'],
    ['Ask: Bobbin has seven parcels. Two more come and three go home. How many now? {answer 1}'],
    ['Ask: How many ways can you find? {answer 1}'],
    // What is asked for is not what the two numbers make.
    ['Ask: Bobbin has six parcels. He finds three more. How many does he find? {answer 1}'],
    ['Ask: Nine ducks swim. Two of them are yellow. How many are there now? {answer 1}'],
    ['Ask: Bobbin has seven parcels. Three letters are on the table. How many are in the sack? {answer 1}'],
    ['Ask: Mia has seven shells. Ben has three. How many has the other one? {answer 1}'],
    ['Ask: Six children play. Two more watch. How many are playing now? {answer 1}'],
    ['Ask: We count in twos. What comes after 6? {answer 1}'],
    ['Ask: Bobbin has seven parcels and puts three in each bag. How many bags does he need? {answer 1}'],
    ['Ask: Bobbin has six bags, three parcels in each bag. How many bags are there? {answer 1}'],
    ['Ask: Which double helps with two and one? {answer 1}'],
    ['Ask: How could we part the five to make ten with nine? {answer 1}'],
    ['Pause: Put one of your own things on nineteen. (90 s) {photo of 1}'],
    ['Pause: Share eight among two houses. (90 s) {photo of 1}'],
  ])('%s', (line) => expect(worked(line)).toBeNull())
  test('from a table of which only some is asked for, or some cannot be seen', () => {
    const out = ['Do: Lay out a ten frame', 'Do: Put 6 saffron and 2 blue on the frame']
    expect(worked('Ask: How many blue ones? {answer 1}', out)).toBeNull()
    expect(worked('Ask: How many are there? {answer 1}', ['Do: Put 4 in the jar; cover the jar'])).toBeNull()
  })
})

describe('a choice', () => {
  test.each([
    ['Which one is true?', '4 + 3 = 7', true],
    ['Which one is true?', 'four and three make eight', false],
    ['Find the number that is two less than 20.', '18', true],
    ['Find the number that is two less than 20.', '22', false],
    ['Which two make nine?', '6 and 3', true],
    ['Which two make nine?', '6 and 2', false],
    ['Which do you like?', 'seven', null],
    ['Which double helps with four and five?', 'Double four', null],
    ['How do we part the six to make ten first?', 'Two and four', null],
    ['How many now?', 'seven', null],
  ] as const)('%s “%s” holds: %s', (question, choice, holds) =>
    expect(choiceHolds(question, choice)).toBe(holds),
  )
})

describe('when a number changes', () => {
  const lesson = lessonOf(
    '# T\n\n## Task {home task}\nAsk: Bobbin has seven parcels. Three go on the top shelf. How many go below? {answer 4}\nAsk: 4 + __ = 9 {answer 8, mine}',
  )
  const [story, own] = lesson.segments[0]!.steps
  test('the answer that was worked out follows', () => {
    const changed = answersFollow(
      lesson,
      changeStep(lesson, story!.id, { text: story!.text.replace('seven', 'nine') }),
    )
    expect(changed.segments[0]!.steps[0]!.task).toEqual({ kind: 'number', answer: 6 })
  })
  test('one that a person set stays', () => {
    const changed = answersFollow(lesson, changeStep(lesson, own!.id, { text: '5 + __ = 9' }))
    expect(changed.segments[0]!.steps[1]!.task).toMatchObject({ answer: 8, mine: true })
  })
  test('a change that makes no other number changes no answer, and nothing else of the lesson', () => {
    const said = changeStep(lesson, story!.id, { text: story!.text.replace('parcels', 'letters') })
    expect(answersFollow(lesson, said)).toBe(said)
    expect(answersFollow(lesson, { ...lesson, title: 'Other' }).segments).toBe(lesson.segments)
  })
  test('through every letter that is typed, also where for a moment nothing can be worked out', () => {
    let now = lesson
    for (const text of ['sevn', 'sev', 's', '', 'n', 'ni', 'nin', 'nine'])
      now = answersFollow(now, changeStep(now, story!.id, { text: story!.text.replace('seven', text) }))
    expect(now.segments[0]!.steps[0]!.task).toEqual({ kind: 'number', answer: 6 })
  })
  test('an answer that stands against the reckoning is not changed by a change of the numbers either', () => {
    const meant = lessonOf('# T\n\n## Task {home task}\nAsk: 4 + __ = 9 {answer 8}')
    const id = meant.segments[0]!.steps[0]!.id
    const changed = answersFollow(meant, changeStep(meant, id, { text: '3 + __ = 9' }))
    expect(changed.segments[0]!.steps[0]!.task).toEqual({ kind: 'number', answer: 8 })
  })
  test('an answer that was wrong before is told, and not changed in silence by a change elsewhere', () => {
    const wrong = lessonOf('# T\n\n## Task {home task}\nAsk: 4 + __ = 9 {answer 8}\nSay: Hello.')
    const changed = changeStep(wrong, wrong.segments[0]!.steps[1]!.id, { text: 'Hello again.' })
    expect(answersFollow(wrong, changed).segments[0]!.steps[0]!.task).toMatchObject({ answer: 8 })
  })
})
