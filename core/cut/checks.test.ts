import { told } from '../findings/say.ts'
import { describe, expect, test } from 'vitest'
import {
  type CaptionEdit,
  type Clip,
  type CutItem,
  type CutSegment,
  type Hidden,
  type Overlay,
  plainList,
} from '../contracts/cut.ts'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import type { Hearing } from '../contracts/heard.ts'
import type { Segment } from '../contracts/lesson.ts'
import { hear } from '../film/judge/heard.ts'
import { simulate } from '../script/simulate.ts'
import { captionsOf } from './captions.ts'
import {
  checkCaptions,
  checkLength,
  unfilmed,
  checkOverlays,
  checkPeople,
  checkSegment,
  checkSound,
  keptWords,
  checkKind,
} from './checks.ts'
import { decideAll, dropStretch } from './edit.ts'
import { meet } from './boxes.ts'
import { captionLine, countedBoxes, freePlace, overlaysFor, plainOverlay, safe } from './overlays.ts'
import { asFilmed } from './propose.ts'
import { plainRepair } from './repairs.ts'
import { toFrame } from './timeline.ts'
import { lessonOf, said } from './test-words.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const [A, B] = ['aaaaaaaa-0000-4000-8000-000000000001', 'bbbbbbbb-0000-4000-8000-000000000002']
const doc = lessonOf(
  '# Post\n\n## Show {show}\nDo: Lay a ten frame\nDo: Put 4 saffron on the frame\nDo: Put 3 blue on the frame\nSay: Bobbin has seven parcels.\nCount: 1 to 7\nAsk: How many altogether?\nWait: 6 s\nSay: Four and three make seven.',
)
const segment = doc.segments[0]!
const clean =
  'bobbin has seven parcels ~0.6 one two three four five six seven ~0.8 how many altogether ~6.2 four and three make seven'
const take = (id: string, text: string) => {
  const words = said(text)
  const seconds = words.at(-1)!.end + 1
  return { id, segmentId: segment.id, number: 1, seconds, hearing: hear(segment, words, seconds, usual) }
}
const whole = (t: ReturnType<typeof take>): CutSegment => ({
  segmentId: segment.id,
  takeId: t.id,
  items: [{ kind: 'clip', id: 'c', takeId: t.id, from: 0, to: toFrame(t.seconds), why: null }],
  overlays: [],
  byHand: true,
})
const hearings = (...all: ReturnType<typeof take>[]) => new Map(all.map((t) => [t.id, t.hearing] as const))
const t = take(A, clean)
const wordAt = (word: string, n = 0) => t.hearing.words.filter((w) => w.word === word)[n]!
let names = 0
const without = (row: CutSegment, from: number, to: number): CutSegment =>
  dropStretch(row, A, toFrame(from), toFrame(to), () => `n${(names += 1)}`)

/** The row held against its script, as it is heard. */
const checked = (s: Segment, row: CutSegment, all: ReadonlyMap<string, Hearing>) =>
  checkSegment(s, row, keptWords(row, all), usual)

