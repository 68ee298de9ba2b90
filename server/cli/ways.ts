import { type WaysReading, judgeWays } from '@awlbox/core/look/ways'
import { parseNumber } from '@awlbox/core/plan/numbers/names'
import { BadInput, type Printed } from './printed.ts'

const verdicts = ['valid', 'false', 'repeated', 'turn-round', 'zero', 'unread'] as const

/** `ways TOTAL "LIST"`: valid, false, repeated, turn-rounds, missing, how systematic. */
export function ways(args: string[]): Printed {
  const flags = args.filter((a) => a.startsWith('--'))
  const [totalText, list] = args.filter((a) => !a.startsWith('--'))
  const known = ['--one-way', '--no-zero']
  const partsFlag = flags.find((f) => f.startsWith('--parts='))
  const odd = flags.find((f) => !known.includes(f) && f !== partsFlag)
  if (odd) throw new BadInput(`${odd} is no choice here. There are: ${known.join(', ')}, --parts=2 to 6.`)
  const total = parseNumber(totalText ?? '')
  if (total === null) throw new BadInput(`say the whole first, as in: ways 10 "1+9, 2+8".`)
  if (list === undefined) throw new BadInput('give the list in quotes, as in: ways 10 "1+9, 2+8".')
  let r: WaysReading
  try {
    r = judgeWays(
      total,
      list,
      { ordered: !flags.includes('--one-way'), zero: !flags.includes('--no-zero') },
      partsFlag ? Number(partsFlag.slice(8)) : 2,
    )
  } catch (error) {
    if (error instanceof RangeError) throw new BadInput(error.message)
    throw error
  }
  const of = (v: (typeof verdicts)[number]) => r.list.filter((w) => w.verdict === v).map((w) => w.text)
  const json = {
    version: 1,
    total: r.total,
    parts: r.parts,
    orderCounts: r.rule.ordered,
    zeroAllowed: r.rule.zero,
    possible: r.possible,
    found: r.found,
    complete: r.complete,
    valid: of('valid'),
    false: of('false'),
    repeated: of('repeated'),
    turnRounds: of('turn-round'),
    withZero: of('zero'),
    unread: of('unread'),
    missing: r.missing,
    systematic: r.systematic,
    order: r.order,
  }
  const words = {
    valid: 'valid',
    false: 'not true',
    repeated: 'repeated',
    'turn-round': 'turned round, the same way here',
    zero: 'with zero, not allowed here',
    unread: 'not read',
  }
  const text = [
    `${total} in ${r.parts} parts, ${r.ruleInWords}: ${r.found} of ${r.possible} ways found${r.complete ? ', all of them' : ''}; worked ${r.order}.`,
    ...verdicts.flatMap((v) => (of(v).length ? [`${words[v]}: ${of(v).join(', ')}`] : [])),
    ...(r.missing.length
      ? [
          `missing: ${r.missing
            .slice(0, 40)
            .map((m) => m.join('+'))
            .join(', ')}${r.missing.length > 40 ? ` and ${r.missing.length - 40} more` : ''}`,
        ]
      : []),
  ].join('\n')
  return { json, text, clean: r.complete && r.list.every((w) => w.verdict === 'valid') }
}
