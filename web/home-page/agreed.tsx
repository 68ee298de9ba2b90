import { useCallback, useEffect, useState } from 'react'
import type { Answer } from '@awlbox/core/contracts/api/route'
import { ask } from '../api.ts'
import { homeCode, homeConsents, saveHomeConsent } from './calls.ts'
import { useLink } from './link.ts'
import { press } from './looks.ts'
import { useWords } from './words.ts'

type Agreed = Answer<typeof homeConsents>
const kindWords = {
  photos: 'keep.photos',
  sound: 'keep.sound',
  showing: 'keep.showing',
  naming: 'keep.naming',
} as const

/** What is kept, how long, and what a grown-up agrees to, each by itself: a change counts at once. */
export function AgreedForm({ onChange }: { onChange: () => void }) {
  const token = useLink()
  const { say, locale } = useWords()
  const [agreed, setAgreed] = useState<Agreed | null>(null)
  const [giver, setGiver] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const failed = useCallback(() => setProblem(say('problem.away')), [say])
  const load = useCallback(() => ask(homeConsents, { token }).then(setAgreed, failed), [token, failed])
  useEffect(() => void load(), [load])
  const decide = (childId: string, kind: keyof typeof kindWords, given: boolean) =>
    ask(saveHomeConsent, { token, childId }, { kind, given, giver: giver.trim() }).then(() => {
      setProblem(null)
      onChange()
      return load()
    }, failed)
  const kept = (what: string, days: number | null) =>
    days === null ? say('keep.forever', { what }) : say('keep.for', { what, days })
  const named = giver.trim().length > 0
  return (
    <>
      {agreed && (
        <div className="pb-4 grid gap-3">
          <p>{say('keep.intro')}</p>
          <label className="grid gap-1">
            {say('keep.giver')}
            <input
              value={giver}
              maxLength={40}
              onChange={(e) => setGiver(e.target.value)}
              className="min-h-12 rounded-lg border border-hair bg-card px-3 text-[17px]"
            />
          </label>
          {agreed.children.flatMap((c) =>
            c.consents.map((k) => (
              <div
                key={`${c.id} ${k.kind}`}
                role="group"
                aria-label={say(kindWords[k.kind], { child: c.name })}
              >
                <p className="font-semibold">{say(kindWords[k.kind], { child: c.name })}</p>
                <p className="text-steel text-sm">
                  {k.given === null
                    ? say('keep.unsaid')
                    : say('keep.said', {
                        giver: k.giver ?? '',
                        day: new Date(k.day!).toLocaleDateString(locale, { day: 'numeric', month: 'long' }),
                      })}
                </p>
                <div className="grid grid-cols-2 gap-2 mt-1">
                  {[true, false].map((yes) => (
                    <button
                      key={String(yes)}
                      type="button"
                      aria-pressed={k.given === yes}
                      disabled={!named && k.given !== yes}
                      onClick={() => k.given !== yes && void decide(c.id, k.kind, yes)}
                      className={`${press(k.given === yes)} disabled:opacity-50`}
                    >
                      {say(yes ? 'keep.yes' : 'keep.no')}
                    </button>
                  ))}
                </div>
              </div>
            )),
          )}
          <ul className="grid gap-0.5">
            <li>{kept(say('keep.kind.photos'), agreed.kept.photos)}</li>
            <li>{kept(say('keep.kind.sound'), agreed.kept.sound)}</li>
            <li>{kept(say('keep.kind.replies'), agreed.kept.replies)}</li>
          </ul>
          <p>{say('keep.delete')}</p>
          <p>{say('keep.stays')}</p>
        </div>
      )}
      {problem && (
        <p role="alert" className="pb-3 text-brick">
          {problem}
        </p>
      )}
    </>
  )
}

/** A way in from another device: eight letters and figures, read aloud. */
export function OtherDevice() {
  const token = useLink()
  const { say } = useWords()
  const [code, setCode] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  return (
    <div className="pb-4 grid gap-2">
      {code ? (
        <>
          <p>{say('code.say', { address: `${window.location.host}/code` })}</p>
          <p
            role="status"
            dir="ltr"
            className="font-child font-bold text-[30px] tracking-[0.12em] text-center"
          >
            {code.slice(0, 4)} {code.slice(4)}
          </p>
        </>
      ) : (
        <button
          type="button"
          onClick={() =>
            void ask(homeCode, { token }).then(
              (r) => setCode(r.code),
              () => setProblem(say('problem.away')),
            )
          }
          className={press(false)}
        >
          {say('code.ask')}
        </button>
      )}
      {problem && (
        <p role="alert" className="text-brick">
          {problem}
        </p>
      )}
      <a className="underline min-h-10 grid items-center" href={`/api/home/${token}/lessons.ics`}>
        {say('calendar.title')}
      </a>
    </div>
  )
}
