import { describe, expect, test } from 'vitest'
import { HouseStyle } from '../contracts/house-style.ts'
import type { Structure } from '../contracts/lesson.ts'
import { spokenLines } from '../film/follow/spoken.ts'
import { aimOf } from '../plan/aim.ts'
import { findExamples } from '../plan/examples.ts'
import { spokenRun } from '../plan/numbers/runs.ts'
import { waysToWork } from '../plan/numbers/strategies.ts'
import { fromMarkdown } from './formats/markdown.ts'
import { proofread } from './proof/proof.ts'
import { play } from './table/play.ts'
import { drawTable, toSvg } from './table/drawing/table.ts'
import { fromTemplate } from './template/lesson.ts'

type Style = Partial<HouseStyle>
const texts = (
  style: Style,
  structure: Structure = 'add',
  over: { arc?: 'game' | 'talk-first'; age?: number; upTo?: number } = {},
): string => {
  const house = HouseStyle.parse(style)
  const aim = aimOf({ structure, upTo: over.upTo ?? 10 })
  const found = findExamples(aim, { zero: house.zeroIsPart, turnRounds: house.turnRoundsCount, seed: 4 })
  if (!found.ok) throw new Error(found.conflict)
  let n = 0
  const lesson = fromTemplate({
    title: 'Post',
    ideaId: 'x',
    age: over.age ?? 5,
    aim,
    examples: found.sets[0]!.examples,
    style: house,
    ...(over.arc ? { arc: over.arc } : {}),
    newId: () => `h${(n += 1)}`,
  })
  return lesson.segments
    .map((s) => `${s.title}\n${s.steps.map((x) => `${x.verb}: ${x.text}`).join('\n')}`)
    .join('\n')
}
const codes = (style: Style, steps: string): string[] => {
  let n = 0
  const lesson = fromMarkdown(
    `# Post\nAge: 4\nNeeds: 10 two-faced counters, 1 ten frame, 1 jar\n\n## Together {together}\n${steps}`,
    () => `h${(n += 1)}`,
  ).lesson
  return proofread(lesson, HouseStyle.parse(style)).findings.map((f) => f.code)
}
const count = (style: Style): string[] =>
  spokenLines(
    {
      id: 's',
      title: '',
      kind: 'show',
      audience: 'children',
      steps: [{ id: 'c', verb: 'count', text: 'on from 5 to 7' }],
    },
    HouseStyle.parse(style),
  )[0]!.words

describe('texts follow each choice, whichever side is taken', () => {
  test.each<
    [
      keyof HouseStyle,
      Style,
      RegExp,
      Style,
      RegExp,
      Structure?,
      { arc?: 'game' | 'talk-first'; age?: number; upTo?: number }?,
    ]
  >([
    ['add', {}, /\w add \w+ equals/, { add: 'plus' }, /\w plus \w+ equals/],
    ['takeAway', {}, /\w take away \w+ equals/, { takeAway: 'minus' }, /\w minus \w+ equals/, 'take-away'],
    ['equals', {}, /equals/, { equals: 'is the same as' }, /is the same as/],
    ['pairsName', {}, /its number bonds/, { pairsName: 'partners' }, /its partners/, 'parts'],
    ['symbols', {}, /write: \d+ \+ \d+ =/, { symbols: 'never' }, /^(?![\s\S]*write: )/],
    ['fingers', {}, /Fingers are welcome/, { fingers: 'unmentioned' }, /^(?![\s\S]*[Ff]inger)/],
    [
      'answers',
      {},
      /Stop here until your jobs are done[\s\S]*reveal: The first job/,
      { answers: 'adults' },
      /Answers for the grown-up[\s\S]*The first job/,
    ],
    [
      'answers',
      { answers: 'adults' },
      /Answers for the grown-up/,
      { answers: 'never' },
      /^(?![\s\S]*The first job)/,
    ],
    [
      'rivalry',
      {},
      /against nobody/,
      { rivalry: true },
      /Who has the most at the end wins/,
      'add',
      { arc: 'game' },
    ],
    ['helper', {}, /Ask the grown-up with you/, { helper: 'your big sister' }, /Ask your big sister/],
    ['arc', {}, /On your own/, { arc: 'talk-first' }, /Somebody says/],
    ['defaultWait', {}, /wait: 5 s/, { defaultWait: 8 }, /wait: 8 s/],
    [
      'defaultPause',
      {},
      /Fetch your things[^\n]*\(90 s\)/,
      { defaultPause: 120 },
      /Fetch your things[^\n]*\(120 s\)/,
    ],
    [
      'squareFrom',
      {},
      /hundred square\n/,
      { squareFrom: 0 },
      /hundred square from 0\n/,
      'tens',
      { upTo: 60 },
    ],
  ])('%s', (_, one, says, other, saysElse, structure, over) => {
    expect(texts(one, structure, over)).toMatch(says)
    expect(texts(other, structure, over)).toMatch(saysElse)
    expect(texts(other, structure, over)).not.toBe(texts(one, structure, over))
  })
  test('countingOn: what is spoken and heard', () => {
    expect(count({})).toEqual(['five', 'six', 'seven'])
    expect(count({ countingOn: 'next' })).toEqual(['six', 'seven'])
    expect(spokenRun(5, 7, 1, HouseStyle.parse({}), true)).not.toBe(
      spokenRun(5, 7, 1, HouseStyle.parse({ countingOn: 'next' }), true),
    )
  })
  test('frameFill: the drawing', () => {
    const draw = (fill: HouseStyle['frameFill']) => toSvg(drawTable(play(['Put 3 on the frame']), fill))
    expect(draw('across')).not.toBe(draw('pairs'))
  })
  test('strategyOrder: things first, or as they come', () => {
    const order = (s: Style) =>
      waysToWork({ a: 8, b: 8, total: 16, op: '+' }, HouseStyle.parse(s)).map((w) => w.rung)
    expect(order({})[0]).toBe('things')
    expect(order({}).at(-1)).toBe('head')
  })
  test('zeroIsPart and turnRoundsCount: which examples there are', () => {
    const facts = (s: Style) => {
      const house = HouseStyle.parse(s)
      const found = findExamples(aimOf({ structure: 'parts', upTo: 5, count: 3 }), {
        zero: house.zeroIsPart,
        turnRounds: house.turnRoundsCount,
        seed: 1,
      })
      return found.ok ? found.sets.flatMap((x) => x.examples) : []
    }
    expect(facts({ turnRoundsCount: false }).every((e) => e.a >= e.b)).toBe(true)
    expect(facts({}).some((e) => e.a < e.b)).toBe(true)
    expect(facts({ zeroIsPart: false }).every((e) => e.a && e.b)).toBe(true)
  })
})

