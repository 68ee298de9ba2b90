import type { Frames } from '@awlbox/core/contracts/units'
import { Select } from '../../../kit/select.tsx'
import { framesPerSecond, type Hidden, type Repair } from '@awlbox/core/contracts/cut'
import { hiddenNames } from '@awlbox/core/cut/covers'
import { isProperQuad } from '@awlbox/core/cut/homography'
import { film } from '@awlbox/core/film/camera/frame'
import { isPlainRepair, keyed, matched, plainRepair } from '@awlbox/core/cut/repairs'
import { clockTime } from '@awlbox/core/words'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../../kit/button.tsx'
import { Slider } from '../../../kit/slider.tsx'

/** What is being set by hand on the picture. */
export type Picked = { kind: 'hidden'; id: string } | { kind: 'corner'; n: 0 | 1 | 2 | 3 } | null
interface Props {
  take: TakeRecord | null
  /** Takes of the lesson it can be matched to. */
  others: readonly TakeRecord[]
  nameOf: (take: TakeRecord) => string
  repair: Repair
  /** Frame of the take in the picture. */
  frame: Frames
  mayChange: boolean
  pick: Picked
  onPick: (pick: Picked) => void
  onChange: (change: (r: Repair) => Repair, together: string | null) => void
}
/** Noise above this (decibels under full scale) is heard on a quiet evening. */
const noisy = -58

