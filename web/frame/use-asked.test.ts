// @vitest-environment jsdom
import { afterEach, describe, expect, test, vi } from 'vitest'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import type { Route } from '@awlbox/core/contracts/api/route'
import { answering, hook } from '../testing/hooks.ts'
import { type AskedKey, changes, isAskedKey, useAsked } from './use-asked.ts'

const [mine, other] = ['11111111-1111-4111-8111-111111111111', '22222222-2222-4222-8222-222222222222']
const keyOf = (route: Route, asked: Record<string, string>): AskedKey => ({
  path: route.path,
  asked,
  changesWith: route.changesWith,
})
afterEach(() => vi.unstubAllGlobals())

describe('what is told', () => {
  const lesson = keyOf(lessonsApi.readLesson, { lessonId: mine })
  const revisions = keyOf(lessonsApi.revisions, { lessonId: mine })
  const shelf = keyOf(shelfApi.shelf, {})
  test.each([
    ['a take of this lesson changes the lesson', lesson, { kind: 'takes', lesson: mine }, true],
    ['a take of another lesson does not', lesson, { kind: 'takes', lesson: other }, false],
    ['nor does a take change its revisions', revisions, { kind: 'takes', lesson: mine }, false],
    ['any lesson’s take changes the shelf', shelf, { kind: 'takes', lesson: other }, true],
    ['after a lost connection everything may have changed', revisions, '*', true],
  ] as const)('%s', (_what, key, told, expected) => expect(changes(key, told)).toBe(expected))
  test('only our own keys are looked at', () => {
    expect(isAskedKey(lesson)).toBe(true)
    for (const key of ['peaks of x', null, 3, {}]) expect(isAskedKey(key)).toBe(false)
  })
})

describe('asking', () => {
  test('the same twice asks the server once; nothing is asked for null', async () => {
    const stand = answering(() => ({ body: { items: [] } }))
    vi.stubGlobal('fetch', stand.fetch)
    const { result } = hook(() => [
      useAsked(lessonsApi.library, {}).data,
      useAsked(lessonsApi.library, {}).data,
      useAsked(lessonsApi.readLesson, null).data,
    ])
    await vi.waitFor(() => expect(result.current[1]).toEqual({ items: [] }))
    expect(result.current[0]).toBe(result.current[1])
    expect(result.current[2]).toBeUndefined()
    expect(stand.asked.map((a) => a.path)).toEqual(['/api/library'])
  })
})
