import { useEffect, useRef, useState } from 'react'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import { useLink } from './link.ts'
import { box, press, summary } from './looks.ts'
import { dropKept, isKept, keepFilm } from './offline.ts'
import { useOnPhone, useRemembered } from './remembered.ts'
import { useWords, written } from './words.ts'

const size = (bytes: number, locale: string): string =>
  bytes < 1e6
    ? `${Math.round(bytes / 1000).toLocaleString(locale)} kB`
    : `${(bytes / 1e6).toLocaleString(locale, { maximumFractionDigits: 1 })} MB`
const clock = (s: number): string => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
const versions = ['film', 'small', 'sound'] as const
type Version = (typeof versions)[number]
const versionWords = { film: 'film.full', small: 'film.small', sound: 'film.sound' } as const
type Film = NonNullable<HomePack['film']>

/** The film: nothing of it is loaded before somebody asks for it. The adults' film is kept apart from the children's. */
export function FilmView({ pack }: { pack: HomePack }) {
  const film = pack.film!
  const token = useLink()
  const { say, locale } = useWords()
  const [open, setOpen] = useState(false)
  const address = `/api/home/${token}/packs/${pack.id}`
  const bytesOf = (v: Version): number | undefined =>
    v === 'film' ? film.bytes : film.versions.find((x) => x.kind === v)?.bytes
  const [known, remember] = useRemembered('awlbox-home-version')
  const version = versions.find((v) => v === known && bytesOf(v) !== undefined) ?? 'film'
  const src = version === 'film' ? `${address}/film` : `${address}/files/${version}`
  const minutes = Math.max(1, Math.round(film.seconds / 60))
  return (
    <section aria-label={say('film.show')} className="grid gap-2">
      {film.replaced && (
        <p className="rounded-lg bg-wash p-3">
          <b>
            {say('film.corrected', {
              day: new Date(film.replaced.at).toLocaleDateString(locale, { day: 'numeric', month: 'long' }),
            })}
          </b>{' '}
          <span {...written}>{film.replaced.changes.join(' ')}</span> {say('film.still')}
        </p>
      )}
      {open ? (
        <Player key={src} pack={pack} film={film} src={src} address={address} sound={version === 'sound'} />
      ) : (
        <button
          type="button"
          onClick={() => setOpen(true)}
          className="min-h-14 rounded-xl border-2 border-ink bg-card font-bold text-[19px]"
        >
          {say('film.show')} · {size(bytesOf(version)!, locale)}
        </button>
      )}
      <p className="text-steel">
        {say('film.about', { minutes })}. {film.chapters.some((c) => c.stop) && say('film.stops')}
      </p>
      <details className={box}>
        <summary className={summary}>
          {say('film.version')}: {say(versionWords[version])}
        </summary>
        <div role="radiogroup" aria-label={say('film.version')} className="grid gap-1.5 pb-3">
          {versions.map((v) => {
            const bytes = bytesOf(v)
            return (
              bytes !== undefined && (
                <button
                  key={v}
                  type="button"
                  role="radio"
                  aria-checked={version === v}
                  onClick={() => remember(v)}
                  className={`${press(version === v)} px-3 text-start flex justify-between gap-3 items-center`}
                >
                  <span>{say(versionWords[v])}</span>
                  <span className="whitespace-nowrap font-normal">{size(bytes, locale)}</span>
                </button>
              )
            )
          })}
        </div>
      </details>
      <Keep
        key={`keep ${src}`}
        src={src}
        bytes={bytesOf(version)!}
        beside={version === 'sound' ? [] : [`${address}/captions`]}
      />
      {film.versions.some((v) => v.kind === 'adults') && (
        <details className={box}>
          <summary className={summary}>{say('film.adults')}</summary>
          <video
            controls
            playsInline
            preload="none"
            className="w-full rounded-xl bg-black aspect-video mb-3"
            src={`${address}/files/adults`}
          >
            <track
              kind="captions"
              srcLang="en"
              label={say('film.captions')}
              default
              src={`${address}/files/adults-captions`}
            />
          </video>
        </details>
      )}
    </section>
  )
}

