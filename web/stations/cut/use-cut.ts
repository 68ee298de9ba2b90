import * as cutApi from '@awlbox/core/contracts/api/cut'
import { useAsked } from '../../frame/use-asked.ts'
import { useCallback, useEffect, useRef, useState } from 'react'
import type { CutList } from '@awlbox/core/contracts/cut'
import { ask, isAway, ProblemError, wordsOf } from '../../api.ts'

/** The cut list: changed on the page at once, saved soon after, undone and redone without limit; a change from elsewhere is taken over with a word. */
export function useCut(lessonId: string) {
  const { data, mutate } = useAsked(cutApi.readCut, { lessonId })
  const [doc, setDoc] = useState<CutList | null>(null)
  const [steps, setSteps] = useState<{ past: readonly CutList[]; future: readonly CutList[] }>({
    past: [],
    future: [],
  })
  const [problem, setProblem] = useState<string | null>(null)
  const [saving, setSaving] = useState(false)
  /** The revision that is saved, for the page; the ref is what the next save names. */
  const [saved, setSaved] = useState(0)
  const revision = useRef(0)
  const latest = useRef<CutList | null>(null)
  const dirty = useRef(false)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  const busy = useRef<Promise<void> | null>(null)
  useEffect(() => {
    // An answer that was on its way while something was saved is older than what is shown.
    if (!data || dirty.current || data.revision < revision.current) return
    revision.current = data.revision
    setSaved(data.revision)
    latest.current = data.doc
    setDoc(data.doc)
  }, [data])
  const save = useCallback(async (): Promise<void> => {
    while (busy.current) await busy.current
    if (!dirty.current || !latest.current) return
    const sending = latest.current
    busy.current = (async () => {
      try {
        const r = await ask(
          cutApi.saveCut,
          { lessonId },
          {
            revision: revision.current,
            doc: sending,
          },
        )
        revision.current = r.revision
        setSaved(r.revision)
        if (latest.current === sending) {
          dirty.current = false
          setSaving(false)
        }
        setProblem(null)
      } catch (error) {
        if (error instanceof ProblemError && error.status === 409) {
          dirty.current = false
          setSaving(false)
          setProblem(
            'This cut was changed in another window. That version is shown now; yours is behind Undo.',
          )
          setSteps((s) => ({ past: [...s.past, sending], future: [] }))
          await mutate()
        } else {
          setProblem(wordsOf(error))
          if (isAway(error)) timer.current = setTimeout(() => void save(), 2000)
        }
      }
    })()
    await busy.current
    busy.current = null
  }, [lessonId, mutate])
  const put = useCallback(
    (next: CutList) => {
      latest.current = next
      dirty.current = true
      setDoc(next)
      setSaving(true)
      if (timer.current) clearTimeout(timer.current)
      timer.current = setTimeout(() => void save(), 400)
    },
    [save],
  )
  useEffect(() => () => void save(), [save])
  const drag = useRef<string | null>(null)
  /** Changes the cut. Changes with the same `together`, one after another, are one step of undo: a drag, a word typed. */
  const edit = useCallback(
    (change: (c: CutList) => CutList, together: string | null = null) => {
      const before = latest.current
      if (!before) return
      const next = change(before)
      if (next === before) return
      if (!together || together !== drag.current) setSteps((s) => ({ past: [...s.past, before], future: [] }))
      drag.current = together
      put(next)
    },
    [put],
  )
  const undo = useCallback(() => {
    const [before, now] = [steps.past.at(-1), latest.current]
    if (!before || !now) return
    drag.current = null
    setSteps({ past: steps.past.slice(0, -1), future: [now, ...steps.future] })
    put(before)
  }, [steps, put])
  const redo = useCallback(() => {
    const [after, now] = [steps.future[0], latest.current]
    if (!after || !now) return
    drag.current = null
    setSteps({ past: [...steps.past, now], future: steps.future.slice(1) })
    put(after)
  }, [steps, put])
  return {
    doc,
    problem,
    saving,
    revision: saving ? saved + 1 : saved,
    edit,
    undo,
    redo,
    canUndo: steps.past.length > 0,
    canRedo: steps.future.length > 0,
    flush: async () => {
      if (timer.current) clearTimeout(timer.current)
      await save()
    },
  }
}
