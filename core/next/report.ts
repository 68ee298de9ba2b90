import type { Standing } from '../judge/standing.ts'

export interface ReportIdea {
  name: string
  standing: Standing
}
export interface ReportPart {
  title: string
  lines: string[]
}
const words: Record<'things' | 'picture' | 'track' | 'head', string> = {
  things: 'with things',
  picture: 'on a picture',
  track: 'on a number line or square',
  head: 'in the head',
}
const most = <K extends string>(of: Readonly<Record<K, number>>): K | null => {
  const [k, n] = (Object.entries(of) as [K, number][]).reduce((b, x) => (x[1] > b[1] ? x : b))
  return n ? k : null
}
/**
 * What a meeting with a child's grown-ups can rest on: what it can do and how, what it is on the way to, what nobody has
 * seen yet, what may help next. No numbers, no comparison with other children.
 */
export function reportFor(
  child: string,
  ideas: readonly ReportIdea[],
  next: readonly string[],
): ReportPart[] {
  const line = ({ name, standing: s }: ReportIdea): string => {
    const rung = most(s.rungs)
    const help = most(s.helps)
    return `${name}${rung ? `, ${words[rung]}` : ''}${help ? `, mostly ${help}` : ''}${s.occasions ? ` (seen ${s.occasions} ${s.occasions === 1 ? 'time' : 'times'})` : ''}.`
  }
  const can = ideas.filter((i) => i.standing.word === 'secure')
  const onTheWay = ideas.filter((i) => i.standing.word === 'nearly' || i.standing.word === 'not yet')
  const unseen = ideas.filter((i) => i.standing.word === 'not seen')
  return [
    {
      title: `What ${child} can do`,
      lines: can.length ? can.map(line) : ['We are still finding out: too little has been seen to say.'],
    },
    ...(onTheWay.length ? [{ title: `What ${child} is on the way to`, lines: onTheWay.map(line) }] : []),
    ...(next.length ? [{ title: 'What may help next, with things at home', lines: [...next] }] : []),
    ...(unseen.length
      ? [
          {
            title: 'What we have not seen yet',
            lines: [`${unseen.map((i) => i.name).join(', ')}. That says nothing about ${child}.`],
          },
        ]
      : []),
  ]
}
