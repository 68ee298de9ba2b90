import type { HTMLAttributes } from 'react'

interface Props extends HTMLAttributes<HTMLElement> {
  as?: 'div' | 'section' | 'li' | 'fieldset' | 'figure' | 'article'
}
/** White paper with a hair line, for what belongs together. */
export const Card = ({ as: Tag = 'div', className = '', ...rest }: Props) => (
  <Tag className={`rounded-xl border border-hair bg-card ${className}`} {...rest} />
)
