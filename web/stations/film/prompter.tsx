import { useEffect, useState } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { readSeconds } from '@awlbox/core/script/reading'
import { Button } from '../../kit/button.tsx'

const silent: Partial<Record<string, string>> = { do: 'Do', wait: 'Wait', write: 'Write', pause: 'Say, then pause', count: 'Count', ask: 'Ask', reveal: 'Answer' }

/** The line to say now, large, and the next two. Waits fill a ring by themselves while filming. */
export function Prompter({ segment, filming }: { segment: Segment; filming: boolean }) {
  const [i, setI] = useState(0)
  useEffect(() => setI(0), [segment.id, filming])
  const step = segment.steps[i]
  const wait = step?.verb === 'wait' ? (readSeconds(step.text) ?? 5) : null
  useEffect(() => {
    if (!filming || wait === null) return
    const t = setTimeout(() => setI((n) => n + 1), wait * 1000)
    return () => clearTimeout(t)
  }, [filming, wait, i])
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (e.target instanceof HTMLInputElement || e.target instanceof HTMLTextAreaElement) return
      if (e.key === 'ArrowRight' || e.key === 'PageDown') setI((n) => Math.min(segment.steps.length, n + 1))
      if (e.key === 'ArrowLeft' || e.key === 'PageUp') setI((n) => Math.max(0, n - 1))
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [segment.steps.length])
  return (
    <section aria-label="Prompter" className="rounded-xl border border-hair bg-card p-4 min-h-[270px] grid content-start gap-2">
      <p className="flex justify-between text-sm text-steel"><span>{segment.title}</span><span className="figures">{step ? `line ${i + 1} of ${segment.steps.length}` : 'end of the segment'}</span></p>
      {step ? <div aria-live="polite">
        {silent[step.verb] && <span className="inline-block rounded-md bg-wash px-2 text-sm font-semibold mb-1">{silent[step.verb]}</span>}
        <p className={`font-child leading-tight ${step.text.length > 70 ? 'text-[30px]' : 'text-[40px]'}`}>{step.verb === 'wait' ? `${wait} seconds` : step.text}</p>
        {wait !== null && filming && <Ring key={i} seconds={wait} />}
      </div> : <p className="font-child text-[32px] text-steel">Stop here.</p>}
      <div className="font-child text-lg text-steel">{segment.steps.slice(i + 1, i + 3).map((s) => <p key={s.id} className="truncate">{s.verb === 'say' ? '' : `${s.verb}: `}{s.text}</p>)}</div>
      <div className="flex gap-2 mt-auto pt-2"><Button small disabled={i === 0} onClick={() => setI(i - 1)}>‹ Back</Button><Button small disabled={!step} onClick={() => setI(i + 1)}>Next line ›</Button><span className="text-sm text-steel self-center">or the arrow keys, or a clicker</span></div>
    </section>
  )
}
function Ring({ seconds }: { seconds: number }) {
  return (
    <svg width="56" height="56" viewBox="-28 -28 56 56" aria-label={`waiting ${seconds} seconds`} className="-rotate-90 mt-2">
      <circle r="22" fill="none" stroke="var(--hair)" strokeWidth="7" />
      <circle r="22" fill="none" stroke="#f2b705" strokeWidth="7" strokeDasharray="138.2" strokeDashoffset="138.2"><animate attributeName="stroke-dashoffset" from="138.2" to="0" dur={`${seconds}s`} fill="freeze" /></circle>
    </svg>
  )
}
