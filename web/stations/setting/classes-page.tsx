import { useEffect, useState } from 'react'
import { Link } from 'react-router'
import { useSWRConfig } from 'swr'
import type { ClassOfSetting } from '@awlbox/core/contracts/api/classes'
import * as classesApi from '@awlbox/core/contracts/api/classes'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { longDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { DateField } from '../../kit/date-field.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'
import { NewYear } from './new-year.tsx'

const ages = ['3', '4', '5', '6', '7'] as const

/** Classes: who teaches and covers them, closed ones, and a new school year. */
export default function ClassesPage() {
  const { data, error, mutate } = useAsked(classesApi.classes, {})
  const { mutate: refresh } = useSWRConfig()
  const [problem, setProblem] = useState<string | null>(null)
  const [told, setTold] = useState<string | null>(null)
  const [year, setYear] = useState(false)
  useEffect(() => {
    document.title = 'Classes · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  const act = async <T,>(work: () => Promise<T>): Promise<T | undefined> => {
    setProblem(null)
    try {
      const done = await work()
      await refresh(() => true)
      return done
    } catch (e) {
      setProblem(wordsOf(e))
      await mutate()
      return undefined
    }
  }
  const open = data?.classes.filter((c) => !c.closedAt) ?? []
  const last = data?.year
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-4 content-start max-w-5xl">
        <div className="flex flex-wrap items-center gap-3">
          <h1 className="font-bold text-lg">Classes</h1>
          <span className="flex-1" />
          {data?.mayChange && open.length > 0 && !year && (
            <Button look="main" onClick={() => setYear(true)}>
              New school year
            </Button>
          )}
        </div>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        {told && <Notice kind="info">{told}</Notice>}
        {last?.undoUntil && !year && (
          <LastYear
            year={last}
            until={last.undoUntil}
            mayChange={data?.mayChange ?? false}
            onBack={() =>
              void act(() => ask(classesApi.undoYear, { yearId: last.id })).then(
                (r) =>
                  r &&
                  setTold(
                    `${r.back} ${r.back === 1 ? 'child is' : 'children are'} back where they were${r.elsewhere ? `; ${r.elsewhere} had been moved since and stay` : ''}.`,
                  ),
              )
            }
          />
        )}
        {year && data ? (
          <NewYear
            classes={open}
            keptAfterLeaving={data.keptAfterLeaving}
            onClose={() => setYear(false)}
            onTurn={async (moves) => {
              if (await act(() => ask(classesApi.turnYear, {}, { moves }))) setYear(false)
            }}
          />
        ) : (
          data && <ClassList data={data} act={act} />
        )}
      </main>
    </>
  )
}

type Act = (work: () => Promise<unknown>) => void

type Acting = <T>(work: () => Promise<T>) => Promise<T | undefined>

function ClassList({ data, act }: { data: classesApi.ClassList; act: Acting }) {
  const open = data.classes.filter((c) => !c.closedAt)
  const quiet: Act = (work) => void act(work)
  return (
    <>
      {open.length === 0 && (
        <Empty>
          <p>No class is open. Make one below: a name, an age, and who teaches it.</p>
        </Empty>
      )}
      {open.map((c) => (
        <ClassCard key={c.id} cls={c} people={data.people} mayChange={data.mayChange} act={quiet} />
      ))}
      {data.mayChange && <NewClass people={data.people} act={act} />}
      <Closed classes={data.classes.filter((c) => c.closedAt)} mayChange={data.mayChange} act={quiet} />
      <Left data={data} open={open} act={quiet} />
    </>
  )
}

function LastYear({
  year,
  until,
  mayChange,
  onBack,
}: {
  year: classesApi.Year
  until: string
  mayChange: boolean
  onBack: () => void
}) {
  return (
    <Notice
      kind="info"
      action={
        mayChange && (
          <Button small onClick={onBack}>
            Take it back
          </Button>
        )
      }
    >
      New school year on {longDay(year.at)} by {year.by}: {year.moved} moved up, {year.left} left. It can be
      taken back until {longDay(until)}.
    </Notice>
  )
}

function Closed({
  classes,
  mayChange,
  act,
}: {
  classes: readonly ClassOfSetting[]
  mayChange: boolean
  act: Act
}) {
  if (!classes.length) return null
  return (
    <Card as="section" aria-label="Closed classes" className="p-4 grid gap-2">
      <h2 className="font-bold">Closed</h2>
      {classes.map((c) => (
        <p key={c.id} className="flex flex-wrap items-center gap-3">
          <b>{c.name}</b>
          <span className="text-steel figures">
            closed {longDay(c.closedAt!)} · {c.lessons} lessons · {c.children.length} children
          </span>
          {mayChange && (
            <Button
              small
              onClick={() => act(() => ask(classesApi.saveClass, { classId: c.id }, { closed: false }))}
            >
              Open again
            </Button>
          )}
        </p>
      ))}
    </Card>
  )
}

function Left({
  data,
  open,
  act,
}: {
  data: classesApi.ClassList
  open: readonly ClassOfSetting[]
  act: Act
}) {
  if (!data.left.length) return null
  return (
    <Card as="section" aria-label="Children who left" className="p-4 grid gap-2">
      <h2 className="font-bold">Left</h2>
      <p className="text-steel text-sm">
        What they did is kept{' '}
        {data.keptAfterLeaving === null
          ? 'until somebody deletes it.'
          : `for ${data.keptAfterLeaving} days after they left, then it goes by itself.`}
      </p>
      {data.left.map((c) => (
        <p key={c.id} className="flex flex-wrap items-center gap-3">
          <Link to={`/children/${c.id}`} className="font-semibold underline underline-offset-4">
            {c.name}
          </Link>
          <span className="text-steel figures">
            {c.className}, {longDay(c.leftAt)}
          </span>
          {data.mayChange && open.length > 0 && (
            <Select
              label={`Bring ${c.name} back to`}
              look="small"
              value=""
              hint="Comes back to…"
              choices={open.map((o) => ({ value: o.id, words: o.name }))}
              onChange={(classId) => act(() => ask(homesApi.moveChild, { childId: c.id }, { classId }))}
            />
          )}
        </p>
      ))}
    </Card>
  )
}

function ClassCard({
  cls,
  people,
  mayChange,
  act,
}: {
  cls: ClassOfSetting
  people: readonly { id: string; name: string }[]
  mayChange: boolean
  act: Act
}) {
  const [covering, setCovering] = useState(false)
  const [sure, setSure] = useState(false)
  const save = (change: Parameters<typeof ask<typeof classesApi.saveClass>>[2]) =>
    act(() => ask(classesApi.saveClass, { classId: cls.id }, change))
  return (
    <Card as="section" aria-label={cls.name} className="p-4 grid gap-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        {mayChange ? (
          <input
            key={cls.name}
            aria-label="Name of the class"
            defaultValue={cls.name}
            maxLength={40}
            onBlur={(e) => {
              const name = e.target.value.trim()
              if (name && name !== cls.name) save({ name })
              else e.target.value = cls.name
            }}
            onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
            className="font-bold text-lg w-44 min-h-10 rounded-lg border border-transparent hover:border-hair focus:border-hair bg-transparent px-1.5 -ml-1.5"
          />
        ) : (
          <h2 className="font-bold text-lg">{cls.name}</h2>
        )}
        <span className="flex items-center gap-1.5">
          aged
          <Select
            label={`Age of ${cls.name}`}
            look="small"
            value={String(cls.age) as (typeof ages)[number]}
            disabled={!mayChange}
            choices={ages.map((a) => ({ value: a, words: `${a} to ${Number(a) + 1}` }))}
            onChange={(a) => save({ age: Number(a) })}
          />
        </span>
        <span className="flex items-center gap-1.5">
          with
          <Select
            label={`Teacher of ${cls.name}`}
            look="small"
            value={cls.teacherId}
            disabled={!mayChange}
            choices={people.map((p) => ({ value: p.id, words: p.name }))}
            onChange={(teacherId) => save({ teacherId })}
          />
        </span>
        <span className="text-steel figures">
          {cls.children.length} {cls.children.length === 1 ? 'child' : 'children'} · {cls.lessons}{' '}
          {cls.lessons === 1 ? 'lesson' : 'lessons'}
        </span>
        <span className="flex-1" />
        {mayChange && !covering && (
          <Button small onClick={() => setCovering(true)}>
            Cover for some days
          </Button>
        )}
        {mayChange && (
          <Button
            small
            look={sure ? 'wrong' : 'quiet'}
            onClick={() => (sure ? save({ closed: true }) : setSure(true))}
          >
            {sure ? `Close ${cls.name}` : 'Close…'}
          </Button>
        )}
      </div>
      {sure && (
        <p className="text-sm">
          A closed class is on no page but this one; its lessons, children and replies stay, and it can be
          opened again.{' '}
          <button type="button" className="underline cursor-pointer" onClick={() => setSure(false)}>
            Leave it open
          </button>
        </p>
      )}
      <p className="text-steel">
        {cls.children.length
          ? cls.children.map((c) => c.name).join(', ')
          : 'No child yet: add the first on the page Homes.'}
      </p>
      {cls.covers.map((v) => (
        <p key={v.id} className="flex flex-wrap items-center gap-2">
          <span className="figures">
            {v.person} has it from {longDay(v.from)} to {longDay(v.until)}
          </span>
          {mayChange && (
            <Button small look="quiet" onClick={() => act(() => ask(classesApi.endCover, { coverId: v.id }))}>
              Take back
            </Button>
          )}
        </p>
      ))}
      {covering && (
        <Covering
          people={people.filter((p) => p.id !== cls.teacherId)}
          onClose={() => setCovering(false)}
          onCover={(cover) => {
            setCovering(false)
            act(() => ask(classesApi.addCover, { classId: cls.id }, cover))
          }}
        />
      )}
    </Card>
  )
}

