import * as filmApi from '@awlbox/core/contracts/api/film'
import { useCallback, useEffect, useState } from 'react'
import { useParams } from 'react-router'
import type { PrompterPlace, RemoteAct } from '@awlbox/core/contracts/prompter'
import { ask, wordsOf } from '../../api.ts'
import { prompterEvent, type Told, useEvents } from '../../frame/events.ts'

/** The prompter's remote: a phone in the hand, signed in as the same person. */
export default function RemotePage() {
  const { lessonId = '' } = useParams()
  useEvents()
  const [where, setWhere] = useState<PrompterPlace | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const tell = useCallback(
    (act: RemoteAct) =>
      void ask(filmApi.prompter, { lessonId }, { to: 'prompter', act })
        .then(() => setProblem(null))
        .catch((e: unknown) => setProblem(wordsOf(e))),
    [lessonId],
  )
  useEffect(() => {
    const hear = (e: Event) => {
      const { lesson, message } = (e as CustomEvent<Told>).detail
      if (lesson === lessonId && message.to === 'remote') setWhere(message)
    }
    window.addEventListener(prompterEvent, hear)
    // The prompter answers once both are connected.
    tell('where')
    const again = setInterval(() => setWhere((w) => (w === null ? (tell('where'), w) : w)), 3000)
    return () => {
      window.removeEventListener(prompterEvent, hear)
      clearInterval(again)
    }
  }, [tell, lessonId])
  const key = 'rounded-xl border font-semibold text-lg cursor-pointer min-h-16 disabled:opacity-40'
  return (
    <main className="min-h-dvh p-4 grid grid-rows-[auto_1fr_auto] gap-4 max-w-xl mx-auto">
      <h1 className="font-bold">
        Prompter remote{' '}
        {where && (
          <span className="font-normal text-steel figures">
            {where.line < where.lines ? `line ${where.line + 1} of ${where.lines}` : 'end of the segment'}
          </span>
        )}
      </h1>
      <section aria-live="polite" className="grid content-center gap-3">
        {problem ? (
          <p className="text-brick">{problem}</p>
        ) : where === null ? (
          <p className="text-steel">
            Waiting for the prompter. Open the lesson’s Film page on the other device, signed in as yourself.
          </p>
        ) : (
          <>
            <p className="font-child text-[28px] leading-tight">{where.text || 'Stop here.'}</p>
            <p className="font-child text-steel">{where.next}</p>
          </>
        )}
      </section>
      <div className="grid grid-cols-2 gap-3">
        <button
          type="button"
          className={`${key} col-span-2 min-h-28 bg-moss text-on-moss border-moss`}
          disabled={!where}
          onClick={() => tell('next')}
        >
          Next line
        </button>
        <button
          type="button"
          className={`${key} bg-card border-hair`}
          disabled={!where || where.line === 0}
          onClick={() => tell('back')}
        >
          Back
        </button>
        <button
          type="button"
          className={`${key} bg-card border-hair`}
          disabled={!where || where.state === 'ready' || where.state === 'closed'}
          onClick={() => tell('slip')}
        >
          Mark a slip
        </button>
        <button
          type="button"
          className={`${key} bg-card border-hair`}
          disabled={!where || where.state === 'ready' || where.state === 'closed'}
          onClick={() => tell('pause')}
        >
          {where?.state === 'paused' ? 'Go on' : 'Pause'}
        </button>
        <button
          type="button"
          className={`${key} bg-card ${where?.state === 'filming' ? 'border-brick text-brick' : 'border-hair'}`}
          disabled={!where || where.state === 'closed'}
          onClick={() => tell(where?.state === 'filming' || where?.state === 'paused' ? 'stop' : 'film')}
        >
          {where?.state === 'filming' || where?.state === 'paused' ? 'Stop filming' : 'Film'}
        </button>
      </div>
    </main>
  )
}
