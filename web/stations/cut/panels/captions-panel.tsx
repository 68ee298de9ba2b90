import type { Seconds } from '@awlbox/core/contracts/units'
import { useMemo } from 'react'
import type { CaptionEdit, CutList } from '@awlbox/core/contracts/cut'
import { captionLimits, type FilmCue, readingSpeed } from '@awlbox/core/cut/captions'
import { lineLetters } from '@awlbox/core/cut/break-lines'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../../kit/button.tsx'

interface Props {
  list: CutList
  cues: readonly FilmCue[]
  /** Seconds of the film in the picture. */
  now: number
  /** Seconds at which the segment begins and ends that one is on: only its captions are shown. */
  part: { from: number; to: number }
  mayChange: boolean
  onGo: (seconds: Seconds) => void
  onEdit: (edit: CaptionEdit, together: string | null) => void
  onBurn: (burnt: boolean) => void
}
/** The captions of a segment: their words and times by hand, how quickly they have to be read, and whether they are drawn into the picture. */
export function CaptionsPanel({ list, cues, now, part, mayChange, onGo, onEdit, onBurn }: Props) {
  const mine = useMemo(
    () => cues.filter((c) => c.source && c.start < part.to && c.end > part.from),
    [cues, part],
  )
  const edits = new Map(list.captions.edits.map((e) => [e.id, e]))
  const gone = list.captions.edits.filter((e) => e.text === '' && mine.every((c) => c.id !== e.id))
  return (
    <div className="grid gap-2">
      <label className="flex items-center gap-2 min-h-8">
        <input
          type="checkbox"
          checked={list.captions.burnt}
          disabled={!mayChange}
          onChange={(e) => onBurn(e.target.checked)}
          className="w-5 h-5 accent-ink"
        />
        <span>
          Drawn into the picture{' '}
          <span className="text-sm text-steel">
            only where a player shows no captions: nobody can turn them off
          </span>
        </span>
      </label>
      <p className="text-sm text-steel">
        From the script, timed by what was heard: two lines of up to {lineLetters} letters. A slow version and
        a description of the table go along with every film.
      </p>
      {mine.length === 0 && <p className="text-steel">Nothing is said in this segment yet.</p>}
      <ul className="grid gap-1.5">
        {mine.map((c, i) => {
          const edit: CaptionEdit = edits.get(c.id) ?? { id: c.id, text: null, start: null, end: null }
          const speed = readingSpeed(c)
          const on = now >= c.start && now < c.end
          const shift = (start: number, end: number) =>
            onEdit(
              {
                ...edit,
                start: Math.max(0, (edit.start ?? c.source!.start) + start),
                end: Math.max(0.2, (edit.end ?? c.source!.end) + end),
              },
              `caption time ${c.id}`,
            )
          return (
            <li
              key={`${c.id} ${i}`}
              className={`rounded-lg border px-2.5 py-1.5 grid gap-1 ${on ? 'border-saffron border-2 bg-here' : 'border-hair'}`}
            >
              <textarea
                dir="auto"
                aria-label={`Caption at ${clockTime(c.start)}`}
                rows={Math.max(1, c.text.split('\n').length)}
                maxLength={200}
                readOnly={!mayChange}
                value={edit.text ?? c.text}
                onFocus={() => onGo(c.start)}
                onChange={(e) => onEdit({ ...edit, text: e.target.value }, `caption ${c.id}`)}
                className="w-full font-child bg-transparent resize-none leading-snug rounded focus:bg-card px-1"
              />
              <p className="flex flex-wrap items-center gap-1.5 text-sm">
                <button
                  type="button"
                  className="figures text-steel min-h-8 cursor-pointer underline underline-offset-2"
                  onClick={() => onGo(c.start)}
                >
                  {clockTime(c.start)}
                </button>
                <span className="figures text-steel">{(c.end - c.start).toFixed(1)} s</span>
                <span
                  className={`figures ${speed > captionLimits.adults * 1.25 ? 'text-brick font-semibold' : 'text-steel'}`}
                >
                  {Math.round(speed)} letters a second
                  {speed > captionLimits.adults * 1.25 ? ', too quick' : ''}
                </span>
                {c.guess && <span>from the script, not understood here</span>}
                <span className="flex-1" />
                {mayChange && (
                  <>
                    {c.guess && (
                      <Button
                        small
                        look="quiet"
                        onClick={() => onEdit({ ...edit, text: c.text.replace(/\n/g, ' ') }, null)}
                      >
                        it says this
                      </Button>
                    )}
                    <Button small look="quiet" onClick={() => shift(-0.2, 0)}>
                      begins sooner
                    </Button>
                    <Button small look="quiet" onClick={() => shift(0, 0.2)}>
                      ends later
                    </Button>
                    {c.edited ? (
                      <Button
                        small
                        look="quiet"
                        onClick={() => onEdit({ id: c.id, text: null, start: null, end: null }, null)}
                      >
                        as proposed
                      </Button>
                    ) : (
                      <Button small look="quiet" onClick={() => onEdit({ ...edit, text: '' }, null)}>
                        leave out
                      </Button>
                    )}
                  </>
                )}
              </p>
            </li>
          )
        })}
      </ul>
      {gone.length > 0 && mayChange && (
        <p className="text-sm text-steel flex flex-wrap gap-2 items-center">
          {gone.length} left out by hand
          <Button
            small
            onClick={() =>
              gone.forEach((e) => onEdit({ id: e.id, text: null, start: null, end: null }, 'captions back'))
            }
          >
            Bring them back
          </Button>
        </p>
      )}
    </div>
  )
}
