import type { ReactNode } from 'react'
import { Link } from 'react-router'

/** A message in its place on the page: what happened, what was kept, what to do. */
export function Notice({
  kind,
  children,
  action,
}: {
  kind: 'wrong' | 'info'
  children: ReactNode
  action?: ReactNode
}) {
  return (
    <div
      role={kind === 'wrong' ? 'alert' : 'status'}
      className={`flex flex-wrap items-center justify-between gap-3 rounded-lg border bg-card px-3.5 py-2.5 ${kind === 'wrong' ? 'border-brick text-brick' : 'border-blue text-blue'}`}
    >
      <span className="min-w-0">{children}</span>
      {action}
    </div>
  )
}

/** Long work: its step, the share done, and how to stop it. */
export function WorkBar({
  label,
  to,
  share,
  left,
  onCancel,
}: {
  label: string
  /** Where it is to be seen. */
  to?: string
  share: number
  left?: string | null
  onCancel?: () => void
}) {
  return (
    <div className="flex items-center gap-3" role="status">
      <div className="min-w-0 flex-1">
        <div className="flex justify-between gap-3 text-sm">
          {to ? (
            <Link to={to} className="truncate hover:underline">
              {label}
            </Link>
          ) : (
            <span className="truncate">{label}</span>
          )}
          <span className="figures text-steel whitespace-nowrap">
            {left ?? `${Math.round(share * 100)} %`}
          </span>
        </div>
        <div
          role="progressbar"
          aria-label={label}
          aria-valuenow={Math.round(share * 100)}
          aria-valuemin={0}
          aria-valuemax={100}
          className="mt-1 h-1.5 rounded-full bg-wash overflow-hidden"
        >
          <div
            className="h-full rounded-full bg-ink transition-[width]"
            style={{ width: `${Math.max(2, share * 100)}%` }}
          />
        </div>
      </div>
      {onCancel && (
        <button
          type="button"
          onClick={onCancel}
          className="text-sm font-semibold text-brick min-h-8 px-2 rounded-lg hover:bg-wash cursor-pointer"
        >
          Cancel
        </button>
      )}
    </div>
  )
}
export function Empty({ children, action }: { children: ReactNode; action?: ReactNode }) {
  return (
    <div className="grid justify-items-start gap-3 rounded-xl border border-dashed border-hair p-5 text-steel">
      {children}
      {action}
    </div>
  )
}
