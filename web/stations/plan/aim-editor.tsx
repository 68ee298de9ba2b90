import type { Aim } from '@awlbox/core/contracts/lesson'
import { ideaById, ladder as ideas } from '@awlbox/core/plan/ladder/ladder'

const box = 'min-h-10 rounded-lg border border-hair bg-card px-2.5 font-semibold'
const wishes: readonly { key: Aim['mustHave'][number]; words: string }[] = [
  { key: 'double', words: 'a double' }, { key: 'turn-round', words: 'a turn-round pair' }, { key: 'zero', words: 'zero' }, { key: 'crosses ten', words: 'crossing ten' },
]
export interface AimChoice { ideaId: string; age: number; aim: Aim }

/** The aim as sentences to complete. */
export function AimEditor({ value, onChange, disabled }: { value: AimChoice; onChange: (v: AimChoice) => void; disabled?: boolean }) {
  const { ideaId, age, aim } = value
  const setAim = (change: Partial<Aim>) => onChange({ ...value, aim: { ...aim, ...change } })
  const setIdea = (id: string) => {
    const idea = ideaById(id)!
    onChange({ ...value, ideaId: id, age: Math.max(3, Math.min(7, age)), aim: { ...aim, structure: idea.structure!, upTo: idea.upTo, mustHave: aim.mustHave.filter((w) => w !== 'crosses ten') } })
  }
  const lowest = aim.structure === 'count-on' ? 4 : 2
  return (
    <fieldset disabled={disabled} className="grid gap-3">
      <p className="flex flex-wrap items-center gap-2">
        The idea is <select aria-label="Idea" className={box} value={ideaId} onChange={(e) => setIdea(e.target.value)}>{ideas.filter((i) => i.structure).map((i) => <option key={i.id} value={i.id}>{i.name}</option>)}</select>
        for age <select aria-label="Age" className={box} value={age} onChange={(e) => onChange({ ...value, age: Number(e.target.value) })}>{[3, 4, 5, 6, 7].map((n) => <option key={n}>{n}</option>)}</select>,
      </p>
      <p className="flex flex-wrap items-center gap-2">
        {aim.structure === 'parts' ? 'the whole is' : 'numbers go up to'}
        <input aria-label={aim.structure === 'parts' ? 'The whole' : 'Largest number'} type="number" min={lowest} max={20} className={`${box} w-20 figures`} value={aim.upTo} onChange={(e) => setAim({ upTo: Math.max(lowest, Math.min(20, Math.round(Number(e.target.value)) || lowest)) })} />,
        shown in <input aria-label="How many examples" type="number" min={2} max={8} className={`${box} w-16 figures`} value={aim.count} onChange={(e) => setAim({ count: Math.max(2, Math.min(8, Math.round(Number(e.target.value)) || 2)) })} /> examples.
      </p>
      <div className="flex flex-wrap items-center gap-2" role="group" aria-label="The set must hold">
        <span>Among them</span>
        {wishes.map(({ key, words }) => {
          const on = aim.mustHave.includes(key)
          return <button key={key} type="button" aria-pressed={on} onClick={() => setAim({ mustHave: on ? aim.mustHave.filter((w) => w !== key) : [...aim.mustHave, key] })} className={`min-h-10 rounded-full border px-3.5 cursor-pointer ${on ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}>{words}</button>
        })}
        {aim.structure !== 'parts' && <button type="button" aria-pressed={aim.noRepeatedTotal} onClick={() => setAim({ noRepeatedTotal: !aim.noRepeatedTotal })} className={`min-h-10 rounded-full border px-3.5 cursor-pointer ${aim.noRepeatedTotal ? 'border-ink bg-ink text-card font-semibold' : 'border-hair bg-card'}`}>no total twice</button>}
      </div>
    </fieldset>
  )
}
