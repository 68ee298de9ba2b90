import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { coversFor, coversOf } from './covers.ts'
import { privateWords, type WordRead } from './private-words.ts'

const who = {
  children: ['Odalys', 'Bo', 'May', 'Ana Lucia', 'Inés'],
  places: ['Wagtails', 'Cobblegate Early Years'],
  addresses: ['Weir Steps'],
}
/** Lines of writing, one under the other, each letter 20 wide. */
const read = (...lines: string[]): WordRead[] =>
  lines.flatMap((text, line) => {
    let x = 100
    return text.split(' ').map((word) => {
      const w = { text: word, line, box: { x, y: 100 + 60 * line, w: word.length * 20, h: 30 } }
      x += w.box.w + 20
      return w
    })
  })
const told = (...lines: string[]): string[] => privateWords(read(...lines), who).map((p) => p.what)

describe('writing in a picture that tells who or where', () => {
  test.each([
    ['Odalys', ['child']],
    ['ODALYS', ['child']],
    ['Odalys’s coat', ['child']],
    ['Odalyz', ['child']],
    ['Odlys', ['child']],
    ['Bo', ['child']],
    ['(May)', ['child']],
    ['Ana Lucia', ['child']],
    ['Ines', ['child']],
    ['INÉS', ['child']],
    ['Class Wagtails', ['place']],
    ['Cobblegate Early Years', ['place']],
    ['Wagtaiis', ['place']],
    ['14 Mill Lane', ['address']],
    ['Weir Steps', ['address']],
    ['9 Weir Steps', ['address']],
    ['3b, Old Mill Road', ['address']],
    ['CB4 7QX', ['address']],
    ['hello@cobblegate.example', ['address']],
    ['01632 960123', ['telephone']],
    ['Tel: 01632 960 123', ['telephone']],
    ['+44 1632 960123', ['telephone']],
    ['555-0123', ['telephone']],
    ['555-019-0123', ['telephone']],
  ])('%s', (text, kinds) => expect(told(text)).toEqual(kinds))
  test.each([
    '1 2 3 4 5 6 7 8 9 10',
    '10 20 30 40 50 60 70',
    '100 200 300 400',
    '5 + 2 = 7',
    '12',
    '7 on the top shelf',
    'may',
    'bo',
    'Bobbin',
    'to Bobbin',
    'Box',
    'Be',
    'Day',
    'Seven parcels',
    'Ana',
    'Lucia Ana',
    'Early Years',
    '25 - 18',
    '10 - 3 - 2',
    '2026',
    'the post office',
    'Weir',
    'four steps',
    '4 Big Boxes',
    'A4',
    '',
  ])('%s tells nothing', (text) => expect(told(text)).toEqual([]))
  test('words of different lines are no name together', () => expect(told('Ana', 'Lucia')).toEqual([]))
  test('the box holds the words that tell, and nothing beside them', () => {
    const [seen] = privateWords(read('see 14 Mill Lane now'), who)
    expect(seen!.box).toEqual({ x: 180, y: 100, w: 12 * 20, h: 30 })
  })
  test('read twice in one place it is one; in two places it is two', () => {
    const once = read('Odalys')
    const shifted = once.map((w) => ({ ...w, line: 7, box: { ...w.box, x: w.box.x + 4, y: w.box.y - 3 } }))
    const below = once.map((w) => ({ ...w, line: 8, box: { ...w.box, y: w.box.y + 200 } }))
    expect(privateWords([...once, ...shifted, ...below], who)).toHaveLength(2)
  })
  test('no writing breaks it, and every box lies within what was read', () =>
    fc.assert(
      fc.property(fc.array(fc.string({ unit: 'binary', maxLength: 40 }), { maxLength: 4 }), (lines) => {
        const words = read(...lines)
        for (const p of privateWords(words, who))
          expect(
            words.some(
              (w) => p.box.x <= w.box.x && p.box.y <= w.box.y && p.box.x + p.box.w >= w.box.x + w.box.w,
            ),
          ).toBe(true)
      }),
    ))
})

describe('covers for writing', () => {
  const box = { x: 600, y: 300, w: 200, h: 40 }
  test('read once is enough; the note names the kind, and nothing that was read', () => {
    const [cover] = coversFor('child', [{ frame: 240, boxes: [box] }], 240, 900)
    expect(cover).toMatchObject({ what: 'name', from: 0, to: 481, why: { kind: 'name', state: 'open' } })
    expect(cover!.why!.note).toMatch(
      /^Perhaps the name of a child of this class, from 0:00 to 0:16 of the take\./,
    )
    expect(cover!.keys[0]!.box.y).toBeLessThan(box.y)
    expect(cover!.keys[0]!.box.x).toBeGreaterThan(box.x - box.w * 0.35)
  })
  test('missed in one picture, it is covered through; missed in many, it is covered apart', () => {
    const at = (...frames: number[]) =>
      coversFor(
        'address',
        frames.map((frame) => ({ frame, boxes: [box] })),
        240,
        9000,
      )
    expect(at(0, 480).map((c) => [c.from, c.to])).toEqual([[0, 721]])
    expect(at(0, 960)).toHaveLength(2)
  })
  test('faces and all kinds of writing of a take, each with a name of its own', () => {
    const written = {
      every: 240,
      seen: (['child', 'place', 'address', 'telephone'] as const).map((what) => ({
        what,
        frame: 0,
        boxes: [box],
      })),
    }
    const faces = [0, 60].map((frame) => ({ frame, boxes: [box] }))
    const covers = coversOf({ every: 60, faces, written }, 900)
    expect(covers.map((c) => c.what)).toEqual(['face', 'name', 'name', 'number', 'number'])
    expect(new Set(covers.map((c) => c.id)).size).toBe(5)
    expect(coversOf({ every: 60, faces: [], written: null }, 900)).toEqual([])
  })
})
