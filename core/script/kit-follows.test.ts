import { describe, expect, test } from 'vitest'
import { lessonOf } from '../cut/test-words.ts'
import type { Lesson } from '../contracts/lesson.ts'
import { swapsFor } from '../plan/things.ts'
import { changeStep } from './edit.ts'
import { kitByHand, kitFollows, kitFor } from './kit-follows.ts'
import { needed } from './stock.ts'

const lesson = (): Lesson => {
  const l = lessonOf(
    '# T\n\n## Show {show}\nDo: Put 6 on the frame\nDo: Put 4 in the jar\nDo: Clear the table\n',
  )
  return { ...l, kit: kitFor(l) }
}
const change = (l: Lesson, was: string, is: string): Lesson => {
  const step = l.segments[0]!.steps.find((s) => s.text === was)!
  return kitFollows(l, changeStep(l, step.id, { text: is }))
}
const said = (l: Lesson) => l.kit.map((k) => `${k.count} ${k.thing}`).sort()

describe('the list of things', () => {
  test('is counted from the table', () =>
    expect(said(lesson())).toEqual(['1 jar', '1 ten frame', '10 two-faced counters']))
  test('follows a number that changes', () =>
    expect(said(change(lesson(), 'Put 4 in the jar', 'Put 7 in the jar'))).toContain('13 two-faced counters'))
  test('gains what is laid out, and loses what is not used any more', () => {
    const l = change(lesson(), 'Put 4 in the jar', 'Put 4 on the pair plate')
    expect(said(l)).toEqual(['1 pair plate', '1 ten frame', '6 two-faced counters'])
  })
  test('keeps what a person set, added, renamed or left out', () => {
    const l = lesson()
    const mine: Lesson = {
      ...l,
      kit: [
        { thing: 'two-faced counters', count: 20 },
        { thing: 'egg box', count: 1 },
        { thing: 'blanket', count: 1 },
      ],
    }
    const next = change(mine, 'Put 4 in the jar', 'Put 9 in the jar')
    expect(said(next)).toEqual(['1 blanket', '1 egg box', '20 two-faced counters'])
  })
  test('left out once, a thing stays out while its line is typed anew; put back, it is counted again', () => {
    const l = lesson()
    const without = kitByHand(
      l,
      l.kit.filter((k) => k.thing !== 'jar'),
    )
    const typed = change(without, 'Put 4 in the jar', 'Put 4 in')
    const again = change(typed, 'Put 4 in', 'Put 5 in the jar')
    expect(said(again).join()).not.toContain('jar')
    const back = kitByHand(again, [...again.kit, { thing: 'jar', count: 1 }])
    const gone = change(back, 'Put 5 in the jar', 'Put 5 in')
    expect(said(gone).join()).not.toContain('jar')
    expect(said(change(gone, 'Put 5 in', 'Put 5 in the jar'))).toContain('1 jar')
  })
  test('named otherwise, a thing does not come back under its old name', () => {
    const l = lesson()
    const renamed = kitByHand(
      l,
      l.kit.map((k) => (k.thing === 'jar' ? { ...k, thing: 'pot' } : k)),
    )
    const next = change(change(renamed, 'Put 4 in the jar', 'Put 4'), 'Put 4', 'Put 4 in the jar')
    expect(said(next)).toContain('1 pot')
    expect(said(next)).not.toContain('1 jar')
  })
  test('has paper and a pencil where children draw, and only there', () => {
    const drawn = lessonOf('# T\n\n## Alone {alone}\nPause: Draw five circles and count them. (90 s)\n')
    expect(kitFor(drawn).map((k) => k.thing)).toContain('paper and a pencil')
    const shown = lessonOf('# T\n\n## Show {show}\nDo: Draw 5 circles on the frame\n')
    expect(kitFor(shown).map((k) => k.thing)).not.toContain('paper and a pencil')
  })
})

describe('what may stand in for a thing', () => {
  const swaps = (line: string, thing: string): string[] => {
    const need = needed(lessonOf(`# T\n\n## Show {show}\nDo: ${line}\n`)).find((n) => n.thing === thing)!
    return swapsFor(thing, need.uses).map((s) => s.name)
  }
  test('cards with words or large numbers are no die', () => {
    expect(swaps('Show the cards 7, 8, 9', 'number cards')).not.toContain('die')
    expect(swaps('Show the cards "six, 6"', 'number cards')).not.toContain('spinner')
    expect(swaps('Show the card 4', 'number cards')).toContain('die')
  })
  test('things of two colours want two faces; of one they may be anything that is counted', () => {
    expect(swaps('Put 3 saffron and 2 blue on the row', 'two-faced counters')).not.toContain('dried pasta')
    expect(swaps('Put 5 on the row', 'two-faced counters')).toContain('dried pasta')
    expect(swaps('Build a tower of 5', 'two-faced counters')).not.toContain('buttons')
  })
})
