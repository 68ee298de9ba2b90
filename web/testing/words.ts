import { compileMessage } from '@lingui/message-utils/compileMessage'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { catalogs } from '@awlbox/core/send/words/catalogs'
import { spokenFrom } from '../home-page/words.ts'

/** The page's words as the server gives them. */
export const messagesIn = (language: HomeLanguage) =>
  Object.fromEntries(Object.entries(catalogs[language]).map(([k, text]) => [k, compileMessage(text)]))
export const english = spokenFrom('en', messagesIn('en'))
