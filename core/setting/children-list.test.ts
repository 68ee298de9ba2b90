import { describe, expect, test } from 'vitest'
import { mostChildren } from '../contracts/api/set-up.ts'
import { readChildren } from './children-list.ts'

describe('a list of children', () => {
  test('is read with or without homes, numbers, headings and quotes, from any machine', () => {
    expect(
      readChildren('\uFEFFName;Home\r\nSuri;Weir Lane\r\n2) Otis, Mill Bank\r"Inés"\tWeir Lane\n\nBram'),
    ).toEqual([
      { name: 'Suri', home: 'Weir Lane', doubt: null },
      { name: 'Otis', home: 'Mill Bank', doubt: null },
      { name: 'Inés', home: 'Weir Lane', doubt: null },
      { name: 'Bram', home: 'Home of Bram', doubt: null },
    ])
  })
  test('of full names, or with two of one name, is doubted and taken all the same', () => {
    const [a, b, c] = readChildren('Kofi Weir\nAnouk\nanouk')
    expect(a!.doubt).toMatch(/full name/)
    expect([b!.doubt, c!.doubt]).toEqual([null, expect.stringMatching(/another child/)])
    // Each has a home of its own, whatever they are called.
    expect(b!.home).not.toBe(c!.home)
  })
  test('with nothing in it is empty; of more than a class has no more than fit', () => {
    expect(readChildren(' \n\n,\n')).toEqual([])
    expect(readChildren(Array.from({ length: 500 }, (_, i) => `K${i}`).join('\n'))).toHaveLength(mostChildren)
  })
})
