import { addDays, formatISO } from 'date-fns'
import { useEffect, useMemo, useState } from 'react'
import { useNavigate } from 'react-router'
import useSWR from 'swr'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { timeLesson } from '@awlbox/core/script/time'
import { workRates } from '@awlbox/core/next/minutes'
import { send, wordsOf } from '../../api.ts'
import { Head } from '../../frame/head.tsx'
import { useMe } from '../../frame/me.ts'
import { newId } from '../../frame/new-id.ts'
import { clockTime, minutesText } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { ClassNav, type Shelf, SignOut } from '../shelf/shelf-page.tsx'
import { AimEditor, type AimChoice } from './aim-editor.tsx'
import { SetChooser } from './example-sets.tsx'
import { ThingsList } from './things-list.tsx'
import { useSets } from './use-sets.ts'

const first: AimChoice = { ideaId: 'parts-7', age: 4, aim: aimOf({ structure: 'parts', upTo: 7, mustHave: ['turn-round'] }) }
const box = 'min-h-10 rounded-lg border border-hair bg-card px-2.5'

export default function NewLessonPage() {
  const me = useMe()
  const { data: shelf } = useSWR<Shelf>('/api/shelf')
  const [value, setValue] = useState(first)
  const [title, setTitle] = useState('')
  const [classId, setClassId] = useState('')
  const [day, setDay] = useState(() => formatISO(addDays(new Date(), 2), { representation: 'date' }))
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const navigate = useNavigate()
  const { result, chosen, choose, again } = useSets(value, me?.houseStyle)
  const examples = result.ok ? result.sets[chosen]!.examples : null
  const name = title.trim() || suggested(value)
  const lesson = useMemo(() => examples && me ? fromTemplate({ title: name, ideaId: value.ideaId, age: value.age, aim: value.aim, examples, style: me.houseStyle, newId }) : null, [examples, me, name, value])
  const time = useMemo(() => lesson && timeLesson(lesson, me?.houseStyle), [lesson, me])
  const cls = classId || shelf?.classes[0]?.id || ''
  useEffect(() => {
    document.title = 'Plan a lesson · Awlbox'
  }, [])
  const make = async () => {
    if (!lesson) return
    setBusy(true)
    setProblem(null)
    try {
      const { id } = await send<{ id: string }>('POST', `/api/classes/${cls}/lessons`, { day, doc: lesson })
      void navigate(`/lessons/${id}/script`)
    } catch (error) {
      setProblem(wordsOf(error))
      setBusy(false)
    }
  }
  return (
    <>
      <Head where={me?.setting}><SignOut /></Head>
      <ClassNav classes={shelf?.classes ?? []} />
      <div className="grid grid-cols-[minmax(320px,38%)_1fr] max-lg:grid-cols-1 gap-5 p-5">
        <section className="grid gap-4 content-start">
          <div className="rounded-xl border border-hair bg-card p-4"><h1 className="font-bold text-lg mb-3">What is the one idea?</h1><AimEditor value={value} onChange={setValue} /></div>
          <div className="rounded-xl border border-hair bg-card p-4 grid gap-3">
            <label className="grid gap-1"><span className="font-semibold">Title</span><input className={box} value={title} maxLength={120} placeholder={suggested(value)} onChange={(e) => setTitle(e.target.value)} /></label>
            <div className="flex gap-3 flex-wrap">
              <label className="grid gap-1 flex-1"><span className="font-semibold">Class</span><select className={box} value={cls} onChange={(e) => setClassId(e.target.value)}>{shelf?.classes.map((c) => <option key={c.id} value={c.id}>{c.name}</option>)}</select></label>
              <label className="grid gap-1"><span className="font-semibold">Goes out</span><input type="date" className={box} value={day} onChange={(e) => e.target.value && setDay(e.target.value)} /></label>
            </div>
          </div>
          {lesson && <div className="rounded-xl border border-hair bg-card p-4"><h2 className="font-bold mb-2">Each home needs</h2><ThingsList kit={lesson.kit} /></div>}
        </section>
        <section className="grid gap-3 content-start">
          <div className="flex items-center justify-between gap-3"><h2 className="font-bold text-lg">With which numbers?</h2><Button onClick={again} disabled={!result.ok}>Search again</Button></div>
          {result.ok ? <SetChooser sets={result.sets} chosen={chosen} onChoose={choose} aim={value.aim} /> : <Notice kind="wrong">{result.conflict}</Notice>}
          {problem && <Notice kind="wrong">{problem}</Notice>}
          {time && <div className="flex items-center gap-4 flex-wrap">
            <Button look="main" onClick={() => void make()} disabled={busy || !cls}>Write the script</Button>
            <span className="text-steel figures">Film about {clockTime(time.film)} · home {clockTime(time.home)} · {minutesText(Math.round((time.film / 60) * (workRates.writing + workRates.filming + workRates.cutting)))} to make</span>
          </div>}
        </section>
      </div>
    </>
  )
}
function suggested(v: AimChoice): string {
  const stories: Record<string, string> = { parts: `${v.aim.upTo} parcels, two pigeon-holes`, add: 'Two vans, one depot', 'take-away': 'Parcels left at doors', 'count-on': 'Hidden in the sack' }
  return stories[v.aim.structure] ?? ideaById(v.ideaId)?.name ?? 'New lesson'
}
