import { isAway, ProblemError, wordsOf } from '../api.ts'
import { keepHere, readKept } from './kept.ts'
import { retrier } from './retrier.ts'

/** Where a document stands: saved, on its way, kept on this device until the server answers, or in conflict. */
export type Saving<T, C> =
  | { kind: 'saved'; revision: number }
  | { kind: 'saving' }
  | { kind: 'kept'; why: string }
  | { kind: 'conflict'; mine: T; theirs: T; base: T; revision: number; conflicts: C }
  | { kind: 'refused'; why: string }

export interface Revision<T> {
  revision: number
  doc: T
}
type Merged<T, C> = { ok: true; doc: T } | { ok: false; doc: T; conflicts: C }

/** How one kind of document is saved, merged and kept. */
export interface DocumentKind<T, C> {
  /** Under this name this device keeps what the server has not. */
  draftKey: string
  /** Under this name it keeps the steps of undo; null where they end with the page. */
  undoKey: string | null
  undoDepth: number
  /** A document this device kept, perhaps before documents held all they hold now; null where it is none. */
  read: (kept: unknown) => T | null
  save: (from: Revision<T>, doc: T) => Promise<{ revision: number }>
  /** The same when the page goes: nobody waits for the answer. */
  saveLeaving: (from: Revision<T>, doc: T) => void
  /** What a stale save was told: the newest document, and the one ours was made from where the server knows it. */
  newest: (problem: ProblemError) => Revision<T> & { base: T | null }
  merge: (base: T, mine: T, theirs: T) => Merged<T, C>
  /** What becomes of a conflict: the person is asked, or theirs is shown and ours lies behind undo, with these words. */
  onConflict: { ask: true } | { ask: false; words: string }
  /** An earlier revision, for undo beyond what this browser knows; null where there is none to be had. */
  earlier: ((revision: number) => Promise<T>) | null
  /** Whether the server's document can hold more at the same revision: what came in since it was saved. */
  growsUnsaved: boolean
  /** Milliseconds after the last change before it is saved. */
  pause: number
  /** Changes named alike within so many milliseconds of each other are one step of undo. */
  together: number
}

export interface DocumentState<T, C> {
  doc: T
  saving: Saving<T, C>
  /** The revision that is saved. */
  revision: number
  unsaved: boolean
  canUndo: boolean
  canRedo: boolean
  /** What the person should know about a change from elsewhere; null where there is nothing. */
  told: string | null
}
export interface SavedDocument<T, C> {
  state: () => DocumentState<T, C>
  subscribe: (changed: () => void) => () => void
  /** Changes the document; `name` joins changes that follow each other into one step of undo. */
  edit: (change: (doc: T) => T, name?: string | null) => void
  undo: () => void
  redo: () => void
  /** Ends a conflict with what the person chose. */
  resolve: (doc: T) => void
  /** A document as the server has it now: taken over where nothing of ours is unsaved and it is newer. */
  takeOver: (now: Revision<T>) => void
  /** Saves what is not saved, at once. */
  flush: () => Promise<void>
  /** While the page shows it. Gives how to stop: what is unsaved is then sent on its way. */
  open: () => () => void
}
interface Draft<T> extends Revision<T> {
  base: T
}
interface Steps<T> {
  past: readonly T[]
  future: readonly T[]
}
/** Said while the server does not answer and this device has no room: only the open page has the change. */
const noRoom =
  'Awlbox does not answer, and this device has no room to keep it. Leave this page open until it is saved.'
/** Milliseconds after a change before it is written to this device: after the screen has followed the key. */
const writeAfter = 120

