import { useEffect, useState } from 'react'
import type { LiveRoundSeen } from '@awlbox/core/contracts/api/live'
import { momentOf } from '@awlbox/core/live/round'
import { fileAt } from '../api.ts'
import { homeLiveTable } from './calls.ts'
import { ChoiceAnswer } from './choice-answer.tsx'
import { type DraftAnswer, keepMedia } from './drafts.ts'
import { DrawingPad } from './drawing.tsx'
import { type LiveGiven, useLiveAnswers } from './live-answers.ts'
import { type Live, type ServerTime, useLive } from './live-line.ts'
import { useLink } from './link.ts'
import { press } from './looks.ts'
import { Pieces } from './pieces.tsx'
import { ShowNumber } from './show-number.tsx'
import { shrunk } from './shrink.ts'
import { isOpen } from './task-card.tsx'
import { WhoseAnswers } from './whose-answers.tsx'
import { useWords, written } from './words.ts'

const main = 'min-h-14 rounded-lg bg-moss text-on-moss font-bold text-[19px] disabled:opacity-40'

/** The server's time, told again a few times a second while something runs. */
function useTicking(now: ServerTime, running: boolean): number {
  const [at, setAt] = useState(now)
  useEffect(() => {
    if (!running) return
    const t = setInterval(() => setAt(now()), 100)
    return () => clearInterval(t)
  }, [now, running])
  return at
}

/** A live lesson on a home's phone: a second screen beside the call. What the child gives goes to the teacher alone. */
export function LiveView({ liveId, onLeave }: { liveId: string; onLeave: () => void }) {
  const token = useLink()
  const { say } = useWords()
  const live = useLive(token, liveId)
  const answers = useLiveAnswers(token, liveId, live.now)
  const { seen } = live
  return (
    <section
      aria-label={live.live ? say('live.title', { title: live.live.title }) : ''}
      className="grid gap-4"
    >
      {live.live && (
        <h1 {...written} className="font-child font-bold text-[22px] leading-tight">
          {live.live.title}
        </h1>
      )}
      <TheLine live={live} waiting={answers.waiting()} />
      {seen?.phase === 'waiting' && (
        <p className="rounded-xl bg-card border border-hair p-5 text-[19px]">{say('live.waiting')}</p>
      )}
      {seen?.phase === 'on' && <OnNow live={live} answers={answers} />}
      {seen?.phase === 'on' && seen.table !== null && (
        <img
          src={`${fileAt(homeLiveTable, { token, liveId })}?v=${seen.table}`}
          alt={say('live.table')}
          className="w-full rounded-xl border border-hair bg-white"
        />
      )}
      {seen?.phase === 'over' ? (
        <div className="rounded-xl bg-card border border-hair p-5 grid gap-3">
          <p className="text-[19px]">{say('live.over')}</p>
          {/* What there is to do at home came with its end: the page is asked for anew. */}
          <a href={`/h/${token}`} className={`${main} grid place-items-center`}>
            {say('live.home')}
          </a>
        </div>
      ) : (
        <p className="text-steel text-sm">
          {say('live.private')}{' '}
          <button type="button" onClick={onLeave} className="underline min-h-9">
            {say('live.home')}
          </button>
        </p>
      )}
    </section>
  )
}
type Answers = ReturnType<typeof useLiveAnswers>
type Followed = Live & { now: ServerTime }

