import { useEffect, useState } from 'react'
import type { Colleague } from '@awlbox/core/contracts/api/people'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { LinkBox } from '../../frame/link-box.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { longDay } from '../../frame/time.ts'
import { Button } from '../../kit/button.tsx'
import { Card } from '../../kit/card.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'

const roleWords = [
  { value: 'teacher', words: 'Teacher' },
  { value: 'owner', words: 'Owner' },
] as const
type Role = (typeof roleWords)[number]['value']

/** Who works here: owners invite, make others owners, and end people’s work. */
export default function PeoplePage() {
  const { data, error, mutate } = useAsked(peopleApi.people, {})
  const [problem, setProblem] = useState<string | null>(null)
  const [link, setLink] = useState<{ link: string; mailed: boolean; for: string; days: string } | null>(null)
  useEffect(() => {
    document.title = 'People · Awlbox'
  }, [])
  if (error && !data) return <Away error={error} />
  const act = async (work: () => Promise<unknown>): Promise<boolean> => {
    setProblem(null)
    try {
      await work()
      return true
    } catch (e) {
      setProblem(wordsOf(e))
      return false
    } finally {
      await mutate()
    }
  }
  const here = data?.people.filter((p) => !p.endedAt) ?? []
  const gone = data?.people.filter((p) => p.endedAt) ?? []
  return (
    <>
      <SettingFrame />
      <main className="p-5 grid gap-4 content-start max-w-4xl">
        <h1 className="font-bold text-lg">People</h1>
        {problem && <Notice kind="wrong">{problem}</Notice>}
        {link && (
          <Card as="section" aria-label={`Link for ${link.for}`} className="p-4 grid gap-3 border-saffron">
            <p>
              <b>For {link.for}.</b> {link.mailed && 'It was posted to them. '}It works once, within{' '}
              {link.days}, and is shown here only now: copy it, or let them hold their phone before it.
            </p>
            <LinkBox link={link.link} label={`Link for ${link.for}`} />
            <div>
              <Button onClick={() => setLink(null)}>Done</Button>
            </div>
          </Card>
        )}
        <ul className="grid gap-2">
          {here.map((p) => (
            <PersonRow
              key={p.id}
              person={p}
              others={here.filter((o) => o.id !== p.id)}
              mayChange={data?.mayChange ?? false}
              act={act}
              onLink={(made) => setLink({ ...made, for: p.name, days: 'a day' })}
            />
          ))}
        </ul>
        {data?.mayChange && (
          <>
            <Inviting
              onInvite={(email, role) =>
                act(async () => {
                  const made = await ask(peopleApi.invite, {}, { email, role })
                  setLink({ ...made, for: email, days: 'two weeks' })
                })
              }
            />
            {data.invitations.length > 0 && (
              <Card as="section" aria-label="Invited" className="p-4 grid gap-2">
                <h2 className="font-bold">Invited</h2>
                {data.invitations.map((i) => (
                  <p key={i.id} className="flex flex-wrap items-center gap-3">
                    <span>{i.email}</span>
                    <span className="text-steel figures">
                      as {i.role}, until {longDay(i.until)}
                    </span>
                    <Button
                      small
                      onClick={() =>
                        void act(async () => {
                          const made = await ask(peopleApi.invite, {}, { email: i.email, role: i.role })
                          setLink({ ...made, for: i.email, days: 'two weeks' })
                        })
                      }
                    >
                      New link
                    </Button>
                    <Button
                      small
                      look="quiet"
                      onClick={() => void act(() => ask(peopleApi.uninvite, { invitationId: i.id }))}
                    >
                      Take back
                    </Button>
                  </p>
                ))}
              </Card>
            )}
          </>
        )}
        {gone.length > 0 && (
          <Card as="section" aria-label="No longer here" className="p-4 grid gap-1">
            <h2 className="font-bold">No longer here</h2>
            {gone.map((p) => (
              <p key={p.id}>
                {p.name} <span className="text-steel figures">until {longDay(p.endedAt!)}</span>
              </p>
            ))}
            <p className="text-sm text-steel">
              What they made and judged keeps their name. Invite their address again to let them back.
            </p>
          </Card>
        )}
      </main>
    </>
  )
}

