import { type PointerEvent, type RefObject, useEffect, useMemo, useRef, useState } from 'react'
import { checkView, needsOf } from '@awlbox/core/film/camera/camera-check'
import { hardToTell } from '@awlbox/core/film/camera/colours'
import type { Captured } from '@awlbox/core/film/ear/mic'
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
import type { HeardWord } from '@awlbox/core/contracts/heard'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { useKept } from '../../saving/kept.ts'
import { StreamVideo } from './stream-video.tsx'
import { wordsOf } from '../../api.ts'

interface Place {
  u: number
  v: number
}
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
const spots = ['the first counters', 'the second counters', 'the mat'] as const

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
  const needs = useMemo(() => needsOf(moments, s.thing), [moments, s.thing])
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
          <Picture
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
          <Colours video={video} />
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
                <Slide
                  name="Height above the table"
                  value={s.height}
                  from={150}
                  to={1200}
                  step={10}
                  unit="mm"
                  onChange={(height) => set({ height })}
                />
                <Slide
                  name="Tilt from straight down"
                  value={s.tilt}
                  from={0}
                  to={70}
                  step={1}
                  unit="°"
                  onChange={(tilt) => set({ tilt })}
                />
                <Slide
                  name="Lens, across"
                  value={s.lens}
                  from={40}
                  to={110}
                  step={1}
                  unit="°"
                  onChange={(lens) => set({ lens })}
                />
                <p className="text-sm text-steel">Most phones see about 68° across, laptops about 74°.</p>
              </>
            ) : (
              <>
                <label className="flex gap-2 items-center">
                  Size{' '}
                  <select
                    value={s.sheet}
                    onChange={(e) => set({ sheet: e.target.value as Sheet })}
                    className="min-h-9 rounded-lg border border-hair bg-card px-2"
                  >
                    {Object.keys(sheets).map((n) => (
                      <option key={n}>{n}</option>
                    ))}
                  </select>
                </label>
                <p className="text-sm text-steel">
                  Lay it flat in the middle of the table and drag the four rings onto its corners, a long side
                  first.
                </p>
              </>
            )}
            <Slide
              name="A counter is across"
              value={s.thing}
              from={8}
              to={80}
              step={1}
              unit="mm"
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

function Slide({
  name,
  value,
  from,
  to,
  step,
  unit,
  onChange,
}: {
  name: string
  value: number
  from: number
  to: number
  step: number
  unit: string
  onChange: (n: number) => void
}) {
  return (
    <label className="grid gap-0.5 text-sm">
      <span className="flex justify-between">
        <span>{name}</span>
        <b className="figures">
          {value} {unit}
        </b>
      </span>
      <input
        type="range"
        min={from}
        max={to}
        step={step}
        value={value}
        onChange={(e) => onChange(Number(e.target.value))}
        className="accent-ink w-full"
      />
    </label>
  )
}

