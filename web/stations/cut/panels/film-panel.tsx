import type { Seconds } from '@awlbox/core/contracts/units'
import { told } from '@awlbox/core/findings/say'
import { useRef } from 'react'
import type { FilmCheck, RenderFileKind } from '@awlbox/core/contracts/render'
import { clockTime } from '@awlbox/core/words'
import { megabytes, timeOfDay } from '../../../frame/time.ts'
import { Button } from '../../../kit/button.tsx'
import { Notice } from '../../../kit/notice.tsx'

interface Render {
  id: string
  cutRevision: number
  seconds: Seconds
  bytes: number
  createdAt: string
  checks: FilmCheck[] | null
  files: { kind: RenderFileKind; bytes: number }[]
}
const fileWords: Record<RenderFileKind, string> = {
  small: 'small version',
  sound: 'sound only',
  srt: 'captions as SRT',
  'captions-slow': 'slow captions',
  descriptions: 'descriptions of the table',
  chapters: 'chapters',
  adults: 'the adults’ film',
  'adults-captions': 'its captions',
}
const formats = [
  ['zip', 'everything in a zip'],
  ['mlt', 'MLT'],
  ['otio', 'OpenTimelineIO'],
  ['edl', 'EDL'],
  ['json', 'cut list'],
] as const

interface Props {
  lessonId: string
  /** As text, a line each. */
  chapters: string
  render: Render | null
  /** The cut changed since. */
  stale: boolean
  mayChange: boolean
  onGo: (seconds: Seconds) => void
  onRead: (file: File) => void
}
/** The finished film with its versions, what was found in it, and the cut in formats other programs read. */
export function FilmPanel({ lessonId, chapters, render, stale, mayChange, onGo, onRead }: Props) {
  const file = useRef<HTMLInputElement>(null)
  const link = 'underline underline-offset-2'
  return (
    <div className="grid gap-3">
      {render ? (
        <section aria-label="The rendered film" className="grid gap-2">
          <h2 className="font-bold">
            The film{' '}
            <span className="font-normal text-steel text-sm figures">
              {clockTime(render.seconds)} · {megabytes(render.bytes)} · {timeOfDay(render.createdAt)}
            </span>
          </h2>
          {stale && (
            <p className="text-sm text-steel">
              The cut changed since: render again to see it. Only what changed is made anew.
            </p>
          )}
          <video
            key={render.id}
            controls
            preload="metadata"
            className="w-full max-w-[580px] mx-auto rounded-xl bg-black aspect-video"
            poster={`/api/renders/${render.id}/poster`}
            src={`/api/renders/${render.id}/film`}
          >
            <track
              kind="captions"
              srcLang="en"
              label="Captions"
              default
              src={`/api/renders/${render.id}/captions`}
            />
            {render.files.some((f) => f.kind === 'captions-slow') && (
              <track
                kind="captions"
                srcLang="en"
                label="Captions for slow readers"
                src={`/api/renders/${render.id}/files/captions-slow`}
              />
            )}
            {render.files.some((f) => f.kind === 'chapters') && (
              <track kind="chapters" srcLang="en" src={`/api/renders/${render.id}/files/chapters`} />
            )}
          </video>
          {render.checks?.map((c, i) => (
            <Notice
              key={i}
              kind={c.severity === 'wrong' ? 'wrong' : 'info'}
              action={
                c.start === null ? undefined : (
                  <Button small onClick={() => onGo(c.start!)}>
                    Go there
                  </Button>
                )
              }
            >
              {told('film', c)}
            </Notice>
          ))}
          {render.checks?.length === 0 && (
            <p className="text-sm text-moss">
              Looked through: no flashes, nothing black or standing still, picture and sound fit.
            </p>
          )}
          {render.files.length > 0 && (
            <p className="text-sm flex flex-wrap gap-x-3 gap-y-1">
              <span className="text-steel">Keep:</span>
              <a className={link} href={`/api/renders/${render.id}/film`} download>
                film
              </a>
              <a className={link} href={`/api/renders/${render.id}/captions`} download>
                captions
              </a>
              {render.files.map((f) => (
                <a key={f.kind} className={link} href={`/api/renders/${render.id}/files/${f.kind}`} download>
                  {fileWords[f.kind]} <span className="text-steel figures">{megabytes(f.bytes)}</span>
                </a>
              ))}
            </p>
          )}
        </section>
      ) : (
        <p className="text-steel">
          Nothing is rendered yet. The preview above shows the film as it will be; render it when the checks
          are clear.
        </p>
      )}
      {chapters && (
        <details className="text-sm">
          <summary className="cursor-pointer min-h-8 content-center">Chapters, as text for a message</summary>
          <p className="whitespace-pre-line figures border-l-2 border-hair pl-3 select-all">{chapters}</p>
        </details>
      )}
      <section aria-label="The cut in other programs" className="grid gap-1.5 border-t border-hair pt-2">
        <p className="text-sm flex flex-wrap gap-x-3 gap-y-1">
          <span className="text-steel">The cut for other programs:</span>
          {formats.map(([f, words]) => (
            <a key={f} className={link} href={`/api/lessons/${lessonId}/cut/export/${f}`} download>
              {words}
            </a>
          ))}
        </p>
        {mayChange && (
          <p className="text-sm flex flex-wrap gap-2 items-center">
            <Button small onClick={() => file.current?.click()}>
              Read a cut list
            </Button>
            <span className="text-steel">.otio, .edl or .cut.json; Undo brings yours back.</span>
            <input
              ref={file}
              type="file"
              accept=".otio,.edl,.json"
              aria-label="Cut list file"
              className="hidden"
              onChange={(e) => {
                const f = e.target.files?.[0]
                if (f) onRead(f)
                e.target.value = ''
              }}
            />
          </p>
        )}
      </section>
    </div>
  )
}
