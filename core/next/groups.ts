import type { Standing } from '../judge/standing.ts'

export interface ChildStanding {
  childId: string
  name: string
  standing: Standing
  /** Days since the last reply; null when there never was one. */
  quietDays: number | null
}
export interface Group {
  title: string
  reason: string
  children: { childId: string; name: string }[]
}
/** A group a teacher can sit with. */
const largest = 6
const quietAfter = 7

/** Groups a class by what is needed next on one idea, not by overall level; each at most six, with its reason. */
export function groupsFor(children: readonly ChildStanding[]): Group[] {
  const unseen = children.filter((c) => c.standing.word === 'not seen' || (c.quietDays ?? 99) > quietAfter)
  const seen = children.filter((c) => !unseen.includes(c))
  const groups: Group[] = [
    {
      title: 'From the start, with things',
      reason: 'Not there yet: build each number and touch it while counting.',
      children: seen.filter((c) => c.standing.word === 'not yet'),
    },
    {
      title: 'Once more, with less help',
      reason: 'Nearly there: the same numbers again, alone.',
      children: seen.filter((c) => c.standing.word === 'nearly'),
    },
    {
      title: 'Ready for what comes after',
      reason: 'Secure: the stretch set, in the head.',
      children: seen.filter((c) => c.standing.word === 'secure'),
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
      return Array.from({ length: parts }, (_, i) => ({
        ...g,
        title: parts > 1 ? `${g.title} (${i + 1} of ${parts})` : g.title,
        children: g.children
          .slice(i * largest, (i + 1) * largest)
          .map(({ childId, name }) => ({ childId, name })),
      }))
    })
}
