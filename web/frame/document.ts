import * as lessonsApi from '@awlbox/core/contracts/api/lessons'
import { useCallback, useEffect, useRef, useState } from 'react'
import { Lesson } from '@awlbox/core/contracts/lesson'
import { mergeLessons } from '@awlbox/core/script/merge'
import { keepHere, readKept } from '../kit/kept.ts'
import { ask, isAway, ProblemError, wordsOf } from '../api.ts'
import type { LessonRecord } from '@awlbox/core/contracts/api/lessons'

/** Where a document stands: saved, on its way, kept on this device until the server answers, or in conflict. */
export type SaveState =
  | { kind: 'saved'; revision: number }
  | { kind: 'saving' }
  | { kind: 'kept'; why: string }
  | {
      kind: 'conflict'
      mine: Lesson
      theirs: Lesson
      base: Lesson | null
      revision: number
      segments: { segmentId: string; title: string }[]
    }
  | { kind: 'refused'; why: string }

interface Draft {
  revision: number
  base: Lesson
  doc: Lesson
}
const draftKey = (id: string) => `awlbox-draft-${id}`
const undoKey = (id: string) => `awlbox-undo-${id}`
const undoDepth = 40
/** Letters typed within this many milliseconds of each other are one change. */
const typingPause = 1500
/** The draft this device kept, with what an older one does not say filled in; null for none, or one that is no lesson. */
function draftOf(id: string): Draft | null {
  const kept = readKept<Draft>(draftKey(id))
  const [doc, base] = [Lesson.safeParse(kept?.doc), Lesson.safeParse(kept?.base)]
  return kept && doc.success && base.success
    ? { revision: kept.revision, doc: doc.data, base: base.data }
    : null
}
export interface LessonDocument {
  doc: Lesson
  state: SaveState
  /** Changes the document. Changes with the same `typing` key, close after one another, are undone as one. */
  edit: (change: (doc: Lesson) => Lesson, typing?: string) => void
  undo: () => void
  redo: () => void
  canUndo: boolean
  canRedo: boolean
  resolve: (doc: Lesson) => void
}

