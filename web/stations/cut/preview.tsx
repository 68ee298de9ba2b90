import type { Frames } from '@awlbox/core/contracts/units'
import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import type { CutList, Overlay } from '@awlbox/core/contracts/cut'
import { framesPerSecond } from '@awlbox/core/contracts/cut'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { captionBox, captionLetters } from '@awlbox/core/cut/caption-drawing'
import { cardShapes, ringPlace, ringShapes } from '@awlbox/core/cut/card'
import { magnifierShapes, overlayShapes } from '@awlbox/core/cut/overlay-drawing'
import { type Program, shotAt } from '@awlbox/core/cut/program'
import { film } from '@awlbox/core/film/camera/frame'
import {
  boxAt,
  boxInFilm,
  cssMatrix,
  filmToTake,
  gainsOf,
  isCovered,
  isPlainRepair,
  repairOf,
  takeToFilm,
} from '@awlbox/core/cut/repairs'
import { plays } from '@awlbox/core/cut/timeline'
import type { Shape } from '@awlbox/core/script/table/drawing/paper'
import { toSvg } from '@awlbox/core/script/table/drawing/table'
import type { TableState } from '@awlbox/core/script/table/state'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { MovableBox } from './movable-box.tsx'
import type { Player } from './use-player.ts'

/** A box being placed on the picture: an overlay (film), or what is hidden (its take). */
export interface Placing {
  label: string
  box: Overlay['place']
  space: 'film' | 'take'
  onMove: (box: Overlay['place'], done: boolean) => void
}
interface Props {
  program: Program
  player: Player
  list: CutList
  /** The span in the picture and the frame of its take that is seen; `along`: the one that would be, did it not stand still. Null on cards. */
  shown: { segmentId: string; takeId: string; frame: Frames; along: number } | null
  tables: (stepId: string) => TableState | null
  fill: HouseStyle['frameFill']
  /** What is said now, or null. */
  caption: { text: string; top?: number | null } | null
  /** What hums or is chosen to be moved over the picture. */
  placing: Placing | null
  onWord: (step: -1 | 1) => void
  /** Whether the picture gives room to what is worked on below it. */
  small: boolean
}
/** The whole film as it will be, played from the takes: mended, with cards, rings, overlays and captions over it. Shaking is taken out only when it is rendered. */
export function Preview({
  program,
  player,
  list,
  shown,
  tables,
  fill,
  caption,
  placing,
  onWord,
  small,
}: Props) {
  const { screens, voice, seen, frame, playing } = player
  const [stage, width] = useWidth()
  const scale = width / film.width
  const shot = program.shots[shotAt(program, frame)]
  const card =
    shot?.run.kind === 'card' ? shot.run.card : shot?.still && 'look' in shot.still ? shot.still : null
  const beside = card?.table ? tables(card.table) : null
  const inShot = shot ? (frame - shot.at) / Math.max(1, shot.run.frames) : 0
  // Of a held picture the repairs are those of the take it is of.
  const take = useMemo(
    () =>
      shown ??
      (shot?.still && 'takeId' in shot.still
        ? { segmentId: shot.segmentId, takeId: shot.still.takeId, frame: shot.still.frame }
        : null),
    [shown, shot],
  )
  const repair = take ? repairOf(list, take.takeId) : null
  const map = useMemo(
    () => (repair && take && !isPlainRepair(repair) ? takeToFilm(repair, take.frame) : null),
    [repair, take],
  )
  const gains = repair && (repair.light || repair.warmth) ? gainsOf(repair) : null
  const over =
    take && shown
      ? (list.segments.find((s) => s.segmentId === take.segmentId)?.overlays ?? []).filter(
          (o) => plays(o) && o.takeId === take.takeId && shown.along >= o.from && shown.along < o.to,
        )
      : []
  return (
    <div className="grid gap-2 w-full max-w-[580px] mx-auto">
      <div
        ref={stage}
        className={`relative rounded-xl overflow-hidden bg-black aspect-video w-full mx-auto ${small ? 'max-w-[calc((100dvh-112px)*0.6)] max-md:max-w-none' : ''}`}
      >
        <div
          className="absolute inset-0"
          role="img"
          aria-label={caption ? `The film: “${caption.text}”` : 'The film'}
        >
          {gains && (
            <svg width="0" height="0" className="absolute" aria-hidden>
              <filter id="light-of-take" colorInterpolationFilters="sRGB">
                <feColorMatrix
                  values={`${gains.r} 0 0 0 0  0 ${gains.g} 0 0 0  0 0 ${gains.b} 0 0  0 0 0 1 0`}
                />
              </filter>
            </svg>
          )}
          <div
            className="absolute inset-0 origin-top-left"
            style={{
              ...(map && scale ? { transform: cssMatrix(map, scale) } : {}),
              ...(gains ? { filter: 'url(#light-of-take)' } : {}),
            }}
          >
            {screens.map((ref, i) => (
              <video
                key={i}
                ref={ref}
                preload="auto"
                playsInline
                aria-hidden
                className="absolute inset-0 w-full h-full"
                style={{ opacity: i === seen ? 1 : 0 }}
              />
            ))}
            {take &&
              repair?.hidden.filter(isCovered).map((h) => {
                const b = boxAt(h, take.frame)
                return (
                  b && (
                    <span
                      key={h.id}
                      className="absolute rounded-sm bg-steel backdrop-blur-2xl"
                      style={placeOf(b)}
                    />
                  )
                )
              })}
          </div>
          <audio ref={voice} preload="auto" />
          {over.map((o) => (
            <Over
              key={o.id}
              overlay={o}
              table={o.stepId ? tables(o.stepId) : null}
              fill={fill}
              video={screens[seen].current}
              frame={frame}
              back={map}
            />
          ))}
          {card && (
            <Drawn
              shapes={cardShapes(card, beside && { table: beside, fill })}
              w={film.width}
              h={film.height}
              className="absolute inset-0"
            />
          )}
          {(shot?.run.kind === 'hold' || (shot?.run.kind === 'card' && shot.run.card.look === 'stop')) && (
            <Ring share={inShot} place={shot.run.kind === 'hold' ? ringPlace.hold : ringPlace.stop} />
          )}
          {caption && (
            <span
              dir="auto"
              style={{
                ...placeOf(captionBox(caption.text, caption.top)),
                fontSize: captionLetters.size * scale,
                lineHeight: captionLetters.line,
              }}
              className="absolute grid place-items-center rounded-lg bg-black/80 text-white font-child text-center whitespace-pre"
            >
              {caption.text}
            </span>
          )}
        </div>
        {placing && scale > 0 && (
          <MovableBox
            label={placing.label}
            scale={scale}
            box={placing.space === 'take' && map ? boxInFilm(map, placing.box) : placing.box}
            onMove={(b, done) =>
              placing.onMove(placing.space === 'take' && map ? boxInFilm(filmToTake(map), b) : b, done)
            }
          />
        )}
      </div>
      <div className="flex gap-2 items-center flex-wrap">
        <Button onClick={() => (playing ? player.stop() : player.play())}>{playing ? 'Stop' : 'Play'}</Button>
        <Button onClick={() => onWord(-1)}>Back a word</Button>
        <Button onClick={() => onWord(1)}>On a word</Button>
        <Button onClick={() => player.play(0)}>From the start</Button>
        <span className="flex-1" />
        <span className="text-steel text-sm figures">
          {clockTime(frame / framesPerSecond)} of {clockTime(program.frames / framesPerSecond)}
        </span>
      </div>
    </div>
  )
}
const placeOf = (b: Overlay['place']): React.CSSProperties => ({
  left: `${(b.x / film.width) * 100}%`,
  top: `${(b.y / film.height) * 100}%`,
  width: `${(b.w / film.width) * 100}%`,
  height: `${(b.h / film.height) * 100}%`,
})

