import { EventEmitter } from 'node:events'
import { setTimeout as delay } from 'node:timers/promises'
import { Client } from 'pg'
import { log, noted } from './log.ts'

interface Told {
  kind:
    | 'job'
    | 'takes'
    | 'replies'
    | 'publications'
    | 'lessons'
    | 'prompter'
    | 'signed out'
    | 'live'
    | 'live answers'
    | 'live came'
  setting: string
  lesson: string
  job?: string
  /** The live lesson that moved on, or in which something came. */
  live?: string
  /** Only this person is told: what passes between a prompter and its remote. */
  person?: string
  message?: unknown
  /** Hash of a session that ended. */
  session?: string
}
export interface Events {
  /** Calls back for everything that happens in a setting; returns how to stop. */
  subscribe: (settingId: string, callback: (t: Told) => void) => () => void
  close: () => Promise<void>
}

/** Waits some milliseconds, or until it is told to stop. */
async function pause(ms: number, stop: AbortSignal): Promise<void> {
  try {
    await delay(ms, undefined, { signal: stop })
  } catch (error) {
    if (!stop.aborted) throw error
  }
}

/** Listens to PostgreSQL's notifications on a connection of its own, opened again whenever it is lost. */
export function listen(url: string): Events {
  const emitter = new EventEmitter().setMaxListeners(0)
  const stop = new AbortController()
  let current: Client | null = null
  const run = async () => {
    while (!stop.signal.aborted) {
      const client = new Client({ connectionString: url, connectionTimeoutMillis: 4000 })
      const ended = new Promise<void>((resolve) => {
        client.on('end', () => resolve())
        client.on('error', () => resolve())
      })
      try {
        await client.connect()
        current = client
        client.on('notification', (n) => {
          const told = JSON.parse(n.payload ?? '{}') as Told
          emitter.emit(told.setting, told)
        })
        await client.query('LISTEN awlbox')
        await ended
      } catch (error) {
        log.debug({ error: String(error) }, 'cannot listen yet')
      }
      current = null
      await client.end().catch(noted('a listener did not end well'))
      await pause(500, stop.signal)
    }
  }
  const running = run()
  return {
    subscribe(settingId, callback) {
      emitter.on(settingId, callback)
      return () => void emitter.off(settingId, callback)
    },
    async close() {
      stop.abort()
      await current?.end().catch(noted('the listener did not end well'))
      await running
    },
  }
}
