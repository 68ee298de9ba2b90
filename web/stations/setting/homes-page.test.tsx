// @vitest-environment jsdom
import { cleanup, fireEvent, screen, waitFor, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { ChildRow } from '@awlbox/core/contracts/api/homes'
import { showing } from '../../testing/parts.tsx'
import HomesPage from './homes-page.tsx'

afterEach(cleanup)
const wagtails = '11111111-1111-4111-8111-111111111111'
const row = (id: string, given: string, more: Partial<ChildRow> = {}): ChildRow => ({
  id,
  revision: 1,
  given,
  name: given,
  classId: wagtails,
  householdId: `h${id}`,
  home: 'Weir Lane',
  second: '',
  languages: [],
  email: '',
  youngerChild: false,
  phone: null,
  printer: null,
  metered: null,
  note: '',
  consents: { photos: null, sound: null, showing: null, naming: null },
  link: `/h/${'A'.repeat(22)}`,
  mayChange: true,
  ...more,
})
/** A small server: it keeps what is saved, refuses what is stale, and can be changed by somebody else. */
function page(start: ChildRow[]) {
  const rows = new Map(start.map((r) => [r.id, r]))
  const shown = showing(<HomesPage />, {
    answer: ({ method, path, body }) => {
      if (path.startsWith('/api/shelf'))
        return { body: { classes: [{ id: wagtails, name: 'Wagtails', age: 4 }], lessons: [] } }
      if (path.startsWith('/api/homes')) return { body: { items: [...rows.values()], next: null } }
      const child = /^\/api\/children\/(\w+)$/.exec(path)?.[1]
      if (child && method === 'PUT') {
        const sent = body as { revision: number; change: Partial<ChildRow> }
        const now = rows.get(child)!
        if (sent.revision !== now.revision)
          return {
            status: 409,
            body: { title: 'x', detail: 'Changed elsewhere: your change was not made.', row: now },
          }
        const next = { ...now, ...sent.change, revision: now.revision + 1 }
        rows.set(child, next)
        return { body: next }
      }
      if (path.endsWith('/children') && method === 'POST') {
        const { children } = body as { children: { given: string; home: string }[] }
        children.forEach((c, i) => rows.set(`n${i}`, row(`n${i}`, c.given, { home: c.home })))
        return { body: { added: children.map((_, i) => `n${i}`), known: 0 } }
      }
      return undefined
    },
  })
  return { ...shown, rows }
}
/** A cell; with homes to choose from it is a box that opens. */
const cell = (name: string) =>
  screen.findByRole<HTMLInputElement>(name.startsWith('Home') ? 'combobox' : 'textbox', { name })

test('a cell that is changed is saved over what is there, and taken back and done again by its buttons', async () => {
  const { user, rows } = page([row('a', 'Suri'), row('b', 'Otis')])
  const languages = await cell('Languages of Suri')
  await user.type(languages, 'English, Urdu')
  await user.tab()
  await waitFor(() => expect(rows.get('a')!.languages).toEqual(['English', 'Urdu']))
  await user.click(await screen.findByRole('button', { name: 'Undo' }))
  await waitFor(() => expect(rows.get('a')).toMatchObject({ languages: [], revision: 3 }))
  await user.click(await screen.findByRole('button', { name: 'Redo' }))
  await waitFor(() => expect(rows.get('a')!.languages).toEqual(['English', 'Urdu']))
})
test('Enter goes down a column, Esc takes back what was typed, an empty name is no name', async () => {
  const { user, rows } = page([row('a', 'Suri'), row('b', 'Otis')])
  const first = await cell('Name of Suri')
  await user.clear(first)
  await user.keyboard('{Enter}')
  expect(document.activeElement).toBe(await cell('Name of Otis'))
  await user.keyboard('x{Escape}')
  expect([(await cell('Name of Suri')).value, (await cell('Name of Otis')).value]).toEqual(['Suri', 'Otis'])
  expect([...rows.values()].map((r) => r.revision)).toEqual([1, 1])
})
test('what somebody else changed meanwhile is shown, and one’s own change is said not to be made', async () => {
  const { user, rows } = page([row('a', 'Suri')])
  const home = await cell('Home of Suri')
  rows.set('a', row('a', 'Suri', { revision: 5, home: 'Plum Lane' }))
  await user.clear(home)
  await user.type(home, 'Moon Row')
  await user.tab()
  expect((await screen.findByRole('alert')).textContent).toContain('not made')
  await waitFor(async () => expect((await cell('Home of Suri')).value).toBe('Plum Lane'))
})
test('yes, no and not said go round with one press; a full name is marked', async () => {
  const { user, rows } = page([row('a', 'Ana Fell')])
  const printer = () => screen.findByRole('button', { name: /^Printer at the home/ })
  for (const value of [true, false, null]) {
    await user.click(await printer())
    await waitFor(() => expect(rows.get('a')!.printer).toBe(value))
  }
  expect((await cell('Name of Ana Fell')).title).toContain('full name')
})
test('a table that is pasted is looked through first: doubtful rows with their reasons, and only what is ticked comes', async () => {
  const { user, rows } = page([row('a', 'Suri')])
  await cell('Name of Suri')
  fireEvent.paste(screen.getByRole('main'), {
    clipboardData: {
      getData: () =>
        'Name\tSurname\tHome\nOtis\tX\tWeir Lane\nSuri\tY\tWeir Lane\n\tZ\tMoon Row\nWren\tQ\tPlum Lane',
    },
  })
  const dialog = await screen.findByRole('dialog')
  for (const words of [/Surname/, /not needed/, /Here already/, /No name/, /No such home yet/, /3 of 4 rows/])
    expect(dialog.textContent).toMatch(words)
  await user.click(within(dialog).getByRole('checkbox', { name: 'Take over row 3' }))
  await user.click(within(dialog).getByRole('button', { name: 'Take over 2' }))
  await waitFor(() => expect([...rows.values()].map((r) => r.given)).toEqual(['Suri', 'Otis', 'Wren']))
  await waitFor(() => expect(screen.queryByRole('dialog')).toBeNull())
})
test('one word pasted goes into its cell and opens nothing', async () => {
  page([row('a', 'Suri')])
  await cell('Name of Suri')
  fireEvent.paste(screen.getByRole('main'), { clipboardData: { getData: () => 'Otis' } })
  expect(screen.queryByRole('dialog')).toBeNull()
})
test('search finds names, homes and languages, accents or not', async () => {
  const { user } = page([row('a', 'Inés', { languages: ['Urdu'] }), row('b', 'Otis', { home: 'Mill Bank' })])
  const search = await screen.findByRole('searchbox')
  for (const [words, found] of [
    ['ines', 'Inés'],
    ['mill', 'Otis'],
    ['urdu', 'Inés'],
  ] as const) {
    await user.clear(search)
    await user.type(search, words)
    await waitFor(() => expect(screen.getByText('1 child')).toBeTruthy())
    expect(screen.getByRole<HTMLInputElement>('textbox', { name: `Name of ${found}` }).value).toBe(found)
  }
})
