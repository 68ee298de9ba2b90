import { useEffect, useMemo, useState } from 'react'
import { Link } from 'react-router'
import * as shelfApi from '@awlbox/core/contracts/api/shelf'
import type { Level } from '@awlbox/core/contracts/reply'
import { levels } from '@awlbox/core/contracts/reply'
import { agreementOf } from '@awlbox/core/judge/agreement'
import { practiceReplies } from '@awlbox/core/judge/practice'
import { capital } from '@awlbox/core/words'
import { ClassNav, SignOut } from '../../frame/class-nav.tsx'
import { Head, isTyping } from '../../frame/head.tsx'
import { useMe } from '../../frame/me.ts'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'

const many = 10

/** A room to practise judging in: made-up replies whose truth is known, and how far you agree with it. */
export default function PracticePage() {
  const me = useMe()
  const { data: shelf } = useAsked(shelfApi.shelf, {})
  const [seed, setSeed] = useState(() => Math.floor(Date.now() / 1000) % 100000)
  const [told, setTold] = useState<Level[]>([])
  const replies = useMemo(() => practiceReplies(seed, many), [seed])
  const current = replies[told.length]
  useEffect(() => {
    document.title = 'Practise judging · Awlbox'
  }, [])
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (isTyping(e.target) || e.ctrlKey || e.metaKey || e.altKey || !current) return
      const level = levels[Number(e.key) - 1]
      if (level) setTold([...told, level])
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  })
  const result = !current
    ? agreementOf(replies.map((r, i) => ({ id: r.id, first: r.truth, second: told[i]! })))
    : null
  return (
    <>
      <Head where={me?.setting}>
        <SignOut />
      </Head>
      <ClassNav classes={shelf?.classes ?? []} />
      <main className="p-5 grid gap-4 content-start max-w-3xl">
        <h1 className="font-bold text-xl">Practise judging</h1>
        <p className="text-steel">
          These replies are made up: what each child can really do is known, and chance has its say as at
          home. Judge ten, then see how far you agree with what was hidden. Nothing of it is kept.
        </p>
        {current && (
          <Card as="section" aria-label="A made-up reply" className="p-4 grid gap-3">
            <p>
              <b>{current.child}</b>{' '}
              <span className="text-steel">
                ({told.length + 1} of {many})
              </span>{' '}
              · help: <b>{current.help}</b>
            </p>
            <ul className="grid gap-1">
              {current.answers.map((a, i) => (
                <li key={i} className="font-child text-lg">
                  {a.question}: <b>{a.answer}</b>{' '}
                  <span className={`text-sm font-sans ${a.right ? 'text-moss' : 'text-brick'}`}>
                    {a.right ? 'right' : 'not right'}
                  </span>
                </li>
              ))}
            </ul>
            <div className="flex flex-wrap gap-2">
              {levels.map((l, i) => (
                <Button key={l} onClick={() => setTold([...told, l])}>
                  <kbd className="text-sm text-steel">{i + 1}</kbd> {capital(l)}
                </Button>
              ))}
            </div>
          </Card>
        )}
        {result && (
          <Card as="section" aria-label="How far you agree" className="p-4 grid gap-2">
            <h2 className="font-semibold">{result.words}</h2>
            <ul className="grid gap-1">
              {replies.map((r, i) => (
                <li key={r.id}>
                  <b>{r.child}</b>: you said {told[i]}, it was {r.truth}
                  {r.belief && <span className="text-steel"> (this child {r.belief})</span>}
                </li>
              ))}
            </ul>
            <p className="flex gap-3">
              <Button
                look="act"
                onClick={() => {
                  setTold([])
                  setSeed(seed + 1)
                }}
              >
                Ten more
              </Button>
              <Link to="/" className="min-h-10 inline-grid items-center underline">
                Back to the Shelf
              </Link>
            </p>
          </Card>
        )}
      </main>
    </>
  )
}
