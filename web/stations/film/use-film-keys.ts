import { useEffect } from 'react'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { useLatest } from '../../kit/use-latest.ts'

export interface FilmKeys {
  segments: readonly Segment[]
  segment: Segment | undefined
  filming: boolean
  large: boolean
  go: (by: number) => void
  goTo: (segmentId: string) => void
  film: () => void
  stop: () => void
  pause: () => void
  slip: () => void
  setLarge: (on: boolean) => void
}
/**
 * Keys of the Film page. A foot-pedal or clicker types page keys, space or enter; f films and stops, p pauses, s marks a
 * slip, b fills the screen with the prompter; up and down choose the segment.
 */
export function useFilmKeys(keys: FilmKeys): void {
  const now = useLatest(keys)
  useEffect(() => {
    const onKey = (e: KeyboardEvent) => {
      const k = now.current
      const on = e.target instanceof HTMLElement ? e.target : null
      if (!k.segment || e.ctrlKey || e.metaKey || e.altKey || on?.closest('[role=dialog]')) return
      if (e.key === 'Escape' && k.large) k.setLarge(false)
      if (
        on?.closest(
          'input:not([type=checkbox]), textarea, video, audio, [role=slider], [role=combobox], [role=listbox]',
        )
      )
        return
      // On a button or a box to tick, space and enter press it.
      const pressing = on !== null && on.closest('button, a, input') !== null
      const i = k.segments.indexOf(k.segment)
      const act = ((): (() => void) | null => {
        switch (e.key) {
          case 'ArrowRight':
          case 'PageDown':
            return () => k.go(1)
          case 'ArrowLeft':
          case 'PageUp':
            return () => k.go(-1)
          case ' ':
          case 'Enter':
            return pressing ? null : () => k.go(1)
          case 'f':
            return k.filming ? k.stop : k.film
          case 'p':
            return k.filming ? k.pause : null
          case 's':
            return k.slip
          case 'b':
            return () => k.setLarge(!k.large)
          case 'ArrowDown':
          case 'ArrowUp': {
            const to = k.segments[i + (e.key === 'ArrowDown' ? 1 : -1)]
            return k.filming || !to || (pressing && on?.closest('[role=tab], [role=separator]'))
              ? null
              : () => k.goTo(to.id)
          }
          default:
            return null
        }
      })()
      if (!act) return
      e.preventDefault()
      act()
    }
    window.addEventListener('keydown', onKey)
    return () => window.removeEventListener('keydown', onKey)
  }, [now])
}
