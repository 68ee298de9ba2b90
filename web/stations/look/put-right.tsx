import { useState } from 'react'
import type { PhotoThing } from '@awlbox/core/contracts/reading'
import * as lookApi from '@awlbox/core/contracts/api/look'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'
import { Ring, type Shown, stage } from './ring.tsx'

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

/** Rings added, taken away, crossed out or given another colour by a person. */
export function PutRight({
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
              look="quiet"
              aria-pressed={chosen.crossed === true}
              onClick={() => setMine(mine.map((t, i) => (i === picked ? { ...t, crossed: !t.crossed } : t)))}
            >
              Crossed out
            </Button>
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