describe('what is left, against the script', () => {
  test('a take left whole is clean', () => expect(checked(segment, whole(t), hearings(t))).toEqual([]))
  test('the "seven" of the count cut out is found, with where', () => {
    const seven = wordAt('seven', 1)
    const found = checked(
      segment,
      without(whole(t), seven.start - 0.05, seven.end + 0.05),
      hearings(t),
    ).filter((c) => checkKind(c) === 'counts')
    expect(found[0]).toMatchObject({ severity: 'wrong' })
    expect(found[0]!.start).toBeLessThan(8)
  })
  test('a number in the middle of the count cut out is found', () => {
    const four = wordAt('four')
    expect(
      checked(segment, without(whole(t), four.start - 0.05, four.end + 0.05), hearings(t)).some(
        (c) => checkKind(c) === 'counts' && c.severity === 'wrong',
      ),
    ).toBe(true)
  })
  test('the wait before the answer cut away is found', () => {
    const four = wordAt('four', 1)
    expect(
      checked(segment, without(whole(t), four.start - 5.6, four.start - 0.3), hearings(t)).some(
        (c) => checkKind(c) === 'answers',
      ),
    ).toBe(true)
  })
  test('a wait cut short and held again is whole', () => {
    const four = wordAt('four', 1)
    const cut = without(whole(t), four.start - 5.6, four.start - 0.3)
    const i = cut.items.findIndex((x) => x.kind === 'clip' && x.why !== null)
    const held: CutItem[] = cut.items.toSpliced(i + 1, 0, {
      kind: 'hold',
      id: 'h',
      frames: toFrame(5.3),
      stepId: null,
      why: null,
    })
    expect(checked(segment, { ...cut, items: held }, hearings(t))).toEqual([])
  })
  test('a line left out altogether is worth a look, no more', () => {
    const cut = without(whole(t), 0, wordAt('one').start - 0.2)
    expect(checked(segment, cut, hearings(t)).map((c) => [checkKind(c), c.severity])).toEqual([
      ['lines', 'risky'],
    ])
  })
  test('a false sentence put together from two takes is found', () => {
    const wrong = take(B, 'four and three make eight')
    const row = whole(t)
    const last = wordAt('four', 1).start - 0.2
    const items: Clip[] = [
      { kind: 'clip', id: 'a', takeId: A, from: 0, to: toFrame(last), why: null },
      { kind: 'clip', id: 'b', takeId: B, from: 0, to: toFrame(wrong.seconds), why: null },
    ]
    expect(
      checked(segment, { ...row, items }, hearings(t, wrong)).some(
        (c) => checkKind(c) === 'counts' && c.severity === 'wrong',
      ),
    ).toBe(true)
  })
  test('words that expire and words that tell where someone is', () => {
    const other = lessonOf('# P\n\n## S {show}\nSay: Today we are in class Wagtails.').segments[0]!
    const words = said('today we are in class wagtails')
    const row: CutSegment = {
      segmentId: other.id,
      takeId: A,
      items: [{ kind: 'clip', id: 'c', takeId: A, from: 0, to: 150, why: null }],
      overlays: [],
      byHand: true,
    }
    const found = checked(other, row, new Map([[A, hear(other, words, 5, usual)]]))
    expect(found.filter((c) => checkKind(c) === 'words').map((c) => c.severity)).toEqual(['risky', 'wrong'])
    expect(
      checked(
        other,
        { ...row, items: [{ kind: 'clip', id: 'c', takeId: A, from: 140, to: 150, why: null }] },
        new Map([[A, hear(other, words, 5, usual)]]),
      ),
    ).toEqual([])
  })
  test('a word said beside the script that expires is found too', () => {
    const beside = take(A, `${clean} ~1 until next monday`)
    expect(
      checked(segment, whole(beside), hearings(beside)).some(
        (c) => checkKind(c) === 'words' && /next monday/i.test(told('cut', c)),
      ),
    ).toBe(true)
  })
  test('words are kept where more than half of them is left', () => {
    const seven = wordAt('seven')
    const frames = [toFrame(seven.start + 0.1), toFrame(seven.start + 0.35)] as const
    expect(
      keptWords(without(whole(t), seven.start + 0.1 + 0.2, seven.end + 0.2), hearings(t)).map((w) => w.word),
    ).toContain('seven')
    expect(frames[1]).toBeGreaterThan(frames[0])
    expect(
      keptWords(without(whole(t), seven.start, seven.end), hearings(t)).filter((w) => w.word === 'seven'),
    ).toHaveLength(2)
  })
})

describe('captions against what is said', () => {
  const parts = (row: CutSegment) => [{ segment, cut: row, hearings: hearings(t) }]
  test('those of a whole take are right', () =>
    expect(
      checkCaptions(
        captionsOf(parts(whole(t)), { style: defaultHouseStyle }),
        segment,
        keptWords(whole(t), hearings(t)),
      ),
    ).toEqual([]))
  test('a number written otherwise by hand than it is said is wrong', () => {
    const cues = captionsOf(parts(whole(t)), { style: defaultHouseStyle })
    const id = cues.find((c) => /Four and three/.test(c.text))!.id
    const edited = captionsOf(parts(whole(t)), {
      style: defaultHouseStyle,
      edits: [{ id, text: 'Four and three make eight.', start: null, end: null }],
    })
    expect(checkCaptions(edited, segment, keptWords(whole(t), hearings(t)))).toMatchObject([
      { code: 'caption-number', severity: 'wrong' },
    ])
  })
  test('a line of which little was heard keeps the script’s words, as a guess that is told until somebody has listened', () => {
    const mumbled = take(A, clean.replace('how many altogether', 'how the weather'))
    const cuesOf = (edits: CaptionEdit[] = []) =>
      captionsOf([{ segment, cut: whole(mumbled), hearings: hearings(mumbled) }], {
        style: defaultHouseStyle,
        edits,
      })
    const guessed = cuesOf().filter((c) => c.guess)
    expect(guessed.map((c) => c.text)).toEqual(['How many altogether?'])
    const checksOf = (cues: ReturnType<typeof cuesOf>) =>
      checkCaptions(cues, segment, keptWords(whole(mumbled), hearings(mumbled))).map((c) => c.code)
    expect(checksOf(cuesOf())).toEqual(['caption-guess'])
    const kept = cuesOf([{ id: guessed[0]!.id, text: guessed[0]!.text, start: null, end: null }])
    expect(checksOf(kept)).toEqual([])
  })
  test('what is said beside the script has no caption: told', () => {
    const beside = take(A, `${clean} ~3 and now the dog wants to go out`)
    const found = checkCaptions(
      captionsOf([{ segment, cut: whole(beside), hearings: hearings(beside) }], { style: defaultHouseStyle }),
      segment,
      keptWords(whole(beside), hearings(beside)),
    )
    expect(found.some((c) => /dog/.test(told('cut', c)))).toBe(true)
  })
})

