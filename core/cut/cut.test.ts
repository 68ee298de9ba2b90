import { defaultHouseStyle } from '../contracts/house-style.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import {
  type Clip,
  CutItem,
  CutList,
  type CutSegment,
  type Hold,
  plainList,
  type Why,
} from '../contracts/cut.ts'
import type { HeardWord } from '../contracts/heard.ts'
import { hear } from '../film/judge/heard.ts'
import { captionsOf } from './captions.ts'
import { cardFits, cardShapes, ringShapes, wrap } from './card.ts'
import { play } from '../script/table/play.ts'
import { sentenceNear } from '../script/sentence-near.ts'
import { cardSeconds, cardsFor, handCard, isTight, plainCard } from './cards.ts'
import { checkCards } from './checks.ts'
import { dropsOf, holdsOf } from './drops.ts'
import {
  bringBack,
  decide,
  decideAll,
  drop,
  dropStretch,
  insertAfter,
  move,
  moveEdge,
  replaceLine,
  snapped,
  snapPoints,
  split,
  voiceFrom,
  withOverlay,
  withVoice,
} from './edit.ts'
import { handOverlay, plainOverlay } from './overlays.ts'
import { programOf, shotAt } from './program.ts'
import {
  bestTake,
  firstCut,
  lessonAsFilmed,
  proposalsOf,
  reconcile,
  tableAfter,
  type TakeFacts,
  withCovers,
  within,
  withTake,
} from './propose.ts'
import {
  framesOf,
  layOut,
  plays,
  runsOf,
  segmentFrames,
  shownAt,
  stretchesOf,
  toFrame,
  toSeconds,
  wordBeside,
} from './timeline.ts'
import { readCut } from './upgrade.ts'
import { lessonOf, said } from './test-words.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const openCount = (list: Parameters<typeof proposalsOf>[0]): number =>
  proposalsOf(list).filter((w) => w.state === 'open').length
const [A, B] = ['aaaaaaaa-0000-4000-8000-000000000001', 'bbbbbbbb-0000-4000-8000-000000000002']
const clip = (from: number, to: number, over: Partial<Clip> = {}): Clip => ({
  kind: 'clip',
  id: `c${from}`,
  takeId: A,
  from,
  to,
  why: null,
  ...over,
})
const hold = (frames: number, over: Partial<Hold> = {}): Hold => ({
  kind: 'hold',
  id: `h${frames}`,
  frames,
  stepId: null,
  why: null,
  ...over,
})
const why = (act: Why['act'], state: Why['state'], over: Partial<Why> = {}): Why => ({
  id: 'w',
  act,
  kind: 'silence',
  note: '',
  sure: true,
  state,
  ...over,
})
const row = (...items: CutItem[]): CutSegment => ({
  segmentId: 's',
  takeId: A,
  items,
  overlays: [],
  byHand: false,
})
const ids = (() => {
  let n = 0
  return () => `n${(n += 1)}`
})()
const doc = lessonOf(
  '# Post\n\n## Show {show}\nSay: Bobbin has seven parcels.\nCount: 1 to 7\nAsk: How many altogether?\nWait: 6 s\nSay: Four and three make seven.\n## N {note to adults}\nSay: Hi.',
)
const segment = doc.segments[0]!
const take = (id: string, number: number, text: string): TakeFacts => {
  const words = said(text)
  const seconds = words.at(-1)!.end + 1
  return { id, segmentId: segment.id, number, seconds, hearing: hear(segment, words, seconds, usual) }
}
const clean =
  'bobbin has seven parcels ~0.6 one two three four five six seven ~0.6 how many altogether ~6 four and three make seven'

test('frames are not taken for seconds, nor seconds for frames', () => {
  const frames = segmentFrames({ items: [] })
  // @ts-expect-error -- frames where seconds are wanted
  expect(toFrame(frames)).toBe(0)
  // @ts-expect-error -- seconds where frames are wanted
  expect(toSeconds(toSeconds(frames))).toBe(0)
})

