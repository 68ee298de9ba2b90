import type { TaskSpec } from '../contracts/lesson.ts'
import type { Answer } from '../contracts/reply.ts'
import { isTrue, mended, sentencesIn, hasUnknown, shapeOf } from '../script/sentence.ts'
import type { Check } from './check.ts'
import { readTypedNumber } from './typed-number.ts'
import { judgeWays } from './ways.ts'
import { hiddenPlace, sentenceParts } from '../script/sentence-parts.ts'

type Of<K extends TaskSpec['kind']> = Extract<TaskSpec, { kind: K }>
const right = (shown: string, why = ''): Check => ({ verdict: 'right', shown, why })
const wrong = (shown: string, why: string): Check => ({ verdict: 'wrong', shown, why })
const look = (shown: string, why: string): Check => ({ verdict: 'look', shown, why })
const leftOpen: Check = { verdict: 'open', shown: '—', why: 'left open' }

/** Kinds that are answered in pieces: laid, ticked, listed, shared. */
export type PiecesTask = Exclude<TaskSpec, { kind: 'number' | 'choice' | 'photo' }>
/** Kinds where nothing given can be an answer: none fits, none goes. */
const mayBeEmpty = new Set<TaskSpec['kind']>(['several', 'cross'])
/** What nobody but a person can judge: words, a voice, a drawing. */
function looked(task: Of<'tell' | 'draw'>, answer: Answer | undefined): Check {
  const text = answer?.text?.trim() ?? ''
  if (task.kind === 'tell') {
    if (text) return look(text, 'in their own words')
    return answer?.recordingId ? look('a recording', 'to be listened to') : leftOpen
  }
  return answer?.drawing || answer?.photoId || text ? look(text || 'a drawing', 'to be looked at') : leftOpen
}
/** Checks an answer that was given in pieces. */
export function checkPieces(task: PiecesTask, answer: Answer | undefined): Check {
  if (task.kind === 'tell' || task.kind === 'draw') return looked(task, answer)
  const given = answer?.given
  // Nothing ticked is an answer where several may fit or none; nowhere else is it one.
  if (!given || (!mayBeEmpty.has(task.kind) && given.every((g) => !g.trim()))) return leftOpen
  return checks[task.kind](task as never, given)
}
/** How each kind is checked. */
const checks: {
  [K in Exclude<PiecesTask['kind'], 'tell' | 'draw'>]: (task: Of<K>, given: readonly string[]) => Check
} = {
  several: ticked,
  sentence: laid,
  ways: listed,
  order: ordered,
  gaps: filled,
  share: shared,
  match: matched,
  own: ownOnes,
  line: placed,
  circles: circled,
  cross: crossed,
  record: recorded,
}

function ticked(task: Of<'several'>, given: readonly string[]): Check {
  const asked = new Set(task.right.map((i) => task.choices[i]!))
  const shown = given.length ? given.join(', ') : 'none of them'
  const [missing, extra] = [[...asked].filter((a) => !given.includes(a)), given.filter((g) => !asked.has(g))]
  if (!missing.length && !extra.length) return right(shown)
  const words = [
    ...(extra.length ? [`not ${extra.join(', ')}`] : []),
    ...(missing.length ? [`also ${missing.join(', ')}`] : []),
  ]
  return wrong(shown, words.join('; '))
}

const numbersOf = (text: string): string =>
  (text.match(/\d+/g) ?? []).sort((a, b) => Number(a) - Number(b)).join(' ')