describe('overlays', () => {
  const moments = simulate(doc)
  const proposed = overlaysFor(segment, t, moments, plainRepair(A), defaultHouseStyle)
  test('the sentence is proposed where it is said, and never over what is counted', () => {
    const sentence = proposed.find((o) => o.look === 'sentence')!
    expect(sentence.text).toBe('4 + 3 = 7')
    expect(sentence.from).toBe(toFrame(wordAt('four', 1).start))
    expect(sentence.why!.state).toBe('open')
    const counted = countedBoxes(moments.at(-1)!.after, plainRepair(A), sentence.from, 'across')
    expect(counted).toHaveLength(7)
    expect(counted.some((b) => meet(b, sentence.place))).toBe(false)
  })
  test('hops are drawn over a number line as they are made', () => {
    const line = lessonOf(
      '# H\n\n## On {show}\nSay: Bobbin stands at four.\nDo: Lay a number line from 0 to 10\nDo: Hop 3 from 4 on the line\nSay: Now he is at seven.',
    ).segments[0]!
    const moments = simulate({ segments: [line] })
    const hops = moments.some((m) => m.actions.some((a) => a.type === 'hop'))
    expect(hops).toBe(true)
    const heard = take(A, 'bobbin stands at four ~6 now he is at seven')
    const o = overlaysFor(
      line,
      { ...heard, hearing: hear(line, heard.hearing.words, heard.seconds, usual) },
      moments,
      plainRepair(A),
      defaultHouseStyle,
    ).find((x) => x.look === 'hops')!
    expect(o.from).toBeGreaterThanOrEqual(toFrame(heard.hearing.words[3]!.end) - 1)
    expect(o.to).toBeGreaterThan(toFrame(heard.hearing.words[4]!.start))
  })
  test('what really was rolled flows into the sentence that is shown', () => {
    const rolled = lessonOf('# R\n\n## Roll {show}\nDo: Roll a 4\nSay: 4 + 3 = 7')
    const whole = {
      ...rolled,
      examples: [{ a: 4, b: 3, total: 7, op: '+' as const }],
      aim: { ...rolled.aim, structure: 'add' as const },
    }
    const filmed = asFilmed(whole, whole.segments[0]!, [
      { kind: 'roll', at: 1, stepId: whole.segments[0]!.steps[0]!.id, faces: [5] },
    ])
    const heard = take(A, 'five add three equals eight')
    const o = overlaysFor(
      filmed,
      { ...heard, hearing: hear(filmed, heard.hearing.words, heard.seconds, usual) },
      simulate({ segments: [filmed] }),
      plainRepair(A),
      defaultHouseStyle,
    )
    expect(o.map((x) => x.text)).toContain('5 + 3 = 8')
    expect(asFilmed(whole, whole.segments[0]!)).toBe(whole.segments[0])
  })
  test('a house that shows no signs gets its words', () =>
    expect(
      overlaysFor(segment, t, moments, plainRepair(A), {
        ...defaultHouseStyle,
        symbols: 'never',
        add: 'plus',
        equals: 'makes',
      }).find((o) => o.look === 'sentence')?.text,
    ).toBe('4 plus 3 makes 7'))
  test('the sentence of a deliberate mistake is never written', () => {
    const wrong = {
      ...segment,
      steps: segment.steps.map((s) => (s.verb === 'say' ? { ...s, deliberate: true } : s)),
    }
    expect(
      overlaysFor(wrong, t, simulate({ segments: [wrong] }), plainRepair(A), defaultHouseStyle).some(
        (o) => o.look === 'sentence',
      ),
    ).toBe(false)
  })
  test('where no place is free there is none', () => {
    expect(freePlace([[480, 312]], [{ x: 0, y: 0, w: 1280, h: 720 }])).toBeNull()
    const free = freePlace([[480, 312]], [])!
    expect(free.x).toBeGreaterThanOrEqual(safe.x)
    expect(free.y + free.h).toBeLessThanOrEqual(captionLine)
  })
  const shown = (o: Overlay): CutSegment => ({ ...whole(t), overlays: [o] })
  const step = segment.steps.at(-1)!
  const hand = (place: Overlay['place']): Overlay => ({
    ...plainOverlay('sentence', 'x', A, 30, 120, { text: '4 + 3 = 7', stepId: step.id }),
    place,
  })
  test('one put over the things by hand is wrong; at the edge, or too small, worth a look; in a free corner, fine', () => {
    const counted = countedBoxes(moments.at(-1)!.after, plainRepair(A), 30, 'across')[0]!
    const of = (place: Overlay['place']) =>
      checkOverlays(segment, shown(hand(place)), plainList, moments, 'across').map((c) => c.severity)
    expect(of({ ...counted, w: 300, h: 84 })).toContain('wrong')
    expect(of({ x: 0, y: 0, w: 300, h: 30 })).toEqual(['risky', 'risky'])
    expect(of({ x: 900, y: 40, w: 300, h: 60 })).toEqual([])
  })
  test('one that is not shown is not judged', () =>
    expect(
      checkOverlays(
        segment,
        {
          ...shown(hand({ x: 0, y: 0, w: 300, h: 30 })),
          items: [{ kind: 'clip', id: 'c', takeId: A, from: 300, to: 330, why: null }],
        },
        plainList,
        moments,
        'across',
      ),
    ).toEqual([]))
  test('accepting everything shows all that is proposed', () => {
    const list = { ...plainList, segments: [{ ...whole(t), overlays: proposed }] }
    expect(
      decideAll(list, () => true, 'accepted').segments[0]!.overlays.every((o) => o.why?.state === 'accepted'),
    ).toBe(true)
  })
})

