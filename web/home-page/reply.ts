import type { HomePack, HomeTask } from '@awlbox/core/contracts/api/home'
import type { Answer, ReplyInput } from '@awlbox/core/contracts/reply'
import { ask, isAway, ProblemError } from '../api.ts'
import { noted } from '../noted.ts'
import { retrier } from '../saving/retrier.ts'
import { sendReply, takeBackReply } from './calls.ts'
import {
  type Draft,
  type DraftAnswer,
  forgetMedia,
  keepDraft,
  keepMedia,
  keptMedia,
  type Media,
  type MediaKind,
  readDraft,
  receivedDraft,
} from './drafts.ts'
import type { Spoken } from './words.ts'

interface ReplyState {
  draft: Draft
  busy: boolean
  problem: string | null
  /** The phone had no room for something: only the open page holds it. */
  full: boolean
  /** It was taken back, and nothing of it is with the teacher. */
  taken: boolean
}
/** A child's reply while it is made: every answer is kept on this phone, and what could not be sent goes by itself. */
export interface Reply {
  state: () => ReplyState
  /** As the server writes the page: what it has received, and nothing this phone keeps. */
  onServer: () => ReplyState
  subscribe: (changed: () => void) => () => void
  edit: (change: Partial<Draft>) => void
  /** Keeps a file for an answer and begins to send it. */
  add: (taskId: string, kind: MediaKind, file: Blob) => Promise<void>
  /** Leaves a file out of an answer. */
  remove: (taskId: string, id: string) => void
  /** Changes the words of a photo. */
  describe: (taskId: string, id: string, text: string) => void
  send: () => Promise<void>
  takeBack: () => Promise<void>
  /** While the page shows it; gives how to stop. */
  open: () => () => void
}

/** What was answered, as it is sent. */
function answerTo(task: HomeTask, a: DraftAnswer): Answer {
  const media = (a.media ?? []).filter((m) => m.here)
  const [first, ...more] = media.filter((m) => m.kind === 'photo')
  const recording = media.find((m) => m.kind !== 'photo')
  const base = { taskId: task.id, kind: task.kind }
  switch (task.kind) {
    case 'choice':
      return { ...base, choice: a.choice ?? null }
    case 'number':
    case 'photo':
    case 'tell':
    case 'draw':
      return {
        ...base,
        text: [a.text?.trim(), first?.text.trim()].filter(Boolean).join(' ').slice(0, 500) || null,
        ...(first ? { photoId: first.id } : {}),
        ...(more.length ? { more: more.slice(0, 3).map((m) => ({ photoId: m.id, text: m.text })) } : {}),
        ...(recording ? { recordingId: recording.id } : {}),
        ...(a.drawing ? { drawing: a.drawing } : {}),
      }
    default:
      return { ...base, given: a.given ?? null }
  }
}
/** The page's words for what the server refuses; its own where the page has none. */
function wordsFor(error: unknown, { say, language }: Spoken): string {
  if (!(error instanceof ProblemError)) return say('problem.other')
  const byTitle: Record<string, Parameters<Spoken['say']>[0]> = {
    'No connection': 'problem.away',
    'Already looked at': 'problem.looked',
    'The tasks changed': 'problem.changed',
    'Photo missing': 'problem.photo',
    'Not a photo': 'problem.notPhoto',
    'Photo too large': 'problem.large',
    'Too large': 'problem.large',
    'Too long': 'problem.large',
    'This link is closed': 'problem.closed',
    'No photos': 'photo.refused',
    'No recordings': 'sound.refused',
  }
  const key = byTitle[error.title]
  if (key) return say(key)
  return language === 'en' ? error.detail : say('problem.other')
}

