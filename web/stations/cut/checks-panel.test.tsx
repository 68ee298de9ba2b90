// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { Check } from '@awlbox/core/cut/checks'
import { showing } from '../../testing/parts.tsx'
import { ChecksPanel } from './panels/checks-panel.tsx'

afterEach(cleanup)
const count: Check = {
  code: 'count-skip',
  severity: 'wrong',
  segmentId: 's1',
  start: 12,
  params: { case: 'out', skipped: [4], count: 1 },
}
const long: Check = {
  code: 'segment-long',
  severity: 'risky',
  segmentId: 's2',
  start: null,
  params: { title: 'Watch me', filmSeconds: 250, limitSeconds: 240 },
}

test('checks stand under what they look after, in words, and go to their moment', async () => {
  const went: Check[] = []
  const { user } = showing(
    <ChecksPanel checks={[count, long]} behind={false} onGo={(c) => void went.push(c)} />,
  )
  const counts = screen.getByRole('region', { name: 'Counts and number sentences' })
  const one = within(counts).getByRole('button')
  expect(one.textContent).toBe('Wrong: 4 is left out of the count. at 0:12 of the segment')
  expect(within(screen.getByRole('region', { name: 'Length' })).getByRole('button').textContent).toBe(
    '“Watch me” lasts 4:10, over the 4:00 of a segment.',
  )
  expect(screen.getByRole('region', { name: 'Faces and names' }).textContent).toContain('nothing found')
  await user.click(one)
  expect(went).toEqual([count])
})
test('of many alike the first are shown, and how many more there are', () => {
  showing(
    <ChecksPanel checks={Array.from({ length: 15 }, () => count)} behind={false} onGo={() => undefined} />,
  )
  const counts = screen.getByRole('region', { name: 'Counts and number sentences' })
  expect([within(counts).getAllByRole('button').length, counts.textContent?.includes('and 3 more')]).toEqual([
    12,
    true,
  ])
})