/** Seconds before the last place that are shown again: one finds one's way back in. */
const before = 3
/** Seconds into a film from which a place is worth going on at, and from its end at which it has been seen. */
const worth = 8
function Player({
  pack,
  film,
  src,
  address,
  sound,
}: {
  pack: HomePack
  film: Film
  src: string
  address: string
  sound: boolean
}) {
  const { say } = useWords()
  const player = useRef<HTMLVideoElement>(null)
  const ready = useRef<HTMLButtonElement>(null)
  const [place, keepPlace] = useRemembered(`awlbox-home-at-${pack.id}`)
  const [resume] = useState(() => {
    const at = Number(place ?? 0)
    return at > worth && at < film.seconds - worth ? at : null
  })
  const [asked, setAsked] = useState(resume !== null)
  const [stop, setStop] = useState<Film['chapters'][number] | null>(null)
  const [failed, setFailed] = useState(false)
  /** Stops that were gone past: one that is seen again stops again. */
  const last = useRef(0)
  const has = (kind: string): boolean => film.versions.some((v) => v.kind === kind)
  useEffect(() => {
    if (stop) ready.current?.focus()
  }, [stop])
  const play = (from: number): void => {
    const v = player.current
    setAsked(false)
    setStop(null)
    if (!v) return
    last.current = from
    v.currentTime = from
    v.play().catch(() => undefined)
  }
  const onTime = (): void => {
    const v = player.current
    if (!v) return
    const at = v.currentTime
    if (Math.abs(at - Number(place ?? 0)) > 4) keepPlace(String(Math.floor(at)))
    // A jump over a stop is somebody's own will; playing into one is not.
    const met = film.chapters.find((c) => c.stop && last.current < c.start + 0.3 && at >= c.start + 0.3)
    const played = at - last.current < 2
    last.current = at
    if (!met || !played || v.paused) return
    v.pause()
    if (document.fullscreenElement) void document.exitFullscreen().catch(() => undefined)
    setStop(met)
  }
  const events = {
    ref: player,
    controls: true,
    src,
    onTimeUpdate: onTime,
    onSeeked: () => (last.current = player.current?.currentTime ?? 0),
    onError: () => setFailed(true),
    onEnded: () => keepPlace('0'),
  }
  const previous = stop && [...film.chapters].reverse().find((c) => !c.stop && c.start < stop.start)
  return (
    <div className="grid gap-2">
      <div className="relative">
        {sound ? (
          // eslint-disable-next-line jsx-a11y-x/media-has-caption -- sound alone is chosen; the films beside it have captions
          <audio {...events} preload="none" autoPlay={!asked} className="w-full" />
        ) : (
          <video
            {...events}
            playsInline
            preload="none"
            autoPlay={!asked}
            poster={`${address}/poster`}
            className="w-full rounded-xl bg-black aspect-video"
          >
            <track
              kind="captions"
              srcLang="en"
              label={say('film.captions')}
              default
              src={`${address}/captions`}
            />
            {has('captions-slow') && (
              <track
                kind="captions"
                srcLang="en"
                label={say('film.slow')}
                src={`${address}/files/captions-slow`}
              />
            )}
            {has('descriptions') && (
              <track
                kind="descriptions"
                srcLang="en"
                label={say('film.table')}
                src={`${address}/files/descriptions`}
              />
            )}
          </video>
        )}
        {stop && (
          <div
            role="dialog"
            aria-label={say('film.pause')}
            className={`${sound ? '' : 'absolute inset-0'} rounded-xl bg-card border-2 border-ink p-3 grid content-center gap-2 text-center`}
          >
            <p className="font-child font-bold text-[24px] leading-tight">{say('film.pause')}</p>
            <p {...written} className="text-[17px]">
              {stop.title.replace(/^[^:]*:\s*/, '')}
            </p>
            <button
              ref={ready}
              type="button"
              onClick={() => play(stop.end)}
              className="min-h-14 rounded-xl bg-moss text-on-moss font-bold text-[19px]"
            >
              {say('film.ready')}
            </button>
            {previous && (
              <button type="button" onClick={() => play(previous.start)} className={press(false)}>
                {say('film.again')}
              </button>
            )}
          </div>
        )}
      </div>
      {failed && <p role="alert">{say('film.failed')}</p>}
      {asked && resume !== null && (
        <div className="grid grid-cols-2 gap-2">
          <button type="button" onClick={() => play(Math.max(0, resume - before))} className={press(true)}>
            {say('film.resume', { time: clock(resume) })}
          </button>
          <button type="button" onClick={() => play(0)} className={press(false)}>
            {say('film.start')}
          </button>
        </div>
      )}
      {film.chapters.length > 1 && (
        <details className={box}>
          <summary className={summary}>{say('film.chapters')}</summary>
          <ol className="pb-3 grid gap-1">
            {film.chapters
              .filter((c) => !c.stop)
              .map((c) => (
                <li key={c.start}>
                  <button
                    type="button"
                    onClick={() => play(c.start)}
                    className="w-full min-h-12 text-start flex gap-3 items-center"
                  >
                    <span className="text-steel tabular-nums">{clock(c.start)}</span>
                    <span {...written}>{c.title}</span>
                  </button>
                </li>
              ))}
          </ol>
        </details>
      )}
    </div>
  )
}

/** Keeps a film on the phone for where there is no connection, and takes it off again. */
function Keep({ src, bytes, beside }: { src: string; bytes: number; beside: string[] }) {
  const { say } = useWords()
  const onPhone = useOnPhone()
  const [state, setState] = useState<'no' | 'kept' | 'full' | number>('no')
  const here = onPhone && 'caches' in window
  useEffect(() => {
    if (here)
      isKept(src).then(
        (yes) => yes && setState('kept'),
        () => undefined,
      )
  }, [here, src])
  if (!here) return null
  const keep = async () => {
    setState(0)
    try {
      await keepFilm(src, bytes, (share) => setState(share))
      for (const url of beside) await keepFilm(url, 1e5, () => undefined).catch(() => undefined)
      setState('kept')
    } catch {
      setState('full')
    }
  }
  if (typeof state === 'number')
    return (
      <p role="status" className="min-h-12 grid items-center">
        {say('film.keeping', { share: Math.round(state * 100) })}
      </p>
    )
  return (
    <div className="grid gap-1">
      {state === 'kept' && <p role="status">{say('film.kept')}</p>}
      {state === 'full' && <p role="status">{say('film.noRoom')}</p>}
      <button
        type="button"
        onClick={() => (state === 'kept' ? void dropKept(src).then(() => setState('no')) : void keep())}
        className={press(false)}
      >
        {say(state === 'kept' ? 'film.drop' : 'film.keep')}
      </button>
    </div>
  )
}
