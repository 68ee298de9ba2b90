import * as cookie from 'cookie'
import type { Request } from 'express'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { isHomeLanguage, languageOf } from '@awlbox/core/send/words/words'
import type { Home } from '../platform/actor.ts'
import type { Db } from '../platform/db.ts'
import { languagesOfHome } from './store.ts'
import { type Speaker, speakerFor } from './words.ts'

/** One phone of a home may read another language than the next: what was chosen on it stands first. */
const languageCookie = 'awlbox_language'

/** What a home reads: as this phone chose, else as the home did, else by its children's languages. */
async function languageHere(
  db: Db,
  home: Pick<Home, 'householdId'>,
  req: Pick<Request, 'headers'> | null,
): Promise<HomeLanguage> {
  const onPhone = req?.headers.cookie ? cookie.parse(req.headers.cookie)[languageCookie] : undefined
  if (isHomeLanguage(onPhone)) return onPhone
  const { chosen, typed } = await languagesOfHome(db, home.householdId)
  return chosen ?? languageOf(typed)
}
export const speakerHere = async (
  db: Db,
  home: Home,
  req: Pick<Request, 'headers'> | null,
): Promise<Speaker> => speakerFor(db, home.settingId, await languageHere(db, home, req))
