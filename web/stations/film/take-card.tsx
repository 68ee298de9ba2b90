import { Card } from '../../kit/card.tsx'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useRef, useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import type { TakeRow } from '@awlbox/core/film/desk/take-sheet'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { HeardView } from './heard-view.tsx'

interface Props {
  take: TakeRecord
  row: TakeRow | null
  segment: Segment
  open: boolean
  mayChange: boolean
  revision: number
  onChanged: () => void
  onCarry: (stepId: string, faces: number[]) => void
  pendingRolls: ReadonlySet<string>
}

/** One take: its film, what was heard, and what is to be known about it. */
export function TakeCard({
  take,
  row,
  segment,
  open,
  mayChange,
  revision,
  onChanged,
  onCarry,
  pendingRolls,
}: Props) {
  const video = useRef<HTMLVideoElement>(null)
  const captions = useRef<HTMLInputElement>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [shown, setShown] = useState(open)
  const seek = (s: number) => {
    if (!video.current) return
    video.current.currentTime = s
    void video.current.play()
  }
  const act = (work: Promise<unknown>) =>
    void work.then(onChanged).catch((e: unknown) => setProblem(wordsOf(e)))
  // Takes heard before it was measured count as understood.
  const how = take.hearing?.understood?.how ?? 'understood'
  const slips = row?.slips.length ?? 0
  const old = take.heardAtRevision !== null && take.heardAtRevision < revision && take.hearing !== null
  const marks = take.marks.filter((m) => m.kind === 'slip')
  const rolls = take.marks.flatMap((m) => (m.kind === 'roll' && pendingRolls.has(m.stepId) ? [m] : []))
  return (
    <Card as="article" className="p-3 grid gap-3" aria-label={`Take ${take.number}`}>
      <header className="flex items-center gap-3 flex-wrap">
        <button
          type="button"
          aria-expanded={shown}
          onClick={() => setShown(!shown)}
          className="font-bold min-h-8 cursor-pointer"
        >
          {shown ? '▾' : '▸'} Take {take.number}
        </button>
        <span className="text-steel text-sm figures truncate max-w-56" title={take.name ?? undefined}>
          {take.source === 'recorded'
            ? 'filmed here'
            : take.source === 'uploaded'
              ? (take.name ?? 'a clip')
              : 'stand-in'}
          {take.seconds ? ` · ${clockTime(take.seconds)}` : ''}
        </span>
        {take.hearing && !take.hearing.note && (
          <span
            className={`text-sm font-semibold ${slips ? 'text-brick' : how === 'understood' ? 'text-moss' : 'text-steel'}`}
          >
            {slips
              ? `${slips} ${slips === 1 ? 'slip' : 'slips'}`
              : how === 'understood'
                ? 'no slip'
                : how === 'partly'
                  ? 'partly understood'
                  : how}
          </span>
        )}
        {row?.best && <span className="text-sm font-semibold bg-wash rounded-md px-1.5">best</span>}
        <span className="flex-1" />
        {mayChange && take.status === 'ready' && old && (
          <Button
            small
            onClick={() => act(ask(filmApi.hearTake, { takeId: take.id }))}
            title="The script changed since this was heard"
          >
            Hear again
          </Button>
        )}
        {mayChange &&
          take.status === 'ready' &&
          (take.captioned ? (
            <Button small look="quiet" onClick={() => act(ask(filmApi.uncaptionTake, { takeId: take.id }))}>
              Listen to its sound
            </Button>
          ) : (
            <Button
              small
              look="quiet"
              onClick={() => captions.current?.click()}
              title="WebVTT or SRT made elsewhere, judged in place of the sound"
            >
              Bring captions
            </Button>
          ))}
        <input
          ref={captions}
          type="file"
          accept=".vtt,.srt,text/vtt"
          className="hidden"
          aria-label="Captions of this take"
          onChange={(e) => {
            const f = e.target.files?.[0]
            e.target.value = ''
            if (f) act(f.text().then((text) => ask(filmApi.captionTake, { takeId: take.id }, { text })))
          }}
        />
        {mayChange && (
          <Button small look="quiet" onClick={() => act(ask(filmApi.removeTake, { takeId: take.id }))}>
            Throw away
          </Button>
        )}
      </header>
      {row && row.reason && take.hearing && (
        <p className="text-sm text-steel -mt-2">
          {row.best ? 'Proposed: ' : ''}
          {row.reason}
          {row.ofPlan !== null &&
            ` ${clockTime(row.kept)} kept, ${Math.round(row.ofPlan * 100)} % of the plan.`}
        </p>
      )}
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {take.problem && <Notice kind="wrong">{take.problem}</Notice>}
      {shown && (
        <>
          {take.firstFrame?.agrees === false && <Notice kind="wrong">{take.firstFrame.message}</Notice>}
          {take.sound?.notes.map((n) => (
            <p key={n} className="text-sm text-blue">
              {n}
            </p>
          ))}
          {take.sorting && take.part && (
            <p className="text-sm text-steel">Parted from a longer recording: {take.sorting.reason}</p>
          )}
          {take.sorting && !take.part && !take.sorting.byHand && (
            <p className="text-sm text-steel">Sorted here: {take.sorting.reason}</p>
          )}
          {rolls.map((m) => (
            <Notice
              key={m.stepId}
              kind="info"
              action={
                mayChange && (
                  <Button small look="act" onClick={() => onCarry(m.stepId, m.faces)}>
                    Carry it into the lesson
                  </Button>
                )
              }
            >
              At {clockTime(m.at)} {m.faces.join(' and ')} came up; the script says otherwise. Every later
              line that rests on it would follow.
            </Notice>
          ))}
          <div className="grid grid-cols-[minmax(0,300px)_minmax(0,1fr)] max-xl:grid-cols-1 gap-3 items-start">
            {take.status === 'ready' && (
              <div className="grid gap-2">
                <video
                  ref={video}
                  controls
                  preload="metadata"
                  src={`/api/takes/${take.id}/film`}
                  className="w-full rounded-lg bg-black aspect-video"
                />
                {marks.length > 0 && (
                  <p className="text-sm">
                    Marked while filming:{' '}
                    {marks.map((m, i) => (
                      <button
                        key={i}
                        type="button"
                        onClick={() => seek(Math.max(0, m.at - 3))}
                        className="figures text-blue underline mr-2 cursor-pointer min-h-8"
                      >
                        {clockTime(m.at)}
                        {m.by === 'clap' ? ' (claps)' : ''}
                      </button>
                    ))}
                  </p>
                )}
                {take.firstFrame?.agrees && <p className="text-sm text-steel">{take.firstFrame.message}</p>}
              </div>
            )}
            {take.status === 'ready' && take.hasSound === false && (
              <Notice kind="info">
                This film has no sound, so there is nothing to hear it by. It can be cut by hand, or bring
                captions.
              </Notice>
            )}
            {take.hearing && (
              <HeardView
                takeId={take.id}
                segment={segment}
                hearing={take.hearing}
                corrections={take.corrections}
                mayChange={mayChange}
                onSeek={seek}
                onChanged={onChanged}
              />
            )}
            {take.status === 'ready' && take.hasSound && !take.hearing && (
              <p className="text-steel">Not heard yet.</p>
            )}
          </div>
        </>
      )}
    </Card>
  )
}
