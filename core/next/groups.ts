import type { Rung } from '../contracts/reply.ts'
import type { Standing } from '../judge/standing.ts'

export interface ChildStanding {
  childId: string
  name: string
  standing: Standing
  /** Days since the last reply; null when there never was one. */
  quietDays: number | null
}
interface Member {
  childId: string
  name: string
  /** The number set for this child, and the rung to try. */
  set: 'gentle' | 'middle' | 'stretch'
  rung: Rung
}
export interface Group {
  title: string
  reason: string
  children: Member[]
}
/** A group a teacher can sit with. */
const largest = 6
const quietAfter = 7
const rungOrder = ['things', 'picture', 'track', 'head'] as const

/** The rung to try next: one above the one most used by who is secure, the same for who is nearly there, things for who is not. */
export function rungFor({ word, ready, rungs }: Pick<Standing, 'word' | 'ready' | 'rungs'>): Rung {
  if (word === 'not yet' || word === 'not seen') return 'things'
  const used = rungOrder.reduce((best, r) => (rungs[r] > rungs[best] ? r : best), 'things' as Rung)
  const at = rungOrder.indexOf(used)
  return word === 'secure' || ready ? rungOrder[Math.min(3, at + 1)]! : used
}
const setFor = ({ word, ready }: Pick<Standing, 'word' | 'ready'>): Member['set'] =>
  ready ? 'stretch' : word === 'secure' || word === 'nearly' ? 'middle' : 'gentle'

/** Groups a class by what is needed next on one idea, not by overall level; each at most six, with its reason, and for each child its numbers and rung. */
export function groupsFor(children: readonly ChildStanding[]): Group[] {
  const unseen = children.filter((c) => c.standing.word === 'not seen' || (c.quietDays ?? 99) > quietAfter)
  const seen = children.filter((c) => !unseen.includes(c))
  const of = (keep: (s: Standing) => boolean) => seen.filter((c) => keep(c.standing))
  const groups: { title: string; reason: string; children: ChildStanding[] }[] = [
    {
      title: 'From the start, with things',
      reason: 'Not there yet: build each number and touch it while counting.',
      children: of((s) => s.word === 'not yet'),
    },
    {
      title: 'Once more, with less help',
      reason: 'Nearly there: the same numbers again, alone.',
      children: of((s) => s.word === 'nearly'),
    },
    {
      title: 'Secure, to be seen once more',
      reason: 'Judged secure on little: the same idea another way, alone, before what comes after.',
      children: of((s) => s.word === 'secure' && !s.ready),
    },
    {
      title: 'Ready for what comes after',
      reason: 'Secure, on three signs and two days: the stretch set, in the head.',
      children: of((s) => s.word === 'secure' && s.ready),
    },
    {
      title: 'Not enough seen',
      reason: 'Nothing lately. Silence is not weakness: ask kindly, offer a task that needs no film.',
      children: unseen,
    },
  ]
  return groups
    .filter((g) => g.children.length)
    .flatMap((g) => {
      const parts = Math.ceil(g.children.length / largest)
      // Parted evenly, so that of seven nobody sits alone.
      const upTo = (i: number) => Math.ceil((i * g.children.length) / parts)
      return Array.from({ length: parts }, (_, i) => ({
        ...g,
        title: parts > 1 ? `${g.title} (${i + 1} of ${parts})` : g.title,
        children: g.children.slice(upTo(i), upTo(i + 1)).map(({ childId, name, standing }) => ({
          childId,
          name,
          set: setFor(standing),
          rung: rungFor(standing),
        })),
      }))
    })
}

/** Ideas of the ladder with how many of a class are ready for each: not there yet, and ready on all it comes after. */
export function readyFor(
  ladder: readonly { id: string; name: string; after: readonly string[] }[],
  children: readonly ReadonlyMap<string, Pick<Standing, 'ready' | 'word'>>[],
): { id: string; name: string; ready: number; of: number }[] {
  return ladder
    .filter((i) => i.after.length)
    .map(({ id, name, after }) => ({
      id,
      name,
      of: children.length,
      ready: children.filter((c) => !c.get(id)?.ready && after.every((a) => c.get(a)?.ready)).length,
    }))
    .filter((i) => i.ready > 0)
    .sort((a, b) => b.ready - a.ready)
}
