import { Link, NavLink, useNavigate } from 'react-router'
import * as peopleApi from '@awlbox/core/contracts/api/people'
import { ask } from '../api.ts'
import { Button } from '../kit/button.tsx'
import { useMe } from './me.ts'

export function SignOut() {
  const navigate = useNavigate()
  const me = useMe()
  return (
    <>
      <span className="text-steel max-sm:hidden whitespace-nowrap">{me?.name}</span>
      <Button look="quiet" onClick={() => void ask(peopleApi.signOut, {}).then(() => navigate('/sign-in'))}>
        Sign out
      </Button>
    </>
  )
}

/** The plain row of words under the head of every page that is not of one lesson. */
export function ClassNav({ classes }: { classes: readonly { id: string; name: string }[] }) {
  const item = ({ isActive }: { isActive: boolean }) =>
    `min-h-10 px-1 shrink-0 grid items-center font-semibold border-b-[3px] ${isActive ? 'border-saffron' : 'border-transparent hover:border-hair'}`
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
      <NavLink to="/house-style" className={item}>
        House style
      </NavLink>
      <NavLink to="/keeping" className={item}>
        What we keep
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