/** What is to be told of the line: that it dropped, that something waits, or why one cannot come in. */
function TheLine({ live, waiting }: { live: Followed; waiting: boolean }) {
  const { say } = useWords()
  const lost = !live.on && live.seen !== null && live.seen.phase !== 'over'
  return (
    <>
      {lost && (
        <p role="status" className="rounded-lg border border-brick text-brick bg-card p-3">
          {say('live.lost')}
        </p>
      )}
      {live.problem && (
        <p role="alert" className="rounded-lg border border-brick bg-card text-brick p-3">
          {live.problem}
        </p>
      )}
      {waiting && !live.on && <p className="text-steel">{say('live.kept')}</p>}
    </>
  )
}
/** What is on: the round of the child whose turn it is, or what is said between rounds. */
function OnNow({ live, answers }: { live: Followed; answers: Answers }) {
  const [childId, setChildId] = useState<string | null>(null)
  const child = live.children.find((c) => c.id === childId) ?? live.children[0]
  const { round } = live.seen!
  const { children } = live
  // At "three" what was begun goes by itself, of each child here: all show at once.
  const shows = round?.shows ?? null
  useEffect(() => {
    if (!round || shows === null) return
    for (const c of children) {
      const given = answers.of(round.id, c.id)
      const begun = given?.state === 'open' && !(round.task && isOpen(round.task, given.answer))
      if (begun) answers.give(round, c.id)
    }
  }, [shows, round, children, answers])
  const give = () => {
    answers.give(round!, child!.id)
    // With two children here the other's turn comes next.
    const rest = live.children.find(
      (c) => c.id !== child!.id && !['kept', 'sent'].includes(answers.of(round!.id, c.id)?.state ?? ''),
    )
    if (rest) setChildId(rest.id)
  }
  return (
    <>
      <WhoseAnswers among={children} chosen={child?.id} onChoose={setChildId} />
      {round && child ? (
        <Round
          key={`${round.id} ${child.id}`}
          round={round}
          child={child}
          live={live}
          given={answers.of(round.id, child.id)}
          onCompose={(a) => answers.compose(round, child.id, a)}
          onGive={give}
        />
      ) : (
        <Between live={live} />
      )}
    </>
  )
}

/** A ring that fills while one thinks. */
function Ring({ share, children }: { share: number; children: React.ReactNode }) {
  const round = 2 * Math.PI * 52
  return (
    <div className="relative w-44 h-44 mx-auto">
      <svg viewBox="0 0 120 120" className="w-full h-full -rotate-90" aria-hidden>
        <circle cx="60" cy="60" r="52" fill="none" stroke="var(--hair)" strokeWidth="9" />
        <circle
          cx="60"
          cy="60"
          r="52"
          fill="none"
          stroke="#f2b705"
          strokeWidth="9"
          strokeLinecap="round"
          strokeDasharray={`${Math.max(0, Math.min(1, share)) * round} ${round}`}
        />
      </svg>
      <div className="absolute inset-0 grid place-items-center text-center text-[21px] font-semibold px-6">
        {children}
      </div>
    </div>
  )
}

/** Between rounds: the words that are said, or the silence that is kept. */
function Between({ live }: { live: Live & { now: ServerTime } }) {
  const { say } = useWords()
  const { words, silence } = live.seen!
  const at = useTicking(live.now, silence !== null)
  if (silence && at < silence.until)
    return <Ring share={(at - silence.from) / (silence.until - silence.from)}>{say('live.quiet')}</Ring>
  return (
    <div className="rounded-xl bg-card border border-hair p-5 min-h-44 grid place-items-center">
      {words ? (
        <p {...written} className="font-child text-[24px] leading-snug">
          {words}
        </p>
      ) : (
        <p className="text-[19px] text-steel">{say('live.listen')}</p>
      )}
    </div>
  )
}