describe('what plays', () => {
  test.each([
    [null, true],
    [why('drop', 'open'), true],
    [why('drop', 'accepted'), false],
    [why('drop', 'declined'), true],
    [why('add', 'open'), false],
    [why('add', 'accepted'), true],
    [why('add', 'declined'), false],
  ] as const)('%o: %s', (w, expected) => expect(plays(clip(0, 30, { why: w }))).toBe(expected))
  test('items follow each other without a gap, and add up to the segment', () => {
    const r = row(clip(0, 90), clip(90, 120, { why: why('drop', 'accepted') }), hold(60), clip(120, 300))
    expect(layOut(r).map((p) => p.at)).toEqual([0, 90, 150])
    expect(segmentFrames(r)).toBe(330)
  })
  test('spans of one take that follow on are one run; a drop, another take or a card parts them', () => {
    const r = row(
      clip(0, 90),
      clip(90, 150),
      clip(150, 160, { why: why('drop', 'accepted') }),
      clip(160, 200),
      clip(0, 30, { takeId: B }),
    )
    expect(runsOf(r).map((x) => [x.kind, x.at, x.frames])).toEqual([
      ['clip', 0, 150],
      ['clip', 150, 40],
      ['clip', 190, 30],
    ])
  })
  test('a stretch of a take has its place in the film: shortened by drops, once for each time it is shown, or none', () => {
    const r = row(
      clip(0, 60),
      clip(60, 150, { why: why('drop', 'accepted') }),
      clip(150, 300),
      clip(30, 60, { id: 'again' }),
    )
    expect(stretchesOf(r, A, 1, 3)).toEqual([
      { start: 1, end: 2 },
      { start: 7, end: 8 },
    ])
    expect(stretchesOf(r, A, 1.9, 5.5)).toEqual([
      { start: 1.9, end: 2.5 },
      { start: 7.9, end: 8 },
    ])
    expect(stretchesOf(r, A, 3, 4)).toEqual([])
    expect(stretchesOf(r, B, 0, 9)).toEqual([])
  })
  test('what is shown at a frame: the item, and the frame of its take; nothing past the end', () => {
    const r = row(clip(30, 60), hold(30), { ...plainCard('stop', 'x', 'Stop'), frames: 180 }, clip(90, 120))
    const at = (f: number) => {
      const s = shownAt(r, f)
      return s && [s.item.kind, s.frame]
    }
    expect([0, 15, 29, 30, 70, 250].map(at)).toEqual([
      ['clip', 30],
      ['clip', 45],
      ['clip', 59],
      ['hold', 0],
      ['card', 0],
      ['clip', 100],
    ])
    expect(at(segmentFrames(r))).toBeNull()
  })
  test('the words before and after a frame are those of the film, whichever take they are from', () => {
    const word = (start: number): HeardWord => ({ word: 'x', start, end: start + 0.4, confidence: 1 })
    const hearings = new Map([
      [A, { words: [word(0.5), word(2.5), word(8)] }],
      [B, { words: [word(1)] }],
    ])
    const r = row(
      clip(0, 60),
      clip(60, 75, { why: why('drop', 'accepted') }),
      clip(75, 120),
      clip(15, 60, { id: 'b', takeId: B }),
    )
    const walk = (from: number, step: -1 | 1): number[] => {
      const out: number[] = []
      for (
        let f: number | null = wordBeside(r, hearings, from, step);
        f !== null;
        f = wordBeside(r, hearings, f, step)
      )
        out.push(f)
      return out
    }
    expect(walk(0, 1)).toEqual([15, 60, 120])
    expect(walk(140, -1)).toEqual([120, 60, 15])
  })
  test('a span without a frame is refused', () => {
    expect(CutItem.safeParse(clip(30, 30)).success).toBe(false)
    expect(CutItem.safeParse(clip(30, 31)).success).toBe(true)
  })
})

describe('the whole film', () => {
  const card = plainCard('stop', 'x', 'Stop')
  const list = (...rows: CutSegment[]): CutList => ({ ...plainList, segments: rows })
  const film = programOf(
    list(row(clip(0, 60), hold(30)), { ...row(card, hold(15), clip(0, 30, { takeId: B })), segmentId: 't' }),
  )
  test('is its segments one after another, each with the frame it begins at', () => {
    expect(film.frames).toBe(90 + card.frames + 45)
    expect([...film.starts]).toEqual([
      ['s', 0],
      ['t', 90],
    ])
    expect(film.shots.map((s) => [s.segmentId, s.at])).toEqual([
      ['s', 0],
      ['s', 60],
      ['t', 90],
      ['t', 90 + card.frames],
      ['t', 105 + card.frames],
    ])
  })
  test('a hold holds what came before it: the last frame of a take, or a card, never another segment’s', () => {
    expect(film.shots.map((s) => s.still)).toEqual([null, { takeId: A, frame: 59 }, null, card, null])
    expect(programOf(list(row(clip(0, 60)), { ...row(hold(15)), segmentId: 't' })).shots[1]!.still).toBeNull()
  })
  test('every frame has the shot that is shown at it', () => {
    for (let f = 0; f < film.frames; f++) {
      const shot = film.shots[shotAt(film, f)]!
      expect(f >= shot.at && f < shot.at + shot.run.frames).toBe(true)
    }
    expect(shotAt(programOf(list()), 0)).toBe(-1)
  })
})

