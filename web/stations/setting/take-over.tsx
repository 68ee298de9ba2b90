import Papa from 'papaparse'
import { useMemo, useState } from 'react'
import type { ChildRow } from '@awlbox/core/contracts/api/homes'
import type * as homesApi from '@awlbox/core/contracts/api/homes'
import type { Body } from '@awlbox/core/contracts/api/route'
import { readTable, type TableRow } from '@awlbox/core/setting/children-table'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

type NewChild = Body<typeof homesApi.addChildren>['children'][number]
/** Rows drawn of a long table: those with something doubtful first. */
const most = 200

/** A table before it is taken over: what is doubtful in saffron, what cannot be taken in brick, each with its reason. */
export function TakeOver({
  text,
  note,
  rows,
  classes,
  target,
  onClose,
  onTake,
}: {
  text: string
  note: string | null
  rows: readonly ChildRow[]
  classes: readonly { id: string; name: string }[]
  target: { id: string; name: string }
  onClose: () => void
  onTake: (lists: [classId: string, children: NewChild[]][]) => Promise<void>
}) {
  const [to, setTo] = useState(target.id)
  const [left, setLeft] = useState<ReadonlySet<number>>(new Set())
  const [busy, setBusy] = useState(false)
  const read = useMemo(() => {
    const { data } = Papa.parse<string[]>(text, { skipEmptyLines: 'greedy' })
    const name = new Map(classes.map((c) => [c.id, c.name]))
    return readTable(
      data,
      rows.map((r) => ({ given: r.given, home: r.home, className: name.get(r.classId) ?? '' })),
      [...new Set(rows.map((r) => r.home))],
    )
  }, [text, rows, classes])
  const known = (name: string | null) =>
    classes.find((c) => c.name.toLowerCase() === (name ?? '').toLowerCase())
  const whys = (r: TableRow): string[] => [
    ...(r.wrong ? [r.wrong] : r.doubts.map((d) => d.why)),
    ...(!r.wrong && r.className && !known(r.className)
      ? [`No class “${r.className}”: comes to the one chosen.`]
      : []),
  ]
  const taken = read.rows.filter((r) => !r.wrong && !left.has(r.line))
  const doubtful = read.rows.filter((r) => whys(r).length)
  const shown = [...doubtful, ...read.rows.filter((r) => !whys(r).length)].slice(0, most)
  const take = async () => {
    const lists = new Map<string, NewChild[]>()
    for (const { className, line: _l, doubts: _d, wrong: _w, ...child } of taken) {
      const classId = known(className)?.id ?? to
      lists.set(classId, [...(lists.get(classId) ?? []), child])
    }
    setBusy(true)
    await onTake([...lists]).finally(() => setBusy(false))
  }
  return (
    <Dialog open onClose={onClose} title="Before it is taken over" wide>
      <div className="grid gap-3">
        {note && <Notice kind="info">{note}</Notice>}
        {read.problem && <Notice kind="wrong">{read.problem} Nothing was taken over.</Notice>}
        {read.leftOut.length > 0 && (
          <p>
            Left behind:{' '}
            {read.leftOut.map((c, i) => (
              <span key={c.head + i}>
                {i > 0 && ', '}
                <b>{c.head}</b> <span className="text-steel">({c.why})</span>
              </span>
            ))}
          </p>
        )}
        {read.rows.length > 0 && (
          <>
            <p className="figures">
              {taken.length} of {read.rows.length} rows are taken over
              {doubtful.length > 0 && `, ${doubtful.length} of all need a look`}.
            </p>
            <div className="max-h-[46dvh] overflow-auto rounded-lg border border-hair">
              <table className="w-full text-left">
                <thead>
                  <tr className="text-sm text-steel border-b border-hair">
                    {['', 'Row', 'Name', 'Class', 'Home', ''].map((h, i) => (
                      <th key={i} scope="col" className="px-2 py-1.5 font-semibold">
                        {h}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {shown.map((r) => {
                    const cells = new Set(r.doubts.map((d) => d.column))
                    const look = (c: 'given' | 'home') => (cells.has(c) ? 'bg-here rounded px-1' : 'px-1')
                    return (
                      <tr key={r.line} className="border-b border-hair last:border-0 align-top">
                        <td className="px-2 py-1.5">
                          <input
                            type="checkbox"
                            aria-label={`Take over row ${r.line}`}
                            checked={!r.wrong && !left.has(r.line)}
                            disabled={r.wrong !== null}
                            onChange={(e) =>
                              setLeft((l) => {
                                const next = new Set(l)
                                if (e.target.checked) next.delete(r.line)
                                else next.add(r.line)
                                return next
                              })
                            }
                            className="w-5 h-5 accent-ink"
                          />
                        </td>
                        <td className="px-2 py-1.5 figures text-steel">{r.line}</td>
                        <td className="px-1 py-1.5">
                          <span className={look('given')}>{r.given}</span>
                        </td>
                        <td className="px-2 py-1.5">{known(r.className)?.name ?? ''}</td>
                        <td className="px-1 py-1.5">
                          <span className={look('home')}>{r.home}</span>
                        </td>
                        <td className={`px-2 py-1.5 text-sm ${r.wrong ? 'text-brick' : 'text-steel'}`}>
                          {whys(r).join(' ')}
                        </td>
                      </tr>
                    )
                  })}
                </tbody>
              </table>
            </div>
            {read.rows.length > most && (
              <p className="text-sm text-steel">
                {most} of {read.rows.length} rows are shown, the doubtful ones first.
              </p>
            )}
          </>
        )}
        <div className="flex flex-wrap items-center gap-2">
          <span>Where no class is said:</span>
          <Select
            label="Class for rows without one"
            value={to}
            onChange={setTo}
            choices={classes.map((c) => ({ value: c.id, words: c.name }))}
          />
          <span className="flex-1" />
          <Button onClick={onClose}>Leave it</Button>
          <Button look="main" disabled={busy || taken.length === 0} onClick={() => void take()}>
            {busy ? 'Taking over…' : `Take over ${taken.length}`}
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
