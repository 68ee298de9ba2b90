/** Milliseconds without a sign of life after which a line is taken to be lost; the server gives one every fifteen seconds. */
const silence = 40_000
/** Milliseconds between tries to come back. */
const retry = 1_500

/** What is known when a line is opened: whether there is one to follow, and else after how long it is asked again (ms); null for never. */
type Opened = { follow: true } | { follow: false; again: number | null }
export interface Following<T> {
  /** Asks how things stand. Where it throws, it is tried again, unless `isOver` says that there is no use. */
  open: () => Promise<Opened>
  isOver: (error: unknown) => boolean
  url: string
  onNews: (news: T) => void
  /** Told whenever the line opens or is lost. */
  onLine: (on: boolean) => void
}
/** Follows server-sent events, and comes back by itself whenever the line drops. Gives how to stop. */
export function followLine<T>(f: Following<T>): () => void {
  let source: EventSource | null = null
  let timer: ReturnType<typeof setTimeout> | undefined
  let watch: ReturnType<typeof setTimeout> | undefined
  let gone = false
  const later = (ms: number): void => {
    clearTimeout(timer)
    if (!gone) timer = setTimeout(() => void open(), ms)
  }
  const lost = (): void => {
    source?.close()
    f.onLine(false)
    later(retry)
  }
  const alive = (): void => {
    f.onLine(true)
    clearTimeout(watch)
    watch = setTimeout(lost, silence)
  }
  const follow = (): void => {
    source = new EventSource(f.url)
    source.onmessage = (e) => {
      alive()
      f.onNews(JSON.parse(String(e.data)) as T)
    }
    source.addEventListener('beat', alive)
    source.onerror = lost
    alive()
  }
  const open = async (): Promise<void> => {
    try {
      const opened = await f.open()
      if (gone) return
      if (opened.follow) follow()
      else if (opened.again !== null) later(opened.again)
    } catch (error) {
      if (gone) return
      if (f.isOver(error)) f.onLine(false)
      else lost()
    }
  }
  const back = (): void => {
    source?.close()
    later(0)
  }
  void open()
  window.addEventListener('online', back)
  return () => {
    gone = true
    source?.close()
    clearTimeout(timer)
    clearTimeout(watch)
    window.removeEventListener('online', back)
  }
}

/** The server's time on a device whose own may be wrong: counted on from when it was last told. */
export function serverClock(): { told: (now: number) => void; now: () => number } {
  let [server, here] = [0, 0]
  return {
    told(now) {
      server = now
      here = performance.now()
    },
    now: () => server + (performance.now() - here),
  }
}
