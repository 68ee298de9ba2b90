import { named, Select } from '../../kit/select.tsx'
import { TitleInput } from '../../kit/title-input.tsx'
import { SortableContext, useSortable, verticalListSortingStrategy } from '@dnd-kit/sortable'
import { CSS } from '@dnd-kit/utilities'
import { GripVertical, Plus } from 'lucide-react'
import { memo, type ReactNode, useMemo, type SyntheticEvent } from 'react'
import { segmentKinds, type Segment } from '@awlbox/core/contracts/lesson'
import { insertStep } from '@awlbox/core/script/edit'
import type { Finding } from '@awlbox/core/script/proof/finding'
import type { SegmentTime } from '@awlbox/core/script/time'
import { clockTime } from '@awlbox/core/words'
import { sayActions } from '@awlbox/core/script/language/say'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { segmentKey } from './dragging.tsx'
import { FindingLine } from './finding-line.tsx'
import { SegmentMenu } from './segment-menu.tsx'
import { StepLine } from './step-line.tsx'

interface Props {
  segment: Segment
  time: SegmentTime
  open: boolean
  findings: readonly Finding[]
  stepId: string | null
  onStep: (id: string | null) => void
  first: boolean
  last: boolean
  mayChange: boolean
  goTo: (id: string) => void
}

const none: readonly Finding[] = []
/** What a closed card shows; while none of it changes it is left as it is, so that typing in one segment costs the others nothing. */
const looksTheSame = (a: Props, b: Props): boolean =>
  !a.open &&
  !b.open &&
  a.segment === b.segment &&
  a.time.film === b.time.film &&
  a.time.home === b.time.home &&
  a.findings.length === b.findings.length &&
  a.first === b.first &&
  a.last === b.last &&
  a.mayChange === b.mayChange &&
  a.goTo === b.goTo

export const SegmentCard = memo(function SegmentCard(p: Props) {
  const { segment, time, findings, goTo, mayChange } = p
  const facts = (
    <>
      <span className="text-steel text-sm whitespace-nowrap">
        {segment.kind}
        {segment.audience === 'adults' ? ' · grown-ups, not in the film' : ''}
        {segment.unfilmed ? ' · given without a film' : ''}
        {time.home > 0 ? ` · ${clockTime(time.home)} at home` : ''}
      </span>
    </>
  )
  const { attributes, listeners, setNodeRef, transform, transition, isDragging, isOver, active } =
    useSortable({ id: segmentKey(segment.id), disabled: !mayChange })
  const grip = (
    <button
      type="button"
      aria-label={`Move segment ${segment.title}`}
      {...attributes}
      {...listeners}
      disabled={!mayChange}
      className="w-5 min-h-8 -ml-2 grid place-items-center text-steel opacity-0 group-hover/segment:opacity-100 focus:opacity-100 cursor-grab touch-none"
    >
      <GripVertical size={14} />
    </button>
  )
  const lineOver = isOver && active !== null && !String(active.id).startsWith('segment:')
  const style = { transform: CSS.Translate.toString(transform), transition }
  if (!p.open)
    return (
      <div
        ref={setNodeRef}
        style={style}
        className={`group/segment flex items-center rounded-xl border px-3 min-h-11 hover:bg-wash ${isDragging ? 'opacity-70 relative z-10' : ''} ${lineOver ? 'border-saffron border-2 bg-here' : 'border-hair bg-card'}`}
      >
        {grip}
        <button
          type="button"
          onClick={() => {
            goTo(segment.id)
            p.onStep(null)
          }}
          className="flex items-center gap-2 flex-1 min-w-0 min-h-11 text-left cursor-pointer"
        >
          <span className="font-semibold truncate min-w-0">{segment.title}</span>
          {facts}
          <span className="flex-1" />
          {findings.length > 0 && (
            <span className="text-brick text-sm font-semibold whitespace-nowrap">
              {findings.length} to mend
            </span>
          )}
          <span className="figures">{segment.unfilmed ? 'no film' : clockTime(time.film)}</span>
        </button>
      </div>
    )
  return (
    <div
      ref={setNodeRef}
      style={style}
      className={`group/segment ${isDragging ? 'opacity-70 relative z-10' : ''}`}
    >
      <OpenCard {...p} grip={grip} />
    </div>
  )
}, looksTheSame)