const plain = (text: string): string => text.replace(/\s/g, '').replace(/[−–]/g, '-')
/** Between two sentences that were laid. */
const nextOne = '/'
function laid(task: Of<'sentence'>, given: readonly string[]): Check {
  if (task.hidden !== undefined) {
    const parts = sentenceParts(task.sentence)
    const place = hiddenPlace(task.sentence, task.hidden)
    const shown = parts.with(place, given[0] ?? '?').join(' ')
    return given[0] === parts[place] ? right(shown) : wrong(shown, `${parts[place]} was asked`)
  }
  const each = given
    .join(' ')
    .split(nextOne)
    .map((t) => t.trim().split(' '))
    .filter((t) => t[0])
  const [first, ...more] = each.map((tiles) => laidOne(task, tiles))
  if (!first || (!more.length && (task.count ?? 1) === 1)) return first ?? leftOpen
  const all = [first, ...more]
  const shown = all.map((c) => c.shown).join(', ')
  const bad = all.find((c) => c.verdict !== 'right')
  if (bad) return { ...bad, shown }
  const different = new Set(each.map((t) => t.join(''))).size
  if (different < all.length) return look(shown, 'one is laid twice')
  const most = mostOrders(task.sentence)
  const wanted = Math.min(task.count ?? 1, most)
  return different >= wanted ? right(shown) : look(shown, `${different} of ${wanted}`)
}
/** A double has no turn-round of its own. */
const mostOrders = (sentence: string): number => {
  const n = numbersOf(sentence).split(' ')
  return new Set(n).size < n.length ? 2 : 8
}
function laidOne(task: Of<'sentence'>, given: readonly string[]): Check {
  const shown = given.join(' ')
  const [one, ...more] = sentencesIn(shown)
  // Both sides must be used up: "4 + 3 = 7 2" is no sentence with something behind it.
  if (!one || more.length || hasUnknown(one) || plain(one.text) !== plain(shown))
    return look(shown, 'not a whole number sentence')
  if (!isTrue(one)) return wrong(shown, `not true${mended(one) ? `: ${mended(one)}` : ''}`)
  return numbersOf(shown) === numbersOf(task.sentence)
    ? right(shown)
    : look(shown, `true, with other numbers than ${task.sentence}`)
}

/** A share of the line within which a mark counts as where it belongs: about what a finger on a phone can do. */
const nearMark = 0.05
/** The middle share off by which five-year-olds place marks on 0–100 is about 27 %, sevens 15 % (Siegler & Booth 2004): beyond that it is to be looked at, not failed. */
function placed(task: Of<'line'>, given: readonly string[]): Check {
  const at = task.marks.map((_, i) => (given[i]?.trim() ? Number(given[i]) : null))
  const shown = task.marks.map((m, i) => `${m} at ${at[i] === null ? '?' : Math.round(at[i]!)}`).join(', ')
  if (at.some((x) => x !== null && !Number.isFinite(x))) return look(shown, 'not places on the line')
  const set = task.marks.flatMap((m, i) => (at[i] === null ? [] : [{ m, x: at[i]! }]))
  const turned = set.flatMap((a) =>
    set.flatMap((b) => (a.m < b.m && a.x >= b.x ? [`${b.m} is before ${a.m}`] : [])),
  )
  if (turned.length) return wrong(shown, turned[0]!)
  const off = set.map(({ m, x }) => Math.abs(m - x) / (task.to - task.from))
  const mean = Math.round((off.reduce((a, b) => a + b, 0) / off.length) * 100)
  if (set.length < task.marks.length) return look(shown, 'some are not placed')
  if (off.every((o) => o <= nearMark)) return right(shown, `${mean} % off`)
  return look(shown, `in order, ${mean} % off in the middle`)
}

function circled(task: Of<'circles'>, given: readonly string[]): Check {
  const shown = task.under.map((n, i) => `${given[i] ?? '?'} under ${n}`).join(', ')
  const amiss = task.under.filter((n, i) => given[i] !== undefined && Number(given[i]) !== n)
  if (amiss.length) return wrong(shown, `${amiss.join(' and ')} ${amiss.length === 1 ? 'was' : 'were'} asked`)
  return task.under.every((_, i) => given[i] !== undefined) ? right(shown) : look(shown, 'some are left open')
}

