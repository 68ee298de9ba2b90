import type { Seconds } from '@awlbox/core/contracts/units'
import { useEffect, useRef, useState } from 'react'
import type { Clip, CutSegment } from '@awlbox/core/contracts/cut'
import { wordsOf } from '../../api.ts'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { uploadTake } from '../../frame/upload.ts'
import { Button } from '../../kit/button.tsx'
import type { CutActs } from './use-cut-acts.ts'

/** The sound of another take over a span's picture, or the line said again into the microphone. */
export function OtherVoice({
  lessonId,
  cut,
  item,
  takes,
  acts,
}: {
  lessonId: string
  cut: CutSegment
  item: Clip
  takes: readonly TakeRecord[]
  acts: CutActs
}) {
  const [state, setState] = useState<
    { kind: 'idle' | 'sending' } | { kind: 'recording'; seconds: Seconds } | { kind: 'wrong'; why: string }
  >({ kind: 'idle' })
  const recorder = useRef<MediaRecorder | null>(null)
  useEffect(() => () => (recorder.current?.state === 'recording' ? recorder.current.stop() : undefined), [])
  const others = takes.filter((t) => t.segmentId === cut.segmentId && t.id !== item.takeId && t.hasSound)
  const record = async (): Promise<void> => {
    let stream: MediaStream
    try {
      stream = await navigator.mediaDevices.getUserMedia({
        audio: { echoCancellation: false, noiseSuppression: false, autoGainControl: false },
      })
    } catch {
      setState({
        kind: 'wrong',
        why: 'No microphone could be opened. Allow it for this page, or plug one in; nothing else was changed.',
      })
      return
    }
    const parts: Blob[] = []
    const r = new MediaRecorder(stream)
    recorder.current = r
    r.ondataavailable = (e) => void parts.push(e.data)
    r.onstop = () => {
      stream.getTracks().forEach((t) => t.stop())
      setState({ kind: 'sending' })
      uploadTake(
        new File(parts, `line-${Date.now()}.webm`, { type: r.mimeType }),
        { lessonId, segmentId: cut.segmentId, source: 'recorded' },
        () => undefined,
      ).then(
        () => setState({ kind: 'idle' }),
        (e: unknown) => setState({ kind: 'wrong', why: wordsOf(e) }),
      )
    }
    r.start(1000)
    setState({ kind: 'recording', seconds: 0 })
  }
  const recording = state.kind === 'recording'
  useEffect(() => {
    if (!recording) return
    const timer = setInterval(
      () => setState((s) => (s.kind === 'recording' ? { ...s, seconds: s.seconds + 1 } : s)),
      1000,
    )
    return () => clearInterval(timer)
  }, [recording])
  return (
    <div className="text-sm text-steel flex flex-wrap gap-2 items-center border-t border-hair pt-2">
      <span>This picture, said by</span>
      {item.voice && (
        <Button small onClick={() => acts.voice(cut.segmentId, item.id, null)}>
          its own sound
        </Button>
      )}
      {others.map((t) => (
        <Button
          key={t.id}
          small
          aria-pressed={item.voice?.takeId === t.id}
          onClick={() => acts.voice(cut.segmentId, item.id, t.id)}
        >
          take {t.number}
        </Button>
      ))}
      {state.kind === 'recording' ? (
        <Button small look="wrong" disabled={state.seconds < 1} onClick={() => recorder.current?.stop()}>
          Stop: it was said
        </Button>
      ) : (
        <Button small disabled={state.kind === 'sending'} onClick={() => void record()}>
          {state.kind === 'sending' ? 'Keeping it…' : 'Say it again'}
        </Button>
      )}
      {state.kind === 'recording' && (
        <span className="figures">Recording, {state.seconds} s. Look at the picture and say the line.</span>
      )}
      {state.kind === 'wrong' && (
        <span className="text-brick" role="alert">
          {state.why}
        </span>
      )}
    </div>
  )
}
