import { type HomeLanguage, homeLanguages } from '../../contracts/home-lists.ts'
import type { Told } from '../../contracts/told.ts'
import type { en, WordKey } from './en.ts'

export type { WordKey }
/** The words of one language: every key of English, nothing else. */
export type Words = Record<keyof typeof en, string>

interface Speech {
  /** Its own name, as who speaks it looks for it. */
  name: string
  /** What a teacher may have written of it in a table. */
  known: readonly string[]
  direction: 'ltr' | 'rtl'
  /** How numbers and days are written. */
  locale: string
}
export const speech: Record<HomeLanguage, Speech> = {
  en: { name: 'English', known: ['english'], direction: 'ltr', locale: 'en-GB' },
  pl: { name: 'Polski', known: ['polish', 'polski'], direction: 'ltr', locale: 'pl' },
  es: {
    name: 'Español',
    known: ['spanish', 'español', 'espanol', 'castellano'],
    direction: 'ltr',
    locale: 'es',
  },
  ar: { name: 'العربية', known: ['arabic', 'العربية', 'arab'], direction: 'rtl', locale: 'ar-u-nu-arab' },
}
/** The page's language for languages as a teacher typed them: the first of them it speaks other than English, else English. */
export function languageOf(typed: readonly string[]): HomeLanguage {
  const all = typed.map((t) => t.trim().toLowerCase())
  return homeLanguages.find((l) => l !== 'en' && all.some((t) => speech[l].known.includes(t))) ?? 'en'
}
export const isHomeLanguage = (text: string | undefined): text is HomeLanguage =>
  (homeLanguages as readonly string[]).includes(text ?? '')
export const told = (key: WordKey, values?: Told['values']): Told => (values ? { key, values } : { key })
