import { told } from '../findings/say.ts'
import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import { defaultStory, type Example, type Lesson } from '../contracts/lesson.ts'
import { aimOf, aimOfIdea } from '../plan/aim.ts'
import { ladder } from '../plan/ladder/ladder.ts'
import { findExamples } from '../plan/examples.ts'
import { savings, whereTimeGoes } from './clock-advice.ts'
import { compareLessons } from './compare.ts'
import { proofread } from './proof/proof.ts'
import { duplicateWith, factOf, renumberText } from './renumber.ts'
import { fromTemplate } from './template/lesson.ts'
import { teachingOf } from './template/teach.ts'

const made = (seed = 1, count = 4, upTo = 10): Lesson => {
  const aim = aimOf({ structure: 'add', upTo, count })
  const found = findExamples(aim, { zero: false, seed })
  if (!found.ok) throw new Error(found.conflict)
  let n = 0
  return fromTemplate({
    style: defaultHouseStyle,
    title: 'Post',
    ideaId: 'add-10',
    age: 4,
    aim,
    examples: found.sets[0]!.examples,
    newId: () => `c${(n += 1)}`,
  })
}
const e = (a: number, b: number): Example => ({ a, b, total: a + b, op: '+' })

describe('an example again with new numbers', () => {
  test.each([
    ['Put 4 on the frame', 'Put 6 on the frame'],
    ['Bobbin has four parcels.', 'Bobbin has six parcels.'],
    ['1 to 7, touching each', '1 to 9, touching each'],
    ['4 + 3 = 7', '6 + 3 = 9'],
    ['Seven altogether.', 'Nine altogether.'],
    ['Put 1 on the ten frame', 'Put 1 on the ten frame'],
    ['Lay out two ten frames', 'Lay out two ten frames'],
  ])('%s', (was, is) => expect(renumberText(was, e(4, 3), e(6, 3))).toBe(is))
  test('times to wait and at home stay as they are', () => {
    const segment = {
      id: 's',
      title: 'A 1',
      kind: 'together' as const,
      audience: 'children' as const,
      steps: [
        { id: 'a', verb: 'wait' as const, text: '4 s' },
        { id: 'b', verb: 'pause' as const, text: 'Put out 4. (3 min)' },
        { id: 'c', verb: 'ask' as const, text: 'How many?', task: { kind: 'number' as const, answer: 7 } },
      ],
    }
    const { segment: copy } = duplicateWith(segment, e(4, 3), e(6, 2), { newId: () => 'n' })
    expect(copy.steps.map((s) => s.text)).toEqual(['4 s', 'Put out 6. (3 min)', 'How many?'])
    expect(copy.steps[2]!.task).toEqual({ kind: 'number', answer: 8 })
    expect(copy.title).toBe('A 2')
  })
  test('choices move with the right one, and stay as far from it as they were', () => {
    const ask = (choices: string[], answer: number) => {
      const segment = {
        id: 's',
        title: 'A',
        kind: 'home task' as const,
        audience: 'children' as const,
        steps: [
          {
            id: 'a',
            verb: 'ask' as const,
            text: 'Which one is true?',
            task: { kind: 'choice' as const, choices, answer },
          },
        ],
      }
      const { segment: copy } = duplicateWith(segment, e(4, 3), e(6, 2), { newId: () => 'n' })
      return copy.steps[0]!.task
    }
    expect(ask(['4 + 3 = 6', '4 + 3 = 7', '4 + 3 = 9'], 1)).toMatchObject({
      choices: ['6 + 2 = 7', '6 + 2 = 8', '6 + 2 = 10'],
      answer: 1,
    })
    expect(ask(['Six', 'Seven', 'Eight'], 1)).toMatchObject({ choices: ['Seven', 'Eight', 'Nine'] })
    expect(ask(['Four add three equals seven', 'Four add three equals five'], 0)).toMatchObject({
      choices: ['Six add two equals eight', 'Six add two equals six'],
    })
    expect(ask(['The plate', 'The jar'], 1)).toMatchObject({ choices: ['The plate', 'The jar'] })
  })
  test('of a template, what its numbers pass on their way follows too', () => {
    const idea = ladder.find((i) => i.id === 'make-ten')!
    const aim = aimOfIdea(idea)
    const style = defaultHouseStyle
    let n = 0
    const newId = () => `m${(n += 1)}`
    const examples = [e(8, 5), e(9, 4), e(7, 6)]
    const w = { aim, age: 6, style, story: defaultStory, newId, teach: teachingOf('make-ten', aim, examples) }
    const lesson = fromTemplate({ title: 'T', ideaId: 'make-ten', age: 6, aim, examples, style, newId })
    const shown = lesson.segments.find((s) => s.kind === 'show')!
    const { segment, unchanged } = duplicateWith(shown, e(8, 5), e(6, 9), { newId, w })
    expect(segment.steps.map((s) => s.text)).toContain('One fills the ten. Six is one and five.')
    expect(unchanged).toEqual([])
    const jobs = lesson.segments.find((s) => s.kind === 'home task')!
    const again = duplicateWith(jobs, e(7, 6), e(8, 8), { newId, w }).segment
    expect(again.steps.find((s) => s.task?.kind === 'number')!.task).toMatchObject({ answer: 16 })
    // The choice asks of another example of the lesson and stays.
    const choice = (s: typeof jobs) => s.steps.find((x) => x.task?.kind === 'choice')
    expect(choice(again)!.text).toBe(choice(jobs)!.text)
  })
  test('a double becomes two numbers by turns', () => {
    expect(renumberText('Put 4 and 4 on the dot card', e(4, 4), e(5, 2))).toBe('Put 5 and 2 on the dot card')
    expect(renumberText('four add four equals eight', e(4, 4), e(5, 2))).toBe('five add two equals seven')
  })
  test('the copy of a whole segment has nothing wrong in it, for any two facts', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 40 }),
        fc.integer({ min: 1, max: 6 }),
        fc.integer({ min: 1, max: 4 }),
        (seed, a, b) => {
          const lesson = made(seed)
          const segment = lesson.segments.find((s) => s.kind === 'show')!
          const from = factOf(segment, lesson.examples)!
          let n = 0
          const { segment: copy } = duplicateWith(segment, from, e(a, b), { newId: () => `d${(n += 1)}` })
          const at = lesson.segments.indexOf(segment) + 1
          const after = {
            ...lesson,
            segments: [...lesson.segments.slice(0, at), copy, ...lesson.segments.slice(at)],
          }
          expect(factOf(copy, [])).toMatchObject({ a, b, total: a + b })
          expect(
            proofread(after, defaultHouseStyle)
              .findings.filter(
                (f) => f.segmentId === copy.id && f.severity === 'wrong' && f.code !== 'too-few-listed',
              )
              .map((f) => told('script', f)),
          ).toEqual([])
        },
      ),
      { numRuns: 60 },
    )
  })
})

