import { useEffect, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useSWRConfig } from 'swr'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask, wordsOf } from '../../api.ts'
import { Mark } from '../../frame/head.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'

/** Where an invitation, or a link for a new password, leads: a name and a password, and one is in. */
export default function JoinPage() {
  const { link = '' } = useParams()
  const { data, error } = useAsked(peopleApi.joinLink, { link })
  const [name, setName] = useState('')
  const [password, setPassword] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const navigate = useNavigate()
  const { mutate } = useSWRConfig()
  useEffect(() => {
    document.title = 'Welcome · Awlbox'
  }, [])
  const invited = data?.kind === 'invitation'
  const join = async () => {
    setBusy(true)
    setProblem(null)
    try {
      await ask(peopleApi.join, { link }, { name: invited ? name : data!.name, password })
      await mutate(() => true, undefined, { revalidate: false })
      void navigate('/')
    } catch (e) {
      setProblem(wordsOf(e))
      setBusy(false)
    }
  }
  const field = `w-full ${fieldLook}`
  return (
    <main className="min-h-dvh grid place-items-center p-5">
      <div className="w-full max-w-md rounded-xl border border-hair bg-card p-6 grid gap-4">
        <h1 className="flex items-center gap-3 text-lg font-bold">
          <Mark />
          Awlbox
        </h1>
        {error ? (
          <Notice kind="wrong">{wordsOf(error)}</Notice>
        ) : !data ? (
          <p className="text-steel">One moment…</p>
        ) : (
          <form
            className="grid gap-4"
            onSubmit={(e) => {
              e.preventDefault()
              void join()
            }}
          >
            <p>
              {invited ? (
                <>
                  <b>{data.setting}</b> invites you to make lessons with them.
                </>
              ) : (
                <>
                  A new password for <b>{data.name}</b> at {data.setting}.
                </>
              )}
            </p>
            {invited && (
              <label className="grid gap-1">
                <span className="font-semibold">Your name, as colleagues see it</span>
                <input
                  className={field}
                  value={name}
                  maxLength={60}
                  required
                  autoComplete="name"
                  onChange={(e) => setName(e.target.value)}
                />
              </label>
            )}
            <label className="grid gap-1">
              <span className="font-semibold">E-mail, by which you sign in</span>
              <input className={field} type="email" value={data.email} readOnly autoComplete="username" />
            </label>
            <label className="grid gap-1">
              <span className="font-semibold">Password</span>
              <input
                className={field}
                type="password"
                value={password}
                minLength={10}
                maxLength={200}
                required
                autoComplete="new-password"
                onChange={(e) => setPassword(e.target.value)}
              />
              <span className="text-sm text-steel">
                Ten letters or more; a short sentence is easy to keep.
              </span>
            </label>
            {problem && <Notice kind="wrong">{problem}</Notice>}
            <Button look="main" type="submit" disabled={busy}>
              {invited ? 'Come in' : 'Use this password'}
            </Button>
          </form>
        )}
      </div>
    </main>
  )
}
