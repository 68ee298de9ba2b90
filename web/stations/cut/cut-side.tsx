import * as cutApi from '@awlbox/core/contracts/api/cut'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { cardLooks, framesPerSecond } from '@awlbox/core/contracts/cut'
import { cardNames } from '@awlbox/core/cut/cards'
import { chaptersOf, chapterText } from '@awlbox/core/cut/chapters'
import { repairOf } from '@awlbox/core/cut/repairs'
import { segmentFrames, toSeconds } from '@awlbox/core/cut/timeline'
import { ask } from '../../api.ts'
import { JobList } from '../../frame/jobs.tsx'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { Tabs } from '../../kit/tabs.tsx'
import { type PanelName, panels, useOpenCut } from './cut-session.ts'
import { CaptionsPanel } from './panels/captions-panel.tsx'
import { ChecksPanel } from './panels/checks-panel.tsx'
import { FilmPanel } from './panels/film-panel.tsx'
import { OverlaysPanel } from './panels/overlays-panel.tsx'
import { RepairPanel } from './panels/repair-panel.tsx'
import { crooked, placingOf } from './placing.ts'
import { Preview } from './preview.tsx'
import { SelectionPanel } from './selection-panel.tsx'

/** Beside the rows: the picture, which stays in view whichever panel is open, and the panels. */
export function CutSide() {
  const c = useOpenCut()
  const placing = c.record.mayChange
    ? placingOf({
        list: c.list,
        panel: c.panel,
        overlay: c.overlay,
        pick: c.pick,
        shown: c.shownTake,
        acts: c.acts,
      })
    : null
  const content: Record<PanelName, () => React.ReactNode> = {
    chosen: () => <Chosen />,
    over: () => <Over />,
    mend: () => <Mend />,
    captions: () => <Captions />,
    checks: () => (
      <ChecksPanel checks={c.checks} behind={c.behind} onGo={(x) => c.goToMoment(x.segmentId, x.start)} />
    ),
    film: () => <Film />,
  }
  return (
    <div className="px-4 pb-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
      <div className="md:sticky md:top-0 z-20 bg-ground pt-4 pb-1 -mx-4 px-4">
        <Preview
          program={c.program}
          player={c.player}
          list={c.pick?.kind === 'corner' ? crooked(c.list) : c.list}
          shown={c.shownTake}
          tables={c.tables}
          fill={c.me.houseStyle.frameFill}
          caption={c.cue}
          small={c.panel === 'mend' || c.panel === 'over' || c.panel === 'captions'}
          placing={placing}
          onWord={c.goByWord}
        />
      </div>
      {c.problem && <Notice kind="wrong">{c.problem}</Notice>}
      <JobList jobs={c.jobs.filter((j) => j.kind === 'render')} />
      <Tabs
        label="What to see to"
        value={c.panel}
        onChange={(v) => c.setPanel(v as PanelName)}
        tabs={(Object.keys(panels) as PanelName[]).map((p) => ({
          value: p,
          label: (
            <>
              {panels[p]}
              {p === 'checks' && c.checks.length > 0 && (
                <span className={`figures text-sm ${c.wrong ? 'text-brick font-semibold' : ''}`}>
                  {' '}
                  {c.checks.length}
                </span>
              )}
            </>
          ),
          content: p === c.panel ? content[p]() : null,
        }))}
      />
    </div>
  )
}

function Chosen() {
  const { record, chosenRow, current, chosen, selection, takes, acts, frameOf, player } = useOpenCut()
  return (
    <>
      <SelectionPanel
        lessonId={record.id}
        cut={chosenRow ?? current}
        item={chosen}
        part={selection?.part ?? null}
        takes={takes}
        mayChange={record.mayChange}
        acts={acts}
        onPlay={() => {
          const frame = selection && frameOf(selection)
          if (frame !== null) player.play(frame)
        }}
      />
      {record.mayChange && (
        <div className="flex flex-wrap gap-2 items-center text-sm text-steel">
          Put in a card:
          {cardLooks.map((look) => (
            <Button
              key={look}
              small
              onClick={() =>
                acts.addCard(current.segmentId, look, chosenRow === current ? selection!.itemId : null)
              }
            >
              {cardNames[look]}
            </Button>
          ))}
        </div>
      )}
    </>
  )
}

function Over() {
  const { current, overlay, record, shownTake, acts, setOverlay, player, startOf } = useOpenCut()
  return (
    <OverlaysPanel
      row={current}
      chosen={overlay}
      mayChange={record.mayChange}
      canAdd={shownTake !== null}
      acts={acts}
      onChoose={setOverlay}
      onGo={(frame) => player.seek(startOf(current.segmentId) + frame)}
    />
  )
}

function Mend() {
  const { takes, shownTake, list, doc, record, pick, setPick, acts } = useOpenCut()
  const nameOf = (t: TakeRecord): string =>
    `${doc.segments.find((s) => s.id === t.segmentId)?.title ?? 'a clip'}, take ${t.number}`
  return (
    <RepairPanel
      take={takes.find((t) => t.id === shownTake?.takeId) ?? null}
      others={takes.filter((t) => t.id !== shownTake?.takeId)}
      nameOf={nameOf}
      repair={repairOf(list, shownTake?.takeId ?? '')}
      frame={shownTake?.frame ?? 0}
      mayChange={record.mayChange}
      pick={pick}
      onPick={setPick}
      onChange={(change, together) => shownTake && acts.repair(shownTake.takeId, change, together)}
    />
  )
}

function Captions() {
  const { list, cues, second, current, startOf, record, player, acts } = useOpenCut()
  const from = startOf(current.segmentId)
  return (
    <CaptionsPanel
      list={list}
      cues={cues}
      now={second}
      part={{ from: toSeconds(from), to: toSeconds(from + segmentFrames(current)) }}
      mayChange={record.mayChange}
      onGo={(s) => player.seek(Math.ceil(s * framesPerSecond))}
      onEdit={acts.caption}
      onBurn={acts.burn}
    />
  )
}

function Film() {
  const { main, doc, record, latest, revision, player, trying, acts } = useOpenCut()
  const parts = main.flatMap((cut) => {
    const segment = doc.segments.find((s) => s.id === cut.segmentId)
    return segment ? [{ segment, cut }] : []
  })
  const read = async (file: File): Promise<void> => {
    const given = { name: file.name, text: await file.text() }
    acts.takeOver((await ask(cutApi.readCutFile, { lessonId: record.id }, given)).doc)
  }
  return (
    <FilmPanel
      lessonId={record.id}
      chapters={chapterText(chaptersOf(parts))}
      render={latest}
      stale={latest !== null && latest.cutRevision < revision}
      mayChange={record.mayChange}
      onGo={(s) => player.seek(Math.round(s * framesPerSecond))}
      onRead={(file) => void trying(() => read(file))}
    />
  )
}
