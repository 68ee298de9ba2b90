import { type RefObject, useLayoutEffect, useRef } from 'react'

/** What a value is now, for those who are called later: listeners, timers, callbacks that stay the same. */
export function useLatest<T>(value: T): RefObject<T> {
  const held = useRef(value)
  useLayoutEffect(() => {
    held.current = value
  })
  return held
}
