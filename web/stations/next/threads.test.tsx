// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { showing } from '../../testing/parts.tsx'
import { Threads } from './threads.tsx'

afterEach(cleanup)
const unseen = {
  word: 'not seen',
  level: 0,
  low: 0,
  high: 1,
  occasions: 0,
  judged: false,
  ready: false,
  because: '',
  helps: { alone: 0, nudged: 0, together: 0 },
  rungs: { things: 0, picture: 0, track: 0, head: 0 },
}
const nearly = {
  word: 'nearly',
  level: 0.62,
  low: 0.4,
  high: 0.8,
  occasions: 3,
  judged: false,
  ready: false,
  because: '2 of 3 answers right.',
  helps: { alone: 3, nudged: 0, together: 0 },
  rungs: { things: 3, picture: 0, track: 0, head: 0 },
}
const standing = (rows: unknown[], groups: unknown[] = [], more: Record<string, unknown> = {}) => ({
  answer: ({ path }: { path: string }) =>
    Object.entries(more).find(([end]) => path.includes(end))
      ? { body: Object.entries(more).find(([end]) => path.includes(end))![1] }
      : path.includes('/standing')
        ? {
            body: {
              class: { id: 'w', name: 'Wagtails' },
              ideas: [
                { id: 'parts-5', name: 'Parts of 5' },
                { id: 'parts-7', name: 'Parts of 7' },
              ],
              rows,
              idea: 'parts-7',
              groups,
              readyFor: [{ id: 'parts-10', name: 'Parts of 10', ready: 3, of: 12 }],
            },
          }
        : undefined,
})

test('each child is a thread: an eyelet says its level, its occasions, or that nothing was seen', async () => {
  showing(
    <Threads classId="w" />,
    standing([{ childId: 's', name: 'Suri', ideas: { 'parts-5': nearly, 'parts-7': unseen } }]),
  )
  expect(
    await screen.findByRole('button', { name: 'Suri, Parts of 5: nearly, level 62 of 100, 3 occasions' }),
  ).toBeTruthy()
  expect(screen.getByRole('button', { name: 'Suri, Parts of 7: not seen yet' })).toBeTruthy()
})
test('an eyelet opens to what it rests on, fetched then; a teacher who knows better says so', async () => {
  const { user, asked } = showing(
    <Threads classId="w" />,
    standing([{ childId: 's', name: 'Suri', ideas: { 'parts-5': nearly, 'parts-7': unseen } }], [], {
      '/evidence': {
        standing: nearly,
        trail: [
          {
            id: 'r:t',
            at: 0,
            words: 'How many? 7, alone',
            kind: 'answer',
            right: true,
            title: 'Parcels',
            lessonId: 'l',
            replyId: 'r',
          },
        ],
      },
      '/override': { id: 'o' },
    }),
  )
  expect(asked.some((a) => a.path.includes('/evidence'))).toBe(false)
  await user.click(await screen.findByRole('button', { name: /Suri, Parts of 5/ }))
  expect(await screen.findByText(/How many\? 7, alone/)).toBeTruthy()
  expect(screen.getByRole('link', { name: 'Parcels' }).getAttribute('href')).toBe('/lessons/l/look?reply=r')
  await user.click(screen.getByRole('button', { name: /know better/ }))
  await user.type(screen.getByLabelText('How you know'), 'at the shop')
  await user.click(screen.getByRole('button', { name: 'Say so' }))
  expect(asked.find((a) => a.path.includes('/override'))?.body).toEqual({
    level: 'nearly',
    note: 'at the shop',
  })
})
test('groups name each child’s numbers and rung, and the next lesson is drafted from what most are ready for', async () => {
  const groups = [
    {
      title: 'Once more, with less help',
      reason: 'Nearly there.',
      children: [{ childId: 's', name: 'Suri', numbers: 'middle: 4 + 3 = 7', rung: 'picture' }],
    },
  ]
  const { user, asked } = showing(
    <Threads classId="w" />,
    standing([{ childId: 's', name: 'Suri', ideas: { 'parts-5': nearly, 'parts-7': unseen } }], groups, {
      '/next-lesson': { id: 'new' },
    }),
  )
  expect(await screen.findByText(/middle: 4 \+ 3 = 7/)).toBeTruthy()
  expect(screen.getByText('on a picture')).toBeTruthy()
  await user.click(screen.getByRole('button', { name: 'Draft the next lesson' }))
  expect(asked.find((a) => a.path.includes('/next-lesson'))?.body).toMatchObject({ ideaId: 'parts-10' })
})
test('a class without children says so', async () => {
  showing(<Threads classId="w" />, standing([]))
  expect(await screen.findByText(/No children in this class yet/)).toBeTruthy()
})
test('a refusal is told in the server’s words', async () => {
  showing(<Threads classId="w" />, {
    answer: ({ path }) =>
      path.includes('/standing')
        ? { status: 404, body: { title: 'Not found', detail: 'This class isn’t here.' } }
        : undefined,
  })
  expect((await screen.findByRole('alert')).textContent).toBe('This class isn’t here.')
})