describe('cutting by hand', () => {
  test('a span dropped stays in the row and comes back', () => {
    const r = drop(row(clip(0, 30), clip(30, 60)), 'c30')
    expect(segmentFrames(r)).toBe(30)
    expect(r).toMatchObject({
      byHand: true,
      items: [{ why: null }, { why: { kind: 'by hand', state: 'accepted' } }],
    })
    expect(segmentFrames(bringBack(r, 'c30'))).toBe(60)
  })
  test('what was proposed is decided, with everything that belongs to it, and no cutting by hand', () => {
    const r = row(
      clip(0, 30, { why: why('drop', 'open', { id: 'o' }) }),
      clip(0, 40, { id: 'x', takeId: B, why: why('add', 'open', { id: 'o' }) }),
    )
    expect(segmentFrames(decide(r, 'o', 'accepted'))).toBe(40)
    expect(drop(r, 'c0')).toEqual(decide(r, 'o', 'accepted'))
    expect(bringBack(decide(r, 'o', 'accepted'), 'c0')).toEqual(decide(r, 'o', 'declined'))
    expect(drop(r, 'c0').byHand).toBe(false)
  })
  test('all of a kind are decided at once; those decided before stay', () => {
    const list: CutList = {
      ...plainList,
      segments: [
        row(
          clip(0, 30, { why: why('drop', 'open', { id: 'a', kind: 'slip' }) }),
          clip(30, 60, { why: why('drop', 'declined', { id: 'b', kind: 'slip' }) }),
          clip(60, 90, { why: why('drop', 'open', { id: 'c' }) }),
        ),
      ],
    }
    const done = decideAll(list, (w) => w.kind === 'slip', 'accepted')
    expect(proposalsOf(done).map((w) => w.state)).toEqual(['accepted', 'declined', 'open'])
    expect(openCount(done)).toBe(1)
  })
  test('splitting keeps every frame, and does nothing at or outside the ends', () => {
    const r = split(row(clip(0, 90)), 'c0', 40, 'n')
    expect(r.items.map((i) => (i.kind === 'clip' ? [i.from, i.to] : null))).toEqual([
      [0, 40],
      [40, 90],
    ])
    for (const at of [0, 90, -5, 500])
      expect(split(row(clip(0, 90)), 'c0', at, 'n')).toEqual(row(clip(0, 90)))
  })
  test('an edge takes its neighbour’s along, and leaves it a frame', () => {
    const r = moveEdge(row(clip(0, 90), clip(90, 150)), 'c0', 'to', 120, 300, 'n')
    expect(runsOf(r)).toEqual(runsOf(row(clip(0, 150))))
    expect(r.items.map(framesOf)).toEqual([120, 30])
    expect(moveEdge(row(clip(0, 90), clip(90, 150)), 'c0', 'to', 999, 300, 'n').items.map(framesOf)).toEqual([
      149, 1,
    ])
  })
  test('an edge drawn in beside nothing leaves what was there, folded; drawn out, it stops where the take ends', () => {
    const r = moveEdge(row(clip(0, 90), clip(0, 30, { id: 'b', takeId: B })), 'c0', 'to', 60, 300, 'n')
    expect(r.items.map((i) => [framesOf(i), plays(i)])).toEqual([
      [60, true],
      [30, false],
      [30, true],
    ])
    expect(segmentFrames(moveEdge(row(clip(10, 90)), 'c10', 'to', 5000, 300, 'n'))).toBe(290)
    expect(segmentFrames(moveEdge(row(clip(10, 90)), 'c10', 'from', -40, 300, 'n'))).toBe(90)
  })
  test('items are moved, put in and changed', () => {
    const r = row(clip(0, 10), clip(10, 30), clip(30, 60))
    expect(move(r, 'c30', 0).items.map((i) => i.id)).toEqual(['c30', 'c0', 'c10'])
    expect(move(r, 'c0', 0)).toBe(r)
    expect(insertAfter(r, 'c0', hold(15)).items.map((i) => i.id)).toEqual(['c0', 'h15', 'c10', 'c30'])
    expect(insertAfter(r, null, hold(15)).items[0]!.id).toBe('h15')
  })
  test('for any drops and edges: spans stay in bounds, none is empty, and no frame of the take is shown that is dropped', () => {
    const number = fc.integer({ min: -20, max: 320 })
    fc.assert(
      fc.property(
        fc.array(
          fc.oneof(
            fc.record({ act: fc.constant('drop'), a: number, b: number }),
            fc.record({ act: fc.constant('edge'), a: fc.nat(20), b: number }),
            fc.record({ act: fc.constant('split'), a: fc.nat(20), b: number }),
          ),
          { maxLength: 12 },
        ),
        (acts) => {
          let r = row(clip(0, 300))
          for (const { act, a, b } of acts) {
            const item = r.items[a % r.items.length]!
            if (act === 'drop') {
              r = dropStretch(r, A, Math.min(a, b), Math.max(a, b), ids)
              expect(stretchesOf(r, A, Math.max(0, Math.min(a, b)) / 30, Math.max(a, b) / 30)).toEqual([])
            } else
              r = act === 'split' ? split(r, item.id, b, ids()) : moveEdge(r, item.id, 'to', b, 300, ids())
          }
          for (const i of r.items)
            if (i.kind === 'clip') expect(i.from >= 0 && i.to <= 300 && i.to > i.from).toBe(true)
          expect(new Set(r.items.map((i) => i.id)).size).toBe(r.items.length)
          expect(r.items.reduce((n, i) => n + framesOf(i), 0)).toBe(300)
        },
      ),
    )
  })
  test('a line is replaced by the same line of another take', () => {
    const [mine, theirs] = [take(A, 1, clean), take(B, 2, `~2 ${clean}`)]
    const facts = (t: TakeFacts) => ({ takeId: t.id, hearing: t.hearing!, frames: toFrame(t.seconds) })
    const stepId = segment.steps[1]!.id
    const r = replaceLine(row(clip(0, toFrame(mine.seconds))), stepId, facts(mine), facts(theirs), ids)
    const counted = mine.hearing!.lines.find((l) => l.stepId === stepId)!
    expect(stretchesOf(r, A, counted.start!, counted.end!)).toEqual([])
    expect(runsOf(r).map((x) => (x.kind === 'clip' ? x.takeId : x.kind))).toEqual([A, B, A])
  })
  test('edges snap to words and silences near by, and to nothing further off', () => {
    const points = snapPoints({ words: said('one ~2 two') })
    expect(snapped(toFrame(0.93), points, 3)).toBe(toFrame(0.95))
    expect(snapped(toFrame(1.5), points, 3)).toBe(toFrame(1.5))
    expect(snapped(7, [], 10)).toBe(7)
  })
})

