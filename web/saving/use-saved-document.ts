import { useEffect, useState, useSyncExternalStore } from 'react'
import {
  type DocumentKind,
  type Revision,
  type SavedDocument,
  savedDocument,
  type DocumentState,
} from './saved-document.ts'

/** Holds a document of one kind while a page shows it; `now` is what the server has, asked for again when it changes. */
export function useSavedDocument<T, C>(
  kindOf: () => DocumentKind<T, C>,
  now: Revision<T>,
): DocumentState<T, C> & Omit<SavedDocument<T, C>, 'state' | 'subscribe' | 'open' | 'takeOver'> {
  const [held] = useState(() => savedDocument(kindOf(), now))
  const state = useSyncExternalStore(held.subscribe, held.state)
  useEffect(() => held.open(), [held])
  useEffect(() => held.takeOver(now), [held, now])
  const { edit, undo, redo, resolve, flush } = held
  return { ...state, edit, undo, redo, resolve, flush }
}
