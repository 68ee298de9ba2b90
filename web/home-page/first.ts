import type { Messages } from '@lingui/core'
import type { HomeLesson, HomePack } from '@awlbox/core/contracts/api/home'
import type { HomeLive } from '@awlbox/core/contracts/api/live'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'

/** What the server writes into the page, so that its words are there at once: the link, the lessons, the newest of them. */
export interface First {
  token: string
  packs: HomeLesson[] | null
  pack: HomePack | null
  /** Live lessons that are on or to come; the one that was asked for by its link. */
  lives: HomeLive[]
  liveId: string | null
  /** Why nothing can be shown; null where it can. */
  problem: string | null
  language: HomeLanguage
  /** The page's words, ready to be filled in. */
  messages: Messages
  /** Shown to a teacher as a home would see it: nothing is kept or sent. */
  preview: boolean
}
/** Where it stands in the page. */
export const firstId = 'first'
