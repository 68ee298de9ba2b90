import { describe, expect, test } from 'vitest'
import type { Lesson } from '../contracts/lesson.ts'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import { answerTold, toldFollow } from './answers-told.ts'
import { applyFix, changeStep } from './edit.ts'
import { fromMarkdown } from './formats/markdown.ts'
import { proofread } from './proof/proof.ts'
import { answersFollow } from './worked-out.ts'

let ids = 0
const lessonOf = (text: string): Lesson => fromMarkdown(text, () => `id${ids++}`).lesson
const lesson = lessonOf(`# T

## What to send {home task}
Ask: Bobbin has seven parcels. Three go on the top shelf. How many go below? {answer 4}
Ask: Which one is true? {choose 2 + 6 = 8 * | 3 + 6 = 8 | 3 + 5 = 9}
Ask: Which do you like best? {answer 1, not checked}

## Answers {close}
Reveal: The first job: four.
Reveal: The second job: 2 + 6 = 8.
Reveal: The third job: any you like.
`)
const [story] = lesson.segments[0]!.steps
const answers = (l: Lesson) => l.segments[1]!.steps.map((s) => s.text)
const edited = (l: Lesson, change: (d: Lesson) => Lesson): Lesson => {
  const next = change(l)
  return toldFollow(l, answersFollow(l, next))
}
const told = (l: Lesson) => proofread(l, defaultHouseStyle).findings.filter((f) => f.code === 'answer-told')

describe('the answers that are told', () => {
  test('follow a number of the story', () => {
    const next = edited(lesson, (d) =>
      changeStep(d, story!.id, { text: story!.text.replace('seven', 'nine') }),
    )
    expect(answers(next)[0]).toBe('The first job: six.')
    expect(told(next)).toEqual([])
  })
  test('follow a choice marked otherwise', () => {
    const choice = lesson.segments[0]!.steps[1]!
    const task = { ...choice.task!, also: [2] } as typeof choice.task
    const next = edited(lesson, (d) => changeStep(d, choice.id, { task }))
    expect(answers(next)[1]).toBe('The second job: 2 + 6 = 8, and 3 + 5 = 9.')
  })
  test('stay where a person wrote otherwise, and are a finding with its repair', () => {
    const line = lesson.segments[1]!.steps[0]!
    const own = edited(lesson, (d) => changeStep(d, line.id, { text: 'The first job: five.' }))
    expect(told(own)[0]!.params).toEqual({ said: 'five', right: 'four' })
    const later = edited(own, (d) => changeStep(d, story!.id, { text: story!.text.replace('seven', 'nine') }))
    expect(answers(later)[0]).toBe('The first job: five.')
    const mended = applyFix(later, told(later)[0]!.fix!, () => `id${ids++}`)
    expect(answers(mended)[0]).toBe('The first job: six.')
    expect(told(mended)).toEqual([])
  })
  test('nothing is told of what nobody checks, nor of a photo', () => {
    expect(answerTold({ kind: 'photo', things: 4 })).toBeNull()
    expect(answerTold({ kind: 'number', answer: 1, unchecked: true })).toBeNull()
    expect(told(lesson)).toEqual([])
  })
  test('a change that makes no other answer changes no line', () => {
    const same = changeStep(lesson, story!.id, { text: story!.text.replace('parcels', 'letters') })
    expect(toldFollow(lesson, same)).toBe(same)
  })
})