/** The camera's picture with the outline of every planned place in it, as large as it will be, and the corners of the sheet. */
function Picture({
  stream,
  video,
  view,
  needs,
  corners,
  onCorners,
  onAspect,
}: {
  stream: MediaStream
  video: RefObject<HTMLVideoElement | null>
  view: View | null
  needs: ReturnType<typeof needsOf>
  corners: Place[] | null
  onCorners: (c: Place[]) => void
  onAspect: (a: number) => void
}) {
  const box = useRef<SVGSVGElement>(null)
  const drag = useRef(-1)
  const at = (p: Place): string => `${50 + p.u * 50},${50 - p.v * 50}`
  const move = (e: PointerEvent) => {
    const r = box.current?.getBoundingClientRect()
    if (drag.current < 0 || !corners || !r) return
    const p = {
      u: Math.max(-1, Math.min(1, ((e.clientX - r.left) / r.width) * 2 - 1)),
      v: Math.max(-1, Math.min(1, 1 - ((e.clientY - r.top) / r.height) * 2)),
    }
    onCorners(corners.map((c, i) => (i === drag.current ? p : c)))
  }
  return (
    <div className="relative rounded-lg overflow-hidden bg-black aspect-video">
      <StreamVideo stream={stream} video={video} onSize={(w, h) => onAspect(w / Math.max(1, h))} />
      <svg
        ref={box}
        viewBox="0 0 100 100"
        preserveAspectRatio="none"
        className="absolute inset-0 w-full h-full touch-none"
        onPointerMove={move}
        onPointerUp={() => (drag.current = -1)}
      >
        {view &&
          needs.places.map((p) => {
            const points = [p.from, { x: p.to.x, y: p.from.y }, p.to, { x: p.from.x, y: p.to.y }].map((c) =>
              view.toPicture(c),
            )
            return (
              points.every((q) => q !== null) && (
                <polygon
                  key={p.name}
                  points={points.map((q) => at(q)).join(' ')}
                  fill="#f2b70522"
                  stroke="#f2b705"
                  strokeWidth="2"
                  vectorEffect="non-scaling-stroke"
                >
                  <title>{p.name}</title>
                </polygon>
              )
            )
          })}
        {corners && (
          <polygon
            points={corners.map(at).join(' ')}
            fill="none"
            stroke="#fff"
            strokeWidth="2"
            strokeDasharray="6 4"
            vectorEffect="non-scaling-stroke"
          />
        )}
      </svg>
      {corners?.map((c, i) => (
        <button
          key={i}
          type="button"
          aria-label={`Corner ${i + 1} of the sheet`}
          style={{ left: `${50 + c.u * 50}%`, top: `${50 - c.v * 50}%` }}
          className="absolute size-10 -translate-x-1/2 -translate-y-1/2 rounded-full border-4 border-saffron bg-black/30 cursor-grab touch-none"
          onPointerDown={(e) => {
            drag.current = i
            e.currentTarget.setPointerCapture(e.pointerId)
          }}
          onPointerMove={move}
          onPointerUp={() => (drag.current = -1)}
          onKeyDown={(e) => {
            const by = (
              { ArrowLeft: [-1, 0], ArrowRight: [1, 0], ArrowUp: [0, 1], ArrowDown: [0, -1] } as Record<
                string,
                [number, number]
              >
            )[e.key]
            if (!by) return
            e.preventDefault()
            onCorners(corners.map((x, k) => (k === i ? { u: x.u + by[0] * 0.01, v: x.v + by[1] * 0.01 } : x)))
          }}
        />
      ))}
    </div>
  )
}

/** Colours picked from the picture, held against each other for everybody's eyes. */
function Colours({ video }: { video: RefObject<HTMLVideoElement | null> }) {
  const [picked, setPicked] = useState<Record<string, string>>({
    'the first counters': '#f2b705',
    'the second counters': '#1f5f99',
    'the mat': '#f7f5ef',
  })
  const [picking, setPicking] = useState<string | null>(null)
  useEffect(() => {
    const v = video.current
    if (!picking || !v) return
    const take = (e: MouseEvent) => {
      const r = v.parentElement!.getBoundingClientRect()
      const canvas = document.createElement('canvas')
      canvas.width = v.videoWidth
      canvas.height = v.videoHeight
      const context = canvas.getContext('2d')
      if (!context) return
      context.drawImage(v, 0, 0)
      const [x, y] = [
        ((e.clientX - r.left) / r.width) * canvas.width,
        ((e.clientY - r.top) / r.height) * canvas.height,
      ]
      const d = context.getImageData(Math.max(0, x - 3), Math.max(0, y - 3), 7, 7).data
      const mean = [0, 1, 2].map((k) =>
        Math.round(d.reduce((sum, value, i) => sum + (i % 4 === k ? value : 0), 0) / (d.length / 4)),
      )
      setPicked((all) => ({
        ...all,
        [picking]: `#${mean.map((m) => m.toString(16).padStart(2, '0')).join('')}`,
      }))
      setPicking(null)
    }
    const area = v.parentElement!
    area.addEventListener('click', take)
    return () => area.removeEventListener('click', take)
  }, [picking, video])
  const alike = hardToTell(spots.map((name) => [name, picked[name]!] as const))
  return (
    <fieldset className="grid gap-1.5">
      <legend className="font-semibold mb-1">Colours</legend>
      <div className="flex flex-wrap gap-2">
        {spots.map((name) => (
          <span key={name} className="flex items-center gap-1.5 text-sm">
            <input
              type="color"
              aria-label={name}
              value={picked[name]}
              onChange={(e) => setPicked({ ...picked, [name]: e.target.value })}
              className="size-8 rounded border border-hair bg-card cursor-pointer"
            />
            {name}
            <Button
              small
              look="quiet"
              aria-pressed={picking === name}
              onClick={() => setPicking(picking === name ? null : name)}
            >
              {picking === name ? 'now click on it above' : 'pick'}
            </Button>
          </span>
        ))}
      </div>
      <p className={alike.length ? 'text-brick' : 'text-moss font-semibold'}>
        {alike.length ? alike.join(' ') : 'These stay apart for everybody, colour-blind or not.'}
      </p>
    </fieldset>
  )
}