describe('people, sound and length', () => {
  const face: Hidden = {
    id: 'f',
    what: 'face',
    from: 0,
    to: 60,
    keys: [{ frame: 0, box: { x: 0, y: 0, w: 100, h: 100 } }],
    why: { id: 'f', act: 'add', kind: 'face', note: '', sure: false, state: 'open' },
  }
  const list = (state: 'open' | 'accepted' | 'declined', items = whole(t).items) => ({
    segments: [{ ...whole(t), items }],
    repairs: [{ ...plainRepair(A), hidden: [{ ...face, why: { ...face.why!, state } }] }],
  })
  test('a face nobody has decided about is wrong as long as it can be seen', () => {
    expect(checkPeople(list('open')).map((c) => [checkKind(c), c.severity])).toEqual([['people', 'wrong']])
    expect(checkPeople(list('accepted'))).toEqual([])
    expect(checkPeople(list('declined'))).toEqual([])
    expect(
      checkPeople(list('open', [{ kind: 'clip', id: 'c', takeId: A, from: 90, to: 200, why: null }])),
    ).toEqual([])
  })
  test('clipped sound is told once a span, and only where it is kept', () => {
    const peaks = new Uint8Array(1000).fill(100)
    peaks.fill(255, 100, 130)
    expect(checkSound(whole(t), new Map([[A, peaks]]), 50)).toMatchObject([
      { code: 'sound-clipped', start: expect.closeTo(2, 0) as number },
    ])
    expect(checkSound(without(whole(t), 1.5, 3), new Map([[A, peaks]]), 50)).toEqual([])
  })
  test('a film over its limit, and a segment over its own', () => {
    const row: CutSegment = {
      ...whole(t),
      items: [{ kind: 'clip', id: 'c', takeId: A, from: 0, to: 30 * 300, why: null }],
    }
    expect(checkLength([row], { film: 200, segment: 240 }, () => 'Show').map((c) => c.segmentId)).toEqual([
      null,
      segment.id,
    ])
    expect(checkLength([row], { film: 400, segment: 400 }, () => 'Show')).toEqual([])
  })
  test('what is not filmed yet counts as long as it is planned', () => {
    const row = {
      ...whole(t),
      items: [{ kind: 'clip' as const, id: 'c', takeId: A, from: 0, to: 30 * 300, why: null }],
    }
    const time = {
      segments: [
        { ...{ id: row.segmentId, start: 0, steps: [], home: 0 }, film: 290 },
        { ...{ id: 'later', start: 0, steps: [], home: 0 }, film: 150 },
      ],
    }
    const rest = unfilmed([row, { segmentId: 'later', takeId: null }], time)
    expect(rest).toBe(150)
    expect(checkLength([row], { film: 400, segment: 400 }, () => 'Show', rest)).toMatchObject([
      { code: 'film-long', params: { case: 'planned', filmSeconds: 450, plannedSeconds: 150 } },
    ])
  })
})
