import type { ButtonHTMLAttributes, ReactNode } from 'react'

const looks = {
  main: 'bg-moss text-on-moss border-moss font-semibold hover:brightness-110',
  act: 'bg-card text-moss border-moss font-semibold hover:bg-wash',
  plain: 'bg-card text-ink border-hair font-semibold hover:bg-wash',
  quiet: 'bg-transparent text-steel border-transparent hover:text-ink hover:bg-wash',
  wrong: 'bg-card text-brick border-brick font-semibold hover:bg-wash',
} as const

/** A button at least 40 px high. One `main` on a screen. */
export function Button({
  look = 'plain',
  small,
  className = '',
  children,
  ...rest
}: ButtonHTMLAttributes<HTMLButtonElement> & {
  look?: keyof typeof looks
  small?: boolean
  children: ReactNode
}) {
  return (
    <button
      type="button"
      className={`inline-flex items-center justify-center gap-1.5 rounded-lg border whitespace-nowrap transition-colors disabled:opacity-50 disabled:pointer-events-none cursor-pointer ${small ? 'min-h-8 px-2.5 text-sm' : 'min-h-10 px-3.5'} ${looks[look]} ${className}`}
      {...rest}
    >
      {children}
    </button>
  )
}
