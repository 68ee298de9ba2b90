// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test, vi } from 'vitest'
import type { ClassOfSetting } from '@awlbox/core/contracts/api/classes'
import { showing } from '../../testing/parts.tsx'
import { NewYear } from './new-year.tsx'

afterEach(cleanup)
const cls = (id: string, name: string, age: number, children: string[]): ClassOfSetting => ({
  id,
  name,
  age,
  teacherId: 't',
  teacher: 'Marnie',
  closedAt: null,
  children: children.map((c) => ({ id: `${id}-${c}`, name: c })),
  lessons: 0,
  covers: [],
})
const classes = [cls('g', 'Goldcrests', 3, ['Pia', 'Idris']), cls('w', 'Wagtails', 4, ['Suri'])]

test('both years stand side by side; one child stays back; what is done is what was shown', async () => {
  const onTurn = vi.fn(() => Promise.resolve())
  const { user } = showing(
    <NewYear classes={classes} keptAfterLeaving={400} onClose={() => undefined} onTurn={onTurn} />,
  )
  const next = screen.getByRole('region', { name: 'Next year' })
  expect(next.textContent).toMatch(/Wagtails 2Pia, Idris/)
  expect(next.textContent).toMatch(/Leave 1Suri/)
  expect(next.textContent).toMatch(/after 400 days/)
  await user.click(screen.getByRole('combobox', { name: /^Where Idris goes/ }))
  await user.click(await screen.findByRole('option', { name: 'stays' }))
  expect(next.textContent).toMatch(/Goldcrests 1Idris/)
  await user.click(within(next).getByRole('button', { name: 'Move 1 up, let 1 leave' }))
  expect(onTurn).toHaveBeenCalledWith([
    { childId: 'g-Pia', from: 'g', to: 'w' },
    { childId: 'w-Suri', from: 'w', to: null },
  ])
})
