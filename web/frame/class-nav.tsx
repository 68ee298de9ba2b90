import type { ReactNode } from 'react'
import { Link, NavLink, useNavigate } from 'react-router'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask } from '../api.ts'
import { Button } from '../kit/button.tsx'
import { Head } from './head.tsx'
import { useMe } from './me.ts'

export function SignOut() {
  const navigate = useNavigate()
  const me = useMe()
  return (
    <>
      <Link
        to="/account"
        className="text-steel max-sm:hidden whitespace-nowrap min-h-10 grid items-center hover:text-ink hover:underline underline-offset-4"
      >
        {me?.name}
      </Link>
      <Button look="quiet" onClick={() => void ask(peopleApi.signOut, {}).then(() => navigate('/sign-in'))}>
        Sign out
      </Button>
    </>
  )
}

const item = ({ isActive }: { isActive: boolean }) =>
  `min-h-10 px-1 shrink-0 grid items-center font-semibold border-b-[3px] ${isActive ? 'border-saffron' : 'border-transparent hover:border-hair'}`

/** The plain row of words under the head of the pages about lessons and classes. */
export function ClassNav({ classes }: { classes: readonly { id: string; name: string }[] }) {
  return (
    <nav
      aria-label="Pages"
      className="bg-card border-b border-hair px-5 min-h-[46px] flex items-end gap-6 overflow-x-auto whitespace-nowrap"
    >
      <NavLink to="/" end className={item}>
        Shelf
      </NavLink>
      {classes.map((c) => (
        <NavLink key={c.id} to={`/classes/${c.id}`} className={item}>
          {c.name}
        </NavLink>
      ))}
      <NavLink to="/week" className={item}>
        Week
      </NavLink>
      <NavLink to="/ladder" className={item}>
        Ladder
      </NavLink>
      <NavLink to="/homes" className={item}>
        Homes
      </NavLink>
      <NavLink to="/house-style" className={item}>
        Setting
      </NavLink>
      <span className="flex-1" />
      <Link
        to="/plan"
        className="self-center my-1 shrink-0 inline-flex min-h-9 items-center rounded-lg bg-moss px-3.5 font-semibold text-on-moss"
      >
        Plan a lesson
      </Link>
    </nav>
  )
}

const pages = [
  ['/homes', 'Homes'],
  ['/classes', 'Classes'],
  ['/people', 'People'],
  ['/house-style', 'House style'],
  ['/words', 'What homes read'],
  ['/keeping', 'What we keep'],
] as const
/** The head and the row of words of every page about the setting itself. */
export function SettingFrame({ children }: { children?: ReactNode }) {
  const me = useMe()
  return (
    <>
      <Head where={me?.setting}>
        {children}
        <SignOut />
      </Head>
      <nav
        aria-label="Pages"
        className="bg-card border-b border-hair px-5 min-h-[46px] flex items-end gap-6 overflow-x-auto whitespace-nowrap"
      >
        <NavLink to="/" end className={item}>
          Shelf
        </NavLink>
        <span aria-hidden className="self-center h-5 border-l border-hair" />
        {pages.map(([to, words]) => (
          <NavLink key={to} to={to} end className={item}>
            {words}
          </NavLink>
        ))}
        {me?.role === 'owner' && (
          <NavLink to="/record" className={item}>
            Record
          </NavLink>
        )}
      </nav>
    </>
  )
}
