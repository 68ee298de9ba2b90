import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { readDay, writeDay } from './dates.ts'

describe('a day that was typed', () => {
  test.each([
    ['29/11/2026', '2026-11-29'],
    ['1.2.27', '2027-02-01'],
    [' 29-11-2026 ', '2026-11-29'],
    ['29 Nov 2026', '2026-11-29'],
    ['Sunday 29th November 26', '2026-11-29'],
    ['2026-11-29', '2026-11-29'],
    ['29/2/2028', '2028-02-29'],
  ])('%s is %s', (text, iso) => expect(readDay(text)).toBe(iso))
  test.each(['', '11/29/2026', '31/6/2026', '29/2/2027', 'tomorrow', '0/1/2026', '12', '29 Foo 2026'])(
    '“%s” is none, and no other day is guessed',
    (text) => expect(readDay(text)).toBeNull(),
  )
  test('every day is read back as it is written', () =>
    fc.assert(
      fc.property(
        fc.date({ min: new Date('2000-01-01'), max: new Date('2099-12-31'), noInvalidDate: true }),
        (d) => {
          const iso = d.toISOString().slice(0, 10)
          expect(readDay(writeDay(iso))).toBe(iso)
        },
      ),
    ))
})
