import { afterEach, describe, expect, test, vi } from 'vitest'
import * as jobsApi from '@awlbox/core/contracts/api/jobs'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { ask, isAway, ProblemError, wordsOf } from './api.ts'
import { answering, type Answer } from './testing/hooks.ts'

const lessonId = '11111111-1111-4111-8111-111111111111'
const with_ = (answer: Answer) => {
  const stand = answering(() => answer)
  vi.stubGlobal('fetch', stand.fetch)
  return stand.asked
}
const failed = async (answer: Answer): Promise<ProblemError> => {
  with_(answer)
  return ask(lessonsApi.library, {}).then(
    () => {
      throw new Error('it answered')
    },
    (e: ProblemError) => e,
  )
}
afterEach(() => vi.unstubAllGlobals())

describe('asking the server', () => {
  test('gives what it answers; nothing where it answers nothing', async () => {
    const asked = with_({ body: { a: 1 } })
    expect(await ask(lessonsApi.library, {})).toEqual({ a: 1 })
    expect(await ask(lessonsApi.nameRevision, { lessonId, revision: 3 }, { name: 'b' })).toEqual({ a: 1 })
    expect(asked).toEqual([
      { method: 'GET', path: '/api/library', body: undefined },
      { method: 'POST', path: `/api/lessons/${lessonId}/revisions/3/name`, body: { name: 'b' } },
    ])
    with_({ status: 204 })
    expect(await ask(jobsApi.cancelJob, { jobId: lessonId })).toBeUndefined()
  })
  test('a refusal is told in the server’s words, with all it said', async () => {
    const e = await failed({
      status: 409,
      body: { title: 'Changed', detail: 'Changed in another window.', revision: 4 },
    })
    expect([e.status, e.title, wordsOf(e), e.more.revision, isAway(e)]).toEqual([
      409,
      'Changed',
      'Changed in another window.',
      4,
      false,
    ])
  })
  test('a connection that is lost says what is kept, and may work later', async () => {
    const e = await failed('away')
    expect([e.status, isAway(e)]).toEqual([0, true])
    expect(wordsOf(e)).toMatch(/kept here/)
  })
  test.each([
    [502, true],
    [503, true],
    [504, true],
    [500, false],
    [404, false],
    [413, false],
    [429, false],
  ])('%i: trying again later may work: %s', async (status, later) =>
    expect(isAway(await failed({ status, body: {} }))).toBe(later),
  )
  test('an answer that is not the server’s own is told in our words', async () => {
    vi.stubGlobal('fetch', async () => new Response('<h1>Bad Gateway</h1>', { status: 502 }))
    const e: unknown = await ask(lessonsApi.library, {}).catch((x: unknown) => x)
    expect(wordsOf(e)).toMatch(/What was saved before is kept/)
  })
  test.each([
    [new Error('That went wrong.'), 'That went wrong.'],
    ['nothing', 'Something went wrong.'],
    [null, 'Something went wrong.'],
  ])('whatever is thrown has words', (e, words) => expect(wordsOf(e)).toBe(words))
})
