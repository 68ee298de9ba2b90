import { fieldLook } from '../../kit/field.ts'
import { named, Select } from '../../kit/select.tsx'
import { arcWords, structureWords } from '@awlbox/core/plan/aim-words'
import { useIdeas } from '../../frame/ideas.ts'
import type { Idea } from '@awlbox/core/contracts/idea'
import {
  type Aim,
  type Arc,
  arcs,
  type Story,
  type Structure,
  structures,
} from '@awlbox/core/contracts/lesson'
import { countsThings, kindsFor } from '@awlbox/core/plan/candidates'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { aimOfIdea, rangeOf } from '@awlbox/core/plan/aim'
import { kindWords } from '@awlbox/core/plan/only'
import { useMe } from '../../frame/me.ts'
import { defaultHouseStyle, type HouseStyle } from '@awlbox/core/contracts/house-style'

const box = `${fieldLook} font-semibold`
const wishWords: readonly { key: Aim['mustHave'][number]; words: string; for: (s: Structure) => boolean }[] =
  [
    {
      key: 'double',
      words: 'a double',
      for: (s) => ['parts', 'add', 'take-away', 'missing', 'tens'].includes(s),
    },
    { key: 'turn-round', words: 'a turn-round pair', for: (s) => ['parts', 'add', 'missing'].includes(s) },
    {
      key: 'zero',
      words: 'zero',
      for: (s) => !['count-on', 'teens', 'tens', 'order', 'round-back'].includes(s),
    },
    {
      key: 'crosses ten',
      words: 'crossing ten',
      for: (s) => ['add', 'take-away', 'tens', 'round-back'].includes(s),
    },
    { key: 'leftover', words: 'something left over', for: (s) => s === 'share' || s === 'halves' },
  ]
export interface AimChoice {
  ideaId: string
  age: number
  aim: Aim
  arc?: Arc
  story?: Story
}

const clampTo = (n: number, [low, high]: readonly [number, number]): number =>
  Math.max(low, Math.min(high, Math.round(n) || low))

/** What an idea of the ladder asks for, as an aim to start from; how many examples and which device stay. */
export function choiceFor(idea: Idea, age: number, aim: Aim, style: HouseStyle): AimChoice {
  return {
    ideaId: idea.id,
    age: Math.max(3, Math.min(7, Math.max(idea.ages[0], Math.min(idea.ages[1], age)))),
    aim: aimOfIdea(
      idea,
      { zero: style.zeroIsPart, turnRounds: style.turnRoundsCount },
      { count: 4, device: aim.device, mostThings: aim.mostThings, among: aim.among },
    ),
  }
}