describe('the first cut', () => {
  test('of a clean take keeps every word and the time to think, and asks nothing but about its cards', () => {
    const items = firstCut(doc, segment, take(A, 1, clean), { style: defaultHouseStyle })
    expect(items.filter((i) => i.why && i.why.kind !== 'card')).toEqual([])
    expect(items.filter((i) => i.kind === 'clip').reduce((n, i) => n + framesOf(i), 0)).toBe(
      toFrame(take(A, 1, clean).seconds),
    )
  })
  test('takes out a false start, a lone “oops” and dead air, each with its reason', () => {
    const t = take(
      A,
      1,
      'bobbin has ~0.6 bobbin has seven parcels ~9 one two three four five six seven ~0.8 oops ~0.8 how many altogether ~6 four and three make seven',
    )
    const drops = dropsOf(t.hearing!, t.seconds)
    expect(drops.map((d) => d.why.kind)).toEqual(['false start', 'silence', 'filler'])
    drops.slice(1).forEach((d, i) => expect(d.from).toBeGreaterThanOrEqual(drops[i]!.to))
    const r = decideAll(
      { ...plainList, segments: [row(...firstCut(doc, segment, t, { style: defaultHouseStyle }))] },
      (w) => w.act === 'drop',
      'accepted',
    ).segments[0]!
    const shown = t
      .hearing!.words.filter((w) =>
        stretchesOf(r, A, w.start + 0.05, w.end - 0.05).some((s) => s.end - s.start > 0.2),
      )
      .map((w) => w.word)
      .join(' ')
    expect(shown).toBe(
      'bobbin has seven parcels one two three four five six seven how many altogether four and three make seven',
    )
  })
  test('a slip that begins with a sound taken for no word is dropped from where it sounds, never into what is said before', () => {
    const words = said('bobbin has ~0.6 bobbin has seven parcels', 1.2)
    const heard = hear(segment, words, 12, usual)
    const at = (voiced: { from: number; to: number }[], more: HeardWord[] = []) =>
      dropsOf({ ...heard, words: [...more, ...words], voiced }, 12).find((d) => d.why.kind === 'false start')!
        .from / 30
    expect(at([{ from: 0.6, to: 2.6 }])).toBeCloseTo(0.55, 1)
    expect(
      at([
        { from: 0.6, to: 0.8 },
        { from: 1.2, to: 2.6 },
      ]),
    ).toBeCloseTo(1.12, 1)
    expect(
      at([{ from: 0.6, to: 2.6 }], [{ word: 'hello', start: 0.7, end: 1.05, confidence: 1 }]),
    ).toBeCloseTo(1.12, 1)
  })
  test('no span is a sliver', () => {
    const t = take(
      A,
      1,
      'bobbin has ~1.5 bobbin has seven parcels ~9 one two three four five six seven ~1.5 oops ~1.5 how many altogether ~1 four and three make seven',
    )
    for (const i of firstCut(doc, segment, t, { style: defaultHouseStyle }))
      expect(framesOf(i)).toBeGreaterThan(3)
  })
  test('a wait cut short is held for what is missing of it, right before the answer', () => {
    const t = take(A, 1, clean.replace('~6', '~1'))
    const [h] = holdsOf(t.hearing!)
    const [asked, answer] = [
      t.hearing!.lines.find((l) => l.words[0]!.word === 'how')!.end!,
      t.hearing!.lines.find((l) => l.words[0]!.word === 'four')!.start!,
    ]
    expect(h!.at / 30).toBeGreaterThan(asked)
    expect(h!.at / 30).toBeLessThan(answer)
    expect(h!.frames / 30 + answer - asked).toBeCloseTo(6, 0)
    const items = firstCut(doc, segment, t, { style: defaultHouseStyle })
    const i = items.findIndex((x) => x.kind === 'hold')
    expect(items[i - 1]).toMatchObject({ kind: 'clip', to: h!.at })
    expect(items[i]!.why).toMatchObject({ kind: 'wait', state: 'open', act: 'add' })
  })
  test('a line that went wrong is taken from another take where it was said well', () => {
    const [mine, other] = [
      take(A, 1, clean.replace('four five six', 'five six')),
      take(B, 2, clean.replace('make seven', 'make eight')),
    ]
    const items = firstCut(doc, segment, mine, { style: defaultHouseStyle, others: [other] })
    const swap = items.filter((i) => i.why?.kind === 'other take')
    expect(swap.map((i) => [i.kind === 'clip' && i.takeId, i.why!.act])).toEqual([
      [A, 'drop'],
      [B, 'add'],
    ])
    const counted = other.hearing!.lines[1]!
    expect(
      stretchesOf(decide(row(...items), swap[0]!.why!.id, 'accepted'), B, counted.start!, counted.end!)[0]!
        .end,
    ).toBeGreaterThan(0)
    expect(
      firstCut(doc, segment, mine, {
        style: defaultHouseStyle,
        others: [take(B, 2, clean.replace('four five six', 'five six'))],
      }).some((i) => i.why?.kind === 'other take'),
    ).toBe(false)
  })
  test('a mistake made on purpose is left alone', () => {
    const own = lessonOf(
      '# Post\n\n## Show {show}\nSay: Bobbin has seven parcels.\nCount!: 1 2 3 5 6 7\nSay: Four and three make seven.',
    )
    const words = said(
      'bobbin has seven parcels ~0.6 one two three five six seven ~0.6 four and three make seven',
    )
    const t: TakeFacts = {
      id: A,
      segmentId: own.segments[0]!.id,
      number: 1,
      seconds: 12,
      hearing: hear(own.segments[0]!, words, 12, usual),
    }
    expect(
      firstCut(own, own.segments[0]!, t, { style: defaultHouseStyle }).filter(
        (i) => i.why && i.why.kind !== 'card' && i.why.kind !== 'ends',
      ),
    ).toEqual([])
  })
  test('takes the best take, the latest of equals, and leaves adults’ segments out', () => {
    const [x, y, z] = [
      take(A, 1, clean.replace('six ', '')),
      take(B, 2, clean),
      take('cccccccc-0000-4000-8000-000000000003', 3, clean),
    ]
    expect(bestTake([x, y, z])?.id).toBe(z.id)
    expect(reconcile(null, doc, [x], defaultHouseStyle).segments.map((s) => [s.segmentId, s.takeId])).toEqual(
      [[segment.id, A]],
    )
  })
})

