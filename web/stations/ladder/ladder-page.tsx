import { issueInWords } from '@awlbox/core/contracts/issue-words'
import { fieldLook } from '../../kit/field.ts'
import { Select } from '../../kit/select.tsx'
import * as nextApi from '@awlbox/core/contracts/api/next'
import * as settingsApi from '@awlbox/core/contracts/api/settings'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { useAsked } from '../../frame/use-asked.ts'
import { useEffect, useMemo, useState } from 'react'
import { Link, useSearchParams } from 'react-router'
import { Idea } from '@awlbox/core/contracts/idea'
import { structures } from '@awlbox/core/contracts/lesson'
import { type ClassLevel, classLevels } from '@awlbox/core/judge/class-level'
import { ask, ProblemError, wordsOf } from '../../api.ts'
import { Head } from '../../frame/head.tsx'
import { Away } from '../../frame/away.tsx'
import { useMe } from '../../frame/me.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { structureWords } from '@awlbox/core/plan/aim-words'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { LadderDrawing } from './ladder-drawing.tsx'

/** The ladder of ideas with a class's standing on it: read it, start a lesson from it, change it, take it along as a table. */
export default function LadderPage() {
  const me = useMe()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const { data, error, mutate } = useAsked(settingsApi.ladder, {})
  const [search, setSearch] = useSearchParams()
  const classId = search.get('class') ?? shelf?.classes[0]?.id ?? ''
  const { data: standing } = useAsked(nextApi.classStanding, classId ? { classId } : null)
  const [editing, setEditing] = useState<Idea | null>(null)
  const [problem, setProblem] = useState<{ words: string; rows: { row: number; what: string }[] } | null>(
    null,
  )
  const picked = search.get('idea')
  useEffect(() => {
    document.title = 'Ladder · Awlbox'
  }, [])
  const levels = useMemo(() => classLevels(standing?.rows ?? []), [standing])
  if (error && !data) return <Away error={error} />
  const ideas = data?.ideas ?? []
  const idea = ideas.find((i) => i.id === picked) ?? null
  const pick = (id: string) =>
    setSearch(
      (s) => {
        s.set('idea', id)
        return s
      },
      { replace: true },
    )
  const save = async (next: Idea[]) => {
    try {
      await ask(settingsApi.saveLadder, {}, { ideas: next })
      setProblem(null)
      setEditing(null)
      await mutate()
    } catch (e) {
      setProblem({ words: wordsOf(e), rows: [] })
    }
  }
  const upload = async (file: File | undefined) => {
    if (!file) return
    try {
      await ask(settingsApi.readLadderCsv, {}, { csv: await file.text() })
      setProblem(null)
      await mutate()
    } catch (e) {
      setProblem({
        words: wordsOf(e),
        rows:
          e instanceof ProblemError && Array.isArray(e.more.errors)
            ? (e.more.errors as { row: number; what: string }[])
            : [],
      })
    }
  }
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={shelf?.classes ?? []} />
      <div className="grid grid-cols-[minmax(0,1fr)_340px] max-lg:grid-cols-1 min-h-[calc(100dvh-98px)]">
        <main className="min-w-0 p-5">
          <div className="flex flex-wrap items-center gap-3 mb-3">
            <h1 className="font-bold text-lg">The ladder</h1>
            <span className="text-steel">{ideas.length} ideas, each after what it needs</span>
            <span className="flex-1" />
            <label className="flex items-center gap-2">
              Standing of{' '}
              <Select
                value={classId}
                choices={(shelf?.classes ?? []).map((c) => ({ value: c.id, words: c.name }))}
                onChange={(id) =>
                  setSearch(
                    (s) => {
                      s.set('class', id)
                      return s
                    },
                    { replace: true },
                  )
                }
              />
            </label>
            <a
              href="/api/ladder.csv"
              download
              className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
            >
              As a table (CSV)
            </a>
            {data?.mayChange && (
              <label className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash cursor-pointer">
                Take over a table
                <input
                  type="file"
                  accept=".csv,text/csv"
                  className="sr-only"
                  onChange={(e) => {
                    void upload(e.target.files?.[0])
                    e.target.value = ''
                  }}
                />
              </label>
            )}
          </div>
          {problem && (
            <div className="mb-3">
              <Notice kind="wrong">
                {problem.words}
                {problem.rows.length > 0 && (
                  <ul className="mt-1">
                    {problem.rows.slice(0, 12).map((r, i) => (
                      <li key={i}>
                        Row {r.row}: {r.what}
                      </li>
                    ))}
                  </ul>
                )}
              </Notice>
            </div>
          )}
          {data && <LadderDrawing ideas={ideas} levels={levels} picked={picked} onPick={pick} />}
        </main>
        <aside className="bg-card border-l border-hair p-5">
          {editing ? (
            <IdeaForm
              idea={editing}
              ideas={ideas}
              onCancel={() => setEditing(null)}
              onSave={(next) =>
                void save(
                  ideas.some((i) => i.id === next.id)
                    ? ideas.map((i) => (i.id === next.id ? next : i))
                    : [...ideas, next],
                )
              }
              onRemove={
                ideas.some((i) => i.id === editing.id)
                  ? () =>
                      void save(
                        ideas
                          .filter((i) => i.id !== editing.id)
                          .map((i) => ({ ...i, after: i.after.filter((a) => a !== editing.id) })),
                      )
                  : null
              }
            />
          ) : idea ? (
            <IdeaPanel
              idea={idea}
              ideas={ideas}
              level={levels.get(idea.id)}
              onPick={pick}
              classId={classId}
              onEdit={data?.mayChange ? () => setEditing(idea) : null}
            />
          ) : (
            <p className="text-steel">
              Choose an idea to see what comes before it, what counts as having seen it, and who of the class
              stands where.
            </p>
          )}
          {data?.mayChange && !editing && (
            <div className="mt-5">
              <Button
                onClick={() =>
                  setEditing({
                    id: `idea-${ideas.length + 1}`,
                    name: '',
                    structure: null,
                    least: 0,
                    upTo: 10,
                    ages: [4, 6],
                    after: idea ? [idea.id] : [],
                    evidence: '',
                    misconceptions: [],
                    codes: [],
                  })
                }
              >
                Add an idea
              </Button>
            </div>
          )}
          {data && !data.mayChange && (
            <p className="mt-5 text-sm text-steel">The owner of the setting can change the ladder.</p>
          )}
        </aside>
      </div>
    </>
  )
}

