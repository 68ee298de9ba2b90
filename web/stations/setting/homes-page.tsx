import { useCallback, useEffect, useMemo, useRef, useState } from 'react'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import * as sendApi from '@awlbox/core/contracts/api/send'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import { fileAt } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useAllPages, useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'
import { HomePanel } from './home-panel.tsx'
import { HomesTable } from './homes-table.tsx'
import { TakeOver } from './take-over.tsx'
import { useHomeActs } from './use-home-acts.ts'
import { useUndo } from './use-undo.ts'

/** Children and their homes: one table, typed into like paper. */
export default function HomesPage() {
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const { data, error, mutate } = useAllPages(homesApi.homes, {})
  const after = useCallback(() => mutate(), [mutate])
  const looked = useCallback(() => void mutate(), [mutate])
  const undoing = useUndo(after)
  const [cls, setCls] = useState('all')
  const [search, setSearch] = useState('')
  const [chosen, setChosen] = useState<string | null>(null)
  const [taking, setTaking] = useState<{ text: string; note: string | null } | null>(null)
  const file = useRef<HTMLInputElement>(null)
  useEffect(() => {
    document.title = 'Homes · Awlbox'
  }, [])
  const rows = useMemo(() => data?.items ?? [], [data])
  const { change, move, add } = useHomeActs(rows, undoing)
  const classes = shelf?.classes ?? []
  const shown = useMemo(() => {
    const like = (text: string) => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase()
    const wanted = like(search.trim())
    return rows.filter(
      (r) =>
        (cls === 'all' || r.classId === cls) &&
        (!wanted || like([r.given, r.home, r.second, ...r.languages].join(' ')).includes(wanted)),
    )
  }, [rows, cls, search])
  if (error && !data) return <Away error={error} />

  const read = async (f: File) => {
    const { decodeText } = await import('./decode.ts')
    const { text, as } = decodeText(new Uint8Array(await f.arrayBuffer()))
    setTaking({ text, note: as && `${f.name} was read as ${as}: look at the letters with accents.` })
  }
  const own = rows.find((r) => r.id === chosen)
  const mine = classes.filter((c) => rows.some((r) => r.classId === c.id && r.mayChange))
  const target = (cls === 'all' ? undefined : classes.find((c) => c.id === cls)) ?? mine[0] ?? classes[0]
  return (
    <>
      <SettingFrame>
        <span role="status" className="text-steel max-sm:sr-only">
          {undoing.busy ? 'Saving…' : data ? 'Saved' : ''}
        </span>
        <Button
          disabled={!undoing.canUndo}
          onClick={undoing.undo}
          title={undoing.canUndo ? `Undo ${undoing.canUndo}` : undefined}
        >
          Undo
        </Button>
        <Button disabled={!undoing.canRedo} onClick={undoing.redo} className="max-sm:hidden">
          Redo
        </Button>
      </SettingFrame>
      <main
        className="p-5 grid grid-cols-[minmax(0,1fr)] gap-3 content-start"
        onPaste={(e) => {
          const text = e.clipboardData.getData('text')
          // One word goes into its cell; a table is looked through first.
          if (!/[\t\n]/.test(text.trim())) return
          e.preventDefault()
          setTaking({ text, note: null })
        }}
        onDragOver={(e) => e.preventDefault()}
        onDrop={(e) => {
          e.preventDefault()
          const f = e.dataTransfer.files[0]
          if (f) void read(f)
        }}
      >
        <div className="flex flex-wrap items-center gap-2">
          <h1 className="font-bold text-lg mr-2">Children and homes</h1>
          <Select
            label="Class"
            value={cls}
            onChange={setCls}
            choices={[
              { value: 'all', words: 'All classes' },
              ...classes.map((c) => ({ value: c.id, words: c.name })),
            ]}
          />
          <input
            type="search"
            aria-label="Search children and homes"
            placeholder="Search"
            value={search}
            onChange={(e) => setSearch(e.target.value)}
            className={`${fieldLook} w-44`}
          />
          <span className="figures text-steel">
            {shown.length} {shown.length === 1 ? 'child' : 'children'}
          </span>
          <span className="flex-1" />
          <input
            ref={file}
            type="file"
            accept=".csv,.tsv,.txt,text/csv,text/plain"
            className="sr-only"
            aria-label="A table from a file"
            tabIndex={-1}
            onChange={(e) => {
              const f = e.target.files?.[0]
              if (f) void read(f)
              e.target.value = ''
            }}
          />
          <Button onClick={() => file.current?.click()} disabled={!target}>
            From a file
          </Button>
          {target && (
            <a
              href={fileAt(sendApi.homeLetters, { classId: target.id })}
              className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
            >
              Letters to print
            </a>
          )}
          <a
            href={fileAt(homesApi.homesCsv, {})}
            className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
          >
            Save as a table
          </a>
        </div>
        {undoing.problem && (
          <Notice
            kind="wrong"
            action={
              <Button small onClick={() => undoing.setProblem(null)}>
                Close
              </Button>
            }
          >
            {undoing.problem}
          </Notice>
        )}
        {data && rows.length === 0 && (
          <Empty>
            <p>
              Here will be every child with their home, and the private link its lessons arrive by. Type the
              first one into the row below, or paste a list: given names or nicknames are enough.
            </p>
          </Empty>
        )}
        <div>
          <HomesTable
            rows={shown}
            classes={classes}
            homes={[...new Set(rows.flatMap((r) => [r.home, r.second]).filter(Boolean))].sort()}
            target={target}
            chosen={chosen}
            onChoose={(id) => setChosen(id === chosen ? null : id)}
            onChange={(row, to) => void change(row, to)}
            onMove={(row, to) => void move(row, to)}
            onAdd={(given, home) =>
              target ? add(target.id, { children: [{ given, home: home || `Home of ${given}` }] }) : undefined
            }
            onConsented={looked}
          />
          {own && (
            <HomePanel
              key={own.id}
              row={own}
              siblings={rows.filter((r) => r.householdId === own.householdId && r.id !== own.id)}
              onClose={() => setChosen(null)}
              onChange={(to) => void change(own, to)}
              onLeave={() => void move(own, null).then((well) => well && setChosen(null))}
              onChanged={looked}
            />
          )}
        </div>
        <p className="text-sm text-steel max-w-3xl">
          Given name or nickname only: no surname, birth date or address is needed here. Paste rows from a
          spreadsheet anywhere on this page, or drop a file: you see every doubtful row before anything is
          taken over.
        </p>
      </main>
      {taking && target && (
        <TakeOver
          text={taking.text}
          note={taking.note}
          rows={rows}
          classes={classes}
          target={target}
          onClose={() => setTaking(null)}
          onTake={async (lists) => {
            for (const [classId, children] of lists) if (!(await add(classId, { children }))) return
            setTaking(null)
          }}
        />
      )}
    </>
  )
}
