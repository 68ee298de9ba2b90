import { named, Select } from '../../kit/select.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { useEffect, useMemo, useRef, useState } from 'react'
import { checkView, needsOf } from '@awlbox/core/film/camera/camera-check'
import {
  mmPerPixel,
  patchOf,
  type Sheet,
  sheets,
  type View,
  viewFrom,
  viewFromSheet,
} from '@awlbox/core/film/camera/view'
import type { Moment } from '@awlbox/core/script/simulate'
import { Dialog } from '../../kit/dialog.tsx'
import { Slider } from '../../kit/slider.tsx'
import { useKept } from '../../saving/kept.ts'
import { CameraColours } from './camera-colours.tsx'
import { CameraPicture, type Place } from './camera-picture.tsx'
import { MicTest } from './mic-test.tsx'

interface Settings {
  how: 'measures' | 'sheet'
  height: number
  tilt: number
  lens: number
  thing: number
  sheet: Sheet
  corners: Place[]
}
const start: Settings = {
  how: 'measures',
  height: 450,
  tilt: 0,
  lens: 68,
  thing: 30,
  sheet: 'A4',
  corners: [
    { u: -0.4, v: -0.4 },
    { u: 0.4, v: -0.4 },
    { u: 0.4, v: 0.4 },
    { u: -0.4, v: 0.4 },
  ],
}

/** Before filming: will families see what is planned, tell the colours apart, and hear the words? */
export function CameraCheck({
  stream,
  moments,
  firstLine,
  lessonId,
  onClose,
}: {
  stream: MediaStream
  moments: readonly Moment[]
  firstLine: string
  lessonId: string
  onClose: () => void
}) {
  const [s, set] = useKept<Settings>('awlbox-camera-check', start)
  const video = useRef<HTMLVideoElement>(null)
  const [aspect, setAspect] = useState(16 / 9)
  const { me } = useLesson()
  const needs = useMemo(() => needsOf(moments, s.thing, me.houseStyle.frameFill), [moments, s.thing, me])
  const seen = useMemo((): { view: View } | { problem: string } => {
    try {
      return {
        view:
          s.how === 'measures'
            ? viewFrom({ height: s.height, tilt: s.tilt, lens: s.lens, aspect })
            : viewFromSheet(s.corners, s.sheet, aspect),
      }
    } catch (error) {
      return { problem: (error as Error).message }
    }
  }, [s, aspect])
  const view = 'view' in seen ? seen.view : null
  const advice = view ? checkView(view, needs, s.how === 'measures' ? s.height : null) : []
  const patch = view && patchOf(view)
  const near = view && mmPerPixel(view, -0.9, 1280)
  const far = view && mmPerPixel(view, 0.9, 1280)
  return (
    <Dialog open wide onClose={onClose} title="Camera check">
      <div className="grid md:grid-cols-[minmax(0,1fr)_250px] gap-4">
        <div className="grid gap-3 content-start">
          <CameraPicture
            stream={stream}
            video={video}
            view={view}
            needs={needs}
            corners={s.how === 'sheet' ? s.corners : null}
            onCorners={(corners) => set({ corners })}
            onAspect={setAspect}
          />
          <ul className="grid gap-1.5" aria-label="What the camera shows">
            {'problem' in seen && <li className="text-brick">{seen.problem}</li>}
            {advice.map((a) => (
              <li
                key={a.kind}
                className={
                  a.kind === 'fine'
                    ? 'text-moss font-semibold'
                    : a.kind === 'loose'
                      ? 'text-blue'
                      : 'text-brick'
                }
              >
                {a.message}
              </li>
            ))}
          </ul>
          {patch && near !== null && far !== null && (
            <p className="text-sm text-steel figures">
              It sees {Math.round(Math.hypot(patch[1]!.x - patch[0]!.x, patch[1]!.y - patch[0]!.y) / 10)} cm
              across at the near edge,{' '}
              {Math.round(Math.hypot(patch[2]!.x - patch[3]!.x, patch[2]!.y - patch[3]!.y) / 10)} cm at the
              far one: {near.toFixed(2)} and {far.toFixed(2)} mm to a pixel. Families’ phones are taken as 14
              cm wide, 40 cm from the eye.
            </p>
          )}
          <CameraColours video={video} />
        </div>
        <div className="grid gap-4 content-start">
          <fieldset className="grid gap-2">
            <legend className="font-semibold mb-1">Where the camera is</legend>
            <label className="flex gap-2 items-center">
              <input
                type="radio"
                checked={s.how === 'measures'}
                onChange={() => set({ how: 'measures' })}
                className="size-4 accent-ink"
              />
              I measure it
            </label>
            <label className="flex gap-2 items-center">
              <input
                type="radio"
                checked={s.how === 'sheet'}
                onChange={() => set({ how: 'sheet' })}
                className="size-4 accent-ink"
              />
              a sheet of paper shows it
            </label>
            {s.how === 'measures' ? (
              <>
                <Slider
                  over
                  label="Height above the table"
                  value={s.height}
                  from={150}
                  to={1200}
                  step={10}
                  words={`${s.height} mm`}
                  onChange={(height) => set({ height })}
                />
                <Slider
                  over
                  label="Tilt from straight down"
                  value={s.tilt}
                  from={0}
                  to={70}
                  step={1}
                  words={`${s.tilt} °`}
                  onChange={(tilt) => set({ tilt })}
                />
                <Slider
                  over
                  label="Lens, across"
                  value={s.lens}
                  from={40}
                  to={110}
                  step={1}
                  words={`${s.lens} °`}
                  onChange={(lens) => set({ lens })}
                />
                <p className="text-sm text-steel">Most phones see about 68° across, laptops about 74°.</p>
              </>
            ) : (
              <>
                <label className="flex gap-2 items-center">
                  Size{' '}
                  <Select
                    value={s.sheet}
                    choices={named(Object.keys(sheets) as Sheet[])}
                    onChange={(sheet) => set({ sheet })}
                  />
                </label>
                <p className="text-sm text-steel">
                  Lay it flat in the middle of the table and drag the four rings onto its corners, a long side
                  first.
                </p>
              </>
            )}
            <Slider
              over
              label="A counter is across"
              value={s.thing}
              from={8}
              to={80}
              step={1}
              words={`${s.thing} mm`}
              onChange={(thing) => set({ thing })}
            />
          </fieldset>
          <MicTest stream={stream} line={firstLine} lessonId={lessonId} />
          <Spirit />
        </div>
      </div>
    </Dialog>
  )
}

/** How level the device lies, where it can tell. */
function Spirit() {
  const [tilt, setTilt] = useState<{ beta: number; gamma: number } | null>(null)
  useEffect(() => {
    const feel = (e: DeviceOrientationEvent) =>
      e.beta !== null && e.gamma !== null && setTilt({ beta: e.beta, gamma: e.gamma })
    window.addEventListener('deviceorientation', feel)
    return () => window.removeEventListener('deviceorientation', feel)
  }, [])
  if (!tilt)
    return (
      <p className="text-sm text-steel">
        This device cannot tell whether it lies level. Check the sides of a mat against the edges of the
        picture.
      </p>
    )
  const off = Math.round(Math.hypot(tilt.beta, tilt.gamma))
  return (
    <p className={`text-sm ${off <= 2 ? 'text-moss font-semibold' : 'text-brick'}`}>
      {off <= 2
        ? 'The camera lies level.'
        : `The camera leans ${off}°: ${Math.abs(tilt.beta) > Math.abs(tilt.gamma) ? 'to the front or back' : 'to one side'}.`}
    </p>
  )
}
