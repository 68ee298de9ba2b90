// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { showing } from '../../testing/parts.tsx'
import SetUpPage from './set-up-page.tsx'

afterEach(cleanup)
const page = (kind: 'first' | 'owner' | null, refuse: string | null = null) =>
  showing(<SetUpPage />, {
    answer: ({ method, path }) =>
      !path.startsWith('/api/set-up')
        ? undefined
        : method === 'GET'
          ? kind
            ? { body: { kind, setting: kind === 'owner' ? 'Cobblegate' : null } }
            : { status: 410, body: { title: 'Used up', detail: 'It was used.' } }
          : refuse
            ? { status: 400, body: { title: 'No', detail: refuse } }
            : { body: { ok: true } },
  })

test('four sheets lead to one request, and nothing is sent before the last', async () => {
  const { user, asked } = page('first')
  await user.type(await screen.findByLabelText('What is your setting called?'), 'Cobblegate')
  await user.click(screen.getByRole('button', { name: 'Next' }))
  await user.type(screen.getByLabelText('Your name'), 'Petra')
  await user.type(screen.getByLabelText(/Your e-mail address/), 'petra@cobblegate.example')
  await user.type(screen.getByLabelText(/A password/), 'ten letters at least')
  await user.click(screen.getByRole('button', { name: 'Next' }))
  await user.type(screen.getByLabelText('What is your first class called?'), 'Wagtails')
  await user.click(
    within(screen.getByRole('radiogroup', { name: 'Adding is' })).getByRole('radio', { name: '“plus”' }),
  )
  // Going back loses nothing.
  await user.click(screen.getByRole('button', { name: 'Back' }))
  expect(screen.getByLabelText<HTMLInputElement>('Your name').value).toBe('Petra')
  await user.click(screen.getByRole('button', { name: 'Next' }))
  await user.click(screen.getByRole('button', { name: 'Next' }))
  await user.type(screen.getByLabelText(/Who is in it/), 'Suri, Weir Lane\nKofi Weir')
  expect(screen.getByRole('list', { name: 'Children read' }).textContent).toMatch(
    /Suri.*Weir Lane.*full name/,
  )
  expect(asked.some((a) => a.method === 'POST')).toBe(false)
  await user.click(screen.getByRole('button', { name: 'Begin with 2 children' }))
  expect(asked.find((a) => a.method === 'POST')?.body).toMatchObject({
    setting: { name: 'Cobblegate' },
    owner: { name: 'Petra', email: 'petra@cobblegate.example' },
    class: { name: 'Wagtails', age: 4 },
    houseStyle: { add: 'plus' },
    children: [
      { name: 'Suri', home: 'Weir Lane' },
      { name: 'Kofi Weir', home: 'Home of Kofi Weir' },
    ],
  })
})
test('an address that is used up says what to do', async () => {
  page(null)
  expect((await screen.findByRole('alert')).textContent).toContain('It was used.')
})
test('an owner who is locked out is asked for a new password only', async () => {
  const { user, asked } = page('owner')
  await user.type(await screen.findByLabelText('Your name'), 'Petra')
  await user.type(screen.getByLabelText(/Your e-mail address/), 'petra@cobblegate.example')
  await user.type(screen.getByLabelText(/A password/), 'another sentence')
  await user.click(screen.getByRole('button', { name: 'Sign in as owner' }))
  expect(asked.find((a) => a.method === 'POST')?.path).toMatch(/\/owner$/)
})
