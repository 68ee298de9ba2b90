import type { PrompterMessage } from '@awlbox/core/contracts/prompter'
import { useEffect } from 'react'
import { useSWRConfig } from 'swr'
import type { ToldKind } from '@awlbox/core/contracts/api/route'
import { changes, isAskedKey } from './use-asked.ts'

/** Sent on the window when a prompter or its remote, on another device of the same person, has said something. */
export const prompterEvent = 'awlbox-prompter'
export interface Told {
  lesson: string
  message: PrompterMessage
}

interface News {
  kind: ToldKind | 'prompter'
  lesson: string
  message?: PrompterMessage
}
/** Milliseconds in which news is gathered before the page asks again. */
const gatherFor = 250

/** Keeps the page in step: what the server tells of is asked for again, and nothing else. */
export function useEvents(): void {
  const { mutate } = useSWRConfig()
  useEffect(() => {
    const source = new EventSource('/api/events')
    let due: ReturnType<typeof setTimeout> | null = null
    let news: { kind: ToldKind; lesson: string }[] | '*' = []
    const flush = () => {
      due = null
      const told = news
      news = []
      void mutate(
        (key) =>
          isAskedKey(key) && (told === '*' ? changes(key, '*') : told.some((one) => changes(key, one))),
      )
    }
    const touch = (one: { kind: ToldKind; lesson: string } | '*') => {
      news = one === '*' || news === '*' ? '*' : [...news, one]
      due ??= setTimeout(flush, gatherFor)
    }
    source.onmessage = (e) => {
      const { kind, lesson, message } = JSON.parse(String(e.data)) as News
      if (kind === 'prompter')
        window.dispatchEvent(new CustomEvent(prompterEvent, { detail: { lesson, message } }))
      else touch({ kind, lesson })
    }
    // A new connection after a lost one: anything may have changed meanwhile.
    source.addEventListener('hello', () => touch('*'))
    return () => {
      source.close()
      if (due) clearTimeout(due)
    }
  }, [mutate])
}
