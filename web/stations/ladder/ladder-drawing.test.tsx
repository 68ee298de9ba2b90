// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { useState } from 'react'
import { afterEach, expect, test } from 'vitest'
import type { Idea } from '@awlbox/core/contracts/idea'
import { showing } from '../../testing/parts.tsx'
import { LadderDrawing } from './ladder-drawing.tsx'

afterEach(cleanup)
const idea = (id: string, after: string[] = []): Idea =>
  ({ id, name: `Idea ${id}`, structure: 'parts', least: 0, upTo: 5, ages: [3, 5], after }) as unknown as Idea
function Ladder({ picks }: { picks: string[] }) {
  const [picked, set] = useState<string | null>('a')
  return (
    <LadderDrawing
      ideas={[idea('a'), idea('b', ['a']), idea('c', ['b'])]}
      levels={new Map()}
      picked={picked}
      onPick={(id) => {
        picks.push(id)
        set(id)
      }}
    />
  )
}

test('arrows walk the ladder to what comes after, and back', async () => {
  const picks: string[] = []
  const { user } = showing(<Ladder picks={picks} />)
  screen.getByRole('button', { name: /Idea a/ }).focus()
  await user.keyboard('{ArrowRight}{ArrowRight}{ArrowLeft}')
  expect(picks).toEqual(['b', 'c', 'b'])
  expect(document.activeElement?.getAttribute('data-idea')).toBe('b')
})
