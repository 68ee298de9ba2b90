import { IntlMessageFormat } from 'intl-messageformat'
import type { HomeLanguage } from '../../contracts/home-lists.ts'
import { ar } from './ar.ts'
import { en } from './en.ts'
import { es } from './es.ts'
import { pl } from './pl.ts'
import { speech, type WordKey, type Words } from './words.ts'

export const catalogs: Record<HomeLanguage, Words> = { en, pl, es, ar }
export const wordKeys = Object.keys(en) as WordKey[]
export const isWordKey = (key: string): key is WordKey => Object.hasOwn(en, key)

type Ast = ReturnType<IntlMessageFormat['getAst']>
/** Element types of the parser: literal 0, argument 1, number 2, date 3, time 4, select 5, plural 6, pound 7, tag 8. */
const [literal, select, plural, pound] = [0, 5, 6, 7]
const kindOf = (e: Ast[number]): number => Number(e.type)
interface Forms {
  options: Record<string, { value: Ast }>
}
const formsOf = (e: Ast[number]): Forms['options'] | null =>
  kindOf(e) === plural || kindOf(e) === select ? (e as unknown as Forms).options : null
function valuesIn(ast: Ast, into = new Set<string>()): Set<string> {
  for (const e of ast) {
    if ('value' in e && kindOf(e) !== literal && kindOf(e) !== pound) into.add(e.value)
    for (const o of Object.values(formsOf(e) ?? {})) valuesIn(o.value, into)
  }
  return into
}
function pluralsIn(ast: Ast): string[][] {
  return ast.flatMap((e) => (kindOf(e) === plural ? [Object.keys(formsOf(e)!)] : []))
}
const readMessage = (text: string, language: HomeLanguage): Ast | null => {
  try {
    return new IntlMessageFormat(text, speech[language].locale).getAst()
  } catch {
    // Braces that do not close, a plural without its forms: no message.
    return null
  }
}

/**
 * What is wrong with a wording of a key, in words; null where nothing is. It may leave no value out that English
 * gives, bring none in, and has every form of number its language needs.
 */
export function wordProblem(key: WordKey, language: HomeLanguage, text: string): string | null {
  if (!text.trim()) return 'Empty: take your own wording back instead, and ours stands again.'
  const [mine, theirs] = [readMessage(text, language), readMessage(en[key], 'en')!]
  if (!mine) return 'The braces { } do not fit together.'
  const [have, want] = [valuesIn(mine), valuesIn(theirs)]
  const missing = [...want].filter((v) => !have.has(v))
  if (missing.length) return `{${missing[0]}} is missing: it stands for something that is filled in.`
  const strange = [...have].filter((v) => !want.has(v))
  if (strange.length) return `{${strange[0]}} is nothing that is filled in here.`
  const needed = new Intl.PluralRules(speech[language].locale).resolvedOptions().pluralCategories
  // Millions and parts of a whole are forms of their own in some languages: a page of small whole numbers has none.
  const used = needed.filter((c) => whole(language).has(c) || c === 'other')
  for (const forms of pluralsIn(mine))
    for (const form of used) if (!forms.includes(form)) return `The form “${form}” of the number is missing.`
  return null
}
const whole = (language: HomeLanguage): Set<string> => {
  const rules = new Intl.PluralRules(speech[language].locale)
  return new Set(Array.from({ length: 201 }, (_, n) => rules.select(n)))
}
