import { useCallback, useEffect, useRef, useState } from 'react'
import { beginKeeping, keepChunk, type KeptRecording } from './keep-recording.ts'

export type RecorderState = { kind: 'closed' } | { kind: 'open'; stream: MediaStream } | { kind: 'filming'; stream: MediaStream; since: number } | { kind: 'refused'; why: string }

/** The camera of this device: opened when asked, filming kept second by second. */
export function useRecorder(onDone: (kept: KeptRecording) => void) {
  const [state, setState] = useState<RecorderState>({ kind: 'closed' })
  const recorder = useRef<MediaRecorder | null>(null)
  const open = useCallback(async () => {
    try {
      const stream = await navigator.mediaDevices.getUserMedia({ video: { width: { ideal: 1280 }, height: { ideal: 720 } }, audio: { echoCancellation: false, noiseSuppression: false } })
      setState({ kind: 'open', stream })
    } catch (error) {
      const name = error instanceof DOMException ? error.name : ''
      setState({ kind: 'refused', why: name === 'NotAllowedError' ? 'The browser was not allowed to use the camera. Allow it in the address bar, or upload a film.' : name === 'NotFoundError' ? 'This device has no camera the browser can see. Upload a film instead.' : 'The camera would not open. Another program may be using it.' })
    }
  }, [])
  const film = useCallback((about: { lessonId: string; segmentId: string; title: string }) => {
    if (state.kind !== 'open') return
    const mime = ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'].find((m) => MediaRecorder.isTypeSupported(m)) ?? ''
    const kept: KeptRecording = { id: crypto.randomUUID(), ...about, mime: mime.split(';')[0] || 'video/webm', startedAt: Date.now() }
    const r = new MediaRecorder(state.stream, mime ? { mimeType: mime, videoBitsPerSecond: 4_000_000 } : {})
    let n = 0
    let writing = beginKeeping(kept)
    r.ondataavailable = (e) => {
      if (e.data.size) {
        const at = n++
        writing = writing.then(() => keepChunk(kept.id, at, e.data))
      }
    }
    r.onstop = () => {
      setState({ kind: 'open', stream: state.stream })
      void writing.then(() => onDone(kept))
    }
    r.start(1000)
    recorder.current = r
    setState({ kind: 'filming', stream: state.stream, since: Date.now() })
  }, [state, onDone])
  const stop = useCallback(() => recorder.current?.state === 'recording' && recorder.current.stop(), [])
  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  useEffect(() => () => stream?.getTracks().forEach((t) => t.stop()), [stream])
  useEffect(() => {
    if (state.kind !== 'filming') return
    const warn = (e: BeforeUnloadEvent) => e.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [state.kind])
  return { state, open, film, stop }
}
