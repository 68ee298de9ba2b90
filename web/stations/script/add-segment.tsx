import { Select } from '../../kit/select.tsx'
import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { useAsked } from '../../frame/use-asked.ts'
import { useMemo, useState, type ReactNode } from 'react'
import { type Example, type Lesson, type Segment, segmentKinds } from '@awlbox/core/contracts/lesson'
import { exampleSentence } from '@awlbox/core/plan/numbers/facts'
import { waysToWork } from '@awlbox/core/plan/numbers/strategies'
import { briefing, waysOf } from '@awlbox/core/script/template/talk-first'
import { teachingOf } from '@awlbox/core/script/template/teach'
import type { LessonWriting } from '@awlbox/core/script/template/teaching'
import { segment as made, type Writing } from '@awlbox/core/script/template/lines'
import { warmUpsFor } from '@awlbox/core/script/template/warm-ups'
import { clockTime } from '@awlbox/core/words'
import { ask } from '../../api.ts'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

const fresh = (s: Segment): Segment => ({
  ...s,
  id: newId(),
  steps: s.steps.map((x) => ({ ...x, id: newId() })),
})
const tabs = [
  'Empty',
  'Example',
  'Ways of working',
  'Warm-up',
  'Grown-ups',
  'Library',
  'Another lesson',
] as const
type Tab = (typeof tabs)[number]

/** A segment from many places: empty, played from the numbers, a warm-up, a note for grown-ups, the library, another lesson. */
export function AddSegment() {
  const { record } = useLesson()
  const [open, setOpen] = useState(false)
  if (!record.mayChange) return null
  return (
    <>
      <button
        type="button"
        onClick={() => setOpen(true)}
        className="justify-self-start min-h-10 rounded-lg border border-dashed border-steel px-3.5 font-semibold text-steel hover:text-ink hover:bg-wash cursor-pointer"
      >
        + Add a segment
      </button>
      {open && <AddDialog onClose={() => setOpen(false)} />}
    </>
  )
}

