import type { KitItem, Lesson } from '../contracts/lesson.ts'
import { needed } from './stock.ts'

/** Lines in which children draw or write by themselves: what they do it with is on no table. */
const writes = /\b(draw|write|copy|trace)\b|\b(on|of) paper\b/i
const paper = 'paper and a pencil'

// Every key asks for the list before it and after it: the one before is the one after the key before.
const known = new WeakMap<Lesson['segments'], KitItem[]>()
/** The list of things a home needs: counted from the script's table, and paper where children draw or write. */
export function kitFor(lesson: Pick<Lesson, 'segments'>): KitItem[] {
  const before = known.get(lesson.segments)
  if (before) return before
  const list = counted(lesson)
  known.set(lesson.segments, list)
  return list
}
function counted(lesson: Pick<Lesson, 'segments'>): KitItem[] {
  const list = needed(lesson).map(({ thing, count }) => ({ thing, count }))
  const byHand = lesson.segments.some(
    (s) => s.audience !== 'adults' && s.steps.some((x) => x.verb === 'pause' && writes.test(x.text)),
  )
  return byHand && !list.some((k) => k.thing === paper) ? [...list, { thing: paper, count: 1 }] : list
}

const named = (list: readonly KitItem[], thing: string): KitItem | undefined =>
  list.find((k) => k.thing === thing)

/**
 * A changed lesson whose list of things follows its script. Only what stood as it was counted follows: a number set by
 * hand, a thing added or renamed, and one that was left out stay as the teacher has them, however often its line is
 * typed anew.
 */
export function kitFollows(before: Lesson, after: Lesson): Lesson {
  if (after.segments === before.segments || after.kit !== before.kit) return after
  const was = kitFor(before)
  const now = kitFor(after)
  const kept = after.kit.flatMap((k): KitItem[] => {
    const before = named(was, k.thing)
    if (!before || before.count !== k.count) return [k]
    const next = named(now, k.thing)
    return next ? [next.count === k.count ? k : { ...k, count: next.count }] : []
  })
  const out = new Set(after.leftOut)
  const fresh = now.filter((k) => !out.has(k.thing) && !named(was, k.thing) && !named(kept, k.thing))
  const kit = [...kept, ...fresh]
  return kit.length === after.kit.length && kit.every((k, i) => k === after.kit[i])
    ? after
    : { ...after, kit }
}

/** A lesson with its list of things changed by a person: what she took off it, or named otherwise, stays off. */
export function kitByHand(lesson: Lesson, kit: KitItem[]): Lesson {
  const gone = lesson.kit.filter((k) => !named(kit, k.thing)).map((k) => k.thing)
  const out = [...new Set([...(lesson.leftOut ?? []), ...gone])].filter((thing) => !named(kit, thing))
  return { ...lesson, kit, leftOut: out.length ? out.slice(-40) : undefined }
}
