import { useCallback, useSyncExternalStore } from 'react'

const listeners = new Set<() => void>()
const subscribe = (tell: () => void) => {
  listeners.add(tell)
  return () => void listeners.delete(tell)
}
const read = (key: string): string | null => {
  try {
    return localStorage.getItem(key)
  } catch {
    // Storage is closed to us: nothing is remembered.
    return null
  }
}
/** A choice this phone remembers; null until one was made, and where the page is first written, on the server. */
export function useRemembered(key: string): [string | null, (value: string) => void] {
  const value = useSyncExternalStore(
    subscribe,
    () => read(key),
    () => null,
  )
  const remember = useCallback(
    (next: string) => {
      try {
        localStorage.setItem(key, next)
      } catch {
        // As above.
      }
      listeners.forEach((tell) => tell())
    },
    [key],
  )
  return [value, remember]
}
/** Whether this is the page as a phone shows it, not as the server first wrote it: where times of day are known. */
export const useOnPhone = (): boolean =>
  useSyncExternalStore(
    () => () => undefined,
    () => true,
    () => false,
  )
