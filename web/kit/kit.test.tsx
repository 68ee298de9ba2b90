// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import { asABrowser } from '../testing/browser.ts'
import { DateField } from './date-field.tsx'
import { Select } from './select.tsx'
import { Slider } from './slider.tsx'
import { Tabs } from './tabs.tsx'

beforeEach(asABrowser)
afterEach(cleanup)

describe('a list to choose from', () => {
  const choices = [
    { value: 'hook', words: 'hook' },
    { value: 'show', words: 'watch me' },
  ] as const
  function Kinds({ disabled = false }) {
    const [kind, set] = useState<'hook' | 'show' | ''>('')
    return (
      <Select label="Kind" hint="which?" value={kind} choices={choices} onChange={set} disabled={disabled} />
    )
  }
  test('shows its hint, then what was chosen by its words', async () => {
    const user = userEvent.setup()
    render(<Kinds />)
    const field = screen.getByRole('combobox', { name: 'Kind' })
    expect(field.textContent).toBe('which?')
    await user.click(field)
    await user.click(screen.getByRole('option', { name: 'watch me' }))
    expect([field.textContent, screen.queryByRole('option')]).toEqual(['watch me', null])
  })
  test('is opened and chosen from by keys', async () => {
    const user = userEvent.setup()
    render(<Kinds />)
    await user.tab()
    await user.keyboard('{Enter}{ArrowDown}{Enter}')
    expect(screen.getByRole('combobox').textContent).toBe('watch me')
  })
  test('opens for nobody who may not change it', async () => {
    render(<Kinds disabled />)
    await userEvent.setup({ pointerEventsCheck: 0 }).click(screen.getByRole('combobox'))
    expect(screen.queryByRole('option')).toBeNull()
  })
})

test('a slider moves by its step with the keys, and says in words where it stands', async () => {
  const user = userEvent.setup()
  function Distance() {
    const [v, set] = useState(1500)
    return (
      <Slider
        label="Read from"
        value={v}
        from={500}
        to={3000}
        step={100}
        words={`${v / 1000} m`}
        onChange={set}
      />
    )
  }
  render(<Distance />)
  await user.tab()
  await user.keyboard('{ArrowRight}')
  expect(screen.getByRole('slider', { name: 'Read from' }).getAttribute('aria-valuetext')).toBe('1.6 m')
  await user.keyboard('{End}')
  expect(screen.getByRole('slider').getAttribute('aria-valuenow')).toBe('3000')
})

test('tabs show one content at a time, and arrows go along', async () => {
  const user = userEvent.setup()
  function Takes() {
    const [tab, set] = useState('a')
    return (
      <Tabs
        label="Takes"
        value={tab}
        onChange={set}
        tabs={[
          { value: 'a', label: 'This segment', content: 'mine' },
          { value: 'b', label: 'All takes', content: 'everything' },
        ]}
      />
    )
  }
  render(<Takes />)
  await user.tab()
  await user.keyboard('{ArrowRight}')
  expect(screen.getByRole('tabpanel').textContent).toBe('everything')
})

describe('a day', () => {
  function Day() {
    const [day, set] = useState('2027-03-02')
    return (
      <>
        <DateField label="Day" value={day} onChange={set} required />
        <output>{day}</output>
      </>
    )
  }
  test('is typed as it is said here', async () => {
    const user = userEvent.setup()
    render(<Day />)
    const field = screen.getByLabelText('Day')
    await user.clear(field)
    await user.type(field, '9/4/2027{Enter}')
    expect(screen.getByRole('status').textContent).toBe('2027-04-09')
  })
  test('that is none is said, and not kept', async () => {
    const user = userEvent.setup()
    render(<Day />)
    const field = screen.getByLabelText('Day')
    await user.clear(field)
    await user.type(field, '31/2/2027{Enter}')
    expect([field.getAttribute('aria-invalid'), screen.getByRole('status').textContent]).toEqual([
      'true',
      '2027-03-02',
    ])
  })
})
