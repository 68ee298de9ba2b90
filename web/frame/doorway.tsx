import type { ReactNode } from 'react'
import { Notice } from '../kit/notice.tsx'
import { Mark } from './head.tsx'

/** A page for somebody who is not in yet: one sheet in the middle, or why there is none. */
export function Doorway({
  problem,
  waiting,
  children,
}: {
  problem: string | null
  waiting: boolean
  children: ReactNode
}) {
  return (
    <main className="min-h-dvh grid place-items-center p-5">
      <div className="w-full max-w-xl rounded-xl border border-hair bg-card p-6 grid gap-5">
        <h1 className="flex items-center gap-3 text-lg font-bold">
          <Mark />
          Awlbox
        </h1>
        {problem ? (
          <Notice kind="wrong">{problem}</Notice>
        ) : waiting ? (
          <p className="text-steel">One moment…</p>
        ) : (
          children
        )}
      </div>
    </main>
  )
}
