import { useState } from 'react'
import { noted } from '../noted.ts'

/** What this browser kept under a name; null where nothing is kept, or nothing that can be read. */
export function readKept<T>(key: string): T | null {
  try {
    return JSON.parse(localStorage.getItem(key) ?? 'null') as T | null
  } catch (error) {
    noted(`what was kept as ${key} cannot be read`)(error)
    return null
  }
}
/** Keeps something under a name on this device; null forgets it. False where storage is full or closed: nothing is kept. */
export function keepHere(key: string, value: unknown): boolean {
  try {
    if (value === null) localStorage.removeItem(key)
    else localStorage.setItem(key, JSON.stringify(value))
    return true
  } catch (error) {
    noted(`nothing could be kept as ${key}`)(error)
    return false
  }
}
/** Settings of a page that this device keeps. */
export function useKept<T extends object>(key: string, start: T): [T, (change: Partial<T>) => void] {
  const [value, set] = useState<T>(() => ({ ...start, ...readKept<Partial<T>>(key) }))
  return [
    value,
    (change) =>
      set((v) => {
        const next = { ...v, ...change }
        keepHere(key, next)
        return next
      }),
  ]
}
