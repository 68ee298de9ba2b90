import { useEffect, useRef, useState } from 'react'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import { noted } from '../noted.ts'
import { box, press, summary } from './looks.ts'
import { useRemembered } from './remembered.ts'
import { useWords, written } from './words.ts'

const clock = (s: number): string => `${Math.floor(s / 60)}:${String(Math.floor(s % 60)).padStart(2, '0')}`
type Film = NonNullable<HomePack['film']>
/** Seconds before the last place that are shown again: one finds one's way back in. */
const before = 3
/** Seconds into a film from which a place is worth going on at, and from its end at which it has been seen. */
const worth = 8
/** Plays a film: it goes on where it was left, and stops by itself where there is something to do. */
export function Player({
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
    v.play().catch(noted('the film did not begin'))
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
    if (document.fullscreenElement) void document.exitFullscreen().catch(noted('the film stays full'))
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
