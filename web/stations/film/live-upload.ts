import { waitBefore } from '../../saving/retrier.ts'
import type { KeptRecording } from './keep-recording.ts'

const tus = { 'Tus-Resumable': '1.0.0' } as const
const encoded = (s: string): string => btoa(String.fromCharCode(...new TextEncoder().encode(s)))

/** The server refused what was sent: trying again would not help. Its words. */
export class Refused extends Error {}

/** A recording on its way to the server while it is being made. */
export interface LiveUpload {
  /** One more piece of it. */
  add: (data: Blob) => void
  /** There will be no more. Resolves with the take once all of it has arrived; rejects with Refused, or when `patience` is over. */
  finish: () => Promise<{ takeId: string }>
  /** Bytes the server has. */
  sent: () => number
}

export interface LiveOptions {
  /** What this device kept of a recording begun earlier. */
  rest?: Blob | null
  /** How often in a row a failed piece is tried again once the recording has ended. */
  patience?: number
  /** Told where the recording is being sent, to be remembered in case this page dies. */
  opened: (url: string) => Promise<void>
  /** Waits for some milliseconds. */
  pause?: (ms: number) => Promise<unknown>
}

/**
 * Sends a recording as it comes (the open tus protocol with its length told last). A lost connection is tried again
 * and goes on from what the server has.
 */
export function liveUpload(
  recording: KeptRecording,
  {
    rest = null,
    patience = 6,
    opened: onOpened,
    pause = (ms) => new Promise((resolve) => setTimeout(resolve, ms)),
  }: LiveOptions,
): LiveUpload {
  /** All of the recording so far, in case it must be sent anew. */
  const pieces: Blob[] = rest ? [rest] : []
  let pending = new Blob(pieces)
  let offset = 0
  let ended = false
  let opened = recording.url !== undefined
  let url = recording.url ?? ''
  let running: Promise<void> | null = null
  let done: { takeId: string } | null = null
  /** Given up, and said so: whoever sends it again must be the only one. */
  let over = false
  let settle: { resolve: (t: { takeId: string }) => void; reject: (e: unknown) => void } | null = null

  async function begin(): Promise<void> {
    const metadata = {
      filename: `${recording.id}.webm`,
      lessonId: recording.lessonId,
      segmentId: recording.segmentId,
      source: 'recorded',
    }
    const made = await fetch('/api/uploads', {
      method: 'POST',
      headers: {
        ...tus,
        'Upload-Defer-Length': '1',
        'Upload-Metadata': Object.entries(metadata)
          .map(([k, v]) => (v ? `${k} ${encoded(v)}` : k))
          .join(','),
      },
    })
    if (!made.ok) throw await refusal(made)
    url = new URL(made.headers.get('Location')!, 'http://here').pathname
    opened = true
    await onOpened(url)
  }
  /** Asks the server how much it has and lets go of that. */
  async function catchUp(): Promise<void> {
    const head = await fetch(url, { method: 'HEAD', headers: tus })
    if (head.status === 404 || head.status === 410) {
      // Its place was swept away, or it arrived whole and only the answer was lost: begin anew with all there is.
      // The server knows a recording it already has and answers with its take.
      pending = new Blob(pieces)
      offset = 0
      opened = false
      return
    }
    if (!head.ok) throw new Error('away')
    // It had arrived, and only the answer was lost.
    const takeId = head.headers.get('Awlbox-Take')
    if (takeId && ended) done = { takeId }
    const has = Number(head.headers.get('Upload-Offset') ?? 0)
    pending = pending.slice(has - offset)
    offset = has
  }
  async function piece(): Promise<void> {
    const data = pending
    const last = ended
    const r = await fetch(url, {
      method: 'PATCH',
      headers: {
        ...tus,
        'Content-Type': 'application/offset+octet-stream',
        'Upload-Offset': String(offset),
        ...(last ? { 'Upload-Length': String(offset + data.size) } : {}),
      },
      body: data,
    })
    if (!r.ok) throw await refusal(r)
    offset += data.size
    pending = pending.slice(data.size)
    if (!last) return
    const takeId = r.headers.get('Awlbox-Take')
    // Whole there, and yet no take: asked again until it is one.
    if (!takeId) throw new Error('away')
    done = { takeId }
  }
  async function pump(): Promise<void> {
    let tries = 0
    let unsure = recording.url !== undefined && offset === 0
    while (!done && (pending.size > 0 || ended)) {
      try {
        if (!opened) await begin()
        if (unsure) await catchUp()
        unsure = false
        if (opened && !done) {
          await piece()
          tries = 0
        }
      } catch (error) {
        if (error instanceof Refused || (ended && tries >= patience)) {
          over = settle !== null
          settle?.reject(error)
          return
        }
        unsure = opened
        await pause(waitBefore(tries))
        tries++
      }
    }
    if (done) settle?.resolve(done)
  }
  const run = () => {
    if (over) return
    running ??= pump().finally(() => {
      running = null
      // What came while the last piece was on its way.
      if (!done && pending.size > 0 && !ended) run()
    })
  }
  return {
    add(data) {
      pieces.push(data)
      pending = new Blob([pending, data])
      run()
    },
    finish() {
      ended = true
      return new Promise((resolve, reject) => {
        settle = { resolve, reject }
        if (done) resolve(done)
        else void (running ?? Promise.resolve()).then(run)
      })
    },
    sent: () => offset,
  }
}
async function refusal(r: Response): Promise<Error> {
  // 409 and 423: another piece is still being written; 5xx: away. All of these pass.
  if ((r.status >= 500 && r.status !== 507) || r.status === 409 || r.status === 423 || r.status === 429)
    return new Error('away')
  const detail = await r.json().then(
    (b: { detail?: string }) => b.detail,
    () => undefined,
  )
  return new Refused(detail ?? 'The server does not take this recording. It is kept on this device.')
}
