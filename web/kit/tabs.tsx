import { Tabs as Radix } from 'radix-ui'
import type { ReactNode } from 'react'

export interface Tab {
  value: string
  label: ReactNode
  content: ReactNode
}
/** Tabs as everybody knows them: arrow keys go along, the chosen one has a line under it. */
export function Tabs({
  label,
  tabs,
  value,
  onChange,
}: {
  label: string
  tabs: readonly Tab[]
  value: string
  onChange: (value: string) => void
}) {
  return (
    <Radix.Root value={value} onValueChange={onChange} className="grid grid-cols-[minmax(0,1fr)] gap-3">
      <Radix.List aria-label={label} className="flex flex-wrap gap-x-4 border-b border-hair">
        {tabs.map((t) => (
          <Radix.Trigger
            key={t.value}
            value={t.value}
            className="min-h-10 -mb-px border-b-2 border-transparent text-steel cursor-pointer data-[state=active]:border-ink data-[state=active]:text-ink data-[state=active]:font-semibold"
          >
            {t.label}
          </Radix.Trigger>
        ))}
      </Radix.List>
      {tabs.map((t) => (
        <Radix.Content key={t.value} value={t.value} className="grid grid-cols-[minmax(0,1fr)] gap-3">
          {t.content}
        </Radix.Content>
      ))}
    </Radix.Root>
  )
}
