import fc from 'fast-check'
import { describe, expect, test } from 'vitest'
import type { HeardFinding, HeardWord, Hearing } from '../../contracts/heard.ts'
import { fromMarkdown } from '../../script/formats/markdown.ts'
import { play } from '../../script/table/play.ts'
import { emptyTable } from '../../script/table/state.ts'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import { corrected, withCorrection } from './corrections.ts'
import { compareFirstFrame } from '../camera/first-frame.ts'
import { taught } from '../ear/pronounce.ts'
import { distanceForSize, follow, promptLines, sizeForDistance, startFollowing } from './prompter.ts'
import { facesOf, withRoll } from './rolls.ts'
import { sortClip } from './sort-clip.ts'
import { filmingOrder, resetCost } from './table-order.ts'
import { filmAgain, takeRows, toFilmAgain } from './take-sheet.ts'

const lesson = (text: string) => {
  let n = 0
  return fromMarkdown(text, () => `s${(n += 1)}`).lesson
}
const said = (text: string, from = 0, beat = 0.4): HeardWord[] =>
  text
    .split(' ')
    .map((word, i) => ({ word, start: from + i * beat, end: from + i * beat + 0.3, confidence: 1 }))
const post = lesson(`# Post

## Hello {hook}
Say: Hello. Bobbin has parcels to sort and needs your help.
Say: We will find ways to part a number in two.

## Watch {show}
Say: Bobbin has seven parcels for the long street.
Count: 1 to 7
Ask: How many go to the blue door?
Say: Four and three make seven.

## Together {together}
Say: Bobbin has five parcels for the short street.
Count: 1 to 5
Ask: How many go to the blue door?
Say: Two and three make five.

## Goodbye {close}
Say: You sorted parcels with me. Bobbin says thank you.
`)
const [, watch, together, bye] = post.segments

describe('a clip is sorted by what is said in it', () => {
  const sort = (text: string) =>
    sortClip(post.segments, said(text), text.split(' ').length * 0.4, defaultHouseStyle)
  test.each([
    ['you sorted parcels with me bobbin says thank you', 'Goodbye'],
    [
      'bobbin has seven parcels for the long street one two three four five six seven how many go to the blue door four and three make seven',
      'Watch',
    ],
    [
      'bobbin has five parcels for the short street one two three four five how many go to the blue door two and three make five',
      'Together',
    ],
    [
      'um hello bobbin has parcels to sort and needs help oops we will find ways to part the number in two',
      'Hello',
    ],
  ])('“%.40s…” is %s', (text, title) => {
    const s = sort(text)
    expect(post.segments.find((x) => x.id === s.segmentId)?.title).toBe(title)
    expect(s.matches[0]!.phrases[0]!.split(' ').length).toBeGreaterThan(2)
    expect(s.reason).toContain(s.matches[0]!.phrases[0])
  })
  test('half a take is still told, by the words only it has', () =>
    expect(sort('bobbin has five parcels for the short street one two three four five').segmentId).toBe(
      together!.id,
    ))
  test.each([
    ['the recipe needs two eggs and a little butter then stir it well for ten minutes', /Hardly/],
    ['how many go to the blue door', /%|could be|Hardly/],
    ['hm', /word or two/],
    ['', /Nothing|word or two/],
  ])('“%s” waits in the tray, with the reason', (text, reason) => {
    const s = sort(text)
    expect(s.segmentId).toBeNull()
    expect(s.reason).toMatch(reason)
  })
  test('several segments in one recording are parted in the silence between them', () => {
    const words = [
      ...said(
        'bobbin has seven parcels for the long street one two three four five six seven how many go to the blue door four and three make seven',
        2,
      ),
      ...said(
        'bobbin has five parcels for the short street one two three four five how many go to the blue door two and three make five',
        40,
      ),
      ...said('you sorted parcels with me bobbin says thank you', 80),
    ]
    const s = sortClip(post.segments, words, 90, defaultHouseStyle)
    expect(s.parts.map((p) => p.segmentId)).toEqual([watch!.id, together!.id, bye!.id])
    expect(s.parts[0]!.from).toBe(0)
    expect(s.parts.at(-1)!.to).toBe(90)
    s.parts.slice(1).forEach((p, i) => expect(p.from).toBe(s.parts[i]!.to))
    expect(s.parts[1]!.from).toBeGreaterThan(12)
    expect(s.parts[1]!.from).toBeLessThan(40)
  })
})