function OpenCard({
  segment,
  time,
  findings,
  stepId,
  onStep,
  first,
  last,
  grip,
}: Props & { grip: ReactNode }) {
  const { edit, record, me, proofed } = useLesson()
  /** How a line of hands was understood, told where the pointer or the keyboard is: worked out only then. */
  const tell = (e: SyntheticEvent<HTMLElement>) => {
    const line = (e.target as HTMLElement).closest<HTMLElement>('[data-step]')
    const m = line && proofed.moments.find((x) => x.step.id === line.dataset.step)
    if (line) line.title = m?.reading?.whole ? `Read as: ${sayActions(m.actions, m.before)}` : ''
  }
  const change = (c: Partial<Segment>) =>
    edit((d) => ({ ...d, segments: d.segments.map((s) => (s.id === segment.id ? { ...s, ...c } : s)) }))
  const ids = segment.steps.map((s) => s.id).join(' ')
  const items = useMemo(() => ids.split(' ').filter(Boolean), [ids])
  const byStep = useMemo(() => {
    const map = new Map<string, Finding[]>()
    for (const f of findings) if (f.stepId) map.set(f.stepId, [...(map.get(f.stepId) ?? []), f])
    return map
  }, [findings])
  const loose = findings.filter((f) => !f.stepId || !segment.steps.some((s) => s.id === f.stepId))
  const add = () => {
    const id = newId()
    edit((d) => insertStep(d, segment.id, segment.steps.length, { id, verb: 'say', text: '' }))
    onStep(id)
  }
  return (
    <section
      aria-label={segment.title}
      className="rounded-xl border border-ink/40 bg-card px-3 py-2 shadow-sm"
    >
      <header className="flex items-center gap-2 min-h-9 max-md:flex-wrap">
        {grip}
        <TitleInput
          label="Title of the segment"
          className="font-bold bg-transparent rounded-md px-1 -ml-1 min-w-0 flex-auto max-md:basis-[75%] truncate hover:bg-wash focus:bg-wash"
          value={segment.title}
          disabled={!record.mayChange}
          onDone={(title) => change({ title })}
        />
        <Select
          label="Kind of segment"
          look="plain"
          disabled={!record.mayChange}
          value={segment.kind}
          choices={named(segmentKinds)}
          onChange={(kind) => change({ kind })}
        />
        <Select
          label="For whom"
          look="plain"
          disabled={!record.mayChange}
          value={segment.audience}
          choices={[
            { value: 'children', words: 'children' },
            { value: 'adults', words: 'grown-ups' },
          ]}
          onChange={(audience) => change({ audience })}
        />
        <span className="flex-1" />
        <span
          className="font-semibold figures"
          title={`${segment.unfilmed ? 'no film' : clockTime(time.film)} of film, ${clockTime(time.home)} at home`}
        >
          {segment.unfilmed ? 'no film' : clockTime(time.film)}
        </span>
        {record.mayChange && <SegmentMenu segment={segment} first={first} last={last} />}
      </header>
      {loose.map((f, i) => (
        <FindingLine key={f.code + i} finding={f} />
      ))}
      <SortableContext items={items} strategy={verticalListSortingStrategy}>
        <ol onMouseOver={tell} onFocus={tell}>
          {segment.steps.map((s, i) => (
            <StepLine
              key={s.id}
              step={s}
              index={i}
              segmentId={segment.id}
              before={segment.steps[i - 1]?.id ?? null}
              after={segment.steps[i + 1]?.id ?? null}
              seconds={time.steps[i]?.film ?? 0}
              current={s.id === stepId}
              onStep={onStep}
              style={me.houseStyle}
              findings={byStep.get(s.id) ?? none}
              edit={edit}
              mayChange={record.mayChange}
            />
          ))}
        </ol>
      </SortableContext>
      {segment.steps.length === 0 && (
        <p className="text-steel py-2">No lines yet. Begin with what you say first.</p>
      )}
      {record.mayChange && (
        <button
          type="button"
          onClick={add}
          className="flex items-center gap-2 min-h-9 text-steel hover:text-ink rounded-md px-1 cursor-pointer"
        >
          <Plus size={16} /> Add a line
        </button>
      )}
    </section>
  )
}
