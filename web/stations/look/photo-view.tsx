import type { PhotoReading } from '@awlbox/core/contracts/reading'

/** The photo with what was found ringed and numbered. */
export function PhotoView({ id, width, height, reading, failed }: { id: string; width: number; height: number; reading: PhotoReading | null; failed: boolean }) {
  const unit = Math.max(width, height) / 100
  return (
    <div className="relative grid place-items-center h-full min-h-0">
      <svg viewBox={`0 0 ${width} ${height}`} className="max-w-full max-h-full w-full h-full" role="img" aria-label={reading ? `Photo: ${reading.count} things found` : 'Photo'}>
        <image href={`/api/photos/${id}`} width={width} height={height} />
        {reading?.things.map((t, i) => (
          <g key={i}>
            <circle cx={t.x} cy={t.y} r={t.r * 1.12} fill="none" stroke="#fff" strokeWidth={unit * 0.9} />
            <circle cx={t.x} cy={t.y} r={t.r * 1.12} fill="none" stroke="#14232B" strokeWidth={unit * 0.45} strokeDasharray={t.cutOff ? `${unit} ${unit}` : undefined} />
            <rect x={t.x + t.r * 0.5} y={t.y - t.r * 1.5} width={unit * (i > 8 ? 4.4 : 3.4)} height={unit * 3.6} rx={unit * 0.7} fill="#14232B" />
            <text x={t.x + t.r * 0.5 + unit * (i > 8 ? 2.2 : 1.7)} y={t.y - t.r * 1.5 + unit * 2.7} fontSize={unit * 2.7} fontWeight={700} textAnchor="middle" fill="#fff">{i + 1}</text>
          </g>
        ))}
      </svg>
      {!reading && <span role="status" className="absolute left-2 bottom-2 rounded-lg bg-card px-2.5 py-1 text-sm">{failed ? 'This photo could not be read here; judge it by eye.' : 'Reading the photo…'}</span>}
    </div>
  )
}
const words: Record<PhotoReading['warnings'][number], string> = { blurred: 'blurred', dark: 'dark', 'too small': 'things are small', touching: 'things touch', 'cut off': 'something is cut off at the edge', 'nothing found': 'nothing found', 'busy ground': 'a busy ground' }
export const warningText = (r: PhotoReading): string => r.warnings.map((w) => words[w]).join(', ')
