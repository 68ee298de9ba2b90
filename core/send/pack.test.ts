import { ladder } from '../plan/ladder/ladder.ts'
import { describe, expect, test } from 'vitest'
import { structures } from '../contracts/lesson.ts'
import { defaultHouseStyle, HouseStyle } from '../contracts/house-style.ts'
import { spokenLines } from '../film/follow/spoken.ts'
import { expectedTable } from '../look/expected.ts'
import { findExamples } from '../plan/examples.ts'
import { exampleTable } from '../plan/example-table.ts'
import { drawTable, toSvg } from '../script/table/drawing/table.ts'
import { leftOn, thingsOn } from '../script/table/state.ts'
import { aimOf } from '../plan/aim.ts'
import { waysToWork } from '../plan/numbers/strategies.ts'
import { spoken } from '../script/template/example.ts'
import { fromTemplate } from '../script/template/lesson.ts'
import { answersOf, packOf as packIn, shownTasks } from './pack.ts'

const packOf = (doc: ReturnType<typeof lesson>, own = ladder) => packIn(doc, own, defaultHouseStyle)
function lesson(structure: (typeof structures)[number], style = defaultHouseStyle) {
  const aim = aimOf({
    structure,
    upTo: ['teens', 'doubles', 'halves', 'share'].includes(structure)
      ? 20
      : ['tens', 'round-back', 'order'].includes(structure)
        ? 80
        : 10,
  })
  const found = findExamples(aim, { zero: true, seed: 2 })
  if (!found.ok) throw new Error(found.conflict)
  let n = 0
  return fromTemplate({
    title: 'Post',
    ideaId: 'parts-10',
    age: 4,
    aim,
    examples: found.sets[0]!.examples,
    style,
    newId: () => `s${(n += 1)}`,
  })
}

describe.each(structures)('a pack of %s', (structure) => {
  const doc = lesson(structure)
  const pack = packOf(doc)
  test('has three tasks: a number, a choice, a photo', () =>
    expect(pack.tasks.map((t) => t.spec.kind)).toEqual(['number', 'choice', 'photo']))
  test('gives every thing one swap, and its cautions', () => {
    for (const n of pack.needs) expect(n.swap, n.thing).toBeTruthy()
    if (pack.needs.some((n) => n.thing === 'two-faced counters'))
      expect(pack.cautions.join()).toMatch(/Small parts/)
  })
  test('tells the grown-up apart from the film, with no answer in it', () => {
    expect(pack.adultNote.length).toBeGreaterThan(0)
    expect(pack.adultNote.join(' ')).not.toMatch(/\d/)
  })
  test('reaches the home without its answers', () => {
    const shown = shownTasks(pack)
    expect(JSON.stringify(shown)).not.toMatch(/answer|"things":/)
    expect(shown[1]!.choices.length).toBeGreaterThan(1)
    expect(answersOf(pack).length).toBe(2)
  })
  test('tells the grown-up why, what may be seen and said, and the ways its own examples can be worked', () => {
    const notes = pack.notes!
    expect(notes.aim?.key).toBe(`aim.${structure}`)
    expect(notes.see.length).toBe(2)
    const ways = new Set(
      doc.examples.flatMap((e) => waysToWork(e, defaultHouseStyle).map((w) => `way.${w.id}`)),
    )
    for (const w of notes.ways) expect(ways).toContain(w.key)
    expect(notes.ways.length > 0).toBe(ways.size > 0)
  })
  // Facts in signs can be checked here; shares, comparisons and places on a line are said in words.
  const inSigns = [
    'parts',
    'add',
    'take-away',
    'count-on',
    'doubles',
    'teens',
    'missing',
    'tens',
    'round-back',
  ].includes(structure)
  if (inSigns)
    test('has one right choice', () => {
      const choice = pack.tasks[1]!.spec
      if (choice.kind !== 'choice') throw new Error('no choice')
      const truth = (c: string) => {
        const m = c.match(/(\d+) ([+−]) (\d+) = (\d+)/)!
        return (m[2] === '+' ? Number(m[1]) + Number(m[3]) : Number(m[1]) - Number(m[3])) === Number(m[4])
      }
      expect(choice.choices.map(truth)).toEqual(choice.choices.map((_, i) => i === choice.answer))
    })
  test('asks for no more things than it lists', () => {
    const photo = pack.tasks[2]!.spec
    const listed = pack.needs.find((n) => n.thing === 'two-faced counters')?.count ?? 0
    expect(photo.kind === 'photo' && photo.things).toBeLessThanOrEqual(listed)
  })
  test('expects a table with just the things asked for', () =>
    expect(thingsOn(expectedTable(doc, pack.tasks[2]!))).toHaveLength(
      (pack.tasks[2]!.spec as { things: number }).things,
    ))
  test('draws each example with its numbers', () => {
    for (const e of doc.examples) {
      const table = exampleTable(e, structure)
      const shown: Record<string, number> = {
        halves: e.a,
        share: e.a,
        missing: e.a,
        compare: e.a + e.b,
        tens: 0,
        'round-back': 0,
        order: 0,
      }
      expect(leftOn(table)).toBe(shown[structure] ?? e.total)
      expect(toSvg(drawTable(table, 'across'))).toMatch(/^<svg .*<\/svg>$/)
    }
  })
})

test('the house’s words reach the script', () => {
  const e = { a: 4, b: 3, total: 7, op: '+' as const }
  expect(spoken(e, defaultHouseStyle)).toBe('four add three equals seven')
  expect(spoken(e, HouseStyle.parse({ add: 'and', equals: 'makes' }))).toBe('four and three makes seven')
  expect(JSON.stringify(lesson('take-away', HouseStyle.parse({ takeAway: 'minus' })))).toMatch(/minus/)
})
test('counting on: the held number is said first, or the next one is, as the house has it', () => {
  const step = { id: 'c', verb: 'count' as const, text: 'on from 5 to 8' }
  const segment = { id: 's', title: '', kind: 'show' as const, audience: 'children' as const, steps: [step] }
  expect(spokenLines(segment, defaultHouseStyle)[0]!.words).toEqual(['five', 'six', 'seven', 'eight'])
  expect(spokenLines(segment, HouseStyle.parse({ countingOn: 'next' }))[0]!.words).toEqual([
    'six',
    'seven',
    'eight',
  ])
})
test('what is drawn cannot break out of its SVG', () => {
  const table = exampleTable({ a: 4, b: 3, total: 7, op: '+' }, 'add')
  const svg = toSvg(drawTable({ ...table, written: ['<script>&"'] }, 'across'))
  expect(svg).toContain('&lt;script&gt;&amp;&quot;')
  expect(svg).not.toContain('<script>')
})

test('what a film is about is said in the words of the setting’s own ladder', () => {
  const doc = lesson('compare')
  const own = ladder.map((i) => (i.id === doc.ideaId ? { ...i, name: 'Which house has more' } : i))
  expect(packOf(doc, own).aim).toBe('This is about: which house has more.')
  expect(packOf(doc).aim).not.toContain('which house')
})

test('a task given without a film comes with the words that lead up to it', () => {
  const doc = lesson('add')
  const home = doc.segments.find((s) => s.kind === 'home task')!
  const apart = {
    ...doc,
    segments: doc.segments.map((s) => (s === home ? { ...s, unfilmed: true as const } : s)),
  }
  const [said, asked] = home.steps
  expect(packOf(apart).tasks[0]!.prompt).toBe(`${said!.text} ${asked!.text}`)
  expect(packOf(doc).tasks[0]!.prompt).toBe(asked!.text)
})
