import { useCallback, useEffect, useRef, useState } from 'react'
import { wordsOf } from '../../api.ts'
import { isTyping } from '../../frame/head.tsx'

/** One thing done, and how it is taken back. */
interface Done {
  /** What it was, for the button that takes it back. */
  what: string
  undo: () => Promise<unknown>
  redo: () => Promise<unknown>
}
export interface Undoing {
  /** Does something and remembers how to take it back. False where it could not be done. */
  act: (done: Done) => Promise<boolean>
  undo: () => void
  redo: () => void
  canUndo: string | null
  canRedo: string | null
  problem: string | null
  setProblem: (words: string | null) => void
  /** How many things are being done: nothing is lost while it is above nought. */
  busy: number
}
/** What was done on a page, to be taken back and done again; Ctrl+Z and Ctrl+Shift+Z where nobody types. */
export function useUndo(after: () => Promise<unknown>): Undoing {
  const [past, setPast] = useState<Done[]>([])
  const [future, setFuture] = useState<Done[]>([])
  const [problem, setProblem] = useState<string | null>(null)
  const [busy, setBusy] = useState(0)
  // One after another: what is typed quickly is saved in the order it was typed.
  const line = useRef<Promise<unknown>>(Promise.resolve())
  const run = useCallback(
    (work: () => Promise<unknown>): Promise<boolean> => {
      setBusy((n) => n + 1)
      const mine = line.current.then(async () => {
        try {
          await work()
          setProblem(null)
          return true
        } catch (error) {
          setProblem(wordsOf(error))
          return false
        } finally {
          await after()
          setBusy((n) => n - 1)
        }
      })
      line.current = mine
      return mine
    },
    [after],
  )
  const act = useCallback(
    async (done: Done) => {
      const well = await run(done.redo)
      if (well) {
        setPast((p) => [...p, done].slice(-100))
        setFuture([])
      }
      return well
    },
    [run],
  )
  const undo = useCallback(() => {
    const last = past.at(-1)
    if (!last) return
    setPast((p) => p.slice(0, -1))
    void run(last.undo).then((well) => well && setFuture((f) => [...f, last]))
  }, [past, run])
  const redo = useCallback(() => {
    const next = future.at(-1)
    if (!next) return
    setFuture((f) => f.slice(0, -1))
    void run(next.redo).then((well) => well && setPast((p) => [...p, next]))
  }, [future, run])
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      if (!(e.ctrlKey || e.metaKey) || e.key.toLowerCase() !== 'z' || isTyping(e.target)) return
      e.preventDefault()
      if (e.shiftKey) redo()
      else undo()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [undo, redo])
  return {
    act,
    undo,
    redo,
    canUndo: past.at(-1)?.what ?? null,
    canRedo: future.at(-1)?.what ?? null,
    problem,
    setProblem,
    busy,
  }
}
