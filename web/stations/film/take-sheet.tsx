import { Card } from '../../kit/card.tsx'
import { told } from '@awlbox/core/findings/say'
import { useMemo } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { type AgainRow, filmAgain, type TakeRow, takeRows } from '@awlbox/core/film/desk/take-sheet'
import { everyOrder } from '@awlbox/core/film/desk/table-order'
import { emptyTable, type TableState } from '@awlbox/core/script/table/state'
import { clockTime } from '@awlbox/core/words'
import { useLesson } from '../../frame/lesson-context.ts'
import type { TakeRecord } from '@awlbox/core/contracts/api/film'
import { Button } from '../../kit/button.tsx'
import { Empty } from '../../kit/notice.tsx'

export interface Sheet {
  rows: ReadonlyMap<string, TakeRow[]>
  again: AgainRow[]
}
/** All takes side by side, and what has to be filmed again, in the order that moves fewest things on the table. */
export function useSheet(segments: readonly Segment[], takes: readonly TakeRecord[]): Sheet {
  const { proofed } = useLesson()
  return useMemo(() => {
    const ready = takes.filter((t) => t.status === 'ready' && t.segmentId)
    const plannedOf = (id: string): number => proofed.time.segments.find((s) => s.id === id)?.film ?? 0
    const sheetTakes = (id: string) =>
      ready
        .filter((t) => t.segmentId === id)
        .map((t) => ({ id: t.id, number: t.number, seconds: t.seconds ?? 0, hearing: t.hearing }))
    const rows = new Map(segments.map((s) => [s.id, takeRows(sheetTakes(s.id), plannedOf(s.id))]))
    const ends = (id: string): { before: TableState; after: TableState } => {
      const mine = proofed.moments.filter((m) => m.segment.id === id)
      return { before: mine[0]?.before ?? emptyTable, after: mine.at(-1)?.after ?? emptyTable }
    }
    // The table stands as the segment filmed last left it.
    const last = [...ready]
      .filter((t) => t.source === 'recorded')
      .sort((a, b) => a.createdAt.localeCompare(b.createdAt))
      .at(-1)
    const now = last?.segmentId ? ends(last.segmentId).after : emptyTable
    return {
      rows,
      again: filmAgain(
        segments.map((s) => ({ segmentId: s.id, ...ends(s.id), takes: sheetTakes(s.id) })),
        now,
      ),
    }
  }, [segments, takes, proofed])
}

export function TakeSheet({
  segments,
  sheet,
  onGo,
}: {
  segments: readonly Segment[]
  sheet: Sheet
  onGo: (segmentId: string) => void
}) {
  const any = [...sheet.rows.values()].some((r) => r.length)
  if (!any)
    return <Empty>No takes yet. They are compared here, segment by segment, once there are some.</Empty>
  return (
    <table className="w-full text-left border-collapse">
      <thead className="text-sm text-steel">
        <tr>
          <th className="font-normal py-1 pr-2">Segment</th>
          <th className="font-normal pr-2">Take</th>
          <th className="font-normal pr-2 text-right">Score</th>
          <th className="font-normal pr-2 text-right">Words/min</th>
          <th className="font-normal pr-2 text-right">Kept</th>
          <th className="font-normal pr-2 text-right">Plan</th>
          <th className="font-normal">Slips</th>
        </tr>
      </thead>
      <tbody>
        {segments.map((s) => {
          const rows = sheet.rows.get(s.id) ?? []
          if (!rows.length)
            return (
              <tr key={s.id} className="border-t border-hair">
                <td className="py-1.5 pr-2">
                  <button
                    type="button"
                    className="font-semibold text-left hover:underline cursor-pointer min-h-8"
                    onClick={() => onGo(s.id)}
                  >
                    {s.title}
                  </button>
                </td>
                <td colSpan={6} className="text-steel">
                  not filmed
                </td>
              </tr>
            )
          return rows.map((r, i) => (
            <tr key={r.id} className={i === 0 ? 'border-t border-hair' : ''}>
              <td className="py-1 pr-2 align-top max-w-44 truncate">
                {i === 0 && (
                  <button
                    type="button"
                    className="font-semibold text-left hover:underline cursor-pointer min-h-8"
                    onClick={() => onGo(s.id)}
                  >
                    {s.title}
                  </button>
                )}
              </td>
              <td className="pr-2 align-top figures py-1.5">
                {r.number}
                {r.best && rows.length > 1 && <b className="ml-1 text-sm bg-wash rounded px-1">best</b>}
              </td>
              <td className="pr-2 align-top figures text-right py-1.5 whitespace-nowrap">{r.score ?? '–'}</td>
              <td className="pr-2 align-top figures text-right py-1.5 whitespace-nowrap">
                {r.pace ? Math.round(r.pace) : '–'}
              </td>
              <td className="pr-2 align-top figures text-right py-1.5 whitespace-nowrap">
                {clockTime(r.kept)}
              </td>
              <td className="pr-2 align-top figures text-right py-1.5 whitespace-nowrap">
                {r.ofPlan === null ? '–' : `${Math.round(r.ofPlan * 100)} %`}
              </td>
              <td className="align-top text-sm py-1.5">
                <span className={r.slips.some((f) => f.certain) ? 'text-brick' : 'text-steel'}>
                  {r.score === null
                    ? 'not heard yet'
                    : r.slips.length
                      ? r.slips
                          .slice(0, 2)
                          .map((f) => told('take', f))
                          .join(' ') + (r.slips.length > 2 ? ` +${r.slips.length - 2}` : '')
                      : 'none'}
                </span>
                {r.best && rows.length > 1 && <span className="block text-steel">{r.reason}</span>}
              </td>
            </tr>
          ))
        })}
      </tbody>
    </table>
  )
}

/** The list to film from while the table is set. */
export function FilmAgain({
  segments,
  again,
  onGo,
}: {
  segments: readonly Segment[]
  again: readonly AgainRow[]
  onGo: (segmentId: string) => void
}) {
  if (!again.length)
    return (
      <Empty>Nothing has to be filmed again: every segment has a take whose slips can be cut away.</Empty>
    )
  const total = again.reduce((s, r) => s + r.moves, 0)
  return (
    <div className="grid gap-2">
      <p className="text-steel">
        {total === 0
          ? 'The table needs no resetting between these: the lesson’s own order is as good as any.'
          : `In this order ${total} ${total === 1 ? 'thing is' : 'things are'} laid, taken off or turned between them${again.length <= everyOrder ? '; no other order needs fewer' : ''}.`}
      </p>
      <ol className="grid gap-1.5">
        {again.map((r, i) => (
          <Card as="li" key={r.segmentId} className="p-2.5 flex gap-3 items-start">
            <b className="figures w-5 text-right">{i + 1}</b>
            <div className="min-w-0 flex-1">
              <p className="font-semibold">{segments.find((s) => s.id === r.segmentId)?.title}</p>
              <p className="text-sm text-steel">
                {r.why === 'no take' ? 'Not filmed yet.' : r.slips.map((f) => told('take', f)).join(' ')}
              </p>
            </div>
            <span className="text-sm text-steel figures whitespace-nowrap pt-0.5">
              {r.moves === 0 ? 'table stands' : `${r.moves} to move`}
            </span>
            <Button small look="act" onClick={() => onGo(r.segmentId)}>
              Film it
            </Button>
          </Card>
        ))}
      </ol>
    </div>
  )
}
