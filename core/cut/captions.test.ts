import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import { type CutList, type CutSegment, plainList } from '../contracts/cut.ts'
import { defaultHouseStyle } from '../contracts/house-style.ts'
import { readCaptions, toSrt, toVtt } from '../film/desk/captions.ts'
import { hear } from '../film/judge/heard.ts'
import { simulate } from '../script/simulate.ts'
import { captionBreaks, lineLetters, linesOf } from './break-lines.ts'
import { captionLimits, captionsOf, captionText, readingSpeed } from './captions.ts'
import { changesBetween } from './changed.ts'
import { chapterMetadata, chaptersOf, chapterText } from './chapters.ts'
import { descriptionsOf } from './described.ts'
import { lessonOf, said } from './test-words.ts'

const usual = { style: defaultHouseStyle, age: 4 }

const A = 'aaaaaaaa-0000-4000-8000-000000000001'
const words = fc
  .array(fc.stringMatching(/^[a-z]{1,12}[.,]?$/), { minLength: 1, maxLength: 40 })
  .map((w) => w.join(' '))
const row = (segmentId: string, frames: number, items: CutSegment['items'] = []): CutSegment => ({
  segmentId,
  takeId: A,
  items: [{ kind: 'clip', id: 'c', takeId: A, from: 0, to: frames, why: null }, ...items],
  overlays: [],
  byHand: true,
})

describe('lines of captions', () => {
  test('every word stands once and in order, two lines of at most 37 letters a caption', () =>
    fc.assert(
      fc.property(words, (text) => {
        const parts = captionBreaks(text)
        expect(parts.flat(2).join(' ')).toBe(text)
        for (const lines of parts) {
          expect(lines.length).toBeLessThanOrEqual(2)
          for (const l of lines) expect(l.join(' ').length).toBeLessThanOrEqual(lineLetters)
        }
      }),
    ))
  test.each([
    'Bobbin looks at all of his parcels and then he says that four add three equals seven, so they all go in.',
    'Now we know that seven take away two equals five and we can put the empty box back on its shelf.',
    'Here is the sum that we have been looking for all this time: 14 + 3 = 17. Can you see it on the line?',
  ])('a number sentence stands in one caption: %s', (text) => {
    const sentence = text.match(
      /four add three equals seven|seven take away two equals five|14 \+ 3 = 17/,
    )![0]
    expect(
      captionBreaks(text).some((lines) =>
        lines
          .map((l) => l.join(' '))
          .join(' ')
          .includes(sentence),
      ),
    ).toBe(true)
  })
  test('a break falls after a sentence rather than after “the”', () => {
    const lines = linesOf('Bobbin is here. Now put the parcels into the box.').split('\n')
    expect(lines.some((l) => /\b(the|a|to|and)$/.test(l))).toBe(false)
  })
  test('a word longer than a line is broken, an empty text gives nothing', () => {
    expect(
      captionBreaks('x'.repeat(90))
        .flat(2)
        .every((w) => w.length <= lineLetters),
    ).toBe(true)
    expect(captionBreaks('  ')).toEqual([])
  })
  test('letters of other scripts and signs beyond the first plane are counted as letters', () =>
    expect(
      linesOf('😀 '.repeat(12).trim())
        .split('\n')
        .every((l) => [...l].length <= lineLetters),
    ).toBe(true))
})

const doc = lessonOf(
  '# Post\n\n## Show {show}\nDo: Lay a ten frame\nDo: Put 4 saffron on the frame\nSay: Bobbin has 4 parcels.\nDo: Put 3 blue on the frame\nSay: 4 + 3 = 7\n## Try {alone}\nSay: Your turn now.',
)
const [show, turn] = [doc.segments[0]!, doc.segments[1]!]
const heard = hear(
  show,
  [...said('bobbin has four parcels', 1), ...said('four add three equals seven', 5)],
  10,
  usual,
)
const part = { segment: show, cut: row(show.id, 300), hearings: new Map([[A, heard]]) }

