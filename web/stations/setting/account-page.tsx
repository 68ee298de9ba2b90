import { type FormEvent, useEffect, useState } from 'react'
import { useNavigate } from 'react-router'
import { useSWRConfig } from 'swr'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { moment } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { Notice } from '../../kit/notice.tsx'
import { TextField } from '../../kit/text-field.tsx'

/** What a person changes of themselves, and where they are signed in. */
export default function AccountPage() {
  const { data, error, mutate } = useAsked(peopleApi.account, {})
  const { mutate: refresh } = useSWRConfig()
  const navigate = useNavigate()
  const [problem, setProblem] = useState<string | null>(null)
  const [told, setTold] = useState<string | null>(null)
  useEffect(() => {
    document.title = 'You · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  const act = async (work: () => Promise<unknown>, done: string) => {
    setProblem(null)
    setTold(null)
    try {
      await work()
      setTold(done)
      await refresh(() => true)
    } catch (e) {
      setProblem(wordsOf(e))
      await mutate()
    }
  }
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-4 content-start max-w-2xl">
        <h1 className="font-bold text-lg">You</h1>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        {told && <Notice kind="info">{told}</Notice>}
        {data && (
          <>
            <Details
              key={data.name + data.email}
              name={data.name}
              email={data.email}
              onSave={(change, done) => void act(() => ask(peopleApi.saveAccount, {}, change), done)}
            />
            <Card as="section" aria-label="Where you are signed in" className="p-5 grid gap-3">
              <h2 className="font-bold">Where you are signed in</h2>
              <ul className="grid gap-2">
                {data.sessions.map((s) => (
                  <li key={s.id} className="flex flex-wrap items-center gap-x-3 gap-y-1">
                    <span className="flex-1 min-w-48">
                      <b>{s.device || 'A browser that does not say which'}</b>
                      {s.here && ' · this one'}
                      <span className="block text-sm text-steel figures">
                        since {moment(s.since)}, last used {moment(s.lastUsed)}
                      </span>
                    </span>
                    {!s.here && (
                      <Button
                        small
                        onClick={() =>
                          void act(() => ask(peopleApi.endSession, { sessionId: s.id }), 'Signed out there.')
                        }
                      >
                        Sign out there
                      </Button>
                    )}
                  </li>
                ))}
              </ul>
              <div>
                <Button
                  onClick={() =>
                    void ask(peopleApi.endSessions, {}).then(
                      () => navigate('/sign-in'),
                      (e: unknown) => setProblem(wordsOf(e)),
                    )
                  }
                >
                  Sign out everywhere
                </Button>
              </div>
            </Card>
          </>
        )}
      </main>
    </>
  )
}

function Details({
  name: wasName,
  email: wasEmail,
  onSave,
}: {
  name: string
  email: string
  onSave: (
    change: { name?: string; email?: string; password?: string; current?: string },
    done: string,
  ) => void
}) {
  const [name, setName] = useState(wasName)
  const [email, setEmail] = useState(wasEmail)
  const [password, setPassword] = useState('')
  const [current, setCurrent] = useState('')
  const guarded = email !== wasEmail || password !== ''
  const changed = guarded || name.trim() !== wasName
  const save = (e: FormEvent) => {
    e.preventDefault()
    onSave(
      {
        ...(name.trim() === wasName ? {} : { name }),
        ...(email === wasEmail ? {} : { email }),
        ...(password ? { password } : {}),
        ...(guarded ? { current } : {}),
      },
      password ? 'Saved. Every other browser was signed out.' : 'Saved.',
    )
    setPassword('')
    setCurrent('')
  }
  return (
    <Card as="section" aria-label="Name, e-mail and password" className="p-5">
      <form className="grid gap-3" onSubmit={save}>
        <TextField label="Name" value={name} maxLength={60} required autoComplete="name" onWords={setName} />
        <TextField
          label="E-mail, by which you sign in"
          type="email"
          value={email}
          maxLength={200}
          required
          autoComplete="username"
          onWords={setEmail}
        />
        <TextField
          label="New password"
          hint="Ten letters or more; a short sentence is easy to keep. Empty: as it is."
          type="password"
          value={password}
          minLength={10}
          maxLength={200}
          autoComplete="new-password"
          onWords={setPassword}
        />
        {guarded && (
          <TextField
            label="Present password"
            type="password"
            value={current}
            required
            autoComplete="current-password"
            onWords={setCurrent}
          />
        )}
        <div>
          <Button look="main" type="submit" disabled={!changed}>
            Save
          </Button>
        </div>
      </form>
    </Card>
  )
}
