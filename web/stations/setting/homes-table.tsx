import { createColumnHelper, flexRender, getCoreRowModel, useReactTable } from '@tanstack/react-table'
import { type KeyboardEvent, useId, useMemo, useRef, useState } from 'react'
import type { ChildFields, ChildRow } from '@awlbox/core/contracts/api/homes'
import { looksFull } from '@awlbox/core/setting/names'
import { Button } from '../../kit/button.tsx'
import { Select } from '../../kit/select.tsx'
import { ConsentMark } from './consent-mark.tsx'

interface Props {
  rows: readonly ChildRow[]
  classes: readonly { id: string; name: string }[]
  /** Names of homes there are, for what is typed. */
  homes: readonly string[]
  /** Where a child typed into the last row comes. */
  target: { id: string; name: string } | undefined
  chosen: string | null
  onChoose: (childId: string) => void
  onChange: (row: ChildRow, to: Partial<ChildFields>) => void
  onMove: (row: ChildRow, to: string) => void
  onAdd: (given: string, home: string) => Promise<boolean> | undefined
  onConsented: () => void
}
const column = createColumnHelper<ChildRow>()
/** Rows drawn at once: more are searched for. */
const most = 300

/** Up and down go along a column, as on paper; Enter keeps, Esc takes back. */
function along(e: KeyboardEvent<HTMLElement>): void {
  const input = e.target as HTMLInputElement
  if (e.key === 'Escape') {
    input.value = input.defaultValue
    input.blur()
    return
  }
  const by = e.key === 'ArrowDown' || e.key === 'Enter' ? 1 : e.key === 'ArrowUp' ? -1 : 0
  if (!by || e.nativeEvent.isComposing) return
  const cells = [
    ...(input
      .closest('table')
      ?.querySelectorAll<HTMLInputElement>(`[data-column="${input.dataset.column}"]`) ?? []),
  ]
  const next = cells[cells.indexOf(input) + by]
  e.preventDefault()
  if (next) {
    next.focus()
    next.select()
  } else input.blur()
}

function Cell({
  row,
  field,
  label,
  list,
  onChange,
}: {
  row: ChildRow
  field: 'given' | 'home' | 'second' | 'languages'
  label: string
  list?: string
  onChange: Props['onChange']
}) {
  const value = field === 'languages' ? row.languages.join(', ') : row[field]
  const doubtful = field === 'given' && looksFull(value)
  return (
    <input
      // What was saved meanwhile takes the place of what stands here.
      key={value}
      data-column={field}
      aria-label={`${label} of ${row.name}`}
      title={doubtful ? 'Looks like a full name: a given name or nickname is enough.' : undefined}
      defaultValue={value}
      readOnly={!row.mayChange}
      maxLength={field === 'languages' ? 120 : field === 'given' ? 40 : 60}
      list={list}
      autoComplete="off"
      onKeyDown={along}
      onBlur={(e) => {
        const now = e.target.value.trim()
        if (now === value || (!now && field !== 'second' && field !== 'languages')) {
          e.target.value = value
          return
        }
        onChange(
          row,
          field === 'languages'
            ? {
                languages: now
                  .split(/[,;/]/)
                  .map((l) => l.trim())
                  .filter(Boolean)
                  .slice(0, 6),
              }
            : { [field]: now },
        )
      }}
      className={`w-full min-h-9 rounded px-1.5 bg-transparent border ${doubtful ? 'border-saffron bg-here' : 'border-transparent hover:border-hair focus:border-hair focus:bg-card'}`}
    />
  )
}

const words = (value: boolean | null): string => (value === null ? '–' : value ? 'yes' : 'no')
/** Yes, no, or nobody said: one press goes on to the next. */
function YesNo({
  value,
  open = true,
  label,
  disabled,
  onChange,
}: {
  value: boolean | null
  /** Whether it may be left open. */
  open?: boolean
  label: string
  disabled: boolean
  onChange: (value: boolean | null) => void
}) {
  const next = value === null ? true : value ? false : open ? null : true
  return (
    <button
      type="button"
      disabled={disabled}
      aria-label={`${label}: ${value === null ? 'not said' : words(value)}`}
      onClick={() => onChange(next)}
      className={`min-h-9 min-w-10 rounded px-1.5 enabled:cursor-pointer enabled:hover:bg-wash ${value === null ? 'text-steel' : ''}`}
    >
      {words(value)}
    </button>
  )
}

