import { countWays, ways, type WaysRule, waysInWords } from '../plan/numbers/facts.ts'
import { numbersIn, tokens } from '../plan/numbers/names.ts'

interface WayJudged {
  text: string
  parts: number[]
  verdict: 'valid' | 'false' | 'repeated' | 'turn-round' | 'zero' | 'unread'
}
export interface WaysReading {
  total: number
  parts: number
  rule: WaysRule
  ruleInWords: string
  possible: number
  found: number
  list: WayJudged[]
  missing: number[][]
  complete: boolean
  /** 0–1: share of neighbours that differ by one step in the same direction. */
  systematic: number
  /** How the order reads in words. */
  order: 'in order' | 'partly in order' | 'no order' | 'too few to tell'
}

const key = (parts: readonly number[], ordered: boolean): string =>
  (ordered ? parts : [...parts].sort((a, b) => b - a)).join('+')

/** Splits a child's list into entries: "1+9, 2 and 8; 8+2", one a line, or "10 = 1 + 9". */
function readWays(text: string): { text: string; parts: number[] }[] {
  return text
    .split(/[,;\n/]|…|\.\.\./)
    .map((t) => t.trim())
    .filter(Boolean)
    .map((entry) => {
      const [left, right] = entry.split('=')
      // The total may stand on either side; the parts are on the side with more numbers.
      const read = (s: string | undefined) =>
        numbersIn(tokens((s ?? '').replace(/&/g, ' and '))).map((n) => n.value)
      const [a, b] = [read(left), read(right)]
      return { text: entry, parts: a.length >= b.length ? a : b }
    })
}

/**
 * Judges a list of splits of `total` into `parts` by a convention: valid, false, repeated, turn-rounds (where they
 * are no new way), missing ones, and how systematically the list was worked through. Total 0–100, parts 2–6.
 * @throws RangeError outside these.
 */
export function judgeWays(total: number, text: string, rule: WaysRule, parts = 2): WaysReading {
  if (!Number.isInteger(total) || total < 0 || total > 100)
    throw new RangeError(`The whole should be 0 to 100, not ${total}.`)
  if (parts < 2 || parts > 6) throw new RangeError(`Two to six parts, not ${parts}.`)
  const seen = new Set<string>()
  const seenAnyway = new Set<string>()
  const list = readWays(text).map(({ text: entry, parts: nums }): WayJudged => {
    const judged = (verdict: WayJudged['verdict']): WayJudged => ({ text: entry, parts: nums, verdict })
    if (nums.length < 2) return judged('unread')
    if (nums.length !== parts || nums.reduce((a, b) => a + b, 0) !== total) return judged('false')
    if (!rule.zero && nums.includes(0)) return judged('zero')
    const k = key(nums, rule.ordered)
    if (seen.has(k))
      return judged(!rule.ordered && !seenAnyway.has(key(nums, true)) ? 'turn-round' : 'repeated')
    seen.add(k)
    seenAnyway.add(key(nums, true))
    return judged('valid')
  })
  const missing = ways(total, parts, rule).filter((w) => !seen.has(key(w, rule.ordered)))
  const { systematic, order } = orderOf(list)
  return {
    total,
    parts,
    rule,
    ruleInWords: waysInWords(rule),
    possible: countWays(total, parts, rule),
    found: seen.size,
    list,
    missing,
    complete: missing.length === 0,
    systematic,
    order,
  }
}

/** Working in order shows as one part going up or down by one from entry to entry; a turn-round beside its partner is order of another kind. */
function orderOf(list: readonly WayJudged[]): Pick<WaysReading, 'systematic' | 'order'> {
  const firsts = list.filter((w) => w.verdict !== 'unread' && w.parts.length > 1).map((w) => w.parts)
  if (firsts.length < 4) return { systematic: 0, order: 'too few to tell' }
  const steps = firsts.slice(1).map((p, i) => p[0]! - firsts[i]![0]!)
  const turned = firsts
    .slice(1)
    .map((p, i) => p.length === 2 && p[0] === firsts[i]![1] && p[1] === firsts[i]![0] && p[0] !== p[1])
  const down = steps.filter((s) => s === -1).length
  const up = steps.filter((s) => s === 1).length
  const runs = Math.max(down, up) / steps.length
  const pairs = (turned.filter(Boolean).length * 2) / firsts.length
  const systematic = Math.round(Math.max(runs, pairs) * 100) / 100
  return {
    systematic,
    order: systematic >= 0.8 ? 'in order' : systematic >= 0.45 ? 'partly in order' : 'no order',
  }
}
