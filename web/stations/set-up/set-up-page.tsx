import { type ReactNode, useEffect, useState } from 'react'
import { useNavigate, useParams } from 'react-router'
import { useSWRConfig } from 'swr'
import * as api from '@awlbox/core/contracts/api/set-up'
import { defaultHouseStyle, type HouseStyle } from '@awlbox/core/contracts/house-style'
import { readChildren } from '@awlbox/core/setting/children-list'
import { ask, wordsOf } from '../../api.ts'
import { Doorway } from '../../frame/doorway.tsx'
import { useAsked } from '../../frame/use-asked.ts'
import { Button } from '../../kit/button.tsx'
import { fieldLook } from '../../kit/field.ts'
import { Notice } from '../../kit/notice.tsx'
import { Select } from '../../kit/select.tsx'
import { TextField } from '../../kit/text-field.tsx'
import { ChoiceButtons } from '../../frame/choice-buttons.tsx'
import { groups } from '../../frame/house-choices.ts'

/** The five choices every lesson shows at once; the others wait in House style. */
const first = ['add', 'takeAway', 'equals', 'countingOn', 'symbols'] as const
const choices = groups.flatMap((g) => g.choices).filter((c) => first.some((k) => k === c.key))
const zone = Intl.DateTimeFormat().resolvedOptions().timeZone || 'UTC'
const ages = [3, 4, 5, 6, 7] as const
const sheets = ['Your setting', 'You', 'First class', 'Children'] as const

/** Four sheets of paper, one question each: from an empty Awlbox to the Shelf. Nothing is kept until the last is done. */
export default function SetUpPage() {
  const { token = '' } = useParams()
  const { data, error } = useAsked(api.setUpLink, { link: token })
  useEffect(() => {
    document.title = 'Set up · Awlbox'
  }, [])
  return (
    <Doorway problem={error ? wordsOf(error) : null} waiting={!data}>
      {data?.kind === 'first' ? (
        <Sheets token={token} />
      ) : (
        <OwnerAgain token={token} setting={data?.setting ?? ''} />
      )}
    </Doorway>
  )
}

function Field({ label, hint, children }: { label: string; hint?: string; children: ReactNode }) {
  return (
    <label className="grid gap-1">
      <span className="font-semibold">{label}</span>
      {children}
      {hint && <span className="text-sm text-steel">{hint}</span>}
    </label>
  )
}
/** After a session was opened: the Shelf, and nothing of what was known before. */
function useArrive(): () => Promise<void> {
  const navigate = useNavigate()
  const { mutate } = useSWRConfig()
  return async () => {
    await mutate(() => true, undefined, { revalidate: false })
    void navigate('/')
  }
}

