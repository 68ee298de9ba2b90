import { describe, expect, test } from 'vitest'
import { type CutList, type CutSegment, plainList } from '../contracts/cut.ts'
import { mergeCuts } from './merge.ts'

const row = (segmentId: string, byHand = false): CutSegment => ({
  segmentId,
  takeId: null,
  items: [],
  overlays: [],
  byHand,
})
const list = (...segments: CutSegment[]): CutList => ({ ...plainList, segments })
const burnt = (l: CutList): CutList => ({ ...l, captions: { burnt: true, edits: [] } })
const base = list(row('a'), row('b'))

describe('two changes of one cut', () => {
  test('of different rows are both kept', () => {
    const merged = mergeCuts(base, list(row('a', true), row('b')), list(row('a'), row('b', true)))
    expect(merged).toEqual({ ok: true, doc: list(row('a', true), row('b', true)) })
  })
  test('of a row and of the captions too', () =>
    expect(mergeCuts(base, burnt(base), list(row('a', true), row('b')))).toEqual({
      ok: true,
      doc: burnt(list(row('a', true), row('b'))),
    }))
  test('that are the same change are no conflict', () =>
    expect(mergeCuts(base, list(row('a', true), row('b')), list(row('a', true), row('b'))).ok).toBe(true))
  test('of the same row are a conflict, named, with mine in the document', () => {
    const other = { ...row('a'), takeId: '11111111-1111-4111-8111-111111111111' }
    const merged = mergeCuts(base, list(row('a', true), row('b')), list(other, row('b')))
    expect(merged).toEqual({ ok: false, doc: list(row('a', true), row('b')), conflicts: ['a'] })
  })
  test('rows they added or took away follow theirs; the order is theirs', () =>
    expect(mergeCuts(base, list(row('a', true), row('b')), list(row('c'), row('a')))).toEqual({
      ok: true,
      doc: list(row('c'), row('a', true)),
    }))
  test('a row only I added stays', () =>
    expect(mergeCuts(base, list(row('a'), row('b'), row('d')), base)).toEqual({
      ok: true,
      doc: list(row('a'), row('b'), row('d')),
    }))
})
