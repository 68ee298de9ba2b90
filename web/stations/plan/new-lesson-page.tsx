import { fieldLook } from '../../kit/field.ts'
import { Card } from '../../kit/card.tsx'
import { Select } from '../../kit/select.tsx'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { Idea } from '@awlbox/core/contracts/idea'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { useAsked } from '../../frame/use-asked.ts'
import { addDays, formatISO } from 'date-fns'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate, useSearchParams } from 'react-router'
import { defaultStory, type Story } from '@awlbox/core/contracts/lesson'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { timeLesson } from '@awlbox/core/script/time'
import { workRates } from '@awlbox/core/next/minutes'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { Head } from '../../frame/head.tsx'
import { useMe } from '../../frame/me.ts'
import { newId } from '../../frame/new-id.ts'
import { minutesText } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { useIdeas } from '../../frame/ideas.ts'
import { AimEditor, type AimChoice, choiceFor } from './aim-editor.tsx'
import { ChanceCard } from './chance-card.tsx'
import { DateField } from '../../kit/date-field.tsx'
import { CoverageGrid } from './coverage-grid.tsx'
import { HomesAble } from './homes-able.tsx'
import { ImportDialog } from './import-dialog.tsx'
import { SetChooser, SharedFacts } from './example-sets.tsx'
import { needed } from '@awlbox/core/script/stock'
import { ThingsList } from './things-list.tsx'
import { useSets } from './use-sets.ts'

const first: AimChoice = {
  ideaId: 'parts-7',
  age: 4,
  aim: aimOf({ structure: 'parts', upTo: 7, mustHave: ['turn-round'] }),
  arc: 'show-together-alone',
  story: defaultStory,
}