function IdeaPanel({
  idea,
  ideas,
  level,
  onPick,
  classId,
  onEdit,
}: {
  idea: Idea
  ideas: readonly Idea[]
  level: ClassLevel | undefined
  onPick: (id: string) => void
  classId: string
  onEdit: (() => void) | null
}) {
  const before = ideas.filter((i) => idea.after.includes(i.id))
  const next = ideas.filter((i) => i.after.includes(idea.id))
  const links = (list: readonly Idea[]) =>
    list.map((i) => (
      <button
        key={i.id}
        type="button"
        onClick={() => onPick(i.id)}
        className="block text-left min-h-8 underline decoration-hair underline-offset-4 hover:decoration-ink cursor-pointer"
      >
        {i.name}
      </button>
    ))
  return (
    <div className="grid gap-3">
      <h2 className="font-bold text-lg">{idea.name}</h2>
      <p className="text-steel">
        {idea.structure ? structureWords[idea.structure] : 'counting and numbers'} · to {idea.upTo} · often at{' '}
        {idea.ages[0]} to {idea.ages[1]}
        {idea.codes.length > 0 ? ` · ${idea.codes.join(', ')}` : ''}
      </p>
      {level && (
        <p>
          {level.seen === 0 ? (
            'Nobody of this class has been seen on it yet.'
          ) : (
            <>
              <b className="figures">
                {level.secure} of {level.children}
              </b>{' '}
              secure, {level.seen - level.secure} on the way, {level.children - level.seen} not seen.
              {level.onTheWay.length > 0 && (
                <span className="block text-sm text-steel">On the way: {level.onTheWay.join(', ')}</span>
              )}
            </>
          )}
        </p>
      )}
      {idea.evidence && (
        <div>
          <h3 className="font-semibold">Seen when a child</h3>
          <p>{idea.evidence}</p>
        </div>
      )}
      {idea.misconceptions.length > 0 && (
        <div>
          <h3 className="font-semibold">Often met</h3>
          <ul className="list-disc pl-5">
            {idea.misconceptions.map((m) => (
              <li key={m}>{m}</li>
            ))}
          </ul>
        </div>
      )}
      {before.length > 0 && (
        <div>
          <h3 className="font-semibold">Comes after</h3>
          {links(before)}
        </div>
      )}
      {next.length > 0 && (
        <div>
          <h3 className="font-semibold">Leads to</h3>
          {links(next)}
        </div>
      )}
      <div className="flex gap-2 flex-wrap">
        <Link
          to={`/plan?idea=${idea.id}&class=${classId}`}
          className="inline-flex min-h-10 items-center rounded-lg bg-moss px-3.5 font-semibold text-on-moss"
        >
          Plan a lesson from it
        </Link>
        {onEdit && <Button onClick={onEdit}>Change</Button>}
      </div>
    </div>
  )
}

