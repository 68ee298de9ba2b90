import { useCallback, useEffect, useRef, useState } from 'react'
import useSWR from 'swr'
import type { CutList } from '@awlbox/core/contracts/cut'
import { isAway, ProblemError, send, wordsOf } from '../../api.ts'

/** The cut list: changed on the page at once, saved soon after; a change from elsewhere is taken over with a word. */
export function useCut(lessonId: string) {
  const { data, mutate } = useSWR<{ revision: number; doc: CutList }>(`/api/lessons/${lessonId}/cut`)
  const [doc, setDoc] = useState<CutList | null>(null)
  const [past, setPast] = useState<CutList[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  const revision = useRef(0)
  const latest = useRef<CutList | null>(null)
  const dirty = useRef(false)
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  const busy = useRef<Promise<void> | null>(null)
  useEffect(() => {
    if (!data || dirty.current) return
    revision.current = data.revision
    latest.current = data.doc
    setDoc(data.doc)
  }, [data])
  const save = useCallback(async (): Promise<void> => {
    while (busy.current) await busy.current
    if (!dirty.current || !latest.current) return
    const sending = latest.current
    busy.current = (async () => {
      try {
        const r = await send<{ revision: number }>('PUT', `/api/lessons/${lessonId}/cut`, { revision: revision.current, doc: sending })
        revision.current = r.revision
        if (latest.current === sending) dirty.current = false
        setProblem(null)
      } catch (error) {
        if (error instanceof ProblemError && error.status === 409) {
          dirty.current = false
          setProblem('This cut was changed in another window. That version is shown now; yours is behind Undo.')
          setPast((p) => [...p, sending])
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
  const put = useCallback((next: CutList) => {
    latest.current = next
    dirty.current = true
    setDoc(next)
    if (timer.current) clearTimeout(timer.current)
    timer.current = setTimeout(() => void save(), 400)
  }, [save])
  useEffect(() => () => void save(), [save])
  const edit = useCallback((change: (c: CutList) => CutList) => {
    const before = latest.current
    if (!before) return
    setPast((p) => [...p.slice(-60), before])
    put(change(before))
  }, [put])
  return {
    doc, problem, edit, flush: async () => {
      if (timer.current) clearTimeout(timer.current)
      await save()
    },
    canUndo: past.length > 0,
    undo: () => {
      const before = past.at(-1)
      if (!before) return
      setPast(past.slice(0, -1))
      put(before)
    },
  }
}
