import { describe, expect, test } from 'vitest'
import type { CutList } from '../contracts/cut.ts'
import type { Check } from '../cut/checks.ts'
import { plainList } from '../contracts/cut.ts'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import { fromMarkdown } from '../script/formats/markdown.ts'
import { beforeRendering, beforeSending } from './before-sending.ts'
import { proofread } from '../script/proof/proof.ts'

let ids = 0
const lessonOf = (text: string) => fromMarkdown(text, () => `id${ids++}`).lesson
const right = lessonOf(
  '# T\nNeeds: 7 buttons\n\n## Show {show}\nDo: Put 7 buttons on the table\nSay: Seven buttons.',
)
const wrong = lessonOf(
  '# T\nNeeds: 7 buttons\n\n## Show {show}\nDo: Put 7 buttons on the table\nSay: Double three is seven.',
)
const [noon, later] = [new Date('2026-03-02T12:00:00Z'), new Date('2026-03-02T13:00:00Z')]
const cut = (segmentId: string): CutList => ({
  ...plainList,
  segments: [
    {
      segmentId,
      takeId: null,
      items: [{ kind: 'clip' } as CutList['segments'][number]['items'][number]],
      overlays: [],
      byHand: false,
    },
  ],
})
const going = (lesson: typeof right, over: Partial<Parameters<typeof beforeSending>[0]> = {}) =>
  beforeSending({
    lesson,
    style: defaultHouseStyle,
    changedAt: noon,
    film: { cutRevision: 2, checks: [], createdAt: later, cut: cut(lesson.segments[0]!.id) },
    cutRevision: 2,
    ...over,
  })
const keys = (concerns: ReturnType<typeof beforeSending>) => concerns.map((c) => c.key.replace(/id\d+/, 'x'))

describe('what is not in order before a lesson goes out', () => {
  test('nothing, when the script is right and the film is of it', () => expect(going(right)).toEqual([]))
  test('a wrong line, with its place', () => {
    const [c] = going(wrong)
    expect(c).toMatchObject({ station: 'script', segmentId: wrong.segments[0]!.id })
    expect(c!.what).toMatch(/double three is seven.*it is 6.*\(“Double three is seven\.”\)/)
  })
  test('no film; a part that is not in it', () => {
    expect(keys(going(right, { film: null }))).toEqual(['film:none'])
    expect(
      keys(going(right, { film: { cutRevision: 2, checks: null, createdAt: later, cut: cut('other') } })),
    ).toEqual(['film:missing:x'])
  })
  test('a part given without a film is missing from none', () => {
    const apart = { ...right, segments: right.segments.map((s) => ({ ...s, unfilmed: true as const })) }
    expect(
      keys(going(apart, { film: { cutRevision: 2, checks: null, createdAt: later, cut: cut('other') } })),
    ).toEqual([])
  })
  test('a film older than its script or its cut, and one with a fault', () => {
    const film = {
      cutRevision: 2,
      checks: [
        { code: 'black', severity: 'wrong', params: { fromSeconds: 3, toSeconds: 5 }, start: 3 },
      ] as const,
      createdAt: noon,
      cut: cut(right.segments[0]!.id),
    }
    expect(keys(going(right, { film, changedAt: later, cutRevision: 3 }))).toEqual([
      'cut:script-changed',
      'cut:stale',
      'cut:black:0',
    ])
  })
})

describe('what is not in order before a film is made', () => {
  const drop = (kind: 'slip' | 'silence', state: 'open' | 'accepted' | 'declined') => ({
    ...plainList,
    segments: [
      {
        ...cut(right.segments[0]!.id).segments[0]!,
        items: [
          {
            kind: 'clip',
            why: { id: 'w', act: 'drop', kind, note: 'four was left out', sure: true, state },
          } as CutList['segments'][number]['items'][number],
        ],
      },
    ],
  })
  const rendering = (lesson: typeof right, over: Partial<Parameters<typeof beforeRendering>[0]> = {}) =>
    keys(
      beforeRendering({
        lesson,
        findings: proofread(lesson, defaultHouseStyle).findings,
        notFilmed: [],
        notUnderstood: [],
        filmAgain: [],
        checks: [],
        cut: null,
        ...over,
      }),
    )
  test('nothing, where all is well', () => expect(rendering(right)).toEqual([]))
  test('wrong lines, what is not filmed, what the cut says wrongly', () => {
    expect(rendering(wrong)).toHaveLength(1)
    expect(rendering(right, { notFilmed: [{ id: 'id9', title: 'Show' }] })).toEqual(['film:missing:x'])
    expect(
      rendering(right, {
        notUnderstood: [
          { id: 'id9', title: 'Show', how: 'partly' },
          { id: 'id8', title: 'Alone', how: 'not understood' },
        ],
      }),
    ).toEqual(['film:unheard:x', 'film:unheard:x'])
    // A slip in the middle of a sentence stays whatever is cut.
    const again = { id: 'id9', title: 'Show', slips: 1 }
    expect(rendering(right, { filmAgain: [{ ...again, better: null }] })).toEqual(['film:again:x'])
    expect(rendering(right, { filmAgain: [{ ...again, better: 2 }] })).toEqual(['cut:again:x'])
    const check: Check = {
      code: 'count-skip',
      severity: 'wrong',
      segmentId: 's',
      start: 2,
      params: { case: 'out', skipped: [4], count: 1 },
    }
    expect(rendering(right, { checks: [check] })).toEqual(['cut:count-skip:0'])
    expect(rendering(right, { checks: [{ ...check, severity: 'risky' }] })).toEqual([])
  })
  test('a slip that stays in the film, undecided or kept; none that is out, and no silence', () => {
    for (const state of ['open', 'declined'] as const)
      expect(rendering(right, { cut: drop('slip', state) })).toEqual(['cut:kept:x:w'])
    expect(rendering(right, { cut: drop('slip', 'accepted') })).toEqual([])
    expect(rendering(right, { cut: drop('silence', 'open') })).toEqual([])
  })
})
