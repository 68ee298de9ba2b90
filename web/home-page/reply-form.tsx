import { useEffect, useState, useSyncExternalStore } from 'react'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import type { Feeling, Help, Rung } from '@awlbox/core/contracts/reply'
import type { TaskSet } from '@awlbox/core/contracts/lesson'
import type { Draft } from './drafts.ts'
import { useLink } from './link.ts'
import { press } from './looks.ts'
import { useOnPhone } from './remembered.ts'
import { replyOf } from './reply.ts'
import { isOpen, TaskCard } from './task-card.tsx'
import { useWords } from './words.ts'

type Child = HomePack['children'][number]
const helps: readonly Help[] = ['alone', 'nudged', 'together']
const ways: readonly Rung[] = ['things', 'picture', 'track', 'head']
/** Three faces of our own: a mouth that rises, lies flat or wobbles. */
const feelings: readonly [Feeling, 'how.easy' | 'how.right' | 'how.hard', string][] = [
  ['easy', 'how.easy', 'M9 19 Q16 27 23 19'],
  ['just right', 'how.right', 'M10 21 L22 21'],
  ['hard', 'how.hard', 'M10 24 Q13 18 16 22 Q19 26 22 20'],
]
/** From the gentlest to the longest reach. */
const sets: readonly TaskSet[] = ['gentle', 'middle', 'stretch']

/** The tasks, what goes with them, and sending: for one child. */
export function ReplyForm({ pack, child, preview }: { pack: HomePack; child: Child; preview: boolean }) {
  const token = useLink()
  const words = useWords()
  const { say } = words
  const [reply] = useState(() => replyOf({ token, pack, childId: child.id, words, preview }))
  const state = useSyncExternalStore(reply.subscribe, reply.state, reply.onServer)
  const { draft } = state
  useEffect(() => reply.open(), [reply])
  const before = pack.replies.find((r) => r.childId === child.id)
  const looked = before?.looked ?? false
  const asked = new Map((before?.asked ?? []).map((a) => [a.taskId, a.words]))
  const { edit } = reply
  const all = pack.pack.tasks
  const offered = sets.filter((s) => all.some((t) => t.sets.includes(s)))
  const taken = draft.chose ?? child.level
  const tasks = all.filter((t) => !t.sets.length || (taken !== null && t.sets.includes(taken)))
  const open = tasks.filter((t) => isOpen(t, draft.answers[t.id])).length
  const locked = looked || pack.closed
  return (
    <form
      className="grid grid-cols-[minmax(0,1fr)] gap-4"
      onSubmit={(e) => {
        e.preventDefault()
        void reply.send()
      }}
    >
      {before?.feedback && (
        <section className="rounded-xl border-2 border-moss bg-card p-4">
          <h2 className="font-semibold">{say('feedback.title')}</h2>
          <p dir="auto" className="text-[17px] whitespace-pre-line">
            {before.feedback}
          </p>
        </section>
      )}
      {all.length > 0 && <p className="text-[17px]">{say('task.welcome')}</p>}
      {offered.length > 0 && (
        <SetChoice
          offered={offered}
          given={child.level}
          chose={draft.chose}
          locked={locked}
          onChoose={(chose) => edit({ chose })}
        />
      )}
      {tasks.map((t, i) => (
        <div key={t.id} className={asked.has(t.id) ? 'rounded-xl ring-4 ring-saffron' : ''}>
          {asked.has(t.id) && (
            <p className="px-4 py-2 font-semibold">
              {say('asked.again')}
              {asked.get(t.id) && (
                <span dir="auto" className="block font-normal">
                  {asked.get(t.id)}
                </span>
              )}
            </p>
          )}
          <TaskCard
            task={t}
            n={i + 1}
            of={tasks.length}
            value={draft.answers[t.id] ?? {}}
            locked={locked}
            photos={child.photos}
            sound={child.sound}
            reply={reply}
            onChange={(v) => edit({ answers: { ...draft.answers, [t.id]: v } })}
          />
        </div>
      ))}
      <fieldset className="rounded-xl border-2 border-hair bg-card p-4 grid gap-2" disabled={locked}>
        <legend className="sr-only">{say('help.ask', { child: child.name })}</legend>
        <p className="font-semibold text-[17px]" aria-hidden>
          {say('help.ask', { child: child.name })}
        </p>
        <div className="grid gap-2">
          {helps.map((h) => (
            <button
              key={h}
              type="button"
              aria-pressed={draft.help === h}
              onClick={() => edit({ help: h })}
              className={press(draft.help === h)}
            >
              {say(`help.${h}`)}
            </button>
          ))}
        </div>
        <HowItWent draft={draft} name={child.name} onChange={edit} />
        <Told
          label={say('how.words')}
          most={1000}
          value={draft.words}
          onChange={(text) => edit({ words: text })}
        />
      </fieldset>
      <Sending
        state={state}
        open={open}
        locked={locked}
        looked={looked}
        preview={preview}
        onEdit={edit}
        onTakeBack={() => void reply.takeBack()}
      />
      <p className="text-sm text-steel">{say('send.kept')}</p>
    </form>
  )
}
function Told({
  label,
  most,
  value,
  onChange,
}: {
  label: string
  most: number
  value: string
  onChange: (text: string) => void
}) {
  const { say } = useWords()
  return (
    <label className="grid gap-1 mt-1">
      <span>
        {label} <span className="text-steel">{say('page.optional')}</span>
      </span>
      <textarea
        rows={2}
        dir="auto"
        maxLength={most}
        value={value}
        onChange={(e) => onChange(e.target.value)}
        className="rounded-lg border border-hair bg-card p-2 text-[17px]"
      />
    </label>
  )
}