export function replyOf({
  token,
  pack,
  childId,
  words,
  preview = false,
}: {
  token: string
  pack: HomePack
  childId: string
  words: Spoken
  preview?: boolean
}): Reply {
  const listeners = new Set<() => void>()
  const plain = { busy: false, problem: null, full: false, taken: false }
  let state: ReplyState = {
    draft: preview ? receivedDraft(pack, childId) : readDraft(pack, childId),
    ...plain,
  }
  const written: ReplyState = { draft: receivedDraft(pack, childId), ...plain }
  const be = (next: Partial<ReplyState>): void => {
    state = { ...state, ...next }
    listeners.forEach((tell) => tell())
  }
  const change = (next: Partial<Draft>): void => {
    const draft = { ...state.draft, ...next }
    const kept = preview || keepDraft(pack.id, childId, draft)
    be({ draft, full: state.full || !kept })
  }
  const answerOf = (taskId: string): DraftAnswer => state.draft.answers[taskId] ?? {}
  const put = (taskId: string, a: DraftAnswer, more: Partial<Draft> = {}): void =>
    change({ ...more, answers: { ...state.draft.answers, [taskId]: a } })
  const marked = (taskId: string, id: string, m: Partial<Media>): void => {
    const a = answerOf(taskId)
    put(taskId, { ...a, media: (a.media ?? []).map((x) => (x.id === id ? { ...x, ...m } : x)) })
  }
  /** Files under way in this page: sent once, whoever asks. */
  const underWay = new Map<string, Promise<void>>()
  const post = (taskId: string, m: Media): Promise<void> => {
    const known = underWay.get(m.id)
    if (known) return known
    const work = (async () => {
      const file = await keptMedia(m.id)
      if (!file) {
        // It is nowhere: the answer goes without it.
        const a = answerOf(taskId)
        put(taskId, { ...a, media: (a.media ?? []).filter((x) => x.id !== m.id) })
        return
      }
      // Loaded only where there is something to send.
      const { sendMedia } = await import('./send-media.ts').catch(() => {
        throw new ProblemError(0, 'No connection', 'No connection', {})
      })
      await sendMedia(file, { token, packId: pack.id, childId, id: m.id, kind: m.kind })
      marked(taskId, m.id, { here: true })
      await forgetMedia(m.id)
    })().finally(() => underWay.delete(m.id))
    underWay.set(m.id, work)
    return work
  }
  /** Files that wait on this phone go first; each that has gone is remembered at once. */
  async function sendFiles(): Promise<void> {
    for (const [taskId, a] of Object.entries(state.draft.answers))
      for (const m of a.media ?? []) if (!m.here) await post(taskId, m)
  }
  const sender = retrier(async () => {
    be({ busy: true, problem: null, taken: false })
    try {
      await sendFiles()
      const sending = state.draft
      const answers = pack.pack.tasks.flatMap((t) => {
        const a = sending.answers[t.id]
        return a ? [answerTo(t, a)] : []
      })
      const { key, help, way, feeling, couldNot, chose, why, words: said } = sending
      const body: ReplyInput = {
        childId,
        key,
        help,
        way,
        feeling,
        couldNot,
        chose,
        why,
        words: said,
        answers,
      }
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
      be({ problem: wordsFor(error, words) })
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
    async add(taskId, kind, file) {
      const id = crypto.randomUUID()
      const kept = preview || (await keepMedia(id, file))
      const a = answerOf(taskId)
      // One voice or film an answer; photos up to four.
      const others = (a.media ?? []).filter((m) => kind === 'photo' || m.kind === 'photo')
      const media: Media = { id, kind, text: '', here: false }
      put(taskId, { ...a, media: [...others, media] }, { receivedAt: null })
      if (!kept) be({ full: true })
      if (preview) return
      await post(taskId, media).catch((error: unknown) => {
        if (isAway(error)) return
        const now = answerOf(taskId)
        put(taskId, { ...now, media: (now.media ?? []).filter((m) => m.id !== id) })
        be({ problem: wordsFor(error, words) })
      })
    },
    remove(taskId, id) {
      const a = answerOf(taskId)
      put(taskId, { ...a, media: (a.media ?? []).filter((m) => m.id !== id) }, { receivedAt: null })
      void forgetMedia(id).catch(noted('a file is still on this phone'))
    },
    describe: (taskId, id, text) => marked(taskId, id, { text }),
    send: () => (preview ? Promise.resolve() : sender.now()),
    async takeBack() {
      be({ busy: true, problem: null })
      try {
        await ask(takeBackReply, { token, packId: pack.id, childId })
        // What was sent with it is gone there: it is no longer part of the answers here.
        const answers = Object.fromEntries(
          Object.entries(state.draft.answers).map(([id, a]) => [id, { ...a, media: [] }]),
        )
        change({ receivedAt: null, waiting: false, answers, key: crypto.randomUUID() })
        be({ taken: true })
      } catch (error) {
        be({ problem: wordsFor(error, words) })
      } finally {
        be({ busy: false })
      }
    },
    open() {
      if (preview) return () => undefined
      if (state.draft.waiting) void sender.now()
      return () => sender.stop()
    },
  }
}
