import type { ReplyRecord } from '@awlbox/core/contracts/api/look'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { explains } from '@awlbox/core/judge/misconceptions/explain'
import { weighedOf } from '@awlbox/core/judge/misconceptions/from-replies'
import { Card } from '../../kit/card.tsx'
import { AskAgain } from './ask-again.tsx'
import { takenChecks } from './checked.ts'

/** Further photos of a reply, each with its words. */
export function MorePhotos({
  reply,
  shown,
  onShow,
}: {
  reply: ReplyRecord
  shown: string
  onShow: (id: string) => void
}) {
  const words = new Map(reply.answers.flatMap((a) => (a.more ?? []).map((m) => [m.photoId, m.text] as const)))
  return (
    <ul className="flex gap-2 px-3 py-2 overflow-x-auto">
      {reply.photos.map((p, i) => (
        <li key={p.id}>
          <button
            type="button"
            aria-pressed={p.id === shown}
            title={words.get(p.id)}
            onClick={() => onShow(p.id)}
            className={`size-12 rounded-lg overflow-hidden border-2 cursor-pointer ${p.id === shown ? 'border-saffron' : 'border-hair'}`}
          >
            <img
              src={`/api/photos/${p.id}?size=small`}
              alt={words.get(p.id) || `Photo ${i + 1}`}
              className="w-full h-full object-cover"
            />
          </button>
        </li>
      ))}
      {words.get(shown) && <li className="self-center text-sm">“{words.get(shown)}”</li>}
    </ul>
  )
}

/** What the grown-up said beside the answers. */
export function Said({ reply }: { reply: ReplyRecord }) {
  const facts: [string, string | null][] = [
    ['with', reply.way],
    ['felt', reply.feeling],
    ['given', reply.gave],
    ['chose', reply.chose],
  ]
  return (
    <Card as="section" className="p-3">
      {reply.live && (
        <p className="mb-2 text-sm">
          <b>Given live</b>, in rounds beside others: it counts half of what comes from home.
        </p>
      )}
      <h2 className="text-sm text-steel">The grown-up wrote</h2>
      {reply.couldNot && <p className="font-semibold">They couldn’t do it today.</p>}
      <p dir="auto">{reply.words ? `“${reply.words}”` : <span className="text-steel">nothing</span>}</p>
      {reply.why && (
        <p dir="auto" className="mt-1">
          <span className="text-steel text-sm">Why {reply.child} thinks so:</span> “{reply.why}”
        </p>
      )}
      <p className="mt-2 text-sm">
        <span className="text-steel">Help:</span> <b>{reply.help ?? 'not said'}</b>
        {facts.map(
          ([what, value]) =>
            value && (
              <span key={what}>
                {' '}
                <span className="text-steel">· {what}:</span> <b>{value}</b>
              </span>
            ),
        )}{' '}
        <span className="text-steel">
          ·{' '}
          {new Date(reply.receivedAt).toLocaleString('en-GB', {
            weekday: 'short',
            hour: '2-digit',
            minute: '2-digit',
          })}
        </span>
      </p>
    </Card>
  )
}

const verdicts = {
  right: ['right', 'text-moss'],
  wrong: ['', 'text-brick'],
  open: ['left open', 'text-steel'],
  look: ['look', 'text-blue'],
} as const
export function Answers({
  reply,
  readings,
  onAsked,
}: {
  reply: ReplyRecord
  readings: ReadonlyMap<string, PhotoReading>
  /** After a question went back to the home; where none may (a blind second judging), left out. */
  onAsked?: () => void
}) {
  const weighed = weighedOf(
    { id: reply.id, tasks: reply.tasks, answers: reply.answers, help: reply.help },
    readings,
  )

  return (
    <Card as="section" aria-label="Answers" className="p-3">
      <h2 className="text-sm text-steel mb-1">Answers</h2>
      <ul className="grid gap-2">
        {takenChecks(reply, readings).map(({ task: t, answer: a, check: c }) => {
          const recording = reply.recordings.find((r) => r.id === a?.recordingId)
          const why = weighed.filter((w) => w.id.split(':')[1] === t.id).flatMap(explains)[0]
          return (
            <li key={t.id}>
              <p className="text-sm text-steel line-clamp-2">{t.prompt}</p>
              <p className="flex justify-between gap-2">
                <b className="font-child">{c.shown}</b>
                <span className={`text-sm font-semibold text-right ${verdicts[c.verdict][1]}`}>
                  {c.why || verdicts[c.verdict][0]}
                </span>
              </p>
              {a && a.text && c.shown !== a.text.trim() && t.spec.kind !== 'number' && (
                <p dir="auto" className="text-sm">
                  “{a.text}”
                </p>
              )}
              {why && <p className="text-sm text-blue">as if the child {why.words}</p>}
              {onAsked && <AskAgain reply={reply} taskId={t.id} onAsked={onAsked} />}
              {a?.drawing && (
                <svg
                  viewBox="0 0 1000 700"
                  role="img"
                  aria-label="Their drawing"
                  className="w-full rounded-lg bg-white border border-hair text-[#14232b]"
                >
                  <path
                    d={a.drawing}
                    fill="none"
                    stroke="currentColor"
                    strokeWidth="9"
                    strokeLinecap="round"
                    strokeLinejoin="round"
                  />
                </svg>
              )}
              {recording && (
                <video
                  controls
                  preload="none"
                  src={`/api/recordings/${recording.id}`}
                  aria-label={recording.kind === 'sound' ? 'Their voice' : 'Their film'}
                  className={`w-full rounded-lg bg-black ${recording.kind === 'sound' ? 'h-12' : 'max-h-60'}`}
                />
              )}
            </li>
          )
        })}
      </ul>
    </Card>
  )
}