/** Which of the sets: the one the teacher gave, or the child's own choice; both are remembered. */
function SetChoice({
  offered,
  given,
  chose,
  locked,
  onChoose,
}: {
  offered: readonly TaskSet[]
  given: TaskSet | null
  chose: TaskSet | null
  locked: boolean
  onChoose: (set: TaskSet | null) => void
}) {
  const { say } = useWords()
  const [other, setOther] = useState(false)
  if (given && !other && !chose)
    return (
      <div className="flex items-center gap-3 flex-wrap">
        <p className="text-[17px] flex-1">{say('level.given', { level: say(`level.${given}`) })}</p>
        <button
          type="button"
          disabled={locked}
          onClick={() => setOther(true)}
          className={`${press(false)} px-3`}
        >
          {say('level.other')}
        </button>
      </div>
    )
  const now = chose ?? given
  return (
    <div role="radiogroup" aria-label={say('level.ask')} className="grid gap-2">
      <p className="font-semibold text-[17px]" aria-hidden>
        {say('level.ask')}
      </p>
      {offered.map((s) => (
        <button
          key={s}
          type="button"
          role="radio"
          aria-checked={now === s}
          disabled={locked}
          onClick={() => onChoose(s === given ? null : s)}
          className={press(now === s)}
        >
          {say(`level.${s}`)}
        </button>
      ))}
    </div>
  )
}

/** Which way, how it felt, and why: one tap each or a few words, none of them asked for. */
function HowItWent({
  draft,
  name,
  onChange,
}: {
  draft: Draft
  name: string
  onChange: (change: Partial<Draft>) => void
}) {
  const { say } = useWords()
  return (
    <details className="grid gap-2">
      <summary className="min-h-12 grid items-center font-semibold cursor-pointer">
        <span>
          {say('how.title', { child: name })}{' '}
          <span className="text-steel font-normal">{say('page.optional')}</span>
        </span>
      </summary>
      <div role="group" aria-label={say('how.way')} className="grid grid-cols-2 gap-2">
        {ways.map((way) => (
          <button
            key={way}
            type="button"
            aria-pressed={draft.way === way}
            onClick={() => onChange({ way: draft.way === way ? null : way })}
            className={press(draft.way === way)}
          >
            {say(`how.${way}`)}
          </button>
        ))}
      </div>
      <div role="group" aria-label={say('how.felt')} className="grid grid-cols-3 gap-2 mt-2">
        {feelings.map(([feeling, key, mouth]) => (
          <button
            key={feeling}
            type="button"
            aria-pressed={draft.feeling === feeling}
            onClick={() => onChange({ feeling: draft.feeling === feeling ? null : feeling })}
            className={`${press(draft.feeling === feeling)} grid justify-items-center py-1.5`}
          >
            <svg width="32" height="32" viewBox="0 0 32 32" aria-hidden fill="none" stroke="currentColor">
              <circle cx="16" cy="16" r="14" strokeWidth="2" />
              <path d={mouth} strokeWidth="2.4" strokeLinecap="round" />
              <path d="M11 12v1.5M21 12v1.5" strokeWidth="3" strokeLinecap="round" />
            </svg>
            {say(key)}
          </button>
        ))}
      </div>
      <Told
        label={say('how.why', { child: name })}
        most={500}
        value={draft.why}
        onChange={(why) => onChange({ why })}
      />
    </details>
  )
}

function Sending({
  state,
  open,
  locked,
  looked,
  preview,
  onEdit,
  onTakeBack,
}: {
  state: ReturnType<ReturnType<typeof replyOf>['state']>
  open: number
  locked: boolean
  looked: boolean
  preview: boolean
  onEdit: (change: Partial<Draft>) => void
  onTakeBack: () => void
}) {
  const { say, locale } = useWords()
  const onPhone = useOnPhone()
  const { draft, busy, problem } = state
  const timeOf = (moment: string): string =>
    new Date(moment).toLocaleTimeString(locale, { hour: '2-digit', minute: '2-digit' })
  return (
    <>
      {problem && (
        <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
          {problem}
        </p>
      )}
      {looked && <p className="rounded-lg bg-wash p-3 font-semibold">{say('send.looked')}</p>}
      {!locked && (
        <>
          <button
            type="submit"
            disabled={busy || preview}
            className="min-h-14 rounded-xl bg-moss text-on-moss font-bold text-[19px] disabled:opacity-60"
          >
            {say(busy ? 'send.sending' : draft.receivedAt ? 'send.again' : 'send.send')}
          </button>
          {open > 0 && !draft.receivedAt && !draft.waiting && !draft.couldNot && (
            <p className="text-steel text-center">{say('send.open', { n: open })}</p>
          )}
          {!draft.receivedAt && (
            <button
              type="button"
              aria-pressed={draft.couldNot}
              onClick={() => onEdit({ couldNot: !draft.couldNot })}
              className={press(draft.couldNot)}
            >
              {say('send.could')}
            </button>
          )}
          {draft.receivedAt && (
            <>
              <p role="status" className="text-center text-moss font-semibold text-[17px]">
                {onPhone && say('send.received', { time: timeOf(draft.receivedAt) })}
              </p>
              <button type="button" disabled={busy} onClick={onTakeBack} className={press(false)}>
                {say('send.back')}
              </button>
            </>
          )}
          {state.taken && (
            <p role="status" className="text-center font-semibold">
              {say('send.taken')}
            </p>
          )}
          {draft.waiting && (
            <p role="status" className="text-center font-semibold text-[17px]">
              {say('send.waiting')}
            </p>
          )}
          {state.full && (
            <p role="alert" className="text-center font-semibold">
              {say('send.full')}
            </p>
          )}
        </>
      )}
    </>
  )
}