function AddDialog({ onClose }: { onClose: () => void }) {
  const { doc, edit, goTo, at, me } = useLesson()
  const [tab, setTab] = useState<Tab>('Empty')
  const add = (segment: Segment, after?: (d: Lesson) => Lesson) => {
    edit((d) => {
      // After the segment one is on, so that it lands where one is looking.
      const i = d.segments.findIndex((s) => s.id === at)
      const place = i < 0 ? d.segments.length : i + 1
      const next = { ...d, segments: [...d.segments.slice(0, place), segment, ...d.segments.slice(place)] }
      return after ? after(next) : next
    })
    goTo(segment.id)
    onClose()
  }
  const w: LessonWriting = {
    aim: doc.aim,
    age: doc.age,
    style: me.houseStyle,
    story: doc.story,
    newId,
    teach: teachingOf(doc.ideaId, doc.aim, doc.examples),
  }
  return (
    <Dialog open onClose={onClose} title="Add a segment" wide>
      <div role="tablist" className="flex flex-wrap gap-1.5 mb-4">
        {tabs.map((t) => (
          <button
            key={t}
            type="button"
            role="tab"
            aria-selected={tab === t}
            onClick={() => setTab(t)}
            className={`min-h-9 rounded-lg border px-3 text-sm cursor-pointer ${tab === t ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}
          >
            {t}
          </button>
        ))}
      </div>
      {tab === 'Empty' && (
        <div className="flex flex-wrap gap-2">
          {segmentKinds.map((k) => (
            <Button
              key={k}
              onClick={() =>
                add({
                  id: newId(),
                  title: k[0]!.toUpperCase() + k.slice(1),
                  kind: k,
                  audience: k === 'note to adults' ? 'adults' : 'children',
                  steps: [{ id: newId(), verb: 'say', text: '' }],
                })
              }
            >
              {k}
            </Button>
          ))}
        </div>
      )}
      {tab === 'Example' && (
        <Rows
          empty="The lesson has no examples yet: choose some in Plan."
          rows={doc.examples.map((e) => ({
            key: exampleSentence(e),
            title: <span className="font-child text-lg figures">{exampleSentence(e)}</span>,
            note: 'played on the table, with a wait and a check',
            add: () => add(made(w, 'We do it together', 'together', w.teach.play(e, w, true))),
          }))}
        />
      )}
      {tab === 'Ways of working' && <WaysTab w={w} examples={doc.examples} onAdd={add} />}
      {tab === 'Warm-up' && (
        <Rows
          empty=""
          rows={warmUpsFor(doc.aim.upTo).map((x) => ({
            key: x.id,
            title: x.name,
            note: `counting to ${x.upTo}${x.quiet ? ' · sitting and quiet' : ' · moving, with a seated way'}`,
            add: () => add(made(w, x.name, 'warm-up', x.lines(w))),
          }))}
        />
      )}
      {tab === 'Grown-ups' && (
        <Rows
          empty=""
          rows={[
            ...(doc.examples[0]
              ? [
                  {
                    key: 'brief',
                    title: 'Before you start',
                    note: 'the ways children may think, no answers',
                    add: () => add(briefing(w, waysOf(doc.examples[0]!, w))),
                  },
                ]
              : []),
            {
              key: 'note',
              title: 'For the grown-up',
              note: 'let them move the things; how do you know?',
              add: () =>
                add(
                  made(
                    w,
                    'For the grown-up',
                    'note to adults',
                    [
                      [
                        'say',
                        'This part is for the grown-up with you. Let the child move the things. Ask “how do you know?” and wait while they think.',
                      ],
                    ],
                    'adults',
                  ),
                ),
            },
          ]}
        />
      )}
      {tab === 'Library' && <LibraryTab onAdd={(s) => add(fresh(s))} />}
      {tab === 'Another lesson' && <OtherTab onAdd={(s) => add(fresh(s))} />}
    </Dialog>
  )
}

interface Row {
  key: string
  title: ReactNode
  note: string
  add: () => void
  more?: ReactNode
}
function Rows({ rows, empty }: { rows: readonly Row[]; empty: string }) {
  if (!rows.length) return <p className="text-steel">{empty}</p>
  return (
    <ul>
      {rows.map((r) => (
        <li key={r.key} className="flex items-center gap-3 border-b border-hair py-1.5">
          <span className="min-w-0 flex-1">
            <b className="font-semibold">{r.title}</b> <span className="text-steel text-sm">{r.note}</span>
          </span>
          {r.more}
          <Button small onClick={r.add}>
            Add
          </Button>
        </li>
      ))}
    </ul>
  )
}

function WaysTab({
  w,
  examples,
  onAdd,
}: {
  w: Writing
  examples: readonly Example[]
  onAdd: (s: Segment) => void
}) {
  const [i, setI] = useState(0)
  const e = examples[i]
  const ways = useMemo(() => (e ? waysToWork(e, w.style) : []), [e, w.style])
  if (!e) return <p className="text-steel">The lesson has no examples yet: choose some in Plan.</p>
  return (
    <>
      <label className="flex items-center gap-2 mb-2">
        For{' '}
        <Select
          className="font-child"
          value={String(i)}
          choices={examples.map((x, k) => ({ value: String(k), words: exampleSentence(x) }))}
          onChange={(k) => setI(Number(k))}
        />
        , what children may do, easiest first:
      </label>
      <Rows
        empty="No way of working is known for this fact."
        rows={ways.map((x) => ({
          key: x.id,
          title: x.name,
          note: {
            things: 'with things',
            picture: 'with a picture',
            track: 'on a line or square',
            head: 'in the head',
          }[x.rung],
          add: () =>
            onAdd(
              made(w, x.name, 'show', [
                ...x.lines.map((l) => [l.verb, l.text] as const),
                ['do', 'Clear the table'],
              ]),
            ),
        }))}
      />
    </>
  )
}

function LibraryTab({ onAdd }: { onAdd: (s: Segment) => void }) {
  const { data, mutate } = useAsked(lessonsApi.library, {})
  if (!data) return <p className="text-steel">Fetching the library…</p>
  return (
    <Rows
      empty="Nothing is kept yet. In a segment’s menu, “Keep in the library” puts it here for everybody in the setting."
      rows={data.items.map((x) => ({
        key: x.id,
        title: x.segment.title,
        note: `${x.segment.kind} · ${clockTime(x.seconds)} · ${x.segment.steps.length} lines${x.by ? ` · ${x.by}` : ''}`,
        add: () => onAdd(x.segment),
        more: (
          <Button
            small
            look="quiet"
            onClick={() => void ask(lessonsApi.takeFromLibrary, { segmentRowId: x.id }).then(() => mutate())}
          >
            Take out
          </Button>
        ),
      }))}
    />
  )
}

function OtherTab({ onAdd }: { onAdd: (s: Segment) => void }) {
  const { record } = useLesson()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const [doc, setDoc] = useState<Lesson | null>(null)
  const [picked, setPicked] = useState('')
  const pick = (id: string) => {
    setPicked(id)
    void ask(lessonsApi.readLesson, { lessonId: id }).then((r) => setDoc(r.doc))
  }
  return (
    <>
      <label className="flex items-center gap-2 mb-2">
        From{' '}
        <Select
          value={picked}
          hint="which lesson?"
          choices={(shelf?.lessons ?? [])
            .filter((l) => l.id !== record.id)
            .map((l) => ({ value: l.id, words: l.title }))}
          onChange={pick}
        />
      </label>
      {doc && (
        <Rows
          empty="That lesson has no segments."
          rows={doc.segments.map((s) => ({
            key: s.id,
            title: s.title,
            note: `${s.kind} · ${s.steps.length} lines`,
            add: () => onAdd(s),
          }))}
        />
      )}
    </>
  )
}
