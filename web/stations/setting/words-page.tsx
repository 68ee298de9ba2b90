import { useState } from 'react'
import type { OwnWord } from '@awlbox/core/contracts/api/send'
import * as sendApi from '@awlbox/core/contracts/api/send'
import * as postApi from '@awlbox/core/contracts/api/post'
import { homeLanguages, type HomeLanguage } from '@awlbox/core/contracts/home-lists'
import type { PostRules } from '@awlbox/core/contracts/post'
import { speech } from '@awlbox/core/send/words/words'
import { ask, wordsOf } from '../../api.ts'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useMe } from '../../frame/me.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

/** When homes are written to, and every word they read: in four languages, each to be put otherwise. */
export default function WordsPage() {
  const [language, setLanguage] = useState<HomeLanguage>('pl')
  return (
    <>
      <SettingFrame />
      <main className="grid grid-cols-[minmax(0,1fr)] gap-4 p-5 max-w-5xl">
        <h1 className="font-bold text-lg">What homes read</h1>
        <Rules />
        <Card as="section" aria-label="Words" className="p-4 grid gap-3">
          <div className="flex items-center gap-3">
            <h2 className="font-bold flex-1">Words of the page and of letters</h2>
            <Select
              label="Language"
              value={language}
              choices={homeLanguages.map((value) => ({ value, words: speech[value].name }))}
              onChange={setLanguage}
            />
          </div>
          <Wording key={language} language={language} />
        </Card>
      </main>
    </>
  )
}

const hours = Array.from({ length: 24 }, (_, h) => ({
  value: String(h),
  words: `${String(h).padStart(2, '0')}:00`,
}))
function Rules() {
  const me = useMe()
  const { data, mutate } = useAsked(postApi.postRules, {})
  const [problem, setProblem] = useState<string | null>(null)
  if (!data) return null
  const { byMail, ...rules } = data
  const owner = me?.role === 'owner'
  const save = async (change: Partial<PostRules>) => {
    setProblem(null)
    await ask(postApi.savePostRules, {}, { ...rules, ...change }).catch((e: unknown) =>
      setProblem(wordsOf(e)),
    )
    await mutate()
  }
  return (
    <Card as="section" aria-label="When homes are written to" className="p-4 grid gap-3">
      <h2 className="font-bold">When homes are written to</h2>
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <p className="text-steel">
        {byMail
          ? 'One letter a day at most, by the setting’s mail server.'
          : 'There is no mail server (AWLBOX_SMTP): each letter is a text you copy, and Awlbox remembers which ones.'}
      </p>
      {owner ? (
        <div className="flex flex-wrap items-center gap-x-6 gap-y-2">
          <span className="flex items-center gap-2">
            Quiet from
            <Select
              label="Quiet from"
              value={String(rules.quietFrom)}
              choices={hours}
              onChange={(h) => void save({ quietFrom: Number(h) })}
            />
            until
            <Select
              label="Quiet until"
              value={String(rules.quietTo)}
              choices={hours}
              onChange={(h) => void save({ quietTo: Number(h) })}
            />
          </span>
          <span className="flex items-center gap-2">
            Remind who sent nothing
            <Select
              label="Remind"
              value={String(rules.nudgeAfter ?? 'never')}
              choices={[
                { value: 'never', words: 'never' },
                ...[1, 2, 3, 4, 5, 7, 10, 14].map((d) => ({
                  value: String(d),
                  words: d === 1 ? 'after a day' : `after ${d} days`,
                })),
              ]}
              onChange={(d) => void save({ nudgeAfter: d === 'never' ? null : Number(d) })}
            />
          </span>
          <label className="flex items-center gap-2 min-h-10">
            <input
              type="checkbox"
              className="size-4 accent-ink"
              checked={rules.thanks}
              onChange={(e) => void save({ thanks: e.target.checked })}
            />
            Say thanks when a reply arrives
          </label>
        </div>
      ) : (
        <p>
          Quiet from {rules.quietFrom}:00 until {rules.quietTo}:00. An owner can change this.
        </p>
      )}
    </Card>
  )
}

function Wording({ language }: { language: HomeLanguage }) {
  const { data, mutate } = useAsked(sendApi.homeWords, { language })
  const [wanted, setWanted] = useState('')
  const [problem, setProblem] = useState<{ key: string; words: string } | null>(null)
  if (!data) return <p className="text-steel">Opening…</p>
  const like = wanted.trim().toLowerCase()
  const shown = data.items.filter(
    (i) => !like || [i.english, i.ours, i.mine].some((t) => t?.toLowerCase().includes(like)),
  )
  const save = async (item: OwnWord, text: string) => {
    const words = text.trim()
    setProblem(null)
    await ask(
      sendApi.saveHomeWords,
      { language },
      { key: item.key, words: words === '' || words === item.ours ? null : words },
    ).catch((e: unknown) => setProblem({ key: item.key, words: wordsOf(e) }))
    await mutate()
  }
  const mine = data.items.filter((i) => i.mine !== null).length
  return (
    <>
      <div className="flex items-center gap-3">
        <input
          type="search"
          aria-label="Find"
          placeholder="Find"
          value={wanted}
          onChange={(e) => setWanted(e.target.value)}
          className="min-h-10 rounded-lg border border-hair bg-card px-3"
        />
        <span className="text-steel">
          {shown.length} of {data.items.length} · {mine === 1 ? 'one is your own' : `${mine} are your own`}
        </span>
      </div>
      <p className="text-sm text-steel">
        What stands in {'{ }'} is filled in: keep it. Emptied, our wording stands again.
      </p>
      <ul className="grid gap-2">
        {shown.slice(0, 80).map((i) => (
          <li key={i.key} className="grid grid-cols-2 max-md:grid-cols-1 gap-2 border-t border-hair pt-2">
            <span className="text-sm whitespace-pre-wrap">{i.english}</span>
            <span className="grid gap-1">
              <textarea
                key={i.mine ?? i.ours ?? ''}
                aria-label={`${speech[language].name}: ${i.english}`}
                lang={language}
                dir={speech[language].direction}
                rows={Math.max(1, Math.ceil((i.mine ?? i.ours ?? '').length / 52))}
                maxLength={1200}
                defaultValue={i.mine ?? i.ours ?? ''}
                onBlur={(e) => e.target.value.trim() !== (i.mine ?? i.ours) && void save(i, e.target.value)}
                className={`rounded-lg border bg-card px-2 py-1 ${i.mine === null ? 'border-hair' : 'border-ink'}`}
              />
              {problem?.key === i.key && (
                <span role="alert" className="text-sm text-brick">
                  {problem.words}
                </span>
              )}
            </span>
          </li>
        ))}
      </ul>
      {shown.length > 80 && <p className="text-steel">And {shown.length - 80} more: find them by a word.</p>}
    </>
  )
}
