import type { Draw } from './draw.ts'

/**
 * Lines of a short segment and what is said of them, written here by themselves: nothing of the script's reading,
 * prompter or language model is used, so that agreement with them says something.
 */
const ones =
  'zero one two three four five six seven eight nine ten eleven twelve thirteen fourteen fifteen sixteen seventeen eighteen nineteen'.split(
    ' ',
  )
const tens = 'zero ten twenty thirty forty fifty sixty seventy eighty ninety'.split(' ')
const inWords = (n: number): string =>
  n < 20
    ? ones[n]!
    : n === 100
      ? 'one hundred'
      : n % 10
        ? `${tens[Math.floor(n / 10)]!} ${ones[n % 10]!}`
        : tens[n / 10]!

export const plans = ['ones', 'back', 'teens', 'tens'] as const
export type Plan = (typeof plans)[number]
export const mistakes = [
  'none',
  'skip',
  'repeat',
  'swap',
  'sum',
  'total',
  'left out',
  'restart',
  'recount',
] as const
export type Mistake = (typeof mistakes)[number]
/** Mistakes that are none: nothing may be told of them as certain. */
export const harmless: readonly Mistake[] = ['none', 'recount']

/** One thing said: numbers of a count are said one by one. `line` is its place in the script. */
interface Said {
  line: number
  text: string
  counted: boolean
}
export interface Text {
  /** The lesson as its file. */
  markdown: string
  said: Said[]
  /** Index in `said` of what was done wrong: a finding there is right; null where nothing was. */
  wrongAt: number | null
  /** Codes that name this mistake. */
  codes: string[]
}

const things = ['parcels', 'stamps', 'letters', 'socks', 'bottle tops', 'shells', 'buttons', 'pine cones']
const places = ['egg box', 'basket', 'tray', 'post bag', 'shoe box']
const openings = [
  'Here comes Bobbin with the morning round.',
  'The post office opens its little window.',
  'I have a $place on my table today.',
  'Listen, something is rattling in the $place.',
]
const middles = [
  'Now we hear what the neighbours want.',
  'The rain has made the street all shiny.',
  'I move them a little closer so that we can see.',
  'Teddy would like to help us carry.',
]
const closings = [
  'Put everything back into the $place for tomorrow.',
  'Thank you for helping at the post office.',
  'That was careful work for such small hands.',
  'Show the grown up with you what you have made.',
]
const upTo: Record<Plan, (d: Draw) => number[]> = {
  ones: (d) => Array.from({ length: d.int(5, 10) }, (_, i) => i + 1),
  back: (d) => {
    const from = d.int(6, 10)
    return Array.from({ length: from }, (_, i) => from - i)
  },
  teens: (d) => Array.from({ length: d.int(5, 8) }, (_, i) => i + 11),
  tens: (d) => Array.from({ length: d.int(6, 10) }, (_, i) => (i + 1) * 10),
}
const codes: Record<Mistake, string[]> = {
  none: [],
  recount: [],
  skip: ['count-skip'],
  repeat: ['count-repeat'],
  swap: ['count-order', 'count-skip'],
  sum: ['false-sentence', 'number-changed', 'total-mismatch'],
  total: ['total-mismatch', 'number-changed'],
  'left out': ['line-skipped'],
  restart: ['false-start'],
}

const same = (text: string): { md: string; said: string } => ({ md: `Say: ${text}`, said: text })
export function textOf(d: Draw, plan: Plan, mistake: Mistake): Text {
  const [thing, place] = [d.of(things), d.of(places)]
  const filled = (s: string): string => s.replace('$place', place)
  const run = upTo[plan](d)
  const [a, b] = [d.int(2, 6), d.int(1, 4)]
  const [first, last] = [run[0]!, run.at(-1)!]
  const step = Math.abs(run[1]! - first) === 10 ? ' in tens' : ''
  const total = plan === 'back' ? null : last
  /** Null is the count, whose numbers are said one by one. */
  const lines: { md: string; said: string | null }[] = [
    same(filled(d.of(openings))),
    { md: `Count: ${first} to ${last}${step}`, said: null },
    total === null
      ? same(`Now the ${place} is nearly empty.`)
      : {
          md: `Say: There are ${total} ${thing} altogether.`,
          said: `There are ${inWords(total)} ${thing} altogether.`,
        },
    same(filled(d.of(middles))),
    {
      md: `Say: ${a} add ${b} equals ${a + b}.`,
      said: `${inWords(a)} add ${inWords(b)} equals ${inWords(a + b)}.`,
    },
    same(filled(d.of(closings))),
  ]
  const said: Said[] = []
  let wrongAt: number | null = null
  const say = (line: number, text: string, counted = false): void => void said.push({ line, text, counted })
  lines.forEach((l, line) => {
    if (l.said !== null) {
      if (mistake === 'left out' && line === 3) return void (wrongAt = said.length - 1)
      if (mistake === 'restart' && line === 3) {
        wrongAt = said.length
        say(line, `${l.said.split(' ').slice(0, 3).join(' ')}.`)
      }
      if (mistake === 'sum' && line === 4) {
        wrongAt = said.length
        const off = a + b + d.of([1, -1, 2])
        return say(line, `${inWords(a)} add ${inWords(b)} equals ${inWords(off)}.`)
      }
      if (mistake === 'total' && line === 2 && total !== null) {
        wrongAt = said.length
        const off = plan === 'tens' ? (total === 100 ? 90 : total + 10) : total + d.of([1, -1])
        return say(line, l.said.replace(inWords(total), inWords(off)))
      }
      return say(line, l.said)
    }
    const spoken = [...run]
    const at = d.int(1, run.length - 2)
    if (mistake === 'skip') spoken.splice(at, 1)
    if (mistake === 'repeat') spoken.splice(at, 0, spoken[at]!)
    if (mistake === 'swap') [spoken[at], spoken[at + 1]] = [spoken[at + 1]!, spoken[at]!]
    if (['skip', 'repeat', 'swap'].includes(mistake)) wrongAt = said.length + at
    for (const n of spoken) say(line, inWords(n), true)
    if (mistake === 'recount') {
      say(line, 'Let us count them again.')
      for (const n of run) say(line, inWords(n), true)
    }
  })
  const none = mistake === 'total' && total === null
  return {
    markdown: `# Morning round\nAge: 5\n\n## Together {together}\n${lines.map((l) => l.md).join('\n')}\n`,
    said,
    wrongAt: none ? null : wrongAt,
    codes: none ? [] : codes[mistake],
  }
}