/** A document that saves itself: every change is seen at once, kept on this device, saved soon after, and can be undone. */
export function savedDocument<T, C>(kind: DocumentKind<T, C>, opened: Revision<T>): SavedDocument<T, C> {
  const draft = draftOf(kind)
  const listeners = new Set<() => void>()
  let doc = draft?.doc ?? opened.doc
  let saved: Revision<T> = draft ? { revision: draft.revision, doc: draft.base } : opened
  let saving: Saving<T, C> = draft ? { kind: 'saving' } : { kind: 'saved', revision: opened.revision }
  let steps: Steps<T> = (kind.undoKey ? readKept<Steps<T>>(kind.undoKey) : null) ?? { past: [], future: [] }
  let told: string | null = null
  let named: { name: string; at: number } | null = null
  let state = snapshot()

  function snapshot(): DocumentState<T, C> {
    return {
      doc,
      saving,
      revision: saved.revision,
      unsaved: doc !== saved.doc,
      canUndo: steps.past.length > 0 || (kind.earlier !== null && saved.revision > 1),
      canRedo: steps.future.length > 0,
      told,
    }
  }
  function changed(): void {
    state = snapshot()
    listeners.forEach((tell) => tell())
  }

  const kept = keeper(kind)
  /** What is shown is what the server has. */
  function settled(): void {
    saving = { kind: 'saved', revision: saved.revision }
    kept.draft(null)
  }
  const saver = retrier(attempt)
  async function attempt(): Promise<'done' | 'later'> {
    if (saving.kind === 'conflict') return 'done'
    if (doc === saved.doc) {
      // Undone to what the server has, or theirs was chosen: nothing is on its way, kept or refused any more.
      settled()
      changed()
      return 'done'
    }
    const sending = doc
    saving = { kind: 'saving' }
    changed()
    try {
      const { revision } = await kind.save(saved, sending)
      saved = { revision, doc: sending }
      told = null
      if (doc === sending) settled()
      else saver.after(0)
      return 'done'
    } catch (error) {
      if (error instanceof ProblemError && error.status === 409) stale(error)
      else if (isAway(error)) {
        kept.write()
        saving = kept.held() ? { kind: 'kept', why: wordsOf(error) } : { kind: 'refused', why: noRoom }
        return 'later'
      } else saving = { kind: 'refused', why: wordsOf(error) }
      return 'done'
    } finally {
      changed()
    }
  }
  /** Somebody saved before us: their change and ours are put together where they can be. */
  function stale(problem: ProblemError): void {
    const theirs = kind.newest(problem)
    const base = theirs.base ?? saved.doc
    const mine = doc
    const merged = kind.merge(base, mine, theirs.doc)
    saved = { revision: theirs.revision, doc: theirs.doc }
    if (merged.ok) {
      doc = merged.doc
      if (doc === saved.doc) settled()
      else saver.after(0)
    } else if (kind.onConflict.ask)
      saving = {
        kind: 'conflict',
        mine: merged.doc,
        theirs: theirs.doc,
        base,
        revision: theirs.revision,
        conflicts: merged.conflicts,
      }
    else {
      doc = theirs.doc
      told = kind.onConflict.words
      settled()
      remember({ past: [...steps.past, mine], future: [] })
    }
  }

  function put(next: T): void {
    doc = next
    if (saving.kind === 'conflict') saving = { kind: 'saving' }
    kept.draft({ revision: saved.revision, base: saved.doc, doc: next })
    saver.after(kind.pause)
    changed()
  }
  function remember(next: Steps<T>): void {
    steps = { past: next.past.slice(-kind.undoDepth), future: next.future.slice(0, kind.undoDepth) }
    kept.steps(steps)
  }
  /** A step as it can be shown: one that this device kept may be older than what documents hold now. */
  const step = (kept: T): T => (kept === saved.doc ? kept : (kind.read(kept) ?? kept))
  /** Beyond what this browser knows: the server keeps every revision. */
  function undoOnServer(): void {
    const revision = saved.revision - 1
    if (!kind.earlier || revision < 1) return
    kind.earlier(revision).then(
      (before) => {
        remember({ past: [], future: [doc, ...steps.future] })
        put(before)
      },
      (error: unknown) => {
        told = wordsOf(error)
        changed()
      },
    )
  }

  return {
    state: () => state,
    subscribe(tell) {
      listeners.add(tell)
      return () => void listeners.delete(tell)
    },
    edit(change, name = null) {
      const before = doc
      const next = change(before)
      if (next === before) return
      const now = performance.now()
      const goesOn = name !== null && named?.name === name && now - named.at < kind.together
      named = name === null ? null : { name, at: now }
      if (!goesOn) remember({ past: [...steps.past, before], future: [] })
      put(next)
    },
    undo() {
      named = null
      const before = steps.past.at(-1)
      if (before === undefined) {
        undoOnServer()
        return
      }
      remember({ past: steps.past.slice(0, -1), future: [doc, ...steps.future] })
      put(step(before))
    },
    redo() {
      named = null
      const [next, ...rest] = steps.future
      if (next === undefined) return
      remember({ past: [...steps.past, doc], future: rest })
      put(step(next))
    },
    resolve(next) {
      // What was not chosen is behind undo.
      remember({ past: [...steps.past, doc], future: [] })
      put(next)
    },
    takeOver(now) {
      if (doc !== saved.doc || saving.kind === 'saving' || now.revision < saved.revision) return
      if (now.revision === saved.revision && !kind.growsUnsaved) return
      saved = now
      doc = now.doc
      saving = { kind: 'saved', revision: now.revision }
      changed()
    },
    async flush() {
      await saver.now()
    },
    open() {
      if (doc !== saved.doc) void saver.now()
      const leave = (): void => {
        kept.write()
        // The draft is already on this device; this sends it on its way as well.
        if (doc !== saved.doc && saving.kind !== 'conflict') kind.saveLeaving(saved, doc)
      }
      window.addEventListener('pagehide', leave)
      return () => {
        window.removeEventListener('pagehide', leave)
        kept.write()
        saver.stop()
        void saver.now().then(() => saver.stop())
      }
    },
  }
}

/** The draft this device kept, with what an older one does not say filled in; null for none, or one that is no document. */
function draftOf<T, C>(kind: DocumentKind<T, C>): Draft<T> | null {
  const kept = readKept<Draft<unknown>>(kind.draftKey)
  const [doc, base] = [kind.read(kept?.doc), kind.read(kept?.base)]
  return kept && doc !== null && base !== null ? { revision: kept.revision, doc, base } : null
}

/** Writes to this device what is to be kept there, a moment after it changed; `write` at once. */
function keeper<T, C>(kind: DocumentKind<T, C>) {
  let waiting: { draft?: Draft<T> | null; steps?: Steps<T> } = {}
  let timer: ReturnType<typeof setTimeout> | null = null
  let held = true
  const write = (): void => {
    if (timer) clearTimeout(timer)
    timer = null
    const { draft, steps } = waiting
    waiting = {}
    if (draft !== undefined) {
      held = keepHere(kind.draftKey, draft)
      // Where there is no room for both, what is not saved yet comes before the steps of undo.
      if (!held && kind.undoKey) held = keepHere(kind.undoKey, null) && keepHere(kind.draftKey, draft)
    }
    if (steps && kind.undoKey) keepHere(kind.undoKey, steps)
  }
  const soon = (): void => {
    timer ??= setTimeout(write, writeAfter)
  }
  return {
    write,
    /** Whether the draft last written is on this device. */
    held: () => held,
    draft(next: Draft<T> | null) {
      waiting.draft = next
      // What is saved must not come back as a draft of a page that died in between.
      if (next === null) {
        keepHere(kind.draftKey, null)
        delete waiting.draft
      } else soon()
    },
    steps(next: Steps<T>) {
      if (!kind.undoKey) return
      waiting.steps = next
      soon()
    },
  }
}
