import { plainCodes, type Hearing } from '@awlbox/core/contracts/heard'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { clockTime } from '@awlbox/core/words'

/** The heard words under the script, differences marked; each finding leads to its moment in the film. */
export function HeardView({ segment, hearing, onSeek }: { segment: Segment; hearing: Hearing; onSeek: (s: number) => void }) {
  const slips = hearing.findings.filter((f) => !plainCodes.has(f.code))
  return (
    <div className="grid gap-3">
      {slips.length === 0 && hearing.words.length > 0 && <p className="font-semibold text-moss">Everything was heard as written.</p>}
      {slips.length > 0 && <ul className="grid gap-1" aria-label="What was heard otherwise">
        {slips.map((f, i) => (
          <li key={i} data-heard={f.code}><button type="button" onClick={() => onSeek(Math.max(0, f.start - 1))} className="flex gap-2 text-left rounded-md px-1 min-h-8 items-center hover:bg-wash cursor-pointer w-full">
            <span className="figures text-sm text-blue underline w-12 shrink-0">{clockTime(f.start)}</span><span className={f.certain ? 'text-brick' : 'text-steel'}>{f.message}{f.certain ? '' : ' Not sure: listen.'}</span></button></li>
        ))}
      </ul>}
      <ol className="font-child leading-7" aria-label="The script against what was heard">
        {hearing.lines.map((l) => (
          <li key={l.stepId} className="flex gap-2">
            <button type="button" disabled={l.start === null} onClick={() => l.start !== null && onSeek(l.start)} className="figures text-sm text-steel w-12 shrink-0 text-left hover:underline cursor-pointer">{l.start === null ? '—' : clockTime(l.start)}</button>
            <p>{l.words.map((w, i) => (
              <span key={i}>{i > 0 && ' '}{w.status === 'said' ? w.word
                : w.status === 'missing' ? <del className="text-brick decoration-2" title="not heard">{w.word}</del>
                  : <span className="text-brick underline decoration-dotted" title={`heard “${w.at === null ? '' : hearing.words[w.at]?.word}”`}>{w.word}</span>}</span>
            ))}</p>
          </li>
        ))}
      </ol>
      {hearing.unpronounced.length > 0 && <p className="text-sm text-steel">Words it cannot listen for: {hearing.unpronounced.join(', ')}.</p>}
      <p className="text-sm text-steel figures">{hearing.pace ? `${Math.round(hearing.pace)} words a minute while speaking · ` : ''}quality {hearing.quality} of 100{segment.steps.some((s) => s.deliberate) ? ' · mistakes on purpose are left alone' : ''}</p>
    </div>
  )
}
