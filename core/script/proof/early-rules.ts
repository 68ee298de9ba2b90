import { askedOf } from '../language/truth/asked.ts'
import { expressionAt, sentencesSaid } from '../language/truth/terms.ts'
import { stem } from '../language/lexicon.ts'
import { hasUnknown, sentencesIn } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { thingsOn } from '../table/state.ts'
import { at, type Finding, type NearRule } from './finding.ts'

/** The sentences of a question that ask, and those before them that tell. */
function parted(text: string): { asks: string; tells: string } {
  const said = sentencesSaid(text).map((s) => ({
    text: s.words.map((w) => w.t).join(' '),
    asks: s.end === '?',
  }))
  return {
    asks: said
      .filter((s) => s.asks)
      .map((s) => s.text)
      .join('. '),
    tells: said
      .filter((s) => !s.asks)
      .map((s) => s.text)
      .join('. '),
  }
}
/** Results of the sums a text tells: "three plus six is nine" and "8 - 7 = 1" tell nine and one of these very numbers. */
const toldSums = (text: string): { value: number; parts: string }[] =>
  sentencesIn(text).flatMap((s) => {
    if (hasUnknown(s) || s.right.length !== 1) return []
    return [
      {
        value: s.right[0]!.value!,
        parts: s.left
          .map((t) => t.sign * t.value!)
          .sort()
          .join(),
      },
    ]
  })
/** The numbers of the one sum a question asks, as they are told. */
function askedParts(text: string): string | null {
  for (const { words } of sentencesSaid(text))
    for (let i = 0; i < words.length; i++) {
      const e = expressionAt(words, i)
      if (!e?.made) continue
      const minus = words.slice(e.from, e.to).some((w) => ['take', 'minus', '-', '−'].includes(w.t))
      return words
        .slice(e.from, e.to)
        .flatMap((w) => (w.n === null ? [] : [w.n]))
        .map((n, k) => (minus && k > 0 ? -n : n))
        .sort()
        .join()
    }
  return null
}

/** The answer stands in the question itself, or was told or written just before it. */
export const givenAway: NearRule = (m, i, moments) => {
  if (m.step.verb !== 'ask' || m.step.deliberate || m.segment.audience === 'adults') return []
  const { asks, tells } = parted(m.step.text)
  const answer = askedOf(`${asks}?`)
  const parts = askedParts(asks)
  if (
    answer !== null &&
    parts !== null &&
    toldSums(tells).some((s) => s.value === answer && s.parts === parts)
  )
    return [at(m, 'answer-early', {})]
  const before = moments
    .slice(Math.max(0, i - 2), i)
    .filter((x) => x.segment === m.segment && !x.step.deliberate)
  const told = before.find(
    (x) =>
      answer !== null &&
      parts !== null &&
      ['say', 'write'].includes(x.step.verb) &&
      toldSums(x.step.text).some((s) => s.value === answer && s.parts === parts),
  )
  if (told) return [at(told, 'answer-early', {})]
  return saidBefore(m, before.at(-1), m.step.text)
}
const small = new Set(
  'how many much the a an we our us did do does are is were was in of to on at and now there it they i you me my here so what have has'.split(
    ' ',
  ),
)
const content = (text: string): Set<string> =>
  new Set((text.toLowerCase().match(/\p{L}+/gu) ?? []).filter((w) => !small.has(w)).map(stem))
/** "We brought seven shells home." — "How many shells did we bring home?": the line before tells what is asked, of the very things. */
function saidBefore(m: Moment, before: Moment | undefined, question: string): Finding[] {
  if (
    !before ||
    before.step.verb !== 'say' ||
    !/\bhow many\b/i.test(question) ||
    /\b(left|more|fewer|altogether|in all|now|each|still|other)\b/i.test(question)
  )
    return []
  const numbers = sentencesSaid(before.step.text).flatMap((s) => s.words.filter((w) => w.n !== null))
  if (numbers.length !== 1 || /\d|\bone\b/.test(question)) return []
  const n = numbers[0]!.n!
  const shown = thingsOn(m.before).filter((t) => !t.crossed && !t.hidden).length
  if (shown !== n || before.after !== m.before) return []
  const [asked, told] = [content(question), content(before.step.text)]
  const shared = [...asked].filter((w) => told.has(w))
  return shared.length >= 2 && shared.length * 2 >= asked.size
    ? [{ ...at(before, 'answer-early', {}), certain: false }]
    : []
}

/** Told or uncovered, and only then given time to think. */
export const toldBeforeWait: NearRule = (m, i, moments) => {
  const [next, after] = [moments[i + 1], moments[i + 2]]
  if (
    m.step.verb !== 'ask' ||
    m.segment.audience === 'adults' ||
    !next ||
    !after ||
    after.step.verb !== 'wait' ||
    next.segment !== m.segment ||
    after.segment !== m.segment ||
    next.step.deliberate
  )
    return []
  const fix = { kind: 'remove' as const, stepId: next.step.id }
  if (
    next.step.verb === 'do' &&
    next.actions.some((a) => a.type === 'uncover') &&
    /\b(under|hidden|hiding|inside|lid|cloth|jar|covered|beneath)\b/i.test(m.step.text)
  )
    return [at(next, 'answer-before-wait', {})]
  if (next.step.verb !== 'say' || !/\b(how many|how much|which|what)\b/i.test(m.step.text)) return []
  const words = sentencesSaid(next.step.text).flatMap((s) => s.words)
  const numbers = words.filter((w) => w.n !== null)
  const hint =
    /\b(think|count|look|remember|start|from|hold|say it|show|before|until|seconds|can you|try)\b/i.test(
      next.step.text,
    )
  if (numbers.length !== 1 || words.length > 7 || hint || next.step.text.trim().endsWith('?')) return []
  const asked = askedOf(m.step.text)
  if (asked !== null) return asked === numbers[0]!.n ? [at(next, 'answer-before-wait', {}, fix)] : []
  return [{ ...at(next, 'answer-before-wait', {}, fix), certain: false }]
}
