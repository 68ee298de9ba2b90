import { existsSync } from 'node:fs'
import { fileURLToPath } from 'node:url'
import { Worker } from 'node:worker_threads'
import { Problem } from '../problem.ts'
import type { Given, Made, TaskName } from './tasks.ts'

/**
 * Runs what reads or reckons with things from outside in a thread with limits, so that nothing sent to Awlbox keeps it
 * from answering others. A thread that takes too long, or too much memory, is ended; the next one starts anew.
 */
const limits = { seconds: 10, loading: 90, megabytes: 384, threads: 2 } as const

interface Thread {
  worker: Worker
  /** It has its programs: what a busy machine takes to load them is no task's time. */
  ready: Promise<void>
  busy: boolean
  /** What ended it that was no want of memory. */
  failed: Error | null
}
const threads: Thread[] = []
const waiting: (() => void)[] = []

/** The bundled thread beside the bundled program, else the source, compiled as it loads. */
const bundled = new URL('./apart.mjs', import.meta.url)
const source = `import('tsx/esm/api').then((tsx) => { tsx.register(); return import(${JSON.stringify(new URL('./thread.ts', import.meta.url).href)}) })`
function open(): Thread {
  const resourceLimits = { maxOldGenerationSizeMb: limits.megabytes }
  const worker = existsSync(fileURLToPath(bundled))
    ? new Worker(bundled, { resourceLimits })
    : new Worker(source, { eval: true, resourceLimits })
  // A thread that waits keeps no program from ending.
  worker.unref()
  const thread: Thread = {
    worker,
    ready: new Promise((resolve) => void worker.once('message', () => resolve())),
    busy: true,
    failed: null,
  }
  worker.on('error', (error: NodeJS.ErrnoException) => {
    if (error.code !== 'ERR_WORKER_OUT_OF_MEMORY') thread.failed = error
  })
  worker.on('exit', () => {
    const i = threads.indexOf(thread)
    if (i >= 0) threads.splice(i, 1)
  })
  threads.push(thread)
  return thread
}
async function free(): Promise<Thread> {
  for (;;) {
    const idle = threads.find((t) => !t.busy)
    if (idle) {
      idle.busy = true
      return idle
    }
    if (threads.length < limits.threads) return open()
    await new Promise<void>((resolve) => waiting.push(resolve))
  }
}

type Answered<T extends TaskName> = { made: Made<T> } | { failed: { name: string; message: string } }
function errorOf({ name, message }: { name: string; message: string }): Error {
  const error = name === 'SyntaxError' ? new SyntaxError(message) : new Error(message)
  error.name = name
  return error
}
/** More than a thread may take: told with what was being done. */
const tooMuch = (what: string): Problem =>
  new Problem(
    422,
    'Too much at once',
    `${what} took longer than Awlbox waits for it. Nothing was changed; try a smaller one, or part it.`,
  )

/**
 * One task, in a thread. `what` names it for people: “These captions”; `seconds` is what it may take once the thread has
 * its programs. @throws Problem where it takes too much, SyntaxError and other errors as the task throws them.
 */
export async function apart<T extends TaskName>(
  name: T,
  given: Given<T>,
  what: string,
  seconds: number = limits.seconds,
): Promise<Made<T>> {
  const thread = await free()
  const { worker } = thread
  let timer: NodeJS.Timeout | undefined
  let ended = () => {}
  const listeners: ((m: Answered<T>) => void)[] = []
  try {
    return await new Promise<Made<T>>((resolve, reject) => {
      ended = () => reject(thread.failed ?? tooMuch(what))
      const answered = (m: Answered<T>) => ('made' in m ? resolve(m.made) : reject(errorOf(m.failed)))
      // Out of memory, or ended below.
      worker.once('exit', ended)
      // One that never has its programs is ended too, far later.
      timer = setTimeout(() => void worker.terminate(), limits.loading * 1000)
      void thread.ready.then(() => {
        clearTimeout(timer)
        listeners.push(answered)
        worker.on('message', answered)
        worker.postMessage({ name, given })
        timer = setTimeout(() => void worker.terminate(), seconds * 1000)
      })
    })
  } finally {
    clearTimeout(timer)
    worker.off('exit', ended)
    for (const l of listeners) worker.off('message', l)
    thread.busy = false
    waiting.shift()?.()
  }
}
