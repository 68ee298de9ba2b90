// @vitest-environment jsdom
import { cleanup, renderHook } from '@testing-library/react'
import { afterEach, describe, expect, test } from 'vitest'
import type { CutItem, CutSegment, Why } from '@awlbox/core/contracts/cut'
import type { Selection } from './selection.ts'
import type { CutActs } from './use-cut-acts.ts'
import { useCutKeys } from './use-cut-keys.ts'

const takeId = 'aaaaaaaa-0000-4000-8000-000000000001'
const open: Why = { id: 'w', act: 'drop', kind: 'silence', note: '', sure: true, state: 'open' }
const items: CutItem[] = [
  { kind: 'clip', id: 'a', takeId, from: 0, to: 30, why: null },
  { kind: 'clip', id: 'b', takeId, from: 30, to: 60, why: open },
  { kind: 'hold', id: 'h', frames: 30, stepId: null, why: null },
]
const row: CutSegment = { segmentId: 's', takeId, items, overlays: [], byHand: false }
const other: CutSegment = { ...row, segmentId: 'other', items: [] }

/** The page with something chosen; gives what was called, in words. */
function page({
  chosen = 'b',
  mayChange = true,
  part = null,
  current = row,
  playing = false,
}: {
  chosen?: string | null
  mayChange?: boolean
  part?: Selection['part']
  current?: CutSegment
  playing?: boolean
} = {}): string[] {
  const called: string[] = []
  const noting = <T extends object>(): T =>
    new Proxy({} as T, {
      get:
        (_, name) =>
        (...args: unknown[]) =>
          void called.push(
            `${String(name)} ${args.map((a) => (a !== null && typeof a === 'object' ? JSON.stringify(a) : String(a))).join(' ')}`.trim(),
          ),
    })
  const selection = chosen === null ? null : { segmentId: 's', itemId: chosen, part }
  renderHook(() =>
    useCutKeys({
      mayChange,
      current,
      row: chosen === null ? undefined : row,
      chosen: items.find((i) => i.id === chosen) ?? null,
      selection,
      acts: noting<CutActs>(),
      rowActs: noting(),
      player: { playing, play: () => void called.push('play'), stop: () => void called.push('stop') },
      undo: () => void called.push('undo'),
      redo: () => void called.push('redo'),
    }),
  )
  return called
}
const press = (key: string, on: Partial<KeyboardEventInit> & { at?: HTMLElement } = {}): boolean => {
  const { at = document.body, ...init } = on
  document.body.append(at === document.body ? document.createComment('') : at)
  return at.dispatchEvent(new KeyboardEvent('keydown', { key, bubbles: true, cancelable: true, ...init }))
}
const input = (type: string): HTMLInputElement => Object.assign(document.createElement('input'), { type })
afterEach(() => {
  cleanup()
  document.body.replaceChildren()
})

describe('keys of the cut', () => {
  test.each([
    ['d', 'drop s b'],
    ['b', 'bringBack s b'],
    ['s', 'splitHere'],
    ['w', 'addHold s b'],
    ['p', 'addCard s stop b'],
    ['a', 'decide s w accepted'],
    ['k', 'decide s w declined'],
    [' ', 'play'],
    ['ArrowRight', 'onSelect {"segmentId":"s","itemId":"h","part":null}'],
    ['ArrowLeft', 'onSelect {"segmentId":"s","itemId":"a","part":null}'],
  ])('%s', (key, does) => {
    const called = page()
    press(key)
    expect(called).toEqual([does])
  })
  test.each([
    ['z', {}, 'undo'],
    ['z', { shiftKey: true }, 'redo'],
    ['y', {}, 'redo'],
    ['Z', { shiftKey: true }, 'redo'],
  ] as const)('control and %s %o', (key, more, does) => {
    for (const held of [{ ctrlKey: true }, { metaKey: true }]) {
      const called = page()
      // The script's own undo must not hear of it.
      let heard = false
      window.addEventListener('keydown', () => (heard = true), { once: true })
      expect(press(key, { ...held, ...more })).toBe(false)
      expect([called, heard]).toEqual([[does], false])
      cleanup()
    }
  })
  test('other keys with control are the browser’s', () => {
    const called = page()
    expect(press('d', { ctrlKey: true })).toBe(true)
    expect(called).toEqual([])
  })
  test('alt and an arrow move what is chosen', () => {
    const called = page()
    press('ArrowRight', { altKey: true })
    press('ArrowLeft', { altKey: true })
    expect(called).toEqual(['move s b 1', 'move s b -1'])
  })
  test('part of a span is dropped by itself', () => {
    const called = page({ part: { from: 3, to: 9 } })
    press('d')
    expect(called).toEqual(['dropPart'])
  })
  test('past the ends of a row nothing is chosen', () => {
    const called = page({ chosen: 'h' })
    press('ArrowRight')
    expect(called).toEqual([])
  })
  test('what was decided is not decided again, and no wait follows a wait', () => {
    const called = page({ chosen: 'a' })
    press('a')
    press('k')
    cleanup()
    const held = page({ chosen: 'h' })
    press('w')
    expect([...called, ...held]).toEqual([])
  })
  test('with nothing chosen a card comes at the end of the row, and nothing else happens', () => {
    const called = page({ chosen: null })
    for (const key of ['d', 'b', 's', 'w', 'a', 'ArrowRight', 'p']) press(key)
    expect(called).toEqual(['addCard s stop null'])
  })
  test('a card goes into the row that is worked on, also where what is chosen is in another', () => {
    const called = page({ current: other })
    press('p')
    expect(called).toEqual(['addCard other stop null'])
  })
  test('who may only look may play and choose, and change nothing', () => {
    const called = page({ mayChange: false })
    for (const key of ['d', 'b', 's', 'w', 'p', 'a', 'k']) press(key)
    press('ArrowRight', { altKey: true })
    press('ArrowRight')
    press(' ')
    expect(called).toEqual(['onSelect {"segmentId":"s","itemId":"h","part":null}', 'play'])
  })
  test('space stops what plays; on a button it is the button’s', () => {
    const called = page({ playing: true })
    press(' ')
    press(' ', { at: document.createElement('button') })
    expect(called).toEqual(['stop'])
  })
  test.each(['text', 'search', 'number'])('letters typed into a %s field are letters', (type) => {
    const called = page()
    press('d', { at: input(type) })
    press('z', { at: input(type), ctrlKey: true })
    expect(called).toEqual([])
  })
  test('on a slider arrows are its own, letters are keys', () => {
    const called = page()
    const slider = document.createElement('span')
    slider.setAttribute('role', 'slider')
    press('ArrowRight', { at: slider })
    press('d', { at: slider })
    expect(called).toEqual(['drop s b'])
  })
  test('arrows over the picture move the box there, not the choice', () => {
    const called = page()
    const box = document.createElement('div')
    box.setAttribute('role', 'group')
    press('ArrowRight', { at: box })
    expect(called).toEqual([])
  })
  test('once the page is left no key does anything', () => {
    const called = page()
    cleanup()
    press('d')
    expect(called).toEqual([])
  })
})
