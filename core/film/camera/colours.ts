import {
  converter,
  differenceCiede2000,
  filterDeficiencyDeuter,
  filterDeficiencyProt,
  filterDeficiencyTrit,
  parse,
  type Rgb,
} from 'culori'

/** Two colours must stay this far apart (CIEDE2000) for everybody. */
export const farEnough = 20
const rgb = converter('rgb')
const difference = differenceCiede2000()
/** How people see: with all colours, and with the three common kinds of colour-blindness at full strength (Machado et al. 2009). */
const eyes = {
  everybody: (c: Rgb) => c,
  'red-blind eyes': (c: Rgb) => filterDeficiencyProt(1)(c),
  'green-blind eyes': (c: Rgb) => filterDeficiencyDeuter(1)(c),
  'blue-blind eyes': (c: Rgb) => filterDeficiencyTrit(1)(c),
} as const
export type Eyes = keyof typeof eyes

/**
 * How far apart two colours look to each kind of eye, as CIEDE2000. Colours as CSS (`#RRGGBB`).
 * @throws RangeError where one is no colour.
 */
export function apart(a: string, b: string): Record<Eyes, number> {
  const [x, y] = [a, b].map((c) => {
    const read = rgb(parse(c))
    if (!read) throw new RangeError(`“${c}” is no colour.`)
    return read
  }) as [Rgb, Rgb]
  return Object.fromEntries(
    Object.entries(eyes).map(([name, see]) => [name, difference(see(x), see(y))]),
  ) as Record<Eyes, number>
}

/** Pairs that some eyes cannot tell apart, in words; none when all stay apart. `named` gives each colour its name: "the first counters", "the mat". */
export function hardToTell(named: readonly (readonly [name: string, colour: string])[]): string[] {
  return named.flatMap(([name, colour], i) =>
    named.slice(i + 1).flatMap(([other, against]) => {
      const far = apart(colour, against)
      const who = (Object.keys(far) as Eyes[]).filter((e) => far[e] < farEnough)
      if (!who.length) return []
      const least = Math.min(...who.map((e) => far[e]))
      return [
        `${name.charAt(0).toUpperCase()}${name.slice(1)} and ${other} look alike to ${who.includes('everybody') ? 'everybody' : who.join(' and ')} (${Math.round(least)}; ${farEnough} keeps them apart). Use another colour, or a dot on one.`,
      ]
    }),
  )
}
