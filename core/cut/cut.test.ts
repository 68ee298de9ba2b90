import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type CutDrop, type CutSegment, framesPerSecond } from '../contracts/cut.ts'
import type { Hearing } from '../contracts/heard.ts'
import { hear } from '../film/heard.ts'
import { fromMarkdown } from '../script/formats/markdown.ts'
import { captionsOf } from './captions.ts'
import { wrap } from './card.ts'
import { piecesOf } from './pieces.ts'
import { bestTake, reconcile } from './propose.ts'
import { keptSpans, segmentFrames, spanFrames, stretchInCut } from './spans.ts'

const drop = (from: number, to: number, state: CutDrop['state'] = 'accepted'): CutDrop => ({ id: `d${from}-${to}`, from, to, reason: 'silence', note: '', state })
const cut = (over: Partial<CutSegment> = {}): CutSegment => ({ segmentId: 'a', takeId: null, start: 0, end: null, drops: [], card: null, ...over })

describe('what stays of a take', () => {
  test('trims and accepted drops go, proposed ones stay', () => {
    expect(keptSpans(cut({ start: 1, end: 9, drops: [drop(3, 4), drop(6, 7, 'proposed')] }), 10)).toEqual([{ from: 30, to: 90 }, { from: 120, to: 270 }])
  })
  test('for any drops: spans lie in order within the take, and kept and dropped make up the whole', () => {
    fc.assert(fc.property(fc.array(fc.tuple(fc.double({ min: 0, max: 20, noNaN: true }), fc.double({ min: 0, max: 20, noNaN: true })), { maxLength: 8 }), fc.double({ min: 1, max: 20, noNaN: true }), (raw, seconds) => {
      const drops = raw.map(([a, b]) => drop(Math.min(a, b), Math.max(a, b)))
      const spans = keptSpans(cut({ drops }), seconds)
      let at = 0
      for (const s of spans) {
        expect(s.from).toBeGreaterThanOrEqual(at)
        expect(s.to).toBeGreaterThan(s.from)
        at = s.to
      }
      const total = Math.round(seconds * framesPerSecond)
      expect(at).toBeLessThanOrEqual(total)
      const gone = Array.from({ length: total }, (_, f) => drops.some((d) => f >= Math.round(d.from * 30) && f < Math.round(d.to * 30))).filter(Boolean).length
      expect(spanFrames(spans)).toBe(total - gone)
    }))
  })
  test('a card adds its own frames', () => expect(segmentFrames(cut({ card: { text: 'Stop', seconds: 4 } }), 2)).toBe(180))
  test('a stretch of the take has its place in the cut, shortened by what was dropped, or none', () => {
    const spans = keptSpans(cut({ drops: [drop(2, 5)] }), 10)
    expect(stretchInCut(spans, 1, 1.5)).toEqual({ start: 1, end: 1.5 })
    expect(stretchInCut(spans, 1, 3)).toEqual({ start: 1, end: 2 })
    expect(stretchInCut(spans, 3, 6)).toEqual({ start: 2, end: 3 })
    expect(stretchInCut(spans, 3, 4)).toBeNull()
  })
  test('the pieces shown cover the take without a gap', () => {
    const words = [{ word: 'one', start: 1, end: 1.4, confidence: 1 }, { word: 'two', start: 6, end: 6.3, confidence: 1 }]
    const pieces = piecesOf(cut({ start: 0.5, end: 9, drops: [drop(2, 4), drop(7, 8, 'proposed')] }), 10, { words })
    expect(pieces[0]!.from).toBe(0)
    expect(pieces.at(-1)!.to).toBe(10)
    pieces.slice(1).forEach((p, i) => expect(p.from).toBeCloseTo(pieces[i]!.to, 1))
    expect(pieces.map((p) => p.kind)).toEqual(expect.arrayContaining(['trimmed', 'dropped', 'proposed', 'kept']))
  })
})

describe('the proposed cut', () => {
  const doc = fromMarkdown('# Post\n\n## A {show}\nSay: Hello.\n## N {note to adults}\nSay: Hi.', (() => { let n = 0; return () => `s${(n += 1)}` })()).lesson
  const a = doc.segments[0]!.id
  const take = (id: string, number: number, quality: number) => ({ id, segmentId: a, number, seconds: 8, hearing: { findings: [], quality, drops: [{ from: 1, to: 2, reason: 'silence' as const, note: '' }] } })
  test('takes the best take, the latest of equals, and leaves adults’ segments out', () => {
    expect(bestTake([take('x', 1, 90), take('y', 2, 100), take('z', 3, 100)])?.id).toBe('z')
    expect(reconcile(null, doc, [take('x', 1, 90)]).segments.map((s) => [s.segmentId, s.takeId])).toEqual([[a, 'x']])
  })
  test('what was decided stays when it is heard again', () => {
    const first = reconcile(null, doc, [take('x', 1, 90)])
    first.segments[0]!.drops[0]!.state = 'declined'
    expect(reconcile(first, doc, [take('x', 1, 90), take('y', 2, 100)]).segments[0]).toMatchObject({ takeId: 'x', drops: [{ state: 'declined' }] })
  })
  test('a take that is gone gives way to another', () => {
    const first = reconcile(null, doc, [take('x', 1, 90)])
    expect(reconcile(first, doc, [take('y', 2, 50)]).segments[0]!.takeId).toBe('y')
  })
})

test('captions carry the script’s words at the time they were heard, in the cut’s own time', () => {
  let n = 0
  const { lesson } = fromMarkdown('# Post\n\n## A {show}\nSay: Bobbin has 7 parcels.\nCount: 1 to 3\n## B {show}\nSay: All done now.', () => `s${(n += 1)}`)
  const words = (text: string, at: number) => text.split(' ').map((word, i) => ({ word, start: at + i * 0.5, end: at + i * 0.5 + 0.4, confidence: 1 }))
  const heardA: Hearing = hear(lesson.segments[0]!, [...words('bobbin has seven parcels', 2), ...words('one two three', 8)], 10)
  const heardB: Hearing = hear(lesson.segments[1]!, words('all done now', 1), 4)
  const cues = captionsOf([
    { segment: lesson.segments[0]!, cut: cut({ drops: [drop(4.5, 7)], card: { text: 'Stop the film.', seconds: 4 } }), hearing: heardA, takeSeconds: 10 },
    { segment: lesson.segments[1]!, cut: cut(), hearing: heardB, takeSeconds: 4 },
  ])
  expect(cues.map((c) => c.text)).toEqual(['Bobbin has 7 parcels.', 'one, two, three', 'Stop the film.', 'All done now.'])
  expect(cues.map((c) => Math.round(c.start * 10) / 10)).toEqual([2, 5.5, 7.5, 12.5])
  cues.slice(1).forEach((c, i) => expect(c.start).toBeGreaterThanOrEqual(cues[i]!.end))
})
test('long words on a card are broken, never lost', () => expect(wrap(`a ${'b'.repeat(45)} c`, 30).join('').replace(/ /g, '')).toBe(`a${'b'.repeat(45)}c`))