/** What is mended in the picture and sound of the take that is shown, wherever it is shown. */
export function RepairPanel({
  take,
  others,
  nameOf,
  repair: r,
  frame,
  mayChange,
  pick,
  onPick,
  onChange,
}: Props) {
  if (!take)
    return <p className="text-steel">Go to a filmed moment: what is mended there holds for its whole take.</p>
  const set = (change: Partial<Repair>, together: string | null = null): void =>
    onChange((x) => ({ ...x, ...change }), together && `repair ${take.id} ${together}`)
  const closer = r.closer ?? { x: film.width / 2, y: film.height / 2, by: 1, from: 0, frames: 0 }
  const looked = take.looked
  const match = (other: TakeRecord): void => {
    if (looked?.mean && other.looked?.mean) set(matched(looked.mean, other.looked.mean))
  }
  const slider = (
    label: string,
    value: number,
    least: number,
    most: number,
    step: number,
    words: string,
    change: (v: number) => void,
  ) => (
    <Slider
      label={label}
      value={value}
      from={least}
      to={most}
      step={step}
      words={words}
      disabled={!mayChange}
      onChange={change}
    />
  )
  const tick = (label: string, on: boolean, change: (on: boolean) => void, hint = '') => (
    <label className="flex items-center gap-2 min-h-8">
      <input
        type="checkbox"
        checked={on}
        disabled={!mayChange}
        onChange={(e) => change(e.target.checked)}
        className="w-5 h-5 accent-ink"
      />
      <span>
        {label}
        {hint && <span className="text-steel text-sm"> {hint}</span>}
      </span>
    </label>
  )
  const signed = (v: number): string => (v > 0 ? `+${v}` : String(v).replace('-', '−'))
  return (
    <div className="grid gap-3">
      <p className="flex items-center gap-2">
        <b className="flex-1 min-w-0 truncate">{nameOf(take)}</b>
        {mayChange && !isPlainRepair(r) && (
          <Button small onClick={() => onChange(() => ({ ...plainRepair(take.id), hidden: r.hidden }), null)}>
            As it was filmed
          </Button>
        )}
      </p>
      <fieldset className="grid gap-1.5">
        <legend className="text-sm text-steel">Picture</legend>
        <div className="flex flex-wrap gap-2 items-center">
          <Button
            small
            disabled={!mayChange}
            onClick={() => set({ turn: ((r.turn + 90) % 360) as Repair['turn'] })}
          >
            Turn a quarter{r.turn ? ` (now ${r.turn}°)` : ''}
          </Button>
          {tick('Mirrored', r.mirror, (mirror) => set({ mirror }), 'writing read backwards')}
          {tick('Steady', r.steady, (steady) => set({ steady }), 'seen when rendered')}
        </div>
        {slider('Closer', closer.by, 1, 4, 0.05, `${closer.by.toFixed(2)} ×`, (by) =>
          set({ closer: by === 1 && !closer.frames ? null : { ...closer, by } }, 'closer'),
        )}
        {r.closer && (
          <>
            {slider(
              'Left to right',
              closer.x,
              0,
              film.width,
              10,
              `${Math.round((closer.x / film.width) * 100)} %`,
              (x) => set({ closer: { ...closer, x } }, 'closer x'),
            )}
            {slider(
              'Up and down',
              closer.y,
              0,
              film.height,
              10,
              `${Math.round((closer.y / film.height) * 100)} %`,
              (y) => set({ closer: { ...closer, y } }, 'closer y'),
            )}
            <p className="flex flex-wrap items-center gap-2 text-sm">
              {closer.frames
                ? `Slowly, from ${clockTime(closer.from / framesPerSecond)} of the take over ${closer.frames / framesPerSecond} s`
                : 'From its beginning'}
              {mayChange && (
                <>
                  <Button
                    small
                    onClick={() => set({ closer: { ...closer, from: frame, frames: 4 * framesPerSecond } })}
                  >
                    Slowly from here
                  </Button>
                  {closer.frames > 0 && (
                    <Button small onClick={() => set({ closer: { ...closer, from: 0, frames: 0 } })}>
                      All the time
                    </Button>
                  )}
                </>
              )}
            </p>
          </>
        )}
        <div className="flex flex-wrap gap-2 items-center">
          {!r.corners ? (
            <Button
              small
              disabled={!mayChange}
              onClick={() => {
                set({
                  corners: [
                    { x: 160, y: 90 },
                    { x: 1120, y: 90 },
                    { x: 1120, y: 630 },
                    { x: 160, y: 630 },
                  ],
                })
                onPick({ kind: 'corner', n: 0 })
              }}
            >
              Straighten a tilted table
            </Button>
          ) : (
            <>
              <span className="text-sm text-steel">The table’s corners:</span>
              {(['upper left', 'upper right', 'lower right', 'lower left'] as const).map((name, n) => (
                <Button
                  key={name}
                  small
                  aria-pressed={pick?.kind === 'corner' && pick.n === n}
                  onClick={() =>
                    onPick(pick?.kind === 'corner' && pick.n === n ? null : { kind: 'corner', n: n as 0 })
                  }
                >
                  {name}
                </Button>
              ))}
              <Button
                small
                onClick={() => {
                  onPick(null)
                  set({ corners: null })
                }}
              >
                Not straightened
              </Button>
              {!isProperQuad(r.corners) && (
                <span className="text-sm text-brick">
                  These corners cross: nothing is straightened until they go round.
                </span>
              )}
            </>
          )}
        </div>
        {slider('Light', r.light, -2, 2, 0.05, `${signed(r.light)} stops`, (light) =>
          set({ light }, 'light'),
        )}
        {slider('Warmth', r.warmth, -1, 1, 0.02, signed(r.warmth), (warmth) => set({ warmth }, 'warmth'))}
        {looked?.mean && others.some((o) => o.looked?.mean) && (
          <label className="flex items-center gap-2 text-sm text-steel">
            Match light and colour to
            <Select
              label="Match light and colour to"
              look="small"
              className="flex-1 text-ink"
              value=""
              hint="another take"
              disabled={!mayChange}
              choices={others.filter((o) => o.looked?.mean).map((o) => ({ value: o.id, words: nameOf(o) }))}
              onChange={(id) => {
                const other = others.find((o) => o.id === id)
                if (other) match(other)
              }}
            />
          </label>
        )}
      </fieldset>
      <HiddenAreas
        r={r}
        take={take}
        frame={frame}
        mayChange={mayChange}
        pick={pick}
        onPick={onPick}
        onChange={onChange}
      />
      <fieldset className="grid gap-1.5">
        <legend className="text-sm text-steel">
          Sound{' '}
          {looked?.noise != null && (
            <span className="figures">
              · its room: {looked.noise} dB{looked.hum ? `, hum of ${looked.hum} Hz` : ''}
            </span>
          )}
        </legend>
        {slider('Louder', r.louder, -24, 24, 0.5, `${signed(r.louder)} dB`, (louder) =>
          set({ louder }, 'louder'),
        )}
        <div className="flex flex-wrap gap-x-4">
          {tick(
            'Take out the hum',
            r.hum > 0,
            (on) => set({ hum: on ? looked?.hum || 50 : 0 }),
            looked?.hum ? 'heard in this take' : '',
          )}
          {tick(
            'Take down the hiss',
            r.hiss,
            (hiss) => set({ hiss }),
            looked?.noise != null && looked.noise > noisy ? 'heard in this take' : '',
          )}
        </div>
        <p className="text-sm text-steel">
          The whole film is levelled to −16 LUFS; its own room is laid under cards and held pictures.
        </p>
      </fieldset>
    </div>
  )
}

