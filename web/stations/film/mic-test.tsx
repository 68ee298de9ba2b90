import { useEffect, useState } from 'react'
import { micTest } from '@awlbox/core/contracts/api/film'
import type { HeardWord } from '@awlbox/core/contracts/heard'
import type { Captured } from '@awlbox/core/film/ear/mic'
import { askWithBytes, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'

/** Five seconds of the microphone, played back and shown as words. */
export function MicTest({ stream, line, lessonId }: { stream: MediaStream; line: string; lessonId: string }) {
  const [state, setState] = useState<
    | { kind: 'idle' | 'listening' | 'reading' }
    | { kind: 'done'; words: HeardWord[]; sound: Captured; url: string }
    | { kind: 'wrong'; why: string }
  >({ kind: 'idle' })
  const url = state.kind === 'done' ? state.url : null
  useEffect(
    () => () => {
      if (url) URL.revokeObjectURL(url)
    },
    [url],
  )
  const test = () => {
    const audio = new MediaStream(stream.getAudioTracks())
    const parts: Blob[] = []
    const r = new MediaRecorder(audio)
    r.ondataavailable = (e) => void parts.push(e.data)
    r.onstop = async () => {
      setState({ kind: 'reading' })
      const sound = new Blob(parts, { type: r.mimeType })
      try {
        const { words, ...heard } = await askWithBytes(micTest, { lessonId }, sound)
        setState({ kind: 'done', words, sound: heard, url: URL.createObjectURL(sound) })
      } catch (error) {
        setState({ kind: 'wrong', why: wordsOf(error) })
      }
    }
    r.start()
    setTimeout(() => r.state !== 'inactive' && r.stop(), 5000)
    setState({ kind: 'listening' })
  }
  return (
    <section className="grid gap-2" aria-label="Microphone">
      <h3 className="font-semibold">Microphone</h3>
      <p className="text-sm">
        Say: <span className="font-child">“{line}”</span>
      </p>
      <Button small onClick={test} disabled={state.kind === 'listening' || state.kind === 'reading'}>
        {state.kind === 'listening'
          ? 'Listening for 5 s…'
          : state.kind === 'reading'
            ? 'Finding the words…'
            : 'Test the microphone'}
      </Button>
      {state.kind === 'done' && (
        <>
          <p className="font-child" aria-label="What was heard">
            {state.words.length ? `“${state.words.map((w) => w.word).join(' ')}”` : 'No word was understood.'}
          </p>
          <p className={`text-sm ${state.sound.good ? 'text-moss font-semibold' : 'text-brick'}`}>
            {state.sound.advice}
          </p>
          <audio controls src={state.url} className="w-full h-9" />
        </>
      )}
      {state.kind === 'wrong' && <p className="text-brick text-sm">{state.why}</p>}
    </section>
  )
}
