// @vitest-environment jsdom
import { cleanup, screen } from '@testing-library/react'
import { afterEach, expect, test, vi } from 'vitest'
import { emptyReading, type PhotoReading } from '@awlbox/core/contracts/reading'
import { showing } from '../../testing/parts.tsx'
import { PhotoView } from './photo-view.tsx'

afterEach(cleanup)
const thing = (x: number, colour = 'yellow') => ({ x, y: 60, r: 10, colour, cutOff: false })
const reading: PhotoReading = {
  ...emptyReading({ width: 200, height: 120 }),
  count: 2,
  low: 2,
  high: 3,
  things: [thing(40), thing(90, 'blue')],
}
const photo = { id: 'p', width: 200, height: 120, reading, unread: null, corrected: false }
const view = (status = 200) => {
  const onCorrected = vi.fn()
  const shown = showing(<PhotoView photo={photo} onCorrected={onCorrected} />, {
    answer: ({ method }) =>
      method === 'POST'
        ? { status, body: status === 200 ? { reading } : { title: 'No', detail: 'Not kept.' } }
        : undefined,
  })
  return { ...shown, onCorrected }
}
const sentBy = (asked: { method: string; body: unknown }[]) =>
  (asked.find((a) => a.method === 'POST')!.body as { things: PhotoReading['things'] }).things

test('what was found is ringed and numbered; what waits or cannot be read says so', () => {
  view()
  expect(screen.getByRole('img', { name: 'Photo: 2 things found' })).toBeTruthy()
  cleanup()
  showing(<PhotoView photo={{ ...photo, reading: null }} onCorrected={() => undefined} />)
  expect(screen.getByRole('status').textContent).toContain('being read')
  expect(screen.queryByRole('button', { name: 'Put right' })).toBeNull()
})
test('a ring is taken away, given another colour or crossed out by keys alone, and kept', async () => {
  const { user, asked, onCorrected } = view()
  await user.click(screen.getByRole('button', { name: 'Put right' }))
  const choose = async (name: RegExp, option: RegExp) => {
    await user.click(screen.getByRole('combobox', { name }))
    await user.click(await screen.findByRole('option', { name: option }))
  }
  await choose(/^Ring/, /^1, yellow/)
  await user.click(screen.getByRole('button', { name: 'Not a thing' }))
  await choose(/^Ring/, /^1, blue/)
  await choose(/^Colour of 1/, /^red/)
  await user.click(screen.getByRole('button', { name: 'Crossed out' }))
  expect(screen.getByRole('button', { name: 'Crossed out' }).getAttribute('aria-pressed')).toBe('true')
  await user.click(screen.getByRole('button', { name: 'Keep as it is' }))
  expect(sentBy(asked)).toEqual([{ ...thing(90, 'red'), crossed: true }])
  await vi.waitFor(() => expect(onCorrected).toHaveBeenCalledOnce())
})
test('left alone nothing is sent; refused, the rings stay', async () => {
  const { user, asked, onCorrected } = view(500)
  await user.click(screen.getByRole('button', { name: 'Put right' }))
  await user.click(screen.getByRole('button', { name: 'Leave it' }))
  expect(asked.some((a) => a.method === 'POST')).toBe(false)
  await user.click(screen.getByRole('button', { name: 'Put right' }))
  await user.click(screen.getByRole('button', { name: 'Keep as it is' }))
  expect(await screen.findByText(/Your rings are still here/)).toBeTruthy()
  expect(onCorrected).not.toHaveBeenCalled()
})
