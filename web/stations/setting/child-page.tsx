import { useEffect, useState } from 'react'
import { Link, useParams } from 'react-router'
import { useSWRConfig } from 'swr'
import type { KeptOfChild, Receipt } from '@awlbox/core/contracts/api/homes'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import { ask, fileAt, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { longDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'

const whats: Record<KeptOfChild['kept'][number]['what'], string> = {
  replies: 'Replies',
  photos: 'Photos',
  recordings: 'Recordings',
  judgements: 'Judgements, from which the standing comes',
  consents: 'Consents',
  note: 'Private note',
}
const day = (iso: string | null, none: string): string => (iso === null ? none : longDay(iso))

/** Everything kept about one child: how much, since when, until when; taken away as a folder, or deleted with the proof. */
export default function ChildPage() {
  const { childId = '' } = useParams()
  const [receipt, setReceipt] = useState<Receipt | null>(null)
  const { data, error } = useAsked(homesApi.keptOfChild, receipt ? null : { childId })
  const { mutate: refresh } = useSWRConfig()
  const [typed, setTyped] = useState<string | null>(null)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  useEffect(() => {
    document.title = `${data ? `What we keep about ${data.name}` : 'What we keep'} · Awlbox`
  }, [data])
  if (error && !data) return <Away error={error} />
  const remove = async () => {
    setBusy(true)
    setProblem(null)
    try {
      setReceipt(await ask(homesApi.deleteChild, { childId }))
      void refresh((key) => typeof key === 'object', undefined, { revalidate: true })
    } catch (e) {
      setProblem(wordsOf(e))
    } finally {
      setBusy(false)
    }
  }
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-4 content-start max-w-3xl">
        {receipt ? (
          <Card as="section" aria-label="Deleted" className="p-5 grid gap-2">
            <h1 className="font-bold text-lg">Deleted</h1>
            <p className="figures">
              {receipt.replies} replies, {receipt.photos} photos, {receipt.recordings} recordings,{' '}
              {receipt.judgements} judgements and {receipt.files} files are gone.
            </p>
            <p role="status" className={receipt.left ? 'text-brick font-semibold' : ''}>
              {receipt.left
                ? `${receipt.left} rows or files are still there: run ./awlbox sweep on the machine, and tell whoever looks after it.`
                : 'Every row that could point to it and every file of it was looked for afterwards: none is left.'}
            </p>
            <p className="text-steel text-sm">
              Backups made before still hold it until they are two weeks old. The record of use says that and
              when it was deleted, without the name.
            </p>
            <Link to="/homes" className="font-semibold underline underline-offset-4">
              Back to Homes
            </Link>
          </Card>
        ) : data ? (
          <>
            <div>
              <h1 className="font-bold text-lg">What we keep about {data.name}</h1>
              <p className="text-steel">
                {data.leftAt ? `Left ${data.className} on ${day(data.leftAt, '')}` : data.className}
              </p>
            </div>
            {problem && <Notice kind="wrong">{problem}</Notice>}
            <Card as="section" aria-label="What is kept" className="p-5 overflow-x-auto">
              <table className="w-full text-left">
                <thead>
                  <tr className="text-sm text-steel">
                    {['', 'How many', 'Since', 'Until'].map((h) => (
                      <th key={h} scope="col" className="py-1.5 pr-4 font-semibold">
                        {h}
                      </th>
                    ))}
                  </tr>
                </thead>
                <tbody>
                  {data.kept.map((k) => (
                    <tr key={k.what} className="border-t border-hair">
                      <th scope="row" className="py-2 pr-4 font-normal">
                        {whats[k.what]}
                      </th>
                      <td className="py-2 pr-4 figures">{k.count}</td>
                      <td className="py-2 pr-4 figures text-steel">{day(k.oldest, '–')}</td>
                      <td className="py-2 figures text-steel">
                        {k.count === 0
                          ? '–'
                          : day(
                              k.until,
                              k.what === 'replies' || k.what === 'photos' || k.what === 'recordings'
                                ? 'deleted by hand'
                                : 'after leaving',
                            )}
                      </td>
                    </tr>
                  ))}
                </tbody>
              </table>
            </Card>
            <div className="flex flex-wrap gap-2">
              <a
                href={fileAt(homesApi.exportChild, { childId })}
                className="inline-flex min-h-10 items-center rounded-lg border border-hair bg-card px-3.5 font-semibold hover:bg-wash"
              >
                Take it all away as a folder
              </a>
              {typed === null && (
                <Button look="wrong" onClick={() => setTyped('')}>
                  Delete everything…
                </Button>
              )}
            </div>
            <p className="text-sm text-steel">
              The folder holds JSON, a table and the pictures: give it only to whom it belongs, as your
              setting’s policy and local law say.
            </p>
            {typed !== null && (
              <Card as="section" aria-label="Delete everything" className="p-5 grid gap-3 border-brick">
                <p>
                  Every reply, photo, judgement, consent and note of {data.name} is deleted at once, here and
                  in every class. If no other child lives in the home, the home and its link go too. It cannot
                  be taken back.
                </p>
                <label className="grid gap-1 max-w-sm">
                  <span className="font-semibold">Type the name to be sure: {data.name}</span>
                  <input
                    className={fieldLook}
                    value={typed}
                    autoComplete="off"
                    onChange={(e) => setTyped(e.target.value)}
                  />
                </label>
                <div className="flex gap-2">
                  <Button
                    look="wrong"
                    disabled={busy || typed.trim().toLowerCase() !== data.name.toLowerCase()}
                    onClick={() => void remove()}
                  >
                    {busy ? 'Deleting…' : 'Delete everything'}
                  </Button>
                  <Button onClick={() => setTyped(null)}>Keep it</Button>
                </div>
              </Card>
            )}
          </>
        ) : (
          <p className="text-steel">Fetching what is kept…</p>
        )}
      </main>
    </>
  )
}