function PersonRow({
  person: p,
  others,
  mayChange,
  act,
  onLink,
}: {
  person: Colleague
  others: readonly Colleague[]
  mayChange: boolean
  act: (work: () => Promise<unknown>) => Promise<boolean>
  onLink: (made: { link: string; mailed: boolean }) => void
}) {
  const [ending, setEnding] = useState(false)
  const [classesTo, setClassesTo] = useState('')
  return (
    <Card as="li" aria-label={p.name} className="p-4 grid gap-3">
      <div className="flex flex-wrap items-center gap-x-4 gap-y-2">
        <span className="min-w-40">
          <b>{p.name}</b>
          {p.me && <span className="text-steel"> (you)</span>}
          {p.email && <span className="block text-sm text-steel">{p.email}</span>}
        </span>
        <Select
          label={`Role of ${p.name}`}
          look="small"
          value={p.role}
          disabled={!mayChange}
          choices={roleWords}
          onChange={(role) => void act(() => ask(peopleApi.setRole, { personId: p.id }, { role }))}
        />
        <span className="text-steel flex-1">
          {p.classes.length ? p.classes.map((c) => c.name).join(', ') : 'no class'}
          {p.lastSeen && <span className="figures"> · last here {longDay(p.lastSeen)}</span>}
        </span>
        {mayChange && !p.me && (
          <>
            <Button
              small
              onClick={() =>
                void act(async () => onLink(await ask(peopleApi.passwordLink, { personId: p.id })))
              }
            >
              New password
            </Button>
            <Button small look="quiet" onClick={() => setEnding(true)}>
              End…
            </Button>
          </>
        )}
      </div>
      {ending && (
        <div className="flex flex-wrap items-center gap-2 border-t border-hair pt-3">
          <span className="basis-full">
            {p.name} is signed out everywhere and cannot sign in. Lessons and judgements stay.
            {p.classes.length > 0 && ` Who takes over ${p.classes.map((c) => c.name).join(' and ')}?`}
          </span>
          {p.classes.length > 0 && (
            <Select
              label={`Who takes over the classes of ${p.name}`}
              value={classesTo}
              hint="Choose"
              choices={others.map((o) => ({ value: o.id, words: o.name }))}
              onChange={setClassesTo}
            />
          )}
          <Button
            look="wrong"
            disabled={p.classes.length > 0 && !classesTo}
            onClick={() =>
              void act(() =>
                ask(peopleApi.endPerson, { personId: p.id }, { classesTo: classesTo || null }),
              ).then((well) => well && setEnding(false))
            }
          >
            End {p.name}’s work here
          </Button>
          <Button onClick={() => setEnding(false)}>Leave it</Button>
        </div>
      )}
    </Card>
  )
}

function Inviting({ onInvite }: { onInvite: (email: string, role: Role) => Promise<boolean> }) {
  const [email, setEmail] = useState('')
  const [role, setRole] = useState<Role>('teacher')
  return (
    <form
      className="flex flex-wrap items-center gap-2 rounded-xl border border-dashed border-hair p-4"
      onSubmit={(e) => {
        e.preventDefault()
        void onInvite(email, role).then((well) => well && setEmail(''))
      }}
    >
      <input
        type="email"
        aria-label="E-mail of somebody to invite"
        placeholder="colleague@setting.example"
        value={email}
        required
        maxLength={200}
        autoComplete="off"
        onChange={(e) => setEmail(e.target.value)}
        className={`${fieldLook} w-72`}
      />
      <Select label="Invited as" value={role} choices={roleWords} onChange={setRole} />
      <Button look="main" type="submit" disabled={!email.trim()}>
        Invite
      </Button>
      <span className="text-sm text-steel basis-full">
        A teacher makes lessons and judges; an owner also manages people, classes, house style and what is
        kept.
      </span>
    </form>
  )
}
