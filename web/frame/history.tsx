import useSWR from 'swr'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { get } from '../api.ts'
import { Button } from '../kit/button.tsx'
import { Dialog } from '../kit/dialog.tsx'
import { useLesson } from './lesson-context.ts'

/** Every revision of the lesson; any of them can be brought back, which is itself a change that can be undone. */
export function HistoryDialog({ onClose }: { onClose: () => void }) {
  const { record, edit } = useLesson()
  const { data } = useSWR<{ items: { revision: number; at: string; by: string | null }[] }>(`/api/lessons/${record.id}/revisions`)
  const bring = async (revision: number) => {
    const { doc } = await get<{ doc: Lesson }>(`/api/lessons/${record.id}/revisions/${revision}`)
    edit(() => doc)
    onClose()
  }
  return (
    <Dialog open onClose={onClose} title="History">
      <ul>
        {data?.items.map((r, i) => (
          <li key={r.revision} className="flex items-center justify-between gap-3 border-b border-hair py-1.5">
            <span className="figures">Revision {r.revision}</span>
            <span className="text-steel text-sm flex-1">{new Date(r.at).toLocaleString('en-GB', { day: 'numeric', month: 'short', hour: '2-digit', minute: '2-digit' })}{r.by ? ` · ${r.by}` : ''}</span>
            {i === 0 ? <span className="text-steel">now</span> : <Button small disabled={!record.mayChange} onClick={() => void bring(r.revision)}>Bring back</Button>}
          </li>
        ))}
      </ul>
    </Dialog>
  )
}
