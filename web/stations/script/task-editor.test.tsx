// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { TaskSpec } from '@awlbox/core/contracts/lesson'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { useLesson } from '../../frame/lesson-context.ts'
import { showingIn } from '../../testing/parts.tsx'
import { TaskEditor } from './task-editor.tsx'

afterEach(cleanup)
function editing(line: string) {
  let n = 0
  const { lesson } = fromMarkdown(`# Stamps\n\n## Home {home task}\nAsk: ${line}`, () => `s${(n += 1)}`)
  const Now = () => {
    const { doc } = useLesson()
    return <TaskEditor step={doc.segments[0]!.steps[0]!} onClose={() => undefined} />
  }
  const { user, doc } = showingIn(lesson, <Now />)
  return { user, task: (): TaskSpec | undefined => doc().segments[0]!.steps[0]!.task }
}
const field = (name: RegExp) => screen.getByRole<HTMLInputElement>('textbox', { name })

test('a kind is begun from what the line says, and changed in the words of notes', async () => {
  const { user, task } = editing('Share ten stamps between three houses.')
  await user.click(screen.getByRole('button', { name: 'a fair share' }))
  expect(task()).toEqual({ kind: 'share', things: 10, plates: 3 })
  expect(field(/fair share/).value).toBe('10 on 3')
  await user.clear(field(/fair share/))
  await user.type(field(/fair share/), '12 on 4')
  expect(task()).toEqual({ kind: 'share', things: 12, plates: 4 })
})
test('what cannot be read yet is said, and what homes get stays', async () => {
  const { user, task } = editing('Put 9, 3 and 5 in order. {order 3 | 5 | 9}')
  await user.clear(field(/an order/))
  await user.type(field(/an order/), '3')
  expect(screen.getByRole('status').textContent).toContain('“3 | 5 | 9”')
  expect(task()).toEqual({ kind: 'order', items: ['3', '5', '9'] })
  await user.type(field(/an order/), ' | 4')
  expect(screen.queryByRole('status')).toBeNull()
  expect(task()).toEqual({ kind: 'order', items: ['3', '4'] })
})
test('not checked is kept while the words change; their own words need no answer', async () => {
  const { user, task } = editing('Which are doubles? {tick 4 * | 7}')
  await user.click(screen.getByRole('checkbox', { name: /not checked/ }))
  await user.type(field(/all that fit/), ' | 8 *')
  expect(task()).toEqual({ kind: 'several', choices: ['4', '7', '8'], right: [0, 2], unchecked: true })
  await user.click(screen.getByRole('button', { name: 'their voice or words' }))
  expect(task()).toEqual({ kind: 'tell' })
  expect(screen.queryByRole('checkbox')).toBeNull()
})