describe('checks follow each choice, whichever side is taken', () => {
  test.each<[string, string, string, Style, boolean]>([
    ['house-word', 'add', 'Do: Put 7 on the frame\nSay: Four plus three equals seven.', {}, true],
    [
      'house-word',
      'add',
      'Do: Put 7 on the frame\nSay: Four plus three equals seven.',
      { add: 'plus' },
      false,
    ],
    ['house-word', 'takeAway', 'Do: Put 7 on the frame\nSay: Seven minus two equals five.', {}, true],
    [
      'house-word',
      'takeAway',
      'Do: Put 7 on the frame\nSay: Seven minus two equals five.',
      { takeAway: 'minus' },
      false,
    ],
    ['house-word', 'equals', 'Do: Put 7 on the frame\nSay: Four add three makes seven.', {}, true],
    [
      'house-word',
      'equals',
      'Do: Put 7 on the frame\nSay: Four add three makes seven.',
      { equals: 'makes' },
      false,
    ],
    ['fewer-less', 'fewer', 'Do: Put 3 on the frame\nSay: He has less parcels.', {}, true],
    ['fewer-less', 'fewer', 'Do: Put 3 on the frame\nSay: He has less parcels.', { fewer: 'either' }, false],
    [
      'pairs-name',
      'pairsName',
      'Do: Put 3 on the frame\nSay: These are number bonds.',
      { pairsName: 'partners' },
      true,
    ],
    ['pairs-name', 'pairsName', 'Do: Put 3 on the frame\nSay: These are number bonds.', {}, false],
    [
      'unknown-left',
      'unknownAnywhere',
      'Do: Put 6 on the frame\nWrite: 6 = 4 + 2',
      { unknownAnywhere: false },
      true,
    ],
    ['unknown-left', 'unknownAnywhere', 'Do: Put 6 on the frame\nWrite: 6 = 4 + 2', {}, false],
    ['symbol-stage', 'symbols', 'Do: Put 3 on the frame\nWrite: 2 + 1 = 3', { symbols: 'never' }, true],
    ['symbol-stage', 'symbols', 'Do: Put 3 on the frame\nWrite: 2 + 1 = 3', { symbols: 'start' }, false],
    ['rivalry', 'rivalry', 'Do: Put 3 on the frame\nSay: Who is the fastest?', {}, true],
    ['rivalry', 'rivalry', 'Do: Put 3 on the frame\nSay: Who is the fastest?', { rivalry: true }, false],
    [
      'counting-on',
      'countingOn',
      'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: 6 to 7, touching each',
      {},
      true,
    ],
    [
      'counting-on',
      'countingOn',
      'Say: Hold five.\nDo: Hold 5\nDo: Put 2 on the row\nCount: 6 to 7, touching each',
      { countingOn: 'next' },
      false,
    ],
  ])('%s by %s', (code, _choice, steps, style, fires) => {
    if (fires) expect(codes(style, steps)).toContain(code)
    else expect(codes(style, steps)).not.toContain(code)
  })
})
