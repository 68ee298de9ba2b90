import { Choice } from './choice.tsx'
import type { PiecesProps } from './pieces-props.ts'
import { Circles, Cross, Line, Record } from './drawn-pieces.tsx'
import { field, tile } from './looks.ts'
import { useWords } from './words.ts'

/** What a home gives piece by piece: ticked, laid, listed, put in order, filled in, shared out, matched. */
export function Pieces(p: PiecesProps) {
  const { say } = useWords()
  const [first] = p.task.numbers
  switch (p.task.kind) {
    case 'several':
      return <Several {...p} />
    case 'sentence':
      if (p.task.slots.length) return <OneHidden {...p} />
      return (first ?? 1) > 1 ? (
        <LaidLanes {...p} lanes={first!} />
      ) : (
        <Laid {...p} all={false} empty={say('laid.tap')} />
      )
    case 'order':
      return <Laid {...p} all empty={say('laid.tapOrder')} />
    case 'ways':
      return <Lines {...p} most={40} words={say(p.task.numbers[1] === 3 ? 'lines.way3' : 'lines.way2')} />
    case 'own':
      return <Lines {...p} most={first ?? 3} words={say('lines.own')} />
    case 'gaps':
      return <Gaps {...p} />
    case 'share':
      return <Share {...p} />
    case 'match':
      return <Match {...p} />
    case 'line':
      return <Line {...p} />
    case 'circles':
      return <Circles {...p} />
    case 'cross':
      return <Cross {...p} />
    case 'record':
      return <Record {...p} />
    default:
      return null
  }
}

