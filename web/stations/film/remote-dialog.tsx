import { useEffect, useState } from 'react'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** How to hold the prompter in the hand: a private page that opens for the same person only. */
export function RemoteDialog({ lessonId, onClose }: { lessonId: string; onClose: () => void }) {
  const link = `${location.origin}/lessons/${lessonId}/remote`
  const [code, setCode] = useState<string | null>(null)
  const [copied, setCopied] = useState(false)
  useEffect(
    () =>
      void import('qrcode')
        .then((q) => q.toString(link, { type: 'svg', margin: 1 }))
        .then((svg) => setCode(`data:image/svg+xml;utf8,${encodeURIComponent(svg)}`)),
    [link],
  )
  return (
    <Dialog open onClose={onClose} title="Phone as remote">
      <p className="mb-3">
        Open this on a phone and sign in as yourself: it turns the lines, films, pauses and marks slips.
        Nobody else’s sign-in reaches your prompter. The phone must reach this Awlbox on your own network.
      </p>
      <div className="flex flex-wrap gap-4 items-center">
        {code && <img src={code} alt="The link as a square code" className="size-44 bg-white rounded-lg" />}
        <div className="grid gap-2 min-w-0">
          <code className="text-sm break-all">{link}</code>
          <Button small onClick={() => void navigator.clipboard.writeText(link).then(() => setCopied(true))}>
            {copied ? 'Copied' : 'Copy the link'}
          </Button>
        </div>
      </div>
      <p className="text-sm text-steel mt-3">
        A foot-pedal or clicker needs no phone: it types page keys, space or enter. Keys here: → next, ← back,
        f film or stop, p pause, s slip, b fill the screen.
      </p>
    </Dialog>
  )
}
