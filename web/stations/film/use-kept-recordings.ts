import { noted } from '../../noted.ts'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useCallback, useEffect, useState } from 'react'
import type { TakeMark } from '@awlbox/core/contracts/take'
import { ask, isAway } from '../../api.ts'
import { retrier } from '../../saving/retrier.ts'
import { forget, keepRecording, keptFile, type KeptRecording, keptRecordings } from './keep-recording.ts'
import { type LiveUpload, liveUpload, Refused } from './live-upload.ts'

/** Marks made while filming are no part of the film: they follow it, and are tried again while there is no connection. */
async function sendMarks(takeId: string, marks: readonly TakeMark[] | undefined): Promise<void> {
  if (!takeId || !marks?.length) return
  await retrier(async () => {
    try {
      await ask(filmApi.markTake, { takeId }, { marks: [...marks] })
      return 'done'
    } catch (error) {
      // What is refused would be refused again: the take is whole without its marks.
      return isAway(error) ? 'later' : 'done'
    }
  }).now()
}

/** Recordings that this device kept and the server has not, or not wholly; and how to send or drop them. */
export function useKeptRecordings(lessonId: string, onArrived: () => void) {
  const [kept, setKept] = useState<KeptRecording[]>([])
  const [sending, setSending] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const look = useCallback(
    () => keptRecordings(lessonId).then(setKept).catch(noted('this device cannot say what it kept')),
    [lessonId],
  )
  useEffect(() => void look(), [look])
  /** Waits until a recording has arrived; on failure it stays on this device. */
  const deliver = useCallback(
    async (r: KeptRecording, upload: LiveUpload) => {
      setSending(r.id)
      try {
        const { takeId } = await upload.finish()
        await sendMarks(takeId, r.marks)
        await forget(r.id)
        setProblem(null)
        onArrived()
      } catch (error) {
        setProblem(
          error instanceof Refused
            ? error.message
            : 'The recording is not sent yet: Awlbox does not answer. It is kept on this device.',
        )
      } finally {
        setSending(null)
        await look()
      }
    },
    [look, onArrived],
  )
  const sendAgain = useCallback(
    async (r: KeptRecording) => {
      const file = await keptFile(r)
      if (file) await deliver(r, liveUpload(r, { rest: file, opened: (url) => keepRecording({ ...r, url }) }))
      else {
        await forget(r.id)
        await look()
      }
    },
    [deliver, look],
  )
  const drop = useCallback((r: KeptRecording) => void forget(r.id).then(look), [look])
  return {
    kept: kept.filter((k) => k.id !== sending),
    sending: sending !== null,
    problem,
    deliver,
    sendAgain,
    drop,
  }
}
