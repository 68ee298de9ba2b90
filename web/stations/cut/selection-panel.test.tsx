// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import type { CutItem, CutSegment } from '@awlbox/core/contracts/cut'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { showing } from '../../testing/parts.tsx'
import { SelectionPanel } from './selection-panel.tsx'
import type { CutActs } from './use-cut-acts.ts'

afterEach(cleanup)
const takeId = '7b6c1a52-0d1f-4b59-9a53-000000000001'
const takes = [
  { id: takeId, number: 1, segmentId: 's', hearing: null, hasSound: true },
] as unknown as TakeRecord[]
const silence: CutItem = {
  kind: 'clip',
  id: 'c',
  takeId,
  from: 300,
  to: 390,
  why: { id: 's300-390', act: 'drop', kind: 'silence', note: '3 s', sure: true, state: 'open' },
}
const card: CutItem = {
  kind: 'card',
  id: 'k',
  look: 'stop',
  title: 'Your turn',
  lines: [],
  frames: 150,
  stepId: null,
  why: null,
}
/** What is asked of the cut, by name. */
function panel(item: CutItem | null, mayChange = true) {
  const done: unknown[][] = []
  const acts = new Proxy({} as CutActs, {
    get:
      (_, name) =>
      (...given: unknown[]) =>
        void done.push([name, ...given]),
  })
  const cut: CutSegment = { segmentId: 's', takeId, items: item ? [item] : [], overlays: [], byHand: false }
  const part = null
  return {
    done,
    ...showing(
      <SelectionPanel
        {...{ lessonId: 'l', cut, item, part, takes, mayChange, acts }}
        onPlay={() => void done.push(['play'])}
      />,
    ),
  }
}

test('a proposal is accepted or kept as filmed', async () => {
  const { user, done } = panel(silence)
  expect(screen.getByRole('region', { name: 'Selected' }).textContent).toContain('0:10 of the take · 3.0 s')
  await user.click(screen.getByRole('button', { name: 'Cut it out' }))
  await user.click(screen.getByRole('button', { name: 'Keep it' }))
  expect(done).toEqual([
    ['decide', 's', 's300-390', 'accepted'],
    ['decide', 's', 's300-390', 'declined'],
  ])
})
test('what was dropped can be put back', async () => {
  const { user, done } = panel({ ...silence, why: { ...silence.why!, state: 'accepted' } })
  await user.click(screen.getByRole('button', { name: 'Put it back' }))
  expect(done).toEqual([['bringBack', 's', 'c']])
})
test('a card’s words are changed where they stand', async () => {
  const { user, done } = panel(card)
  const title = screen.getByDisplayValue('Your turn')
  await user.type(title, '!')
  expect(done.at(-1)).toMatchObject(['change', 's', { id: 'k', title: 'Your turn!' }, 'card k'])
})
test('nothing chosen says how to choose; who may only look is offered no change', () => {
  panel(null)
  expect(screen.getByText(/Choose a span/)).toBeTruthy()
  cleanup()
  panel(silence, false)
  expect(screen.getAllByRole('button').map((b) => b.textContent)).toEqual(['Play from here'])
})