describe('bringing a cut list up to date', () => {
  const t = take(A, 1, `bobbin has ~0.6 ${clean}`)
  const first = reconcile(null, doc, [t], defaultHouseStyle)
  test('what was decided stays when it is heard again, and what was cut by hand is not touched', () => {
    const decided = decideAll(first, (w) => w.kind === 'false start', 'declined')
    expect(
      proposalsOf(reconcile(decided, doc, [t], defaultHouseStyle)).find((w) => w.kind === 'false start')!
        .state,
    ).toBe('declined')
    const hand: CutList = { ...first, segments: [dropStretch(first.segments[0]!, A, 60, 90, ids)] }
    expect(reconcile(hand, doc, [t], defaultHouseStyle)).toEqual(hand)
  })
  test('spans of a take that is gone leave the row; where none is left it is cut afresh', () => {
    const other = take(B, 2, clean)
    const hand: CutList = {
      ...first,
      segments: [insertAfter(first.segments[0]!, null, clip(0, 30, { takeId: B, id: 'b' }))],
    }
    expect(reconcile(hand, doc, [t], defaultHouseStyle).segments[0]!.items.some((i) => i.id === 'b')).toBe(
      false,
    )
    expect(
      reconcile(hand, doc, [{ ...other, id: 'cccccccc-0000-4000-8000-000000000003' }], defaultHouseStyle)
        .segments[0]!.takeId,
    ).toBe('cccccccc-0000-4000-8000-000000000003')
  })
  describe('what was found in the picture of a take', () => {
    const seen: TakeFacts['seen'] = {
      every: 60,
      faces: [0, 60].map((frame) => ({ frame, boxes: [{ x: 10, y: 10, w: 90, h: 90 }] })),
      written: {
        every: 240,
        seen: [{ what: 'child', frame: 0, boxes: [{ x: 600, y: 100, w: 120, h: 40 }] }],
      },
    }
    const labelled = { ...take(B, 2, clean), seen }
    const hiddenOf = (list: CutList, id: string) => list.repairs.find((r) => r.takeId === id)?.hidden ?? []
    test('is proposed to be covered as soon as the take is chosen, and not before', () => {
      expect(hiddenOf(withCovers(first, [t, labelled]), B)).toEqual([])
      const chosen = withTake(first, doc, segment.id, B, [t, labelled], defaultHouseStyle)
      expect(chosen.segments[0]!.takeId).toBe(B)
      expect(hiddenOf(chosen, B).map((h) => [h.what, h.why?.state])).toEqual([
        ['face', 'open'],
        ['name', 'open'],
      ])
      expect(proposalsOf(chosen).filter((w) => w.kind === 'name' && w.state === 'open')).toHaveLength(1)
    })
    test('is proposed once, and what was decided and drawn by hand stays', () => {
      const chosen = withTake(first, doc, segment.id, B, [t, labelled], defaultHouseStyle)
      const decided = decideAll(chosen, (w) => w.kind === 'name', 'declined')
      const drawn: CutList = {
        ...decided,
        repairs: decided.repairs.map((r) => ({
          ...r,
          mirror: true,
          hidden: [...r.hidden, { id: 'own', what: 'other', from: 0, to: 9, keys: [], why: null }],
        })),
      }
      const again = withTake(
        withTake(drawn, doc, segment.id, A, [t, labelled], defaultHouseStyle),
        doc,
        segment.id,
        B,
        [t, labelled],
        defaultHouseStyle,
      )
      expect(again.repairs).toEqual(drawn.repairs)
      expect(reconcile(again, doc, [t, labelled], defaultHouseStyle).repairs).toEqual(drawn.repairs)
    })
    test('comes with a line of that take too', () => {
      const mixed: CutList = {
        ...first,
        segments: [insertAfter(first.segments[0]!, null, clip(0, 30, { takeId: B, id: 'b' }))],
      }
      expect(hiddenOf(withCovers(mixed, [t, labelled]), B)).toHaveLength(2)
    })
    test('a take of another segment, or none, changes nothing', () =>
      expect([
        withTake(first, doc, 'elsewhere', A, [t], defaultHouseStyle),
        withTake(first, doc, segment.id, B, [t], defaultHouseStyle),
      ]).toEqual([first, first]))
  })
  test('a take that came out shorter keeps what there is of its spans', () => {
    const hand: CutList = {
      ...first,
      segments: [{ ...row(clip(0, 90), clip(90, 9000)), segmentId: segment.id, byHand: true }],
    }
    expect(reconcile(hand, doc, [t], defaultHouseStyle).segments[0]!.items.map(framesOf)).toEqual([
      90,
      toFrame(t.seconds) - 90,
    ])
  })
  test('lists of the first version are read: trims, drops and the card are where they were', () => {
    const old = {
      format: 'awlbox-cut',
      version: 1,
      segments: [
        {
          segmentId: 's',
          takeId: A,
          start: 1,
          end: 9,
          drops: [
            { id: 'd', from: 3, to: 4, reason: 'by hand', note: '', state: 'accepted' },
            { id: 'e', from: 5, to: 6, reason: 'slip', note: '', state: 'proposed' },
          ],
          card: { text: 'Stop.', seconds: 4 },
        },
      ],
    }
    const read = readCut(old, () => 10)
    expect(runsOf(read.segments[0]!).map((r) => [r.kind, r.kind === 'clip' ? r.from : 0, r.frames])).toEqual([
      ['clip', 30, 60],
      ['clip', 120, 150],
      ['card', 0, 120],
    ])
    expect(readCut(read, () => 10)).toEqual(read)
    expect(() => readCut({ version: 9 }, () => 10)).toThrow()
  })
})