interface RoundProps {
  round: LiveRoundSeen
  child: Live['children'][number]
  live: Live & { now: ServerTime }
  given: LiveGiven | undefined
  onCompose: (a: DraftAnswer) => void
  onGive: () => void
}
/** One question: thinking, then answering, then three, two, one, and all at once. */
function Round({ round, child, live, given, onCompose, onGive }: RoundProps) {
  const { say } = useWords()
  const at = useTicking(live.now, true)
  const [began] = useState(at)
  const heard = useSaidAgain(live.seen!.again)
  const elsewhere = !given && live.mine.some((m) => m.roundId === round.id && m.childId === child.id)
  const moment = momentOf(round, at)
  return (
    <div className="rounded-xl border-2 border-hair bg-card p-4 grid gap-4">
      {heard && (
        <p role="status" className="rounded-lg bg-here p-2 text-center font-semibold">
          {say('live.again')}
        </p>
      )}
      {moment !== 'shown' && (
        <p {...written} className="font-child text-[24px] leading-snug">
          {round.prompt}
        </p>
      )}
      {moment === 'thinking' && <Thinking round={round} began={began} at={at} />}
      {moment === 'counting' && <Countdown left={round.shows! - at} />}
      {moment === 'shown' && <Shown round={round} given={given} elsewhere={elsewhere} />}
      {moment === 'open' && (
        <>
          <LiveTask
            round={round}
            child={child}
            value={given?.answer ?? {}}
            locked={false}
            onChange={onCompose}
          />
          <Ready
            round={round}
            given={given}
            elsewhere={elsewhere}
            onReady={() => {
              if (!given) onCompose({ text: 'ready' })
              onGive()
            }}
          />
        </>
      )}
      <HowItWent given={given} />
    </div>
  )
}
function Thinking({ round, began, at }: { round: LiveRoundSeen; began: number; at: number }) {
  const { say } = useWords()
  return (
    <div role="status" className="grid gap-2">
      <Ring share={(at - began) / Math.max(1, round.opens - began)}>{say('live.think')}</Ring>
      <p className="text-center text-steel figures">
        {say('live.soon', { n: Math.max(1, Math.ceil((round.opens - at) / 1000)) })}
      </p>
    </div>
  )
}
const Countdown = ({ left }: { left: number }) => (
  <p role="status" className="grid place-items-center h-44 font-child font-bold text-[120px] leading-none">
    {Math.max(1, Math.ceil(left / 1000))}
  </p>
)
/** The button that says "ready", and what stands in its place once that was said. */
function Ready({
  round,
  given,
  elsewhere,
  onReady,
}: Pick<RoundProps, 'round' | 'given'> & { elsewhere: boolean; onReady: () => void }) {
  const { say } = useWords()
  if (given?.state === 'kept' || given?.state === 'sent' || elsewhere)
    return (
      <p role="status" className="text-moss font-semibold text-[17px]">
        {say('live.sent')}
      </p>
    )
  const open = round.task !== null && (!given || isOpen(round.task, given.answer))
  return (
    <button type="button" disabled={open} onClick={onReady} className={main}>
      {say(round.task ? 'live.ready' : 'film.ready')}
    </button>
  )
}
/** What became of what was given, where there is more to tell than that it is there. */
function HowItWent({ given }: Pick<RoundProps, 'given'>) {
  const { say } = useWords()
  const words = [
    ...(given?.words ? [say(given.words === 'first' ? 'live.first' : 'live.undone')] : []),
    ...(given?.late && given.state === 'sent' ? [say('live.late')] : []),
    ...(given?.state === 'kept' ? [say('live.kept')] : []),
  ]
  return words.map((w) => (
    <p key={w} className="text-steel">
      {w}
    </p>
  ))
}
/** True for some seconds after something was said again. */
function useSaidAgain(again: number): boolean {
  const [past, setPast] = useState(again)
  useEffect(() => {
    if (again === past) return
    const t = setTimeout(() => setPast(again), 6000)
    return () => clearTimeout(t)
  }, [again, past])
  return again !== past
}

