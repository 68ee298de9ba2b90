import { showTheme, type Theme, themeNow } from './theme.ts'
import { useEffect, useState, type ReactNode } from 'react'
import { Link } from 'react-router'
import { Dialog } from '../kit/dialog.tsx'
import { Button } from '../kit/button.tsx'

export function Mark() {
  return (
    <svg width="14" height="28" viewBox="0 0 14 28" aria-hidden>
      <circle cx="7" cy="6" r="4.4" fill="none" stroke="currentColor" strokeWidth="2.4" />
      <path d="M7 10.5V27" stroke="currentColor" strokeWidth="2.6" strokeLinecap="round" />
      <path d="M4.4 14h5.2" stroke="currentColor" strokeWidth="2.4" strokeLinecap="round" />
    </svg>
  )
}

export function Head({
  where,
  title,
  children,
  shortcuts = [],
}: {
  where?: ReactNode
  title?: ReactNode
  children?: ReactNode
  shortcuts?: readonly (readonly [string, string])[]
}) {
  return (
    <header className="h-[52px] bg-card border-b border-hair px-5 max-sm:px-3 flex items-center gap-4 max-sm:gap-2">
      <Link
        to="/"
        className="flex items-center gap-2.5 font-bold rounded-lg"
        aria-label="Awlbox, to the shelf"
      >
        <Mark />
        Awlbox
      </Link>
      {where && <span className="text-steel truncate shrink-0 max-w-60 max-sm:hidden">{where}</span>}
      <div className="min-w-0 flex-1">{title}</div>
      {children}
      <HelpSheet shortcuts={shortcuts} />
    </header>
  )
}

function HelpSheet({ shortcuts }: { shortcuts: readonly (readonly [string, string])[] }) {
  const [open, setOpen] = useState(false)
  const [theme, setTheme] = useState(themeNow)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.key === '?' && !isTyping(e.target)) setOpen(true)
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [])
  const choose = (next: Theme) => {
    setTheme(next)
    showTheme(next)
  }
  return (
    <>
      <Button onClick={() => setOpen(true)} aria-label="Keys and look" className="!px-0 w-10">
        ?
      </Button>
      <Dialog open={open} onClose={() => setOpen(false)} title="Keys and look">
        <dl className="grid grid-cols-[auto_1fr] gap-x-4 gap-y-2 mb-5">
          {[...shortcuts, ['?', 'this sheet'] as const].map(([key, what]) => (
            <div key={key + what} className="contents">
              <dt>
                <kbd className="rounded-md border border-hair bg-wash px-2 py-0.5 font-semibold text-sm whitespace-nowrap">
                  {key}
                </kbd>
              </dt>
              <dd>{what}</dd>
            </div>
          ))}
        </dl>
        <fieldset className="flex gap-2">
          <legend className="font-semibold mb-2">Light</legend>
          {(['system', 'light', 'dark'] as const).map((t) => (
            <Button
              key={t}
              aria-pressed={theme === t}
              look={theme === t ? 'act' : 'plain'}
              onClick={() => choose(t)}
            >
              {t === 'system' ? 'As the device' : t === 'light' ? 'Light' : 'Dark'}
            </Button>
          ))}
        </fieldset>
      </Dialog>
    </>
  )
}
export const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || /^(input|textarea|select)$/i.test(target.tagName))
