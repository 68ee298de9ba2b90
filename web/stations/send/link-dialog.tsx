import { useState } from 'react'
import type { SentHome } from '@awlbox/core/contracts/api/send'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'

/** A home's link, to hand over: as a square to point a camera at, or as text. */
export function LinkDialog({
  home,
  onClose,
  onRenew,
  onEnd,
}: {
  home: SentHome
  onClose: () => void
  onRenew: () => void
  onEnd: () => void
}) {
  const [copied, setCopied] = useState(false)
  const link = window.location.origin + home.link!
  return (
    <Dialog open onClose={onClose} title={`The link for ${home.child}’s home`}>
      <p className="text-steel mb-3">
        Anyone with this link can open this home’s page and answer for them. Give it to this home only, in the
        way your setting allows.
      </p>
      <div className="flex gap-4 items-start max-sm:flex-col">
        <img
          src={`/api/qr?link=${encodeURIComponent(home.link!)}`}
          alt="QR code of the link"
          width="150"
          height="150"
          className="bg-white rounded-lg"
        />
        <div className="min-w-0 grid gap-2">
          <input
            readOnly
            aria-label="Link"
            value={link}
            onFocus={(e) => e.target.select()}
            className="w-full min-h-10 rounded-lg border border-hair bg-wash px-2"
          />
          <div className="flex flex-wrap gap-2">
            <Button onClick={() => void navigator.clipboard?.writeText(link).then(() => setCopied(true))}>
              {copied ? 'Copied' : 'Copy'}
            </Button>
            <Button onClick={onRenew}>Change the link</Button>
            <Button look="wrong" onClick={onEnd}>
              End the link
            </Button>
          </div>
          <p className="text-sm text-steel">Change: the old one stops opening anything. Replies stay.</p>
        </div>
      </div>
    </Dialog>
  )
}