function Covering({
  people,
  onClose,
  onCover,
}: {
  people: readonly { id: string; name: string }[]
  onClose: () => void
  onCover: (cover: { personId: string; from: string; until: string }) => void
}) {
  const today = new Date().toLocaleDateString('sv')
  const [personId, setPerson] = useState('')
  const [from, setFrom] = useState(today)
  const [until, setUntil] = useState(today)
  if (!people.length)
    return <p className="text-steel">Nobody else works here yet: invite a colleague on the page People.</p>
  return (
    <div className="flex flex-wrap items-center gap-2">
      <Select
        label="Who covers"
        value={personId}
        hint="Who covers"
        choices={people.map((p) => ({ value: p.id, words: p.name }))}
        onChange={setPerson}
      />
      <span>from</span>
      <DateField label="First day" value={from} required onChange={setFrom} className="w-40" />
      <span>to</span>
      <DateField label="Last day" value={until} required onChange={setUntil} className="w-40" />
      <Button
        look="act"
        disabled={!personId || until < from}
        onClick={() => onCover({ personId, from, until })}
      >
        Give them the class
      </Button>
      <Button look="quiet" onClick={onClose}>
        Leave it
      </Button>
      <span className="text-sm text-steel basis-full">
        On these days they can do what its teacher can; it ends by itself.
      </span>
    </div>
  )
}