function IdeaForm({
  idea,
  ideas,
  onSave,
  onCancel,
  onRemove,
}: {
  idea: Idea
  ideas: readonly Idea[]
  onSave: (i: Idea) => void
  onCancel: () => void
  onRemove: (() => void) | null
}) {
  const [v, setV] = useState(idea)
  const parsed = Idea.safeParse(v)
  const box = `${fieldLook} w-full`
  const set = (change: Partial<Idea>) => setV({ ...v, ...change })
  const list = (text: string) =>
    text
      .split('\n')
      .map((x) => x.trim())
      .filter(Boolean)
  const isNew = !ideas.some((i) => i.id === idea.id)
  return (
    <form
      className="grid gap-2.5"
      onSubmit={(e) => {
        e.preventDefault()
        if (parsed.success) onSave(parsed.data)
      }}
    >
      <h2 className="font-bold text-lg">{isNew ? 'A new idea' : 'Change the idea'}</h2>
      {isNew && (
        <label className="grid gap-0.5 text-sm">
          Short name for files
          <input
            className={box}
            value={v.id}
            maxLength={40}
            onChange={(e) => set({ id: e.target.value.toLowerCase().replace(/[^a-z0-9-]/g, '-') })}
          />
        </label>
      )}
      <label className="grid gap-0.5 text-sm">
        Name
        <input
          className={box}
          value={v.name}
          maxLength={80}
          onChange={(e) => set({ name: e.target.value })}
        />
      </label>
      <label className="grid gap-0.5 text-sm">
        Examples are made of
        <Select
          className="w-full"
          value={v.structure ?? 'none'}
          choices={[
            { value: 'none', words: 'none of ours' },
            ...structures.map((s) => ({ value: s, words: structureWords[s] })),
          ]}
          onChange={(s) => set({ structure: s === 'none' ? null : s })}
        />
      </label>
      <div className="grid grid-cols-4 gap-2">
        {(
          [
            ['From', v.least, (n: number) => set({ least: n })],
            ['To', v.upTo, (n: number) => set({ upTo: n })],
            ['Age', v.ages[0], (n: number) => set({ ages: [n, v.ages[1]] })],
            ['to', v.ages[1], (n: number) => set({ ages: [v.ages[0], n] })],
          ] as const
        ).map(([label, n, change]) => (
          <label key={label} className="grid gap-0.5 text-sm">
            {label}
            <input
              type="number"
              className={`${box} figures`}
              value={n}
              onChange={(e) => change(Math.round(Number(e.target.value)))}
            />
          </label>
        ))}
      </div>
      <fieldset className="grid gap-0.5 text-sm">
        <legend>Comes after</legend>
        <div className="max-h-40 overflow-auto rounded-lg border border-hair bg-card px-2.5 py-1">
          {ideas
            .filter((i) => i.id !== v.id)
            .map((i) => {
              const on = v.after.includes(i.id)
              return (
                <label key={i.id} className="flex items-center gap-2 min-h-8">
                  <input
                    type="checkbox"
                    className="size-4 accent-ink"
                    checked={on}
                    disabled={!on && v.after.length >= 6}
                    onChange={() =>
                      set({ after: on ? v.after.filter((x) => x !== i.id) : [...v.after, i.id] })
                    }
                  />
                  {i.name}
                </label>
              )
            })}
        </div>
      </fieldset>
      <label className="grid gap-0.5 text-sm">
        Seen when a child
        <textarea
          rows={2}
          className={`${box} py-1.5`}
          value={v.evidence}
          maxLength={300}
          onChange={(e) => set({ evidence: e.target.value })}
        />
      </label>
      <label className="grid gap-0.5 text-sm">
        Misconceptions, one a line
        <textarea
          rows={3}
          className={`${box} py-1.5`}
          value={v.misconceptions.join('\n')}
          onChange={(e) => set({ misconceptions: e.target.value.split('\n').slice(0, 8) })}
          onBlur={(e) => set({ misconceptions: list(e.target.value) })}
        />
      </label>
      <label className="grid gap-0.5 text-sm">
        Your statement codes, one a line
        <textarea
          rows={2}
          className={`${box} py-1.5`}
          value={v.codes.join('\n')}
          onChange={(e) => set({ codes: e.target.value.split('\n').slice(0, 10) })}
          onBlur={(e) => set({ codes: list(e.target.value) })}
        />
      </label>
      {!parsed.success && <p className="text-sm text-brick">{issueInWords(parsed.error.issues[0])}</p>}
      <div className="flex flex-wrap gap-2">
        <Button look="main" type="submit" disabled={!parsed.success}>
          Keep it
        </Button>
        <Button onClick={onCancel}>Leave it</Button>
        {onRemove && (
          <Button look="wrong" onClick={onRemove}>
            Take it off the ladder
          </Button>
        )}
      </div>
    </form>
  )
}
