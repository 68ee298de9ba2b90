// @vitest-environment jsdom
import { cleanup, render, screen, within } from '@testing-library/react'
import userEvent from '@testing-library/user-event'
import { useState } from 'react'
import { afterEach, expect, test } from 'vitest'
import type { HomeTask } from '@awlbox/core/contracts/api/home'
import type { TaskSpec } from '@awlbox/core/contracts/lesson'
import { checkAnswer } from '@awlbox/core/look/answers'
import { shownTask } from '@awlbox/core/send/shown-task'
import { isOpen } from './task-card.tsx'
import { english } from '../testing/words.ts'
import { Pieces } from './pieces.tsx'
import { Words } from './words.ts'

afterEach(cleanup)
/** A task as a home has it, and what its answer comes to. */
function shown(spec: TaskSpec) {
  const task: HomeTask = {
    id: 'task-1',
    prompt: 'What is it?',
    kind: spec.kind,
    sets: [],
    ...shownTask('task-1', spec),
  }
  let now: string[] | undefined
  const Held = () => {
    const [given, setGiven] = useState<string[]>()
    now = given
    return <Pieces task={task} given={given} locked={false} onGive={setGiven} />
  }
  render(
    <Words value={english}>
      <Held />
    </Words>,
  )
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
  expect([screen.getByRole('status').textContent, verdict()]).toEqual(['One still to share', 'right'])
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

test('one number hidden in a sentence is chosen, and stands in its gap', async () => {
  const { user, verdict } = shown({ kind: 'sentence', sentence: '4 + 3 = 7', hidden: 0 })
  await user.click(screen.getByRole('radio', { name: '3' }))
  expect(verdict()).toBe('wrong')
  await user.click(screen.getByRole('radio', { name: '4' }))
  expect(verdict()).toBe('right')
})
test('a sum and its turn-round are laid in two lanes; the same twice is looked at', async () => {
  const { user, verdict } = shown({ kind: 'sentence', sentence: '4 + 3 = 7', count: 2 })
  const lay = async (lane: number, tiles: string[]) => {
    for (const t of tiles)
      await user.click(
        within(screen.getAllByRole('group', { name: 'Tiles' })[lane]!).getAllByRole('button', {
          name: `Lay ${t}`,
        })[0]!,
      )
  }
  await lay(0, ['4', '+', '3', '=', '7'])
  expect(verdict()).toBe('look')
  await lay(1, ['3', '+', '4', '=', '7'])
  expect(verdict()).toBe('right')
})
test('a mark on the line is set and moved by keys', async () => {
  const { user, given, verdict, open } = shown({ kind: 'line', from: 0, to: 100, marks: [60] })
  expect(open()).toBe(true)
  const mark = () => screen.getByRole('radio')
  await user.click(mark())
  expect(given()).toEqual(['50'])
  await user.keyboard('{ArrowUp}{ArrowLeft}')
  expect([given(), verdict(), mark().getAttribute('aria-label')]).toEqual([
    ['59'],
    'right',
    '60 stands at 59',
  ])
})
test('circles are drawn under numerals, one by one', async () => {
  const { user, verdict } = shown({ kind: 'circles', under: [2, 1] })
  await user.click(tap('One more under 2'))
  await user.click(tap('One more under 2'))
  await user.click(tap('One more under 1'))
  expect(verdict()).toBe('right')
  await user.click(tap('One fewer under 1'))
  expect(verdict()).toBe('wrong')
})
test('things are crossed off and un-crossed; none crossed is an answer where none goes', async () => {
  const { user, verdict, open } = shown({ kind: 'cross', things: 4, go: 0 })
  await user.click(tap('Number 2'))
  expect(verdict()).toBe('wrong')
  await user.click(tap('Number 2'))
  expect([verdict(), open()]).toEqual(['right', false])
})
test('a game is written down round by round', async () => {
  const { user, verdict } = shown({ kind: 'record', rounds: 2, rule: 'take', start: 10 })
  const type = async (round: number, came: string, said: string, wrote: string) => {
    const row = within(screen.getAllByRole('listitem')[round]!)
    await user.type(row.getByLabelText('What came up'), came)
    await user.type(row.getByLabelText('What was said'), said)
    await user.type(row.getByLabelText('What was written'), wrote)
  }
  await type(0, '3', '7', '10 - 3 = 7')
  expect(verdict()).toBe('look')
  await type(1, '4', 'six', '10 - 4 = 6')
  expect(verdict()).toBe('right')
})
test('a patch of the square stands in rows', () => {
  shown({ kind: 'gaps', run: [1, 2, 11, 12], gaps: [1, 2], wide: 2 })
  expect(screen.getByRole('list').style.gridTemplateColumns).toMatch(/^repeat\(2/)
  expect(screen.getAllByRole('textbox').length).toBe(2)
})
test('choices are drawn as dots, shapes or so many things, and named for who hears them', () => {
  shown({ kind: 'several', choices: ['5', '3'], right: [0], look: 'dots' })
  expect(screen.getByRole('img', { name: '5' }).querySelectorAll('circle').length).toBe(5)
  cleanup()
  shown({ kind: 'several', choices: ['a square', 'a circle'], right: [0], look: 'shapes' })
  expect(screen.getByRole('checkbox', { name: /a square/ }).querySelector('rect')).toBeTruthy()
})