function crossed(task: Of<'cross'>, given: readonly string[]): Check {
  const off = new Set(given.map(Number).filter((n) => n >= 1 && n <= task.things)).size
  const shown = `${off} crossed off, ${task.things - off} left`
  return off === task.go ? right(shown) : wrong(shown, `${task.go} were to go`)
}

/** What is not right in one round: what was written, what was said, and that both hold what came up. */
function amissIn(task: Of<'record'>, [came = '', said = '', wrote = '']: readonly string[]): string[] {
  const bad: string[] = []
  const c = readTypedNumber(came)
  const [s] = wrote ? sentencesIn(inParts(wrote)) : []
  const whole = s && !hasUnknown(s)
  if (whole && !isTrue(s)) bad.push(`${wrote} is not true`)
  const right = c === null || task.start === undefined ? null : rounded[task.rule](task.start, c)
  const n = said ? readTypedNumber(said) : null
  if (right !== null && n !== null && n !== right) bad.push(`${said}, not ${right}`)
  if (s && c !== null && isTrue(s) && !numbersOf(wrote).split(' ').includes(String(c)))
    bad.push(`${c} came up, not in ${wrote}`)
  return bad
}
const rounded: Record<Of<'record'>['rule'], (start: number, came: number) => number | null> = {
  take: (start, came) => start - came,
  add: (start, came) => start + came,
  any: () => null,
}
/** A round of which something is missing, or that cannot be read. */
function isPartial([, said = '', wrote = '']: readonly string[]): boolean {
  const [s] = wrote ? sentencesIn(inParts(wrote)) : []
  return (!said && !wrote) || (wrote !== '' && (!s || hasUnknown(s)))
}
/** Each round: what came up, what was said, what was written, held against one another. */
function recorded(task: Of<'record'>, given: readonly string[]): Check {
  const rounds = given.map((g) => g.split('|').map((x) => x.trim())).filter((r) => r.some(Boolean))
  if (!rounds.length) return leftOpen
  const shown = rounds.map((r) => r.filter(Boolean).join(' → ')).join('; ')
  const bad = rounds.flatMap((r, i) => amissIn(task, r).map((b) => `round ${i + 1}: ${b}`))
  if (bad.length) return wrong(shown, bad.join('; '))
  const open = rounds.filter(isPartial).length
  if (open) return look(shown, `${open} ${open === 1 ? 'round is' : 'rounds are'} not whole`)
  return rounds.length >= task.rounds
    ? right(shown)
    : look(shown, `${rounds.length} of ${task.rounds} rounds`)
}

function listed(task: Of<'ways'>, given: readonly string[]): Check {
  const entries = given.filter((g) => g.trim())
  const rule = { ordered: task.turned, zero: task.zero }
  const r = judgeWays(task.total, entries.join('\n'), rule, task.parts)
  const shown = entries.join(', ')
  const amiss = r.list.filter((w) => w.verdict === 'false' || w.verdict === 'unread')
  if (amiss.length)
    return wrong(
      shown,
      `${amiss.map((w) => w.text).join(', ')} ${amiss.length === 1 ? 'does' : 'do'} not make ${task.total}`,
    )
  const twice = r.list.filter((w) => w.verdict === 'repeated' || w.verdict === 'turn-round').length
  const told = `${r.found} of ${r.possible} ways, ${r.order}${twice ? `, ${twice} again` : ''}`
  if (r.complete) return right(shown, told)
  return look(
    shown,
    `${told}; missing ${r.missing
      .slice(0, 4)
      .map((m) => m.join(' + '))
      .join(', ')}${r.missing.length > 4 ? ' …' : ''}`,
  )
}

function ordered(task: Of<'order'>, given: readonly string[]): Check {
  const shown = given.join(', ')
  if (given.length < task.items.length) return look(shown, 'not all are placed')
  if (given.every((g, i) => g === task.items[i])) return right(shown)
  if (given.every((g, i) => g === task.items[task.items.length - 1 - i]))
    return wrong(shown, 'the right order, from the other end')
  return wrong(shown, `${task.items.join(', ')} was asked`)
}