function Sheets({ token }: { token: string }) {
  const [at, setAt] = useState(0)
  const [setting, setSetting] = useState({ name: '', timeZone: zone })
  const [owner, setOwner] = useState({ name: '', email: '', password: '' })
  const [cls, setClass] = useState({ name: '', age: 4 })
  const [style, setStyle] = useState<HouseStyle>(defaultHouseStyle)
  const [list, setList] = useState('')
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(false)
  const arrive = useArrive()
  const children = readChildren(list)
  const zones = Intl.supportedValuesOf('timeZone')
  const finish = async () => {
    setBusy(true)
    setProblem(null)
    try {
      await ask(
        api.firstStart,
        { link: token },
        {
          setting,
          owner,
          class: cls,
          houseStyle: style,
          children: children.map(({ name, home }) => ({ name, home })),
        },
      )
      await arrive()
    } catch (e) {
      setProblem(wordsOf(e))
      setBusy(false)
    }
  }
  const next = () => (at < sheets.length - 1 ? setAt(at + 1) : void finish())
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault()
        next()
      }}
    >
      <p className="figures text-steel" aria-live="polite">
        {at + 1} of {sheets.length} · <b className="text-ink">{sheets[at]}</b>
      </p>
      {at === 0 && (
        <>
          <Field label="What is your setting called?">
            <input
              className={`w-full ${fieldLook}`}
              value={setting.name}
              maxLength={80}
              required
              onChange={(e) => setSetting({ ...setting, name: e.target.value })}
            />
          </Field>
          <Field label="Whose clock do you keep?" hint="The nightly backup keeps to it.">
            <input
              className={`w-full ${fieldLook}`}
              list="zones"
              value={setting.timeZone}
              required
              pattern={[...zones, 'UTC'].join('|')}
              title="A place of the list, such as Europe/London"
              onChange={(e) => setSetting({ ...setting, timeZone: e.target.value })}
            />
          </Field>
          <datalist id="zones">
            {zones.map((z) => (
              <option key={z} value={z} />
            ))}
          </datalist>
        </>
      )}
      {at === 1 && <Owner owner={owner} onChange={setOwner} />}
      {at === 2 && (
        <>
          <div className="grid grid-cols-[1fr_auto] gap-3">
            <Field label="What is your first class called?">
              <input
                className={`w-full ${fieldLook}`}
                value={cls.name}
                maxLength={40}
                required
                onChange={(e) => setClass({ ...cls, name: e.target.value })}
              />
            </Field>
            <div className="grid gap-1 content-start">
              <span className="font-semibold">Age</span>
              <Select
                label="Age"
                value={String(cls.age)}
                choices={ages.map((a) => ({ value: String(a), words: String(a) }))}
                onChange={(a) => setClass({ ...cls, age: Number(a) })}
              />
            </div>
          </div>
          <p className="text-steel">
            Where teachers differ your house takes a side, and every text follows. Five for now; the rest wait
            in House style.
          </p>
          {choices.map((c) => (
            <fieldset key={c.key} className="grid gap-1">
              <legend className="font-semibold mb-1">{c.label}</legend>
              <ChoiceButtons choice={c} style={style} onChoose={setStyle} />
              <p className="font-child text-steel">{c.example(style)}</p>
            </fieldset>
          ))}
        </>
      )}
      {at === 3 && (
        <>
          <Field
            label="Who is in it?"
            hint="One child a line, given names or nicknames only; after a comma the home they share with a brother or sister, named by its street. You can paste it from a table, or leave it for later."
          >
            <textarea
              className={`w-full min-h-40 py-2 ${fieldLook}`}
              value={list}
              placeholder={'Suri, Weir Lane\nOtis, Mill Bank'}
              onChange={(e) => setList(e.target.value)}
            />
          </Field>
          {children.length > 0 && (
            <ul
              aria-label="Children read"
              className="grid gap-1 max-h-56 overflow-auto rounded-lg border border-hair p-3"
            >
              {children.map((c, i) => (
                <li key={i} className="flex flex-wrap gap-x-2">
                  <b>{c.name}</b>
                  <span className="text-steel">{c.home}</span>
                  {c.doubt && <span className="text-sm border-b-2 border-saffron">{c.doubt}</span>}
                </li>
              ))}
            </ul>
          )}
          <p className="text-sm text-steel">
            No birth dates, surnames or addresses are asked for. Ask for families’ consent by your setting’s
            own policy and local law before you send anything.
          </p>
        </>
      )}
      {problem && <Notice kind="wrong">{problem} What you typed is still here.</Notice>}
      <div className="flex justify-between gap-2">
        <Button disabled={at === 0 || busy} onClick={() => setAt(at - 1)}>
          Back
        </Button>
        <Button look="main" type="submit" disabled={busy}>
          {at < sheets.length - 1
            ? 'Next'
            : children.length
              ? `Begin with ${children.length} children`
              : 'Begin'}
        </Button>
      </div>
    </form>
  )
}

interface OwnerWords {
  name: string
  email: string
  password: string
}
function Owner({ owner, onChange }: { owner: OwnerWords; onChange: (next: OwnerWords) => void }) {
  const of = (key: keyof OwnerWords) => ({
    value: owner[key],
    onWords: (words: string) => onChange({ ...owner, [key]: words }),
  })
  return (
    <>
      <TextField required label="Your name" autoComplete="name" maxLength={60} {...of('name')} />
      <TextField
        required
        label="Your e-mail address"
        hint="You sign in with it. Nothing is sent to it."
        type="email"
        autoComplete="username"
        maxLength={200}
        {...of('email')}
      />
      <TextField
        required
        label="A password"
        hint="At least ten letters: a short sentence is easy to keep."
        type="password"
        autoComplete="new-password"
        minLength={10}
        maxLength={200}
        {...of('password')}
      />
    </>
  )
}

/** For an owner who is locked out: a new password, or the setting another owner. */
function OwnerAgain({ token, setting }: { token: string; setting: string }) {
  const [owner, setOwner] = useState({ name: '', email: '', password: '' })
  const [problem, setProblem] = useState<string | null>(null)
  const arrive = useArrive()
  return (
    <form
      className="grid gap-4"
      onSubmit={(e) => {
        e.preventDefault()
        setProblem(null)
        ask(api.ownerAgain, { link: token }, owner)
          .then(arrive)
          .catch((error: unknown) => setProblem(wordsOf(error)))
      }}
    >
      <p>
        An owner of <b>{setting}</b> gets a new password here; with another address the setting gets another
        owner.
      </p>
      <Owner owner={owner} onChange={setOwner} />
      {problem && <Notice kind="wrong">{problem}</Notice>}
      <Button look="main" type="submit">
        Sign in as owner
      </Button>
    </form>
  )
}