describe('the order of filming', () => {
  const table = (...lines: string[]) => play(lines)
  const seven = table('Lay out a ten frame', 'Put 7 on the frame')
  const five = table('Lay out a ten frame', 'Put 5 on the frame')
  const shelves = table('Lay out two shelves', 'Put 3 on the first shelf')
  test('moving one pile is as many moves as it has things', () => {
    expect(resetCost(five, seven)).toBe(2)
    expect(resetCost(seven, seven)).toBe(0)
    expect(resetCost(emptyTable, five)).toBe(resetCost(five, emptyTable))
  })
  test('what stands on the table is filmed first, then what is nearest to it', () => {
    const order = filmingOrder(seven, [
      { segmentId: 'a', before: shelves, after: shelves },
      { segmentId: 'b', before: five, after: five },
      { segmentId: 'c', before: seven, after: seven },
    ])
    expect(order.map((o) => o.segmentId)).toEqual(['c', 'b', 'a'])
    expect(order[0]!.moves).toBe(0)
  })
  test('no order needs fewer moves, for any few tables', () => {
    const any = fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 0, max: 9 })).map(([a, b]) => ({
      before: table('Lay out a ten frame', `Put ${a} on the frame`),
      after: table('Lay out a ten frame', `Put ${b} on the frame`),
    }))
    fc.assert(
      fc.property(fc.array(any, { minLength: 1, maxLength: 4 }), any, (list, start) => {
        const segments = list.map((t, i) => ({ segmentId: String(i), ...t }))
        const best = filmingOrder(start.after, segments).reduce((s, o) => s + o.moves, 0)
        const all = (rest: typeof segments, at: typeof start.after): number =>
          rest.length
            ? Math.min(
                ...rest.map(
                  (s, i) =>
                    resetCost(at, s.before) +
                    all(
                      rest.filter((_, k) => k !== i),
                      s.after,
                    ),
                ),
              )
            : 0
        expect(best).toBe(all(segments, start.after))
      }),
      { numRuns: 60 },
    )
  })
  test('more segments than every order can be weighed for are still all in the list', () => {
    const many = Array.from({ length: 20 }, (_, i) => ({
      segmentId: String(i),
      before: i % 2 ? five : seven,
      after: i % 2 ? five : seven,
    }))
    const order = filmingOrder(seven, many)
    expect(new Set(order.map((o) => o.segmentId)).size).toBe(20)
    expect(order.reduce((s, o) => s + o.moves, 0)).toBe(2)
  })
})

const finding = (code: HeardFinding['code'], certain = true): HeardFinding => ({
  code,
  start: 1,
  end: 2,
  stepId: null,
  expected: '',
  heard: '',
  certain,
  params: { asTold: `${code}.` },
})
const heard = (
  quality: number,
  ...findings: HeardFinding[]
): Pick<Hearing, 'quality' | 'findings' | 'drops' | 'pace'> => ({ quality, findings, drops: [], pace: 110 })

