import { useCallback, useEffect, useState, useSyncExternalStore } from 'react'
import type { Feeling, Help, Rung } from '@awlbox/core/contracts/reply'
import { ask, wordsOf } from '../api.ts'
import { homeLessons, homePack } from './calls.ts'
import type { Draft } from './drafts.ts'
import type { First } from './first.ts'
import { FilmView } from './film-view.tsx'
import { KitForm } from './kit-form.tsx'
import { isOpen, TaskCard } from './task-card.tsx'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import { Link, useLink } from './link.ts'
import { useOnPhone, useRemembered } from './remembered.ts'
import { replyOf } from './reply.ts'

const dayOf = (moment: string): string =>
  new Date(moment).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
const timeOf = (moment: string): string =>
  new Date(moment).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
const helps: readonly [Help, string][] = [
  ['alone', 'On their own'],
  ['nudged', 'With a nudge'],
  ['together', 'We did it together'],
]

export function HomePage({ first }: { first: First }) {
  const [packs, setPacks] = useState(first.packs)
  const [pack, setPack] = useState(first.pack)
  const [problem, setProblem] = useState(first.problem)
  const [size, setSize] = useRemembered('awlbox-home-large')
  const large = size === '1'
  const onPhone = useOnPhone()
  const { token } = first
  useEffect(() => {
    document.documentElement.style.fontSize = large ? '19px' : ''
  }, [large])
  const open = useCallback(
    (packId: string) =>
      ask(homePack, { token, packId }).then(setPack, (e: unknown) => setProblem(wordsOf(e))),
    [token],
  )
  useEffect(() => {
    // Written into the page by the server already.
    if (first.packs ?? first.problem) return
    ask(homeLessons, { token }).then(
      (r) => {
        setPacks(r.packs)
        if (r.packs[0]) void open(r.packs[0].id)
      },
      (e: unknown) => setProblem(wordsOf(e)),
    )
  }, [first, token, open])
  useEffect(() => {
    if (pack) document.title = pack.pack.title
  }, [pack])
  return (
    <Link value={token}>
      <header className="bg-card border-b border-hair">
        <div className="max-w-[560px] mx-auto px-4 min-h-13 flex items-center justify-between gap-3">
          <b>{pack?.className ?? 'Awlbox'}</b>
          <button
            type="button"
            aria-pressed={large}
            onClick={() => setSize(large ? '0' : '1')}
            className="min-h-10 min-w-12 rounded-lg border border-hair px-3 font-semibold"
          >
            {large ? 'A–' : 'A+'}
            <span className="sr-only"> Larger text</span>
          </button>
        </div>
      </header>
      <main className="max-w-[560px] mx-auto p-4 pb-16 grid gap-4">
        {problem && (
          <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
            {problem}
          </p>
        )}
        {!problem && !pack && packs?.length === 0 && (
          <p className="text-steel">
            Nothing has been sent yet. Keep this link: the next lesson appears here.
          </p>
        )}
        {!problem && !pack && packs?.length !== 0 && <p className="text-steel">Opening…</p>}
        {pack && <PackView key={pack.id} pack={pack} />}
        {packs && <KitForm />}
        {packs && packs.length > 1 && (
          <nav aria-label="Other lessons">
            <h2 className="font-semibold mb-1">Other lessons</h2>
            <ul className="grid gap-1">
              {packs
                .filter((p) => p.id !== pack?.id)
                .slice(0, 6)
                .map((p) => (
                  <li key={p.id}>
                    <button
                      type="button"
                      onClick={() => {
                        setPack(null)
                        void open(p.id)
                        window.scrollTo(0, 0)
                      }}
                      className="w-full min-h-12 text-left rounded-lg border border-hair bg-card px-3"
                    >
                      {p.title} <span className="text-steel text-sm">{onPhone && dayOf(p.sentAt)}</span>
                    </button>
                  </li>
                ))}
            </ul>
          </nav>
        )}
      </main>
    </Link>
  )
}

