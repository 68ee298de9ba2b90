import { openDB } from 'idb'
import type { HomePack } from '@awlbox/core/contracts/api/home'
import type { TaskSet } from '@awlbox/core/contracts/lesson'
import type { Feeling, Help, Rung } from '@awlbox/core/contracts/reply'

export type MediaKind = 'photo' | 'sound' | 'clip'
/** A photo, a voice or a short film of an answer: its name, and whether the server has it. */
export interface Media {
  id: string
  kind: MediaKind
  /** What a photo shows, in words. */
  text: string
  here: boolean
}
export interface DraftAnswer {
  text?: string
  choice?: number
  given?: string[]
  drawing?: string
  media?: Media[]
}
export interface Draft {
  key: string
  answers: Record<string, DraftAnswer>
  help: Help | null
  way: Rung | null
  feeling: Feeling | null
  couldNot: boolean
  /** The set the child took; null where none was to be taken, or it took the one it was given. */
  chose: TaskSet | null
  why: string
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
  chose: null,
  why: '',
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
    chose: reply.chose,
    why: reply.why,
    words: reply.words,
    receivedAt: reply.updatedAt,
    answers: Object.fromEntries(reply.answers.map((a) => [a.taskId, answerFrom(a)])),
  }
}
function answerFrom(a: HomePack['replies'][number]['answers'][number]): DraftAnswer {
  const media: Media[] = [
    ...(a.photoId ? [{ id: a.photoId, kind: 'photo' as const, text: '', here: true }] : []),
    ...(a.more ?? []).map((m) => ({ id: m.photoId, kind: 'photo' as const, text: m.text, here: true })),
    ...(a.recordingId ? [{ id: a.recordingId, kind: 'sound' as const, text: '', here: true }] : []),
  ]
  return {
    ...(a.text ? { text: a.text } : {}),
    ...(a.choice !== null && a.choice !== undefined ? { choice: a.choice } : {}),
    ...(a.given ? { given: a.given } : {}),
    ...(a.drawing ? { drawing: a.drawing } : {}),
    ...(media.length ? { media } : {}),
  }
}
/** False where the phone has no room for it, or is closed to us: then only the open page holds it. */
export function keepDraft(packId: string, childId: string, draft: Draft): boolean {
  try {
    localStorage.setItem(key(packId, childId), JSON.stringify(draft))
    return true
  } catch {
    return false
  }
}

const store = () =>
  openDB('awlbox-home', 2, {
    upgrade(db) {
      if (!db.objectStoreNames.contains('media')) db.createObjectStore('media')
      if (db.objectStoreNames.contains('photos')) db.deleteObjectStore('photos')
    },
  })
/** What no store of this phone took, as long as the page is open. */
const held = new Map<string, Blob>()
/** Keeps a file until the server has it; false where the phone has no room for it. */
export async function keepMedia(id: string, file: Blob): Promise<boolean> {
  held.set(id, file)
  try {
    await (await store()).put('media', file, id)
    return true
  } catch {
    return false
  }
}
export async function keptMedia(id: string): Promise<Blob | undefined> {
  const mine = held.get(id)
  if (mine) return mine
  try {
    return (await (await store()).get('media', id)) as Blob | undefined
  } catch {
    // Closed to us: as if nothing were kept.
    return undefined
  }
}
export async function forgetMedia(id: string): Promise<void> {
  held.delete(id)
  await (await store()).delete('media', id)
}
