import * as cutApi from '@awlbox/core/contracts/api/cut'
import * as filmApi from '@awlbox/core/contracts/api/film'
import { useAsked } from '../../frame/use-asked.ts'
import { Tabs } from 'radix-ui'
import { useCallback, useLayoutEffect, useMemo, useRef, useState } from 'react'
import { cardLooks, type CutList, cutReasons, framesPerSecond, plainList } from '@awlbox/core/contracts/cut'
import { cardNames } from '@awlbox/core/cut/cards'
import { chaptersOf, chapterText } from '@awlbox/core/cut/chapters'
import { programOf, shotAt } from '@awlbox/core/cut/program'
import { filmFrames, proposalsOf, tableAfter } from '@awlbox/core/cut/propose'
import { boxAt, keyed, repairOf } from '@awlbox/core/cut/repairs'
import { layOut, plays, segmentFrames, shownAt, toSeconds, wordBeside } from '@awlbox/core/cut/timeline'
import { clockTime } from '@awlbox/core/words'
import { ask, wordsOf } from '../../api.ts'
import { JobList, useJobs } from '../../frame/jobs.tsx'
import { useLesson } from '../../frame/lesson-context.ts'
import { Split } from '../../frame/split.tsx'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { CaptionsPanel } from './panels/captions-panel.tsx'
import { ChecksPanel } from './panels/checks-panel.tsx'
import { FilmPanel, type Render } from './panels/film-panel.tsx'
import { OverlaysPanel } from './panels/overlays-panel.tsx'
import { type Picked, RepairPanel } from './panels/repair-panel.tsx'
import { type Placing, Preview } from './preview.tsx'
import type { RowActs, Selection } from './selection.ts'
import { SegmentRow } from './segment-row.tsx'
import { SelectionPanel } from './selection-panel.tsx'
import { useChecks, useFilmed } from './use-checks.ts'
import { useCut } from './use-cut.ts'
import { useCutActs } from './use-cut-acts.ts'
import { useCutKeys } from './use-cut-keys.ts'
import { usePlayer } from './use-player.ts'
import { useAllPeaks } from './waveform.tsx'

const kindWords: Record<(typeof cutReasons)[number], readonly [one: string, many: string]> = {
  slip: ['slip', 'slips'],
  'false start': ['false start', 'false starts'],
  filler: ['filler', 'fillers'],
  silence: ['silence', 'silences'],
  ends: ['end', 'ends'],
  wait: ['wait to hold', 'waits to hold'],
  'other take': ['line from another take', 'lines from other takes'],
  card: ['card', 'cards'],
  overlay: ['overlay', 'overlays'],
  face: ['face to cover', 'faces to cover'],
  name: ['name to cover', 'names to cover'],
  'by hand': ['', ''],
}
const scales = [8, 12, 17, 26, 40, 60] as const
const panels = {
  chosen: 'Chosen',
  over: 'Over the picture',
  mend: 'Picture and sound',
  captions: 'Captions',
  checks: 'Checks',
  film: 'Film',
} as const
type PanelName = keyof typeof panels

