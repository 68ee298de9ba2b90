import { Popover } from 'radix-ui'
import { useState } from 'react'
import type { ChildRow, ConsentKind } from '@awlbox/core/contracts/api/homes'
import * as homesApi from '@awlbox/core/contracts/api/homes'
import { ask, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { DateField } from '../../kit/date-field.tsx'
import { fieldLook } from '../../kit/field.ts'

/** What each consent is for, as a grown-up is asked. */
export const consentWords: Record<ConsentKind, string> = {
  photos: 'photos of what was made',
  sound: 'the child’s voice',
  showing: 'showing work to others',
  naming: 'a first name where others see it',
}
const today = (): string => new Date().toLocaleDateString('sv')
const short = (day: string): string =>
  new Date(`${day}T12:00:00`).toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })

/** A consent as a small dated mark; pressed, it asks who gave it or takes it back. */
export function ConsentMark({
  row,
  kind,
  onNoted,
}: {
  row: ChildRow
  kind: ConsentKind
  onNoted: () => void
}) {
  const now = row.consents[kind]
  const [open, setOpen] = useState(false)
  const [giver, setGiver] = useState(now?.giver ?? '')
  const [day, setDay] = useState(today())
  const [problem, setProblem] = useState<string | null>(null)
  const note = (given: boolean) => {
    ask(homesApi.saveConsent, { childId: row.id }, { kind, given, giver: giver.trim(), day }).then(
      () => {
        setOpen(false)
        setProblem(null)
        onNoted()
      },
      (e: unknown) => setProblem(wordsOf(e)),
    )
  }
  const said = now ? `${now.given ? 'yes' : 'no'}, ${short(now.day)}` : 'not asked'
  return (
    <Popover.Root open={open} onOpenChange={setOpen}>
      <Popover.Trigger
        disabled={!row.mayChange}
        aria-label={`Consent of ${row.name} for ${consentWords[kind]}: ${said}`}
        className={`min-h-9 rounded px-1.5 text-sm whitespace-nowrap enabled:cursor-pointer enabled:hover:bg-wash ${now ? (now.given ? '' : 'text-brick') : 'text-steel'}`}
      >
        {now ? `${now.given ? 'yes' : 'no'} · ${short(now.day)}` : '–'}
      </Popover.Trigger>
      <Popover.Portal>
        <Popover.Content
          align="end"
          sideOffset={4}
          collisionPadding={8}
          className="z-50 w-72 rounded-xl border border-hair bg-card text-ink p-3 shadow-lg grid gap-2"
        >
          <p className="font-semibold">
            {row.name}: {consentWords[kind]}
          </p>
          <label className="grid gap-1">
            <span className="text-sm">Who said so</span>
            <input
              className={fieldLook}
              value={giver}
              maxLength={40}
              placeholder="mum, grandad, carer"
              onChange={(e) => setGiver(e.target.value)}
            />
          </label>
          <div className="grid gap-1">
            <span className="text-sm">When</span>
            <DateField label="Day of the consent" value={day} required onChange={setDay} />
          </div>
          {problem && (
            <p role="alert" className="text-brick text-sm">
              {problem}
            </p>
          )}
          <div className="flex gap-2">
            <Button look="act" disabled={!giver.trim()} onClick={() => note(true)}>
              Yes
            </Button>
            <Button disabled={!giver.trim()} onClick={() => note(false)}>
              {now?.given ? 'No longer' : 'No'}
            </Button>
          </div>
          <p className="text-sm text-steel">
            Ask as your setting’s safeguarding policy and local law say; keep what was signed on paper.
          </p>
        </Popover.Content>
      </Popover.Portal>
    </Popover.Root>
  )
}
