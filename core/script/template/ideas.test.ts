import { describe, expect, test } from 'vitest'
import type { Device } from '../../contracts/chance.ts'
import { HouseStyle } from '../../contracts/house-style.ts'
import { type Arc, arcs, type Lesson } from '../../contracts/lesson.ts'
import type { Mat, MatKind } from '../../contracts/table.ts'
import { told } from '../../findings/say.ts'
import { aimOfIdea } from '../../plan/aim.ts'
import { findExamples } from '../../plan/examples.ts'
import { ladder } from '../../plan/ladder/ladder.ts'
import { proofread, type Proofed } from '../proof/proof.ts'
import { type Action, leftOn, type TableState, thingsOn } from '../table/state.ts'
import { fromTemplate } from './lesson.ts'

const houses: Partial<HouseStyle>[] = [
  {},
  {
    add: 'plus',
    takeAway: 'minus',
    equals: 'makes',
    fewer: 'either',
    countingOn: 'next',
    frameFill: 'pairs',
    zeroIsPart: false,
    turnRoundsCount: false,
    unknownAnywhere: false,
    symbols: 'never',
    answers: 'adults',
    squareFrom: 0,
    helper: 'your gran',
  },
  { add: 'and', takeAway: 'subtract', equals: 'is the same as', symbols: 'start', answers: 'never' },
]
interface Asked {
  id: string
  arc: Arc
  house: number
  seed: number
  age?: number
}
const before = new Map<string, { lesson: Lesson; proof: Proofed }>()
/** A lesson and its findings, made once for all that look at it. */
function made(of: Asked): { lesson: Lesson; proof: Proofed } {
  const key = JSON.stringify(of)
  const known = before.get(key) ?? make(of)
  before.set(key, known)
  return known
}
function make({ id, arc, house, seed, age = 0 }: Asked) {
  const idea = ladder.find((i) => i.id === id)!
  const style = HouseStyle.parse(houses[house])
  const aim = aimOfIdea(idea, { zero: style.zeroIsPart, turnRounds: style.turnRoundsCount })
  const found = findExamples(aim, { zero: style.zeroIsPart, turnRounds: style.turnRoundsCount, seed })
  if (!found.ok) throw new Error(`${id}: ${found.conflict}`)
  let n = 0
  const lesson = fromTemplate({
    title: idea.name,
    ideaId: id,
    age: Math.min(7, idea.ages[0] + age),
    aim,
    examples: found.sets.at(-1)!.examples,
    style,
    arc,
    sets: found.sets.map((s) => s.examples),
    newId: () => `t${(n += 1)}`,
  })
  return { lesson, proof: proofread(lesson, style) }
}

/** Each idea in each arc, ages and houses taken in turn. */
const each = (id: string): { arc: Arc; lesson: Lesson; proof: Proofed }[] =>
  arcs.map((arc, k) => {
    const i = ladder.findIndex((x) => x.id === id)
    const { ages } = ladder[i]!
    return {
      arc,
      ...made({ id, arc, house: (i + k) % houses.length, seed: k + 1, age: k % (ages[1] - ages[0] + 1) }),
    }
  })

describe('the lesson of an idea has nothing wrong', () => {
  ladder.forEach((idea) =>
    test(idea.id, () => {
      for (const { arc, proof } of each(idea.id)) {
        expect(proof.moments.filter((m) => m.unread || m.error).map((m) => m.step.text)).toEqual([])
        expect(proof.findings.map((f) => `${arc}: ${told('script', f)}`)).toEqual([])
      }
    }),
  )
})