export default function CutPage() {
  const { doc, record, at, goTo, proofed, me } = useLesson()
  const {
    doc: list,
    edit,
    undo,
    redo,
    flush,
    canUndo,
    canRedo,
    revision,
    problem: cutProblem,
  } = useCut(record.id)
  const { data: takesData } = useAsked(filmApi.takes, { lessonId: record.id })
  const { data: renders } = useAsked(cutApi.renders, { lessonId: record.id })
  const jobs = useJobs(record.id)
  const [selection, setSelection] = useState<Selection | null>(null)
  const [zoom, setZoom] = useState(2)
  const [problem, setProblem] = useState<string | null>(null)
  const [panel, setPanel] = useState<PanelName>('chosen')
  const [overlay, setOverlay] = useState<string | null>(null)
  const [pick, setPick] = useState<Picked>(null)
  const takes = useMemo(() => (takesData?.items ?? []).filter((t) => t.status === 'ready'), [takesData])
  const hearings = useMemo(
    () => new Map(takes.flatMap((t) => (t.hearing ? [[t.id, t.hearing] as const] : []))),
    [takes],
  )
  const rows = useMemo(() => list?.segments ?? [], [list])
  // What is said to the adults alone is a film of its own.
  const main = useMemo(
    () => rows.filter((r) => doc.segments.find((s) => s.id === r.segmentId)?.audience === 'children'),
    [rows, doc.segments],
  )
  const adults = rows.filter((r) => !main.includes(r))
  const current = rows.find((r) => r.segmentId === at) ?? main[0]
  const inAdults = current !== undefined && adults.includes(current)
  const program = useMemo(
    () => programOf({ segments: inAdults ? rows.filter((r) => !main.includes(r)) : main }),
    [rows, main, inAdults],
  )
  const player = usePlayer(program)
  // What is in the picture: which item of which row, and the frame of its take.
  const shot = program.shots[shotAt(program, player.frame)]
  const shownRow = rows.find((r) => r.segmentId === shot?.segmentId)
  const inRow = player.frame - (program.starts.get(shot?.segmentId ?? '') ?? 0)
  const picture = useMemo(() => (shownRow ? shownAt(shownRow, inRow) : null), [shownRow, inRow])
  const shown = useMemo(
    () =>
      shownRow && picture
        ? {
            segmentId: shownRow.segmentId,
            itemId: picture.item.id,
            takeId: picture.item.kind === 'clip' ? picture.item.takeId : null,
            frame: picture.item.kind === 'clip' && picture.item.still ? picture.item.from : picture.frame,
            along: picture.frame,
          }
        : null,
    [shownRow, picture],
  )
  const shownTake = useMemo(
    () =>
      shown?.takeId
        ? { segmentId: shown.segmentId, takeId: shown.takeId, frame: shown.frame, along: shown.along }
        : null,
    [shown],
  )
  const acts = useCutActs({
    list,
    lesson: doc,
    style: me.houseStyle,
    takes,
    edit,
    selection,
    shown,
    onSelect: setSelection,
  })
  const filmed = useFilmed(doc, list, takes)
  const tables = useCallback((stepId: string) => tableAfter(filmed, stepId), [filmed])
  const peaks = useAllPeaks(useMemo(() => takes.flatMap((t) => (t.hasSound ? [t.id] : [])), [takes]))
  const { cues, checks, behind } = useChecks({
    peaks,
    list: list ?? plainList,
    rows: inAdults ? adults : main,
    filmed,
    hearings,
    style: me.houseStyle,
    lesson: doc,
  })
  const startOf = useCallback((segmentId: string): number => program.starts.get(segmentId) ?? 0, [program])
  const frameOf = useCallback(
    (s: Selection): number | null => {
      const row = list?.segments.find((r) => r.segmentId === s.segmentId)
      const here = row && layOut(row).find((p) => p.item.id === s.itemId)
      return here
        ? startOf(s.segmentId) +
            here.at +
            (s.part && here.item.kind === 'clip' ? Math.max(0, s.part.from - here.item.from) : 0)
        : null
    },
    [list, startOf],
  )
  const now = useRef({ at, goTo, frameOf, player, acts })
  useLayoutEffect(() => {
    now.current = { at, goTo, frameOf, player, acts }
  })
  const rowActs = useMemo((): RowActs => {
    const go = (segmentId: string): void => {
      if (now.current.at !== segmentId) now.current.goTo(segmentId)
    }
    return {
      onSelect: (s) => {
        setSelection(s)
        setPanel('chosen')
        go(s.segmentId)
        const frame = now.current.frameOf(s)
        if (frame !== null && !now.current.player.playing) now.current.player.seek(frame)
      },
      onTake: (segmentId, takeId) => now.current.acts.chooseTake(segmentId, takeId),
      onGo: go,
      onEdge: (segmentId, itemId, edge, frame) => now.current.acts.edge(segmentId, itemId, edge, frame),
      onOverlay: (segmentId, id) => {
        setPanel('over')
        setOverlay(id)
        go(segmentId)
      },
    }
  }, [])
  const chosenRow = rows.find((r) => r.segmentId === selection?.segmentId)
  const chosen = chosenRow?.items.find((i) => i.id === selection?.itemId) ?? null
  useCutKeys({
    mayChange: record.mayChange,
    current,
    row: chosenRow,
    chosen,
    selection,
    acts,
    rowActs,
    player,
    undo,
    redo,
  })

  const open = useMemo(() => proposalsOf(list ?? plainList).filter((w) => w.state === 'open'), [list])
  const length = useMemo(() => toSeconds(filmFrames({ segments: main })), [main])
  const held = useMemo(
    () =>
      toSeconds(
        rows.reduce(
          (n, r) => n + r.items.reduce((m, i) => m + (i.kind === 'hold' && plays(i) ? i.frames : 0), 0),
          0,
        ),
      ),
    [rows],
  )
  const takesShown = useMemo(
    () => rows.reduce((n, r) => n + (takes.find((t) => t.id === r.takeId)?.seconds ?? 0), 0),
    [rows, takes],
  )
  if (!list) return <p className="p-8 text-steel">Opening the cut…</p>
  const segment = doc.segments.find((s) => s.id === current?.segmentId)
  if (!current || !segment || !takes.length)
    return (
      <div className="p-5 max-w-xl">
        <Empty>
          Nothing is filmed yet. Film the segments first; a first cut is proposed from what was heard.
        </Empty>
      </div>
    )
  const missing = main.filter((r) => !r.takeId).length
  const rendering = jobs.some((j) => j.kind === 'render' && (j.status === 'queued' || j.status === 'running'))
  const wrong = checks.filter((c) => c.severity === 'wrong')
  const trying = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null)
    await work().catch((error: unknown) => setProblem(wordsOf(error)))
  }
  const render = () =>
    trying(async () => {
      await flush()
      await ask(cutApi.render, { lessonId: record.id })
      setPanel('film')
    })
  const latest = renders?.items[0] ?? null
  const goToMoment = (segmentId: string | null, seconds: number | null): void => {
    if (!segmentId) return
    if (at !== segmentId) goTo(segmentId)
    player.seek(startOf(segmentId) + Math.round((seconds ?? 0) * framesPerSecond))
  }
  const part = {
    from: toSeconds(startOf(current.segmentId)),
    to: toSeconds(startOf(current.segmentId) + segmentFrames(current)),
  }
  const parts =
    panel === 'film'
      ? main.flatMap((cut) => {
          const of = doc.segments.find((s) => s.id === cut.segmentId)
          return of ? [{ segment: of, cut }] : []
        })
      : []
  const second = player.frame / framesPerSecond
  const cue =
    picture?.item.kind === 'card' ? null : cues.find((c) => c.source && second >= c.start && second < c.end)
  const mended = shownTake ? repairOf(list, shownTake.takeId) : null
  const nameOf = (t: TakeRecord): string =>
    `${doc.segments.find((s) => s.id === t.segmentId)?.title ?? 'a clip'}, take ${t.number}`
  return (
    <Split
      left={
        <>
          <div className="flex-1 min-h-0 overflow-auto p-3 grid grid-cols-[minmax(0,1fr)] gap-2 content-start">
            <div className="rounded-xl border border-hair bg-card px-3 py-2 flex flex-wrap items-center gap-2">
              {open.length ? (
                <>
                  <b className="whitespace-nowrap">{open.length} proposed</b>
                  {record.mayChange &&
                    cutReasons.map((kind) => {
                      const n = open.filter((w) => w.kind === kind).length
                      return (
                        n > 0 && (
                          <Button key={kind} small onClick={() => acts.decideAll(kind, 'accepted')}>
                            Accept {n} {kindWords[kind][n === 1 ? 0 : 1]}
                          </Button>
                        )
                      )
                    })}
                  {record.mayChange && (
                    <Button small look="act" onClick={() => acts.decideAll(null, 'accepted')}>
                      Accept all
                    </Button>
                  )}
                </>
              ) : (
                <span className="text-steel">Nothing left to decide.</span>
              )}
              <span className="flex-1" />
              {held > 0 && (
                <span className="text-steel text-sm figures whitespace-nowrap">
                  think-time added: {held.toFixed(0)} s
                </span>
              )}
              {record.mayChange && (
                <>
                  <Button small disabled={!canUndo} onClick={undo} title="Ctrl Z">
                    Undo the cut
                  </Button>
                  <Button small disabled={!canRedo} onClick={redo} title="Ctrl Shift Z">
                    Redo
                  </Button>
                </>
              )}
              <span className="flex items-center gap-1">
                <Button
                  small
                  look="quiet"
                  aria-label="Narrower"
                  disabled={zoom === 0}
                  onClick={() => setZoom(zoom - 1)}
                >
                  −
                </Button>
                <Button
                  small
                  look="quiet"
                  aria-label="Wider"
                  disabled={zoom === scales.length - 1}
                  onClick={() => setZoom(zoom + 1)}
                >
                  +
                </Button>
              </span>
            </div>
            {cutProblem && <Notice kind="wrong">{cutProblem}</Notice>}
            {[...main, ...adults].map((r) => (
              <SegmentRow
                key={r.segmentId}
                segment={doc.segments.find((s) => s.id === r.segmentId)!}
                cut={r}
                takes={takes}
                on={r === current}
                selection={selection?.segmentId === r.segmentId ? selection : null}
                scale={scales[zoom]!}
                now={shown?.segmentId === r.segmentId ? shown : null}
                overlay={overlay !== null && r.overlays.some((o) => o.id === overlay) ? overlay : null}
                adults={!main.includes(r)}
                acts={rowActs}
              />
            ))}
          </div>
          <div className="bg-card border-t border-hair px-4 py-2 min-h-[56px] flex flex-wrap items-center gap-x-4 gap-y-1 figures">
            <span title={`Filmed: ${clockTime(takesShown)}`}>
              Cut <b>{clockTime(length)}</b> of {clockTime(proofed.time.filmLimit)}
            </span>
            {missing > 0 && <span className="text-brick">{missing} not filmed</span>}
            <button
              type="button"
              onClick={() => setPanel('checks')}
              className={`min-h-8 cursor-pointer underline-offset-2 hover:underline font-semibold ${wrong.length ? 'text-brick' : 'text-moss'}`}
            >
              {wrong.length ? `${wrong.length} wrong` : 'counts and sentences whole'}
              {checks.length > wrong.length && (
                <span className="font-normal text-steel"> · {checks.length - wrong.length} to see</span>
              )}
            </button>
            <span className="flex-1" />
            {record.mayChange && (
              <Button look="main" onClick={() => void render()} disabled={rendering || length < 0.1}>
                Render ·{' '}
                {length < 170
                  ? `${Math.max(10, Math.round((length * 0.5) / 10) * 10)} s`
                  : `${Math.round((length * 0.5) / 60)} min`}
              </Button>
            )}
          </div>
        </>
      }
      right={
        <div className="p-4 grid grid-cols-[minmax(0,1fr)] gap-3 content-start">
          <Preview
            program={program}
            player={player}
            list={pick?.kind === 'corner' ? crooked(list) : list}
            shown={shownTake}
            tables={tables}
            fill={me.houseStyle.frameFill}
            caption={cue?.text ?? null}
            placing={
              record.mayChange ? placingOf({ list, panel, overlay, pick, shown: shownTake, acts }) : null
            }
            onWord={(step) => {
              const to = shownRow ? wordBeside(shownRow, hearings, inRow, step) : null
              if (to !== null && shot) player.seek(startOf(shot.segmentId) + to)
            }}
          />
          {problem && <Notice kind="wrong">{problem}</Notice>}
          <JobList jobs={jobs.filter((j) => j.kind === 'render')} />
          <Tabs.Root
            value={panel}
            onValueChange={(v) => setPanel(v as PanelName)}
            className="grid grid-cols-[minmax(0,1fr)] gap-3"
          >
            <Tabs.List aria-label="What to see to" className="flex flex-wrap gap-x-4 border-b border-hair">
              {(Object.keys(panels) as PanelName[]).map((p) => (
                <Tabs.Trigger
                  key={p}
                  value={p}
                  className="min-h-10 -mb-px border-b-2 border-transparent text-steel cursor-pointer data-[state=active]:border-ink data-[state=active]:text-ink data-[state=active]:font-semibold"
                >
                  {panels[p]}
                  {p === 'checks' && checks.length > 0 && (
                    <span className={`figures text-sm ${wrong.length ? 'text-brick font-semibold' : ''}`}>
                      {' '}
                      {checks.length}
                    </span>
                  )}
                </Tabs.Trigger>
              ))}
            </Tabs.List>
            <Tabs.Content value="chosen" className="grid grid-cols-[minmax(0,1fr)] gap-3">
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
                        acts.addCard(
                          current.segmentId,
                          look,
                          chosenRow === current ? selection!.itemId : null,
                        )
                      }
                    >
                      {cardNames[look]}
                    </Button>
                  ))}
                </div>
              )}
            </Tabs.Content>
            <Tabs.Content value="over">
              <OverlaysPanel
                row={current}
                chosen={overlay}
                mayChange={record.mayChange}
                canAdd={shownTake !== null}
                acts={acts}
                onChoose={setOverlay}
                onGo={(frame) => player.seek(startOf(current.segmentId) + frame)}
              />
            </Tabs.Content>
            <Tabs.Content value="mend">
              <RepairPanel
                take={takes.find((t) => t.id === shownTake?.takeId) ?? null}
                others={takes.filter((t) => t.id !== shownTake?.takeId)}
                nameOf={nameOf}
                repair={mended ?? repairOf(list, '')}
                frame={shownTake?.frame ?? 0}
                mayChange={record.mayChange}
                pick={pick}
                onPick={setPick}
                onChange={(change, together) => shownTake && acts.repair(shownTake.takeId, change, together)}
              />
            </Tabs.Content>
            <Tabs.Content value="captions">
              <CaptionsPanel
                list={list}
                cues={cues}
                now={second}
                part={part}
                mayChange={record.mayChange}
                onGo={(s) => player.seek(Math.ceil(s * framesPerSecond))}
                onEdit={acts.caption}
                onBurn={acts.burn}
              />
            </Tabs.Content>
            <Tabs.Content value="checks">
              <ChecksPanel checks={checks} behind={behind} onGo={(c) => goToMoment(c.segmentId, c.at)} />
            </Tabs.Content>
            <Tabs.Content value="film">
              <FilmPanel
                lessonId={record.id}
                chapters={chapterText(chaptersOf(parts))}
                render={latest}
                stale={latest !== null && latest.cutRevision < revision}
                mayChange={record.mayChange}
                onGo={(s) => player.seek(Math.round(s * framesPerSecond))}
                onRead={(file) =>
                  void trying(async () => {
                    acts.takeOver(
                      (
                        await ask(
                          cutApi.readCutFile,
                          { lessonId: record.id },
                          {
                            name: file.name,
                            text: await file.text(),
                          },
                        )
                      ).doc,
                    )
                  })
                }
              />
            </Tabs.Content>
          </Tabs.Root>
        </div>
      }
    />
  )
}

