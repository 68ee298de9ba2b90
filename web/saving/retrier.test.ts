// @vitest-environment jsdom
import { afterEach, beforeEach, describe, expect, test, vi } from 'vitest'
import { retrier, waitBefore, waits } from './retrier.ts'

beforeEach(() => void vi.useFakeTimers())
afterEach(() => void vi.useRealTimers())
/** Fails so many times, then is done; keeps when it was tried. */
function trying(fails: number) {
  const at: number[] = []
  const start = Date.now()
  const r = retrier(() => {
    at.push(Date.now() - start)
    return Promise.resolve(at.length <= fails ? 'later' : 'done')
  })
  return { at, r }
}

describe('trying until it is done', () => {
  test('waits longer each time, then always as long', async () => {
    const { at, r } = trying(7)
    await r.now()
    await vi.advanceTimersByTimeAsync(120_000)
    const between = at.slice(1).map((t, i) => t - at[i]!)
    expect(between).toEqual([...waits, waits.at(-1), waits.at(-1)])
    expect([waitBefore(0), waitBefore(99)]).toEqual([waits[0], waits.at(-1)])
  })
  test('is tried at once when the device is online again, and not after it is done', async () => {
    const { at, r } = trying(2)
    await r.now()
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(0)
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(0)
    expect(at).toEqual([0, 0, 0])
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(60_000)
    expect(at).toHaveLength(3)
  })
  test('never runs twice at the same time: whoever asks meanwhile gets a try of its own afterwards', async () => {
    let [running, most, tries] = [0, 0, 0]
    const r = retrier(async () => {
      tries++
      most = Math.max(most, (running += 1))
      await new Promise((resolve) => setTimeout(resolve, 100))
      running--
      return 'done'
    })
    const all = [r.now(), r.now(), r.now()]
    await vi.advanceTimersByTimeAsync(1000)
    await Promise.all(all)
    expect(most).toBe(1)
    expect(tries).toBeGreaterThanOrEqual(2)
  })
  test('stopped, it tries no more', async () => {
    const { at, r } = trying(5)
    await r.now()
    r.stop()
    window.dispatchEvent(new Event('online'))
    await vi.advanceTimersByTimeAsync(60_000)
    expect([at.length, r.due()]).toEqual([1, false])
  })
})