/** Holds a lesson's document: every change is kept on this device at once and saved soon after; undo reaches across sessions. */
export function useLessonDocument(record: LessonRecord): LessonDocument {
  const id = record.id
  // What this device kept is read once, when the lesson is opened.
  const [draft] = useState(() => draftOf(id))
  const [doc, setDoc] = useState<Lesson>(draft?.doc ?? record.doc)
  const saved = useRef({ revision: draft?.revision ?? record.revision, doc: draft?.base ?? record.doc })
  const [state, setState] = useState<SaveState>(() =>
    draft ? { kind: 'saving' } : { kind: 'saved', revision: record.revision },
  )
  const [stacks, setStacks] = useState(
    () => readKept<{ past: Lesson[]; future: Lesson[] }>(undoKey(id)) ?? { past: [], future: [] },
  )
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null)
  const typed = useRef<{ key: string; at: number } | null>(null)
  const toKeep = useRef<{ draft?: Draft; undo?: { past: Lesson[]; future: Lesson[] } }>({})
  const keeping = useRef<ReturnType<typeof setTimeout> | null>(null)
  const latest = useRef(doc)
  const busy = useRef(false)
  useEffect(() => {
    latest.current = doc
  }, [doc])

  /** Writes what is to be kept on this device: after the screen has followed the key, or at once when the page goes. */
  const keepNow = useCallback(() => {
    if (keeping.current) clearTimeout(keeping.current)
    keeping.current = null
    const { draft: d, undo: u } = toKeep.current
    toKeep.current = {}
    if (d) keepHere(draftKey(id), d)
    if (u) keepHere(undoKey(id), u)
  }, [id])
  const keepSoon = useCallback(
    (what: { draft?: Draft; undo?: { past: Lesson[]; future: Lesson[] } }) => {
      toKeep.current = { ...toKeep.current, ...what }
      keeping.current ??= setTimeout(keepNow, 120)
    },
    [keepNow],
  )

  const save = useCallback(async (): Promise<void> => {
    if (busy.current) return
    const sending = latest.current
    if (sending === saved.current.doc) return
    busy.current = true
    setState({ kind: 'saving' })
    let again: number | null = null
    try {
      const { revision } = await ask(
        lessonsApi.saveLesson,
        { lessonId: id },
        {
          revision: saved.current.revision,
          doc: sending,
        },
      )
      saved.current = { revision, doc: sending }
      if (latest.current === sending) {
        delete toKeep.current.draft
        keepHere(draftKey(id), null)
        setState({ kind: 'saved', revision })
      } else again = 0
    } catch (error) {
      if (error instanceof ProblemError && error.status === 409) {
        const theirs = error.more.doc as Lesson
        const base = (error.more.base as Lesson | null) ?? saved.current.doc
        const revision = error.more.revision as number
        const merged = mergeLessons(base, latest.current, theirs)
        saved.current = { revision, doc: theirs }
        if (merged.ok) {
          latest.current = merged.doc
          setDoc(merged.doc)
          again = 0
        } else
          setState({ kind: 'conflict', mine: merged.doc, theirs, base, revision, segments: merged.conflicts })
      } else if (isAway(error)) {
        setState({ kind: 'kept', why: wordsOf(error) })
        again = 2000
      } else setState({ kind: 'refused', why: wordsOf(error) })
    } finally {
      busy.current = false
    }
    if (again !== null) timer.current = setTimeout(() => void save(), again)
  }, [id])

  const put = useCallback(
    (next: Lesson) => {
      latest.current = next
      setDoc(next)
      keepSoon({ draft: { revision: saved.current.revision, base: saved.current.doc, doc: next } })
      if (timer.current) clearTimeout(timer.current)
      timer.current = setTimeout(() => void save(), 500)
    },
    [keepSoon, save],
  )

  useEffect(() => {
    if (draft) void save()
    const onLeave = () => {
      keepNow()
      // The draft is already on this device; this sends it on its way as well.
      if (latest.current !== saved.current.doc && !busy.current)
        void fetch(`/api/lessons/${id}/doc`, {
          method: 'PUT',
          keepalive: true,
          headers: { 'content-type': 'application/json' },
          body: JSON.stringify({ revision: saved.current.revision, doc: latest.current }),
        }).catch(() => undefined)
    }
    window.addEventListener('pagehide', onLeave)
    return () => {
      window.removeEventListener('pagehide', onLeave)
      if (timer.current) clearTimeout(timer.current)
      keepNow()
      void save()
    }
  }, [id, save, keepNow, draft])

  // Somebody else's change arrives while nothing of ours is unsaved: take it over.
  useEffect(() => {
    if (record.revision > saved.current.revision && latest.current === saved.current.doc && !busy.current) {
      saved.current = { revision: record.revision, doc: record.doc }
      latest.current = record.doc
      setDoc(record.doc)
      setState({ kind: 'saved', revision: record.revision })
    }
  }, [record])

  const remember = (next: { past: Lesson[]; future: Lesson[] }) => {
    typed.current = null
    setStacks(next)
    keepSoon({ undo: next })
  }
  const edit = useCallback(
    (change: (doc: Lesson) => Lesson, typing?: string) => {
      const before = latest.current
      const next = change(before)
      if (next === before) return
      const now = performance.now()
      const goesOn =
        typing !== undefined && typed.current?.key === typing && now - typed.current.at < typingPause
      typed.current = typing === undefined ? null : { key: typing, at: now }
      if (!goesOn)
        setStacks((s) => {
          const stacksNext = { past: [...s.past, before].slice(-undoDepth), future: [] }
          keepSoon({ undo: stacksNext })
          return stacksNext
        })
      put(next)
    },
    [keepSoon, put],
  )
  return {
    doc,
    state,
    edit,
    canUndo: stacks.past.length > 0 || saved.current.revision > 1,
    canRedo: stacks.future.length > 0,
    undo() {
      const before = stacks.past.at(-1)
      if (before) {
        remember({
          past: stacks.past.slice(0, -1),
          future: [latest.current, ...stacks.future].slice(0, undoDepth),
        })
        // Kept by this device, perhaps before lessons held all they hold now.
        put(Lesson.parse(before))
        return
      }
      // Nothing left in this browser: the server keeps every revision.
      const revision = saved.current.revision - 1
      if (revision < 1) return
      void ask(lessonsApi.readRevision, { lessonId: id, revision })
        .then((r) => {
          remember({ past: [], future: [latest.current, ...stacks.future].slice(0, undoDepth) })
          put(r.doc)
        })
        .catch(() => undefined)
    },
    redo() {
      const [next, ...rest] = stacks.future
      if (!next) return
      remember({ past: [...stacks.past, latest.current].slice(-undoDepth), future: rest })
      put(Lesson.parse(next))
    },
    resolve(next) {
      put(next)
    },
  }
}
