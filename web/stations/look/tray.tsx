import { Card } from '../../kit/card.tsx'
import { useEffect, useState } from 'react'
import type { Help, JudgementInput, Level, Rung } from '@awlbox/core/contracts/reply'
import { isTyping } from '../../frame/head.tsx'

const levels: readonly [string, Level, string][] = [
  ['1', 'secure', 'Secure'],
  ['2', 'nearly', 'Nearly'],
  ['3', 'not yet', 'Not yet'],
  ['4', "can't tell", 'Can’t tell'],
]
const helps: readonly [string, Help][] = [
  ['a', 'alone'],
  ['n', 'nudged'],
  ['t', 'together'],
]
const rungs: readonly [string, Rung][] = [
  ['7', 'things'],
  ['8', 'picture'],
  ['9', 'track'],
  ['0', 'head'],
]

/** Four judgements, three helps, four rungs: by mouse or keys. The press that completes the three goes on. */
export function Tray({
  idea,
  help: said,
  way,
  phrases,
  onJudge,
  disabled,
}: {
  idea: string
  help: Help | null
  /** How the home says it was done: chosen already, and changed by a key. */
  way: Rung | null
  /** Notes by phrase, with the child's own facts. */
  phrases: readonly string[]
  onJudge: (j: JudgementInput) => void
  disabled: boolean
}) {
  const [level, setLevel] = useState<Level | null>(null)
  const [help, setHelp] = useState<Help | null>(said)
  const [rung, setRung] = useState<Rung | null>(way)
  const [note, setNote] = useState('')
  const [order, setOrder] = useState<('level' | 'help' | 'rung')[]>([])
  useEffect(() => {
    if (level && help && rung && !disabled) onJudge({ level, help, rung, note: note.trim() })
    // The last of the three completes it; what else changes must not send it again.
    // eslint-disable-next-line react-hooks/exhaustive-deps
  }, [level, help, rung])
  const put = {
    level: (v: Level) => {
      setLevel(v)
      setOrder((o) => [...o, 'level'])
    },
    help: (v: Help) => {
      setHelp(v)
      setOrder((o) => [...o, 'help'])
    },
    rung: (v: Rung) => {
      setRung(v)
      setOrder((o) => [...o, 'rung'])
    },
  }
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || disabled) return
      const l = levels.find(([k]) => k === e.key)
      const h = helps.find(([k]) => k === e.key)
      const r = rungs.find(([k]) => k === e.key)
      if (l) put.level(l[1])
      if (h) put.help(h[1])
      if (r) put.rung(r[1])
      if (e.key === 'Backspace') {
        const last = order.at(-1)
        if (last === 'level') setLevel(null)
        if (last === 'help') setHelp(null)
        if (last === 'rung') setRung(null)
        setOrder(order.slice(0, -1))
      }
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  return (
    <div className="grid gap-2">
      <Notes phrases={phrases} note={note} onNote={setNote} />
      <div className="grid grid-cols-[6fr_4fr_5fr] max-lg:grid-cols-1 gap-3">
        <Group label={idea}>
          {levels.map(([key, v, name]) => (
            <Key
              key={v}
              letter={key}
              name={name}
              on={level === v}
              disabled={disabled}
              onPress={() => put.level(v)}
            />
          ))}
        </Group>
        <Group label={said ? `Help (the home says ${said})` : 'Help'}>
          {helps.map(([key, v]) => (
            <Key
              key={v}
              letter={key}
              name={v}
              on={help === v}
              disabled={disabled}
              onPress={() => put.help(v)}
            />
          ))}
        </Group>
        <Group label={way ? `How (the home says ${way})` : 'How'}>
          {rungs.map(([key, v]) => (
            <Key
              key={v}
              letter={key}
              name={v}
              on={rung === v}
              disabled={disabled}
              onPress={() => put.rung(v)}
            />
          ))}
        </Group>
      </div>
    </div>
  )
}
/** A note by phrases and by hand: it goes along with the judgement. */
function Notes({
  phrases,
  note,
  onNote,
}: {
  phrases: readonly string[]
  note: string
  onNote: (n: string) => void
}) {
  return (
    <div
      className="flex gap-1.5 overflow-x-auto items-center max-sm:flex-wrap"
      role="group"
      aria-label="Note"
    >
      {phrases.map((p) => {
        const on = note.includes(p)
        return (
          <button
            key={p}
            type="button"
            aria-pressed={on}
            title={p}
            onClick={() => onNote(on ? note.replace(p, '').trim() : `${note} ${p}`.trim().slice(0, 500))}
            className={`min-h-9 max-w-[220px] truncate shrink-0 rounded-lg border px-2.5 text-sm cursor-pointer ${on ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`}
          >
            {p}
          </button>
        )
      })}
      <input
        aria-label="Note in your own words"
        placeholder="A note of your own"
        maxLength={500}
        value={note}
        onChange={(e) => onNote(e.target.value)}
        className="min-h-9 min-w-[160px] flex-1 rounded-lg border border-hair bg-card px-2.5 text-sm"
      />
    </div>
  )
}
function Group({ label, children }: { label: string; children: React.ReactNode }) {
  return (
    <Card as="fieldset" className="px-3 pt-1.5 pb-2.5">
      <legend className="sr-only">{label}</legend>
      <p aria-hidden className="text-sm text-steel mb-1">
        {label}
      </p>
      <div className="flex gap-1.5 max-sm:grid max-sm:grid-cols-2">{children}</div>
    </Card>
  )
}
function Key({
  letter,
  name,
  on,
  onPress,
  disabled,
}: {
  letter: string
  name: string
  on: boolean
  onPress: () => void
  disabled: boolean
}) {
  return (
    <button
      type="button"
      aria-pressed={on}
      aria-keyshortcuts={letter}
      disabled={disabled}
      onClick={onPress}
      className={`flex-1 min-w-0 min-h-11 rounded-lg border flex items-center justify-center gap-1.5 px-1 font-semibold cursor-pointer disabled:opacity-50 ${on ? 'bg-ink text-card border-ink' : 'bg-card border-steel/60 hover:bg-wash'}`}
    >
      <kbd
        className={`rounded border px-1.5 text-[12px] font-sans ${on ? 'border-card/50' : 'border-hair bg-wash text-steel'}`}
      >
        {letter}
      </kbd>
      <span className="truncate">{name}</span>
    </button>
  )
}
