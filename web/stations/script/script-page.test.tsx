// @vitest-environment jsdom
import { cleanup, fireEvent, screen, within } from '@testing-library/react'
import { afterEach, describe, expect, test } from 'vitest'
import { lessonOf } from '@awlbox/core/cut/test-words'
import { HouseStyle } from '@awlbox/core/contracts/house-style'
import { showingIn } from '../../testing/parts.tsx'
import ScriptPage from './script-page.tsx'

afterEach(cleanup)
const lesson = lessonOf(
  `# Parcels

## Watch me {show}
Do: Lay a ten frame
Do: Put 7 saffron on the frame
Count: 1 to 6, touching each
Ask: How many?
Wait: 5 s
## Together {together}
Say: Now you.`,
)
const line = (n: number) => screen.getByLabelText<HTMLTextAreaElement>(new RegExp(`, line ${n}$`))
const findings = () =>
  [...document.querySelectorAll('[data-finding]')].map((e) => e.getAttribute('data-finding'))

describe('the script', () => {
  test('shows what is wrong at its line with why, and a button that mends it', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />)
    expect(findings()).toContain('count-end')
    expect(screen.getByText(/The count ends on 6, but 7 are on the table\./)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Count 1 to 7, touching each' }))
    expect(doc().segments[0]!.steps[2]!.text).toBe('1 to 7, touching each')
    expect(findings()).not.toContain('count-end')
  })
  test('of a line in the table draws what it does', async () => {
    const { user } = showingIn(lesson, <ScriptPage />)
    await user.click(line(2))
    const onTable = () => screen.getByText('On the table').parentElement!.textContent
    expect(onTable()).toContain('7')
    fireEvent.change(line(2), { target: { value: 'Put 3 saffron on the frame' } })
    expect(onTable()).toContain('3')
    expect(screen.getByText(/ends on 6, but 3 are on the table/)).toBeTruthy()
  })
  test('what the table cannot do is said beside it in words', async () => {
    const { user } = showingIn(lesson, <ScriptPage />)
    await user.click(line(2))
    fireEvent.change(line(2), { target: { value: 'Put 17 saffron on the frame' } })
    expect(screen.getByRole('alert').textContent).toMatch(
      /has room for 10 more, not 17\. The table stays as it was/,
    )
  })
  test('Enter adds the line that usually follows, and the keyboard goes there', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />)
    await user.click(line(4))
    await user.keyboard('{Enter}')
    expect(doc().segments[0]!.steps.map((s) => s.verb)).toEqual(['do', 'do', 'count', 'ask', 'wait', 'wait'])
    expect(document.activeElement).toBe(line(5))
  })
  test('a line emptied and taken out leaves one on the line before', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />)
    await user.click(line(5))
    fireEvent.change(line(5), { target: { value: '' } })
    await user.keyboard('{Backspace}')
    expect(doc().segments[0]!.steps).toHaveLength(4)
    expect(document.activeElement).toBe(line(4))
  })
  test('a spoken line may begin with the name of a kind; typing changes none', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />, { at: lesson.segments[1]!.id })
    await user.clear(line(1))
    await user.type(line(1), 'Count with me as I draw. ')
    expect(doc().segments[1]!.steps[0]).toMatchObject({ verb: 'say', text: 'Count with me as I draw. ' })
    expect(screen.queryByRole('button', { name: /^Make it/ })).toBeNull()
  })
  test('a kind written as a sign is offered, and taken by a key', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />, { at: lesson.segments[1]!.id })
    await user.clear(line(1))
    await user.type(line(1), 'ask How many?')
    expect(doc().segments[1]!.steps[0]).toMatchObject({ verb: 'say', text: 'ask How many?' })
    expect(screen.getByRole('button', { name: 'Make it ask: How many?' })).toBeTruthy()
    await user.keyboard('{Alt>}{Enter}{/Alt}')
    expect(doc().segments[1]!.steps[0]).toMatchObject({ verb: 'ask', text: 'How many?' })
  })
  test('the kind is chosen by keys, its words kept, and the keyboard comes back to the line', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />, { at: lesson.segments[1]!.id })
    await user.click(line(1))
    await user.keyboard('{Alt>}k{/Alt}')
    await user.click(screen.getByRole('option', { name: 'ask' }))
    expect(doc().segments[1]!.steps[0]).toMatchObject({ verb: 'ask', text: 'Now you.' })
    expect(document.activeElement).toBe(line(1))
  })
  test('several segments are ticked and taken out together', async () => {
    const more = lessonOf('# Parcels\n\n## A {hook}\nSay: A.\n## B {show}\nSay: B.\n## C {alone}\nSay: C.\n')
    const { user, doc } = showingIn(more, <ScriptPage />)
    const takeOut = async (title: string) => {
      await user.click(screen.getByRole('button', { name: `More for ${title}` }))
      await user.click(screen.getByRole('menuitem', { name: 'Take out several…' }))
    }
    await takeOut('A')
    await user.click(screen.getByRole('checkbox', { name: /^C/ }))
    await user.click(screen.getByRole('button', { name: 'Keep all' }))
    expect(doc().segments).toHaveLength(3)
    await takeOut('A')
    await user.click(screen.getByRole('checkbox', { name: /^C/ }))
    await user.click(screen.getByRole('button', { name: 'Take out 2 segments' }))
    expect(doc().segments.map((x) => x.title)).toEqual(['B'])
  })
  test('a closed segment opens where it stands', async () => {
    const { user } = showingIn(lesson, <ScriptPage />)
    await user.click(screen.getByRole('button', { name: /^Together/ }))
    expect(
      within(screen.getByRole('region', { name: 'Together' })).getByDisplayValue('Now you.'),
    ).toBeTruthy()
  })
  test('follows the house in how a frame is filled', () => {
    const tables = (fill: 'across' | 'pairs') => {
      showingIn(lesson, <ScriptPage />, { style: HouseStyle.parse({ frameFill: fill }) })
      const drawn = [...document.querySelectorAll('svg[role=img]')].map((e) => e.innerHTML).join()
      cleanup()
      return drawn
    }
    expect(tables('across')).not.toBe(tables('pairs'))
  })
  test('of somebody who may not change it offers nothing that would', () => {
    showingIn(lesson, <ScriptPage />, { record: { mayChange: false } })
    expect(line(1).disabled).toBe(true)
    expect(screen.queryByRole('button', { name: /^Count 1 to 7/ })).toBeNull()
    expect(screen.queryByRole('button', { name: /Add a line/ })).toBeNull()
  })
})

