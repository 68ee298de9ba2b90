import { useEffect, useState } from 'react'
import * as keepApi from '@awlbox/core/contracts/api/keep'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { megabytes, moment } from '../../frame/time.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'
import { KeptTimes } from './kept-times.tsx'

const whats = {
  films: 'Films and sound',
  photos: 'Photos of homes and pictures',
  files: 'Captions and other files',
} as const

/** How what is kept is kept safe: the nightly backup, and how much there is. */
export default function KeepingPage() {
  const { data, error, mutate } = useAsked(keepApi.keeping, {})
  useEffect(() => {
    document.title = 'What we keep · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-5 max-w-4xl">
        <h1 className="font-bold text-lg">What we keep</h1>
        {data ? (
          <>
            <KeptTimes />
            <Backup keeping={data} changed={() => void mutate()} />
            <Card as="section" aria-label="How much is kept" className="p-5 grid gap-3">
              <h2 className="font-bold text-lg">How much is kept</h2>
              {data.kept.length ? (
                <table className="figures w-full">
                  <tbody>
                    {data.kept.map((k) => (
                      <tr key={k.what} className="border-b border-hair last:border-0">
                        <th scope="row" className="text-left font-normal py-2">
                          {whats[k.what]}
                        </th>
                        <td className="text-right text-steel">{k.count}</td>
                        <td className="text-right w-28">{megabytes(k.bytes)}</td>
                      </tr>
                    ))}
                  </tbody>
                </table>
              ) : (
                <p className="text-steel">No film and no photo yet.</p>
              )}
              <p className="text-steel">
                Photos that were chosen and never sent go after a week, and films that were never sent after
                two months.
              </p>
            </Card>
          </>
        ) : (
          <p className="text-steel">Fetching what is kept…</p>
        )}
      </main>
    </>
  )
}

function Backup({ keeping, changed }: { keeping: keepApi.Keeping; changed: () => void }) {
  const [folder, setFolder] = useState(keeping.folder)
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  // While one is being made the page looks again until it is there.
  useEffect(() => {
    if (!keeping.waiting) return
    const timer = setInterval(changed, 2000)
    return () => clearInterval(timer)
  }, [keeping.waiting, changed])
  const trying = async (work: () => Promise<unknown>): Promise<void> => {
    setProblem(null)
    setBusy(true)
    await work().catch((error: unknown) => setProblem(wordsOf(error)))
    setBusy(false)
    changed()
  }
  const save = (on: boolean) => trying(() => ask(keepApi.saveKeeping, {}, { on, folder }))
  return (
    <Card as="section" aria-label="Nightly backup" className="p-5 grid gap-3">
      <h2 className="font-bold text-lg">Nightly backup</h2>
      <p className="text-steel">
        Every night all lessons, films, photos, replies and judgements are copied into a folder of the machine
        Awlbox runs on: best on another disk. Two weeks of nights are kept. It holds children’s work: keep the
        disk as safe as this machine, by your setting’s policy.
      </p>
      <p className="figures">
        {keeping.lastGood ? (
          <>
            Last good backup: <b>{moment(keeping.lastGood)}</b>
            {keeping.lastBytes !== null && (
              <span className="text-steel"> · {megabytes(keeping.lastBytes)}</span>
            )}
          </>
        ) : keeping.on ? (
          'No backup was made yet.'
        ) : (
          'The nightly backup is off. If this machine breaks, everything on it is lost.'
        )}
      </p>
      {keeping.problem && <Notice kind="wrong">The last try went wrong: {keeping.problem}</Notice>}
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {keeping.mayChange ? (
        <form
          className="grid gap-3"
          onSubmit={(e) => {
            e.preventDefault()
            void save(true)
          }}
        >
          <label className="grid gap-1">
            <span className="font-semibold">Folder for backups</span>
            <input
              className={`w-full ${fieldLook}`}
              value={folder}
              onChange={(e) => setFolder(e.target.value)}
              placeholder="/mnt/backups/awlbox"
              autoComplete="off"
              spellCheck={false}
            />
          </label>
          <div className="flex flex-wrap gap-2">
            <Button
              look="main"
              type="submit"
              disabled={busy || !folder.trim() || (keeping.on && folder === keeping.folder)}
            >
              {keeping.on ? 'Use this folder' : 'Back up every night'}
            </Button>
            {keeping.on && (
              <Button disabled={busy} onClick={() => void save(false)}>
                Switch off
              </Button>
            )}
            {keeping.folder && (
              <Button
                disabled={busy || keeping.waiting}
                onClick={() => void trying(() => ask(keepApi.backUpNow, {}))}
              >
                {keeping.waiting ? 'Backing up…' : 'Back up now'}
              </Button>
            )}
          </div>
        </form>
      ) : (
        <p className="text-steel">The owner of the setting chooses whether and where it goes.</p>
      )}
    </Card>
  )
}
