import { useState } from 'react'
import type { PhotoReading, PhotoThing } from '@awlbox/core/contracts/reading'
import * as lookApi from '@awlbox/core/contracts/api/look'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'

interface Shown {
  id: string
  width: number
  height: number
  reading: PhotoReading | null
  unread: string | null
  corrected: boolean
}
/** Colours in a home's words, to put a thing into another group. */
const colours = [
  'yellow',
  'orange',
  'red',
  'pink',
  'purple',
  'blue',
  'green',
  'brown',
  'beige',
  'white',
  'grey',
  'black',
] as const

/** The photo with what was found ringed and numbered, and where it lies outlined; wrong rings are put right by clicking. */
export function PhotoView({ photo, onCorrected }: { photo: Shown; onCorrected: () => void }) {
  const [righting, setRighting] = useState(false)
  if (righting && photo.reading)
    return (
      <PutRight
        photo={photo}
        things={photo.reading.things}
        onDone={(changed) => {
          setRighting(false)
          if (changed) onCorrected()
        }}
      />
    )
  return <Found photo={photo} onRight={() => setRighting(true)} />
}
const stage =
  'relative grid place-items-center h-full min-h-0 grid-cols-[minmax(0,1fr)] grid-rows-[minmax(0,1fr)]'
const onPhoto = 'rounded-lg bg-black/65 text-white text-sm px-2.5 min-h-9 cursor-pointer'
function Found({
  photo: { id, width, height, reading, unread, corrected },
  onRight,
}: {
  photo: Shown
  onRight: () => void
}) {
  const [whole, setWhole] = useState(false)
  const things = reading?.things ?? []
  const view = whole || !things.length ? { x: 0, y: 0, w: width, h: height } : around(things, width, height)
  const unit = Math.max(view.w, view.h) / 100
  return (
    <div className={stage}>
      <svg
        viewBox={`${view.x} ${view.y} ${view.w} ${view.h}`}
        className="max-w-full max-h-full w-full h-full"
        role="img"
        aria-label={reading ? `Photo: ${things.length} things found` : 'Photo'}
      >
        <image href={`/api/photos/${id}`} width={width} height={height} />
        {reading && <Places reading={reading} unit={unit} />}
        {things.map((t, i) => (
          <Ring key={i} thing={t} n={i + 1} unit={unit} on={false} />
        ))}
      </svg>
      {reading ? (
        <div className="absolute right-2 bottom-2 flex gap-1.5">
          {corrected && (
            <span className="rounded-lg bg-card px-2.5 min-h-9 grid items-center text-sm">
              put right by hand
            </span>
          )}
          <button type="button" onClick={onRight} className={onPhoto}>
            Put right
          </button>
          {things.length > 0 && (
            <button type="button" aria-pressed={whole} onClick={() => setWhole(!whole)} className={onPhoto}>
              {whole ? 'Closer' : 'Whole photo'}
            </button>
          )}
        </div>
      ) : (
        <span role="status" className="absolute left-2 bottom-2 rounded-lg bg-card px-2.5 py-1 text-sm">
          {unread ?? 'The photo is being read. Judge by eye meanwhile, or go on.'}
        </span>
      )}
    </div>
  )
}
/** Rings added, taken away or given another colour by a person. */
function PutRight({
  photo: { id, width, height },
  things,
  onDone,
}: {
  photo: Shown
  things: readonly PhotoThing[]
  onDone: (changed: boolean) => void
}) {
  const [mine, setMine] = useState<PhotoThing[]>([...things])
  const [picked, setPicked] = useState<number | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const unit = Math.max(width, height) / 100
  const usual = [...things].sort((a, b) => a.r - b.r)[Math.floor(things.length / 2)]?.r ?? unit * 3
  const add = (e: React.MouseEvent<SVGSVGElement>) => {
    const box = e.currentTarget.getScreenCTM()
    if (!box) return
    const at = new DOMPoint(e.clientX, e.clientY).matrixTransform(box.inverse())
    if (at.x < 0 || at.y < 0 || at.x > width || at.y > height) return
    const near = mine.findIndex((t) => Math.hypot(t.x - at.x, t.y - at.y) < t.r * 1.2)
    if (near >= 0) return setPicked(near === picked ? null : near)
    const colour = mine.at(-1)?.colour ?? 'yellow'
    setMine([
      ...mine,
      { x: Math.round(at.x), y: Math.round(at.y), r: Math.round(usual), colour, cutOff: false },
    ])
    setPicked(mine.length)
  }
  const keep = () => {
    setProblem(null)
    ask(lookApi.correctPhoto, { photoId: id }, { things: mine })
      .then(() => onDone(true))
      .catch((e: unknown) => setProblem(`${wordsOf(e)} Your rings are still here.`))
  }
  const chosen = picked === null ? undefined : mine[picked]
  return (
    <div className={stage}>
      {/* Rings can be chosen by keys below; where one is missing only a pointer can say. */}
      <svg
        viewBox={`0 0 ${width} ${height}`}
        className="max-w-full max-h-full w-full h-full cursor-crosshair"
        role="img"
        aria-label={`Photo: ${mine.length} things ringed`}
        onClick={add}
      >
        <image href={`/api/photos/${id}`} width={width} height={height} />
        {mine.map((t, i) => (
          <Ring key={i} thing={t} n={i + 1} unit={unit} on={i === picked} />
        ))}
      </svg>
      <div className="absolute inset-x-2 bottom-2 flex flex-wrap gap-2 items-center rounded-lg bg-card border border-hair p-2">
        <span className="text-sm">
          <b>{mine.length}</b> things. Click where one is missing; choose a ring to change it.
        </span>
        <Select
          look="small"
          label="Ring"
          hint="a ring"
          value={picked === null ? '' : String(picked)}
          choices={mine.map((t, i) => ({ value: String(i), words: `${i + 1}, ${t.colour}` }))}
          onChange={(v) => setPicked(Number(v))}
        />
        {chosen && (
          <>
            <Select
              look="small"
              label={`Colour of ${picked! + 1}`}
              value={chosen.colour}
              choices={[...new Set([...colours, chosen.colour])].map((c) => ({ value: c, words: c }))}
              onChange={(colour) => setMine(mine.map((t, i) => (i === picked ? { ...t, colour } : t)))}
            />
            <Button
              small
              onClick={() => {
                setMine(mine.filter((_, i) => i !== picked))
                setPicked(null)
              }}
            >
              Not a thing
            </Button>
          </>
        )}
        <span className="flex-1" />
        <Button small look="act" onClick={keep}>
          Keep as it is
        </Button>
        <Button small look="quiet" onClick={() => onDone(false)}>
          Leave it
        </Button>
        {problem && <span className="text-brick text-sm">{problem}</span>}
      </div>
    </div>
  )
}
function Ring({ thing: t, n, unit, on }: { thing: PhotoThing; n: number; unit: number; on: boolean }) {
  return (
    <g>
      <circle
        cx={t.x}
        cy={t.y}
        r={t.r * 1.12}
        fill={on ? '#F2B70555' : 'none'}
        stroke="#fff"
        strokeWidth={unit * 0.9}
      />
      <circle
        cx={t.x}
        cy={t.y}
        r={t.r * 1.12}
        fill="none"
        stroke="#14232B"
        strokeWidth={unit * 0.45}
        strokeDasharray={t.cutOff ? `${unit} ${unit}` : undefined}
      />
      <rect
        x={t.x + t.r * 0.5}
        y={t.y - t.r * 1.5}
        width={unit * (n > 9 ? 4.4 : 3.4)}
        height={unit * 3.6}
        rx={unit * 0.7}
        fill="#14232B"
      />
      <text
        x={t.x + t.r * 0.5 + unit * (n > 9 ? 2.2 : 1.7)}
        y={t.y - t.r * 1.5 + unit * 2.7}
        fontSize={unit * 2.7}
        fontWeight={700}
        textAnchor="middle"
        fill="#fff"
      >
        {n}
      </text>
    </g>
  )
}
/** Frames, plates, rings and parts as they were seen. */
function Places({ reading: { structure }, unit }: { reading: PhotoReading; unit: number }) {
  if (!structure) return null
  const outlines =
    structure.kind === 'frames'
      ? structure.frames.map((f) => ({ outline: f.outline, words: String(f.cells.length) }))
      : structure.kind === 'parts'
        ? structure.parts.map((p) => ({ outline: p.outline, words: String(p.count) }))
        : structure.groups.map((g) => ({ outline: g.outline, words: String(g.count) }))
  return (
    <g>
      {outlines.map(({ outline }, i) => (
        <polygon
          key={i}
          points={outline.map((p) => p.join(',')).join(' ')}
          fill="none"
          stroke="#1F5F99"
          strokeWidth={unit * 0.5}
          strokeDasharray={`${unit * 1.6} ${unit}`}
        />
      ))}
    </g>
  )
}
/** The part of the photo with things in it and some table round them: about the scale of the drawing beside it. */
function around(
  things: readonly PhotoThing[],
  width: number,
  height: number,
): { x: number; y: number; w: number; h: number } {
  const edge = 3.2 * Math.max(...things.map((t) => t.r))
  const [left, right] = [
    Math.min(...things.map((t) => t.x)) - edge,
    Math.max(...things.map((t) => t.x)) + edge,
  ]
  const [top, bottom] = [
    Math.min(...things.map((t) => t.y)) - edge,
    Math.max(...things.map((t) => t.y)) + edge,
  ]
  const w = Math.min(width, Math.max(right - left, (bottom - top) * 1.1))
  const h = Math.min(height, Math.max(bottom - top, w * 0.8))
  const place = (centre: number, size: number, most: number) =>
    Math.min(Math.max(0, centre - size / 2), most - size)
  return { x: place((left + right) / 2, w, width), y: place((top + bottom) / 2, h, height), w, h }
}
const words: Record<PhotoReading['warnings'][number], string> = {
  blurred: 'blurred',
  dark: 'dark',
  'too small': 'things are small',
  touching: 'things touch or lie on one another',
  'cut off': 'something is cut off at the edge',
  'nothing found': 'nothing found',
  'busy ground': 'a busy ground',
  'pale on pale': 'things hardly differ from the table',
  'something large in view': 'something large is in view and was left out',
  'perhaps a hand': 'perhaps a hand is in view',
  'not a photo of things': 'this seems to be no photo of things',
}
export const warningText = (r: PhotoReading): string => r.warnings.map((w) => words[w]).join(', ')
