import { useState } from 'react'
import { useNavigate } from 'react-router'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { fromTemplate, kitFor } from '@awlbox/core/script/template/lesson'
import { compareStock } from '@awlbox/core/script/stock'
import { useLesson } from '../../frame/lesson-context.ts'
import { newId } from '../../frame/new-id.ts'
import { Button } from '../../kit/button.tsx'
import { Notice } from '../../kit/notice.tsx'
import { AimEditor, type AimChoice } from './aim-editor.tsx'
import { ExampleRow, SetChooser } from './example-sets.tsx'
import { ThingsList } from './things-list.tsx'
import { useSets } from './use-sets.ts'

export default function PlanPage() {
  const { doc, edit, me, record, proofed } = useLesson()
  const [value, setValue] = useState<AimChoice>({ ideaId: doc.ideaId, age: doc.age, aim: doc.aim })
  const [searching, setSearching] = useState(false)
  const { result, chosen, choose, again } = useSets(value, me.houseStyle)
  const navigate = useNavigate()
  const stock = compareStock(doc.kit, proofed.needs)
  const differs = stock.missing.length + stock.short.length + stock.unused.length > 0
  const rewrite = () => {
    if (!result.ok) return
    edit((d) => ({ ...fromTemplate({ title: d.title, ...value, examples: result.sets[chosen]!.examples, style: me.houseStyle, newId }) }))
    void navigate('../script')
  }
  return (
    <div className="grid grid-cols-[minmax(320px,38%)_1fr] max-lg:grid-cols-1 gap-5 p-5">
      <section className="grid gap-4 content-start">
        <div className="rounded-xl border border-hair bg-card p-4"><h2 className="font-bold text-lg mb-3">{ideaById(doc.ideaId)?.name ?? 'The idea'}</h2><AimEditor value={value} disabled={!record.mayChange} onChange={(v) => (setValue(v), setSearching(true))} /></div>
        <div className="rounded-xl border border-hair bg-card p-4">
          <h2 className="font-bold mb-2">Each home needs</h2>
          <ThingsList kit={doc.kit} />
          {differs && <div className="mt-3"><Notice kind="info" action={<Button small look="act" disabled={!record.mayChange} onClick={() => edit((d) => ({ ...d, kit: kitFor(d) }))}>Count again</Button>}>The script no longer uses just this.</Notice></div>}
        </div>
      </section>
      <section className="grid gap-3 content-start">
        <div className="flex items-center justify-between gap-3 flex-wrap"><h2 className="font-bold text-lg">{searching ? 'Sets for this aim' : 'The examples of this lesson'}</h2>
          {searching ? <Button onClick={again} disabled={!result.ok}>Search again</Button> : <Button disabled={!record.mayChange} onClick={() => setSearching(true)}>Find other sets</Button>}</div>
        {!searching && <div className="rounded-xl border border-hair bg-card p-3"><ExampleRow examples={doc.examples} aim={doc.aim} /></div>}
        {searching && (result.ok ? <>
          <SetChooser sets={result.sets} chosen={chosen} onChoose={choose} aim={value.aim} />
          <div className="flex items-center gap-3 flex-wrap"><Button look="main" onClick={rewrite}>Write the script again with set {chosen + 1}</Button><Button onClick={() => (setSearching(false), setValue({ ideaId: doc.ideaId, age: doc.age, aim: doc.aim }))}>Keep the script</Button><span className="text-steel">Replaces every segment; Undo brings them back.</span></div>
        </> : <Notice kind="wrong">{result.conflict}</Notice>)}
      </section>
    </div>
  )
}
