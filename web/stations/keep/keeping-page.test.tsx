// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { Keeping, KeptTimes } from '@awlbox/core/contracts/api/keep'
import { keptKinds, usuallyKept } from '@awlbox/core/contracts/kept-for'
import { showing } from '../../testing/parts.tsx'
import KeepingPage from './keeping-page.tsx'

afterEach(cleanup)
const keeping: Keeping = {
  on: false,
  folder: '',
  lastGood: null,
  lastBytes: null,
  problem: null,
  waiting: false,
  mayChange: true,
  kept: [{ what: 'films', count: 12, bytes: 48_000_000 }],
}
const times: KeptTimes = {
  keptFor: usuallyKept,
  kinds: keptKinds.map((kind) => ({ kind, count: 3, oldest: '2026-06-01T10:00:00Z', soon: 0 })),
  mayChange: true,
}
const page = (more: Partial<Keeping> = {}, refuse: string | null = null) =>
  showing(<KeepingPage />, {
    answer: ({ method, path }) =>
      path === '/api/keeping/times'
        ? method === 'PUT'
          ? { body: { ok: true } }
          : { body: times }
        : path === '/api/keeping'
          ? method === 'PUT' && refuse
            ? { status: 422, body: { title: 'Not this folder', detail: refuse } }
            : { body: { ...keeping, ...more } }
          : method === 'POST'
            ? { body: { ok: true } }
            : undefined,
  })

test('off, it says what that means, and is switched on with a folder', async () => {
  const { user, asked } = page()
  expect(await screen.findByText(/everything on it is lost/)).toBeTruthy()
  expect(screen.getByText('48 MB')).toBeTruthy()
  await user.type(screen.getByLabelText('Folder for backups'), '/mnt/backups')
  await user.click(screen.getByRole('button', { name: 'Back up every night' }))
  expect(asked.find((a) => a.method === 'PUT')?.body).toEqual({ on: true, folder: '/mnt/backups' })
})
test('a folder that will not do is told, and stays as it was typed', async () => {
  const { user } = page({}, 'There is something else in this folder. Nothing was changed.')
  await user.type(await screen.findByLabelText('Folder for backups'), '/home')
  await user.click(screen.getByRole('button', { name: 'Back up every night' }))
  expect((await screen.findByRole('alert')).textContent).toContain('something else in this folder')
  expect(screen.getByLabelText<HTMLInputElement>('Folder for backups').value).toBe('/home')
})
test('on, it says when the last good one was, what went wrong since, and makes one now', async () => {
  const { user, asked } = page({
    on: true,
    folder: '/mnt/backups',
    lastGood: '2026-11-20T02:10:00Z',
    lastBytes: 95_000_000,
    problem: 'There is not enough room in /mnt/backups.',
  })
  expect((await screen.findByText(/Last good backup/)).textContent).toMatch(/20 Nov.*95 MB/)
  expect(screen.getByRole('alert').textContent).toContain('not enough room')
  await user.click(screen.getByRole('button', { name: 'Back up now' }))
  expect(asked.some((a) => a.method === 'POST' && a.path === '/api/keeping/backup')).toBe(true)
})
test('a teacher sees how it stands and cannot change it', async () => {
  page({ on: true, mayChange: false, lastGood: '2026-11-20T02:10:00Z' })
  expect(await screen.findByText(/The owner of the setting chooses/)).toBeTruthy()
  expect(screen.queryByRole('button', { name: /Back up|Switch off/ })).toBeNull()
})

test('days are kept as typed; empty is no end; what is no number of days is said and put back', async () => {
  const { user, asked } = page()
  const photos = await screen.findByLabelText<HTMLInputElement>(/^Photos from homes/)
  await user.clear(photos)
  await user.type(photos, '12{Enter}')
  expect((await screen.findByRole('alert')).textContent).toContain('from 30 to 3650')
  expect(photos.value).toBe('180')
  await user.clear(photos)
  await user.type(photos, '90{Enter}')
  await user.clear(await screen.findByLabelText(/^Replies/))
  await user.tab()
  expect(
    asked.filter((a) => a.method === 'PUT' && a.path === '/api/keeping/times').map((a) => a.body),
  ).toEqual([{ photos: 90 }, { replies: null }])
})
