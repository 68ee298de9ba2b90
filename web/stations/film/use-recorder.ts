import { useCallback, useEffect, useRef, useState } from 'react'
import type { TakeMark } from '@awlbox/core/contracts/take'
import { noted } from '../../noted.ts'
import { keepHere, readKept } from '../../saving/kept.ts'
import { keepChunk, type KeptRecording, keepRecording } from './keep-recording.ts'
import { type LiveUpload, liveUpload } from './live-upload.ts'

export type RecorderState =
  | { kind: 'closed' }
  | { kind: 'open'; stream: MediaStream }
  | { kind: 'filming'; stream: MediaStream; paused: boolean }
  | { kind: 'refused'; why: string }

export interface Devices {
  cameras: MediaDeviceInfo[]
  microphones: MediaDeviceInfo[]
  camera: string
  microphone: string
}
const chosenKey = 'awlbox-devices'
const chosen = () => ({
  camera: '',
  microphone: '',
  ...readKept<Partial<Pick<Devices, 'camera' | 'microphone'>>>(chosenKey),
})
const whyNot = (error: unknown): string => {
  const name = error instanceof DOMException ? error.name : ''
  if (name === 'NotAllowedError')
    return 'The browser was not allowed to use the camera. Allow it in the address bar, or bring clips from your phone.'
  if (name === 'NotFoundError' || name === 'OverconstrainedError')
    return 'This device has no camera the browser can see. Bring clips from your phone instead.'
  return 'The camera would not open. Another program may be using it.'
}

/** What a finished recording hands over: itself, where it is being sent, and a picture of it to watch at once. */
export interface Recorded {
  kept: KeptRecording
  upload: LiveUpload
  watch: string
}

/**
 * The camera and microphone of this device. While filming, each second is kept on this device and sent to the server,
 * so that a closed tab, a browser or a server that dies, or a camera pulled out loses at most a second.
 */