/** What the program found nothing of, for a person to know that they are the one who looks. */
function nothingFound(looked: NonNullable<TakeRecord['looked']>): string {
  const [faces, names] = [looked.faces.length === 0, looked.written?.seen.length === 0]
  if (!faces && !names) return ''
  return ` No ${[...(faces ? ['face'] : []), ...(names ? ['printed name'] : [])].join(' and no ')} was found in this take; small or turned ones${names ? ', and names written by hand,' : ''} are missed, so look through it yourself all the same.`
}
const kinds = ['face', 'name', 'number', 'other'] as const
/** What is covered over, and what is proposed to be. */
function HiddenAreas({
  r,
  take,
  frame,
  mayChange,
  pick,
  onPick,
  onChange,
}: {
  r: Repair
  take: TakeRecord
  frame: Frames
  mayChange: boolean
  pick: Picked
  onPick: (p: Picked) => void
  onChange: Props['onChange']
}) {
  const change = (id: string, next: (h: Hidden) => Hidden | null): void =>
    onChange((x) => ({ ...x, hidden: x.hidden.flatMap((h) => (h.id === id ? (next(h) ?? []) : [h])) }), null)
  const length = Math.round((take.seconds ?? 0) * framesPerSecond)
  const shown = r.hidden.filter((h) => h.why?.state !== 'declined')
  return (
    <fieldset className="grid gap-1.5">
      <legend className="text-sm text-steel">Covered over</legend>
      {shown.map((h) => {
        const on = pick?.kind === 'hidden' && pick.id === h.id
        const open = h.why?.state === 'open'
        return (
          <div
            key={h.id}
            className={`rounded-lg border px-2.5 py-1.5 grid gap-1 ${on ? 'border-saffron border-2 bg-here' : open ? 'border-dashed border-brick' : 'border-hair'}`}
          >
            <div className="flex flex-wrap items-center gap-2">
              <span className="flex-1 min-w-32">
                <b>{hiddenNames[h.what]}</b>{' '}
                <span className="text-sm text-steel figures">
                  {clockTime(h.from / framesPerSecond)}–{clockTime(h.to / framesPerSecond)} of the take
                </span>
              </span>
              {mayChange && open && (
                <>
                  <Button
                    small
                    look="act"
                    onClick={() => change(h.id, (x) => ({ ...x, why: { ...x.why!, state: 'accepted' } }))}
                  >
                    Cover it
                  </Button>
                  <Button
                    small
                    onClick={() => change(h.id, (x) => ({ ...x, why: { ...x.why!, state: 'declined' } }))}
                  >
                    It may be seen
                  </Button>
                </>
              )}
              {mayChange && !open && (
                <>
                  <Button
                    small
                    aria-pressed={on}
                    onClick={() => onPick(on ? null : { kind: 'hidden', id: h.id })}
                  >
                    {on ? 'Done' : 'Place it'}
                  </Button>
                  <Button
                    small
                    onClick={() => {
                      onPick(null)
                      change(h.id, (x) => (x.why ? { ...x, why: { ...x.why, state: 'declined' } } : null))
                    }}
                  >
                    Uncover
                  </Button>
                </>
              )}
            </div>
            {open && <p className="text-sm text-steel">{h.why!.note}</p>}
            {on && (
              <div className="flex flex-wrap items-center gap-2 text-sm">
                <span className="text-steel">
                  Drag it where it belongs now: it goes from place to place by itself.
                </span>
                <Button
                  small
                  onClick={() => change(h.id, (x) => ({ ...x, from: Math.min(frame, x.to - 1) }))}
                >
                  Begin here
                </Button>
                <Button
                  small
                  onClick={() => change(h.id, (x) => ({ ...x, to: Math.max(frame, x.from + 1) }))}
                >
                  End here
                </Button>
                <span className="text-steel figures">
                  {h.keys.length} {h.keys.length === 1 ? 'place' : 'places'}
                </span>
              </div>
            )}
          </div>
        )
      })}
      {mayChange && (
        <div className="flex flex-wrap gap-2 items-center text-sm text-steel">
          Cover{' '}
          {kinds.map((what) => (
            <Button
              key={what}
              small
              onClick={() => {
                const id = crypto.randomUUID().slice(0, 18)
                onChange(
                  (x) => ({
                    ...x,
                    hidden: [
                      ...x.hidden,
                      keyed({ id, what, from: 0, to: Math.max(1, length), keys: [], why: null }, frame, {
                        x: 560,
                        y: 280,
                        w: 160,
                        h: 160,
                      }),
                    ],
                  }),
                  null,
                )
                onPick({ kind: 'hidden', id })
              }}
            >
              {hiddenNames[what]}
            </Button>
          ))}
        </div>
      )}
      <p className="text-sm text-steel">
        Faces, names and addresses leave the room with the film. Cover what not everyone concerned has agreed
        to; your setting’s safeguarding policy and local law come first.
        {take.looked && nothingFound(take.looked)}
      </p>
    </fieldset>
  )
}
