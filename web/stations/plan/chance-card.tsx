import { fieldLook } from '../../kit/field.ts'
import { Card } from '../../kit/card.tsx'
import { named, Select } from '../../kit/select.tsx'
import { scaleBand, scaleLinear } from 'd3-scale'
import { useMemo, useState } from 'react'
import type { Device } from '@awlbox/core/contracts/chance'
import type { Aim, Example } from '@awlbox/core/contracts/lesson'
import {
  cannotCome,
  chanceAbove,
  distribution,
  gameSeconds,
  outcomes,
  rollsFor,
  rollsFrom,
  roundsToMeetAll,
  unreachable,
  usualReading,
} from '@awlbox/core/plan/chance/plan'
import { exampleSentence } from '@awlbox/core/plan/numbers/facts'
import { run } from '@awlbox/core/plan/numbers/names'
import { clockTime } from '@awlbox/core/words'
import { Button } from '../../kit/button.tsx'
import { Notice, WorkBar } from '../../kit/notice.tsx'
import { manyGames, useGames } from './use-games.ts'

const presets: readonly { words: string; device: Device }[] = [
  { words: 'nothing', device: { kind: 'none' } },
  { words: 'a die', device: { kind: 'dice', faces: run(1, 6), dice: 1 } },
  { words: 'two dice', device: { kind: 'dice', faces: run(1, 6), dice: 2 } },
  { words: 'a die 0 to 5', device: { kind: 'dice', faces: run(0, 5), dice: 1 } },
  { words: 'cards', device: { kind: 'cards', numbers: run(1, 10), draws: 1, back: true } },
  {
    words: 'a spinner',
    device: {
      kind: 'spinner',
      parts: [
        { number: 1, share: 3 },
        { number: 2, share: 2 },
        { number: 3, share: 1 },
      ],
      spins: 1,
    },
  },
  { words: 'two digits from a bowl', device: { kind: 'bowl', digits: run(0, 9), draws: 2, back: false } },
]
const percent = (p: number): string => (p >= 0.1 ? `${Math.round(p * 100)} %` : `${(p * 100).toFixed(1)} %`)
const box = `${fieldLook} figures`

/** Where the numbers come from: the exact chances drawn, what can never come, how long a game takes, a million games, a run for filming. */
export function ChanceCard({
  aim,
  examples,
  onChange,
  disabled,
}: {
  aim: Aim
  examples: readonly Example[]
  onChange: (d: Device) => void
  disabled: boolean
}) {
  const d = aim.device
  const chosen = presets.findIndex(
    (p) => p.device.kind === d.kind && JSON.stringify(p.device) === JSON.stringify(d),
  )
  const byKind = chosen >= 0 ? chosen : presets.findIndex((p) => p.device.kind === d.kind)
  return (
    <Card as="section" className="p-4 grid gap-3" aria-label="Chance">
      <label className="flex items-center gap-2 flex-wrap">
        <h2 className="font-bold">Numbers come from</h2>
        <Select
          disabled={disabled}
          value={String(byKind)}
          choices={presets.map((p, i) => ({ value: String(i), words: p.words }))}
          onChange={(i) => onChange(presets[Number(i)]!.device)}
        />
      </label>
      {d.kind !== 'none' && (
        <DeviceDetail d={d} aim={aim} examples={examples} onChange={onChange} disabled={disabled} />
      )}
    </Card>
  )
}

