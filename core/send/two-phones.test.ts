import { describe, expect, test } from 'vitest'
import type { Answer } from '../contracts/reply.ts'
import { mergedReply } from './two-phones.ts'

const number = (taskId: string, text: string | null): Answer => ({ taskId, kind: 'number', text })
const said = (answers: Answer[], more: Partial<Parameters<typeof mergedReply>[0]> = {}) => ({
  answers,
  help: null,
  way: null,
  feeling: null,
  couldNot: false,
  chose: null,
  why: '',
  words: '',
  ...more,
})
describe('two phones, one child', () => {
  test('each task as the later has it, and as the earlier where the later says nothing', () => {
    const one = mergedReply(
      said([number('a', '1'), number('b', '2')]),
      said([number('b', '3'), number('c', null)]),
    )
    expect(new Map(one.answers.map((a) => [a.taskId, a.text]))).toEqual(
      new Map([
        ['b', '3'],
        ['a', '1'],
      ]),
    )
  })
  test('nothing ticked where nothing fits is an answer, not a blank', () => {
    const none: Answer = { taskId: 't', kind: 'several', given: [] }
    const all: Answer = { taskId: 't', kind: 'several', given: ['x'] }
    expect(mergedReply(said([all]), said([none])).answers).toEqual([none])
    expect(mergedReply(said([all]), said([{ taskId: 't', kind: 'several', given: null }])).answers).toEqual([
      all,
    ])
  })
  test('help, way and words of both are kept', () => {
    const one = mergedReply(
      said([], { help: 'alone', words: 'Gran was here' }),
      said([], { way: 'things', words: 'Done at tea' }),
    )
    expect(one).toMatchObject({ help: 'alone', way: 'things', words: 'Gran was here\nDone at tea' })
    expect(mergedReply(said([], { words: 'Same' }), said([], { words: 'Same ' })).words).toBe('Same')
  })
  test('one that could not and one that could: it was done', () =>
    expect(mergedReply(said([], { couldNot: true }), said([number('a', '1')])).couldNot).toBe(false))
})