describe('the take sheet', () => {
  test('a clean take beats one with a slip, and the reason is said', () => {
    const rows = takeRows(
      [
        { id: 'a', number: 1, seconds: 30, hearing: heard(75, finding('count-skip')) },
        { id: 'b', number: 2, seconds: 31, hearing: heard(100) },
      ],
      30,
    )
    expect(rows.map((r) => r.best)).toEqual([false, true])
    expect(rows[1]!.reason).toBe('No slip; 100 of 100 against 75.')
    expect(rows[0]!.reason).toBe('count-skip.')
  })
  test('slips that can be cut away weigh less than one that cannot, whatever the score', () => {
    const rows = takeRows(
      [
        {
          id: 'a',
          number: 1,
          seconds: 30,
          hearing: heard(60, finding('false-start'), finding('dead-air'), finding('filler')),
        },
        { id: 'b', number: 2, seconds: 30, hearing: heard(80, finding('number-changed')) },
      ],
      0,
    )
    expect(rows.find((r) => r.best)!.id).toBe('a')
    expect(rows[0]!.ofPlan).toBeNull()
  })
  test('of equals, the one nearer to the planned length; drops do not count as length', () => {
    const rows = takeRows(
      [
        {
          id: 'a',
          number: 1,
          seconds: 34,
          hearing: { ...heard(100), drops: [{ from: 0, to: 4, reason: 'silence', note: '' }] },
        },
        { id: 'b', number: 2, seconds: 70, hearing: heard(100) },
      ],
      30,
    )
    expect(rows.find((r) => r.best)!.id).toBe('a')
    expect(rows[0]!.kept).toBe(30)
  })
  test('a doubt is no reason to film again', () =>
    expect(
      toFilmAgain(heard(80, finding('count-skip', false), finding('wait-short'), finding('recount'))),
    ).toEqual([]))
  test('what is missing and what cannot be mended is listed, with the moves; what is not heard yet waits', () => {
    const seven = play(['Lay out a ten frame', 'Put 7 on the frame'])
    const at = (
      segmentId: string,
      takes: Parameters<typeof filmAgain>[0][0]['takes'],
      table = emptyTable,
    ) => ({ segmentId, before: table, after: table, takes })
    const again = filmAgain(
      [
        at('clean', [{ id: '1', number: 1, seconds: 9, hearing: heard(100) }]),
        at('none', []),
        at(
          'slip',
          [{ id: '2', number: 1, seconds: 9, hearing: heard(70, finding('false-sentence')) }],
          seven,
        ),
        at('soon', [{ id: '3', number: 1, seconds: 9, hearing: null }]),
      ],
      seven,
    )
    expect(again.map((a) => [a.segmentId, a.why, a.moves])).toEqual([
      ['slip', 'slips', 0],
      ['none', 'no take', resetCost(seven, emptyTable)],
    ])
  })
})

