import { type I18n, type Messages, setupI18n } from '@lingui/core'
import { compileMessage } from '@lingui/message-utils/compileMessage'
import type { HomeLanguage } from '@awlbox/core/contracts/home-lists'
import type { Told } from '@awlbox/core/contracts/told'
import { surveyThings } from '@awlbox/core/plan/kit'
import { catalogs, isWordKey, wordKeys } from '@awlbox/core/send/words/catalogs'
import { speech, type WordKey } from '@awlbox/core/send/words/words'
import type { Db } from '../platform/db.ts'
import { ownWords } from './words-store.ts'

/** Speaks one language as one setting has it. */
export interface Speaker {
  language: HomeLanguage
  say: (key: WordKey, values?: Record<string, unknown>) => string
  /** What waits for a language; a thing named inside is said in it too. */
  told: (line: Told) => string
  /** An English sentence of ours, or a teacher's own that somebody here has put into this language; else as it is. */
  text: (english: string) => string
  /** A day or a time as it is written there. */
  day: (day: string | Date) => string
  /** The page's own words, ready to be filled in. */
  messages: Messages
}
/** Keys that a home's page says itself; all else is said by the server. */
const asked = new Set(surveyThings.map((t) => `thing.${t}`))
const onPage = wordKeys.filter(
  (k) => asked.has(k) || !/^(aim|why|see|say|not|way|caution|route|thing|post|letter|sheet)\./.test(k),
)
const byEnglish = new Map<string, WordKey>(wordKeys.map((k) => [catalogs.en[k], k]))

const compiled = new Map<HomeLanguage, Messages>()
function ours(language: HomeLanguage): Messages {
  let all = compiled.get(language)
  if (!all) {
    all = Object.fromEntries(wordKeys.map((k) => [k, compileMessage(catalogs[language][k])]))
    compiled.set(language, all)
  }
  return all
}

/** @param own a setting's wording: by key, or by the sentence it stands for. */
export function speakerOf(language: HomeLanguage, own: ReadonlyMap<string, string>): Speaker {
  const all = { ...ours(language) }
  for (const [key, words] of own) if (isWordKey(key)) all[key] = compileMessage(words)
  const i18n: I18n = setupI18n({
    locale: speech[language].locale,
    messages: { [speech[language].locale]: all },
  })
  const say: Speaker['say'] = (key, values) => i18n._(key, values)
  const inside = (value: string | number): string | number =>
    typeof value === 'string' && isWordKey(value) ? say(value) : value
  return {
    language,
    say,
    told: (line) =>
      isWordKey(line.key)
        ? say(line.key, Object.fromEntries(Object.entries(line.values ?? {}).map(([k, v]) => [k, inside(v)])))
        : '',
    text: (english) => {
      const mine = own.get(english)
      if (mine !== undefined) return mine
      const key =
        byEnglish.get(english) ?? (isWordKey(`thing.${english}`) ? (`thing.${english}` as WordKey) : null)
      return key ? say(key) : english
    },
    day: (day) =>
      new Date(day).toLocaleDateString(speech[language].locale, {
        weekday: 'long',
        day: 'numeric',
        month: 'long',
        timeZone: 'UTC',
      }),
    messages: Object.fromEntries(onPage.map((k) => [k, all[k]!])),
  }
}
export const speakerFor = async (db: Db, settingId: string, language: HomeLanguage): Promise<Speaker> =>
  speakerOf(language, await ownWords(db, settingId, language))
