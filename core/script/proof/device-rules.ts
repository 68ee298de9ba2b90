import { neverIn } from '../language/truth/devices.ts'
import { sentencesSaid } from '../language/truth/terms.ts'
import { conventionsIn, partedInTwo, waysOfTwo, waysSaid } from '../language/truth/ways.ts'
import { askedOf } from '../language/truth/asked.ts'
import { inSigns, type Sentence, sentencesIn, shapeOf } from '../sentence.ts'
import type { Moment } from '../simulate.ts'
import { at, type Finding, type LineRule, type NearRule, type Rule } from './finding.ts'

/** A roll no die gives, and a draw said of a bowl that has no such slip any more. */
export const impossible: LineRule = (m, { device }) => {
  if (m.step.deliberate) return []
  const rolled = m.actions.flatMap((a) => (a.type === 'roll' ? a.faces : []))
  const faces = device.kind === 'dice' ? device.faces : []
  const never = rolled.filter((f) => !faces.includes(f) && (f < 1 || f > 6))
  const found: Finding[] = never.map((said) => at(m, 'device-never', { said, device: 'a die' }))
  if (['say', 'reveal'].includes(m.step.verb)) {
    found.push(...neverIn(m.step.text).map((n) => at(m, 'device-never', { said: n.said, device: n.device })))
    found.push(...drawnTwice(m))
  }
  return found
}
/** "Second dip, and up comes five once more", while the five lies in front of us. */
function drawnTwice(m: Moment): Finding[] {
  const bowl = m.before.mats.find((x) => x.kind === 'bowl')
  const out =
    m.before.mats
      .find((x) => x.kind === 'cards')
      ?.cards.filter((c) => c.up)
      .map((c) => c.text) ?? []
  if (!bowl || !out.length || /\bback\b/.test(m.step.text)) return []
  return sentencesSaid(m.step.text).flatMap(({ words, end }): Finding[] => {
    const draws =
      words.some((w) => ['dip', 'dips', 'draw', 'pull', 'comes', 'again', 'next'].includes(w.t)) &&
      words.some((w) => ['dip', 'draw', 'comes', 'pull', 'out', 'up'].includes(w.t))
    if (!draws || end === '?') return []
    const again = words.find(
      (w) =>
        w.n !== null &&
        w.t !== 'a single' &&
        !['once'].includes(w.t) &&
        out.includes(String(w.n)) &&
        !bowl.cards.some((c) => c.text === String(w.n)),
    )
    return again ? [at(m, 'device-never', { said: again.n!, device: 'the bowl' })] : []
  })
}
/** A choice about a die: "tap what you will never see on it". */
export const dieChoice: Rule = ({ moments }) =>
  moments.flatMap((m) => {
    const { task } = m.step
    if (
      task?.kind !== 'choice' ||
      !/\b(single|one|a) die\b/i.test(m.step.text) ||
      !/\bnever|cannot|can't|not\b/i.test(m.step.text)
    )
      return []
    const right = task.choices.map((c) => Number(c)).map((n) => Number.isFinite(n) && (n < 1 || n > 6))
    const marked = new Set([task.answer, ...(task.also ?? [])])
    const wrong = [...marked].find((i) => right[i] === false)
    return wrong === undefined || !right.some(Boolean)
      ? []
      : [at(m, 'choice-answer', { case: 'false', choice: task.choices[wrong]! })]
  })

/** "There are four ways": held against what the segment says counts as a way, or against the ways it wrote. */
export const ways: Rule = ({ moments, style }) =>
  moments.flatMap((m, i) => {
    if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate) return []
    const said = waysSaid(m.step.text)
    if (said === null) return []
    const before = moments.slice(0, i).filter((x) => x.segment === m.segment)
    if (/\b(more|some|two will do|find|other)\b/i.test(m.step.text)) return []
    const written = before
      .filter((x) => x.step.verb === 'write')
      .flatMap((x) => sentencesIn(x.step.text).slice(0, 1))
    if (/\b(we wrote|we (have )?written|on our list|our list)\b/i.test(m.step.text) && written.length >= 2)
      return said === written.length ? [] : [at(m, 'ways-wrong', { said, right: written.length })]
    const ask = before.findLast((x) => x.step.verb === 'ask')
    const whole = (ask && partedInTwo(ask.step.text)) ?? null
    const convention = before
      .map((x) => conventionsIn(x.step.text))
      .reduce(
        (a, b) => ({
          orderCounts: b.orderCounts ?? a.orderCounts,
          zeroAllowed: b.zeroAllowed ?? a.zeroAllowed,
        }),
        { orderCounts: null, zeroAllowed: null } as ReturnType<typeof conventionsIn>,
      )
    if (
      whole === null ||
      convention.orderCounts === null ||
      convention.zeroAllowed === null ||
      /\bthree (cups|boxes|parts|plates)\b/i.test(ask!.step.text)
    )
      return []
    const right = waysOfTwo(whole, convention.orderCounts, convention.zeroAllowed)
    return said === right || !style ? [] : [at(m, 'ways-wrong', { said, right })]
  })