/** An answer as it is held up: a number, a choice, the tiles; empty for what is not told in a few signs. */
function shownWords(round: LiveRoundSeen, a: DraftAnswer): string {
  if (a.choice !== undefined) return round.task?.choices[a.choice] ?? ''
  if (round.task?.kind === 'number') return a.text ?? ''
  return a.given?.join(' ') ?? ''
}
/** What this child gave, large, to be held before the camera. */
function Shown({
  round,
  given,
  elsewhere,
}: {
  round: LiveRoundSeen
  given: LiveGiven | undefined
  elsewhere: boolean
}) {
  const { say } = useWords()
  if (!given || given.state === 'open')
    return <p className="text-[19px] text-center py-8">{say(elsewhere ? 'live.sent' : 'live.nothing')}</p>
  const words = shownWords(round, given.answer)
  return (
    <div className="grid gap-3 text-center">
      <p className="text-steel">{say('live.hold')}</p>
      {round.task?.kind === 'number' && round.show !== 'card' ? (
        <ShowNumber way={round.show} value={given.answer} locked onChange={() => undefined} />
      ) : (
        <p
          className={`font-child font-bold leading-none ${words.length > 3 ? 'text-[44px]' : 'text-[150px]'}`}
        >
          {words || '✓'}
        </p>
      )}
    </div>
  )
}

/** What is answered, as this child's round has it. */
function LiveTask({
  round,
  child,
  value,
  locked,
  onChange,
}: {
  round: LiveRoundSeen
  child: Live['children'][number]
  value: DraftAnswer
  locked: boolean
  onChange: (v: DraftAnswer) => void
}) {
  const { say } = useWords()
  const { task } = round
  if (!task) return null
  switch (task.kind) {
    case 'number':
      return <ShowNumber way={round.show} value={value} locked={locked} onChange={onChange} />
    case 'choice':
      return (
        <ChoiceAnswer
          task={task}
          chosen={value.choice}
          locked={locked}
          onChoose={(choice) => onChange({ ...value, choice })}
        />
      )
    case 'photo':
      return <Made value={value} photos={child.photos} onChange={onChange} />
    case 'draw':
      return (
        <DrawingPad
          value={value.drawing ?? ''}
          locked={locked}
          onChange={(drawing) => onChange({ ...value, drawing })}
        />
      )
    case 'tell':
      return (
        <label className="grid gap-1">
          <span>{say('sound.refused')}</span>
          <textarea
            rows={2}
            maxLength={300}
            dir="auto"
            value={value.text ?? ''}
            onChange={(e) => onChange({ ...value, text: e.target.value })}
            className="rounded-lg border border-hair bg-card p-2 text-[17px]"
          />
        </label>
      )
    default:
      return (
        <Pieces
          task={task}
          given={value.given}
          locked={locked}
          onGive={(given) => onChange({ ...value, given })}
        />
      )
  }
}

/** "We made it": a photo of it, or just saying so. */
function Made({
  value,
  photos,
  onChange,
}: {
  value: DraftAnswer
  photos: boolean
  onChange: (v: DraftAnswer) => void
}) {
  const { say } = useWords()
  const [busy, setBusy] = useState(false)
  const photo = value.media?.[0]
  const take = async (file: Blob) => {
    setBusy(true)
    const id = crypto.randomUUID()
    await keepMedia(id, await shrunk(file))
    onChange({ ...value, media: [{ id, kind: 'photo', text: '', here: false }] })
    setBusy(false)
  }
  return (
    <div className="grid gap-2">
      {photos && (
        <label
          className={`${press(photo !== undefined)} min-h-14 grid place-items-center cursor-pointer text-[17px]`}
        >
          {say(busy ? 'photo.sending' : photo ? 'photo.waits' : 'photo.take')}
          <input
            type="file"
            accept="image/*"
            capture="environment"
            className="sr-only"
            aria-label={say('photo.take')}
            onChange={(e) => {
              const f = e.target.files?.[0]
              if (f) void take(f)
            }}
          />
        </label>
      )}
      <button
        type="button"
        aria-pressed={value.text === say('live.made')}
        onClick={() => onChange({ ...value, text: say('live.made') })}
        className={press(value.text === say('live.made'))}
      >
        {say('live.made')}
      </button>
      {photos && <p className="text-sm text-steel">{say('photo.rules')}</p>}
    </div>
  )
}
