import { useEffect, useState } from 'react'
import * as recordApi from '@awlbox/core/contracts/api/record'
import { acts } from '@awlbox/core/contracts/api/route'
import { ask, fileAt, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { DateField } from '../../kit/date-field.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { named, Select } from '../../kit/select.tsx'

const when = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
    hour: '2-digit',
    minute: '2-digit',
  })

/** What is asked for: what is left open is left out. */
const wantedBy = (chosen: {
  person: string
  act: (typeof acts)[number] | 'all'
  from: string
  until: string
}) => Object.fromEntries(Object.entries(chosen).filter(([, v]) => v && v !== 'all')) as recordApi.Wanted

/** Who saw, changed, exported, sent or deleted what. */
export default function RecordPage() {
  const [person, setPerson] = useState('all')
  const [act, setAct] = useState<(typeof acts)[number] | 'all'>('all')
  const [from, setFrom] = useState('')
  const [until, setUntil] = useState('')
  const wanted = wantedBy({ person, act, from, until })
  const key = JSON.stringify(wanted)
  const { data, error } = useAsked(recordApi.readRecord, wanted)
  const [more, setMore] = useState<{ key: string; items: recordApi.RecordLine[]; next: string | null }>()
  const [problem, setProblem] = useState<string | null>(null)
  useEffect(() => {
    document.title = 'Record · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  const further = more?.key === key ? more : undefined
  const items = [...(data?.items ?? []), ...(further?.items ?? [])]
  const next = further ? further.next : (data?.next ?? null)
  const goOn = async () => {
    try {
      const page = await ask(recordApi.readRecord, { ...wanted, after: next! })
      setMore({ key, items: [...(further?.items ?? []), ...page.items], next: page.next })
      setProblem(null)
    } catch (e) {
      setProblem(wordsOf(e))
    }
  }
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-3 content-start max-w-5xl">
        <div className="flex flex-wrap items-center gap-2">
          <h1 className="font-bold text-lg mr-2">Record of use</h1>
          <Select
            label="Of whom"
            value={person}
            onChange={setPerson}
            choices={[
              { value: 'all', words: 'Everybody' },
              ...(data?.people ?? []).map((p) => ({ value: p.id, words: p.name })),
            ]}
          />
          <Select
            label="Of what"
            value={act}
            onChange={setAct}
            choices={[{ value: 'all', words: 'Everything' }, ...named(acts)]}
          />
          <DateField label="From day" value={from} onChange={setFrom} className="w-40" />
          <DateField label="To day" value={until} onChange={setUntil} className="w-40" />
          <span className="flex-1" />
          <a
            href={fileAt(recordApi.recordCsv, wanted)}
            className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
          >
            Save as a table
          </a>
        </div>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        {data && <Lines items={items} />}
        {next && (
          <div>
            <Button onClick={() => void goOn()}>Older ones</Button>
          </div>
        )}
        <p className="text-sm text-steel">
          Lines are only added to; no child’s name stands in them. How long they are kept is said on the page
          What we keep.
        </p>
      </main>
    </>
  )
}

function Lines({ items }: { items: readonly recordApi.RecordLine[] }) {
  if (items.length === 0)
    return (
      <Empty>
        <p>Nothing of this was noted. Every look, change, sending and deletion from now on is.</p>
      </Empty>
    )
  return (
    <div className="overflow-x-auto rounded-xl border border-hair bg-card">
      <table className="w-full text-left">
        <thead>
          <tr className="border-b border-hair text-sm text-steel">
            {['When', 'Who', 'Act', 'What'].map((h) => (
              <th key={h} scope="col" className="px-3.5 py-2 font-semibold">
                {h}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {items.map((l) => (
            <tr key={l.id} className="border-b border-hair last:border-0 align-top">
              <td className="px-3.5 py-2 figures text-steel whitespace-nowrap">{when(l.at)}</td>
              <td className="px-3.5 py-2 whitespace-nowrap">
                {l.who ?? (l.act === 'tidied' ? 'Awlbox' : '–')}
              </td>
              <td
                className={`px-3.5 py-2 whitespace-nowrap ${l.act === 'refused' || l.act === 'deleted' ? 'text-brick font-semibold' : ''}`}
              >
                {l.act}
              </td>
              <td className="px-3.5 py-2">{l.words}</td>
            </tr>
          ))}
        </tbody>
      </table>
    </div>
  )
}
