import { Dialog as D } from 'radix-ui'
import { X } from 'lucide-react'
import type { ReactNode } from 'react'

export function Dialog({
  open,
  onClose,
  title,
  children,
  wide,
}: {
  open: boolean
  onClose: () => void
  title: string
  children: ReactNode
  wide?: boolean
}) {
  return (
    <D.Root open={open} onOpenChange={(o) => !o && onClose()}>
      <D.Portal>
        <D.Overlay className="fixed inset-0 z-40 bg-black/45" />
        <D.Content
          aria-describedby={undefined}
          className={`fixed z-50 left-1/2 top-1/2 -translate-x-1/2 -translate-y-1/2 max-h-[88dvh] overflow-auto rounded-xl border border-hair bg-card p-5 shadow-xl w-[calc(100vw-32px)] ${wide ? 'max-w-3xl' : 'max-w-lg'}`}
        >
          <div className="flex items-start justify-between gap-4 mb-3">
            <D.Title className="text-lg font-bold">{title}</D.Title>
            <D.Close
              aria-label="Close"
              className="size-9 grid place-items-center rounded-lg text-steel hover:bg-wash cursor-pointer"
            >
              <X size={18} />
            </D.Close>
          </div>
          {children}
        </D.Content>
      </D.Portal>
    </D.Root>
  )
}
