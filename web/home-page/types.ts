import type { Answer, Help } from '@awlbox/core/contracts/reply'

export interface HomeTask {
  id: string
  prompt: string
  kind: 'number' | 'choice' | 'photo'
  choices: string[]
}
export interface HomePack {
  id: string
  className: string
  sentAt: string
  film: {
    seconds: number
    bytes: number
    versions: { kind: string; bytes: number }[]
    replaced: { at: string; changes: string[] } | null
  } | null
  pack: {
    title: string
    aim: string
    needs: { thing: string; count: number; swap: string | null }[]
    cautions: string[]
    tasks: HomeTask[]
    adultNote: string[]
  }
  youngerChild: boolean
  children: { id: string; name: string }[]
  replies: {
    childId: string
    answers: Answer[]
    help: Help | null
    words: string
    updatedAt: string
    looked: boolean
  }[]
}
export interface Draft {
  key: string
  answers: Record<string, { text?: string; choice?: number; photoId?: string; photoName?: string }>
  help: Help | null
  words: string
  /** When the server said it had it; null while it has not. */
  receivedAt: string | null
  /** Sent by the adult but not yet with the server: goes by itself when there is a connection. */
  waiting: boolean
}