export function useRecorder(onDone: (r: Recorded) => void) {
  const [state, setState] = useState<RecorderState>({ kind: 'closed' })
  const [devices, setDevices] = useState<Devices>({ cameras: [], microphones: [], ...chosen() })
  const recorder = useRef<MediaRecorder | null>(null)
  const clock = useRef({ begun: 0, pausedAt: 0, paused: 0 })
  const current = useRef<KeptRecording | null>(null)

  const [copied, setCopied] = useState(true)
  /** A full disk keeps nothing here; what is sent and what is in memory stays, and the teacher is told. */
  const cannotKeep = useCallback((error: unknown) => {
    noted('this device cannot keep the recording')(error)
    setCopied(false)
  }, [])
  const open = useCallback(async (want?: { camera?: string; microphone?: string }) => {
    const ids = { ...chosen(), ...want }
    const exact = (id: string) => (id ? { deviceId: { exact: id } } : {})
    const ask = (camera: string, microphone: string) =>
      navigator.mediaDevices.getUserMedia({
        video: { width: { ideal: 1280 }, height: { ideal: 720 }, ...exact(camera) },
        audio: {
          echoCancellation: false,
          noiseSuppression: false,
          autoGainControl: false,
          ...exact(microphone),
        },
      })
    try {
      // A camera that was chosen once and is gone now is no reason to show none.
      const stream = await ask(ids.camera, ids.microphone).catch((error: unknown) => {
        if (
          !(ids.camera || ids.microphone) ||
          (error instanceof DOMException && error.name === 'NotAllowedError')
        )
          throw error
        return ask('', '')
      })
      keepHere(chosenKey, ids)
      setState({ kind: 'open', stream })
      const all = await navigator.mediaDevices.enumerateDevices()
      const used = (kind: 'video' | 'audio') =>
        (kind === 'video' ? stream.getVideoTracks() : stream.getAudioTracks())[0]?.getSettings().deviceId ??
        ''
      setDevices({
        cameras: all.filter((d) => d.kind === 'videoinput'),
        microphones: all.filter((d) => d.kind === 'audioinput'),
        camera: used('video'),
        microphone: used('audio'),
      })
    } catch (error) {
      setState({ kind: 'refused', why: whyNot(error) })
    }
  }, [])

  /** Seconds of recording so far, pauses left out. */
  const at = useCallback((): number => {
    const c = clock.current
    if (!c.begun) return 0
    return ((c.pausedAt || performance.now()) - c.begun - c.paused) / 1000
  }, [])
  const mark = useCallback(
    (m: TakeMark) => {
      const kept = current.current
      if (!kept) return
      kept.marks = [...(kept.marks ?? []), m]
      keepRecording({ ...kept }).catch(cannotKeep)
    },
    [cannotKeep],
  )

  const film = useCallback(
    (about: { lessonId: string; segmentId: string; title: string }) => {
      if (state.kind !== 'open') return
      const mime =
        ['video/webm;codecs=vp8,opus', 'video/webm', 'video/mp4'].find((m) =>
          MediaRecorder.isTypeSupported(m),
        ) ?? ''
      const kept: KeptRecording = {
        id: crypto.randomUUID(),
        ...about,
        mime: mime.split(';')[0] || 'video/webm',
        startedAt: Date.now(),
        marks: [],
      }
      const r = new MediaRecorder(state.stream, mime ? { mimeType: mime, videoBitsPerSecond: 4_000_000 } : {})
      const upload = liveUpload(kept, {
        patience: 3,
        opened: (url) => keepRecording(Object.assign(kept, { url })),
      })
      const pieces: Blob[] = []
      let n = 0
      setCopied(true)
      let writing = keepRecording(kept).catch(cannotKeep)
      r.ondataavailable = (e) => {
        if (!e.data.size) return
        const here = n++
        pieces.push(e.data)
        upload.add(e.data)
        writing = writing.then(() => keepChunk(kept.id, here, e.data)).catch(cannotKeep)
      }
      r.onstop = () => {
        clock.current = { begun: 0, pausedAt: 0, paused: 0 }
        current.current = null
        const gone = state.stream.getVideoTracks().every((t) => t.readyState === 'ended')
        setState(
          gone
            ? {
                kind: 'refused',
                why: 'The camera was unplugged. What was filmed until then is kept as a take.',
              }
            : { kind: 'open', stream: state.stream },
        )
        void writing.then(() =>
          onDone({ kept, upload, watch: URL.createObjectURL(new Blob(pieces, { type: kept.mime })) }),
        )
      }
      for (const track of state.stream.getTracks()) track.onended = () => r.state !== 'inactive' && r.stop()
      r.start(1000)
      recorder.current = r
      current.current = kept
      clock.current = { begun: performance.now(), pausedAt: 0, paused: 0 }
      setState({ kind: 'filming', stream: state.stream, paused: false })
    },
    [state, onDone, cannotKeep],
  )
  const stop = useCallback(() => {
    if (recorder.current && recorder.current.state !== 'inactive') recorder.current.stop()
  }, [])
  const pause = useCallback(() => {
    const r = recorder.current
    if (!r || r.state === 'inactive') return
    const c = clock.current
    if (r.state === 'recording') {
      r.pause()
      c.pausedAt = performance.now()
    } else {
      r.resume()
      c.paused += performance.now() - c.pausedAt
      c.pausedAt = 0
    }
    setState((s) => (s.kind === 'filming' ? { ...s, paused: r.state === 'paused' } : s))
  }, [])

  const stream = state.kind === 'open' || state.kind === 'filming' ? state.stream : null
  useEffect(() => () => stream?.getTracks().forEach((t) => t.stop()), [stream])
  useEffect(() => {
    if (state.kind !== 'open') return
    const track = state.stream.getVideoTracks()[0]
    if (track)
      track.onended = () =>
        setState({ kind: 'refused', why: 'The camera was unplugged. Plug it in again, then open it.' })
  }, [state])
  useEffect(() => {
    if (state.kind !== 'filming') return
    const warn = (e: BeforeUnloadEvent) => e.preventDefault()
    window.addEventListener('beforeunload', warn)
    return () => window.removeEventListener('beforeunload', warn)
  }, [state.kind])
  return { state, devices, copied, open, film, stop, pause, mark, at }
}
