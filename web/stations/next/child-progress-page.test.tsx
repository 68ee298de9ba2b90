// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { showing } from '../../testing/parts.tsx'
import ChildProgressPage from './child-progress-page.tsx'

afterEach(cleanup)
const standing = (word: string, ready: boolean) => ({
  word,
  level: 0.8,
  low: 0.6,
  high: 0.9,
  occasions: 3,
  because: 'Three answers alone on two days.',
  ready,
  override: null,
})
const reply = (n: number) => ({
  id: `r${n}`,
  lessonId: 'l',
  title: `Lesson ${n}`,
  at: `2026-11-0${n}T18:00:00Z`,
  photoId: n === 2 ? 'p2' : null,
  help: 'alone',
  way: 'things',
  feeling: null,
  couldNot: false,
  gave: null,
  chose: null,
  right: 2,
  said: 3,
  words: 'She lined them up.',
  judged: n === 1 ? { level: 'secure', help: 'alone', rung: 'things', note: '' } : null,
  feedback: n === 1 ? 'Well counted.' : null,
})
const of = (more: object) => ({
  child: { id: 'c', name: 'Zuri', classId: 'k', className: 'Wagtails' },
  ideas: [],
  replies: [],
  older: false,
  lines: [],
  ...more,
})
const page = (data: object) =>
  showing(<ChildProgressPage />, {
    answer: ({ path }) =>
      path.includes('/progress')
        ? { body: data }
        : path.endsWith('/thinking')
          ? { body: { weighed: 0, given: 0, words: 'No answers yet.', named: [], considered: [] } }
          : undefined,
  })

test('of whom nothing came it says that silence is no weakness', async () => {
  page(of({}))
  expect(await screen.findByText(/silence, and says nothing about what they can do/)).toBeTruthy()
})
test('ideas with why, replies in time, what was written back, and a report to take along', async () => {
  page(
    of({
      ideas: [{ id: 'i', name: 'Parts of 7', standing: standing('secure', true) }],
      replies: [reply(2), reply(1)],
    }),
  )
  const ideas = await screen.findByRole('region', { name: 'Ideas' })
  expect(ideas.textContent).toContain('secure, ready for what comes after')
  expect(ideas.textContent).toContain('Three answers alone on two days.')
  const came = within(screen.getByRole('region', { name: 'Replies' })).getAllByRole('listitem')
  expect(came.map((l) => /Lesson \d/.exec(l.textContent)?.[0])).toEqual(['Lesson 2', 'Lesson 1'])
  expect(came[1]!.textContent).toContain('Well counted.')
  expect(screen.getByRole('link', { name: 'For a meeting (PDF)' }).getAttribute('href')).toBe(
    '/api/children/c/report',
  )
})
test('older replies are fetched when they are wanted', async () => {
  const { user, asked } = page(of({ replies: [reply(1)], older: true }))
  await user.click(await screen.findByRole('button', { name: 'Show what came before, too' }))
  expect(asked.some((a) => a.path.includes('all=1'))).toBe(true)
})
