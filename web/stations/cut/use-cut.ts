import { useCallback, useMemo } from 'react'
import * as cutApi from '@awlbox/core/contracts/api/cut'
import { CutList } from '@awlbox/core/contracts/cut'
import { mergeCuts } from '@awlbox/core/cut/merge'
import { ask, askLeaving } from '../../api.ts'
import { useAsked } from '../../frame/use-asked.ts'
import type { DocumentKind, Revision } from '../../saving/saved-document.ts'
import { useSavedDocument } from '../../saving/use-saved-document.ts'

/** Null until the server has given it. */
type Held = CutList | null
const notYet: Revision<Held> = { revision: -1, doc: null }

/** A cut: what belongs together is one step, undo without limit; where both changed the same row theirs is shown. */
const cutKind = (lessonId: string): DocumentKind<Held, string[]> => ({
  draftKey: `awlbox-cut-${lessonId}`,
  // Hundreds of whole cuts are more than a device keeps.
  undoKey: null,
  undoDepth: Infinity,
  read: (kept) => CutList.safeParse(kept).data ?? null,
  save: ({ revision }, doc) => ask(cutApi.saveCut, { lessonId }, { revision, doc: doc! }),
  saveLeaving: ({ revision }, doc) => askLeaving(cutApi.saveCut, { lessonId }, { revision, doc: doc! }),
  newest: ({ more }) => ({ revision: more.revision as number, doc: more.doc as Held, base: null }),
  merge: (base, mine, theirs) =>
    base && mine && theirs ? mergeCuts(base, mine, theirs) : { ok: false, doc: mine, conflicts: [] },
  onConflict: {
    ask: false,
    words: 'This cut was changed in another window. That version is shown now; yours is behind Undo.',
  },
  earlier: null,
  // Takes filmed since are proposed beside what is saved.
  growsUnsaved: true,
  pause: 400,
  together: Infinity,
})

/** The cut list: changed on the page at once, saved soon after, undone and redone without limit; a change from elsewhere is taken over. */
export function useCut(lessonId: string) {
  const { data } = useAsked(cutApi.readCut, { lessonId })
  const held = useSavedDocument(
    () => cutKind(lessonId),
    useMemo((): Revision<Held> => data ?? notYet, [data]),
  )
  const { saving, unsaved, edit: change, told } = held
  const edit = useCallback(
    (next: (c: CutList) => CutList, together: string | null = null) =>
      change((doc) => (doc ? next(doc) : doc), together),
    [change],
  )
  return {
    doc: held.doc,
    problem: saving.kind === 'kept' || saving.kind === 'refused' ? saving.why : told,
    saving: unsaved,
    /** The revision the list will have once it is saved. */
    revision: unsaved ? held.revision + 1 : held.revision,
    edit,
    undo: held.undo,
    redo: held.redo,
    canUndo: held.canUndo,
    canRedo: held.canRedo,
    flush: held.flush,
  }
}