/** The tables of a lesson's shown and shared examples, each with what was on it from bare to bare. */
interface Played {
  lesson: Lesson
  proof: Proofed
  tables: TableState[]
  ends: TableState[]
  words: string
  tasks: string
}
function played(id: string): Played {
  const { lesson, proof } = made({ id, arc: 'show-together-alone', house: 0, seed: 3 })
  const on = proof.moments.filter((m) => ['show', 'together'].includes(m.segment.kind))
  return {
    lesson,
    proof,
    tables: on.map((m) => m.after),
    // What lies there as a table is about to be cleared.
    ends: on.filter((m) => /^clear the table$/i.test(m.step.text)).map((m) => m.before),
    words: on.map((m) => m.step.text).join(' | '),
    tasks: JSON.stringify(
      lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [[x.text, x.task]] : []))),
    ),
  }
}
const mat = (t: TableState, kind: MatKind): Mat | undefined => t.mats.find((m) => m.kind === kind)
const everyEnd = (p: Played, holds: (t: TableState) => boolean): boolean =>
  p.ends.length > 1 && p.ends.every(holds)
const sizes = (m: Mat | undefined): number[] => (m ? m.regions.map((r) => r.things.length) : [])
const blue = (t: TableState): number => thingsOn(t).filter((x) => x.face === 'blue').length
const partsOf = (n: number) => (p: Played) =>
  everyEnd(p, (t) => thingsOn(t).length === n) && p.ends.some((t) => blue(t) > 0)
const within = (n: number) => (p: Played) =>
  everyEnd(p, (t) => thingsOn(t).length <= n && thingsOn(t).length > 1 && blue(t) > 0)
const taken = (n: number) => (p: Played) =>
  everyEnd(p, (t) => thingsOn(t).length <= n) && p.ends.some((t) => leftOn(t) < thingsOn(t).length)
const hidden = (p: Played): boolean =>
  p.tables.some((t) => thingsOn(t).some((x) => x.hidden)) && /in the sack/.test(p.words)
const held = (p: Played): boolean => p.tables.some((t) => t.held !== null && mat(t, 'jar')?.covered === true)
const counted = (p: Played): boolean => p.proof.moments.some((m) => m.count?.numbers.length)
const doubled = (p: Played): boolean =>
  everyEnd(p, (t) => sizes(mat(t, 'dots'))[0] === sizes(mat(t, 'dots'))[1])
const shared = (p: Played): boolean =>
  everyEnd(p, (t) => new Set(sizes(mat(t, 'plates'))).size === 1) && /left over/.test(p.words)
const cards = (p: Played): boolean =>
  p.tables.some((t) => mat(t, 'cards')) && p.tables.some((t) => mat(t, 'frame'))

