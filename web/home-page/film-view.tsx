import type { HomePack } from '@awlbox/core/contracts/api/home'
import { useLink } from './link.ts'
import { useRemembered } from './remembered.ts'

const size = (bytes: number) =>
  bytes < 1e6 ? `${Math.round(bytes / 1000)} kB` : `${(bytes / 1e6).toFixed(1)} MB`
const minutes = (s: number) => (s < 90 ? `${Math.round(s)} s` : `${Math.round(s / 60)} min`)
const versions = ['film', 'small', 'sound'] as const
type Version = (typeof versions)[number]
const words: Record<Version, string> = {
  film: 'Full picture',
  small: 'Small, for slow or paid connections',
  sound: 'Sound only',
}

/** The film in the version a home chooses; nothing is loaded before it is played. The adults' film is kept apart from the children's. */
export function FilmView({ pack }: { pack: HomePack }) {
  const film = pack.film!
  const token = useLink()
  const address = `/api/home/${token}/packs/${pack.id}`
  const bytesOf = (v: Version): number | undefined =>
    v === 'film' ? film.bytes : film.versions.find((x) => x.kind === v)?.bytes
  const [kept, remember] = useRemembered('awlbox-home-version')
  const version = versions.find((v) => v === kept && bytesOf(v) !== undefined) ?? 'film'
  const has = (kind: string): boolean => film.versions.some((v) => v.kind === kind)
  const src = version === 'film' ? `${address}/film` : `${address}/files/${version}`
  return (
    <figure className="grid gap-2">
      {film.replaced && (
        <p className="rounded-lg bg-wash p-3">
          <b>
            The film was corrected on{' '}
            {new Date(film.replaced.at).toLocaleDateString('en-GB', { day: 'numeric', month: 'long' })}.
          </b>
          {film.replaced.changes.length > 0 && ` ${film.replaced.changes.join(' ')}`} Seen the old one? What
          you sent still counts.
        </p>
      )}
      {version === 'sound' ? (
        // eslint-disable-next-line jsx-a11y-x/media-has-caption -- sound alone is chosen; the films beside it have captions
        <audio key={src} controls preload="none" className="w-full" src={src} />
      ) : (
        <video
          key={src}
          controls
          playsInline
          preload="none"
          poster={`${address}/poster`}
          className="w-full rounded-xl bg-black aspect-video"
          src={src}
        >
          <track kind="captions" srcLang="en" label="Captions" default src={`${address}/captions`} />
          {has('captions-slow') && (
            <track
              kind="captions"
              srcLang="en"
              label="Captions for slow readers"
              src={`${address}/files/captions-slow`}
            />
          )}
          {has('descriptions') && (
            <track
              kind="descriptions"
              srcLang="en"
              label="What is on the table"
              src={`${address}/files/descriptions`}
            />
          )}
          {has('chapters') && <track kind="chapters" srcLang="en" src={`${address}/files/chapters`} />}
        </video>
      )}
      <div role="radiogroup" aria-label="Which version" className="grid gap-1.5">
        {(Object.keys(words) as Version[]).map((v) => {
          const bytes = bytesOf(v)
          return (
            bytes !== undefined && (
              <button
                key={v}
                type="button"
                role="radio"
                aria-checked={version === v}
                onClick={() => remember(v)}
                className={`min-h-12 rounded-lg border-2 px-3 text-left flex justify-between gap-3 items-center ${version === v ? 'border-ink font-semibold' : 'border-hair bg-card'}`}
              >
                <span>{words[v]}</span>
                <span className="text-steel whitespace-nowrap">{size(bytes)}</span>
              </button>
            )
          )
        })}
      </div>
      <figcaption className="text-sm text-steel">
        {minutes(film.seconds)}. Stop and start it as often as you like.
      </figcaption>
      {has('adults') && (
        <details className="rounded-xl border border-hair bg-card px-4">
          <summary className="min-h-12 grid items-center font-semibold cursor-pointer">
            A film for the grown-up, to watch first, alone
          </summary>
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
              label="Captions"
              default
              src={`${address}/files/adults-captions`}
            />
          </video>
        </details>
      )}
    </figure>
  )
}
