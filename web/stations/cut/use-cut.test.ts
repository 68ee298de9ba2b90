// @vitest-environment jsdom
import { act } from '@testing-library/react'
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { type CutList, plainList } from '@awlbox/core/contracts/cut'
import { useSWRConfig } from 'swr'
import { type Answer, answering, hook, pass } from '../../testing/hooks.ts'
import { useCut } from './use-cut.ts'

/** A cut that says which it is by its captions. */
const cut = (n: number): CutList => ({
  ...plainList,
  captions: { burnt: false, edits: [{ id: `e${n}`, text: 'x', start: null, end: null }] },
})
const nameOf = (c: CutList | null): string | undefined => c?.captions.edits.map((e) => e.id).join()
const also =
  (n: number) =>
  (c: CutList): CutList => ({
    ...c,
    captions: { ...c.captions, edits: [...c.captions.edits, ...cut(n).captions.edits] },
  })

/** Keeps a cut as the server does: a save must name the revision it was made from. */
class Cuts {
  revision = 1
  doc = cut(1)
  /** What comes before the answers: connections lost, or a hand on the door. */
  lost = 0
  gate: Promise<void> | null = null
  saves: number[] = []
  readonly answer = async ({ method, body }: { method: string; body: unknown }): Promise<Answer> => {
    if (method === 'GET') {
      const now = { revision: this.revision, doc: this.doc }
      await this.gate
      return { body: now }
    }
    if (this.lost > 0) {
      this.lost--
      return 'away'
    }
    const { revision, doc } = body as { revision: number; doc: CutList }
    if (revision !== this.revision)
      return {
        status: 409,
        body: {
          title: 'Changed elsewhere',
          detail: 'Changed in another window.',
          revision: this.revision,
          doc: this.doc,
        },
      }
    this.saves.push(revision)
    Object.assign(this, { revision: revision + 1, doc })
    return { body: { revision: this.revision } }
  }
}
let server: Cuts
/** The page's cut, and a way of asking for it again as an event from the server does. */
async function open() {
  const { result, unmount } = hook(() => ({ ...useCut('l'), again: useSWRConfig().mutate }))
  await pass(0)
  await vi.waitFor(() => expect(result.current.doc).not.toBeNull())
  const again = () => act(async () => void result.current.again(() => true))
  return {
    at: () => result.current,
    name: () => nameOf(result.current.doc),
    edit: (n: number, together?: string) => act(() => result.current.edit(also(n), together)),
    again,
    unmount,
  }
}
beforeEach(() => {
  vi.useFakeTimers()
  localStorage.clear()
  server = new Cuts()
  vi.stubGlobal('fetch', answering(server.answer).fetch)
})
afterEach(() => {
  vi.useRealTimers()
  vi.unstubAllGlobals()
})

describe('the cut on the page', () => {
  test('a change is seen at once and saved soon after, from the revision it was made from', async () => {
    const page = await open()
    page.edit(2)
    expect(page.name()).toBe('e1,e2')
    expect(server.saves).toEqual([])
    expect([page.at().saving, page.at().revision]).toEqual([true, 2])
    await pass(500)
    expect([nameOf(server.doc), server.saves, page.at().saving, page.at().revision]).toEqual([
      'e1,e2',
      [1],
      false,
      2,
    ])
  })
  test('several changes in a row are one save', async () => {
    const page = await open()
    for (const n of [2, 3, 4]) page.edit(n)
    await pass(500)
    expect([nameOf(server.doc), server.saves]).toEqual(['e1,e2,e3,e4', [1]])
  })
  test('a change that changes nothing is no step and no save', async () => {
    const page = await open()
    act(() => page.at().edit((c) => c))
    await pass(500)
    expect([page.at().canUndo, server.saves]).toEqual([false, []])
  })
  test('undo and redo go back and forth without limit, and are saved like changes', async () => {
    const page = await open()
    for (let n = 2; n < 60; n++) page.edit(n)
    for (let n = 2; n < 60; n++) act(() => page.at().undo())
    expect([page.name(), page.at().canUndo, page.at().canRedo]).toEqual(['e1', false, true])
    act(() => page.at().undo())
    expect(page.name()).toBe('e1')
    for (let n = 2; n < 60; n++) act(() => page.at().redo())
    expect([page.name()?.split(',').length, page.at().canRedo]).toEqual([59, false])
    await pass(500)
    expect(nameOf(server.doc)?.split(',')).toHaveLength(59)
  })
  test('a drag is one step; what comes after something else is a step of its own', async () => {
    const page = await open()
    page.edit(2, 'edge')
    page.edit(3, 'edge')
    page.edit(4)
    page.edit(5, 'edge')
    act(() => page.at().undo())
    expect(page.name()).toBe('e1,e2,e3,e4')
    act(() => page.at().undo())
    act(() => page.at().undo())
    expect(page.name()).toBe('e1')
  })
  test('a new change forgets what could be done again', async () => {
    const page = await open()
    page.edit(2)
    act(() => page.at().undo())
    page.edit(3)
    expect([page.name(), page.at().canRedo]).toEqual(['e1,e3', false])
  })
  test('while the server is away everything stays on screen; it is tried again until it is saved', async () => {
    const page = await open()
    server.lost = 3
    page.edit(2)
    await pass(500)
    expect([page.name(), page.at().problem !== null, server.saves]).toEqual(['e1,e2', true, []])
    await pass(7000)
    expect([nameOf(server.doc), page.at().problem, page.at().saving]).toEqual(['e1,e2', null, false])
  })
  test('a cut changed in another window is shown with a word, and one’s own is behind Undo', async () => {
    const page = await open()
    Object.assign(server, { revision: 4, doc: cut(9) })
    page.edit(2)
    await pass(500)
    expect([page.name(), page.at().problem]).toEqual(['e9', expect.stringContaining('another window')])
    act(() => page.at().undo())
    expect(page.name()).toBe('e1,e2')
    await pass(500)
    expect([nameOf(server.doc), server.saves]).toEqual(['e1,e2', [4]])
  })
  test('a change from elsewhere is taken over while nothing here is unsaved, and never over what is', async () => {
    const page = await open()
    Object.assign(server, { revision: 2, doc: cut(7) })
    await page.again()
    await pass(10)
    expect(page.name()).toBe('e7')
    page.edit(2)
    await page.again()
    await pass(10)
    expect(page.name()).toBe('e7,e2')
  })
  test('an answer that was on its way while a change was saved does not bring the old cut back', async () => {
    const page = await open()
    page.edit(2)
    await pass(500)
    let openGate = (): void => undefined
    server.gate = new Promise((resolve) => (openGate = () => resolve()))
    await page.again()
    page.edit(3)
    await pass(500)
    expect(server.saves).toEqual([1, 2])
    openGate()
    await pass(10)
    expect([page.name(), page.at().revision]).toEqual(['e1,e2,e3', 3])
    page.edit(4)
    await pass(500)
    expect([server.saves, page.at().problem]).toEqual([[1, 2, 3], null])
  })
  test('what was not saved yet is saved before a render, and when the page is left', async () => {
    const page = await open()
    page.edit(2)
    await act(() => page.at().flush())
    expect(nameOf(server.doc)).toBe('e1,e2')
    page.edit(3)
    page.unmount()
    await pass(10)
    expect(nameOf(server.doc)).toBe('e1,e2,e3')
  })
})