/** What must happen in the lesson of each idea: what makes it a lesson of that idea and of no other. */
const must: Readonly<Record<string, (p: Played) => boolean>> = {
  'count-3': (p) => counted(p) && everyEnd(p, (t) => thingsOn(t).length <= 3),
  'count-5': (p) => counted(p) && everyEnd(p, (t) => thingsOn(t).length <= 5),
  'see-3': (p) => p.tables.some((t) => mat(t, 'dots')?.covered) && !counted(p),
  'count-scattered': (p) => /scatter/i.test(p.words) && everyEnd(p, (t) => thingsOn(t).length > 3),
  'count-10': (p) => counted(p) && p.ends.some((t) => thingsOn(t).length > 5),
  zero: (p) =>
    p.ends.some((t) => mat(t, 'jar') && thingsOn(t).length === 0) &&
    /zero/i.test(p.words) &&
    /"answer":0/.test(p.tasks),
  'numerals-5': cards,
  'numerals-10': cards,
  'same-number': (p) => /Still/.test(p.words) && /shuffle/i.test(p.words),
  'give-n': (p) =>
    everyEnd(p, (t) => sizes(mat(t, 'plates'))[0]! > 0 && thingsOn(t).length > sizes(mat(t, 'plates'))[0]!),
  'see-groups': (p) =>
    everyEnd(p, (t) => blue(t) > 0 && blue(t) < thingsOn(t).length) && /groups/.test(p.words),
  sounds: (p) => p.proof.moments.some((m) => m.step.verb === 'sound'),
  'words-10': (p) => p.tables.some((t) => mat(t, 'cards')?.cards.some((c) => /^[a-z]+$/.test(c.text))),
  'order-10': (p) =>
    everyEnd(p, (t) => {
      const order = mat(t, 'cards')?.cards.map((c) => Number(c.text)) ?? []
      return order.length > 2 && order.every((n, i) => i === 0 || n === order[i - 1]! + 1)
    }),
  'next-before': (p) => /One more comes/.test(p.words) || /One goes/.test(p.words),
  'more-fewer': (p) => everyEnd(p, (t) => sizes(mat(t, 'shelves')).length === 2) && /has more/.test(p.words),
  'how-many-more': (p) =>
    everyEnd(p, (t) => sizes(mat(t, 'shelves')).length === 2) && /How many more/.test(p.words),
  join: within(6),
  'take-apart': taken(6),
  'parts-5': partsOf(5),
  'parts-6': partsOf(6),
  'parts-7': partsOf(7),
  'parts-8': partsOf(8),
  'parts-9': partsOf(9),
  'parts-10': partsOf(10),
  'pairs-recall': (p) =>
    everyEnd(p, (t) => thingsOn(t).length === 10) && /Quickly/.test(p.words) && !counted(p),
  'missing-6': (p) => hidden(p) && everyEnd(p, (t) => thingsOn(t).length <= 6),
  'missing-10': (p) => hidden(p) && everyEnd(p, (t) => thingsOn(t).length <= 10),
  'add-5': within(5),
  'add-10': within(10),
  'turn-rounds': (p) => /turned round/.test(p.words) && everyEnd(p, (t) => blue(t) > 0),
  'draw-to-add': (p) => /Draw \d+ dots/.test(p.words) && /Ring \d+ on the line/.test(p.words),
  'count-on': held,
  'count-on-20': (p) => held(p) && p.ends.some((t) => thingsOn(t).length > 10),
  'doubles-10': (p) => doubled(p) && everyEnd(p, (t) => thingsOn(t).length <= 10),
  'doubles-20': (p) => doubled(p) && p.ends.some((t) => thingsOn(t).length > 10),
  'near-doubles': (p) =>
    everyEnd(p, (t) => Math.abs(sizes(mat(t, 'dots'))[0]! - sizes(mat(t, 'dots'))[1]!) === 1) &&
    /Double/.test(p.words),
  'halves-10': (p) =>
    everyEnd(p, (t) => sizes(mat(t, 'plates')).length === 2) && p.ends.every((t) => thingsOn(t).length <= 10),
  'halves-20': (p) =>
    everyEnd(p, (t) => sizes(mat(t, 'plates')).length === 2) && p.ends.some((t) => thingsOn(t).length > 10),
  'odd-even': (p) =>
    everyEnd(p, (t) => mat(t, 'pairs') !== undefined) && /is odd/.test(p.words) && /is even/.test(p.words),
  'share-2': (p) => shared(p) && everyEnd(p, (t) => sizes(mat(t, 'plates')).length === 2),
  'share-k': (p) => shared(p) && everyEnd(p, (t) => sizes(mat(t, 'plates')).length > 2),
  groups: (p) =>
    everyEnd(p, (t) => new Set(thingsOn(t).map((x) => x.heap)).size > 1) && /How many bags/.test(p.words),
  'take-5': taken(5),
  'take-10': taken(10),
  'take-zero': (p) =>
    everyEnd(p, (t) => leftOn(t) === 0 || leftOn(t) === thingsOn(t).length) &&
    p.ends.some((t) => leftOn(t) === 0),
  'count-back': (p) => everyEnd(p, (t) => mat(t, 'line') !== undefined) && /Hop back/.test(p.words),
  difference: (p) => p.ends.some((t) => (mat(t, 'line')?.line?.hops ?? []).some((h) => h.to > h.from)),
  'fact-family': (p) =>
    p.ends.every((t) => t.written.some((w) => w.includes('+')) && t.written.some((w) => /[−-]/.test(w))),
  equals: (p) =>
    everyEnd(p, (t) => new Set(sizes(mat(t, 'shelves'))).size === 1) &&
    p.ends.some((t) => t.written.some((w) => /^\d+ = \d+ \+ \d+$/.test(w))),
  teens: (p) => everyEnd(p, (t) => thingsOn(t).length > 10 && thingsOn(t).length - blue(t) === 10),
  'numerals-20': (p) => cards(p) && everyEnd(p, (t) => thingsOn(t).length > 10),
  'count-20': (p) => /count|back/i.test(p.words) && everyEnd(p, (t) => mat(t, 'line')?.line?.to === 20),
  'add-20': (p) => within(20)(p) && p.ends.some((t) => thingsOn(t).length > 10),
  'make-ten': (p) => everyEnd(p, (t) => leftOn(t) > 10) && throughTen(p),
  'take-20': (p) => taken(20)(p) && p.ends.some((t) => thingsOn(t).length > 10),
  'through-ten': (p) => everyEnd(p, (t) => thingsOn(t).length > 10 && leftOn(t) < 10) && throughTen(p),
  tens: (p) =>
    everyEnd(p, (t) => (mat(t, 'square')?.line?.marks ?? []).every((n) => n % 10 === 0)) &&
    /in tens/.test(p.words),
  'two-digits': (p) => everyEnd(p, (t) => thingsOn(t).some((x) => x.worth === 10)),
  'line-100': (p) => everyEnd(p, (t) => mat(t, 'line')?.line?.to === 100),
  'tens-on': (p) => everyEnd(p, (t) => (mat(t, 'square')?.line?.hops.length ?? 0) > 0),
  'take-tens': (p) => everyEnd(p, (t) => (mat(t, 'line')?.line?.hops.length ?? 0) >= 2),
  'take-19': (p) =>
    /nearly/.test(p.words) &&
    everyEnd(p, (t) => (mat(t, 'line')?.line?.hops ?? []).some((h) => h.to > h.from)),
}
/** Every example stands at ten on its way past it. */
const throughTen = (p: Played): boolean => {
  const steps = p.tables.map(leftOn).filter((n, i, all) => n !== all[i - 1])
  const at = steps.filter((n, i) => {
    const [from, to] = [steps[i - 1] ?? 0, steps[i + 1] ?? 0]
    return n === 10 && from > 0 && to > 0 && from < 10 !== to < 10
  })
  return at.length === p.ends.length
}

