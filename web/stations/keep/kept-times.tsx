import { useState } from 'react'
import * as keepApi from '@awlbox/core/contracts/api/keep'
import { type KeptKind, leastKept } from '@awlbox/core/contracts/kept-for'
import { ask, wordsOf } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { longDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'

const kinds: Record<KeptKind, { name: string; from: string }> = {
  photos: { name: 'Photos from homes', from: 'days after they came' },
  sound: { name: 'Recordings as they were filmed', from: 'days; the film made of each stays' },
  films: { name: 'Finished films', from: 'days after they were last sent' },
  replies: { name: 'Replies', from: 'days; judgements of them stay' },
  standings: { name: 'Standings, of children who left', from: 'days after they left' },
  record: { name: 'Record of use', from: 'days' },
}

/** How long each kind is kept: how much there is, how old the oldest is, what is due soon. */
export function KeptTimes() {
  const { data, mutate } = useAsked(keepApi.keptTimes, {})
  const [problem, setProblem] = useState<string | null>(null)
  const [before, setBefore] = useState<Partial<keepApi.KeptTimes['keptFor']> | null>(null)
  const save = async (change: Partial<keepApi.KeptTimes['keptFor']>, undoing = false) => {
    setProblem(null)
    try {
      const was = Object.fromEntries(
        Object.keys(change).map((k) => [k, data!.keptFor[k as KeptKind]]),
      ) as typeof change
      await ask(keepApi.saveKeptTimes, {}, change)
      setBefore(undoing ? null : was)
    } catch (e) {
      setProblem(wordsOf(e))
    }
    await mutate()
  }
  if (!data) return <p className="text-steel">Fetching how long things are kept…</p>
  return (
    <Card as="section" aria-label="How long it is kept" className="p-5 grid gap-3">
      <div className="flex items-center gap-3">
        <h2 className="font-bold text-lg flex-1">How long it is kept</h2>
        {before && (
          <Button small onClick={() => void save(before, true)}>
            Undo
          </Button>
        )}
      </div>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <div className="overflow-x-auto">
        <table className="w-full text-left">
          <thead>
            <tr className="text-sm text-steel">
              {['', 'There are', 'Oldest', 'Kept for', 'Due in a month'].map((h) => (
                <th key={h} scope="col" className="py-1.5 pr-3 font-semibold">
                  {h}
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {data.kinds.map((k) => (
              <tr key={k.kind} className="border-t border-hair">
                <th scope="row" className="py-2 pr-3 font-normal">
                  {kinds[k.kind].name}
                </th>
                <td className="py-2 pr-3 figures">{k.count}</td>
                <td className="py-2 pr-3 figures text-steel whitespace-nowrap">
                  {k.oldest ? longDay(k.oldest) : '–'}
                </td>
                <td className="py-1 pr-3">
                  <span className="flex items-center gap-2">
                    <input
                      key={String(data.keptFor[k.kind])}
                      aria-label={`${kinds[k.kind].name}: kept for how many days`}
                      inputMode="numeric"
                      defaultValue={data.keptFor[k.kind] ?? ''}
                      placeholder="no end"
                      disabled={!data.mayChange}
                      onKeyDown={(e) => e.key === 'Enter' && e.currentTarget.blur()}
                      onBlur={(e) => {
                        const now = data.keptFor[k.kind]
                        const text = e.target.value.trim()
                        const days = text === '' ? null : Number(text)
                        if (days === now) return
                        if (days !== null && !(Number.isInteger(days) && days >= leastKept && days <= 3650)) {
                          setProblem(
                            `Days are a whole number from ${leastKept} to 3650, or empty for no end. Nothing was changed.`,
                          )
                          e.target.value = now === null ? '' : String(now)
                          return
                        }
                        void save({ [k.kind]: days })
                      }}
                      className={`${fieldLook} w-24 figures`}
                    />
                    <span className="text-sm text-steel">{kinds[k.kind].from}</span>
                  </span>
                </td>
                <td className={`py-2 figures ${k.soon ? 'font-semibold' : 'text-steel'}`}>{k.soon || '–'}</td>
              </tr>
            ))}
          </tbody>
        </table>
      </div>
      <p className="text-steel">
        Once a day what is due is deleted, and the record says so. Local law and your setting’s own policy
        come first: these are days to begin with, no advice. Replies take the answers with them from which
        standings are reckoned; what was judged stays.
      </p>
    </Card>
  )
}
