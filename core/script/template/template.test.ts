import { told } from '../../findings/say.ts'
import { describe, expect, test } from 'vitest'
import { arcs, Lesson, structures } from '../../contracts/lesson.ts'
import { HouseStyle } from '../../contracts/house-style.ts'
import { aimOf } from '../../plan/aim.ts'
import { findExamples } from '../../plan/examples.ts'
import { proofread } from '../proof/proof.ts'
import { fromTemplate } from './lesson.ts'

const styles: [string, Partial<HouseStyle>][] = [
  ['defaults', {}],
  [
    'the other side of every choice',
    {
      add: 'plus',
      takeAway: 'minus',
      equals: 'makes',
      pairsName: 'partners',
      fewer: 'either',
      countingOn: 'next',
      frameFill: 'pairs',
      zeroIsPart: false,
      turnRoundsCount: false,
      unknownAnywhere: false,
      strategyOrder: 'learner',
      fingers: 'unmentioned',
      symbols: 'never',
      answers: 'adults',
      squareFrom: 0,
      rivalry: true,
      helper: 'your gran',
      defaultWait: 8,
      defaultPause: 60,
    },
  ],
  [
    'the third words',
    { add: 'and', takeAway: 'subtract', equals: 'is the same as', symbols: 'start', answers: 'never' },
  ],
]
const ranges: Record<(typeof structures)[number], number> = {
  parts: 8,
  add: 10,
  'take-away': 10,
  'count-on': 10,
  doubles: 12,
  halves: 12,
  share: 12,
  missing: 8,
  compare: 8,
  teens: 19,
  tens: 60,
  'round-back': 80,
  order: 100,
  numbers: 10,
}

describe('a template lesson has nothing wrong', () => {
  for (const structure of structures)
    for (const arc of arcs)
      for (const [name, said] of styles)
        test(`${structure}, ${arc}, ${name}`, () => {
          const style = HouseStyle.parse(said)
          const aim = aimOf({
            structure,
            upTo: ranges[structure],
            count: 4,
            mustHave: structure === 'share' ? ['leftover'] : [],
            among: 3,
          })
          const found = findExamples(aim, {
            zero: style.zeroIsPart,
            turnRounds: style.turnRoundsCount,
            seed: 1,
          })
          if (!found.ok) throw new Error(found.conflict)
          for (const set of found.sets) {
            let n = 0
            const lesson = fromTemplate({
              title: 'Post',
              ideaId: 'add-10',
              age: structure === 'tens' || structure === 'round-back' ? 6 : 4,
              aim,
              examples: set.examples,
              style,
              arc,
              sets: found.sets.map((s) => s.examples),
              newId: () => `t${(n += 1)}`,
            })
            expect(Lesson.safeParse(lesson).success).toBe(true)
            const read = proofread(lesson, style)
            expect(read.moments.filter((m) => m.unread || m.error).map((m) => m.step.text)).toEqual([])
            expect(
              read.findings.map(
                (f) =>
                  `${f.code}: ${told('script', f)} (${read.moments.find((m) => m.step.id === f.stepId)?.step.text ?? ''})`,
              ),
            ).toEqual([])
          }
        })
})
