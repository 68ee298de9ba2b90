import type { PrompterMessage } from '@awlbox/core/contracts/prompter'
import { useEffect } from 'react'
import { useSWRConfig } from 'swr'

/** Sent on the window when a prompter or its remote, on another device of the same person, has said something. */
export const prompterEvent = 'awlbox-prompter'
export interface Told {
  lesson: string
  message: PrompterMessage
}

/** Keeps the page in step: whenever the server tells of a change, everything shown that concerns it is asked for again. */
export function useEvents(): void {
  const { mutate } = useSWRConfig()
  useEffect(() => {
    const source = new EventSource('/api/events')
    let due: ReturnType<typeof setTimeout> | null = null
    const touched = new Set<string>()
    const flush = () => {
      due = null
      const lessons = [...touched]
      touched.clear()
      void mutate(
        (key) =>
          typeof key === 'string' &&
          (key === '/api/shelf' ||
            key.endsWith('/standing') ||
            lessons.some((l) => l === '*' || key.includes(l))),
      )
    }
    const touch = (lesson: string) => {
      touched.add(lesson)
      due ??= setTimeout(flush, 250)
    }
    source.onmessage = (e) => {
      const told = JSON.parse(String(e.data)) as { kind: string; lesson: string; message?: PrompterMessage }
      if (told.kind === 'prompter')
        window.dispatchEvent(
          new CustomEvent(prompterEvent, { detail: { lesson: told.lesson, message: told.message } }),
        )
      else touch(told.lesson)
    }
    // A new connection after a lost one: anything may have changed meanwhile.
    source.addEventListener('hello', () => touch('*'))
    return () => {
      source.close()
      if (due) clearTimeout(due)
    }
  }, [mutate])
}
