/** Server-sent events of one line, as their JSON, until it ends or is let go. @throws where the server does not give them, or the line breaks */
export async function* eventsOf<T>(
  url: string,
  { cookie = '', signal }: { cookie?: string; signal?: AbortSignal } = {},
): AsyncGenerator<T> {
  const response = await fetch(url, { headers: cookie ? { cookie } : {}, ...(signal ? { signal } : {}) })
  if (!response.ok || !response.body) throw new Error(`No events: ${response.status}`)
  const reader = response.body.getReader()
  const letters = new TextDecoder()
  let held = ''
  try {
    for (;;) {
      const { done, value } = await reader.read()
      if (done) return
      held += letters.decode(value, { stream: true })
      const events = held.split('\n\n')
      held = events.pop() ?? ''
      for (const event of events) {
        const data = event.split('\n').find((l) => l.startsWith('data: '))
        // A named event is a sign of life.
        if (data && !/^event: /m.test(event)) yield JSON.parse(data.slice(6)) as T
      }
    }
  } finally {
    reader.cancel().catch((error: unknown) => {
      if (!signal?.aborted) console.error(`a line did not close: ${String(error)}`)
    })
  }
}