export function HomesTable(p: Props) {
  const homesId = useId()
  const { classes, onChange, onMove, onChoose, onConsented, chosen } = p
  const columns = useMemo(
    () => [
      column.accessor('given', {
        header: 'Name',
        cell: ({ row: { original: r } }) => (
          <span className="flex items-center">
            <Cell row={r} field="given" label="Name" onChange={onChange} />
            {r.name !== r.given && (
              <span className="text-sm text-steel whitespace-nowrap pr-1" title={`Shown as ${r.name}`}>
                {r.name.slice(r.given.length)}
              </span>
            )}
          </span>
        ),
      }),
      column.display({
        id: 'class',
        header: 'Class',
        cell: ({ row: { original: r } }) => (
          <Select
            label={`Class of ${r.name}`}
            look="bare"
            value={r.classId}
            disabled={!r.mayChange}
            choices={classes.map((c) => ({ value: c.id, words: c.name }))}
            onChange={(to) => to !== r.classId && onMove(r, to)}
          />
        ),
      }),
      column.display({
        id: 'home',
        header: 'Home',
        cell: ({ row: { original: r } }) => (
          <Cell row={r} field="home" label="Home" list={homesId} onChange={onChange} />
        ),
      }),
      column.display({
        id: 'second',
        header: 'Second home',
        cell: ({ row: { original: r } }) => (
          <Cell row={r} field="second" label="Second home" list={homesId} onChange={onChange} />
        ),
      }),
      column.display({
        id: 'languages',
        header: 'Languages',
        cell: ({ row: { original: r } }) => (
          <Cell row={r} field="languages" label="Languages" onChange={onChange} />
        ),
      }),
      ...(
        [
          ['youngerChild', 'Younger child', false],
          ['phone', 'Phone', true],
          ['printer', 'Printer', true],
          ['metered', 'Metered', true],
        ] as const
      ).map(([field, header, open]) =>
        column.accessor(field, {
          header,
          cell: ({ row: { original: r } }) => (
            <YesNo
              value={r[field]}
              open={open}
              label={`${header} at the home of ${r.name}`}
              disabled={!r.mayChange}
              onChange={(value) => onChange(r, { [field]: value })}
            />
          ),
        }),
      ),
      ...(
        [
          ['photos', 'Photos'],
          ['sound', 'Voice'],
          ['showing', 'Showing'],
          ['naming', 'Naming'],
        ] as const
      ).map(([kind, header]) =>
        column.display({
          id: `consent ${kind}`,
          header,
          cell: ({ row: { original: r } }) => <ConsentMark row={r} kind={kind} onNoted={onConsented} />,
        }),
      ),
      column.display({
        id: 'more',
        header: () => <span className="sr-only">More</span>,
        cell: ({ row: { original: r } }) => (
          <Button
            small
            look="quiet"
            aria-pressed={chosen === r.id}
            aria-label={`More of ${r.name}`}
            onClick={() => onChoose(r.id)}
          >
            {chosen === r.id ? 'Close' : 'More'}
          </Button>
        ),
      }),
    ],
    [classes, onChange, onMove, onChoose, onConsented, chosen, homesId],
  )
  const data = useMemo(() => p.rows.slice(0, most), [p.rows])
  // eslint-disable-next-line react-hooks/incompatible-library -- the table keeps its own state; the rows are memoised
  const table = useReactTable({ data, columns, getCoreRowModel: getCoreRowModel(), getRowId: (r) => r.id })
  return (
    <div className="relative min-w-0 overflow-x-auto rounded-xl border border-hair bg-card">
      <datalist id={homesId}>
        {p.homes.map((h) => (
          <option key={h} value={h} />
        ))}
      </datalist>
      <table className="w-full text-left">
        <thead>
          {table.getHeaderGroups().map((group) => (
            <tr key={group.id} className="border-b border-hair">
              {group.headers.map((h) => (
                <th
                  key={h.id}
                  scope="col"
                  className="px-2 py-2 text-sm font-semibold text-steel whitespace-nowrap first:pl-3.5 first:sticky first:left-0 first:z-10 first:bg-card"
                >
                  {flexRender(h.column.columnDef.header, h.getContext())}
                </th>
              ))}
            </tr>
          ))}
        </thead>
        <tbody>
          {table.getRowModel().rows.map((row) => (
            <tr
              key={row.id}
              className={`border-b border-hair last:border-0 ${row.id === chosen ? 'bg-here' : ''}`}
            >
              {row.getVisibleCells().map((cell) => (
                <td
                  key={cell.id}
                  className={`px-0.5 py-0.5 first:pl-2 first:sticky first:left-0 first:z-10 ${row.id === chosen ? 'first:bg-here' : 'first:bg-card'} ${/^(given|home|second|languages)$/.test(cell.column.id) ? 'min-w-36' : ''}`}
                >
                  {flexRender(cell.column.columnDef.cell, cell.getContext())}
                </td>
              ))}
            </tr>
          ))}
        </tbody>
        {p.target && <AddRow target={p.target} homes={homesId} wide={columns.length} onAdd={p.onAdd} />}
      </table>
      {p.rows.length > most && (
        <p className="p-3 text-steel">
          {most} of {p.rows.length} are shown: choose a class, or search.
        </p>
      )}
    </div>
  )
}

function AddRow({
  target,
  homes,
  wide,
  onAdd,
}: {
  target: { name: string }
  homes: string
  wide: number
  onAdd: Props['onAdd']
}) {
  const [given, setGiven] = useState('')
  const [home, setHome] = useState('')
  const first = useRef<HTMLInputElement>(null)
  const add = () => {
    if (!given.trim()) return
    void onAdd(given.trim(), home.trim())?.then((well) => {
      if (!well) return
      setGiven('')
      setHome('')
      first.current?.focus()
    })
  }
  const onKeyDown = (e: KeyboardEvent) => {
    if (e.key === 'Enter') add()
  }
  const look = 'w-full min-h-9 rounded border border-hair bg-card px-1.5'
  return (
    <tfoot>
      <tr className="border-t border-hair">
        <td className="p-1 pl-2 sticky left-0 z-10 bg-card">
          <input
            ref={first}
            aria-label="Name of a new child"
            placeholder="New child"
            value={given}
            maxLength={40}
            autoComplete="off"
            onChange={(e) => setGiven(e.target.value)}
            onKeyDown={onKeyDown}
            className={look}
          />
        </td>
        <td className="px-2 text-sm text-steel">{target.name}</td>
        <td className="p-1">
          <input
            aria-label="Home of the new child"
            placeholder="Home"
            value={home}
            list={homes}
            maxLength={60}
            autoComplete="off"
            onChange={(e) => setHome(e.target.value)}
            onKeyDown={onKeyDown}
            className={look}
          />
        </td>
        <td colSpan={wide - 3} className="px-2">
          <Button small look="act" disabled={!given.trim()} onClick={add}>
            Add
          </Button>
          {looksFull(given) && (
            <span className="ml-2 text-sm">Looks like a full name: a given name or nickname is enough.</span>
          )}
        </td>
      </tr>
    </tfoot>
  )
}