describe('cards', () => {
  const lesson = lessonOf(
    '# Parts of seven\nNeeds: 7 bottle tops, 1 egg box\n\n## Hello {hook}\nSay: Hello.\n## Things you need {things needed}\nSay: Fetch your things.\nPause: Press play when you are ready. (30 s)\n## Answers {close}\nReveal: Four and three.\n## Bye {close}\nSay: Bye.',
  )
  const looks = (i: number, heard = '') => {
    const s = lesson.segments[i]!
    return cardsFor(lesson, s, heard ? hear(s, said(heard), 20, usual) : null, defaultHouseStyle).map(
      (c) => c.card.look,
    )
  }
  test('come from the script: aim first, things where they are told, a stop where the film is stopped, a guard before answers, thanks last', () => {
    expect(looks(0)).toEqual(['aim'])
    const fetching = lesson.segments[1]!
    const hearing = hear(fetching, said('fetch your things press play when you are ready'), 20, usual)
    const cut = firstCut(
      lesson,
      fetching,
      { id: 'a', segmentId: fetching.id, number: 1, seconds: 20, hearing },
      { style: defaultHouseStyle },
    )
    // One reads what to fetch, and then the film stands still.
    expect(cut.flatMap((i) => (i.kind === 'card' ? [[i.look, ...i.lines]] : []))).toEqual([
      [
        'things',
        expect.stringMatching(/^7 bottle tops · or ./) as string,
        expect.stringMatching(/^1 egg box · or ./) as string,
      ],
      ['stop', 'Press play when you are ready.'],
    ])
    expect(looks(2)).toEqual(['guard'])
    expect(looks(3)).toEqual(['thanks'])
  })
  test('stay as long as they take to be read aloud, and no longer than they must where the film is tight', () => {
    expect(cardSeconds('thanks', 'Thank you', [])).toBe(3)
    const words = Array.from({ length: 14 }, () => 'word')
    expect(cardSeconds('things', 'You need', words)).toBeGreaterThan(
      cardSeconds('things', 'You need', words, true),
    )
    expect(cardSeconds('aim', 'x '.repeat(100), [])).toBe(12)
    expect(
      cardSeconds(
        'things',
        'You need',
        Array.from({ length: 20 }, () => '2 bottle tops'),
      ),
    ).toBe(20)
    const long = lessonOf(
      `# Long\n\n## Talk {show}\n${'Say: This is a line that goes on for quite a while and says little.\n'.repeat(200)}`,
    )
    expect([isTight(lesson, defaultHouseStyle), isTight(long, defaultHouseStyle)]).toEqual([false, true])
  })
  test('a stop draws the table as it lies there, where something lies on it', () => {
    const laid = lessonOf(
      '# T\n\n## Try {alone}\nDo: Lay a ten frame\nDo: Put 4 saffron on the frame\nPause: Have a go. (30 s)\n## Again {alone}\nDo: Clear the table\nPause: Have a go. (30 s)',
    )
    const cards = (i: number) =>
      cardsFor(
        laid,
        laid.segments[i]!,
        hear(laid.segments[i]!, said('have a go'), 6, usual),
        defaultHouseStyle,
      )
        .filter((c) => c.card.look === 'stop')
        .map((c) => c.card.table)
    const pause = laid.segments[0]!.steps.at(-1)!.id
    expect([cards(0), cards(1)]).toEqual([[pause], [undefined]])
    const state = play(['Lay a ten frame', 'Put 4 saffron on the frame'])
    expect(
      JSON.stringify(cardShapes({ look: 'stop', title: 'Stop', lines: [] }, { table: state, fill: 'across' }))
        .length,
    ).toBeGreaterThan(2 * JSON.stringify(cardShapes({ look: 'stop', title: 'Stop', lines: [] })).length)
  })
  test('are not in the film before they are accepted', () =>
    expect(cardsFor(lesson, lesson.segments[0]!, null, defaultHouseStyle).map((c) => plays(c.card))).toEqual([
      false,
    ]))
  test('draw their words in lines that fit, and long words are broken, never lost', () => {
    expect(
      wrap(`a ${'b'.repeat(45)} c`, 30)
        .join('')
        .replace(/ /g, ''),
    ).toBe(`a${'b'.repeat(45)}c`)
    const shapes = cardShapes({
      look: 'things',
      title: 'You need',
      lines: Array.from({ length: 8 }, (_, i) => `${i + 2} bottle tops of one colour each`),
    })
    const texts = shapes.filter((s) => s.tag === 'text')
    expect(texts.length).toBeGreaterThan(6)
    for (const t of texts) expect(Number(t.attrs.y)).toBeLessThan(672)
  })
  describe('hold all their words', () => {
    const looks = ['aim', 'things', 'stop', 'sentence', 'guard', 'thanks'] as const
    const state = play(['Lay a ten frame', 'Put 4 saffron on the frame'])
    const wordsOf = (shapes: ReturnType<typeof cardShapes>): string[] =>
      shapes
        .filter((s) => s.tag === 'text')
        .flatMap((s) => (s.text ?? '').replace('•', ' ').split(/\s+/).filter(Boolean))
    const sizes = (shapes: ReturnType<typeof cardShapes>): number[] =>
      shapes.filter((s) => s.tag === 'text').map((s) => Number(s.attrs['font-size']))
    test.each([8, 12, 20])('%i things needed stand on their card, large enough for a phone', (n) => {
      const lines = Array.from({ length: n }, (_, i) => `${i + 1} bottle tops or so`)
      const shapes = cardShapes({ look: 'things', title: 'You need', lines })
      expect(wordsOf(shapes).filter((w) => w === 'bottle')).toHaveLength(n)
      expect(Math.min(...sizes(shapes))).toBeGreaterThanOrEqual(34)
      expect(cardFits({ look: 'things', title: 'You need', lines })).toBe('well')
    })
    test('a lesson that needs eleven things lists eleven', () => {
      const kit = Array.from({ length: 11 }, (_, i) => ({ thing: `thing ${i}`, count: 1 }))
      const many = {
        ...lessonOf('# T\n\n## Things {things needed}\nSay: You need some things.'),
        kit,
      }
      expect(
        cardsFor(many, many.segments[0]!, null, defaultHouseStyle).find((c) => c.card.look === 'things')!.card
          .lines,
      ).toHaveLength(11)
    })
    test('any card that is not told to be cut off shows every word, inside its room; one that is has less than it says', () =>
      fc.assert(
        fc.property(
          fc.constantFrom(...looks),
          fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { minLength: 1, maxLength: 20 }),
          fc.array(fc.array(fc.stringMatching(/^[a-z]{1,12}$/), { minLength: 1, maxLength: 9 }), {
            maxLength: 20,
          }),
          fc.boolean(),
          (look, title, lines, narrow) => {
            const card = { look, title: title.join(' ').slice(0, 160), lines: lines.map((l) => l.join(' ')) }
            const shapes = cardShapes(card, narrow ? { table: state, fill: 'across' } : null).filter(
              (s) => s.tag === 'text',
            )
            const said = [card.title, ...card.lines].join(' ').split(/\s+/).filter(Boolean)
            const shown = wordsOf(shapes)
            const fits = cardFits(card, narrow)
            if (fits === 'not wholly') expect(shown.length).toBeLessThan(said.length + 3)
            else expect(shown).toEqual(said)
            if (fits === 'well') expect(Math.min(...sizes(shapes))).toBeGreaterThanOrEqual(34)
            for (const s of shapes) {
              const [x, y, px] = [Number(s.attrs.x), Number(s.attrs.y), Number(s.attrs['font-size'])]
              expect(y).toBeLessThanOrEqual(660)
              expect(y - px).toBeGreaterThan(look === 'stop' ? 216 : 0)
              const w = [...s.text!].length * px * 0.56
              expect(
                s.attrs['text-anchor'] === 'middle'
                  ? Math.min(x - w / 2, 1280 - x - w / 2)
                  : narrow
                    ? 740 - x - w
                    : 1280 - x - w,
              ).toBeGreaterThan(0)
            }
          },
        ),
      ))
    test('one that says too much is told in the checks, one that has room is not', () => {
      const card = (lines: string[]) => ({ ...plainCard('stop', 'x', 'Stop the film.'), lines })
      const words = 'sort the parcels on the table into two groups and say what you see in each of them'
      expect(checkCards(row(card(['Have a go.'])))).toEqual([])
      expect(checkCards(row(clip(0, 90), card(Array.from({ length: 4 }, () => words))))).toMatchObject([
        { code: 'card-small', severity: 'risky', start: 3 },
      ])
      expect(checkCards(row(card(Array.from({ length: 16 }, () => words))))).toMatchObject([
        { code: 'card-cut-off', severity: 'wrong' },
      ])
      expect(
        checkCards(row({ ...card(Array.from({ length: 16 }, () => words)), why: why('add', 'declined') })),
      ).toEqual([])
    })
  })
  test('a ring goes from empty to full', () => {
    const arcs = [0, 0.25, 0.5, 1].map((x) => ringShapes(x).find((s) => s.tag === 'path')?.attrs.d)
    expect(arcs[0]).toBeUndefined()
    expect(new Set(arcs).size).toBe(4)
  })
})

