import { aspectOf, stateAsked } from '../language/truth/aspects.ts'
import { everyNumber, isNarrow, numbersFor } from '../language/truth/shown.ts'
import { cameTo, ledgerOf } from '../language/truth/story.ts'
import { sentencesSaid } from '../language/truth/terms.ts'
import type { Word } from '../language/words.ts'
import { wordsOf } from '../language/words.ts'
import type { Moment } from '../simulate.ts'
import { thingsOn } from '../table/state.ts'
import { answerTo } from '../worked-out.ts'
import { at, type Finding, type NearRule } from './finding.ts'
import { cardClaims, claimsOf, comparedOnTable, sameClaims, wholeClaims } from '../language/truth/claims.ts'

const unsure = (f: Finding): Finding => ({ ...f, certain: false })
/** Numbers a spoken line says, "nothing" and "none" among them; "one" where it only points is none. */
function numbersSpoken(words: readonly Word[]): number[] {
  return words.flatMap((w, i) => {
    if (w.n !== null) {
      if (w.t === 'one' && pointing(words, i)) return []
      return [w.n]
    }
    return ['nothing', 'none', 'nobody'].includes(w.t) ? [0] : []
  })
}
const pointing = (words: readonly Word[], i: number): boolean =>
  [
    'the',
    'that',
    'this',
    'which',
    'no',
    'every',
    'each',
    'other',
    'last',
    'first',
    'second',
    'lonely',
    'not',
    'any',
    'brave',
  ].includes(words[i - 1]?.t ?? '') || words[i + 1]?.t === 'of'

/** The question a moment answers: the last one asked before it with only time and hands between. */
function questionOf(list: readonly Moment[], i: number): Moment | null {
  for (let k = i - 1; k >= 0 && k >= i - 4; k--) {
    const m = list[k]!
    if (m.segment !== list[i]!.segment) return null
    if (m.step.verb === 'ask') return m.step.task ? null : m
    if (!['wait', 'do', 'count', 'pause'].includes(m.step.verb)) return null
  }
  return null
}

/** "How many stayed?" … "Four stayed.": what is told against what the question comes to. */
export const toldAnswer: NearRule = (m, i, moments) => {
  if (
    !['reveal', 'say', 'write'].includes(m.step.verb) ||
    m.step.deliberate ||
    m.segment.audience === 'adults'
  )
    return []
  const ask = questionOf(moments, i)
  if (!ask || ask.step.deliberate) return []
  const words = wordsOf(m.step.text)
  const said = [...new Set(numbersSpoken(words))]
  if (said.length !== 1) return []
  const n = said[0]!
  if (m.step.verb === 'write' && !/^\s*\d+\s*$/.test(m.step.text)) return []
  const asked = answerTo(ask) ?? writtenAsked(m, ask)
  if (asked !== null)
    return asked === n || isTalk(words, n)
      ? []
      : [at(m, 'answer-wrong', { case: 'question', said: n, right: asked })]
  return fromTable(m, ask, n)
}
/** "Who can write thirty-one?" and a number is written. */
function writtenAsked(m: Moment, ask: Moment): number | null {
  if (m.step.verb !== 'write' || !/\b(write|writes|wrote|written)\b/i.test(ask.step.text)) return null
  const numbers = [...new Set(numbersSpoken(wordsOf(ask.step.text)))]
  return numbers.length === 1 ? numbers[0]! : null
}
/** "… so we say ninety-one", "I have sixteen straws": a number summed up that the table shows in no way. */
export const summedUp: NearRule = (m) => {
  if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate || m.segment.audience === 'adults')
    return []
  if (!thingsOn(m.before).length) return []
  return sentencesSaid(m.step.text).flatMap(({ words, end }): Finding[] => {
    const plain = words.map((w) => w.t).join(' ')
    const last = words.findLastIndex((w) => w.n !== null)
    const sums = words
      .slice(Math.max(0, last - 3), last)
      .map((w) => w.t)
      .join(' ')
    if (
      end === '?' ||
      last < 0 ||
      !/\b(we say|i have|we have|that is|that makes|so it is|they make|makes)$/.test(sums) ||
      /\b(if|not|no|would|each|every)\b/.test(plain)
    )
      return []
    const n = words[last]!.n!
    // "One more makes ten": said of what would lie there.
    const more = words.findIndex((w, i) => w.n !== null && words[i + 1]?.t === 'more')
    const coming = more >= 0 && more < last ? words[more]!.n! : plain.startsWith('another one') ? 1 : 0
    return everyNumber(m.before).has(n - coming) || everyNumber(m.after).has(n)
      ? []
      : [
          unsure(
            at(m, 'answer-wrong', {
              case: 'table',
              said: n,
              right: thingsOn(m.before).filter((t) => !t.crossed).length,
            }),
          ),
        ]
  })
}
/** A number of what was asked, said again: "Ten less than sixty is …" repeats the question. */
const isTalk = (words: readonly Word[], _n: number): boolean =>
  words.some((w) => ['think', 'maybe', 'perhaps'].includes(w.t))

