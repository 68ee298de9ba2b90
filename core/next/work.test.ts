import { describe, expect, test } from 'vitest'
import { workLeft } from './work.ts'

type Job = Parameters<typeof workLeft>[0][number]
const at = (second: number): string => new Date(Date.UTC(2026, 10, 27) + second * 1000).toISOString()
const done = (kind: Job['kind'], seconds: number): Job => ({
  kind,
  status: 'done',
  step: 'done',
  share: 1,
  startedAt: at(0),
  endedAt: at(seconds),
})
const open = (kind: Job['kind'], share?: number): Job => ({
  kind,
  status: share === undefined ? 'queued' : 'running',
  step: share === undefined ? 'waiting' : 'hearing',
  share: share ?? 0,
  startedAt: share === undefined ? null : at(0),
  endedAt: null,
})

describe('work under way', () => {
  test('none is nothing', () => expect(workLeft([done('take', 10)])).toBeNull())
  test('a film still to come counts for its take too', () =>
    expect(workLeft([done('film', 4), done('take', 20), open('film'), open('film')])).toEqual({
      done: 2,
      all: 6,
      step: '',
      secondsLeft: 48,
    }))
  test('what is half done takes half as long again', () =>
    expect(workLeft([done('take', 20), done('take', 40), open('take', 0.5)])).toEqual({
      done: 2,
      all: 3,
      step: 'hearing',
      secondsLeft: 15,
    }))
  test('where nothing of its kind was finished no time is made up', () =>
    expect(workLeft([done('take', 20), open('render', 0.2)])?.secondsLeft).toBeNull())
})
