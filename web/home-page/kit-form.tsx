import { useState } from 'react'
import type { Answer } from '@awlbox/core/contracts/api/route'
import { ask, wordsOf } from '../api.ts'
import { homeKit, saveHomeKit } from './calls.ts'
import { useLink } from './link.ts'

type Survey = Answer<typeof homeKit>

/** What a home has: ticked once, so that lessons ask for what is there. */
export function KitForm() {
  const token = useLink()
  const [open, setOpen] = useState(false)
  const [survey, setSurvey] = useState<Survey | null>(null)
  const [has, setHas] = useState<string[]>([])
  const [countable, setCountable] = useState(10)
  const [canPrint, setCanPrint] = useState(false)
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null)
  const show = () => {
    setOpen(!open)
    if (survey) return
    ask(homeKit, { token }).then(
      (s) => {
        setSurvey(s)
        if (s.kit) {
          setHas(s.kit.has)
          setCountable(s.kit.countable)
          setCanPrint(s.kit.canPrint)
        }
      },
      (e: unknown) => setSaid({ ok: false, words: wordsOf(e) }),
    )
  }
  const save = () =>
    ask(saveHomeKit, { token }, { has, countable, canPrint }).then(
      () => setSaid({ ok: true, words: 'Thank you. Your teacher sees it when planning.' }),
      (e: unknown) => setSaid({ ok: false, words: wordsOf(e) }),
    )
  const tick = (t: string) => setHas((h) => (h.includes(t) ? h.filter((x) => x !== t) : [...h, t]))
  return (
    <section className="rounded-xl border border-hair bg-card px-4">
      <button
        type="button"
        aria-expanded={open}
        onClick={show}
        className="w-full min-h-12 text-left font-semibold cursor-pointer"
      >
        What have you at home?
      </button>
      {open && survey && (
        <div className="pb-4 grid gap-3">
          <p>Tick what you have. Nothing needs to be bought.</p>
          <ul className="grid grid-cols-2 max-[360px]:grid-cols-1 gap-1.5">
            {survey.things.map((t) => (
              <li key={t}>
                <label className="flex items-center gap-2 min-h-12">
                  <input
                    type="checkbox"
                    className="size-6 accent-ink shrink-0"
                    checked={has.includes(t)}
                    onChange={() => tick(t)}
                  />
                  {t}
                </label>
              </li>
            ))}
          </ul>
          <label className="flex items-center gap-3 flex-wrap">
            How many small things can you count out?
            <select
              value={countable}
              onChange={(e) => setCountable(Number(e.target.value))}
              className="min-h-12 rounded-lg border border-hair bg-card px-3"
            >
              {[5, 10, 20, 30, 50].map((n) => (
                <option key={n} value={n}>
                  {n === 50 ? '50 or more' : `up to ${n}`}
                </option>
              ))}
            </select>
          </label>
          <label className="flex items-center gap-2 min-h-12">
            <input
              type="checkbox"
              className="size-6 accent-ink"
              checked={canPrint}
              onChange={(e) => setCanPrint(e.target.checked)}
            />
            We can print a page
          </label>
          <button
            type="button"
            onClick={() => void save()}
            className="min-h-12 rounded-lg bg-moss text-on-moss font-semibold"
          >
            Tell the teacher
          </button>
        </div>
      )}
      {open && !survey && !said && <p className="pb-3 text-steel">Opening…</p>}
      {said && (
        <p role="status" className={`pb-3 ${said.ok ? 'text-moss' : 'text-brick'}`}>
          {said.words}
        </p>
      )}
    </section>
  )
}
