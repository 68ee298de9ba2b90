import { describe, expect, test } from 'vitest'
import { renderRate, renderSeconds, secondsLeft } from './render-time.ts'

describe('how long a render takes', () => {
  test('is the middle of what this machine has done, whatever was encoded anew', () => {
    const rate = renderRate([
      { film: 100, encoded: 100, took: 80 },
      { film: 100, encoded: 0, took: 30 },
      { film: 100, encoded: 100, took: 900 },
    ])!
    expect(rate).toBeCloseTo(1, 1)
    expect(renderSeconds(rate, 200)).toBeCloseTo(200, 0)
    expect(renderSeconds(rate, 200, 0)).toBeCloseTo(60, 0)
  })
  test('is not known before anything was rendered', () => expect(renderRate([])).toBeNull())
  test('what is left goes by the size first, then by its own pace', () => {
    expect(secondsLeft(100, 0, 0)).toBe(100)
    expect(secondsLeft(null, 1, 0.01)).toBeNull()
    expect(secondsLeft(null, 10, 0.1)).toBeCloseTo(90)
    expect(secondsLeft(100, 25, 0.5)).toBeCloseTo(25)
  })
  test('a machine busy with other things is believed at once', () =>
    expect(secondsLeft(80, 40, 0.05)).toBeCloseTo(760))
})
