import { useEffect, useRef, useState } from 'react'
import { keptMedia, type Media, type MediaKind } from './drafts.ts'
import { press } from './looks.ts'
import { shrunk } from './shrink.ts'
import { useWords } from './words.ts'

interface MediaProps {
  media: readonly Media[]
  locked: boolean
  onAdd: (kind: MediaKind, file: Blob) => Promise<void>
  onRemove: (id: string) => void
  onDescribe: (id: string, text: string) => void
}
/** Most photos of one answer. */
const mostPhotos = 4

/** Something of this phone as an address to look at or listen to; null while it is read, and for what is only on the server. */
function useOwn(id: string | undefined): string | null {
  const [url, setUrl] = useState<{ id: string; url: string } | null>(null)
  useEffect(() => {
    if (!id) return
    let made: string | null = null
    let gone = false
    void keptMedia(id).then((file) => {
      if (!file || gone) return
      made = URL.createObjectURL(file)
      setUrl({ id, url: made })
    })
    return () => {
      gone = true
      if (made) URL.revokeObjectURL(made)
    }
  }, [id])
  return url && url.id === id ? url.url : null
}

/** Up to four photos, each with its words; or a short film of hands and table. */
export function PhotoAnswers({
  media,
  locked,
  onAdd,
  onRemove,
  onDescribe,
  clips,
}: MediaProps & { clips: boolean }) {
  const { say } = useWords()
  const photo = useRef<HTMLInputElement>(null)
  const clip = useRef<HTMLInputElement>(null)
  const [busy, setBusy] = useState(false)
  const photos = media.filter((m) => m.kind === 'photo')
  const film = media.find((m) => m.kind === 'clip')
  const add = async (kind: MediaKind, file: Blob) => {
    setBusy(true)
    try {
      await onAdd(kind, kind === 'photo' ? await shrunk(file) : file)
    } finally {
      setBusy(false)
    }
  }
  const chosen = (kind: MediaKind) => (e: React.ChangeEvent<HTMLInputElement>) => {
    const f = e.target.files?.[0]
    e.target.value = ''
    if (f) void add(kind, f)
  }
  const here = media.filter((m) => m.here).length
  return (
    <div className="grid gap-2">
      {photos.map((m) => (
        <OnePhoto key={m.id} photo={m} locked={locked} onRemove={onRemove} onDescribe={onDescribe} />
      ))}
      {film && <OneClip clip={film} locked={locked} onRemove={onRemove} />}
      {photos.length < mostPhotos && (
        <button
          type="button"
          disabled={locked || busy}
          onClick={() => photo.current?.click()}
          className="min-h-13 rounded-lg border-2 border-ink bg-card font-semibold text-[17px]"
        >
          {say(busy ? 'photo.sending' : photos.length ? 'photo.more' : 'photo.take')}
        </button>
      )}
      <input
        ref={photo}
        type="file"
        accept="image/*"
        className="hidden"
        aria-label={say('photo.take')}
        onChange={chosen('photo')}
      />
      {clips && !film && (
        <button
          type="button"
          disabled={locked || busy}
          onClick={() => clip.current?.click()}
          className={press(false)}
        >
          {say('photo.clip')}
        </button>
      )}
      <input
        ref={clip}
        type="file"
        accept="video/*"
        className="hidden"
        aria-label={say('photo.clip')}
        onChange={chosen('clip')}
      />
      {media.length > 0 && !busy && (
        <p role="status" className="text-moss font-semibold">
          {here > 0 && say('photo.here', { n: here })} {here < media.length && say('photo.waits')}
        </p>
      )}
      <p className="text-sm text-steel">{say('photo.rules')}</p>
    </div>
  )
}
function OnePhoto({
  photo,
  locked,
  onRemove,
  onDescribe,
}: Pick<MediaProps, 'locked' | 'onRemove' | 'onDescribe'> & { photo: Media }) {
  const { say } = useWords()
  const url = useOwn(photo.id)
  return (
    <div className="grid gap-1">
      {url && (
        <img
          src={url}
          alt={say('photo.chosen')}
          className="rounded-lg max-h-64 object-contain bg-wash w-full"
        />
      )}
      <div className="flex gap-2">
        <input
          aria-label={say('photo.words')}
          placeholder={say('photo.words')}
          maxLength={200}
          value={photo.text}
          disabled={locked}
          onChange={(e) => onDescribe(photo.id, e.target.value)}
          className="flex-1 min-w-0 min-h-12 rounded-lg border border-hair bg-card px-3"
        />
        <button
          type="button"
          disabled={locked}
          onClick={() => onRemove(photo.id)}
          className={`${press(false)} px-3 font-normal`}
        >
          {say('photo.remove')}
        </button>
      </div>
    </div>
  )
}
function OneClip({ clip, locked, onRemove }: Pick<MediaProps, 'locked' | 'onRemove'> & { clip: Media }) {
  const { say } = useWords()
  const url = useOwn(clip.id)
  return (
    <div className="grid gap-1">
      {url && <video controls muted playsInline src={url} className="rounded-lg max-h-64 bg-black w-full" />}
      <button type="button" disabled={locked} onClick={() => onRemove(clip.id)} className={press(false)}>
        {say('photo.remove')}
      </button>
    </div>
  )
}

