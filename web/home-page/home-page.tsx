import { useCallback, useEffect, useState } from 'react'
import { type HomeLanguage, homeLanguages } from '@awlbox/core/contracts/home-lists'
import { speech } from '@awlbox/core/send/words/words'
import { ask } from '../api.ts'
import { noted } from '../noted.ts'
import { homePack, saveHomeLanguage } from './calls.ts'
import type { First } from './first.ts'
import { Folded } from './folded.tsx'
import { Link } from './link.ts'
import { LiveDoorway } from './live-doorway.tsx'
import { PackView } from './pack-view.tsx'
import { useOnPhone, useRemembered } from './remembered.ts'
import { type Spoken, spokenFrom, useWords, Words, written } from './words.ts'

const kitForm = () => import('./kit-form.tsx').then((m) => m.KitForm)
const agreedForm = () => import('./agreed.tsx').then((m) => m.AgreedForm)
const otherDevice = () => import('./agreed.tsx').then((m) => m.OtherDevice)
const dayOf = (moment: string, locale: string): string =>
  new Date(moment).toLocaleDateString(locale, { day: 'numeric', month: 'short' })

export function HomePage({ first }: { first: First }) {
  const [spoken] = useState(() => spokenFrom(first.language, first.messages))
  return (
    <Words value={spoken}>
      <Link value={first.token}>
        <Page first={first} words={spoken} />
      </Link>
    </Words>
  )
}

function Page({ first, words }: { first: First; words: Spoken }) {
  const { say, locale } = words
  const { token, packs, problem, preview } = first
  const [inside, setInside] = useState(first.liveId)
  const [pack, setPack] = useState(first.pack)
  const [away, setAway] = useState(false)
  const [size, setSize] = useRemembered('awlbox-home-large')
  const large = size === '1'
  const onPhone = useOnPhone()
  useEffect(() => {
    document.documentElement.style.fontSize = large ? '19px' : ''
  }, [large])
  const open = useCallback(
    (packId: string) =>
      ask(homePack, { token, packId }).then(
        (p) => {
          setAway(false)
          setPack(p)
        },
        () => setAway(true),
      ),
    [token],
  )
  useEffect(() => {
    document.title = pack?.pack.title ?? say('page.new')
  }, [pack, say])
  return (
    <>
      <header className="bg-card border-b border-hair">
        <div className="max-w-[560px] mx-auto px-4 min-h-13 flex items-center justify-between gap-2">
          <b {...written} className="min-w-0 truncate">
            {pack?.className ?? 'Awlbox'}
          </b>
          <div className="flex gap-2 shrink-0">
            <LanguageChoice token={token} now={first.language} preview={preview} />
            <button
              type="button"
              aria-pressed={large}
              onClick={() => setSize(large ? '0' : '1')}
              className="min-h-12 min-w-12 rounded-lg border border-hair px-3 font-semibold"
            >
              <span aria-hidden>{large ? 'A–' : 'A+'}</span>
              <span className="sr-only">{say('page.larger')}</span>
            </button>
          </div>
        </div>
      </header>
      <main className="max-w-[560px] mx-auto p-4 pb-16 grid grid-cols-[minmax(0,1fr)] gap-4">
        <Offline />
        {problem && (
          <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
            {problem}
          </p>
        )}
        {away && (
          <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
            {say('problem.away')}
          </p>
        )}
        {!preview && !problem && <LiveDoorway lives={first.lives} inside={inside} onEnter={setInside} />}
        {!problem && !pack && inside === null && !first.lives.length && (
          <p className="text-steel">{say('page.nothing')}</p>
        )}
        {pack && inside === null && <PackView key={pack.id} pack={pack} preview={preview} />}
        {packs && !preview && inside === null && (
          <>
            <Folded title={say('kit.title')} load={kitForm} props={{}} />
            <Folded
              title={say('keep.title')}
              load={agreedForm}
              props={{ onChange: () => void (pack && open(pack.id)) }}
            />
            <Folded title={say('code.title')} load={otherDevice} props={{}} />
          </>
        )}
        {packs && packs.length > 1 && inside === null && (
          <nav aria-label={say('page.others')}>
            <h2 className="font-semibold mb-1">{say('page.others')}</h2>
            <ul className="grid gap-1">
              {packs
                .filter((p) => p.id !== pack?.id)
                .slice(0, 6)
                .map((p) => (
                  <li key={p.id}>
                    <button
                      type="button"
                      onClick={() => void open(p.id).then(() => window.scrollTo(0, 0))}
                      className="w-full min-h-12 text-start rounded-lg border border-hair bg-card px-3"
                    >
                      <span {...written}>{p.title}</span>{' '}
                      <span className="text-steel text-sm">{onPhone && dayOf(p.sentAt, locale)}</span>
                    </button>
                  </li>
                ))}
            </ul>
          </nav>
        )}
      </main>
    </>
  )
}

/** The language of this phone; the home's letters follow the one chosen last. */
function LanguageChoice({ token, now, preview }: { token: string; now: HomeLanguage; preview: boolean }) {
  const { say } = useWords()
  const choose = async (language: HomeLanguage) => {
    document.cookie = `awlbox_language=${language}; Path=/; Max-Age=31536000; SameSite=Lax`
    await ask(saveHomeLanguage, { token }, { language }).catch(
      noted('the language is chosen on this phone alone'),
    )
    window.location.reload()
  }
  return (
    <select
      aria-label={say('page.language')}
      value={now}
      disabled={preview}
      onChange={(e) => void choose(e.target.value as HomeLanguage)}
      // The names of languages are in letters of their own: the phone's will do, instead of fetching ours.
      className="min-h-12 rounded-lg border border-hair bg-card px-2 [font-family:system-ui]"
    >
      {homeLanguages.map((l) => (
        <option key={l} value={l} lang={l}>
          {speech[l].name}
        </option>
      ))}
    </select>
  )
}

/** Says that there is no connection as long as there is none. */
function Offline() {
  const { say } = useWords()
  const [on, setOn] = useState(true)
  useEffect(() => {
    const tell = () => setOn(navigator.onLine)
    tell()
    window.addEventListener('online', tell)
    window.addEventListener('offline', tell)
    return () => {
      window.removeEventListener('online', tell)
      window.removeEventListener('offline', tell)
    }
  }, [])
  if (on) return null
  return (
    <p role="status" className="rounded-lg bg-wash p-3">
      {say('page.offline')}
    </p>
  )
}
