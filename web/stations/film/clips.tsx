import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useRef, useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Notice, WorkBar } from '../../kit/notice.tsx'
import type { Clip } from './use-clips.ts'

/** Clips on their way, each with how far it is and what became of it. */
export function ClipList({ clips, onDismiss }: { clips: readonly Clip[]; onDismiss: (key: number) => void }) {
  const open = clips.filter((c) => c.state === 'waiting' || c.state === 'sending')
  const known = clips.filter((c) => c.state === 'known')
  return (
    <>
      {open.slice(0, 5).map((c) => (
        <WorkBar
          key={c.key}
          label={`${c.state === 'waiting' ? 'Waiting to send' : 'Sending'} ${c.name}`}
          share={c.share}
          onCancel={c.stop}
        />
      ))}
      {open.length > 5 && <p className="text-sm text-steel">and {open.length - 5} more waiting</p>}
      {clips
        .filter((c) => c.state === 'failed')
        .map((c) => (
          <Notice
            key={c.key}
            kind="wrong"
            action={
              <Button small onClick={() => onDismiss(c.key)}>
                Close
              </Button>
            }
          >
            {c.name}: {c.problem}
          </Notice>
        ))}
      {known.length > 0 && (
        <Notice
          kind="info"
          action={
            <Button small onClick={() => known.forEach((c) => onDismiss(c.key))}>
              Close
            </Button>
          }
        >
          {known.map((c) => c.name).join(', ')}: already here, nothing was added.
        </Notice>
      )}
    </>
  )
}

/** The way in for clips from a phone: dropped or chosen, many at once. */
export function ClipDrop({ onFiles, disabled }: { onFiles: (files: File[]) => void; disabled: boolean }) {
  const input = useRef<HTMLInputElement>(null)
  const [over, setOver] = useState(false)
  return (
    <div
      onDragOver={(e) => {
        e.preventDefault()
        setOver(true)
      }}
      onDragLeave={() => setOver(false)}
      onDrop={(e) => {
        e.preventDefault()
        setOver(false)
        if (!disabled) onFiles([...e.dataTransfer.files])
      }}
      className={`rounded-xl border border-dashed p-3 flex flex-wrap items-center gap-3 ${over ? 'border-ink bg-here' : 'border-hair'}`}
    >
      <Button onClick={() => input.current?.click()} disabled={disabled}>
        Bring clips
      </Button>
      <input
        ref={input}
        type="file"
        multiple
        accept="video/*,audio/*"
        className="hidden"
        aria-label="Clips to bring"
        onChange={(e) => {
          const files = [...(e.target.files ?? [])]
          e.target.value = ''
          if (files.length) onFiles(files)
        }}
      />
      <p className="text-sm text-steel flex-1 min-w-48">
        From a phone: many at once, up to 4 GB each. Each is put with its segment by what is said in it.
      </p>
    </div>
  )
}

/** Clips that could not be given to a segment, with what was heard in them; a person says where they go. */
export function Tray({
  takes,
  segments,
  mayChange,
  onChanged,
}: {
  takes: readonly TakeRecord[]
  segments: readonly Segment[]
  mayChange: boolean
  onChanged: () => void
}) {
  const [problem, setProblem] = useState<string | null>(null)
  const act = (work: Promise<unknown>) =>
    void work.then(onChanged).catch((e: unknown) => setProblem(wordsOf(e)))
  const title = (id: string) => segments.find((s) => s.id === id)?.title ?? 'a segment that is gone'
  return (
    <div className="grid gap-2">
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {takes.map((t) => (
        <Card
          as="article"
          key={t.id}
          aria-label={t.name ?? 'A clip'}
          className="p-3 grid grid-cols-[minmax(0,220px)_minmax(0,1fr)] max-xl:grid-cols-1 gap-3"
        >
          {t.status === 'ready' ? (
            <video
              controls
              preload="metadata"
              src={`/api/takes/${t.id}/film`}
              className="w-full rounded-lg bg-black aspect-video"
            />
          ) : (
            <div className="rounded-lg bg-wash aspect-video grid place-items-center text-steel">
              {t.status === 'refused' ? 'no picture or sound' : 'being prepared'}
            </div>
          )}
          <div className="grid gap-2 content-start min-w-0">
            <p className="font-semibold truncate">
              {t.name ?? 'Filmed straight through'}{' '}
              <span className="font-normal text-steel figures">{t.seconds ? clockTime(t.seconds) : ''}</span>
            </p>
            {t.problem && <p className="text-brick">{t.problem}</p>}
            {t.sorting && <p>{t.sorting.reason}</p>}
            {t.sorting?.matches.slice(0, 3).map((m) => (
              <p key={m.segmentId} className="text-sm text-steel">
                {Math.round(m.score * 100)} % of “{title(m.segmentId)}”
                {m.phrases[0] ? (
                  <>
                    : <span className="font-child">“{m.phrases[0]}”</span>
                  </>
                ) : (
                  ''
                )}
              </p>
            ))}
            {mayChange && (
              <div className="flex flex-wrap gap-2">
                <Select
                  label="Give it to a segment"
                  value=""
                  hint="Give it to…"
                  choices={segments.map((s) => ({ value: s.id, words: s.title }))}
                  onChange={(segmentId) => act(ask(filmApi.moveTake, { takeId: t.id }, { segmentId }))}
                />
                <Button small look="quiet" onClick={() => act(ask(filmApi.removeTake, { takeId: t.id }))}>
                  Throw away
                </Button>
              </div>
            )}
          </div>
        </Card>
      ))}
    </div>
  )
}