describe('the prompter', () => {
  const s = lesson(
    '# P\n\n## Show {show}\nSay: Bobbin has seven parcels to sort into two places.\nDo: Put 7 on the table\nAsk: How many go to the blue door?\nWait: 5 s\nReveal: Four.\n',
  ).segments[0]!
  const lines = promptLines(s, 4, defaultHouseStyle, 120)
  const run = (state: ReturnType<typeof startFollowing>, seconds: number, speaking: boolean) => {
    let now = state
    for (let i = 0; i < Math.round(seconds * 10); i++) now = follow(now, lines, 0.1, speaking)
    return now
  }
  test('knows what to say, what hands do and what is silent', () =>
    expect(lines.map((l) => l.kind)).toEqual(['say', 'hands', 'say', 'wait', 'say']))
  test('holds in silence for as long as it lasts', () =>
    expect(run(startFollowing(), 60, false).line).toBe(0))
  test('holds in the middle of a line, however long the breath', () =>
    expect(run(run(startFollowing(), 1, true), 30, false).line).toBe(0))
  test('moves on after the line and a breath; waits for hands; then follows the voice', () => {
    let now = run(startFollowing(), lines[0]!.seconds, true)
    expect(now.line).toBe(0)
    now = run(now, 0.5, false)
    expect(now.line).toBe(1)
    now = run(now, 20, false)
    expect(now.line).toBe(1)
    expect(run(now, 0.4, true).line).toBe(2)
  })
  test('a voice quicker than the clock is followed after a longer breath, and learnt', () => {
    const quick = run(startFollowing(), lines[0]!.seconds * 0.55, true)
    expect(run(quick, 0.6, false).line).toBe(0)
    const now = run(quick, 1.1, false)
    expect(now.line).toBe(1)
    expect(now.rate).toBeLessThan(0.9)
  })
  test('a slow voice makes the next lines longer, within limits', () => {
    let now = startFollowing()
    for (let i = 0; i < 20; i++)
      now = {
        ...run(run({ ...now, line: 0 }, lines[0]!.seconds * now.rate * 1.3, true), 0.5, false),
        line: 0,
      }
    expect(now.rate).toBeGreaterThan(1.2)
    expect(now.rate).toBeLessThanOrEqual(1.6)
  })
  test('a count is done when its numbers were said and silence follows, however slowly or quickly', () => {
    const counting = promptLines(
      lesson('# P\n\n## Show {show}\nCount: 1 to 7\nSay: Seven.\n').segments[0]!,
      4,
      defaultHouseStyle,
      null,
    )
    const count = (said: number, gap: number) => {
      let now = startFollowing()
      const step = (seconds: number, speaking: boolean) => {
        for (let i = 0; i < Math.round(seconds * 10); i++) now = follow(now, counting, 0.1, speaking)
      }
      for (let i = 0; i < said; i++) {
        step(0.4, true)
        step(gap, false)
      }
      const during = now.line
      step(1.5, false)
      return [during, now.line]
    }
    expect(count(7, 0.5)).toEqual([0, 1])
    expect(count(7, 1.1)).toEqual([0, 1])
    expect(count(3, 0.5)).toEqual([0, 0])
  })
  test('a wait fills by itself', () => {
    const now = run(startFollowing(3), 4.8, false)
    expect(now.line).toBe(3)
    expect(run(now, 0.4, false).line).toBe(4)
  })
  test('never goes past the end', () =>
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.boolean(), fc.double({ min: 0.01, max: 3, noNaN: true })), { maxLength: 200 }),
        (ticks) => {
          let now = startFollowing()
          for (const [speaking, dt] of ticks) {
            const next = follow(now, lines, dt, speaking)
            expect(next.line - now.line === 0 || next.line - now.line === 1).toBe(true)
            now = next
          }
          expect(now.line).toBeLessThanOrEqual(lines.length)
        },
      ),
    ))
  test('a faster teacher gets shorter lines', () =>
    expect(promptLines(s, 4, defaultHouseStyle, 200)[0]!.seconds).toBeLessThan(
      promptLines(s, 4, defaultHouseStyle, 90)[0]!.seconds,
    ))
  test('letters grow with the distance: 47 pixels for a metre and a half', () => {
    expect(sizeForDistance(1500)).toBe(48)
    for (const d of [500, 1000, 2500]) expect(distanceForSize(sizeForDistance(d))).toBeGreaterThanOrEqual(d)
  })
})

describe('what the die really showed', () => {
  const doc = lesson(
    '# Dice\n\n## Game {game}\nDo: Roll 5\nDo: Put 5 on the table\nSay: Five came up. Put out two more.\nDo: Put 2 on the table\nWrite: 5 + 2 = 7\nReveal: Five add two equals seven.\n',
  )
  const game = doc.segments[0]!
  const rolled = (faces: number[], structure: 'add' | 'parts' = 'add') =>
    withRoll({ examples: [], aim: { ...doc.aim, structure } }, game, game.steps[0]!.id, faces)
  test('every later line follows, and the total with it', () => {
    const r = rolled([3])!
    expect(r.segment.steps.map((s) => s.text)).toEqual([
      'Roll 3',
      'Put 3 on the table',
      'Three came up. Put out two more.',
      'Put 2 on the table',
      '3 + 2 = 5',
      'Three add two equals five.',
    ])
    expect(r.changed.length).toBe(5)
  })
  test('where the whole is given it stays, and the other part follows', () =>
    expect(rolled([3], 'parts')!.segment.steps[4]!.text).toBe('3 + 4 = 7'))
  test('as written, or no roll at all: nothing', () => {
    expect(rolled([5])).toBeNull()
    expect(withRoll(doc, game, game.steps[1]!.id, [3])).toBeNull()
  })
  test('ids of steps stay, so that takes still belong to them', () =>
    expect(rolled([2])!.segment.steps.map((s) => s.id)).toEqual(game.steps.map((s) => s.id)))
  test.each([
    ['Roll 4', [4]],
    ['Roll 2 and 6', [2, 6]],
    ['Put 4 on the table', null],
  ])('%s shows %s', (text, faces) => expect(facesOf(text)).toEqual(faces))
})