describe('the lesson of an idea is of that idea', () => {
  test('and none is left without something that must happen in it', () => {
    expect(ladder.map((i) => i.id).filter((id) => !must[id])).toEqual([])
  })
  test.each(Object.keys(must))('%s', (id) => {
    expect(must[id]!(played(id))).toBe(true)
  })
  test('another idea’s lesson would not pass for it', () => {
    const all = ladder.map((i) => ({ id: i.id, p: played(i.id) }))
    // Ideas that are part of others by their nature: within five is within ten.
    const passesFor = (id: string) => all.filter((x) => must[id]!(x.p)).map((x) => x.id)
    expect(passesFor('make-ten')).toEqual(['make-ten'])
    expect(passesFor('zero')).toEqual(['zero'])
    expect(passesFor('sounds')).toEqual(['sounds'])
    expect(passesFor('odd-even')).toEqual(['odd-even'])
    expect(passesFor('same-number')).toEqual(['same-number'])
    expect(passesFor('fact-family')).toEqual(['fact-family'])
  })
})

/** Words of "You need …" and the mat that shows they are used. */
const tools: readonly (readonly [RegExp, MatKind])[] = [
  [/egg box|ten frame/, 'frame'],
  [/plate/, 'plates'],
  [/tub|jar/, 'jar'],
  [/number line/, 'line'],
  [/hundred square/, 'square'],
  [/cards with/, 'cards'],
  [/two-square card/, 'dots'],
]
describe('what a lesson asks a home for', () => {
  const needs = (lesson: Lesson): string =>
    lesson.segments
      .find((s) => s.kind === 'things needed')!
      .steps.map((s) => s.text)
      .join(' ')
  const inWords =
    'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen twenty'.split(
      ' ',
    )
  test.each(ladder.map((i) => i.id))('%s: is used, is enough, and is never more than twenty', (id) => {
    for (const { arc, lesson, proof } of each(id)) {
      const text = needs(lesson)
      const things = inWords.indexOf(text.match(/(\w+) small things?/)![1]!)
      const photos = lesson.segments.flatMap((s) =>
        s.steps.flatMap((x) => (x.task?.kind === 'photo' ? [x.task.things] : [])),
      )
      expect(photos).toHaveLength(1)
      expect(things).toBeGreaterThanOrEqual(Math.max(1, ...photos))
      expect(things).toBeLessThanOrEqual(20)
      if (arc === 'talk-first') continue
      const kinds = new Set(proof.moments.flatMap((m) => m.after.mats.map((x) => x.kind)))
      for (const [says, kind] of tools) if (says.test(text)) expect([...kinds], text).toContain(kind)
    }
  })
})

