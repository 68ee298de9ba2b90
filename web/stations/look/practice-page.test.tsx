// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { showing } from '../../testing/parts.tsx'
import PracticePage from './practice-page.tsx'

afterEach(cleanup)
const many = 10

test('ten made-up replies are judged by key or press, then held against what was hidden; none of it is sent', async () => {
  const { user, asked } = showing(<PracticePage />)
  for (let n = 1; n <= many; n++) {
    const card = await screen.findByRole('region', { name: 'A made-up reply' })
    expect(card.textContent).toContain(`(${n} of ${many})`)
    // The truth is in none of what is shown before.
    expect(card.textContent).not.toMatch(/it was/)
    if (n % 2) await user.keyboard('1')
    else await user.click(within(card).getByRole('button', { name: /Not yet/ }))
  }
  const result = await screen.findByRole('region', { name: 'How far you agree' })
  const lines = within(result).getAllByRole('listitem')
  expect(lines).toHaveLength(many)
  expect(lines.filter((l) => /you said secure/.test(l.textContent))).toHaveLength(5)
  for (const l of lines) expect(l.textContent).toMatch(/it was (secure|nearly|not yet)/)
  expect(asked.filter((a) => a.method !== 'GET')).toEqual([])
  await user.click(screen.getByRole('button', { name: 'Ten more' }))
  expect((await screen.findByRole('region', { name: 'A made-up reply' })).textContent).toContain('(1 of 10)')
})
