import { useState } from 'react'
import type { SentHome } from '@awlbox/core/contracts/api/send'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { homeLanguages, type HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { speech } from '@awlbox/core/send/words/words'
import { ask, wordsOf } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Card } from '../../kit/card.tsx'
import { Empty, Notice } from '../../kit/notice.tsx'
import { Tabs } from '../../kit/tabs.tsx'

/** The lesson's own sentences in the languages its homes read: whoever speaks one writes them beside the English. */
export function OtherLanguages({ lessonId, homes }: { lessonId: string; homes: readonly SentHome[] }) {
  const read = homeLanguages.filter((l) => l !== 'en' && homes.some((h) => h.language === l))
  const [chosen, setChosen] = useState<HomeLanguage | null>(null)
  const language = chosen ?? read[0]
  if (!language)
    return (
      <Empty>
        All of these homes read English. A home that speaks another language chooses it on its page, or you
        note it among the child’s languages; then your own sentences can be put into it here.
      </Empty>
    )
  const count = (l: HomeLanguage) =>
    new Set(homes.filter((h) => h.language === l).map((h) => h.householdId)).size
  return (
    <Card as="section" aria-label="In other languages" className="p-3 grid gap-2">
      <h2 className="font-bold">In other languages</h2>
      <p className="text-sm text-steel">
        The page speaks them by itself; these sentences are yours. Homes read the English until somebody has
        put them into their language.
      </p>
      <Tabs
        label="Language"
        value={language}
        tabs={read.map((l) => ({
          value: l,
          label: `${speech[l].name} · ${count(l)} ${count(l) === 1 ? 'home' : 'homes'}`,
          content: <Sentences lessonId={lessonId} language={l} />,
        }))}
        onChange={(l) => setChosen(l as HomeLanguage)}
      />
    </Card>
  )
}
function Sentences({ lessonId, language }: { lessonId: string; language: HomeLanguage }) {
  const { data, mutate } = useAsked(sendApi.lessonWords, { lessonId, language })
  const [problem, setProblem] = useState<string | null>(null)
  if (!data) return null
  const save = async (key: string, words: string) => {
    setProblem(null)
    await ask(sendApi.saveHomeWords, { language }, { key, words: words.trim() || null }).catch((e: unknown) =>
      setProblem(wordsOf(e)),
    )
    await mutate()
  }
  return (
    <ul className="grid gap-2">
      {problem && <Notice kind="wrong">{problem}</Notice>}
      {data.items.map((i) => (
        <li key={i.key} className="grid gap-1">
          <span className="text-sm">{i.english}</span>
          <textarea
            key={i.mine ?? ''}
            aria-label={`${speech[language].name}: ${i.english}`}
            lang={language}
            dir={speech[language].direction}
            rows={Math.max(1, Math.ceil(i.english.length / 60))}
            maxLength={1200}
            defaultValue={i.mine ?? ''}
            onBlur={(e) => e.target.value.trim() !== (i.mine ?? '') && void save(i.key, e.target.value)}
            className="rounded-lg border border-hair bg-card px-2 py-1"
          />
        </li>
      ))}
    </ul>
  )
}
