import { describe, expect, test } from 'vitest'
import { defaultHouseStyle } from '../../contracts/house-style.ts'
import { told } from '../../findings/say.ts'
import { fromMarkdown } from '../formats/markdown.ts'
import plants from './cases/plants.json' with { type: 'json' }
import right from './cases/right.json' with { type: 'json' }
import type { Finding } from './finding.ts'
import { proofread } from './proof.ts'

interface Case {
  id: string
  front?: string[]
  segments: [title: string, kind: string, lines: string[]][]
}
interface Planted extends Case {
  planted:
    | { segment: number; line: number; mended: string | null }
    | { front: string; mended: string; mentions: string }
}

const kit =
  'Needs: 40 two-faced counters, 40 letters, 20 wooden blocks, 20 pebbles, 10 pegs, 20 skittles, 3 ten frame, 1 part-whole drawing, 1 two shelves, 6 plates, 1 jar, 1 number line, 1 hundred square, 1 dot card, 1 pair plate, 1 rail with pegs, 20 number cards, 2 die, 1 spinner, 1 bowl with slips'
const aboutThings = /listed|unused|asked-late/
let ids = 0
/** Findings of a case with the line each stands at; of its things only where it has a list of its own. */
function found(c: Case): { at: number | null; finding: Finding }[] {
  const text = ['# T', '', 'Age: 6', ...(c.front ?? [kit])]
  for (const [title, kind, lines] of c.segments) text.push('', `## ${title} {${kind}}`, '', ...lines)
  const { lesson } = fromMarkdown(`${text.join('\n')}\n`, () => `id${ids++}`)
  const { findings, moments } = proofread(lesson, defaultHouseStyle)
  const lines = new Map(moments.map((m, i) => [m.step.id, i]))
  return findings
    .filter((f) => c.front || (f.stepId !== null && !aboutThings.test(f.code)))
    .map((finding) => ({ at: finding.stepId ? (lines.get(finding.stepId) ?? null) : null, finding }))
}
const mended = (c: Planted): Case => {
  const p = c.planted
  if ('front' in p) return { ...c, front: c.front!.map((l) => (l.startsWith(`${p.front}:`) ? p.mended : l)) }
  return {
    ...c,
    segments: c.segments.map(([title, kind, lines], i) => [
      title,
      kind,
      i === p.segment
        ? lines.flatMap((l, k) => (k === p.line - 1 ? (p.mended === null ? [] : [p.mended]) : [l]))
        : lines,
    ]),
  }
}
/** Codes of what is told as wrong at the planted line or the next, or about the thing that is wrong on the list. */
function toldAt(c: Case, p: Planted['planted']): string[] {
  const all = found(c).filter((x) => x.finding.severity === 'wrong')
  if ('front' in p) {
    const about = new RegExp(p.mentions, 'i')
    return all
      .filter((x) => about.test(told('script', x.finding) + JSON.stringify(x.finding.fix ?? '')))
      .map((x) => x.finding.code)
  }
  const line = c.segments.slice(0, p.segment).reduce((n, s) => n + s[2].length, 0) + p.line - 1
  return all.filter((x) => x.at === line || x.at === line + 1).map((x) => x.finding.code)
}

describe('a planted error is told, and what tells it is gone once the line is right', () => {
  test.each(plants as unknown as Planted[])('$id', (c) => {
    const [before, after] = [toldAt(c, c.planted), toldAt(mended(c), c.planted)]
    expect(before.filter((code) => !after.includes(code))).not.toEqual([])
  })
})
describe('right teaching is left in peace', () => {
  test.each(right as unknown as Case[])('$id', (c) => {
    const wrong = found(c).filter((x) => x.finding.severity === 'wrong')
    expect(wrong.map((x) => `${x.at}: ${x.finding.code}: ${told('script', x.finding)}`)).toEqual([])
  })
})