function fromTable(m: Moment, ask: Moment, n: number): Finding[] {
  const text = `${ask.step.text}`
  if (
    !/\b(how many|how much|how high|how tall|how long|what number|what does|what do|how do we say|what (must|should|goes|is|are)|any)\b/i.test(
      text,
    )
  )
    return []
  const saidIn = sentencesSaid(m.step.text).find((s) => s.words.some((w) => w.n === n))
  const [asks, tells] = [stateAsked(text), stateAsked(saidIn?.words.map((w) => w.t).join(' ') ?? m.step.text)]
  // Asked of those that stand, told of those that fell: the telling speaks for itself.
  const state = asks === 'difference' || tells === 'seen' || asks === 'free' ? asks : (tells ?? asks)
  const tables = [m.before, ask.before]
  const narrow = aspectOf(`${text} ${m.step.text}`, m.before, state)
  const spots = narrow.spots.length > 1 && state !== 'difference' ? [] : narrow.spots
  const numbers = tables.flatMap((t) => numbersFor({ ...narrow, spots }, t))
  if (isNarrow({ ...narrow, spots }) && numbers.length) {
    if (numbers.includes(n)) return []
    return [at(m, 'answer-wrong', { case: 'question', said: n, right: numbers[0]! })]
  }
  if (!tables.some((t) => thingsOn(t).length || t.taken || t.mats.some((x) => x.line?.hops.length))) return []
  const shown = new Set(tables.flatMap((t) => [...everyNumber(t)]))
  if (shown.has(n)) return []
  return [
    at(m, 'answer-wrong', {
      case: 'table',
      said: n,
      right: thingsOn(m.before).filter((t) => !t.crossed).length,
    }),
  ]
}
/** A story goes on: "Nine parcels. She lost two. Now she has seven." — held against what it has come to. */
export const storyGoesOn: NearRule = (m, i, moments) => {
  if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate) return []
  const before = moments[i - 1]
  const told =
    before &&
    before.segment === m.segment &&
    ['say', 'ask'].includes(before.step.verb) &&
    !before.step.deliberate
      ? before.step.text
      : ''
  const own = sentencesSaid(m.step.text)
  const last = own.at(-1)
  if (!last) return []
  const earlier = own
    .slice(0, -1)
    .map((s) => `${s.words.map((w) => w.t).join(' ')}.`)
    .join(' ')
  const ledger = ledgerOf(earlier && /\d|\p{L}/u.test(earlier) && own.length > 1 ? earlier : told)
  const tells = last.words.map((w) => w.t).join(' ')
  const said = cameTo(`${tells}${last.end}`)
  if (!ledger || said === null || ledger.said.includes(said)) return []
  if (
    !/\b(now|gives|give|come|comes|coming|makes|that is|sits?|stands?|left|altogether|in all|all day|will|are|is|have|has)\b/i.test(
      tells,
    )
  )
    return []
  if (/\b(more|each|every|first|then|today|tomorrow|if)\b/i.test(tells)) return []
  const right = /\b(left|stay|stays|remain|remains)\b/i.test(tells) ? [ledger.less] : ledger.now
  return right.includes(said)
    ? []
    : [unsure(at(m, 'answer-wrong', { case: 'story', said, right: right[0]! }))]
}