export default function NewLessonPage() {
  const me = useMe()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const ideas = useIdeas()
  const [search] = useSearchParams()
  const asked = ideaById(search.get('idea') ?? '', ideas)
  const [changed, setValue] = useState<AimChoice | null>(null)
  const start = useMemo(
    (): AimChoice => ({
      ...(asked ? choiceFor(asked, 4, first.aim, me?.houseStyle ?? defaultHouseStyle) : first),
      arc: me?.houseStyle.arc ?? 'show-together-alone',
      story: defaultStory,
    }),
    [asked, me],
  )
  const value = changed ?? start
  const [importing, setImporting] = useState(false)
  const [title, setTitle] = useState('')
  const [classId, setClassId] = useState(search.get('class') ?? '')
  const [day, setDay] = useState(() => formatISO(addDays(new Date(), 2), { representation: 'date' }))
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const navigate = useNavigate()
  // Until the house's own is fetched, the one everybody starts from.
  const style = me?.houseStyle ?? defaultHouseStyle
  const { result, chosen, choose, again, actions, examples, said } = useSets(value, style)
  const name = title.trim() || suggested(value, ideas)
  const lesson = useMemo(
    () =>
      examples && me && storyIsWhole(value.story)
        ? fromTemplate({
            title: name,
            ...value,
            examples,
            style: me.houseStyle,
            sets: result.ok ? result.sets.map((s) => s.examples) : [],
            newId,
          })
        : null,
    [examples, me, name, value, result],
  )
  const time = useMemo(() => lesson && timeLesson(lesson, style, undefined, me?.pace), [lesson, style, me])
  const cls = classId || shelf?.classes[0]?.id || ''
  useEffect(() => {
    document.title = 'Plan a lesson · Awlbox'
  }, [])
  const make = async () => {
    if (!lesson) return
    setBusy(true)
    setProblem(null)
    try {
      const { id } = await ask(lessonsApi.makeLesson, { classId: cls }, { day, doc: lesson })
      void navigate(`/lessons/${id}/script`)
    } catch (error) {
      setProblem(wordsOf(error))
      setBusy(false)
    }
  }
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={shelf?.classes ?? []} />
      <div className="grid grid-cols-[minmax(340px,40%)_minmax(0,1fr)] max-lg:grid-cols-1 gap-5 p-5">
        <section className="grid gap-4 content-start">
          <Card className="p-4">
            <div className="flex justify-between gap-3 mb-3">
              <h1 className="font-bold text-lg">What is the one idea?</h1>
              <Button small onClick={() => setImporting(true)}>
                From your notes…
              </Button>
            </div>
            <AimEditor value={value} onChange={setValue} />
          </Card>
          <Card className="p-4 grid gap-3">
            <label className="grid gap-1">
              <span className="font-semibold">Title</span>
              <input
                className={fieldLook}
                value={title}
                maxLength={120}
                placeholder={suggested(value, ideas)}
                onChange={(e) => setTitle(e.target.value)}
              />
            </label>
            <div className="flex gap-3 flex-wrap">
              <label className="grid gap-1 flex-1">
                <span className="font-semibold">Class</span>
                <Select
                  value={cls}
                  choices={(shelf?.classes ?? []).map((c) => ({ value: c.id, words: c.name }))}
                  onChange={setClassId}
                />
              </label>
              <div className="grid gap-1">
                <span className="font-semibold">Goes out</span>
                <DateField label="Goes out" required value={day} onChange={setDay} />
              </div>
            </div>
          </Card>
          <ChanceCard
            aim={value.aim}
            examples={examples ?? []}
            disabled={false}
            onChange={(device) => setValue({ ...value, aim: { ...value.aim, device } })}
          />
          {lesson && (
            <Card className="p-4">
              <h2 className="font-bold mb-2">Each home needs</h2>
              <ThingsList kit={lesson.kit} needs={needed(lesson)} />
              <HomesAble classId={cls} kit={lesson.kit} />
            </Card>
          )}
        </section>
        <section className="grid gap-3 content-start">
          <div className="flex items-center justify-between gap-3">
            <h2 className="font-bold text-lg">With which numbers?</h2>
            <Button onClick={again} disabled={!result.ok}>
              Search again
            </Button>
          </div>
          {said && <Notice kind="info">{said}</Notice>}
          {result.ok ? (
            <>
              <SharedFacts result={result} />
              <SetChooser
                sets={result.sets}
                chosen={chosen}
                onChoose={choose}
                aim={value.aim}
                actions={actions}
              />
            </>
          ) : (
            <Notice kind="wrong">{result.conflict}</Notice>
          )}
          {value.story && !storyIsWhole(value.story) && (
            <Notice kind="wrong">The story needs a name, its things and a place.</Notice>
          )}
          {problem && <Notice kind="wrong">{problem}</Notice>}
          {time && (
            <div className="flex items-center gap-4 flex-wrap">
              <Button look="main" onClick={() => void make()} disabled={busy || !cls}>
                Write the script
              </Button>
              <span className="text-steel figures">
                Film about {clockTime(time.film)} · home {clockTime(time.home)} ·{' '}
                {minutesText(
                  Math.round((time.film / 60) * (workRates.writing + workRates.filming + workRates.cutting)),
                )}{' '}
                to make
              </span>
            </div>
          )}
          <Card className="p-4">
            <h2 className="font-bold mb-2">Facts of this idea</h2>
            <CoverageGrid
              aim={value.aim}
              examples={examples ?? []}
              zero={me?.houseStyle.zeroIsPart ?? true}
              classId={cls}
              lessonId={null}
            />
          </Card>
        </section>
      </div>
      {importing && (
        <ImportDialog
          classId={cls}
          classes={shelf?.classes ?? []}
          day={day}
          onClose={() => setImporting(false)}
        />
      )}
    </>
  )
}
const storyIsWhole = (s: Story | undefined): boolean => !s || Object.values(s).every((x) => x.trim() !== '')
function suggested(v: AimChoice, ideas: readonly Idea[]): string {
  const stories: Record<string, string> = {
    parts: `${v.aim.upTo} parcels, two pigeon-holes`,
    add: 'Two vans, one depot',
    'take-away': 'Parcels left at doors',
    'count-on': 'Hidden in the sack',
  }
  // A story of the structure would hide an idea that has a way of its own.
  const plain = /^(parts-\d+|add-\d+|join|take-\d+|take-apart|count-on(-\d+)?)$/.test(v.ideaId)
  return (plain ? stories[v.aim.structure] : undefined) ?? ideaById(v.ideaId, ideas)?.name ?? 'New lesson'
}