function NewClass({ people, act }: { people: readonly { id: string; name: string }[]; act: Acting }) {
  const [name, setName] = useState('')
  const [age, setAge] = useState<(typeof ages)[number]>('4')
  const [teacherId, setTeacher] = useState(people[0]?.id ?? '')
  return (
    <form
      className="flex flex-wrap items-center gap-2 rounded-xl border border-dashed border-hair p-4"
      onSubmit={(e) => {
        e.preventDefault()
        void act(() => ask(classesApi.makeClass, {}, { name, age: Number(age), teacherId })).then(
          (made) => made && setName(''),
        )
      }}
    >
      <input
        aria-label="Name of a new class"
        placeholder="New class"
        value={name}
        maxLength={40}
        required
        onChange={(e) => setName(e.target.value)}
        className={`${fieldLook} w-44`}
      />
      <Select
        label="Age of the new class"
        value={age}
        choices={ages.map((a) => ({ value: a, words: `${a} to ${Number(a) + 1}` }))}
        onChange={setAge}
      />
      <Select
        label="Teacher of the new class"
        value={teacherId}
        choices={people.map((p) => ({ value: p.id, words: p.name }))}
        onChange={setTeacher}
      />
      <Button look="act" type="submit" disabled={!name.trim() || !teacherId}>
        Make it
      </Button>
    </form>
  )
}