/** Seconds a voice may last. */
const longest = 60
/** A voice, up to a minute; it can be listened to before it goes. */
export function SoundAnswer({ media, locked, onAdd, onRemove }: MediaProps) {
  const { say } = useWords()
  const [left, setLeft] = useState<number | null>(null)
  const [none, setNone] = useState(false)
  const recorder = useRef<MediaRecorder | null>(null)
  const mine = media.find((m) => m.kind === 'sound')
  const url = useOwn(mine?.id)
  useEffect(() => () => recorder.current?.stop(), [])
  const record = async () => {
    let stream: MediaStream
    try {
      stream = await navigator.mediaDevices.getUserMedia({ audio: true })
    } catch {
      setNone(true)
      return
    }
    const pieces: Blob[] = []
    const r = new MediaRecorder(stream)
    recorder.current = r
    const began = Date.now()
    const tick = setInterval(() => {
      const rest = longest - Math.floor((Date.now() - began) / 1000)
      setLeft(rest)
      if (rest <= 0) r.stop()
    }, 250)
    r.ondataavailable = (e) => pieces.push(e.data)
    r.onstop = () => {
      clearInterval(tick)
      stream.getTracks().forEach((t) => t.stop())
      recorder.current = null
      setLeft(null)
      if (mine) onRemove(mine.id)
      if (pieces.some((p) => p.size)) void onAdd('sound', new Blob(pieces, { type: r.mimeType }))
    }
    setLeft(longest)
    r.start(1000)
  }
  return (
    <div className="grid gap-2">
      {left === null ? (
        <button
          type="button"
          disabled={locked}
          onClick={() => void record()}
          className="min-h-13 rounded-lg border-2 border-ink bg-card font-semibold text-[17px]"
        >
          {say(mine ? 'sound.again' : 'sound.record')}
        </button>
      ) : (
        <button
          type="button"
          onClick={() => recorder.current?.stop()}
          className="min-h-13 rounded-lg border-2 border-ink bg-ink text-card font-semibold text-[17px]"
        >
          {say('sound.stop')} · {say('sound.left', { seconds: left })}
        </button>
      )}
      {url && (
        // eslint-disable-next-line jsx-a11y-x/media-has-caption -- what one has just said oneself
        <audio controls src={url} aria-label={say('sound.listen')} className="w-full" />
      )}
      {mine && (
        <p role="status" className="text-moss font-semibold flex items-center gap-2 flex-wrap">
          <span className="flex-1">{say(mine.here ? 'sound.here' : 'photo.waits')}</span>
          <button
            type="button"
            disabled={locked}
            onClick={() => onRemove(mine.id)}
            className={`${press(false)} px-3 font-normal text-ink`}
          >
            {say('photo.remove')}
          </button>
        </p>
      )}
      {none && <p role="alert">{say('sound.none')}</p>}
      <p className="text-sm text-steel">{say('sound.rules')}</p>
    </div>
  )
}
