import type { HomeLesson, HomePack } from '@awlbox/core/contracts/api/home'

/** What the server writes into the page, so that its words are there at once: the link, the lessons, the newest of them. */
export interface First {
  token: string
  packs: HomeLesson[] | null
  pack: HomePack | null
  /** Why nothing can be shown; null where it can. */
  problem: string | null
}
/** Where it stands in the page. */
export const firstId = 'first'
