import { Split } from '../../frame/split.tsx'
import { Empty } from '../../kit/notice.tsx'
import { CutRows } from './cut-rows.tsx'
import { CutSessionProvider, useCutSession } from './cut-session.ts'
import { CutSide } from './cut-side.tsx'

export default function CutPage() {
  const session = useCutSession()
  const { list, current, doc, takes } = session
  if (!list) return <p className="p-8 text-steel">Opening the cut…</p>
  if (!current || !doc.segments.some((s) => s.id === current.segmentId) || !takes.length)
    return (
      <div className="p-5 max-w-xl">
        <Empty>
          Nothing is filmed yet. Film the segments first; a first cut is proposed from what was heard.
        </Empty>
      </div>
    )
  return (
    <CutSessionProvider value={{ ...session, list, current }}>
      <Split left={<CutRows />} right={<CutSide />} />
    </CutSessionProvider>
  )
}