function PackView({ pack }: { pack: HomePack }) {
  const [childId, setChildId] = useState(pack.children[0]?.id ?? '')
  const child = pack.children.find((c) => c.id === childId)
  const p = pack.pack
  return (
    <>
      <div>
        <h1 className="font-child font-bold text-[26px] leading-tight">{p.title}</h1>
        <p className="text-[17px] mt-1">{p.aim}</p>
      </div>
      {pack.film && <FilmView pack={pack} />}
      {p.needs.length > 0 && (
        <section aria-label="You need" className="rounded-xl bg-wash p-4 grid gap-1.5">
          <h2 className="font-bold text-[17px]">You need</h2>
          <ul className="text-[17px] grid gap-1">
            {p.needs.map((n) => (
              <li key={n.thing}>
                <b>
                  {n.count} {n.thing}
                </b>
                {n.swap && <span>, or {n.swap}</span>}
              </li>
            ))}
          </ul>
          {p.cautions.map((c) => (
            <p key={c} className="text-brick">
              {c}
            </p>
          ))}
          {pack.youngerChild && (
            <p className="text-brick">A baby or toddler at home? Choose things too big to swallow.</p>
          )}
        </section>
      )}
      {p.adultNote.length > 0 && (
        <details className="rounded-xl border border-hair bg-card px-4">
          <summary className="min-h-12 grid items-center font-semibold cursor-pointer">
            For the grown-up: read this first, on your own
          </summary>
          <div className="pb-3 grid gap-2">
            {p.adultNote.map((t) => (
              <p key={t}>{t}</p>
            ))}
          </div>
        </details>
      )}
      {pack.children.length > 1 && (
        <div role="radiogroup" aria-label="Whose answers" className="flex gap-2">
          {pack.children.map((c) => (
            <button
              key={c.id}
              type="button"
              role="radio"
              aria-checked={c.id === childId}
              onClick={() => setChildId(c.id)}
              className={`min-h-12 flex-1 rounded-lg border-2 font-semibold ${c.id === childId ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
            >
              {c.name}
            </button>
          ))}
        </div>
      )}
      {child && <ReplyForm key={child.id} pack={pack} child={child} />}
    </>
  )
}

const ways: readonly [Rung, string][] = [
  ['things', 'With things'],
  ['picture', 'With a drawing'],
  ['track', 'On a line or a square'],
  ['head', 'In the head'],
]
/** Faces of our own: a mouth's bend says how it felt. */
const feelings: readonly [Feeling, string, string][] = [
  ['easy', 'easy', 'M9 19 Q16 27 23 19'],
  ['just right', 'just right', 'M10 21 L22 21'],
  ['hard', 'hard', 'M10 24 Q13 18 16 22 Q19 26 22 20'],
]
/** Which way, and how it felt: one tap each, none of them asked for. */
function HowItWent({
  draft,
  name,
  onChange,
}: {
  draft: Draft
  name: string
  onChange: (change: Partial<Draft>) => void
}) {
  const look = (on: boolean): string =>
    `min-h-12 rounded-lg border-2 font-semibold ${on ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`
  return (
    <details className="grid gap-2">
      <summary className="min-h-12 grid items-center font-semibold cursor-pointer">
        How {name} did it, and how it felt <span className="text-steel font-normal">(if you like)</span>
      </summary>
      <div role="group" aria-label="Which way" className="grid grid-cols-2 gap-2">
        {ways.map(([way, words]) => (
          <button
            key={way}
            type="button"
            aria-pressed={draft.way === way}
            onClick={() => onChange({ way: draft.way === way ? null : way })}
            className={look(draft.way === way)}
          >
            {words}
          </button>
        ))}
      </div>
      <div role="group" aria-label="How it felt" className="grid grid-cols-3 gap-2 mt-2">
        {feelings.map(([feeling, words, mouth]) => (
          <button
            key={feeling}
            type="button"
            aria-pressed={draft.feeling === feeling}
            onClick={() => onChange({ feeling: draft.feeling === feeling ? null : feeling })}
            className={`${look(draft.feeling === feeling)} grid justify-items-center py-1.5`}
          >
            <svg width="32" height="32" viewBox="0 0 32 32" aria-hidden fill="none" stroke="currentColor">
              <circle cx="16" cy="16" r="14" strokeWidth="2" />
              <path d={mouth} strokeWidth="2.4" strokeLinecap="round" />
              <path d="M11 12v1.5M21 12v1.5" strokeWidth="3" strokeLinecap="round" />
            </svg>
            {words}
          </button>
        ))}
      </div>
    </details>
  )
}

function ReplyForm({ pack, child }: { pack: HomePack; child: HomePack['children'][number] }) {
  const token = useLink()
  const onPhone = useOnPhone()
  const [reply] = useState(() => replyOf({ token, pack, childId: child.id }))
  const { draft, busy, problem } = useSyncExternalStore(reply.subscribe, reply.state, reply.onServer)
  useEffect(() => reply.open(), [reply])
  const looked = pack.replies.find((r) => r.childId === child.id)?.looked ?? false
  const { edit } = reply
  const tasks = pack.pack.tasks
  const open = tasks.filter((t) => isOpen(t, draft.answers[t.id])).length
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault()
        void reply.send()
      }}
    >
      {tasks.length > 0 && (
        <p className="text-[17px]">
          Mistakes are welcome, any of these may be left out, and there is no hurry.
        </p>
      )}
      {tasks.map((t, i) => (
        <TaskCard
          key={t.id}
          task={t}
          n={i + 1}
          of={tasks.length}
          value={draft.answers[t.id] ?? {}}
          locked={looked}
          photos={child.photos}
          onChange={(v) => edit({ answers: { ...draft.answers, [t.id]: v } })}
          onPhoto={(f) => reply.photo(t.id, f)}
        />
      ))}
      <fieldset className="rounded-xl border-2 border-hair bg-card p-4 grid gap-2" disabled={looked}>
        <legend className="sr-only">How much help did {child.name} have?</legend>
        <p className="font-semibold text-[17px]" aria-hidden>
          How much help did {child.name} have?
        </p>
        <div className="grid gap-2">
          {helps.map(([h, words]) => (
            <button
              key={h}
              type="button"
              aria-pressed={draft.help === h}
              onClick={() => edit({ help: h })}
              className={`min-h-12 rounded-lg border-2 font-semibold ${draft.help === h ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
            >
              {words}
            </button>
          ))}
        </div>
        <HowItWent draft={draft} name={child.name} onChange={edit} />
        <label className="grid gap-1 mt-1">
          <span>
            Anything to tell? <span className="text-steel">(if you like)</span>
          </span>
          <textarea
            rows={2}
            maxLength={1000}
            value={draft.words}
            onChange={(e) => edit({ words: e.target.value })}
            className="rounded-lg border border-hair bg-card p-2 text-[17px]"
          />
        </label>
      </fieldset>
      {problem && (
        <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
          {problem}
        </p>
      )}
      {looked ? (
        <p className="rounded-lg bg-wash p-3 font-semibold">Your teacher has looked at this. Thank you.</p>
      ) : (
        <>
          <button
            type="submit"
            disabled={busy}
            className="min-h-14 rounded-xl bg-moss text-on-moss font-bold text-[19px] disabled:opacity-60"
          >
            {busy ? 'Sending…' : draft.receivedAt ? 'Send again' : 'Send'}
          </button>
          {open > 0 && !draft.receivedAt && !draft.waiting && !draft.couldNot && (
            <p className="text-steel text-center">
              {open === 1 ? 'One is' : `${open} are`} still open; that is all right.
            </p>
          )}
          {!draft.receivedAt && (
            <button
              type="button"
              aria-pressed={draft.couldNot}
              onClick={() => edit({ couldNot: !draft.couldNot })}
              className={`min-h-12 rounded-lg border-2 ${draft.couldNot ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
            >
              We couldn’t do it today
            </button>
          )}
          {draft.receivedAt && (
            <p role="status" className="text-center text-moss font-semibold text-[17px]">
              Received {onPhone && timeOf(draft.receivedAt)}. You can change it until it is looked at.
            </p>
          )}
          {draft.waiting && (
            <p role="status" className="text-center font-semibold text-[17px]">
              No connection. It is kept on this phone and sent by itself; leave this page open or come back to
              it.
            </p>
          )}
        </>
      )}
      <p className="text-sm text-steel">
        Kept: the first name, these answers, the photo. Seen by: your setting’s teachers. Ask them to delete
        it at any time. Do not pass this link on: it opens your page.
      </p>
    </form>
  )
}
