import { useState } from 'react'
import type { Replacement } from '@awlbox/core/contracts/api/send'
import { Button } from '../../kit/button.tsx'

/** Puts the newest film in the place of the one that was sent. Tasks and replies stay; families read what changed. */
export function ReplaceFilm({
  replacement,
  first,
  onReplace,
}: {
  replacement: Replacement
  /** Homes have no film yet. */
  first: boolean
  onReplace: (changes: string[]) => Promise<void>
}) {
  const [words, setWords] = useState(replacement.changes.join('\n'))
  const [busy, setBusy] = useState(false)
  return (
    <section aria-label="A newer film" className="rounded-xl border border-blue bg-card p-3 grid gap-2">
      <p>
        <b>
          {first
            ? 'There is a film now: it was sent without.'
            : 'A newer film is there than the one homes see.'}
        </b>{' '}
        <span className="text-steel">
          {first
            ? 'It joins the same page; tasks and what was answered stay.'
            : 'It can take the old one’s place; tasks and what was answered stay.'}
        </span>
      </p>
      <label className="grid gap-1 text-sm text-steel">
        What families read about it
        <textarea
          rows={Math.min(6, Math.max(2, words.split('\n').length))}
          maxLength={1500}
          value={words}
          onChange={(e) => setWords(e.target.value)}
          className="rounded-lg border border-hair bg-card p-2 text-ink text-base"
        />
      </label>
      <div>
        <Button
          look="act"
          disabled={busy}
          onClick={() => {
            setBusy(true)
            void onReplace(
              words
                .split('\n')
                .map((l) => l.trim().slice(0, 200))
                .filter(Boolean)
                .slice(0, 20),
            ).finally(() => setBusy(false))
          }}
        >
          {first ? 'Add the film' : 'Replace the film'}
        </Button>
      </div>
    </section>
  )
}