describe('captions', () => {
  test('signs are shown where the house shows them at that age, and said in its words where not', () => {
    expect(
      captionText('say', '4 + 3 = 7', {
        ...defaultHouseStyle,
        symbols: 'never',
        add: 'and',
        equals: 'makes',
      }),
    ).toBe('4 and 3 makes 7')
    expect(captionText('say', '4 + 3 = 7', defaultHouseStyle, 5)).toBe('4 + 3 = 7')
    expect(captionText('say', '4 + 3 = 7', defaultHouseStyle, 3)).toBe('4 add 3 equals 7')
  })
  test('words and times changed by hand go with the take; an emptied one is gone', () => {
    const [first, second] = captionsOf([part], { style: defaultHouseStyle })
    const edited = captionsOf([part], {
      style: defaultHouseStyle,
      edits: [
        { id: first!.id, text: 'Bobbin has four.', start: 2, end: null },
        { id: second!.id, text: '', start: null, end: null },
      ],
    })
    expect(edited.map((c) => [c.text, Math.round(c.start * 10) / 10, c.edited])).toEqual([
      ['Bobbin has four.', 2, true],
    ])
  })
  test('slow captions are on screen longer, none over the next', () => {
    const quick = {
      ...part,
      hearings: new Map([
        [
          A,
          hear(
            show,
            [...said('bobbin has four parcels', 1, 0.15), ...said('four add three equals seven', 5, 0.15)],
            10,
            usual,
          ),
        ],
      ]),
    }
    const [plain, slow] = [
      captionsOf([quick], { style: defaultHouseStyle }),
      captionsOf([quick], { style: defaultHouseStyle, speed: 'slow' }),
    ]
    expect(slow[0]!.end - slow[0]!.start).toBeGreaterThan(plain[0]!.end - plain[0]!.start)
    expect(readingSpeed(slow[0]!)).toBeLessThanOrEqual(captionLimits.slow + 0.01)
    slow.slice(1).forEach((c, i) => expect(c.start).toBeGreaterThanOrEqual(slow[i]!.end))
  })
  test('what is heard over another picture is captioned where it is heard', () => {
    const B = 'bbbbbbbb-0000-4000-8000-000000000002'
    const voiced: CutSegment = {
      ...row(show.id, 0),
      items: [
        { kind: 'clip', id: 'v', takeId: B, from: 0, to: 150, why: null, voice: { takeId: A, from: 15 } },
      ],
    }
    expect(
      captionsOf([{ ...part, cut: voiced }], { style: defaultHouseStyle }).map(
        (c) => Math.round(c.start * 10) / 10,
      ),
    ).toEqual([0.5, 4.5])
  })
  test('markup, right-to-left letters and smileys come through both formats as they are', () => {
    const cues = [
      { start: 0, end: 2, text: '<script>alert</script> & done' },
      { start: 2, end: 4, text: 'שלום 🎈 سبعة' },
      { start: 4, end: 5, text: 'a\n\nb --> c' },
    ]
    expect(toVtt(cues)).not.toContain('<script>')
    expect(readCaptions(toVtt(cues)).map((c) => c.text)).toEqual([
      '<script>alert</script> & done',
      'שלום 🎈 سبعة',
      'a b → c',
    ])
    expect(toSrt(cues).split(/\n\n/)).toHaveLength(3)
  })
})

test('the table is described where it changes, before the words that need it', () => {
  const told = descriptionsOf([part], simulate(doc))
  expect(told.map((c) => c.text)).toEqual([
    'ten frame: 4 saffron, 6 empty',
    'ten frame: 4 saffron, 3 blue, 3 empty',
  ])
  expect(told[0]!.start).toBeLessThan(1.1)
  expect(told[1]!.start).toBeLessThan(5.1)
  expect(told[1]!.start).toBeGreaterThanOrEqual(told[0]!.end)
})
describe('chapters', () => {
  const stop = {
    kind: 'card' as const,
    id: 'k',
    look: 'stop' as const,
    title: 'Stop',
    lines: [],
    frames: 90,
    stepId: null,
    why: null,
  }
  const parts = [
    {
      ...part,
      cut: row(show.id, 300, [stop, { kind: 'clip', id: 'd', takeId: A, from: 300, to: 420, why: null }]),
    },
    { segment: turn, cut: row(turn.id, 90), hearings: new Map() },
  ]
  test('are the segments, each stop, and where one comes back to', () => {
    expect(chaptersOf(parts).map((c) => [Math.round(c.start), c.title.split(':')[0], c.stop])).toEqual([
      [0, 'Show', false],
      [10, 'Stop here and have a go', true],
      [13, 'Go on', false],
      [17, 'Try', false],
    ])
    chaptersOf(parts)
      .slice(1)
      .forEach((c, i) => expect(c.start).toBe(chaptersOf(parts)[i]!.end))
    expect(chapterText(chaptersOf(parts)).split('\n')[3]).toBe('0:17 Try')
  })
  test('signs that mean something to the file are escaped', () =>
    expect(chapterMetadata([{ start: 0, end: 1, title: 'a=b;c#d\\e', stop: false }])).toContain(
      'title=a\\=b\\;c\\#d\\\\e',
    ))
})
test('what changed between two cuts is told by segment, in words', () => {
  const list = (...rows: CutSegment[]): CutList => ({ ...plainList, segments: rows })
  const title = (id: string) => (id === show.id ? 'Show' : 'Try')
  const before = list(row(show.id, 300), row(turn.id, 90))
  expect(changesBetween(before, before, title)).toEqual([])
  expect(changesBetween(before, list(row(show.id, 240), row(turn.id, 90)), title)).toEqual([
    'Cut anew: Show, 2 s shorter.',
  ])
  expect(changesBetween(before, list(row(show.id, 300)), title)).toEqual(['Left out: Try.'])
  expect(changesBetween(list(row(show.id, 300)), before, title)).toEqual(['New: Try.'])
})