function DeviceDetail({
  d,
  aim,
  examples,
  onChange,
  disabled,
}: {
  d: Exclude<Device, { kind: 'none' }>
  aim: Aim
  examples: readonly Example[]
  onChange: (d: Device) => void
  disabled: boolean
}) {
  const [rounds, setRounds] = useState(5)
  const rule = usualReading(d)
  const bars = useMemo(() => distribution(d, rule), [d, rule])
  const never = useMemo(() => cannotCome(d), [d])
  const meet = useMemo(() => roundsToMeetAll(bars), [bars])
  const missing = useMemo(() => unreachable(d, examples, aim.structure), [d, examples, aim.structure])
  const draws = useMemo(() => outcomes(d)[0]?.numbers.length ?? 1, [d])
  const things = aim.mostThings || 10
  const games = useGames()
  const numbers = (text: string): number[] => (text.match(/\d+/g) ?? []).map(Number)
  return (
    <>
      <div className="flex flex-wrap items-center gap-3">
        {d.kind === 'dice' && (
          <>
            <Numbers
              label="Faces"
              disabled={disabled}
              value={d.faces}
              onDone={(faces) =>
                faces.length >= 2 &&
                faces.length <= 20 &&
                faces.every((f) => f <= 20) &&
                onChange({ ...d, faces })
              }
              read={numbers}
            />
            <Times
              label="Dice"
              disabled={disabled}
              value={d.dice}
              most={3}
              onChange={(dice) => onChange({ ...d, dice })}
            />
          </>
        )}
        {d.kind === 'cards' && (
          <>
            <Numbers
              label="Cards"
              disabled={disabled}
              value={d.numbers}
              onDone={(n) =>
                n.length >= 2 && n.length <= 60 && n.every((x) => x <= 100) && onChange({ ...d, numbers: n })
              }
              read={numbers}
            />
            <Times
              label="Draws"
              disabled={disabled}
              value={d.draws}
              most={Math.min(3, d.numbers.length)}
              onChange={(x) => onChange({ ...d, draws: x })}
            />
            <Back disabled={disabled} value={d.back} onChange={(back) => onChange({ ...d, back })} />
          </>
        )}
        {d.kind === 'bowl' && (
          <>
            <Numbers
              label="Digits"
              disabled={disabled}
              value={d.digits}
              onDone={(n) =>
                n.length >= 2 && n.length <= 20 && n.every((x) => x <= 9) && onChange({ ...d, digits: n })
              }
              read={numbers}
            />
            <Times
              label="Draws"
              disabled={disabled}
              value={d.draws}
              most={2}
              onChange={(x) => onChange({ ...d, draws: x })}
            />
            <Back disabled={disabled} value={d.back} onChange={(back) => onChange({ ...d, back })} />
          </>
        )}
        {d.kind === 'spinner' && (
          <>
            <Numbers
              label="Parts, as number*share"
              disabled={disabled}
              shown={d.parts
                .map((p) => (p.share === 1 ? String(p.number) : `${p.number}*${p.share}`))
                .join(' ')}
              value={[]}
              read={numbers}
              onText={(t) => {
                const parts = t
                  .trim()
                  .split(/[\s,]+/)
                  .map((x) => ({ number: Number(x.split('*')[0]), share: Number(x.split('*')[1] ?? 1) }))
                  .filter(
                    (p) =>
                      Number.isInteger(p.number) &&
                      p.number >= 0 &&
                      p.number <= 100 &&
                      p.share > 0 &&
                      p.share <= 100,
                  )
                if (parts.length >= 2 && parts.length <= 12) onChange({ ...d, parts })
              }}
              onDone={() => undefined}
            />
            <Times
              label="Spins"
              disabled={disabled}
              value={d.spins}
              most={3}
              onChange={(x) => onChange({ ...d, spins: x })}
            />
          </>
        )}
      </div>
      <Bars
        bars={bars}
        played={games.played?.tally ?? null}
        rounds={games.played ? [...games.played.tally.values()].reduce((a, b) => a + b, 0) : 0}
      />
      {never.why.map((w) => (
        <p key={w} className="text-blue">
          {w}
        </p>
      ))}
      {missing.length > 0 && (
        <Notice kind="wrong">
          {missing.map(exampleSentence).join(', ')}:{' '}
          {missing.length === 1 ? 'this example' : 'these examples'} can never come from it.
        </Notice>
      )}
      <p className="figures flex flex-wrap gap-x-4 gap-y-1 items-center">
        <span>
          Every number met after about <b>{Math.round(meet)}</b> rounds
        </span>
        <label>
          A game of{' '}
          <input
            aria-label="Rounds of a game"
            type="number"
            min={1}
            max={50}
            value={rounds}
            onChange={(e) => setRounds(Math.max(1, Math.min(50, Math.round(Number(e.target.value)) || 1)))}
            className={`${box} w-16`}
          />{' '}
          rounds takes about <b>{clockTime(gameSeconds(bars, draws, rounds, rule !== 'tens and ones'))}</b>
        </label>
        {rule !== 'tens and ones' && chanceAbove(bars, things) > 0 && (
          <span className="text-brick">
            {percent(chanceAbove(bars, things))} of rounds ask for more than {things} things
          </span>
        )}
      </p>
      <div className="flex flex-wrap items-center gap-3">
        <Button
          onClick={() => void games.play({ device: d, rule, rounds, longest: 400 })}
          disabled={games.busy}
        >
          Play a million games
        </Button>
        {games.busy && (
          <div className="flex-1 min-w-48">
            <WorkBar
              label={`${games.done.toLocaleString('en-GB')} games played`}
              share={games.done / manyGames}
              onCancel={games.stop}
            />
          </div>
        )}
        {!games.busy && games.played && (
          <span className="text-steel figures" data-games={games.played.games}>
            {games.played.games.toLocaleString('en-GB')} games of {rounds} rounds: outlines show what came
          </span>
        )}
      </div>
      {examples.length > 0 && <Lucky d={d} aim={aim} examples={examples} find={games.lucky} />}
    </>
  )
}