/** Five seconds of the microphone, played back and shown as words. */
function MicTest({ stream, line, lessonId }: { stream: MediaStream; line: string; lessonId: string }) {
  const [state, setState] = useState<
    | { kind: 'idle' | 'listening' | 'reading' }
    | { kind: 'done'; words: HeardWord[]; sound: Captured; url: string }
    | { kind: 'wrong'; why: string }
  >({ kind: 'idle' })
  const url = state.kind === 'done' ? state.url : null
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url)
    },
    [url],
  )
  const test = () => {
    const audio = new MediaStream(stream.getAudioTracks())
    const parts: Blob[] = []
    const r = new MediaRecorder(audio)
    r.ondataavailable = (e) => void parts.push(e.data)
    r.onstop = async () => {
      setState({ kind: 'reading' })
      const sound = new Blob(parts, { type: r.mimeType })
      try {
        const response = await fetch(`/api/lessons/${lessonId}/mic-test`, {
          method: 'POST',
          headers: { 'content-type': 'application/octet-stream' },
          body: sound,
        })
        const body = (await response.json()) as { words: HeardWord[]; detail?: string } & Captured
        if (!response.ok) throw new Error(body.detail ?? 'The microphone test did not work.')
        setState({ kind: 'done', words: body.words, sound: body, url: URL.createObjectURL(sound) })
      } catch (error) {
        setState({ kind: 'wrong', why: wordsOf(error) })
      }
    }
    r.start()
    setTimeout(() => r.state !== 'inactive' && r.stop(), 5000)
    setState({ kind: 'listening' })
  }
  return (
    <section className="grid gap-2" aria-label="Microphone">
      <h3 className="font-semibold">Microphone</h3>
      <p className="text-sm">
        Say: <span className="font-child">“{line}”</span>
      </p>
      <Button small onClick={test} disabled={state.kind === 'listening' || state.kind === 'reading'}>
        {state.kind === 'listening'
          ? 'Listening for 5 s…'
          : state.kind === 'reading'
            ? 'Finding the words…'
            : 'Test the microphone'}
      </Button>
      {state.kind === 'done' && (
        <>
          <p className="font-child" aria-label="What was heard">
            {state.words.length ? `“${state.words.map((w) => w.word).join(' ')}”` : 'No word was understood.'}
          </p>
          <p className={`text-sm ${state.sound.good ? 'text-moss font-semibold' : 'text-brick'}`}>
            {state.sound.advice}
          </p>
          <audio controls src={state.url} className="w-full h-9" />
        </>
      )}
      {state.kind === 'wrong' && <p className="text-brick text-sm">{state.why}</p>}
    </section>
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
