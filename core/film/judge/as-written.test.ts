import { describe, expect, test } from 'vitest'
import type { HeardCode, Hearing } from '../../contracts/heard.ts'
import { asWritten, wordsBetween } from './as-written.ts'

type Line = Hearing['lines'][number]['words'][number]
const word = (word: string, i: number) => ({ word, start: i, end: i + 0.8, confidence: 0.6 })
const said = (word: string, at: number | null, status: Line['status'] = 'said'): Line => ({
  word,
  at,
  status,
})
const heard = (
  words: string,
  line: Line[],
  wrong: HeardCode[] = [],
): Pick<Hearing, 'words' | 'lines' | 'findings'> => ({
  words: words.split(' ').map(word),
  lines: [{ stepId: 'x', words: line, start: 0, end: 9 }],
  findings: wrong.map((code) => ({
    code,
    start: 1,
    end: 2,
    stepId: 'x',
    expected: '',
    heard: '',
    certain: true,
    params: {},
  })),
})
const text = (h: Parameters<typeof asWritten>[0]) => wordsBetween(asWritten(h), 0, 99)

describe('words heard otherwise but understood', () => {
  const line = [said('six', 0), said('add', 1), said('one', 2), said('equals', 4)]
  test('are read as the script writes them, with what was heard beside', () =>
    expect(text(heard('sicks add won he equals', line))).toEqual({
      written: 'six add one equals',
      heard: 'sicks add won he equals',
    }))
  test('heard just so, there is nothing beside', () =>
    expect(text(heard('six add one', line.slice(0, 3)))).toEqual({ written: 'six add one', heard: null }))
  test('where something was found wrong what was heard stays', () =>
    expect(text(heard('six add four he equals', line, ['number-changed'])).written).toBe(
      'six add four he equals',
    ))
  test('what only informs changes nothing', () =>
    expect(text(heard('sicks add one he equals', line, ['pause-cue'])).written).toBe('six add one equals'))
  test('what is in no line stays as it was heard', () =>
    expect(
      text(heard('six add one and well equals oops', [...line.slice(0, 3), said('equals', 5)])).written,
    ).toBe('six add one equals oops'))
  test('only words between the two seconds are given', () =>
    expect(wordsBetween(asWritten(heard('sicks add won he equals', line)), 2, 5)).toEqual({
      written: 'one equals',
      heard: 'won he equals',
    }))
})
