// @vitest-environment jsdom
import { cleanup, render, screen } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, expect, test } from 'vitest'
import type { HomeTask } from '@awlbox/core/contracts/api/home'
import type { TaskSpec } from '@awlbox/core/contracts/lesson'
import { checkAnswer } from '@awlbox/core/look/answers'
import { shownTask } from '@awlbox/core/send/shown-task'
import { isOpen } from './task-card.tsx'
import { Pieces } from './pieces.tsx'

afterEach(cleanup)
/** A task as a home has it, and what its answer comes to. */
function shown(spec: TaskSpec) {
  const task: HomeTask = {
    id: 'task-1',
    prompt: 'What is it?',
    kind: spec.kind,
    ...shownTask('task-1', spec),
  }
  let now: string[] | undefined
  const Held = () => {
    const [given, setGiven] = useState<string[]>()
    now = given
    return <Pieces task={task} given={given} locked={false} onGive={setGiven} />
  }
  render(<Held />)
  const verdict = () =>
    checkAnswer({ id: 'task-1', prompt: '', spec }, { taskId: 'task-1', kind: spec.kind, given: now ?? null })
      .verdict
  return {
    user: userEvent.setup(),
    given: () => now,
    open: () => isOpen(task, now && { given: now }),
    verdict,
  }
}
const tap = (name: string | RegExp) => screen.getByRole('button', { name })

test('tiles are laid and taken back, each as often as it is there', async () => {
  const { user, given, verdict, open } = shown({ kind: 'sentence', sentence: '3 + 3 = 6' })
  expect(open()).toBe(true)
  for (const t of ['3', '+', '3', '=', '6'])
    await user.click(screen.getAllByRole('button', { name: `Lay ${t}` })[0]!)
  expect([given()!.join(' '), verdict(), open()]).toEqual(['3 + 3 = 6', 'right', false])
  expect(screen.queryByRole('button', { name: 'Lay 3' })).toBeNull()
  await user.click(tap('3, place 3: take it back'))
  expect(given()).toEqual(['3', '+', '=', '6'])
  expect(screen.getByRole('button', { name: 'Lay 3' })).toBeTruthy()
})
test('an order is tapped, the first one first', async () => {
  const { user, verdict } = shown({ kind: 'order', items: ['2', '5', '9'] })
  for (const t of ['2', '5', '9']) await user.click(tap(`Lay ${t}`))
  expect(verdict()).toBe('right')
})
test('several are ticked and unticked; none of them is an answer', async () => {
  const { user, given, verdict, open } = shown({ kind: 'several', choices: ['3', '4', '5'], right: [0, 2] })
  const box = (name: string) => screen.getByRole('checkbox', { name: new RegExp(`${name}$`) })
  for (const c of ['3', '4', '5', '4']) await user.click(box(c))
  expect([given(), verdict()]).toEqual([['3', '5'], 'right'])
  await user.click(box('None of them'))
  expect([given(), verdict(), open()]).toEqual([[], 'wrong', false])
})
test('gaps are typed in their places', async () => {
  const { user, given, verdict } = shown({ kind: 'gaps', run: [10, 20, 30, 40], gaps: [1, 3] })
  await user.type(screen.getByLabelText('Missing number 2 of 2'), '40')
  expect(given()).toEqual(['', '40'])
  await user.type(screen.getByLabelText('Missing number 1 of 2'), '20')
  expect(verdict()).toBe('right')
})
test('things go onto plates one at a time, never more than there are', async () => {
  const { user, given, verdict } = shown({ kind: 'share', things: 5, plates: 2 })
  for (const i of [1, 2, 1, 2, 1]) await user.click(tap(`One onto plate ${i}`))
  expect([given(), verdict()]).toEqual([['3', '2'], 'wrong'])
  expect(tap('One onto plate 2')).toHaveProperty('disabled', true)
  await user.click(tap('One off plate 1'))
  expect([screen.getByRole('status').textContent, verdict()]).toEqual(['1 still to share', 'right'])
})
test('what belongs together is chosen for each', async () => {
  const { user, verdict } = shown({
    kind: 'match',
    pairs: [
      ['3', 'three'],
      ['4', 'four'],
    ],
  })
  await user.selectOptions(screen.getByLabelText('Belongs to 3'), 'three')
  expect(verdict()).toBe('look')
  await user.selectOptions(screen.getByLabelText('Belongs to 4'), 'four')
  expect(verdict()).toBe('right')
})
test('a list grows as it is typed, empty lines at its end are none', async () => {
  const { user, given, verdict } = shown({ kind: 'ways', total: 2, parts: 2, zero: true, turned: false })
  await user.type(screen.getByLabelText(/One way.*, 1/), '2 + 0')
  await user.type(screen.getByLabelText(/One way.*, 2/), '1 + 1')
  expect([given(), verdict()]).toEqual([['2 + 0', '1 + 1'], 'right'])
  await user.clear(screen.getByLabelText(/One way.*, 2/))
  expect(given()).toEqual(['2 + 0'])
})