describe('corrections', () => {
  const words = said('bobbin has heaven parcels')
  test('stand in for what was recognised, in its time', () => {
    const now = corrected(words, [{ from: 0.8, to: 1.1, heard: 'heaven', said: 'seven' }])
    expect(now.map((w) => w.word)).toEqual(['bobbin', 'has', 'seven', 'parcels'])
    expect(now[2]).toMatchObject({ start: 0.8, end: 1.1, confidence: 1 })
  })
  test('an empty one takes a word away; several words share the time', () => {
    expect(corrected(words, [{ from: 0, to: 0.3, heard: 'bobbin', said: '' }]).map((w) => w.word)).toEqual([
      'has',
      'heaven',
      'parcels',
    ])
    const three = corrected(words, [{ from: 0.8, to: 1.4, heard: 'heaven', said: '5, 6 and 7' }]).filter(
      (w) => w.start >= 0.79 && w.end <= 1.41,
    )
    expect(three.map((w) => w.word)).toEqual(['five', 'six', 'and', 'seven'])
  })
  test('a second one for the same place takes the first one’s', () => {
    const a = { from: 1, to: 2, heard: 'x', said: 'y' }
    expect(withCorrection([a], { ...a, said: 'z' })).toEqual([{ ...a, said: 'z' }])
    expect(withCorrection([a], { from: 0.5, to: 3, heard: 'w', said: 'v' })).toHaveLength(1)
    expect(withCorrection([a], { from: 4, to: 5, heard: 'w', said: 'v' })).toHaveLength(2)
  })
  test('a name teaches how it sounds; a number, or a word of no script, teaches nothing', async () => {
    const phones = (w: string) => Promise.resolve(`<${w}>`)
    expect(
      await taught(
        { segment: watch!, style: defaultHouseStyle },
        { from: 0, to: 1, heard: 'robin has', said: 'bobbin has' },
        phones,
      ),
    ).toEqual([{ word: 'bobbin', phones: '<robin>', heard: 'robin' }])
    expect(
      await taught(
        { segment: watch!, style: defaultHouseStyle },
        { from: 0, to: 1, heard: 'five', said: 'four' },
        phones,
      ),
    ).toEqual([])
    expect(
      await taught(
        { segment: watch!, style: defaultHouseStyle },
        { from: 0, to: 1, heard: 'robin', said: 'walrus' },
        phones,
      ),
    ).toEqual([])
    expect(
      await taught(
        { segment: watch!, style: defaultHouseStyle },
        { from: 0, to: 1, heard: 'robin has', said: 'bobbin' },
        phones,
      ),
    ).toEqual([])
  })
})

describe('the first picture of a clip', () => {
  const reading = (count: number, saffron: number, blue: number, slack = 0) => ({
    count,
    low: count - slack,
    high: count + slack,
    groups: [
      { colour: 'yellow', count: saffron },
      { colour: 'blue', count: blue },
    ],
    warnings: [],
  })
  const four = play(['Lay out a ten frame', 'Put 4 on the frame', 'Turn over 1'])
  test('as planned', () => expect(compareFirstFrame(reading(4, 3, 1), four)).toMatchObject({ agrees: true }))
  test('not put back', () =>
    expect(compareFirstFrame(reading(7, 6, 1), four)).toMatchObject({
      agrees: false,
      planned: 4,
      message: expect.stringContaining('Was it reset?') as string,
    }))
  test('colours swapped', () =>
    expect(compareFirstFrame(reading(4, 1, 3), four)).toMatchObject({
      agrees: false,
      message: expect.stringContaining('3 saffron and 1 blue are planned') as string,
    }))
  test('a doubtful reading that allows the plan is no alarm', () =>
    expect(compareFirstFrame(reading(6, 5, 1, 2), four).agrees).toBe(true))
  test('a bare table with things on it', () =>
    expect(compareFirstFrame(reading(3, 3, 0), emptyTable).agrees).toBe(false))
  test('a table that cannot be counted is left alone', () =>
    expect(compareFirstFrame(reading(3, 3, 0), play(['Lay out a number line 0 to 10'])).agrees).toBeNull())
})
