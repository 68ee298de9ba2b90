import type { Seconds } from '@awlbox/core/contracts/units'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useState } from 'react'
import { type Hearing, plainCodes } from '@awlbox/core/contracts/heard'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { heardIn, lineState, saidAsWritten } from '@awlbox/core/film/desk/corrections'
import { takeCodes } from '@awlbox/core/findings/codes'
import { told } from '@awlbox/core/findings/say'
import { sayUnderstood } from '@awlbox/core/findings/understood'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'

interface Props {
  takeId: string
  segment: Segment
  hearing: Hearing
  corrections: readonly { from: Seconds; to: Seconds; heard: string; said: string }[]
  mayChange: boolean
  onSeek: (s: number) => void
  onChanged: () => void
}
/** The script with what was heard laid under it where it differs; each line plays from its moment, and what was misheard is corrected by typing. */
export function HeardView(props: Props) {
  const { takeId, segment, hearing, onSeek, mayChange } = props
  const [problem, setProblem] = useState<string | null>(null)
  const [editing, setEditing] = useState<string | null>(null)
  const slips = hearing.findings.filter((f) => !plainCodes.has(f.code))
  const plain = hearing.findings.filter((f) => plainCodes.has(f.code))
  const correct = async (
    body: { from: Seconds; to: Seconds; heard: string; said: string } | { takeBack: number },
  ) => {
    try {
      await ask(filmApi.correctTake, { takeId }, body)
      setProblem(null)
      setEditing(null)
      props.onChanged()
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  return (
    <div className="grid gap-3">
      {hearing.note && <Notice kind="info">{hearing.note}</Notice>}
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {hearing.words.length > 0 && <HowHeard hearing={hearing} clean={slips.length === 0} />}
      {slips.length > 0 && (
        <ul className="grid gap-1" aria-label="What was heard otherwise">
          {slips.map((f, i) => {
            const said =
              mayChange &&
              takeCodes[f.code] !== 'tidy' &&
              f.code !== 'clap-mismatch' &&
              f.code !== 'wait-short' &&
              f.code !== 'answer-early'
                ? saidAsWritten(hearing, f)
                : null
            return (
              <li key={i} data-heard={f.code} className="flex items-start gap-1">
                <button
                  type="button"
                  onClick={() => onSeek(Math.max(0, f.start - 1))}
                  className="flex-1 min-w-0 flex gap-2 text-left rounded-md px-1 min-h-8 items-center hover:bg-wash cursor-pointer"
                >
                  <span className="figures text-sm text-blue underline w-12 shrink-0">
                    {clockTime(f.start)}
                  </span>
                  <span className={f.certain ? 'text-brick' : 'text-steel'}>
                    {told('take', f)}
                    {f.certain ? '' : ' Not sure: listen.'}
                  </span>
                </button>
                {said && (
                  <Button
                    small
                    look="quiet"
                    title="Listen first. What you say here holds from now on."
                    onClick={() => void correct(said)}
                  >
                    It was said
                  </Button>
                )}
              </li>
            )
          })}
        </ul>
      )}
      <ol className="font-child leading-7" aria-label="The script against what was heard">
        {hearing.lines.map((l) => {
          const heard = heardIn(hearing, l)
          const differs =
            l.words.some((w) => w.status !== 'said') ||
            (heard !== null && heard.words.split(' ').length !== l.words.length)
          const slip = lineState(hearing, l) === 'slip'
          return (
            <li key={l.stepId} className="grid grid-cols-[48px_minmax(0,1fr)] gap-x-2">
              <button
                type="button"
                disabled={l.start === null}
                aria-label={l.start === null ? 'not heard' : `Play from ${clockTime(l.start)}`}
                onClick={() => l.start !== null && onSeek(l.start)}
                className="figures text-sm text-steel text-left hover:underline cursor-pointer"
              >
                {l.start === null ? '—' : clockTime(l.start)}
              </button>
              <p>
                {l.words.map((w, i) => (
                  <span key={i}>
                    {i > 0 && ' '}
                    {w.status === 'said' ? (
                      w.word
                    ) : !slip ? (
                      <span className="text-steel" title="not understood here">
                        {w.word}
                      </span>
                    ) : w.status === 'missing' ? (
                      <del className="text-brick decoration-2" title="not heard">
                        {w.word}
                      </del>
                    ) : (
                      <span
                        className="text-brick underline decoration-dotted"
                        title={`heard “${w.at === null ? '' : hearing.words[w.at]?.word}”`}
                      >
                        {w.word}
                      </span>
                    )}
                  </span>
                ))}
              </p>
              {differs && heard && editing !== l.stepId && (
                <p className="col-start-2 text-sm text-steel font-sans leading-5 flex gap-2 items-baseline">
                  heard: {heard.words}
                  {mayChange && (
                    <button
                      type="button"
                      onClick={() => setEditing(l.stepId)}
                      className="underline text-blue cursor-pointer min-h-6"
                    >
                      correct
                    </button>
                  )}
                </p>
              )}
              {heard && editing === l.stepId && (
                <Correct
                  words={heard.words}
                  onSave={(said) =>
                    void correct({ from: heard.from, to: heard.to, heard: heard.words, said })
                  }
                  onClose={() => setEditing(null)}
                />
              )}
            </li>
          )
        })}
      </ol>
      {props.corrections.length > 0 && (
        <p className="text-sm text-steel">
          Corrected by hand:{' '}
          {props.corrections.map((c) => (
            <span key={c.from} className="whitespace-nowrap">
              {clockTime(c.from)} “{c.said || 'nothing'}”
              {mayChange && (
                <button
                  type="button"
                  onClick={() => void correct({ takeBack: c.from })}
                  className="underline text-blue mx-1 cursor-pointer min-h-6"
                >
                  take back
                </button>
              )}{' '}
            </span>
          ))}
        </p>
      )}
      {plain.length > 0 && (
        <p className="text-sm text-steel">
          {plain.map((f, i) => (
            <span key={i}>
              {i > 0 && ' · '}
              <button
                type="button"
                onClick={() => onSeek(f.start)}
                className="figures underline cursor-pointer"
              >
                {clockTime(f.start)}
              </button>{' '}
              {told('take', f).replace(/\.$/, '')}
            </span>
          ))}
        </p>
      )}
      {hearing.unpronounced.length > 0 && (
        <p className="text-sm text-steel">Words it cannot listen for: {hearing.unpronounced.join(', ')}.</p>
      )}
      <p className="text-sm text-steel figures">
        {hearing.pace ? `${Math.round(hearing.pace)} words a minute while speaking · ` : ''}score{' '}
        {hearing.quality} of 100
        {segment.steps.some((s) => s.deliberate) ? ' · mistakes on purpose are left alone' : ''}
      </p>
    </div>
  )
}

function Correct({
  words,
  onSave,
  onClose,
}: {
  words: string
  onSave: (said: string) => void
  onClose: () => void
}) {
  const [said, setSaid] = useState(words)
  return (
    <form
      className="col-start-2 flex flex-wrap gap-2 items-center font-sans"
      onSubmit={(e) => {
        e.preventDefault()
        onSave(said.trim())
      }}
    >
      <input
        // eslint-disable-next-line jsx-a11y-x/no-autofocus -- the field has just been asked for
        autoFocus
        aria-label="What was really said"
        value={said}
        maxLength={400}
        onChange={(e) => setSaid(e.target.value)}
        onKeyDown={(e) => e.key === 'Escape' && onClose()}
        className="flex-1 min-w-40 min-h-9 rounded-lg border border-hair bg-card px-2"
      />
      <Button small look="act" type="submit">
        Keep
      </Button>
      <Button small look="quiet" onClick={onClose}>
        Leave it
      </Button>
    </form>
  )
}

/** How much of it was understood; only of an understood take without a slip is anything said to be as written. */
function HowHeard({ hearing, clean }: { hearing: Hearing; clean: boolean }) {
  const { understood, note } = hearing
  if (understood && understood.how !== 'understood')
    return <Notice kind="info">{sayUnderstood(understood).join(' ')}</Notice>
  const unclear = hearing.lines.filter((l) => lineState(hearing, l) === 'unclear').length
  if (!clean || note) return null
  return unclear === 0 ? (
    <p className="font-semibold text-moss">Everything was heard as written.</p>
  ) : (
    <p className="font-semibold">
      No slip was found, but {unclear === 1 ? 'one line was' : `${unclear} lines were`} hardly understood:
      listen to {unclear === 1 ? 'it' : 'them'}.
    </p>
  )
}
