import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type Verb, verbs } from '../contracts/lesson.ts'
import { kindOffer } from './kind-offer.ts'

const offer = (text: string, verb: Verb = 'say') => kindOffer({ verb, text })

describe('a line that begins with the name of a kind', () => {
  test.each([
    'Do you have six too?',
    'Count with me as I draw.',
    'Say it with me: seven.',
    'Write a seven on your paper.',
    'Show me seven fingers.',
    'Wait for me.',
    'Pause the film when you are ready.',
    'Ask your grown-up for ten bottle tops.',
    'Sound it out.',
  ])('is speech: %s', (text) => expect(offer(text)).toBeNull())
  test.each([
    ['Ask: How many?', 'ask', 'How many?'],
    ['ask How many parcels?', 'ask', 'How many parcels?'],
    ['wait: 5 s', 'wait', '5 s'],
    ['Wait 5 s', 'wait', '5 s'],
    ['Pause 90 seconds', 'pause', '90 seconds'],
    ['count 1 to 7, touching each', 'count', '1 to 7, touching each'],
  ] as const)('is offered its kind: %s', (text, verb, rest) =>
    expect(offer(text)).toEqual({ verb, text: rest }),
  )
  test('has its kind already, or nothing after it yet: nothing is offered', () => {
    expect(offer('ask how many?', 'ask')).toBeNull()
    expect([offer('ask'), offer('ask '), offer('ask:')]).toEqual([null, null, null])
  })
  test('an offer never drops a word that was written', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...verbs),
        fc.constantFrom(':', ''),
        fc.string({ minLength: 1 }),
        (v, c, rest) => {
          const got = offer(`${v}${c} ${rest}`, v === 'say' ? 'do' : 'say')
          return got === null || `${v}${c} ${rest}`.endsWith(got.text)
        },
      ),
    ))
})
