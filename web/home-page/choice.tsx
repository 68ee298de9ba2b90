import type { HomeTask } from '@awlbox/core/contracts/api/home'

/** Where dots lie for a number, as on a die; more lie in rows of five. Parts of a field of 100 × 100. */
const onDie: Record<number, readonly (readonly [number, number])[]> = {
  1: [[50, 50]],
  2: [
    [28, 28],
    [72, 72],
  ],
  3: [
    [25, 25],
    [50, 50],
    [75, 75],
  ],
  4: [
    [28, 28],
    [72, 28],
    [28, 72],
    [72, 72],
  ],
  5: [
    [25, 25],
    [75, 25],
    [50, 50],
    [25, 75],
    [75, 75],
  ],
  6: [
    [28, 22],
    [28, 50],
    [28, 78],
    [72, 22],
    [72, 50],
    [72, 78],
  ],
}
const inRows = (n: number): [number, number][] =>
  Array.from({ length: n }, (_, i) => [14 + (i % 5) * 18, 18 + Math.floor(i / 5) * 21])
const numberIn = (words: string): number | null => {
  const m = words.match(/\d+/)
  return m ? Number(m[0]) : null
}
const corners = (n: number): string =>
  Array.from({ length: n }, (_, i) => {
    const turn = (i / n) * 2 * Math.PI - Math.PI / 2
    return `${(50 + 42 * Math.cos(turn)).toFixed(1)},${(50 + 42 * Math.sin(turn)).toFixed(1)}`
  }).join(' ')
const shapes: readonly [RegExp, React.ReactNode][] = [
  [/circle|round/i, <circle key="c" cx="50" cy="50" r="40" />],
  [/square/i, <rect key="s" x="14" y="14" width="72" height="72" />],
  [/rectangle|oblong/i, <rect key="r" x="6" y="26" width="88" height="48" />],
  [/triangle/i, <polygon key="t" points={corners(3)} />],
  [/pentagon/i, <polygon key="p" points={corners(5)} />],
  [/hexagon/i, <polygon key="h" points={corners(6)} />],
  [/oval|ellipse/i, <ellipse key="e" cx="50" cy="50" rx="44" ry="28" />],
]

/** One choice as it is drawn for a child; the words stay beside shapes and things, for who reads or hears them. */
export function Choice({ words, look }: { words: string; look: HomeTask['look'] }) {
  const n = numberIn(words)
  if (look === 'dots' && n !== null && n <= 20) return <Dots n={n} name={words} plain={false} />
  if (look === 'things' && n !== null && n <= 20)
    return (
      <span className="flex items-center gap-3">
        <Dots n={n} name="" plain />
        <span>{words.replace(/\d+\s*/, '')}</span>
      </span>
    )
  const shape = look === 'shapes' ? shapes.find(([re]) => re.test(words))?.[1] : undefined
  if (shape)
    return (
      <span className="flex items-center gap-3">
        <svg
          viewBox="0 0 100 100"
          width="56"
          height="56"
          aria-hidden
          fill="none"
          stroke="currentColor"
          strokeWidth="5"
        >
          {shape}
        </svg>
        <span>{words}</span>
      </span>
    )
  return <span dir="auto">{words}</span>
}
function Dots({ n, name, plain }: { n: number; name: string; plain: boolean }) {
  const places = plain ? inRows(n) : (onDie[n] ?? inRows(n))
  return (
    <svg
      viewBox="0 0 100 100"
      width="72"
      height="72"
      role={name ? 'img' : undefined}
      aria-label={name || undefined}
      aria-hidden={!name || undefined}
      className="shrink-0"
    >
      <rect x="2" y="2" width="96" height="96" rx="10" fill="none" stroke="currentColor" strokeWidth="2.5" />
      {places.map(([x, y], i) => (
        <circle key={i} cx={x} cy={y} r={n > 6 || plain ? 7 : 9} fill="currentColor" />
      ))}
    </svg>
  )
}