/** What a line says of groups of the table: by colour, place, state, by more and fewer, by shares. */
export const saidOfTable: NearRule = (m, i, moments) => {
  const next = moments[i + 1]
  const found = untrueOfTable(m, m.before)
  // What is said may be what hands do next.
  if (
    !found.length ||
    next?.step.verb !== 'do' ||
    next.segment !== m.segment ||
    next.after === next.before ||
    next.actions.some((a) => a.type === 'clear' || a.type === 'away')
  )
    return found
  return untrueOfTable(m, next.after).length ? found : []
}
function untrueOfTable(m: Moment, table: Moment['before']): Finding[] {
  if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate || m.segment.audience === 'adults')
    return []
  const { text } = m.step
  if (!table.mats.length) return []
  const claims = [...claimsOf(text, table), ...wholeClaims(text, table), ...cardClaims(text, table)]
  const found = claims.map((c) => at(m, 'claim-table', { said: c.said, there: c.there[0]! }))
  const compared = comparedOnTable(text, table).map((c) =>
    at(m, 'false-sentence', { case: 'comparison', sentence: c.text, right: c.right }),
  )
  const unequal = sameClaims(text, table)
  return [
    ...found,
    ...compared,
    ...(unequal
      ? [at(m, 'false-sentence', { case: 'comparison', sentence: text.replace(/[.!]$/, ''), right: unequal })]
      : []),
  ]
}

const putWords = new Set(
  'drops drop puts put stores store posts post pops lays hangs places sets stands packs loads fills throws adds tips brings lifts piles stacks climbs plops lands hops sits comes'.split(
    ' ',
  ),
)
const takeWords = new Set(
  'eaten eat eats ate flying fly flies fall falls fell topple topples tumble roll rolls rolled gone blows blew sails takes took away snap snaps burst leaves leave'.split(
    ' ',
  ),
)
const shareWords = new Set('share shares shared'.split(' '))

/** "Otto drops seven fish into the tub", and six are put there: what is said of hands and what the next hands do. */
export const saidAndDone: NearRule = (m, i, moments) => {
  if (m.step.verb !== 'say' || m.step.deliberate || m.segment.audience === 'adults') return []
  const next = moments[i + 1]
  const last = moments[i - 1]
  return sentencesSaid(m.step.text).flatMap(({ words, end }): Finding[] => {
    const numbers = words.filter(
      (w, k) => w.n !== null && !(w.t === 'one' && pointing(words, k)) && words[k - 1]?.t !== 'us',
    )
    if (
      end === '?' ||
      numbers.length !== 1 ||
      words.some((w) =>
        ['if', 'when', 'yesterday', 'on monday', 'were', 'was', 'more', 'another'].includes(w.t),
      )
    )
      return []
    const n = numbers[0]!.n!
    const verb = (set: ReadonlySet<string>) => words.some((w) => set.has(w.t))
    for (const near of [next, last]) {
      if (!near || near.segment !== m.segment || near.step.verb !== 'do' || near.error) continue
      const done = doneBy(near, { put: verb(putWords), take: verb(takeWords), share: verb(shareWords) })
      if (done === null) continue
      const whole = thingsOn(near.after).filter((t) => !t.crossed).length
      if (
        done === n ||
        (n === whole &&
          words.some((w) => ['now', 'altogether', 'all', 'has', 'have', 'left', 'stay'].includes(w.t)))
      )
        return []
      return near === next ? [at(m, 'story-other', { said: n, done })] : []
    }
    return []
  })
}
/** How many things a moment's hands put, take or share, where the words say so too. */
function doneBy(m: Moment, says: { put: boolean; take: boolean; share: boolean }): number | null {
  const { actions } = m
  const puts = actions.flatMap((a) => (a.type === 'put' ? [a.count] : []))
  if (says.share && /\bshare/i.test(m.step.text))
    return (
      puts.reduce((s, x) => s + x, 0) ||
      actions.reduce((s, a) => s + (a.type === 'move' ? a.keys.length : 0), 0)
    )
  if (says.take) {
    const gone = actions.reduce(
      (s, a) => s + (a.type === 'take' || (a.type === 'cross' && a.crossed) ? a.keys.length : 0),
      0,
    )
    if (gone || !says.put) return gone || null
  }
  return says.put && puts.length === 1 ? puts[0]! : null
}
