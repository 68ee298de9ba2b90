import type { HomeTask } from '@awlbox/core/contracts/api/home'

interface Props {
  task: HomeTask
  given: string[] | undefined
  locked: boolean
  onGive: (given: string[]) => void
}
const tile = (on: boolean): string =>
  `min-h-13 min-w-13 rounded-lg border-2 px-3 font-child text-[20px] disabled:opacity-40 ${on ? 'border-ink bg-ink text-card' : 'border-hair bg-card'}`
const field =
  'min-h-13 rounded-lg border-2 border-ink bg-card text-center font-child text-[22px] font-bold min-w-0'

/** What a home gives piece by piece: ticked, laid, listed, put in order, filled in, shared out, matched. */
export function Pieces(p: Props) {
  switch (p.task.kind) {
    case 'several':
      return <Several {...p} />
    case 'sentence':
      return <Laid {...p} all={false} empty="Tap the tiles in order." />
    case 'order':
      return <Laid {...p} all empty="Tap them in order, the first one first." />
    case 'ways':
      return <Lines {...p} most={40} words={wayWords(p.task)} />
    case 'own':
      return <Lines {...p} most={p.task.numbers[0] ?? 3} words="A sentence, like 2 + 2 = 4" />
    case 'gaps':
      return <Gaps {...p} />
    case 'share':
      return <Share {...p} />
    case 'match':
      return <Match {...p} />
    default:
      return null
  }
}
const wayWords = (t: HomeTask): string =>
  t.numbers[1] === 3 ? 'One way, like 1 + 2 + 3' : 'One way, like 1 + 2'

function Several({ task, given, locked, onGive }: Props) {
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
            className={`${tile(on)} text-left`}
          >
            <span aria-hidden>{on ? '✓ ' : ''}</span>
            {c}
          </button>
        )
      })}
      <button
        type="button"
        role="checkbox"
        aria-checked={given?.length === 0}
        disabled={locked}
        onClick={() => onGive([])}
        className={`${tile(given?.length === 0)} text-left`}
      >
        None of them
      </button>
    </div>
  )
}

/** Tiles tapped one after another; a laid one tapped goes back. `all`: each is used once and all of them. */
function Laid({ task, given = [], locked, onGive, empty }: Props & { all: boolean; empty: string }) {
  // Two tiles may say the same: each is used as often as it is there.
  const left = [...task.choices]
  for (const g of given) {
    const i = left.indexOf(g)
    if (i >= 0) left.splice(i, 1)
  }
  return (
    <div className="grid gap-3">
      <ol
        aria-label="Laid so far"
        className="flex flex-wrap gap-2 min-h-15 rounded-lg border-2 border-dashed border-hair p-2"
      >
        {given.length === 0 && <li className="self-center text-steel px-1">{empty}</li>}
        {given.map((g, i) => (
          <li key={`${g} ${i}`}>
            <button
              type="button"
              disabled={locked}
              aria-label={`${g}, place ${i + 1}: take it back`}
              onClick={() => onGive(given.toSpliced(i, 1))}
              className={tile(true)}
            >
              {g}
            </button>
          </li>
        ))}
      </ol>
      <div role="group" aria-label="Tiles" className="flex flex-wrap gap-2">
        {left.map((t, i) => (
          <button
            key={`${t} ${i}`}
            type="button"
            disabled={locked}
            aria-label={`Lay ${t}`}
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
function Lines({ task, given = [], locked, onGive, most, words }: Props & { most: number; words: string }) {
  const lines = [...given, ...(given.length < most ? [''] : [])]
  return (
    <div role="group" aria-label={task.prompt} className="grid gap-2">
      {lines.map((line, i) => (
        <input
          // A line keeps its place while it is typed.
          key={i}
          aria-label={`${words}, ${i + 1}`}
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
          className={`${field} text-left px-3`}
        />
      ))}
    </div>
  )
}

function Gaps({ task, given = [], locked, onGive }: Props) {
  /** For each place the gap it is, counted; those that are filled are none. */
  const gaps = task.slots.map((s, i) =>
    s === '' ? task.slots.slice(0, i).filter((x) => x === '').length : null,
  )
  const count = gaps.filter((g) => g !== null).length
  return (
    <ol aria-label={task.prompt} className="flex flex-wrap gap-2">
      {task.slots.map((s, i) => {
        const mine = gaps[i] ?? null
        if (mine === null)
          return (
            <li
              key={i}
              className="min-h-13 min-w-13 rounded-lg bg-wash grid place-items-center font-child text-[22px] px-2"
            >
              {s}
            </li>
          )
        return (
          <li key={i}>
            <input
              aria-label={`Missing number ${mine + 1} of ${count}`}
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
              className={`${field} w-16`}
            />
          </li>
        )
      })}
    </ol>
  )
}

function Share({ task, given, locked, onGive }: Props) {
  const [things = 0, plates = 2] = task.numbers
  const on = Array.from({ length: plates }, (_, i) => Number(given?.[i] ?? 0))
  const left = things - on.reduce((a, b) => a + b, 0)
  const put = (i: number, by: number) => onGive(on.map((n, k) => String(k === i ? n + by : n)))
  return (
    <div className="grid gap-2">
      <p role="status" className="text-[17px]">
        <b className="font-child">{left}</b> still to share
      </p>
      <ul className="grid gap-2">
        {on.map((n, i) => (
          <li key={i} className="flex items-center gap-2 rounded-xl border-2 border-hair p-2">
            <span className="flex-1 min-w-0">
              <span className="text-steel">Plate {i + 1}</span> <b className="font-child text-[22px]">{n}</b>
              <span aria-hidden className="block text-[18px] leading-tight break-all">
                {'●'.repeat(n)}
              </span>
            </span>
            <button
              type="button"
              aria-label={`One off plate ${i + 1}`}
              disabled={locked || n === 0}
              onClick={() => put(i, -1)}
              className={tile(false)}
            >
              −
            </button>
            <button
              type="button"
              aria-label={`One onto plate ${i + 1}`}
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

function Match({ task, given = [], locked, onGive }: Props) {
  return (
    <ul aria-label={task.prompt} className="grid gap-2">
      {task.slots.map((s, i) => (
        <li key={s} className="flex items-center gap-3">
          <b className="font-child text-[20px] min-w-13">{s}</b>
          <select
            aria-label={`Belongs to ${s}`}
            disabled={locked}
            value={given[i] ?? ''}
            onChange={(e) => onGive(task.slots.map((_, k) => (k === i ? e.target.value : (given[k] ?? ''))))}
            className="flex-1 min-w-0 min-h-13 rounded-lg border-2 border-ink bg-card px-2 font-child text-[20px]"
          >
            <option value="">choose</option>
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
