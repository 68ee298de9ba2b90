import type { Seconds } from '@awlbox/core/contracts/units'
import { useLesson } from '../../frame/lesson-context.ts'
import type { CSSProperties } from 'react'
import { distanceForSize, type PromptLine, sizeForDistance } from '@awlbox/core/film/desk/prompter'
import { facesOf } from '@awlbox/core/film/desk/rolls'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { Button } from '../../kit/button.tsx'
import { Slider } from '../../kit/slider.tsx'
import { useKept } from '../../saving/kept.ts'
import { TableDrawing } from '../../table/drawing.tsx'
import { type Levels, useLevel } from './use-levels.ts'
import type { Prompting } from './use-prompter.ts'

const cues: Partial<Record<string, string>> = {
  do: 'Hands',
  write: 'Write',
  wait: 'Wait',
  pause: 'Say, then stop',
  count: 'Count',
  ask: 'Ask',
  reveal: 'Answer',
  sound: 'Sound',
}
export interface PrompterSettings {
  distance: number
  mirrored: boolean
  byVoice: boolean
}
export const usePrompterSettings = () =>
  useKept<PrompterSettings>('awlbox-prompter', { distance: 1500, mirrored: false, byVoice: true })

interface Props {
  segment: Segment
  p: Prompting
  filming: boolean
  levels: Levels
  settings: PrompterSettings
  onSettings: (s: Partial<PrompterSettings>) => void
  /** What a die really showed. */
  onRoll: (line: PromptLine, faces: number[]) => void
  rolled: ReadonlyMap<string, readonly number[]>
  /** Fills the window, for reading from afar. */
  large: boolean
  onLarge: (on: boolean) => void
  /** The next segment, where one film runs straight through. */
  after: Segment | null
}

/** The line to say now, large; the table's next state small; the next two lines paler. */
export function Prompter(props: Props) {
  const { segment, p, filming, settings, large } = props
  const { me } = useLesson()
  const line = p.lines[p.at]
  const size = large
    ? Math.max(72, sizeForDistance(settings.distance))
    : Math.min(44, sizeForDistance(settings.distance))
  const upcoming = p.lines.slice(p.at).find((l) => l.changes)
  const wait = line?.kind === 'wait'
  return (
    <section
      aria-label="Prompter"
      className={
        large
          ? 'fixed inset-0 z-30 bg-card p-[3vw] flex flex-col gap-3 overflow-auto'
          : 'rounded-xl border border-hair bg-card p-4 min-h-[250px] flex flex-col gap-2'
      }
    >
      <p className="flex justify-between gap-3 text-sm text-steel">
        <span className="truncate">{segment.title}</span>
        <span className="figures whitespace-nowrap">
          {line ? `line ${p.at + 1} of ${p.lines.length}` : 'end of the segment'}
        </span>
      </p>
      <div className={settings.mirrored ? '-scale-x-100' : ''}>
        <div className="flex gap-4 items-start">
          <div aria-live={filming ? 'off' : 'polite'} className="flex-1 min-w-0">
            {line ? (
              <>
                {cues[line.step.verb] && (
                  <span
                    data-cue={line.step.verb}
                    className={`inline-block rounded-md px-2 text-sm font-semibold mb-1 ${['wait', 'pause', 'reveal'].includes(line.step.verb) ? 'bg-saffron text-[#14232b]' : 'bg-wash'}`}
                  >
                    {cues[line.step.verb]}
                  </span>
                )}
                <p
                  className={`font-child leading-tight ${line.kind === 'hands' ? 'text-steel' : ''}`}
                  style={{ fontSize: line.step.text.length > 90 && !large ? Math.min(30, size) : size }}
                >
                  {wait ? `${line.seconds} seconds` : line.step.text}
                </p>
                {line.step.deliberate && <p className="text-sm text-blue">A mistake on purpose.</p>}
              </>
            ) : (
              <p className="font-child text-steel" style={{ fontSize: Math.min(34, size) }}>
                {props.after ? `Next: ${props.after.title}` : 'Stop here.'}
              </p>
            )}
          </div>
          {wait && <Ring key={p.at} running={filming} seconds={line.seconds} size={large ? 220 : 72} />}
          {upcoming && (
            <figure className={large ? 'w-[26vw] shrink-0' : 'w-28 shrink-0'}>
              <TableDrawing
                table={upcoming.table}
                fill={me.houseStyle.frameFill}
                className="border border-hair"
              />
              <figcaption className="text-sm text-steel text-center">
                {upcoming === line ? 'make it so' : 'then'}
              </figcaption>
            </figure>
          )}
        </div>
        <div className={`font-child text-steel mt-2 ${large ? 'text-[30px]' : 'text-lg'}`}>
          {p.lines.slice(p.at + 1, p.at + 3).map((l) => (
            <p key={l.step.id} className="truncate">
              {l.kind === 'say' && l.step.verb === 'say' ? '' : `${cues[l.step.verb] ?? l.step.verb}: `}
              {l.step.text}
            </p>
          ))}
        </div>
      </div>
      {line?.roll && (
        <Rolled line={line} came={props.rolled.get(line.step.id) ?? null} onRoll={props.onRoll} />
      )}
      <div className="flex flex-wrap gap-2 mt-auto pt-2 items-center">
        <Button small disabled={p.at === 0} onClick={() => p.go(-1)}>
          ‹ Back
        </Button>
        <Button small disabled={!line && !props.after} onClick={() => p.go(1)}>
          Next line ›
        </Button>
        <label className="flex items-center gap-1.5 text-sm min-h-8">
          <input
            type="checkbox"
            checked={settings.byVoice}
            onChange={(e) => props.onSettings({ byVoice: e.target.checked })}
            className="size-4 accent-ink"
          />
          follow my voice
        </label>
        <span className="flex-1" />
        <Button small look="quiet" aria-pressed={large} onClick={() => props.onLarge(!large)}>
          {large ? 'Back to the page' : 'Fill the screen'}
        </Button>
      </div>
      {large && (
        <div className="flex flex-wrap gap-x-5 gap-y-2 items-center text-sm text-steel">
          <Slider
            label="Read from"
            value={settings.distance}
            from={500}
            to={3000}
            step={100}
            words={`${(settings.distance / 1000).toFixed(1)} m`}
            onChange={(distance) => props.onSettings({ distance })}
          />
          <span className="figures">
            letters {size} px · easy to read up to {(distanceForSize(size) / 1000).toFixed(1)} m on a screen
            of 96 dots an inch
          </span>
          <label className="flex items-center gap-1.5">
            <input
              type="checkbox"
              checked={settings.mirrored}
              onChange={(e) => props.onSettings({ mirrored: e.target.checked })}
              className="size-4 accent-ink"
            />
            mirrored, for a glass
          </label>
          {filming && settings.byVoice ? (
            <Heard levels={props.levels} />
          ) : (
            <span>arrow keys, space or a pedal move on</span>
          )}
        </div>
      )}
    </section>
  )
}

