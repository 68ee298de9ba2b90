import { useState } from 'react'
import * as sendApi from '@awlbox/core/contracts/api/send'
import { fileAt } from '../api.ts'
import { Button } from '../kit/button.tsx'

/** A private link as it is given on: to be copied, or held before a camera. */
export function LinkBox({ link, label }: { link: string; label: string }) {
  const [copied, setCopied] = useState(false)
  const address = `${window.location.origin}${link}`
  return (
    <div className="grid grid-cols-[auto_minmax(0,1fr)] gap-3 items-center">
      <img
        src={fileAt(sendApi.qr, { link })}
        alt={`QR code: ${label}`}
        className="size-28 rounded-lg border border-hair bg-white p-1"
      />
      <div className="grid gap-2 justify-items-start">
        <input
          readOnly
          aria-label={label}
          value={address}
          onFocus={(e) => e.target.select()}
          className="w-full min-h-10 rounded-lg border border-hair bg-card px-2.5 text-sm"
        />
        <Button
          small
          onClick={() => {
            void navigator.clipboard.writeText(address).then(
              () => setCopied(true),
              () => setCopied(false),
            )
          }}
        >
          {copied ? 'Copied' : 'Copy the link'}
        </Button>
      </div>
    </div>
  )
}