describe('what comes back from a line', () => {
  const asking = lessonOf(
    `# Parcels

## Send {home task}
Ask: 4 + __ = 9 {answer 5}
Ask: Which is a way to make five? {choose 4 and 1 * | 2 and 2 | 3 and 2}
Say: Goodbye.`,
  )
  const task = (lesson: typeof asking, i: number) => lesson.segments[0]!.steps[i]!.task
  test('says closed what it is, and that it was worked out; its answer follows the numbers of the line', async () => {
    const { user, doc } = showingIn(asking, <ScriptPage />)
    await user.click(screen.getByRole('button', { name: 'number · 5 worked out' }))
    expect(
      screen.getByText('5, worked out from the number sentence; it follows when the numbers change.'),
    ).toBeTruthy()
    fireEvent.change(line(1), { target: { value: '3 + __ = 9' } })
    expect(task(doc(), 0)).toMatchObject({ answer: 6 })
    expect(screen.getByRole('button', { name: 'number · 6 worked out' })).toBeTruthy()
  })
  test('an answer typed against the reckoning is a finding with both, mended by one press', async () => {
    const { user, doc } = showingIn(asking, <ScriptPage />)
    await user.click(screen.getByRole('button', { name: /^number · 5/ }))
    fireEvent.change(screen.getByLabelText('Right answer'), { target: { value: '7' } })
    expect(findings()).toContain('task-answer')
    expect(screen.getByText(/set to 7; the number sentence comes to 5\./)).toBeTruthy()
    await user.click(screen.getByRole('button', { name: 'Make it 5' }))
    expect(task(doc(), 0)).toMatchObject({ answer: 5 })
    expect(findings()).not.toContain('task-answer')
  })
  test('several choices may be right, and one always is', async () => {
    const { user, doc } = showingIn(asking, <ScriptPage />)
    await user.click(screen.getByRole('button', { name: 'choice · 1 of 3 right' }))
    const choices = within(screen.getByRole('list', { name: 'Choices' }))
    await user.click(choices.getAllByRole('checkbox')[2]!)
    expect(task(doc(), 1)).toMatchObject({ answer: 0, also: [2] })
    await user.click(choices.getAllByRole('checkbox')[0]!)
    expect(task(doc(), 1)).toMatchObject({ answer: 2 })
    await user.click(choices.getByRole('button', { name: 'Take out choice 1' }))
    expect(task(doc(), 1)).toMatchObject({ choices: ['2 and 2', '3 and 2'], answer: 1 })
  })
  test('may have no right answer at all', async () => {
    const { user, doc } = showingIn(asking, <ScriptPage />)
    await user.click(screen.getByRole('button', { name: /^choice/ }))
    await user.click(screen.getByRole('checkbox', { name: /not checked/ }))
    expect(task(doc(), 1)).toMatchObject({ unchecked: true })
    expect(screen.getByRole('button', { name: 'choice · not checked' })).toBeTruthy()
  })
  test('a question that comes back from nobody is made one that does by keys, and back', async () => {
    const { user, doc } = showingIn(lesson, <ScriptPage />)
    await user.click(line(4))
    await user.keyboard('{Alt>}t{/Alt}')
    const editor = within(screen.getByRole('region', { name: 'What comes back' }))
    await user.click(editor.getByRole('button', { name: 'a number' }))
    expect(task(doc(), 3)).toEqual({ kind: 'number', answer: 7 })
    await user.click(editor.getByRole('button', { name: 'nothing' }))
    expect(task(doc(), 3)).toBeUndefined()
    await user.keyboard('{Escape}')
    expect(screen.queryByRole('region', { name: 'What comes back' })).toBeNull()
    expect(document.activeElement).toBe(line(4))
  })
})
