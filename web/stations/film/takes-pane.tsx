import { useState } from 'react'
import { Empty } from '../../kit/notice.tsx'
import { Tabs } from '../../kit/tabs.tsx'
import { Tray } from './clips.tsx'
import { rollsPending, useFilm } from './film-session.ts'
import { TakeCard } from './take-card.tsx'
import { FilmAgain, TakeSheet } from './take-sheet.tsx'

/** The takes: of this segment, all side by side, what is to be filmed again, and clips that found no segment. */
export function TakesPane() {
  const { segment, segments, children, takes, sheet, record, refresh, goTo } = useFilm()
  // Another segment opens on its own takes.
  const [chosen, setChosen] = useState({ segmentId: segment.id, tab: 'takes' })
  const tray = takes.filter((t) => t.segmentId === null)
  const tab = chosen.segmentId === segment.id ? chosen.tab : 'takes'
  return (
    <Tabs
      label="Takes"
      value={tab === 'tray' && !tray.length ? 'takes' : tab}
      onChange={(next) => setChosen({ segmentId: segment.id, tab: next })}
      tabs={[
        {
          value: 'takes',
          label: `This segment · ${takes.filter((t) => t.segmentId === segment.id).length}`,
          content: <SegmentTakes />,
        },
        {
          value: 'sheet',
          label: 'All takes',
          content: (
            <div className="overflow-x-auto">
              <TakeSheet segments={children} sheet={sheet} onGo={goTo} />
            </div>
          ),
        },
        {
          value: 'again',
          label: `Film again · ${sheet.again.length}`,
          content: <FilmAgain segments={children} again={sheet.again} onGo={goTo} />,
        },
        ...(tray.length
          ? [
              {
                value: 'tray',
                label: `Tray · ${tray.length}`,
                content: (
                  <Tray takes={tray} segments={segments} mayChange={record.mayChange} onChanged={refresh} />
                ),
              },
            ]
          : []),
      ]}
    />
  )
}

/** The newest take first; it and the best one are open. */
function SegmentTakes() {
  const f = useFilm()
  const mine = f.takes.filter((t) => t.segmentId === f.segment.id)
  const rows = f.sheet.rows.get(f.segment.id) ?? []
  const pending = rollsPending(f)
  if (!mine.length)
    return (
      <Empty>
        No take of “{f.segment.title}” yet. Film it here, bring clips from a phone
        {f.me.camera ? ', or let the stand-in film it' : ''}.
      </Empty>
    )
  return [...mine].reverse().map((t, i) => {
    const row = rows.find((r) => r.id === t.id) ?? null
    return (
      <TakeCard
        key={t.id}
        take={t}
        row={row}
        segment={f.segment}
        open={i === 0 || row?.best === true}
        mayChange={f.record.mayChange}
        revision={f.record.revision}
        onChanged={f.refresh}
        onCarry={f.carry}
        pendingRolls={pending}
      />
    )
  })
}
