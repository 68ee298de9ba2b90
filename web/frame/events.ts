import { useEffect } from 'react'
import { useSWRConfig } from 'swr'

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
      void mutate((key) => typeof key === 'string' && (key === '/api/shelf' || key.endsWith('/standing') || lessons.some((l) => l === '*' || key.includes(l))))
    }
    const touch = (lesson: string) => {
      touched.add(lesson)
      due ??= setTimeout(flush, 250)
    }
    source.onmessage = (e) => touch((JSON.parse(String(e.data)) as { lesson: string }).lesson)
    // A new connection after a lost one: anything may have changed meanwhile.
    source.addEventListener('hello', () => touch('*'))
    return () => {
      source.close()
      if (due) clearTimeout(due)
    }
  }, [mutate])
}