/** Follows the width of an element, in pixels. */
function useWidth(): [(e: HTMLElement | null) => void, number] {
  const [width, setWidth] = useState(0)
  const observer = useRef<ResizeObserver | null>(null)
  useEffect(() => () => observer.current?.disconnect(), [])
  const ref = useCallback((e: HTMLElement | null) => {
    observer.current?.disconnect()
    if (!e) return
    observer.current = new ResizeObserver(() => setWidth(e.clientWidth))
    observer.current.observe(e)
    setWidth(e.clientWidth)
  }, [])
  return [ref, width]
}

/** A drawing of the house as a picture: the same drawing code as the rendered film’s. */
function Drawn({
  shapes,
  w,
  h,
  className,
  style,
}: {
  shapes: readonly Shape[]
  w: number
  h: number
  className: string
  style?: React.CSSProperties
}) {
  const svg = toSvg(shapes, w, h)
  return (
    <img alt="" className={className} style={style} src={`data:image/svg+xml,${encodeURIComponent(svg)}`} />
  )
}
function Ring({ share, place }: { share: number; place: { x: number; y: number } }) {
  return (
    <Drawn
      shapes={ringShapes(Math.round(share * 60) / 60)}
      w={160}
      h={160}
      className="absolute"
      style={{ left: `${place.x / 12.8}%`, top: `${place.y / 7.2}%`, width: `${160 / 12.8}%` }}
    />
  )
}
/** One overlay as it will be drawn. */
function Over({
  overlay,
  table,
  fill,
  video,
  frame,
  back,
}: {
  overlay: Overlay
  table: TableState | null
  fill: HouseStyle['frameFill']
  video: HTMLVideoElement | null
  frame: Frames
  back: ReturnType<typeof takeToFilm> | null
}) {
  const shapes = useMemo(() => overlayShapes(overlay, table, fill), [overlay, table, fill])
  if (shapes)
    return (
      <Drawn
        shapes={shapes}
        w={overlay.place.w}
        h={overlay.place.h}
        className="absolute"
        style={placeOf(overlay.place)}
      />
    )
  return (
    <>
      <Magnified overlay={overlay} video={video} frame={frame} back={back} />
      <Drawn shapes={magnifierShapes(overlay)} w={film.width} h={film.height} className="absolute inset-0" />
    </>
  )
}
/** The part of the playing picture a magnifier shows. */
function Magnified({
  overlay,
  video,
  frame,
  back,
}: {
  overlay: Overlay
  video: HTMLVideoElement | null
  frame: Frames
  back: ReturnType<typeof takeToFilm> | null
}) {
  const canvas = useRef<HTMLCanvasElement>(null)
  useEffect(() => {
    const [c, at] = [canvas.current, overlay.at]
    if (!c || !at || !video?.videoWidth) return
    const b = back ? boxInFilm(filmToTake(back), at) : at
    const k = video.videoWidth / film.width
    c.getContext('2d')?.drawImage(video, b.x * k, b.y * k, b.w * k, b.h * k, 0, 0, c.width, c.height)
  }, [overlay, video, frame, back])
  return (
    <canvas
      ref={canvas}
      width={Math.round(overlay.place.w / 2)}
      height={Math.round(overlay.place.h / 2)}
      aria-hidden
      className="absolute"
      style={placeOf(overlay.place)}
    />
  )
}
