import { Face } from '../../contracts/table.ts'
import type { Lesson } from '../../contracts/lesson.ts'
import { numbersIn, tokens } from '../../plan/numbers/names.ts'
import type { Moment } from '../simulate.ts'
import { leftOn, thingsIn, thingsOn } from '../table/state.ts'
import { at, type Finding, type Rule, saysNumber } from './finding.ts'

/** A rule about a children's segment as a whole. */
type SegmentRule = (list: readonly Moment[], lesson: Lesson) => Finding[]

/** Segments whose moments did not change, in a lesson whose story, things and examples are the same, keep their findings. */
function eachSegment(judge: SegmentRule): Rule {
  interface Known {
    of: readonly unknown[]
    list: readonly Moment[]
    findings: Finding[]
  }
  const kept = new WeakMap<Moment, Known>()
  const same = (a: readonly unknown[], b: readonly unknown[]): boolean =>
    a.length === b.length && a.every((x, i) => x === b[i])
  return ({ moments, lesson }) => {
    const of = [lesson.story, lesson.kit, lesson.examples]
    return bySegment(moments).flatMap((list) => {
      const known = kept.get(list[0]!)
      if (known && same(known.of, of) && same(known.list, list)) return known.findings
      const findings = judge(list, lesson)
      kept.set(list[0]!, { of, list, findings })
      return findings
    })
  }
}

/** Moments of each children's segment, in order. */
function bySegment(moments: readonly Moment[]): Moment[][] {
  const out: Moment[][] = []
  for (const m of moments) {
    if (m.segment.audience === 'adults') continue
    if (out.at(-1)?.[0]?.segment === m.segment) out.at(-1)!.push(m)
    else out.push([m])
  }
  return out
}

/** A number held or hidden must be said before it is used, and what was hidden must come out to be checked. */
export const hidden: Rule = eachSegment((list) => {
  const out: Finding[] = []
  list.forEach((m, i) => {
    for (const a of m.actions) {
      if (
        a.type === 'hold' &&
        !list.some(
          (x) =>
            x !== m &&
            ['say', 'ask', 'count', 'reveal'].includes(x.step.verb) &&
            saysNumber(x.step.text, a.number),
        )
      )
        out.push(at(m, 'held-unsaid', { number: a.number }))
      if (a.type !== 'cover' && a.type !== 'cover mat') continue
      const later = list.slice(i)
      const opened = later.some((x) => x.actions.some((y) => y.type === 'uncover'))
      const cleared = later.find((x) => x.actions.some((y) => y.type === 'clear'))
      if (
        !opened &&
        (cleared || later.some((x) => x.step.verb === 'reveal' || x.step.verb === 'write')) &&
        !m.step.deliberate
      )
        out.push(
          at(
            m,
            'never-uncovered',
            {},
            cleared
              ? {
                  kind: 'insert-before',
                  stepId: cleared.step.id,
                  verb: 'do',
                  text: 'Uncover it',
                }
              : undefined,
          ),
        )
      const under = m.after.mats
        .filter((x) => x.covered || thingsIn(x).some((t) => t.hidden))
        .reduce(
          (s, x) => s + (x.covered ? thingsIn(x).length : thingsIn(x).filter((t) => t.hidden).length),
          0,
        )
      if (
        under > 0 &&
        !list.some(
          (x) =>
            ['say', 'ask', 'count', 'reveal', 'write'].includes(x.step.verb) &&
            (saysNumber(x.step.text, under) || (x.count?.numbers.includes(under) ?? false)),
        )
      )
        out.push(at(m, 'hidden-unsaid', { hidden: under }))
    }
  })
  return out
})

/**
 * "Nine parcels" said where nothing on the table, in a count, in the examples or in another line gives nine. Only a
 * number straight before one of the lesson's own things counts: everything else may be ordinary speech.
 */
export const unaccounted: Rule = eachSegment((list, lesson) => {
  const out: Finding[] = []
  const known = new Set(lesson.examples.flatMap((e) => [e.a, e.b, e.total]))
  for (const k of lesson.kit) known.add(k.count)
  const nouns = new Set([lesson.story.thing, lesson.story.things, 'counters', 'counter', 'dots', 'skittles'])
  const shown = new Set<number>()
  for (const m of list) {
    if (!['say', 'ask', 'reveal'].includes(m.step.verb))
      for (const n of numbersIn(tokens(m.step.text))) shown.add(n.value)
    if (m.step.task?.kind === 'number') shown.add(m.step.task.answer)
    if (m.step.task?.kind === 'photo') shown.add(m.step.task.things)
    for (const n of m.count?.numbers ?? []) shown.add(n)
    // Most steps leave the table as it was.
    if (m.after === m.before && m !== list[0]) continue
    const all = thingsOn(m.after)
    for (const n of [
      all.length,
      leftOn(m.after),
      m.after.taken,
      m.after.start,
      m.after.held ?? -1,
      ...Face.options.map((f) => all.filter((t) => t.face === f).length),
      all.filter((t) => t.hidden).length,
    ])
      shown.add(n)
    for (const mat of m.after.mats) for (const r of mat.regions) shown.add(r.things.length)
  }
  // A segment that plays nothing tells a story of its own numbers.
  if (!list.some((m) => thingsOn(m.after).length > 0)) return []
  for (const m of list) {
    if (!['say', 'reveal'].includes(m.step.verb) || m.step.deliberate) continue
    const words = tokens(m.step.text)
    const odd = numbersIn(words).find(
      (n) => nouns.has(words[n.to] ?? '') && !shown.has(n.value) && !known.has(n.value) && n.value > 0,
    )
    if (odd) out.push(at(m, 'number-unaccounted', { number: odd.value, things: words[odd.to]! }))
  }
  return out
})
