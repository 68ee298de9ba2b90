import type { HomePack, HomeTask } from '@awlbox/core/contracts/api/home'
import type { ReplyInput } from '@awlbox/core/contracts/reply'
import { ask, askWithForm, isAway, wordsOf } from '../api.ts'
import { retrier } from '../saving/retrier.ts'
import { sendPhoto, sendReply } from './calls.ts'
import {
  type Draft,
  forgetPhoto,
  keepDraft,
  keepPhoto,
  keptPhoto,
  readDraft,
  receivedDraft,
} from './drafts.ts'

interface ReplyState {
  draft: Draft
  busy: boolean
  problem: string | null
}
/** A child's reply while it is made: every answer is kept on this phone, and what could not be sent goes by itself. */
export interface Reply {
  state: () => ReplyState
  /** As the server writes the page: what it has received, and nothing this phone keeps. */
  onServer: () => ReplyState
  subscribe: (changed: () => void) => () => void
  edit: (change: Partial<Draft>) => void
  /** Sends a photo, or keeps it here while there is no connection. @throws ProblemError where it is refused. */
  photo: (taskId: string, file: File) => Promise<{ photoId?: string; photoName: string }>
  send: () => Promise<void>
  /** While the page shows it; gives how to stop. */
  open: () => () => void
}

const answerTo = (task: HomeTask, a: Draft['answers'][string]): ReplyInput['answers'][number] => {
  switch (task.kind) {
    case 'number':
      return { taskId: task.id, kind: task.kind, text: a.text ?? null }
    case 'choice':
      return { taskId: task.id, kind: task.kind, choice: a.choice ?? null }
    case 'photo':
      return { taskId: task.id, kind: task.kind, photoId: a.photoId ?? null, text: a.text ?? null }
    case 'tell':
      return { taskId: task.id, kind: task.kind, text: a.text ?? null }
    default:
      return { taskId: task.id, kind: task.kind, given: a.given ?? null }
  }
}

export function replyOf({ token, pack, childId }: { token: string; pack: HomePack; childId: string }): Reply {
  const listeners = new Set<() => void>()
  let state: ReplyState = { draft: readDraft(pack, childId), busy: false, problem: null }
  const written: ReplyState = { draft: receivedDraft(pack, childId), busy: false, problem: null }
  const be = (next: Partial<ReplyState>): void => {
    state = { ...state, ...next }
    listeners.forEach((tell) => tell())
  }
  const change = (next: Partial<Draft>): void => {
    const draft = { ...state.draft, ...next }
    keepDraft(pack.id, childId, draft)
    be({ draft })
  }
  const waitingId = (taskId: string): string => `${pack.id}-${childId}-${taskId}`
  const post = async (file: File): Promise<string> => {
    const form = new FormData()
    form.set('photo', file)
    return (await askWithForm(sendPhoto, { token, packId: pack.id }, form)).id
  }
  /** Photos that wait on this phone go first; each that has gone is remembered at once. */
  async function sendPhotos(): Promise<void> {
    for (const t of pack.pack.tasks) {
      const a = state.draft.answers[t.id]
      if (t.kind !== 'photo' || !a?.photoName || a.photoId) continue
      const file = await keptPhoto(waitingId(t.id))
      if (!file) continue
      const photoId = await post(file)
      change({ answers: { ...state.draft.answers, [t.id]: { ...a, photoId } } })
      await forgetPhoto(waitingId(t.id))
    }
  }
  const sender = retrier(async () => {
    be({ busy: true, problem: null })
    try {
      await sendPhotos()
      const sending = state.draft
      const answers = pack.pack.tasks.flatMap((t) => {
        const a = sending.answers[t.id]
        return a ? [answerTo(t, a)] : []
      })
      const { key, help, way, feeling, couldNot, words } = sending
      const body = { childId, key, help, way, feeling, couldNot, words, answers }
      const { receivedAt } = await ask(sendReply, { token, packId: pack.id }, body)
      // What was changed while it was on its way is not received yet.
      change({ waiting: false, receivedAt: state.draft === sending ? receivedAt : null })
      return 'done'
    } catch (error) {
      if (isAway(error)) {
        change({ waiting: true })
        return 'later'
      }
      change({ waiting: false })
      be({ problem: wordsOf(error) })
      return 'done'
    } finally {
      be({ busy: false })
    }
  })
  return {
    state: () => state,
    onServer: () => written,
    subscribe(tell) {
      listeners.add(tell)
      return () => void listeners.delete(tell)
    },
    edit: (next) => change({ ...next, receivedAt: null }),
    async photo(taskId, file) {
      try {
        return { photoId: await post(file), photoName: file.name }
      } catch (error) {
        if (!isAway(error)) throw error
        await keepPhoto(waitingId(taskId), file)
        return { photoName: file.name }
      }
    },
    send: () => sender.now(),
    open() {
      if (state.draft.waiting) void sender.now()
      return () => sender.stop()
    },
  }
}
