// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { Shelf } from '@awlbox/core/contracts/api/shelf'
import { showing } from '../../testing/parts.tsx'
import { ShelfPage } from './shelf-page.tsx'

afterEach(cleanup)
const facts = { segments: 9, filmed: 6, findings: 0, replies: 0, looked: 0, sent: false }
const shelf = {
  classes: [
    { id: 'w', name: 'Wagtails', age: 4, teacherId: 'm', teacher: 'Marnie Lund' },
    { id: 'g', name: 'Goldcrests', age: 3, teacherId: 'm', teacher: 'Marnie Lund' },
  ],
  lessons: [
    {
      id: 'l',
      classId: 'w',
      day: '2099-03-02',
      title: 'Seven parcels',
      idea: 'Parts of 7',
      facts,
      sewn: { plan: 1, script: 1, film: 0.5, cut: 0, send: 0, look: 0, next: 0 },
      act: { station: 'film', label: 'Film 3 segments', minutes: 18 },
    },
  ],
  tonight: [
    {
      lessonId: 'l',
      title: 'Seven parcels',
      label: 'Film 3 segments',
      station: 'film',
      minutes: 18,
      reason: 'goes out on Thursday',
      due: 2,
    },
  ],
  quiet: [{ childId: 'k', name: 'Kofi', className: 'Wagtails', days: 9 }],
  working: [
    {
      lessonId: 'l',
      title: 'Seven parcels',
      done: 4,
      all: 18,
      step: 'the stand-in is filming',
      secondsLeft: 120,
    },
  ],
  evening: 60,
  backupLate: null,
} as unknown as Shelf
const answer = (body: unknown) => ({
  answer: ({ path }: { path: string }) => (path === '/api/shelf' ? { body } : undefined),
})

test('a lesson stands in its class with the next thing to do; a class with none says how one begins', async () => {
  showing(<ShelfPage />, answer(shelf))
  const wagtails = await screen.findByRole('region', { name: 'Wagtails' })
  expect(
    within(wagtails)
      .getByRole('link', { name: /Film 3 segments/ })
      .getAttribute('href'),
  ).toBe('/lessons/l/film')
  const empty = screen.getByRole('region', { name: 'Goldcrests' })
  expect(within(empty).getByRole('link', { name: 'Plan a lesson' }).getAttribute('href')).toBe('/plan')
})
test('what is due tonight has its minutes and its reason; who was not heard from has the days', async () => {
  showing(<ShelfPage />, answer(shelf))
  await screen.findByRole('region', { name: 'Wagtails' })
  const page = document.body.textContent
  expect(page).toMatch(/18 min/)
  expect(page).toContain('goes out on Thursday')
  expect(page).toMatch(/Kofi.*9 days/s)
})
test('what Awlbox does by itself shows how far it is and how long it takes yet', async () => {
  showing(<ShelfPage />, answer(shelf))
  const working = await screen.findByRole('region', { name: 'Under way' })
  expect(working.textContent).toContain('the stand-in is filming · 4 of 18 done')
  expect(within(working).getByRole('progressbar').getAttribute('aria-valuenow')).toBe('22')
})
test('a server that is away is told, with nothing lost', async () => {
  showing(<ShelfPage />, { answer: () => 'away' })
  expect(await screen.findByText(/Awlbox does not answer/)).toBeTruthy()
})
test('a backup that has not come for days is told on top, with where to see why', async () => {
  showing(<ShelfPage />, answer({ ...shelf, backupLate: 4 }))
  const alert = await screen.findByRole('alert')
  expect(alert.textContent).toContain('No backup for 4 days')
  expect(within(alert).getByRole('link').getAttribute('href')).toBe('/keeping')
})