function Lucky({
  d,
  aim,
  examples,
  find,
}: {
  d: Device
  aim: Aim
  examples: readonly Example[]
  find: (d: Device, wanted: readonly (readonly number[])[]) => Promise<number | null>
}) {
  const wanted = useMemo(() => rollsFor(d, examples, aim.structure), [d, examples, aim.structure])
  const [found, setFound] = useState<{ wanted: typeof wanted; seed: number | null } | null>(null)
  const [looking, setLooking] = useState(false)
  const playable = wanted.filter((w) => w !== null)
  const look = async () => {
    setLooking(true)
    setFound({ wanted, seed: playable.length === wanted.length ? await find(d, playable.slice(0, 4)) : null })
    setLooking(false)
  }
  // A run found for other examples or another device says nothing about these.
  const now = found?.wanted === wanted && !looking ? found : null
  const roll = now?.seed ? rollsFrom(d, now.seed) : null
  return (
    <div className="flex flex-wrap items-center gap-3">
      <Button onClick={() => void look()} disabled={looking}>
        {looking ? 'Looking for a run…' : 'Find a run for filming'}
      </Button>
      {now &&
        (roll ? (
          <span className="figures">
            Run {now.seed}: the first rolls are{' '}
            {playable
              .slice(0, 4)
              .map(() => roll().join(' and '))
              .join(', then ')}
            , as the examples want.
          </span>
        ) : (
          <span className="text-brick">
            {playable.length < wanted.length
              ? 'No run gives every example: some can never come.'
              : 'No run was found: roll, and let the script follow what comes.'}
          </span>
        ))}
    </div>
  )
}

/** Exact chances as bars; what a million games gave as an outline over them. */
function Bars({
  bars,
  played,
  rounds,
}: {
  bars: readonly { number: number; chance: number }[]
  played: Map<number, number> | null
  rounds: number
}) {
  const [w, h] = [520, 132]
  const x = scaleBand(
    bars.map((b) => b.number),
    [0, w],
  ).padding(bars.length > 40 ? 0.05 : 0.2)
  const most = Math.max(...bars.map((b) => b.chance), 0.01)
  const y = scaleLinear([0, most * 1.1], [h - 24, 6])
  const every = Math.ceil(bars.length / 20)
  return (
    <svg
      viewBox={`0 0 ${w} ${h}`}
      className="w-full text-ink"
      role="img"
      aria-label={`Chances: ${bars
        .slice(0, 30)
        .map((b) => `${b.number} ${percent(b.chance)}`)
        .join(', ')}`}
    >
      <line x1={0} x2={w} y1={h - 24} y2={h - 24} stroke="currentColor" strokeWidth={1} />
      {bars.map((b, i) => (
        <g key={b.number}>
          <rect
            x={x(b.number)}
            width={x.bandwidth()}
            y={y(b.chance)}
            height={h - 24 - y(b.chance)}
            fill="var(--blue)"
            opacity={0.75}
          >
            <title>{`${b.number}: ${percent(b.chance)}`}</title>
          </rect>
          {played && (
            <rect
              x={(x(b.number) ?? 0) - 1}
              width={x.bandwidth() + 2}
              y={y((played.get(b.number) ?? 0) / rounds)}
              height={h - 24 - y((played.get(b.number) ?? 0) / rounds)}
              fill="none"
              stroke="currentColor"
              strokeWidth={1.6}
            />
          )}
          {i % every === 0 && (
            <text
              x={(x(b.number) ?? 0) + x.bandwidth() / 2}
              y={h - 7}
              textAnchor="middle"
              fontSize={13}
              fill="currentColor"
              fontFamily="Andika"
            >
              {b.number}
            </text>
          )}
          {bars.length <= 13 && (
            <text
              x={(x(b.number) ?? 0) + x.bandwidth() / 2}
              y={y(b.chance) - 3}
              textAnchor="middle"
              fontSize={10.5}
              fill="var(--steel)"
            >
              {percent(b.chance)}
            </text>
          )}
        </g>
      ))}
    </svg>
  )
}

function Numbers({
  label,
  value,
  shown,
  read,
  onDone,
  onText,
  disabled,
}: {
  label: string
  value: readonly number[]
  shown?: string
  read: (t: string) => number[]
  onDone: (n: number[]) => void
  onText?: (t: string) => void
  disabled: boolean
}) {
  const text = shown ?? value.join(' ')
  return (
    <label className="grid gap-0.5 text-sm text-steel flex-1 min-w-40">
      {label}
      <input
        key={text}
        disabled={disabled}
        defaultValue={text}
        onBlur={(e) => (onText ? onText(e.target.value) : onDone(read(e.target.value)))}
        onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
        className={`${box} text-ink text-base`}
      />
    </label>
  )
}
function Times({
  label,
  value,
  most,
  onChange,
  disabled,
}: {
  label: string
  value: number
  most: number
  onChange: (n: number) => void
  disabled: boolean
}) {
  return (
    <label className="grid gap-0.5 text-sm text-steel">
      {label}
      <Select
        className="text-ink text-base"
        disabled={disabled}
        value={String(value)}
        choices={named(run(1, most).map(String))}
        onChange={(n) => onChange(Number(n))}
      />
    </label>
  )
}
function Back({
  value,
  onChange,
  disabled,
}: {
  value: boolean
  onChange: (b: boolean) => void
  disabled: boolean
}) {
  return (
    <label className="flex items-center gap-2 min-h-9 self-end">
      <input
        type="checkbox"
        disabled={disabled}
        checked={value}
        onChange={(e) => onChange(e.target.checked)}
        className="size-4 accent-ink"
      />
      put back
    </label>
  )
}
