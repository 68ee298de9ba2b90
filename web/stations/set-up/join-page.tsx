import { useEffect, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useSWRConfig } from 'swr'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask, wordsOf } from '../../api.ts'
import { Doorway } from '../../frame/doorway.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { TextField } from '../../kit/text-field.tsx'

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
  return (
    <Doorway problem={error ? wordsOf(error) : null} waiting={!data}>
      {data && (
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
            <TextField
              label="Your name, as colleagues see it"
              value={name}
              maxLength={60}
              required
              autoComplete="name"
              onWords={setName}
            />
          )}
          <TextField
            label="E-mail, by which you sign in"
            type="email"
            value={data.email}
            readOnly
            autoComplete="username"
          />
          <TextField
            label="Password"
            hint="Ten letters or more; a short sentence is easy to keep."
            type="password"
            value={password}
            minLength={10}
            maxLength={200}
            required
            autoComplete="new-password"
            onWords={setPassword}
          />
          {problem && <Notice kind="wrong">{problem}</Notice>}
          <Button look="main" type="submit" disabled={busy}>
            {invited ? 'Come in' : 'Use this password'}
          </Button>
        </form>
      )}
    </Doorway>
  )
}
