import { useState } from 'react'
import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import { capital } from '@awlbox/core/words'
import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { photoSentence } from '@awlbox/core/look/answers'
import { laidOf } from '@awlbox/core/look/laid'
import { onSheet } from '@awlbox/core/look/on-sheet'
import type { PhotoLaid } from '@awlbox/core/contracts/lesson'
import { layTable } from '@awlbox/core/script/table/drawing/table'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { TableDrawing } from '../../table/drawing.tsx'
import { MorePhotos } from './answers.tsx'
import { PhotoView, warningText } from './photo-view.tsx'
import { tasksTaken } from './tasks-taken.ts'

const looksFor = (laid: PhotoLaid | null, things: number): string => {
  switch (laid?.as) {
    case undefined:
      return `any way of showing ${things}`
    case 'frame':
      return `${things} in the frame, from its first place on`
    case 'parts':
      return laid.split ? `${laid.split.join(' and ')}` : `${things} in ${laid.parts} groups, any split`
    case 'shares':
      return `${things} on ${laid.plates} plates, as many on each`
    case 'gone':
      return `${laid.go} of ${things} moved away, both groups in view`
    case 'row':
      return `${things} in one row`
    case 'towers':
      return `towers of ${laid.heights.join(' and ')}`
    case 'sides':
      return `${laid.one} on one side, ${things - laid.one} on the other`
    case 'crossed':
      return `${laid.crossed} of ${things} crossed out`
    case 'tally':
      return `a tally of ${things}`
    case 'line':
      return `${laid.at.join(', ')} on a line from ${laid.from} to ${laid.to}`
    case 'dice':
      return `dice showing ${laid.faces.join(' and ')}`
  }
}

/** The expected table and the photo at one scale, side by side or laid over one another. */
export function PlanAndPhoto({
  reply,
  fill,
  onCorrected,
}: {
  reply: ReplyRecord
  fill: HouseStyle['frameFill']
  onCorrected: () => void
}) {
  const [shown, setShown] = useState<string | null>(null)
  const [over, setOver] = useState(false)
  const photo = reply.photos.find((p) => p.id === shown) ?? reply.photos[0]
  const photoTasks = tasksTaken(reply).filter((t) => t.spec.kind === 'photo')
  // The task the photo in view was sent for.
  const of = reply.answers.find(
    (a) => a.photoId === photo?.id || a.more?.some((m) => m.photoId === photo?.id),
  )
  const task = photoTasks.find((t) => t.id === of?.taskId) ?? photoTasks[0]
  const place = reply.tasks.findIndex((t) => t.id === task?.id)
  const table = task?.expected && <TableDrawing table={task.expected} fill={fill} className="max-h-full" />
  return (
    <>
      <Card as="section" aria-label="Planned" className="p-3 flex flex-col min-h-0">
        <h2 className="font-semibold flex flex-wrap justify-between gap-2">
          <span>
            Planned{' '}
            <span className="font-normal text-steel text-sm">
              {task?.spec.kind === 'photo' && looksFor(laidOf(task), task.spec.things)}
            </span>
          </span>
          {table && photo && (
            <Button small look="quiet" aria-pressed={over} onClick={() => setOver(!over)}>
              {over ? 'Side by side' : 'Lay over the photo'}
            </Button>
          )}
        </h2>
        <div className="flex-1 grid place-items-center min-h-0">{table}</div>
        {task && <p className="text-steel text-sm">{task.prompt}</p>}
      </Card>
      <Card as="section" aria-label="Photo" className="overflow-hidden flex flex-col min-h-0">
        <h2 className="font-semibold px-3 py-2 flex justify-between gap-2">
          {reply.child}’s photo{' '}
          <span className="font-normal text-steel text-sm">{photo?.reading && countOf(photo.reading)}</span>
        </h2>
        <div className="relative flex-1 min-h-[200px] bg-wash">
          {photo ? (
            <PhotoView
              key={photo.id}
              photo={photo}
              onCorrected={onCorrected}
              over={over && task?.expected ? layTable(task.expected, fill) : null}
            />
          ) : (
            <p className="h-full grid place-items-center text-steel p-4">No photo with this one.</p>
          )}
        </div>
        {photo && reply.photos.length > 1 && <MorePhotos reply={reply} shown={photo.id} onShow={setShown} />}
        {photo && <AboutPhoto photo={photo} task={task} place={place} mayShow={reply.mayShow} />}
      </Card>
    </>
  )
}
const countOf = (r: PhotoReading): string => `${r.low === r.high ? r.count : `${r.low} to ${r.high}`} found`
/** What the photo shows against what was asked, and with whom it may be shared. */
function AboutPhoto({
  photo,
  task,
  place,
  mayShow,
}: {
  photo: ReplyRecord['photos'][number]
  task: ReplyRecord['tasks'][number] | undefined
  /** Which box of a reply sheet is this task's. */
  place: number
  mayShow: boolean
}) {
  const { reading } = photo
  const faces = photo.faces ?? 0
  return (
    <>
      {faces > 0 && (
        <p className="px-3 py-1 text-brick">
          {faces === 1 ? 'A face seems' : `${faces} faces seem`} to be in it: it is for those who teach this
          class, and not to be shown to anybody else.
        </p>
      )}
      {reading && task && (
        <p className="px-3 py-2">
          {photoSentence(task, onSheet(reading, place))}
          {reading.warnings.length > 0 && (
            <span className="text-steel"> {capital(warningText(reading))}.</span>
          )}
        </p>
      )}
      <p className="px-3 pb-2 text-sm text-steel">
        {mayShow
          ? 'Its grown-ups agree that their work is shown to others.'
          : 'For you and your colleagues alone: nobody has agreed that it is shown to others.'}
      </p>
    </>
  )
}
