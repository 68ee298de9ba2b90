import { useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { send, wordsOf } from '../../api.ts'
import { Button } from '../../kit/button.tsx'
import { Dialog } from '../../kit/dialog.tsx'
import { Notice } from '../../kit/notice.tsx'

const slips = [['none', 'as written'], ['leave out a number', 'leave out a number of a count'], ['false start', 'start a line twice'], ['dead air', 'lose the thread for seven seconds'], ['skip a line', 'skip a line']] as const
const voices = [['slt', 'first voice'], ['rms', 'second voice'], ['awb', 'third voice'], ['kal16', 'fourth voice']] as const

/** Asks the stand-in camera for a take of this segment, with a slip or without. */
export function StandInDialog({ lessonId, segment, onClose, onAsked }: { lessonId: string; segment: Segment; onClose: () => void; onAsked: () => void }) {
  const [slip, setSlip] = useState<string>('none')
  const [voice, setVoice] = useState<string>('slt')
  const [problem, setProblem] = useState<string | null>(null)
  const go = async () => {
    try {
      await send('POST', `/api/lessons/${lessonId}/stand-in`, { segmentId: segment.id, slip, voice })
      onAsked()
      onClose()
    } catch (error) {
      setProblem(wordsOf(error))
    }
  }
  return (
    <Dialog open onClose={onClose} title="Let the stand-in film it">
      <p className="text-steel mb-3">It draws the table of “{segment.title}” step by step and speaks the lines: for trying things out with no camera. Families should see you.</p>
      <fieldset className="grid gap-1 mb-3"><legend className="font-semibold mb-1">It films the segment…</legend>
        {slips.map(([value, words]) => <label key={value} className="flex items-center gap-2 min-h-9"><input type="radio" name="slip" checked={slip === value} onChange={() => setSlip(value)} className="size-4 accent-ink" />{words}</label>)}
      </fieldset>
      <label className="flex items-center gap-2 mb-4">Voice <select value={voice} onChange={(e) => setVoice(e.target.value)} className="min-h-10 rounded-lg border border-hair bg-card px-2">{voices.map(([v, words]) => <option key={v} value={v}>{words}</option>)}</select></label>
      {problem && <div className="mb-3"><Notice kind="wrong">{problem}</Notice></div>}
      <Button look="main" onClick={() => void go()}>Film it</Button>
    </Dialog>
  )
}