function filled(task: Of<'gaps'>, given: readonly string[]): Check {
  const asked = task.gaps.map((g) => task.run[g]!)
  const shown = given.map((g) => g.trim() || '—').join(', ')
  const amiss = asked.flatMap((n, i) =>
    given[i]?.trim() && Number(given[i]) !== n ? [`${n} for ${given[i]}`] : [],
  )
  if (amiss.length) return wrong(shown, amiss.join(', '))
  return asked.every((_, i) => given[i]?.trim()) ? right(shown) : look(shown, 'some are left open')
}

function shared(task: Of<'share'>, given: readonly string[]): Check {
  const plates = Array.from({ length: task.plates }, (_, i) =>
    Math.max(0, Math.round(Number(given[i] ?? 0)) || 0),
  )
  const out = plates.reduce((a, b) => a + b, 0)
  const left = task.things - out
  const shown = `${plates.join(', ')}${left > 0 ? `, ${left} left over` : ''}`
  if (left < 0) return wrong(shown, `${out} are out, there were ${task.things}`)
  if (new Set(plates).size > 1) return wrong(shown, 'the shares are not equal')
  const each = Math.floor(task.things / task.plates)
  if (plates[0] !== each) return wrong(shown, `${each} each were to be had`)
  return right(shown)
}

function matched(task: Of<'match'>, given: readonly string[]): Check {
  const shown = task.pairs.map((p, i) => `${p[0]} – ${given[i]?.trim() || '?'}`).join(', ')
  const amiss = task.pairs.filter((p, i) => given[i]?.trim() && given[i] !== p[1])
  if (amiss.length) return wrong(shown, amiss.map((p) => `${p[0]} is ${p[1]}`).join(', '))
  return task.pairs.every((_, i) => given[i]?.trim()) ? right(shown) : look(shown, 'some are left open')
}

function ownOnes(task: Of<'own'>, given: readonly string[]): Check {
  const mine = given.map((g) => g.trim()).filter(Boolean)
  const shown = mine.join(', ')
  const bad: string[] = []
  const unread: string[] = []
  for (const text of mine) {
    const [s] = sentencesIn(inParts(text))
    if (!s || hasUnknown(s)) unread.push(text)
    else if (!isTrue(s)) bad.push(`${text} is not true`)
    else if (!follows(task, s))
      bad.push(`${text} is ${task.rule === 'double' ? 'no double' : `not ${task.makes}`}`)
  }
  if (bad.length) return wrong(shown, bad.join(', '))
  if (unread.length) return look(shown, `not read: ${unread.join(', ')}`)
  const different = new Set(mine.map((m) => m.replace(/\s/g, ''))).size
  if (different < mine.length) return look(shown, 'one stands there twice')
  return mine.length >= task.count ? right(shown) : look(shown, `${mine.length} of ${task.count}`)
}
/** "Double five is ten" as the sentence it says: five and five. */
const inParts = (text: string): string =>
  text.replace(/^double (\S+?) (?:is|makes|equals|=)\s/i, (_m, n: string) => `${n} + ${n} = `)
function follows(task: Of<'own'>, s: ReturnType<typeof sentencesIn>[number]): boolean {
  if (task.rule === 'any') return true
  const shape = shapeOf(s)
  if (!shape) return false
  return task.rule === 'double'
    ? !shape.takeAway && shape.parts.length === 2 && shape.parts[0] === shape.parts[1]
    : shape.whole === task.makes || (shape.takeAway && isResult(s, task.makes))
}
/** "12 − 2 = 10" makes ten as "8 + 2 = 10" does. */
const isResult = (s: ReturnType<typeof sentencesIn>[number], n: number | undefined): boolean =>
  [s.left, s.right].some((side) => side.length === 1 && side[0]!.value === n)
