import { lazy, Suspense, useEffect, useState } from 'react'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import { noted } from '../noted.ts'
import { useLink } from './link.ts'
import { box, press, summary } from './looks.ts'
import { dropKept, isKept, keepFilm } from './offline.ts'
import { useOnPhone, useRemembered } from './remembered.ts'
import { useWords, written } from './words.ts'

const size = (bytes: number, locale: string): string =>
  bytes < 1e6
    ? `${Math.round(bytes / 1000).toLocaleString(locale)} kB`
    : `${(bytes / 1e6).toLocaleString(locale, { maximumFractionDigits: 1 })} MB`
const versions = ['film', 'small', 'sound'] as const
type Version = (typeof versions)[number]
const versionWords = { film: 'film.full', small: 'film.small', sound: 'film.sound' } as const
/** Fetched with the film itself: who does not watch it needs none of it. */
const player = () => import('./player.tsx')
const Player = lazy(() => player().then((m) => ({ default: m.Player })))

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
        <Suspense fallback={<p className="text-steel">{say('page.opening')}</p>}>
          <Player key={src} pack={pack} film={film} src={src} address={address} sound={version === 'sound'} />
        </Suspense>
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
        beside={version === 'sound' ? [] : [`${address}/captions`, `${address}/poster`]}
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
      // What plays it has to be there too.
      await player()
      for (const url of beside)
        await keepFilm(url, 1e5, () => undefined).catch(noted('captions could not be kept'))
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