/** "Who can find eighteen?" and then seventeen is ringed; "I mark stone four" and the five is. */
export const marked: NearRule = (m, i, moments) => {
  const marks = m.actions.flatMap((a) => (a.type === 'mark' ? [a] : []))
  const numbers = marks.flatMap((a) => [...a.numbers])
  if (!numbers.length || m.step.deliberate) return []
  const line = m.after.mats.find((x) => x.line)?.line
  const before = moments
    .slice(Math.max(0, i - 3), i)
    .filter((x) => x.segment === m.segment && ['say', 'ask'].includes(x.step.verb))
  const last = before.at(-1)
  if (!last || last.step.deliberate) return []
  const wanted = wantedMarks(last, line ?? null)
  if (!wanted) return []
  const off = numbers.find((n) => !wanted.fits(n))
  return off === undefined ? [] : [at(m, 'mark-other', { said: wanted.said, marked: off })]
}
function wantedMarks(
  m: Moment,
  line: NonNullable<Moment['after']['mats'][number]['line']> | null,
): { said: string; fits: (n: number) => boolean } | null {
  const { text } = m.step
  const ends = text.match(/\b(?:ends?|ending) (?:in|with) (?:a |an )?(\w+)/i)
  if (ends) {
    const digit = sentencesSaid(ends[1]!)[0]?.words[0]?.n
    if (digit != null && digit < 10) return { said: String(digit), fits: (n) => n % 10 === digit }
  }
  if (/\b(landed|stands?|standing|ended|stopped)\b/i.test(text) && line?.at != null && line.hops.length) {
    const to = line.hops.at(-1)!.to
    if (!sentencesSaid(text).some((s) => s.words.some((w) => w.n !== null)))
      return { said: String(to), fits: (n) => n === to }
  }
  const asked = m.step.verb === 'ask' ? askedOf(text) : null
  if (asked !== null) return { said: String(asked), fits: (n) => n === asked }
  const middle = /\bmiddle|halfway\b/i.test(text) && !/\bnot\b/i.test(text)
  const names =
    /\b(find|where|show|mark|ring|circle|place|put|shade|stone|door|middle|likes|has its place)\b/i.test(text)
  const numbers = sentencesSaid(text).flatMap((s) => s.words.filter((w) => w.n !== null).map((w) => w.n!))
  const only = [...new Set(numbers)]
  if (
    only.length !== 1 ||
    !(names || middle) ||
    /\b(before|after|more|less|fewer|between|from|back|hops?|jumps?|steps?|rows?|tens|closer|nearer)\b/i.test(
      text,
    )
  )
    return null
  return { said: String(only[0]), fits: (n) => n === only[0] }
}

/** "Swap the ends over" and the same is written; "flip it about and it says three add seven". */
export const turnRounds: NearRule = (m, i, moments) => {
  if (m.step.deliberate || !['say', 'write', 'reveal'].includes(m.step.verb)) return []
  const turns =
    /\b(swap(ped)?|flip(ped)?|turn(ed)?|other way|upside)\b.*\b(over|about|round|around|ends|down|way)\b|\bthe other way about\b|\bupside down\b/i
  const { text } = m.step
  const before = moments.slice(Math.max(0, i - 3), i).filter((x) => x.segment === m.segment)
  const pairs = /\bturn-?rounds? of (each other|one another)\b/i.test(text) ? addends(text) : []
  if (pairs.length === 2) {
    const [a, b] = pairs as [number[], number[]]
    return a[0] === b[1] && a[1] === b[0] ? [] : [at(m, 'turned-same', { right: `${a[1]} add ${a[0]}` })]
  }
  if (m.step.verb === 'write') {
    const said = before.at(-1)
    if (!said || said.step.verb !== 'say' || !turns.test(said.step.text)) return []
    const first = before.findLast((x) => x.step.verb === 'write' && x !== m)
    const [was, now] = [first && sentencesIn(first.step.text)[0], sentencesIn(text)[0]]
    return was && now && !turnedRound(was, now) ? [at(m, 'turned-same', { right: inSigns(turnOf(was)) })] : []
  }
  if (!turns.test(text)) return []
  const first = before.findLast(
    (x) => x.step.verb === 'write' || (x.step.verb === 'say' && addends(x.step.text).length === 1),
  )
  const was = first && (addends(first.step.text)[0] ?? null)
  const now = addends(text)[0]
  const takes = first && sentencesIn(first.step.text).some((s) => shapeOf(s)?.takeAway)
  if (!was || !now || takes) return []
  return now[0] === was[1] && now[1] === was[0]
    ? []
    : [at(m, 'turned-same', { right: `${was[1]} add ${was[0]}` })]
}
/** Each "a add b" of a text. */
function addends(text: string): number[][] {
  return sentencesSaid(text).flatMap(({ words }) =>
    words.flatMap((w, i) =>
      w.n !== null && ['add', 'plus', '+'].includes(words[i + 1]?.t ?? '') && words[i + 2]?.n != null
        ? [[w.n, words[i + 2]!.n!]]
        : [],
    ),
  )
}
const values = (s: Sentence, side: 'left' | 'right') => s[side].map((t) => t.value)
const turnOf = (s: Sentence): Sentence =>
  s.left.length === 2 ? { ...s, left: [...s.left].reverse() } : { ...s, right: [...s.right].reverse() }
const turnedRound = (was: Sentence, now: Sentence): boolean => {
  const should = turnOf(was)
  const same = (x: Sentence) =>
    values(x, 'left').join() === values(now, 'left').join() &&
    values(x, 'right').join() === values(now, 'right').join()
  // Sides may change places as well; a take-away has no turn-round.
  return (
    same(should) ||
    was.left.length + was.right.length !== 3 ||
    was.left.some((t) => t.sign < 0) ||
    (values(now, 'right').join() === values(should, 'left').join() &&
      values(now, 'left').join() === values(should, 'right').join())
  )
}
