import fs from 'node:fs'
import path from 'node:path'
import { describe, expect, test } from 'vitest'
import type { LiveState } from '../contracts/live.ts'
import { readTypedNumber } from '../look/typed-number.ts'
import { fromMarkdown } from '../script/formats/markdown.ts'
import { nextAct } from './next-act.ts'
import { runOf } from './run.ts'
import { after, roundNow, startState } from './state.ts'
import { style } from './testing.ts'
import { seenBy } from './view.ts'

const folder = path.join(import.meta.dirname, '../lessons')
const files = fs.readdirSync(folder).filter((f) => f.endsWith('.md'))
const by = { id: '00000000-0000-4000-8000-000000000001', name: 'Marnie', desk: 'one' }

describe.each(files)('%s given live', (file) => {
  let n = 0
  const { lesson } = fromMarkdown(fs.readFileSync(path.join(folder, file), 'utf8'), () => `s${n++}`)
  const run = (s: LiveState) => runOf(lesson, style, null, s)

  test('is led to its end by one key, every stop and question a round, and no home is told an answer on the way', () => {
    // Everything that may be asked is.
    let s: LiveState = { ...startState(lesson), later: [], said: [] }
    const r = run(s)
    let at = 0
    for (let k = 0; k < 600 && s.phase !== 'over'; k++) {
      const next = nextAct(r, s, at, 'card')
      if (next.from !== null) at = next.from
      else if (next.act) {
        s = after(s, r, { act: next.act, at, by })
        at += 2000
      }
      const seen = seenBy(r, s, style, at)
      expect(JSON.stringify(seen)).not.toMatch(/"answer"|"also"|"right"|"pairs"/)
      const round = roundNow(s)
      if (round?.spec && seen.round?.task) expect(seen.round.task.kind).toBe(round.spec.kind)
    }
    expect(s.phase).toBe('over')
    const rounds = r.lines.filter((l) => l.kind === 'round')
    expect(s.rounds.map((r) => r.prompt)).toEqual(rounds.map((l) => l.words))
    expect(rounds.length).toBeGreaterThan(1)
    expect(s.rounds.some((r) => /press play/i.test(r.prompt))).toBe(false)
  })
  test('takes as long as its rounds and silences do, and no segment is lost', () => {
    const r = run(startState(lesson))
    expect(r.segments.reduce((sum, x) => sum + x.to - x.from, 0)).toBe(r.lines.length)
    expect(r.lines.every((l) => Number.isFinite(l.seconds) && l.seconds >= 0)).toBe(true)
    expect(r.seconds).toBeGreaterThan(60)
  })
  test('what is worked out of a spoken question stands in what is said after it, where a number is said at all', () => {
    const r = run({ ...startState(lesson), later: [], said: [] })
    const told = r.lines.filter((l) => l.offered && l.kind === 'round' && l.task?.kind === 'number')
    const agree = told.flatMap((l) => {
      // The teacher's next words, as far as they tell a number.
      const next = r.lines
        .slice(l.index + 1, l.index + 4)
        .find((x) => x.step.verb === 'say' || x.step.verb === 'reveal')
      const numbers = (next?.words.match(/[a-z]+(?:-[a-z]+)?|\d+/gi) ?? []).flatMap(
        (w) => readTypedNumber(w) ?? [],
      )
      return numbers.length && l.task?.kind === 'number' ? [numbers.includes(l.task.answer)] : []
    })
    expect(agree.filter((a) => !a).length).toBe(0)
  })
})
