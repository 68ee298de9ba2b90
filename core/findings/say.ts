import { IntlMessageFormat } from 'intl-messageformat'
import { clockTime } from '../words.ts'
import type { Codes, Reader } from './codes.ts'
import type { Found, Params } from '../contracts/finding.ts'
import { en } from './words/en.ts'
import type { Language, Partly, Words } from './words/language.ts'

/** The languages there are files for. English is whole; what another has not yet is said in English. */
const languages: Readonly<Record<string, Partly>> = { en }
/** How each language is written and bent: British English where nothing else is said. */
const locales: Readonly<Record<string, string>> = { en: 'en-GB' }

/** What is to be said of a finding. */
export interface Said {
  what: string
  /** Why it matters or what to do; empty where nothing is to be added. */
  why: string
  /** What the button of its repair says; empty where it has none. */
  fix: string
}
/** A finding with what its repair brings along, as far as words need it. */
type Sayable<R extends Reader> = Found<Codes[R]> & {
  fix?: object | undefined
}
interface Speech {
  locale: string
  words: Partly
}
const speechOf = (language: string, more: Readonly<Record<string, Partly>>): Speech => ({
  locale: locales[language] ?? language,
  words: more[language] ?? languages[language] ?? {},
})

/** A reader's words for a code: of its own or, in a cut, of the take heard again in it. */
function wordsOf(words: Partly, reader: Reader, code: string): Words | undefined {
  const own = (words[reader] as Readonly<Record<string, Words>> | undefined)?.[code]
  return (
    own ??
    (reader === 'cut' ? (words.take as Readonly<Record<string, Words>> | undefined)?.[code] : undefined)
  )
}
const read = new Map<string, IntlMessageFormat>()
function filled(text: string, values: Record<string, string | number>, locale: string): string {
  const key = `${locale} ${text}`
  let message = read.get(key)
  if (!message) {
    message = new IntlMessageFormat(text, locale, undefined, { ignoreTag: true })
    read.set(key, message)
  }
  return String(message.format(values))
}
/** Parameters as they are said: lists joined, seconds as a clock shows them, values that have names by their names. */
function spoken(params: Params, names: Language['names'], locale: string): Record<string, string | number> {
  return Object.fromEntries(
    Object.entries(params).map(([name, value]) => {
      if (Array.isArray(value)) return [name, new Intl.ListFormat(locale).format(value.map(String))]
      if (typeof value === 'number') return [name, name.endsWith('Seconds') ? clockTime(value) : value]
      return [name, names[name]?.[value] ?? value]
    }),
  )
}

/**
 * A finding in words. `language` is a language code ("en"); what its file has not is said in English. `more` are
 * language files beside those that ship.
 */
export function say<R extends Reader>(
  reader: R,
  finding: Sayable<R>,
  language = 'en',
  more: Readonly<Record<string, Partly>> = {},
): Said {
  const { params } = finding
  // Told before findings had codes' words: it is kept as it was told.
  if (typeof params.asTold === 'string') return { what: params.asTold, why: '', fix: '' }
  const mine = speechOf(language, more)
  const own = wordsOf(mine.words, reader, finding.code)
  const [words, locale] = own ? [own, mine.locale] : [wordsOf(en, reader, finding.code), locales.en!]
  if (!words) throw new RangeError(`No words for ${reader} ${finding.code}`)
  const { text, thing, count } = (finding.fix ?? {}) as { text?: string; thing?: string; count?: number }
  const fixed = Object.fromEntries(
    Object.entries({ text, thing, count }).filter(([, v]) => v !== undefined),
  ) as Params
  const values = spoken({ ...fixed, ...params }, { ...en.names, ...mine.words.names }, locale)
  const wording = (of: Words['what'] | undefined): string => {
    if (of === undefined) return ''
    if (typeof of === 'string') return filled(of, values, locale)
    const one = of[String(params.case)]
    if (one === undefined)
      throw new RangeError(`No words for ${reader} ${finding.code}, case ${String(params.case)}`)
    return filled(one, values, locale)
  }
  return { what: wording(words.what), why: wording(words.why), fix: finding.fix ? wording(words.fix) : '' }
}
/** What was found, in a sentence. */
export const told = <R extends Reader>(reader: R, finding: Sayable<R>, language = 'en'): string =>
  say(reader, finding, language).what
