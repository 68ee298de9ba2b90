import type { Check } from '../look/check.ts'
import type { Rung } from '../contracts/reply.ts'

interface Seen {
  child: string
  way: Rung | null
  checks: readonly { check: Check }[]
}
const withWhat: Record<Rung, string> = {
  things: 'with things',
  picture: 'on a picture',
  track: 'on the line',
  head: 'in the head',
}

/** Notes by phrase for one reply, with the child's own facts in them; what praises names what was done. */
export function phrasesFor({ child, way, checks }: Seen): string[] {
  const right = checks.filter((c) => c.check.verdict === 'right')
  const wrong = checks.filter((c) => c.check.verdict === 'wrong')
  return [
    ...(right[0]
      ? [
          `${child} showed ${right
            .map((c) => c.check.shown)
            .slice(0, 3)
            .join('; ')}.`,
        ]
      : []),
    ...(way ? [`Worked ${withWhat[way]}.`] : []),
    ...(wrong[0]
      ? [`Look again at: ${wrong[0].check.shown}${wrong[0].check.why ? ` (${wrong[0].check.why})` : ''}.`]
      : []),
    'Said how they know.',
    'Numerals mirrored: noted, not counted wrong.',
    'Ask for another way next time.',
  ]
}