/** While the table's corners are set, its pictures are shown as they were filmed. */
const crooked = (list: CutList): CutList => ({
  ...list,
  repairs: list.repairs.map((r) => ({ ...r, corners: null })),
})

/** What is moved on the picture: the overlay chosen, the area being covered, or a corner of the table. */
function placingOf({
  list,
  panel,
  overlay,
  pick,
  shown,
  acts,
}: {
  list: CutList
  panel: PanelName
  overlay: string | null
  pick: Picked
  shown: { segmentId: string; takeId: string; frame: number } | null
  acts: ReturnType<typeof useCutActs>
}): Placing | null {
  if (!shown) return null
  if (panel === 'over' && overlay) {
    const o = list.segments
      .find((s) => s.segmentId === shown.segmentId)
      ?.overlays.find((x) => x.id === overlay)
    if (!o || !plays(o) || o.takeId !== shown.takeId || shown.frame < o.from || shown.frame >= o.to)
      return null
    const about = o.look === 'ring' || o.look === 'arrow'
    return {
      label: 'The overlay',
      box: o.place,
      space: 'film',
      onMove: (box) =>
        acts.overlay(
          shown.segmentId,
          o.id,
          { ...o, place: box, at: about ? box : o.at, why: null },
          `place ${o.id}`,
        ),
    }
  }
  if (panel !== 'mend' || !pick) return null
  const repair = repairOf(list, shown.takeId)
  if (pick.kind === 'corner') {
    const corner = repair.corners?.[pick.n]
    if (!corner) return null
    const half = 20
    return {
      label: 'A corner of the table',
      box: { x: Math.max(0, corner.x - half), y: Math.max(0, corner.y - half), w: 2 * half, h: 2 * half },
      space: 'take',
      onMove: (box) =>
        acts.repair(
          shown.takeId,
          (r) =>
            r.corners
              ? {
                  ...r,
                  corners: r.corners.map((c, i) =>
                    i === pick.n ? { x: box.x + box.w / 2, y: box.y + box.h / 2 } : c,
                  ) as unknown as typeof r.corners,
                }
              : r,
          `corner ${pick.n}`,
        ),
    }
  }
  const h = repair.hidden.find((x) => x.id === pick.id)
  const box = h && boxAt(h, Math.min(h.to - 1, Math.max(h.from, shown.frame)))
  return h && box
    ? {
        label: 'What is covered',
        box,
        space: 'take',
        onMove: (b) =>
          acts.repair(
            shown.takeId,
            (r) => ({ ...r, hidden: r.hidden.map((x) => (x.id === h.id ? keyed(x, shown.frame, b) : x)) }),
            `cover ${h.id} ${shown.frame}`,
          ),
      }
    : null
}