test('captions carry the script’s words at the time they were heard, in the cut’s own time, whichever take they come from', () => {
  const lesson = lessonOf(
    '# Post\n\n## A {show}\nSay: Bobbin has 7 parcels.\nCount: 1 to 3\n## B {show}\nSay: All done now.',
  )
  const [a, b] = [lesson.segments[0]!, lesson.segments[1]!]
  const hearings = new Map([
    [A, hear(a, [...said('bobbin has seven parcels', 2), ...said('one two three', 8)], 10, usual)],
    [B, hear(b, said('all done now', 1), 4, usual)],
  ])
  const cues = captionsOf(
    [
      {
        segment: a,
        cut: row(clip(0, 135), clip(135, 210, { why: why('drop', 'accepted') }), clip(210, 300), {
          ...plainCard('stop', 'x', 'Stop the film.'),
          frames: 120,
        }),
        hearings,
      },
      { segment: b, cut: row(clip(0, 120, { takeId: B })), hearings },
    ],
    { style: defaultHouseStyle },
  )
  expect(cues.map((c) => c.text)).toEqual([
    'Bobbin has 7 parcels.',
    'one, two, three',
    'Stop the film.',
    'All done now.',
  ])
  expect(cues.map((c) => Math.round(c.start * 10) / 10)).toEqual([2, 5.5, 7.5, 12.5])
  cues.slice(1).forEach((c, i) => expect(c.start).toBeGreaterThanOrEqual(cues[i]!.end))
})

describe('what is put in by hand has the script’s words', () => {
  const lesson = lessonOf(
    '# S\n\n## Show {show}\nDo: Lay a ten frame\nDo: Put 4 saffron on the frame\nSay: Here are four.\nDo: Put 3 blue on the frame\nSay: Four and three make seven.\nSay: 5 + 2 = 7\nPause: Have a go. (30 s)\n## Talk {hook}\nSay: Hello, everybody.',
  )
  const [show, talk] = [lesson.segments[0]!, lesson.segments[1]!]
  test.each([
    [2, '4 + 3 = 7'],
    [4, '4 + 3 = 7'],
    [5, '5 + 2 = 7'],
    [6, '5 + 2 = 7'],
  ])('at step %i the nearest sentence is %s', (i, text) =>
    expect(sentenceNear(show, show.steps[i]!.id)).toBe(text),
  )
  test('where there is no sentence one is left to be filled in', () =>
    expect(sentenceNear(talk, null)).toBe('__ + __ = __'))
  test('a sentence card draws the table its sentence is about; a stop speaks of the pause there is', () => {
    expect(handCard('sentence', 'k', show)).toMatchObject({
      id: 'k',
      title: '5 + 2 = 7',
      table: show.steps[5]!.id,
      why: null,
    })
    expect(handCard('stop', 'k', show).title).toMatch(/Press play/)
    expect(handCard('stop', 'k', talk).title).toMatch(/have a go/)
    expect(handCard('aim', 'k', talk)).toMatchObject({ title: 'Hello, everybody.' })
  })
  test('an overlay is about the line said there, no longer than its span', () => {
    const words = [
      ...said('here are four', 1),
      ...said('four and three make seven', 4),
      ...said('five add two equals seven', 9),
    ]
    const heard = hear(show, words, 14, usual)
    const o = handOverlay('sentence', 'o', show, heard, { takeId: A, to: 330 }, toFrame(9.2))
    expect(o).toMatchObject({
      text: '5 + 2 = 7',
      stepId: show.steps[5]!.id,
      from: toFrame(9.2),
      to: 330,
      why: null,
    })
    expect(handOverlay('ring', 'o', show, heard, { takeId: A, to: 900 }, toFrame(4.2))).toMatchObject({
      text: '',
      stepId: show.steps[4]!.id,
      to: toFrame(8.2),
    })
    expect(handOverlay('table', 'o', show, null, { takeId: A, to: 900 }, 0).stepId).toBe(show.steps[0]!.id)
  })
})

