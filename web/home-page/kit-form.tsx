import { useCallback, useEffect, useState } from 'react'
import type { Answer } from '@awlbox/core/contracts/api/route'
import { type OtherWay, otherWays } from '@awlbox/core/contracts/home-lists'
import type { WordKey } from '@awlbox/core/send/words/words'
import { ask } from '../api.ts'
import { homeKit, saveHomeKit } from './calls.ts'
import { useLink } from './link.ts'
import { useWords } from './words.ts'

type Survey = Answer<typeof homeKit>
const toggled = <T,>(list: readonly T[], x: T): T[] =>
  list.includes(x) ? list.filter((y) => y !== x) : [...list, x]

/** What a home has, and what helps there: ticked once, so that lessons ask for what is there. */
export function KitForm() {
  const token = useLink()
  const { say } = useWords()
  const [survey, setSurvey] = useState<Survey | null>(null)
  const [has, setHas] = useState<string[]>([])
  const [ways, setWays] = useState<OtherWay[]>([])
  const [countable, setCountable] = useState(10)
  const [canPrint, setCanPrint] = useState(false)
  const [said, setSaid] = useState<{ ok: boolean; words: string } | null>(null)
  const failed = useCallback(() => setSaid({ ok: false, words: say('problem.away') }), [say])
  useEffect(() => {
    ask(homeKit, { token }).then((s) => {
      setSurvey(s)
      if (!s.kit) return
      setHas(s.kit.has)
      setCountable(s.kit.countable)
      setCanPrint(s.kit.canPrint)
      setWays(s.kit.ways)
    }, failed)
  }, [token, failed])
  const save = () =>
    ask(saveHomeKit, { token }, { has, countable, canPrint, ways }).then(
      () => setSaid({ ok: true, words: say('kit.thanks') }),
      failed,
    )
  return (
    <>
      {survey && (
        <div className="pb-4 grid gap-3">
          <p>{say('kit.tick')}</p>
          <ul className="grid grid-cols-2 max-[360px]:grid-cols-1 gap-1.5">
            {survey.things.map((t) => (
              <li key={t}>
                <Tick on={has.includes(t)} onChange={() => setHas((h) => toggled(h, t))}>
                  {say(`thing.${t}` as WordKey)}
                </Tick>
              </li>
            ))}
          </ul>
          <label className="flex items-center gap-3 flex-wrap">
            {say('kit.count')}
            <select
              value={countable}
              onChange={(e) => setCountable(Number(e.target.value))}
              className="min-h-12 rounded-lg border border-hair bg-card px-3"
            >
              {[5, 10, 20, 30, 50].map((n) => (
                <option key={n} value={n}>
                  {say(n === 50 ? 'kit.over' : 'kit.to', { n })}
                </option>
              ))}
            </select>
          </label>
          <Tick on={canPrint} onChange={() => setCanPrint(!canPrint)}>
            {say('kit.print')}
          </Tick>
          <fieldset className="grid gap-1">
            <legend className="font-semibold mb-1">{say('kit.ways')}</legend>
            {otherWays.map((w) => (
              <Tick key={w} on={ways.includes(w)} onChange={() => setWays((x) => toggled(x, w))}>
                {say(`kit.way.${w}`)}
              </Tick>
            ))}
          </fieldset>
          <button
            type="button"
            onClick={() => void save()}
            className="min-h-12 rounded-lg bg-moss text-on-moss font-semibold"
          >
            {say('kit.tell')}
          </button>
        </div>
      )}
      {said && (
        <p role="status" className={`pb-3 ${said.ok ? 'text-moss' : 'text-brick'}`}>
          {said.words}
        </p>
      )}
    </>
  )
}
function Tick({ on, onChange, children }: { on: boolean; onChange: () => void; children: React.ReactNode }) {
  return (
    <label className="flex items-center gap-2 min-h-12">
      <input type="checkbox" className="size-6 accent-ink shrink-0" checked={on} onChange={onChange} />
      <span>{children}</span>
    </label>
  )
}