/** The aim as sentences to complete. */
export function AimEditor({
  value,
  onChange,
  disabled,
}: {
  value: AimChoice
  onChange: (v: AimChoice) => void
  disabled?: boolean
}) {
  const { ideaId, age, aim } = value
  const ideas = useIdeas()
  const style = useMe()?.houseStyle ?? defaultHouseStyle
  const setAim = (change: Partial<Aim>) => onChange({ ...value, aim: { ...aim, ...change } })
  const range = rangeOf(aim.structure)
  const kinds = kindsFor(aim)
  const number = (
    label: string,
    n: number,
    [low, high]: readonly [number, number],
    set: (n: number) => void,
  ) => (
    <input
      key={label}
      aria-label={label}
      type="number"
      min={low}
      max={high}
      className={`${box} w-[72px] figures`}
      value={n}
      onChange={(e) => set(clampTo(Number(e.target.value), [low, high]))}
    />
  )
  const known = ideaById(ideaId, ideas)
  return (
    <fieldset disabled={disabled} className="grid gap-3 min-w-0">
      <p className="flex flex-wrap items-center gap-2">
        The idea is{' '}
        <Select
          label="Idea"
          value={ideaId}
          choices={[...(known ? [] : named([ideaId])), ...ideas.map((i) => ({ value: i.id, words: i.name }))]}
          onChange={(id) => {
            const idea = ideaById(id, ideas)
            if (idea) onChange({ ...value, ...choiceFor(idea, age, aim, style) })
          }}
        />
        for age{' '}
        <Select
          label="Age"
          value={String(age)}
          choices={named(['3', '4', '5', '6', '7'])}
          onChange={(n) => onChange({ ...value, age: Number(n) })}
        />
        ,
      </p>
      <p className="flex flex-wrap items-center gap-2">
        with{' '}
        <Select
          label="Made of"
          value={aim.structure}
          choices={structures.map((s) => ({ value: s, words: structureWords[s] }))}
          onChange={(structure) =>
            onChange({
              ...value,
              aim: {
                ...aim,
                structure,
                upTo: clampTo(aim.upTo, rangeOf(structure)),
                only: 'any',
                mustHave: aim.mustHave.filter((w) => wishWords.find((x) => x.key === w)!.for(structure)),
              },
            })
          }
        />
        {aim.structure === 'parts' ? 'the whole is' : 'numbers go up to'}
        {number(aim.structure === 'parts' ? 'The whole' : 'Largest number', aim.upTo, range, (upTo) =>
          setAim({ upTo, least: Math.min(aim.least, upTo) }),
        )}
        {aim.structure !== 'parts' && (
          <>
            from{' '}
            {number('Smallest number', aim.least, [0, Math.min(99, aim.upTo)], (least) => setAim({ least }))}
          </>
        )}
        {aim.structure === 'share' && (
          <>among {number('Shared among', aim.among, [2, 6], (among) => setAim({ among }))}</>
        )}
        shown in {number('How many examples', aim.count, [1, 12], (count) => setAim({ count }))} examples.
      </p>
      {kinds.length > 1 && (
        <p className="flex flex-wrap items-center gap-2">
          Of these,{' '}
          <Select
            label="Which facts"
            value={aim.only}
            choices={kinds.map((k) => ({ value: k, words: kindWords[k] }))}
            onChange={(only) => setAim({ only })}
          />
          .
        </p>
      )}
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="The set must hold">
        <span>Among them</span>
        {wishWords
          .filter((w) => w.for(aim.structure))
          .map(({ key, words }) => {
            const on = aim.mustHave.includes(key)
            return (
              <button
                key={key}
                type="button"
                aria-pressed={on}
                onClick={() =>
                  setAim({ mustHave: on ? aim.mustHave.filter((w) => w !== key) : [...aim.mustHave, key] })
                }
                className={`min-h-10 rounded-full border px-3.5 cursor-pointer ${on ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
              >
                {words}
              </button>
            )
          })}
        {aim.structure !== 'parts' && aim.structure !== 'numbers' && (
          <button
            type="button"
            aria-pressed={aim.noRepeatedTotal}
            onClick={() => setAim({ noRepeatedTotal: !aim.noRepeatedTotal })}
            className={`min-h-10 rounded-full border px-3.5 cursor-pointer ${aim.noRepeatedTotal ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
          >
            no total twice
          </button>
        )}
      </div>
      <p className="flex flex-wrap items-center gap-2">
        {countsThings(aim.structure) && (
          <>
            Out at once,{' '}
            <Select
              label="How many things out at once"
              value={aim.mostThings === 0 ? 'any' : 'most'}
              choices={[
                { value: 'any', words: 'as many things as it takes' },
                { value: 'most', words: 'at most' },
              ]}
              onChange={(how) => setAim({ mostThings: how === 'any' ? 0 : 10 })}
            />{' '}
            {aim.mostThings > 0 && (
              <>
                {number('Most things out at once', aim.mostThings, [1, 100], (mostThings) =>
                  setAim({ mostThings }),
                )}{' '}
                things
              </>
            )}
            .{' '}
          </>
        )}
        {value.arc && (
          <>
            The lesson goes{' '}
            <Select
              label="Arc of the lesson"
              value={value.arc}
              choices={arcs.map((a) => ({ value: a, words: arcWords[a] }))}
              onChange={(arc) => onChange({ ...value, arc })}
            />
            .
          </>
        )}
      </p>
      {value.story && <StoryFields story={value.story} onChange={(story) => onChange({ ...value, story })} />}
      {known?.evidence && (
        <p className="text-sm text-steel">
          Seen when a child {known.evidence[0]!.toLowerCase()}
          {known.evidence.slice(1)}
          {known.misconceptions.length > 0 && ` Often met: ${known.misconceptions.join('; ')}.`}
        </p>
      )}
    </fieldset>
  )
}

function StoryFields({ story, onChange }: { story: Story; onChange: (s: Story) => void }) {
  const field = (label: string, key: keyof Story, width: string) => (
    <input
      aria-label={label}
      className={`${box} ${width}`}
      maxLength={40}
      value={story[key]}
      onChange={(e) => onChange({ ...story, [key]: e.target.value })}
    />
  )
  return (
    <p className="flex flex-wrap items-center gap-2">
      In the story {field('Who', 'who', 'w-24')} has one {field('One thing', 'thing', 'w-24')} or several{' '}
      {field('Several things', 'things', 'w-24')} for {field('Where they go', 'place', 'w-44')}
    </p>
  )
}