describe('a span with another sound', () => {
  const voiced = clip(60, 120, { voice: { takeId: B, from: 10 } })
  const facts = (id: string, seconds: number): Pick<TakeFacts, 'id' | 'seconds'> => ({ id, seconds })
  test('is parted so that the sound goes on where it was', () => {
    const parts = split(row(voiced), 'c60', 90, 'n').items as Clip[]
    expect(parts.map((p) => [p.from, p.voice!.from])).toEqual([
      [60, 10],
      [90, 40],
    ])
    expect(runsOf(row(...parts))).toHaveLength(1)
  })
  test('drops, edges and moves keep picture and sound together', () =>
    fc.assert(
      fc.property(fc.integer({ min: 61, max: 118 }), fc.integer({ min: 1, max: 20 }), (from, length) => {
        const cut = dropStretch(row(voiced), A, from, from + length, ids)
        for (const item of cut.items) if (item.kind === 'clip') expect(item.voice!.from - item.from).toBe(-50)
        const edge = moveEdge(row(voiced), 'c60', 'from', from, 300, 'e')
        for (const item of edge.items)
          if (item.kind === 'clip') expect(item.voice!.from - item.from).toBe(-50)
      }),
    ))
  test('whose take is gone has its own again; no longer than its take; nothing of a take that is gone', () => {
    expect(within(voiced, [facts(A, 10), facts(B, 10)])).toEqual([voiced])
    expect(within(voiced, [facts(A, 10)])).toEqual([clip(60, 120)])
    expect(within(voiced, [facts(A, 3), facts(B, 10)])).toMatchObject([{ from: 60, to: 90 }])
    expect(within(voiced, [facts(B, 10)])).toEqual([])
  })
  test('begins so that the line both takes have is said where it was; with none in common, at its first word', () => {
    const lesson = lessonOf('# V\n\n## S {show}\nSay: Bobbin has seven parcels.\nSay: All done now.')
    const s = lesson.segments[0]!
    const [here, there] = [
      hear(s, [...said('bobbin has seven parcels', 2), ...said('all done now', 6)], 10, usual),
      hear(s, said('bobbin has seven parcels', 1), 5, usual),
    ]
    expect(voiceFrom(clip(toFrame(1.5), 150), here, there)).toBe(toFrame(0.5))
    expect(voiceFrom(clip(toFrame(5.8), 250), here, there)).toBe(toFrame(0.85))
    expect(voiceFrom(clip(0, 30), null, null)).toBe(0)
  })
  test('is taken away again without a trace', () =>
    expect(withVoice(withVoice(row(clip(0, 60)), 'c0', { takeId: B, from: 5 }), 'c0', null).items).toEqual([
      clip(0, 60),
    ]))
})
test('a hold after a still picture holds that picture, in the preview as in the film', () => {
  const { shots } = programOf({ segments: [row(clip(30, 90, { still: true }), hold(60))] })
  expect(shots[1]!.still).toEqual({ takeId: A, frame: 30 })
})
test('the table stands as it came out in the takes that were chosen', () => {
  const rolled = {
    ...lessonOf('# R\n\n## Roll {show}\nDo: Roll a 4\nSay: 4 + 3 = 7'),
    examples: [{ a: 4, b: 3, total: 7, op: '+' as const }],
  }
  const whole = { ...rolled, aim: { ...rolled.aim, structure: 'add' as const } }
  const [s] = whole.segments
  const marks = [{ kind: 'roll' as const, at: 1, stepId: s!.steps[0]!.id, faces: [5] }]
  const filmed = (takeId: string | null) =>
    lessonAsFilmed(whole, [{ segmentId: s!.id, takeId }], [{ id: A, marks }])
  expect([filmed(A), filmed(B), filmed(null)].map((f) => f.segments[0]!.steps[1]!.text)).toEqual([
    '5 + 3 = 8',
    '4 + 3 = 7',
    '4 + 3 = 7',
  ])
  expect(tableAfter(filmed(A), 'nowhere')).toBeNull()
  expect(tableAfter(filmed(A), s!.steps[0]!.id)!.mats.some((m) => m.kind === 'dice')).toBe(true)
})
test('an overlay is added, changed in place and taken away, and is no cut by hand', () => {
  const o = plainOverlay('ring', 'o', A, 0, 30, { text: '', stepId: null })
  const added = withOverlay(row(clip(0, 60)), 'o', o)
  expect(added.overlays).toEqual([o])
  expect(withOverlay(added, 'o', { ...o, to: 60 }).overlays.map((x) => x.to)).toEqual([60])
  expect(withOverlay(added, 'o', null).overlays).toEqual([])
  expect(added.byHand).toBe(false)
})
test('lists of the second version are read, with nothing over their pictures and nothing mended', () => {
  const { overlays: _none, ...old } = row(clip(0, 60), hold(30))
  const read = readCut({ format: 'awlbox-cut', version: 2, segments: [old] }, () => null)
  expect(read).toEqual({ ...plainList, segments: [row(clip(0, 60), hold(30))] })
})
