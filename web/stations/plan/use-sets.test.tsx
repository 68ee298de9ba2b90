// @vitest-environment jsdom
import { act, cleanup, renderHook } from '@testing-library/react'
import { afterEach, expect, test } from 'vitest'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { aimOf } from '@awlbox/core/plan/aim'
import { candidates } from '@awlbox/core/plan/candidates'
import { factFrom, factKey } from '@awlbox/core/plan/numbers/facts'
import type { AimChoice } from './aim-editor.tsx'
import { useSets } from './use-sets.ts'

afterEach(cleanup)
const value: AimChoice = { ideaId: 'add-5', age: 4, aim: aimOf({ structure: 'add', upTo: 5, count: 3 }) }
const sets = () => renderHook(() => useSets(value, defaultHouseStyle))

test('asking for another and another goes through every fact before one comes again', () => {
  const { result } = sets()
  const seen: string[] = []
  const rest = new Set(result.current.examples!.slice(1).map(factKey))
  const all = candidates(value.aim, true).filter((e) => !rest.has(factKey(e))).length
  for (let i = 0; i < all; i++) {
    const e = result.current.examples![0]!
    seen.push(factKey(e))
    act(() => result.current.actions(0).onAnother(e))
  }
  expect(new Set(seen).size).toBe(all)
  expect(result.current.said).toMatch(/begin again/)
})
test('a fact of one’s own is taken in and kept, in the place of one that was not', () => {
  const { result } = sets()
  const own = factFrom('+', 5, 0)
  act(() => expect(result.current.actions(0).onOwn!(own)).toBeNull())
  const now = result.current.examples!
  expect(now.map(factKey)).toContain(factKey(own))
  expect(now.find((e) => factKey(e) === factKey(own))!.locked).toBe(true)
  expect(now).toHaveLength(3)
  act(() => expect(result.current.actions(0).onOwn!(own)).toMatch(/is in the set/))
})
test('where all are kept none is pushed out', () => {
  const { result } = sets()
  for (const e of [...result.current.examples!]) act(() => result.current.actions(0).onLock(e))
  act(() => expect(result.current.actions(0).onOwn!(factFrom('+', 5, 0))).toMatch(/let one go/))
})
