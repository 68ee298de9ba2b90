import { describe, expect, test } from 'vitest'
import type { PackTask } from '../contracts/pack.ts'
import { checkAnswer } from './answers.ts'
import { readTypedNumber } from './typed-number.ts'

describe('numbers as homes write them', () => {
  test.each([
    ['7', 7],
    ['7 ', 7],
    [' 7', 7],
    ['seven', 7],
    ['Seven', 7],
    ['twenty-one', 21],
    ['٧', 7],
    ['७', 7],
    ['７', 7],
    ['١٢', 12],
    ['7 parcels', 7],
    ['0', 0],
    ['nothing', 0],
  ])('%j is %i', (text, n) => expect(readTypedNumber(text)).toBe(n))
  test.each(['-3', '1e9', '🙂', '', '   ', '3 or 4', '7.5', '12345', 'parcels', '٧٧٧٧٧٧', '= 7'])(
    '%j is no counting number',
    (text) => expect(readTypedNumber(text)).toBeNull(),
  )
})

describe('answers', () => {
  const number: PackTask = { id: 't', prompt: '', spec: { kind: 'number', answer: 4 } }
  test('a blank is left open, not a nought', () => {
    const zero: PackTask = { id: 't', prompt: '', spec: { kind: 'number', answer: 0 } }
    expect(checkAnswer(zero, undefined).verdict).toBe('open')
    expect(checkAnswer(zero, { taskId: 't', kind: 'number', text: '  ' }).verdict).toBe('open')
    expect(checkAnswer(zero, { taskId: 't', kind: 'number', text: '0' }).verdict).toBe('right')
  })
  test('what cannot be read is for the eye, not wrong', () =>
    expect(checkAnswer(number, { taskId: 't', kind: 'number', text: '🙂' }).verdict).toBe('look'))
  test('a wrong number says what was asked', () =>
    expect(checkAnswer(number, { taskId: 't', kind: 'number', text: '5' })).toEqual({
      verdict: 'wrong',
      shown: '5',
      why: '4 was asked',
    }))
})

describe('an answer with several right ones, or none', () => {
  const asked = (spec: PackTask['spec']): PackTask => ({ id: 't', prompt: '', spec })
  const typed = (text: string) => ({ taskId: 't', kind: 'number' as const, text })
  const chosen = (choice: number) => ({ taskId: 't', kind: 'choice' as const, choice })
  test('each right number is right, and a wrong one is told all of them', () => {
    const task = asked({ kind: 'number', answer: 6, also: [7] })
    expect(['6', '7', '8'].map((t) => checkAnswer(task, typed(t)).verdict)).toEqual([
      'right',
      'right',
      'wrong',
    ])
    expect(checkAnswer(task, typed('8')).why).toBe('6 or 7 was asked')
  })
  test('each right choice is right', () => {
    const task = asked({ kind: 'choice', choices: ['4 + 4', '5 + 2', '6 + 2'], answer: 0, also: [2] })
    expect([0, 1, 2].map((c) => checkAnswer(task, chosen(c)).verdict)).toEqual(['right', 'wrong', 'right'])
  })
  test('where nothing is checked a person looks; left open stays left open', () => {
    const task = asked({ kind: 'choice', choices: ['pegs', 'spoons'], answer: 0, unchecked: true })
    expect([checkAnswer(task, chosen(1)).verdict, checkAnswer(task, undefined).verdict]).toEqual([
      'look',
      'open',
    ])
  })
})