function Several({ task, given, locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const toggle = (c: string) =>
    onGive(given?.includes(c) ? given.filter((g) => g !== c) : [...(given ?? []), c])
  return (
    <div role="group" aria-label={task.prompt} className="grid gap-2">
      {task.choices.map((c) => {
        const on = given?.includes(c) ?? false
        return (
          <button
            key={c}
            type="button"
            role="checkbox"
            aria-checked={on}
            disabled={locked}
            onClick={() => toggle(c)}
            className={`${tile(on)} text-start flex items-center gap-3`}
          >
            <span aria-hidden className="w-4">
              {on ? '✓' : ''}
            </span>
            <Choice words={c} look={task.look} />
          </button>
        )
      })}
      <button
        type="button"
        role="checkbox"
        aria-checked={given?.length === 0}
        disabled={locked}
        onClick={() => onGive([])}
        className={`${tile(given?.length === 0)} text-start`}
      >
        {say('pick.none')}
      </button>
    </div>
  )
}

/** Tiles tapped one after another; a laid one tapped goes back. `all`: each is used once and all of them. */
function Laid({ task, given = [], locked, onGive, empty }: PiecesProps & { all: boolean; empty: string }) {
  const { say } = useWords()
  // Two tiles may say the same: each is used as often as it is there.
  const left = [...task.choices]
  for (const g of given) {
    const i = left.indexOf(g)
    if (i >= 0) left.splice(i, 1)
  }
  return (
    <div className="grid gap-3">
      <ol
        dir="ltr"
        aria-label={say('laid.so')}
        className="flex flex-wrap gap-2 min-h-15 rounded-lg border-2 border-dashed border-hair p-2"
      >
        {given.length === 0 && <li className="self-center text-steel px-1">{empty}</li>}
        {given.map((g, i) => (
          <li key={`${g} ${i}`}>
            <button
              type="button"
              disabled={locked}
              aria-label={say('laid.back', { tile: g, n: i + 1 })}
              onClick={() => onGive(given.toSpliced(i, 1))}
              className={tile(true)}
            >
              {g}
            </button>
          </li>
        ))}
      </ol>
      <div role="group" dir="ltr" aria-label={say('laid.tiles')} className="flex flex-wrap gap-2">
        {left.map((t, i) => (
          <button
            key={`${t} ${i}`}
            type="button"
            disabled={locked}
            aria-label={say('laid.lay', { tile: t })}
            onClick={() => onGive([...given, t])}
            className={tile(false)}
          >
            {t}
          </button>
        ))}
      </div>
    </div>
  )
}

/** Lines of one's own, as many as one likes up to `most`. */
function Lines({
  task,
  given = [],
  locked,
  onGive,
  most,
  words,
}: PiecesProps & { most: number; words: string }) {
  const { say } = useWords()
  const lines = [...given, ...(given.length < most ? [''] : [])]
  return (
    <div role="group" aria-label={task.prompt} className="grid gap-2">
      {lines.map((line, i) => (
        <input
          // A line keeps its place while it is typed.
          key={i}
          dir="ltr"
          aria-label={say('lines.n', { what: words, n: i + 1 })}
          placeholder={i === 0 ? words : ''}
          value={line}
          maxLength={80}
          disabled={locked}
          autoComplete="off"
          onChange={(e) => {
            const next = [...given]
            next[i] = e.target.value
            // Empty ones at the end are none.
            while (next.length && !next.at(-1)) next.pop()
            onGive(next)
          }}
          className={`${field} text-start px-3`}
        />
      ))}
    </div>
  )
}

function Gaps({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const [wide] = task.numbers
  /** For each place the gap it is, counted; those that are filled are none. */
  const gaps = task.slots.map((s, i) =>
    s === '' ? task.slots.slice(0, i).filter((x) => x === '').length : null,
  )
  const count = gaps.filter((g) => g !== null).length
  return (
    <ol
      dir="ltr"
      aria-label={task.prompt}
      className={wide ? 'grid gap-1' : 'flex flex-wrap gap-2'}
      style={wide ? { gridTemplateColumns: `repeat(${wide}, minmax(0, 1fr))` } : undefined}
    >
      {task.slots.map((s, i) => {
        const mine = gaps[i] ?? null
        if (mine === null)
          return (
            <li
              key={i}
              className={`min-h-13 ${wide ? '' : 'min-w-13 px-2'} rounded-lg bg-wash grid place-items-center font-child text-[22px]`}
            >
              {s}
            </li>
          )
        return (
          <li key={i}>
            <input
              aria-label={say('gaps.missing', { n: mine + 1, total: count })}
              inputMode="numeric"
              autoComplete="off"
              maxLength={4}
              disabled={locked}
              value={given[mine] ?? ''}
              onChange={(e) =>
                onGive(
                  Array.from({ length: count }, (_, k) => (k === mine ? e.target.value : (given[k] ?? ''))),
                )
              }
              className={`${field} ${wide ? 'w-full' : 'w-16'}`}
            />
          </li>
        )
      })}
    </ol>
  )
}

function Share({ task, given, locked, onGive }: PiecesProps) {
  const { say } = useWords()
  const [things = 0, plates = 2] = task.numbers
  const on = Array.from({ length: plates }, (_, i) => Number(given?.[i] ?? 0))
  const left = things - on.reduce((a, b) => a + b, 0)
  const put = (i: number, by: number) => onGive(on.map((n, k) => String(k === i ? n + by : n)))
  return (
    <div className="grid gap-2">
      <p role="status" className="text-[17px]">
        {say('share.left', { n: left })}
      </p>
      <ul className="grid gap-2">
        {on.map((n, i) => (
          <li key={i} className="flex items-center gap-2 rounded-xl border-2 border-hair p-2">
            <span className="flex-1 min-w-0">
              <span className="text-steel">{say('share.plate', { n: i + 1 })}</span>{' '}
              <b className="font-child text-[22px]">{n}</b>
              <span aria-hidden className="block text-[18px] leading-tight break-all">
                {'●'.repeat(n)}
              </span>
            </span>
            <button
              type="button"
              aria-label={say('share.off', { n: i + 1 })}
              disabled={locked || n === 0}
              onClick={() => put(i, -1)}
              className={tile(false)}
            >
              −
            </button>
            <button
              type="button"
              aria-label={say('share.on', { n: i + 1 })}
              disabled={locked || left <= 0}
              onClick={() => put(i, 1)}
              className={tile(false)}
            >
              +
            </button>
          </li>
        ))}
      </ul>
    </div>
  )
}

function Match({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  return (
    <ul aria-label={task.prompt} className="grid gap-2">
      {task.slots.map((s, i) => (
        <li key={s} className="flex items-center gap-3">
          <b className="font-child text-[20px] min-w-13">{s}</b>
          <select
            aria-label={say('match.to', { what: s })}
            disabled={locked}
            value={given[i] ?? ''}
            onChange={(e) => onGive(task.slots.map((_, k) => (k === i ? e.target.value : (given[k] ?? ''))))}
            className="flex-1 min-w-0 min-h-13 rounded-lg border-2 border-ink bg-card px-2 font-child text-[20px]"
          >
            <option value="">{say('match.choose')}</option>
            {task.choices.map((c) => (
              <option key={c} value={c}>
                {c}
              </option>
            ))}
          </select>
        </li>
      ))}
    </ul>
  )
}

/** A whole sentence with one number hidden: which tile belongs there. */
function OneHidden({ task, given = [], locked, onGive }: PiecesProps) {
  const { say } = useWords()
  return (
    <div className="grid gap-3">
      <p dir="ltr" className="font-child text-[28px] font-bold text-center">
        {task.slots.map((s, i) => (
          <span key={i} className={`mx-1 ${s === '' ? 'border-b-4 border-ink px-3' : ''}`}>
            {s === '' ? (given[0] ?? '\u2007') : s}
          </span>
        ))}
      </p>
      <div
        role="radiogroup"
        dir="ltr"
        aria-label={say('laid.tiles')}
        className="flex flex-wrap gap-2 justify-center"
      >
        {task.choices.map((c) => (
          <button
            key={c}
            type="button"
            role="radio"
            aria-checked={given[0] === c}
            disabled={locked}
            onClick={() => onGive([c])}
            className={tile(given[0] === c)}
          >
            {c}
          </button>
        ))}
      </div>
    </div>
  )
}

/** Between two sentences in what is sent. */
const nextOne = '/'
/** Several sentences laid from the same tiles, one under another. */
function LaidLanes({ lanes, given = [], onGive, ...p }: PiecesProps & { lanes: number }) {
  const { say } = useWords()
  const all = given
    .join('\n')
    .split(`${nextOne}`)
    .map((l) => l.split('\n').filter(Boolean))
  return (
    <div className="grid gap-4">
      {Array.from({ length: lanes }, (_, i) => (
        <Laid
          key={i}
          {...p}
          given={all[i] ?? []}
          all={false}
          empty={say('laid.tap')}
          onGive={(lane) => {
            const next = Array.from({ length: lanes }, (_x, k) => (k === i ? lane : (all[k] ?? [])))
            onGive(next.some((l) => l.length) ? next.flatMap((l, k) => (k ? [nextOne, ...l] : l)) : [])
          }}
        />
      ))}
    </div>
  )
}
