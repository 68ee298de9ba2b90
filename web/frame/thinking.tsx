import { useState } from 'react'
import { Link } from 'react-router'
import * as nextApi from '@awlbox/core/contracts/api/next'
import type { Suspected } from '@awlbox/core/contracts/api/next'
import { useAsked } from './use-asked.ts'
import { Card } from '../kit/card.tsx'

/** How the child of this reply may be thinking, over all it ever sent; opened by a click to what speaks for and against. */
export function Thinking({ childId, child }: { childId: string; child: string }) {
  const { data } = useAsked(nextApi.thinking, { childId })
  if (!data) return null
  const few = data.considered.filter((c) => !data.named.some((n) => n.id === c.id)).slice(0, 2)
  return (
    <Card as="section" aria-label="How they may be thinking" className="p-3 grid gap-1">
      <h2 className="text-sm text-steel">How {child} may be thinking</h2>
      <p className={data.named.length ? '' : 'text-steel text-sm'}>{data.words}</p>
      {data.named.map((s) => (
        <Way key={s.id} way={s} />
      ))}
      {!data.named.length && few.map((s) => <Way key={s.id} way={s} />)}
    </Card>
  )
}
function Way({ way: s }: { way: Suspected }) {
  const [open, setOpen] = useState(false)
  const list = (of: Suspected['for'], what: string) =>
    of.length > 0 && (
      <>
        <p className="text-sm text-steel">{what}</p>
        <ul className="text-sm">
          {of.map((x) => (
            <li key={x.id}>
              {x.lessonId ? (
                <Link
                  to={`/lessons/${x.lessonId}/look?reply=${x.replyId}`}
                  className="underline decoration-hair underline-offset-4"
                >
                  {x.words}
                </Link>
              ) : (
                x.words
              )}
            </li>
          ))}
        </ul>
      </>
    )
  return (
    <div className="border-t border-hair pt-1">
      <button
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        className="w-full text-left min-h-9 cursor-pointer"
      >
        {s.words}{' '}
        <span className="text-steel text-sm whitespace-nowrap">
          {s.for.length} for, {s.against.length} against
        </span>
      </button>
      {open && (
        <div className="grid gap-1 pb-1">
          {list(s.for, 'Speaks for it')}
          {list(s.against, 'Speaks against it')}
          <p>
            <b>To try:</b> {s.next}
          </p>
          {s.tryNext && (
            <p className="text-sm text-steel">
              {s.tryNext.name}: {s.tryNext.lines.join(' · ')}
            </p>
          )}
        </div>
      )}
    </div>
  )
}
