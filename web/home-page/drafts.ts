import { openDB } from 'idb'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import type { Feeling, Help, Rung } from '@awlbox/core/contracts/reply'

export interface Draft {
  key: string
  answers: Record<
    string,
    { text?: string; choice?: number; given?: string[]; photoId?: string; photoName?: string }
  >
  help: Help | null
  way: Rung | null
  feeling: Feeling | null
  couldNot: boolean
  words: string
  /** When the server said it had it; null while it has not. */
  receivedAt: string | null
  /** Sent by the adult but not yet with the server: goes by itself when there is a connection. */
  waiting: boolean
}

const key = (packId: string, childId: string) => `awlbox-home-${packId}-${childId}`
const emptyDraft = (): Draft => ({
  key: crypto.randomUUID(),
  answers: {},
  help: null,
  way: null,
  feeling: null,
  couldNot: false,
  words: '',
  receivedAt: null,
  waiting: false,
})

/** The answers as last typed on this phone, else as last received by the server, else none. */
export function readDraft(pack: HomePack, childId: string): Draft {
  try {
    const kept = JSON.parse(localStorage.getItem(key(pack.id, childId)) ?? 'null') as Draft | null
    // What an older page kept lacks what was not asked then.
    if (kept?.key) return { ...emptyDraft(), ...kept }
  } catch {
    // Storage is closed to us: what was sent is still with the server.
  }
  return receivedDraft(pack, childId)
}
/** The answers as last received by the server, else none. */
export function receivedDraft(pack: HomePack, childId: string): Draft {
  const reply = pack.replies.find((r) => r.childId === childId)
  if (!reply) return emptyDraft()
  return {
    ...emptyDraft(),
    help: reply.help,
    way: reply.way,
    feeling: reply.feeling,
    couldNot: reply.couldNot,
    words: reply.words,
    receivedAt: reply.updatedAt,
    answers: Object.fromEntries(
      reply.answers.map((a) => [
        a.taskId,
        {
          ...(a.text ? { text: a.text } : {}),
          ...(a.choice !== null && a.choice !== undefined ? { choice: a.choice } : {}),
          ...(a.given ? { given: a.given } : {}),
          ...(a.photoId ? { photoId: a.photoId, photoName: 'your photo' } : {}),
        },
      ]),
    ),
  }
}
export function keepDraft(packId: string, childId: string, draft: Draft): void {
  try {
    localStorage.setItem(key(packId, childId), JSON.stringify(draft))
  } catch {
    // Full or closed: the page itself still holds it.
  }
}

const store = () => openDB('awlbox-home', 1, { upgrade: (db) => void db.createObjectStore('photos') })
/** A photo chosen with no connection waits on this phone. */
export const keepPhoto = async (id: string, file: File): Promise<void> =>
  void (await (await store()).put('photos', file, id))
export const keptPhoto = async (id: string): Promise<File | undefined> =>
  (await (await store()).get('photos', id)) as File | undefined
export const forgetPhoto = async (id: string): Promise<void> => (await store()).delete('photos', id)
