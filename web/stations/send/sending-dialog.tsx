import type { PackTask } from '@awlbox/core/contracts/pack'
import { sendBack } from '@awlbox/core/send/send-back'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { DateField } from '../../kit/date-field.tsx'

/** By when it is wanted, until when it takes replies, and whether homes are told. */
export interface When {
  due: string | null
  closes: string | null
  /** Moment homes see it from; null: at once. */
  release: string | null
  write: boolean
}

/** A moment as the field of a browser has it, by the clock here. */
function localOf(iso: string): string {
  const at = new Date(iso)
  return new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16)
}

export function SendingDialog({
  when,
  tasks,
  onChange,
  onClose,
  onGo,
}: {
  when: When
  tasks: readonly PackTask[]
  onChange: (when: When) => void
  onClose: () => void
  onGo: () => void
}) {
  const wrong = when.due !== null && when.closes !== null && when.closes < when.due
  return (
    <Dialog open onClose={onClose} title="Send it to the homes">
      <div className="grid gap-3">
        <label className="grid gap-1 w-fit">
          Homes see it
          <input
            type="datetime-local"
            value={when.release ? localOf(when.release) : ''}
            onChange={(e) =>
              onChange({ ...when, release: e.target.value ? new Date(e.target.value).toISOString() : null })
            }
            className="min-h-10 rounded-lg border border-hair bg-card px-2.5"
          />
          <span className="text-sm text-steel">{when.release ? 'from then on' : 'empty: at once'}</span>
        </label>
        <div className="flex flex-wrap gap-4">
          <div className="grid gap-1">
            Wanted by
            <DateField
              label="Wanted by"
              value={when.due ?? ''}
              onChange={(due) => onChange({ ...when, due: due || null })}
            />
          </div>
          <div className="grid gap-1">
            Takes answers until
            <DateField
              label="Takes answers until"
              value={when.closes ?? ''}
              onChange={(closes) => onChange({ ...when, closes: closes || null })}
            />
          </div>
        </div>
        <p className="text-sm text-steel">
          Homes read the first as a wish. After the second nothing more comes in; leave it open where you can.
        </p>
        {wrong && (
          <p role="alert" className="text-brick">
            It would close before it is wanted.
          </p>
        )}
        <section aria-label="What homes are told" className="rounded-lg bg-wash p-3 grid gap-1">
          <h3 className="font-semibold">What homes are told about sending back</h3>
          <ul className="grid gap-0.5 text-sm">
            {sendBack(tasks, when.due).map((p) => (
              <li key={p.part} className="flex gap-2">
                <span className="w-18 shrink-0 font-semibold">{p.part}</span>
                <span className={p.said ? 'text-steel' : 'text-brick'}>{p.words}</span>
              </li>
            ))}
          </ul>
        </section>
        <label className="flex items-center gap-2 min-h-9">
          <input
            type="checkbox"
            className="size-4 accent-ink"
            checked={when.write}
            onChange={(e) => onChange({ ...when, write: e.target.checked })}
          />
          Write to each home in its language: by mail, or as a text you copy
        </label>
        <div className="flex gap-2">
          <Button look="main" disabled={wrong} onClick={onGo}>
            Send
          </Button>
          <Button look="quiet" onClick={onClose}>
            Not yet
          </Button>
        </div>
      </div>
    </Dialog>
  )
}
