// @vitest-environment jsdom
import { cleanup, screen, within } from '@testing-library/react'
import 'fake-indexeddb/auto'
import { afterEach, beforeEach, describe, expect, test } from 'vitest'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { lessonOf, said } from '@awlbox/core/cut/test-words'
import { hear } from '@awlbox/core/film/judge/heard'
import { showingIn } from '../../testing/parts.tsx'
import FilmPage from './film-page.tsx'

const lesson = lessonOf(
  `# Parcels

## Watch me {show}
Say: Bobbin has five parcels.
Count: 1 to 5, touching each
## Together {together}
Say: Now you count.`,
)
const [show, together] = lesson.segments
const take = (number: number, words: string, segmentId: string | null = show!.id): TakeRecord =>
  ({
    id: `take-${number}`,
    segmentId,
    number,
    name: null,
    status: 'ready',
    seconds: 12,
    source: 'uploaded',
    problem: null,
    hearing: hear(show!, said(words), 12, { style: defaultHouseStyle, age: 4 }),
    heardAtRevision: 1,
    hasSound: true,
    captioned: false,
    marks: [],
    corrections: [],
    sorting: null,
    sound: null,
    firstFrame: null,
    part: null,
    createdAt: '2026-11-26T18:00:00Z',
  }) as unknown as TakeRecord
const clean = take(1, 'bobbin has five parcels ~1 one two three four five')
const slipped = take(2, 'bobbin has five parcels ~1 one two three five')
const page = (...takes: TakeRecord[]) =>
  showingIn(lesson, <FilmPage />, {
    answer: ({ path }) => (path.endsWith('/takes') ? { body: { items: takes } } : undefined),
  })
beforeEach(() => localStorage.clear())
afterEach(cleanup)

describe('the Film page', () => {
  test('prompts the line to say now; keys go on and back', async () => {
    const { user } = page()
    const prompter = screen.getByRole('region', { name: 'Prompter' })
    expect(prompter.textContent).toContain('line 1 of 2')
    await user.keyboard('{PageDown}')
    expect(prompter.textContent).toContain('line 2 of 2')
    await user.keyboard('{PageUp}')
    expect(within(prompter).getByText(/Bobbin has/)).toBeTruthy()
  })
  test('with no take says what to do first', async () => {
    page()
    expect(await screen.findByText(/No take of “Watch me” yet/)).toBeTruthy()
  })
  test('says of each take what was heard otherwise, and which is best', async () => {
    page(clean, slipped)
    const second = await screen.findByRole('article', { name: 'Take 2' })
    expect(second.textContent).toContain('4 is left out of the count.')
    expect(screen.getByRole('article', { name: 'Take 1' }).textContent).toContain('best')
  })
  test('what was not understood is not called clean, and says what to do', async () => {
    const muddy = {
      ...clean,
      hearing: {
        ...clean.hearing!,
        understood: { how: 'not understood' as const, share: 0.2, stretches: [], advice: ['noise' as const] },
      },
    }
    page(muddy)
    const article = await screen.findByRole('article', { name: 'Take 1' })
    expect(article.textContent).toContain('not understood')
    expect(article.textContent).toContain('The room is nearly as loud as the voice')
    expect(article.textContent).not.toMatch(/no slip|Everything was heard as written/)
  })
  test('what was understood and has no slip is', async () => {
    page(clean)
    const article = await screen.findByRole('article', { name: 'Take 1' })
    expect(article.textContent).toContain('Everything was heard as written')
  })
  test('with nothing but a slip asks for the segment to be filmed again, and says why', async () => {
    const { user } = page(slipped)
    const tab = await screen.findByRole('tab', { name: 'Film again · 2' })
    await user.click(tab)
    const panel = screen.getByRole('tabpanel')
    expect(panel.textContent).toContain('4 is left out of the count.')
    expect(panel.textContent).toContain('Not filmed yet.')
  })
  test('a clip that found no segment waits in the tray, and is given to one', async () => {
    const { user, asked } = page(clean, take(3, 'something else', null))
    await user.click(await screen.findByRole('tab', { name: 'Tray · 1' }))
    await user.click(screen.getByRole('combobox', { name: 'Give it to a segment' }))
    await user.click(screen.getByRole('option', { name: 'Together' }))
    expect(asked.find((a) => a.method !== 'GET')).toMatchObject({ body: { segmentId: together!.id } })
  })
  test('another segment is chosen from the strip, with its own prompter', async () => {
    const { user } = page(clean)
    await user.click(await screen.findByRole('button', { name: /^Together/ }))
    expect(screen.getByRole('region', { name: 'Prompter' }).textContent).toContain('Now you count.')
  })
  test('a camera that is refused is told with what to do instead', async () => {
    Object.assign(navigator, {
      mediaDevices: { getUserMedia: () => Promise.reject(new DOMException('no', 'NotAllowedError')) },
    })
    const { user } = page()
    await user.click(screen.getByRole('button', { name: 'Open the camera' }))
    expect(await screen.findByText(/not allowed to use the camera.*bring clips from your phone/)).toBeTruthy()
  })
})