describe('a lesson whose numbers come from a device', () => {
  const shows = (kind: Device['kind'], a: Action): boolean =>
    ({ none: '', dice: 'roll', cards: 'show card', spinner: 'spin', bowl: 'draw' })[kind] === a.type
  test.each<[string, Device]>([
    ['add-10', { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 2 }],
    ['take-10', { kind: 'dice', faces: [1, 2, 3, 4, 5, 6], dice: 1 }],
    ['zero', { kind: 'dice', faces: [0, 1, 2, 3, 4, 5], dice: 1 }],
    ['parts-7', { kind: 'cards', numbers: [1, 2, 3, 4, 5, 6], draws: 1, back: true }],
    ['missing-6', { kind: 'cards', numbers: [1, 2, 3, 4, 5], draws: 1, back: true }],
    [
      'count-on',
      { kind: 'spinner', parts: [1, 2, 3].map((number) => ({ number, share: 4 - number })), spins: 1 },
    ],
    ['line-100', { kind: 'bowl', digits: [0, 1, 2, 3, 4, 5, 6, 7, 8, 9], draws: 2, back: false }],
    ['tens-on', { kind: 'bowl', digits: [1, 2, 3, 4, 5, 6, 7, 8, 9], draws: 2, back: false }],
    ['count-10', { kind: 'bowl', digits: [4, 5, 6, 7, 8, 9], draws: 1, back: true }],
  ])('%s shows it before each example, asks homes for it, and has nothing wrong', (id, device) => {
    const style = HouseStyle.parse({})
    const idea = ladder.find((i) => i.id === id)!
    const aim = { ...aimOfIdea(idea), device }
    const found = findExamples(aim, { zero: true, seed: 1 })
    if (!found.ok) throw new Error(found.conflict)
    for (const arc of ['show-together-alone', 'game'] as const) {
      let n = 0
      const lesson = fromTemplate({
        title: idea.name,
        ideaId: id,
        age: idea.ages[1],
        aim,
        examples: found.sets[0]!.examples,
        style,
        arc,
        newId: () => `t${(n += 1)}`,
      })
      const { moments, findings } = proofread(lesson, style)
      // That a die leaves some ways out is told of the aim, not of the script.
      expect(findings.filter((f) => f.code !== 'device-limits').map((f) => told('script', f))).toEqual([])
      for (const s of lesson.segments.filter((x) => ['show', 'together'].includes(x.kind)))
        expect(
          moments.some((m) => m.segment.id === s.id && m.actions.some((a) => shows(device.kind, a))),
          s.title,
        ).toBe(true)
      expect(lesson.kit.some((k) => /die|card|spinner|bowl/.test(k.thing))).toBe(true)
    }
  })
})
