import { Card } from '../../kit/card.tsx'
import * as settingsApi from '@awlbox/core/contracts/api/settings'
import { useAsked } from '../../frame/use-asked.ts'
import { useEffect, useMemo, useState } from 'react'
import { useSWRConfig } from 'swr'
import { defaultHouseStyle, type HouseStyle } from '@awlbox/core/contracts/house-style'
import { play } from '@awlbox/core/script/table/play'
import { ask, wordsOf } from '../../api.ts'
import { Away } from '../../frame/away.tsx'
import { Notice } from '../../kit/notice.tsx'
import { SettingFrame } from '../../frame/class-nav.tsx'
import { ChoiceButtons } from '../../frame/choice-buttons.tsx'
import { groups } from '../../frame/house-choices.ts'
import { TableDrawing } from '../../table/drawing.tsx'

/** Every choice of the house with a sentence that changes as it is made. All texts, checks and lessons made afterwards follow. */
export default function HouseStylePage() {
  const { data, error, mutate } = useAsked(settingsApi.houseStyle, {})
  const { mutate: refresh } = useSWRConfig()
  const [state, setState] = useState<
    { kind: 'saved' } | { kind: 'saving' } | { kind: 'wrong'; words: string }
  >({ kind: 'saved' })
  const [past, setPast] = useState<HouseStyle[]>([])
  useEffect(() => {
    document.title = 'House style · Awlbox'
  }, [])
  const frame = useMemo(() => play(['Put 7 on the frame']), [])
  if (error && !data) return <Away error={error} />
  const style = data?.style ?? defaultHouseStyle
  const save = async (next: HouseStyle, undoing = false) => {
    setState({ kind: 'saving' })
    const before = style
    await mutate({ style: next, mayChange: true }, { revalidate: false })
    try {
      await ask(settingsApi.saveHouseStyle, {}, next)
      if (!undoing) setPast((p) => [...p, before].slice(-40))
      setState({ kind: 'saved' })
      void refresh('/api/me')
    } catch (e) {
      await mutate({ style: before, mayChange: true }, { revalidate: false })
      setState({ kind: 'wrong', words: wordsOf(e) })
    }
  }
  const undo = () => {
    const last = past.at(-1)
    if (!last) return
    setPast((p) => p.slice(0, -1))
    void save(last, true)
  }
  return (
    <>
      <SettingFrame>
        <span role="status" className="text-steel max-sm:sr-only">
          {state.kind === 'saved' ? 'Saved' : state.kind === 'saving' ? 'Saving…' : ''}
        </span>
        <button
          type="button"
          disabled={!past.length}
          onClick={undo}
          className="min-h-10 rounded-lg border border-hair bg-card px-3.5 font-semibold disabled:opacity-50 cursor-pointer"
        >
          Undo
        </button>
      </SettingFrame>
      <main className="p-5 max-w-[1080px] grid gap-5">
        <div>
          <h1 className="font-bold text-lg">House style</h1>
          <p className="text-steel">
            Where teachers differ, your setting takes a side once. Scripts, checks, captions, forms and
            printables follow.
          </p>
        </div>
        {state.kind === 'wrong' && <Notice kind="wrong">{state.words}</Notice>}
        {data && !data.mayChange && (
          <Notice kind="info">
            Only the owner of the setting changes this. You can read what was chosen.
          </Notice>
        )}
        {groups.map((g) => (
          <Card as="section" key={g.title}>
            <h2 className="font-bold px-4 pt-3">{g.title}</h2>
            {g.choices.map((c) => (
              <div
                key={c.key}
                className="grid grid-cols-[minmax(0,1fr)_minmax(0,1fr)] max-md:grid-cols-1 gap-x-5 gap-y-1 px-4 py-2.5 border-b border-hair last:border-0 items-center"
              >
                <fieldset disabled={!data?.mayChange} className="min-w-0">
                  <legend className="font-semibold mb-1">{c.label}</legend>
                  {c.key === 'helper' ? (
                    <input
                      aria-label={c.label}
                      key={style.helper}
                      defaultValue={style.helper}
                      maxLength={40}
                      onBlur={(e) => {
                        const helper = e.target.value.trim()
                        if (helper.length >= 2 && helper !== style.helper) void save({ ...style, helper })
                      }}
                      className="min-h-9 w-full max-w-72 rounded-lg border border-hair bg-card px-2.5"
                    />
                  ) : (
                    <ChoiceButtons choice={c} style={style} onChoose={(next) => void save(next)} />
                  )}
                </fieldset>
                {c.key === 'frameFill' ? (
                  <div className="w-40">
                    <TableDrawing table={frame} fill={style.frameFill} moving />
                  </div>
                ) : (
                  <p className="font-child text-[17px]" data-example={c.key}>
                    {c.example(style)}
                  </p>
                )}
              </div>
            ))}
          </Card>
        ))}
      </main>
    </>
  )
}
