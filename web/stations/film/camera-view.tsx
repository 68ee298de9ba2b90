import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { type RefObject, useEffect, useState } from 'react'
import { film, tableInTake } from '@awlbox/core/film/camera/frame'
import type { TableState } from '@awlbox/core/script/table/state'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { useKept } from '../../saving/kept.ts'
import { Notice } from '../../kit/notice.tsx'
import { TableDrawing } from '../../table/drawing.tsx'
import { StreamVideo } from './stream-video.tsx'
import { type Levels, useLevel } from './use-levels.ts'
import { useLight } from './use-light.ts'
import type { Devices, RecorderState } from './use-recorder.ts'

interface Props {
  state: RecorderState
  devices: Devices
  video: RefObject<HTMLVideoElement | null>
  onOpen: (want?: { camera?: string; microphone?: string }) => void
  table: TableState | null
  levels: Levels
  /** Seconds recorded so far. */
  at: () => number
}
type Side = 'viewer' | 'facing' | 'mirror'
const sides: Record<Side, string> = {
  viewer: 'as families see it',
  facing: 'turned to your side',
  mirror: 'mirrored',
}

const share = (n: number, of: number): string => `${(n / of) * 100}%`
/** Where the planned table is to lie: there overlays will keep clear of it. */
const guide = {
  left: share(tableInTake.x, film.width),
  top: share(tableInTake.y, film.height),
  width: share(tableInTake.w, film.width),
}

/** The camera with the planned table as a faint drawing over it, from the viewer's side; below it what is wrong with light and sound. */
export function CameraView({ state, devices, video, onOpen, table, levels, at }: Props) {
  const { me } = useLesson()
  const [view, setView] = useKept<{ overlay: boolean; side: Side }>('awlbox-camera', {
    overlay: true,
    side: 'viewer',
  })
  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  const light = useLight(video, stream)
  if (!stream)
    return (
      <Card className="aspect-[16/6] grid place-items-center p-5 text-center">
        <div className="grid gap-3 justify-items-center">
          {state.kind === 'refused' ? (
            <Notice kind="wrong">{state.why}</Notice>
          ) : (
            <p className="text-steel max-w-sm">
              The camera over your table. No faces of children, no names or addresses in view; hot drinks and
              plug leads off the table. Follow your setting’s policies on filming.
            </p>
          )}
          <Button look="main" onClick={() => onOpen()}>
            Open the camera
          </Button>
        </div>
      </Card>
    )
  const turn = view.side === 'facing' ? 'rotate-180' : view.side === 'mirror' ? '-scale-x-100' : ''
  return (
    <div className="grid gap-2">
      <div className="relative rounded-xl overflow-hidden border border-hair bg-black aspect-video">
        <div className={`absolute inset-0 ${turn}`}>
          <StreamVideo stream={stream} video={video} />
          {view.overlay && table && table.mats.length > 0 && (
            <div className="absolute opacity-40 pointer-events-none" style={guide}>
              <TableDrawing table={table} fill={me.houseStyle.frameFill} className="!bg-transparent" />
            </div>
          )}
        </div>
        {view.side !== 'viewer' && (
          <span className="absolute left-2 top-2 rounded-lg bg-black/60 text-white text-sm px-2 py-0.5">
            Shown {sides[view.side]}; families see it the other way round
          </span>
        )}
        {state.kind === 'filming' && <Elapsed at={at} paused={state.paused} />}
      </div>
      <div className="flex flex-wrap items-center gap-x-4 gap-y-1 text-sm">
        <SoundMeter levels={levels} />
        <Meter
          name="Light"
          value={light?.mean ?? 0}
          wrong={light?.advice !== undefined && light.advice !== ''}
          words={light ? light.words : '…'}
        />
        <span className="flex-1" />
        <label className="flex items-center gap-1.5 min-h-8">
          <input
            type="checkbox"
            checked={view.overlay}
            onChange={(e) => setView({ overlay: e.target.checked })}
            className="size-4 accent-ink"
          />
          show the plan
        </label>
        <Select
          label="Which way the picture is shown"
          look="small"
          value={view.side}
          choices={(Object.keys(sides) as Side[]).map((value) => ({ value, words: sides[value] }))}
          onChange={(side) => setView({ side })}
        />
        {state.kind === 'open' && devices.cameras.length > 1 && (
          <Choice
            name="Camera"
            list={devices.cameras}
            value={devices.camera}
            onChange={(camera) => onOpen({ camera })}
          />
        )}
        {state.kind === 'open' && devices.microphones.length > 1 && (
          <Choice
            name="Microphone"
            list={devices.microphones}
            value={devices.microphone}
            onChange={(microphone) => onOpen({ microphone })}
          />
        )}
      </div>
      {light?.advice && <p className="text-sm text-brick">{light.advice}</p>}
      <SoundAdvice levels={levels} />
    </div>
  )
}

function Choice({
  name,
  list,
  value,
  onChange,
}: {
  name: string
  list: readonly MediaDeviceInfo[]
  value: string
  onChange: (id: string) => void
}) {
  return (
    <Select
      label={name}
      look="small"
      className="max-w-40"
      value={value}
      choices={list.map((d, i) => ({ value: d.deviceId, words: d.label || `${name} ${i + 1}` }))}
      onChange={onChange}
    />
  )
}
function SoundMeter({ levels }: { levels: Levels }) {
  const { level, speaking, clipped } = useLevel(levels)
  return (
    <Meter
      name="Sound"
      value={Math.min(1, Math.sqrt(level) * 1.6)}
      wrong={clipped}
      words={clipped ? 'too loud' : level < 0.002 ? 'silent' : speaking ? 'voice' : 'room'}
    />
  )
}
function SoundAdvice({ levels }: { levels: Levels }) {
  return (
    useLevel(levels).clipped && (
      <p className="text-sm text-brick">
        The sound breaks up: move the microphone further away, or turn it down.
      </p>
    )
  )
}
/** A level between nothing and full, with its word beside it. */
function Meter({
  name,
  value,
  words,
  wrong,
}: {
  name: string
  value: number
  words: string
  wrong: boolean
}) {
  return (
    <span className="flex items-center gap-1.5">
      <span className="text-steel">{name}</span>
      <span
        role="meter"
        aria-label={name}
        aria-valuemin={0}
        aria-valuemax={100}
        aria-valuenow={Math.round(value * 100)}
        aria-valuetext={words}
        className="w-20 h-2 rounded-full bg-hair overflow-hidden"
      >
        <span
          className={`block h-full ${wrong ? 'bg-brick' : 'bg-ink'}`}
          style={{ width: `${value * 100}%` }}
        />
      </span>
      <span className={`w-14 ${wrong ? 'text-brick font-semibold' : 'text-steel'}`}>{words}</span>
    </span>
  )
}
function Elapsed({ at, paused }: { at: () => number; paused: boolean }) {
  const [now, setNow] = useState(0)
  useEffect(() => {
    const t = setInterval(() => setNow(at()), 250)
    return () => clearInterval(t)
  }, [at])
  return (
    <span
      role="status"
      className="absolute right-2 top-2 rounded-lg bg-brick text-card font-semibold px-2.5 py-1 figures"
    >
      {paused ? 'Paused' : 'Filming'} {clockTime(now)}
    </span>
  )
}
