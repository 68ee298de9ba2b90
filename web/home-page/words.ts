import { type I18n, type Messages, setupI18n } from '@lingui/core'
import { createContext, useContext } from 'react'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import { speech, type WordKey } from '@awlbox/core/send/words/words'

/** The page's words in the home's language, as the server gave them with the page. */
export interface Spoken {
  language: HomeLanguage
  locale: string
  say: (key: WordKey, values?: Record<string, unknown>) => string
}
export function spokenFrom(language: HomeLanguage, messages: Messages): Spoken {
  const { locale } = speech[language]
  const i18n: I18n = setupI18n({ locale, messages: { [locale]: messages } })
  return { language, locale, say: (key, values) => i18n._(key, values) }
}
export const Words = createContext<Spoken | null>(null)
export function useWords(): Spoken {
  const words = useContext(Words)
  if (!words) throw new Error('A part of the page stands outside of its words')
  return words
}
/** What the teacher wrote is in the setting's language, whatever the page around it speaks. */
export const written = { lang: 'en-GB', dir: 'auto' } as const
