import { parentPort } from 'node:worker_threads'
import { type TaskName, tasks } from './tasks.ts'

/** One task at a time, as asked for by apart.ts, which is told first that everything is loaded. */
parentPort!.on('message', ({ name, given }: { name: TaskName; given: never }) => {
  try {
    parentPort!.postMessage({ made: tasks[name](given) })
  } catch (error) {
    const e = error instanceof Error ? error : new Error(String(error))
    parentPort!.postMessage({ failed: { name: e.name, message: e.message } })
  }
})
parentPort!.postMessage('ready')