describe('comparing two revisions', () => {
  const lesson = made()
  test('a lesson against itself is the same', () =>
    expect(compareLessons(lesson, lesson)).toEqual({ segments: [], rest: [], same: true }))
  test('added, taken out, moved and changed are told apart', () => {
    const [first, second, third, ...rest] = lesson.segments
    const after: Lesson = {
      ...lesson,
      title: 'Other',
      segments: [
        second!,
        { ...first!, id: 'new' },
        {
          ...third!,
          steps: third!.steps.map((s, i) => (i === 1 ? { ...s, text: 'Put 9 on the frame' } : s)),
        },
        ...rest.slice(1),
        rest[0]!,
      ],
    }
    const c = compareLessons(lesson, after)
    expect(c.rest).toEqual(['Title: “Post” became “Other”.'])
    expect(c.segments.map((s) => s.kind).sort()).toEqual(['added', 'changed', 'moved', 'taken out'])
    expect(c.segments.find((s) => s.kind === 'changed')!.steps).toMatchObject([
      { kind: 'changed', numbers: true, after: 'Put 9 on the frame' },
    ])
  })
  test.each<[string, Partial<Lesson>, RegExp]>([
    ['story', { story: { ...lesson.story, who: 'Suri' } }, /Story: Suri.*before: Bobbin/],
    ['words', { words: [{ word: 'part', gesture: 'One flat hand.' }] }, /New words: part \(One flat hand/],
    ['arc', { arc: 'game' }, /goes another way: show-together-alone became game/],
    ['age', { age: 6 }, /Age: 4 became 6/],
    ['things', { kit: [{ thing: 'jar', count: 1 }] }, /Things: 1 jar/],
    ['aim', { aim: { ...lesson.aim, upTo: 9 } }, /aim changed/],
    ['idea', { ideaId: 'add-20' }, /idea is another/],
  ])('another %s is told', (_, change, told) => {
    const c = compareLessons(lesson, { ...lesson, ...change })
    expect(c.same).toBe(false)
    expect(c.rest.join()).toMatch(told)
  })
  test('a step moved inside a segment is moved, not changed', () => {
    const s = lesson.segments.find((x) => x.kind === 'show')!
    const steps = [s.steps[1]!, s.steps[0]!, ...s.steps.slice(2)]
    expect(
      compareLessons(lesson, {
        ...lesson,
        segments: lesson.segments.map((x) => (x === s ? { ...s, steps } : x)),
      }).segments[0]!.steps.map((x) => x.kind),
    ).toEqual(['moved'])
  })
})

describe('where the time goes', () => {
  test('shares sum to one', () => {
    const lesson = made()
    const shares = whereTimeGoes(lesson, proofread(lesson, defaultHouseStyle).time)
    expect(shares.reduce((s, x) => s + x.share, 0)).toBeCloseTo(1, 6)
    expect(shares.map((x) => x.seconds)).toEqual([...shares.map((x) => x.seconds)].sort((a, b) => b - a))
  })
  test('a film under its limit needs no saving; one over it gets enough, repetitions first', () => {
    const short = made(1, 3)
    expect(
      savings(
        short,
        proofread(short, defaultHouseStyle).time,
        proofread(short, defaultHouseStyle).moments,
        defaultHouseStyle,
      ),
    ).toEqual({
      over: 0,
      list: [],
      enough: true,
    })
    const long = { ...made(2, 12, 20), age: 3 }
    const p = proofread(long, defaultHouseStyle)
    const s = savings(long, p.time, p.moments, defaultHouseStyle)
    expect(s.over).toBeGreaterThan(0)
    expect(s.list[0]!.kind).toBe('repetition')
    if (s.enough) expect(s.list.reduce((a, x) => a + x.seconds, 0)).toBeGreaterThanOrEqual(s.over)
  })
})
