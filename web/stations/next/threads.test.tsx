// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { showing } from '../../testing/parts.tsx'
import { Threads } from './threads.tsx'

afterEach(cleanup)
const unseen = { word: 'not seen', level: 0, low: 0, high: 1, occasions: 0, evidence: [] }
const nearly = { word: 'nearly', level: 0.62, low: 0.4, high: 0.8, occasions: 3, evidence: [] }
const standing = (rows: unknown[]) => ({
  answer: ({ path }: { path: string }) =>
    path.includes('/standing')
      ? {
          body: {
            class: { id: 'w', name: 'Wagtails' },
            ideas: [
              { id: 'parts-5', name: 'Parts of 5' },
              { id: 'parts-7', name: 'Parts of 7' },
            ],
            rows,
            groups: [],
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