/** What the die showed, where it may be another than the one written. */
function Rolled({
  line,
  came,
  onRoll,
}: {
  line: PromptLine
  came: readonly number[] | null
  onRoll: Props['onRoll']
}) {
  const written = facesOf(line.step.text) ?? []
  const faces = came ?? written
  if (!written.length) return null
  return (
    <fieldset className="flex flex-wrap gap-3 items-center text-sm">
      <legend className="sr-only">What came up</legend>
      <span className="text-steel">Came up</span>
      {faces.map((face, i) => (
        <span key={i} className="flex gap-1">
          {[1, 2, 3, 4, 5, 6].map((n) => (
            <button
              key={n}
              type="button"
              aria-pressed={face === n}
              aria-label={`${n} came up`}
              onClick={() =>
                onRoll(
                  line,
                  faces.map((f, k) => (k === i ? n : f)),
                )
              }
              className={`size-9 rounded-lg border font-child font-bold cursor-pointer ${face === n ? 'border-ink bg-saffron text-[#14232b]' : 'border-hair bg-card'}`}
            >
              {n}
            </button>
          ))}
        </span>
      ))}
      {came && came.join() !== written.join() && (
        <span className="font-semibold">written: {written.join(' and ')}</span>
      )}
    </fieldset>
  )
}

function Heard({ levels }: { levels: Levels }) {
  return <span>{useLevel(levels).speaking ? 'hears you' : 'waits for you'}</span>
}

/** Fills while a wait runs, and stands still while filming does. */
function Ring({ running, seconds, size }: { running: boolean; seconds: Seconds; size: number }) {
  return (
    <svg
      width={size}
      height={size}
      viewBox="-36 -36 72 72"
      role="img"
      aria-label={`waiting ${seconds} seconds`}
      className="-rotate-90 shrink-0"
    >
      <circle r="29" fill="none" stroke="var(--hair)" strokeWidth="9" />
      <circle
        r="29"
        fill="none"
        stroke="#f2b705"
        strokeWidth="9"
        strokeDasharray="182.2"
        strokeDashoffset="182.2"
        className="wait-ring"
        style={
          { '--wait': `${seconds}s`, animationPlayState: running ? 'running' : 'paused' } as CSSProperties
        }
      />
    </svg>
  )
}
