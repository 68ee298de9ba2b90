// @vitest-environment jsdom
import { cleanup, fireEvent, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, describe, expect, test } from 'vitest'
import { aimOf } from '@awlbox/core/plan/aim'
import { structureWords } from '@awlbox/core/plan/aim-words'
import { showing } from '../../testing/parts.tsx'
import { type AimChoice, AimEditor } from './aim-editor.tsx'

afterEach(cleanup)
function editor(start: Partial<AimChoice> = {}) {
  let now: AimChoice = {
    ideaId: 'parts-5',
    age: 4,
    aim: aimOf({ structure: 'parts', upTo: 5 }),
    arc: 'show-together-alone',
    ...start,
  }
  function Editing() {
    const [value, set] = useState(now)
    return (
      <AimEditor
        value={value}
        onChange={(v) => {
          now = v
          set(v)
        }}
      />
    )
  }
  return { now: () => now, ...showing(<Editing />) }
}
const choose = async (user: ReturnType<typeof editor>['user'], label: string, words: string) => {
  await user.click(screen.getByRole('combobox', { name: new RegExp(`^${label}`) }))
  await user.click(screen.getByRole('option', { name: words }))
}

describe('the aim', () => {
  test('of another idea takes over what that idea is about', async () => {
    const { user, now } = editor()
    await choose(user, 'Idea', 'Parts of 10')
    expect(now()).toMatchObject({ ideaId: 'parts-10', aim: { structure: 'parts', upTo: 10 } })
  })
  test('made of something else keeps within what that can be', async () => {
    const { user, now } = editor({ aim: aimOf({ structure: 'parts', upTo: 90 }) })
    await user.click(screen.getByRole('combobox', { name: /^Made of/ }))
    const last = screen.getAllByRole('option').at(-1)!
    await user.click(last)
    expect(now().aim.structure).not.toBe('parts')
    expect(screen.getByRole('combobox', { name: /^Made of/ }).textContent).toBe(
      structureWords[now().aim.structure],
    )
  })
  test('never goes further than a number may', () => {
    const { now } = editor()
    const upTo = screen.getAllByRole('spinbutton').find((x) => (x as HTMLInputElement).value === '5')!
    fireEvent.change(upTo, { target: { value: '400' } })
    expect(now().aim.upTo).toBeLessThanOrEqual(100)
  })
  test('says how many things may lie out in words, and a number only where there is a limit', async () => {
    const { user, now } = editor({ aim: aimOf({ structure: 'parts', upTo: 5, mostThings: 0 }) })
    const numbers = screen.getAllByRole('spinbutton').length
    await choose(user, 'How many things out at once', 'at most')
    expect([now().aim.mostThings, screen.getAllByRole('spinbutton').length]).toEqual([10, numbers + 1])
  })
})
