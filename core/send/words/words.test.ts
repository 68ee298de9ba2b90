import { describe, expect, test } from 'vitest'
import { homeLanguages } from '../../contracts/home-lists.ts'
import { structures } from '../../contracts/lesson.ts'
import { printableKinds } from '../../contracts/printables.ts'
import { surveyThings } from '../../plan/kit.ts'
import { strategyIds } from '../../plan/numbers/strategies.ts'
import { knownThings } from '../../plan/things.ts'
import { catalogs, isWordKey, wordKeys, wordProblem } from './catalogs.ts'
import { isHomeLanguage, languageOf } from './words.ts'

describe.each(homeLanguages)('the words of %s', (language) => {
  test('are complete: nothing missing, nothing else', () => {
    expect(Object.keys(catalogs[language]).sort()).toEqual([...wordKeys].sort())
  })
  test('take in what English takes in, with every form of number the language has', () => {
    const wrong = wordKeys.flatMap((k) => {
      const problem = wordProblem(k, language, catalogs[language][k])
      return problem ? [`${k}: ${problem}`] : []
    })
    expect(wrong).toEqual([])
  })
  test('say nothing that changed hands with another language', () => {
    if (language === 'en') return
    const same = wordKeys.filter((k) => catalogs[language][k] === catalogs.en[k])
    // What is filled in alone is alike everywhere.
    expect(same.filter((k) => catalogs.en[k].replace(/\{[^{}]*\}/g, '').match(/\p{L}{4}/u))).toEqual([])
  })
})

test('whatever the core can name has its word', () => {
  for (const s of structures) expect(isWordKey(`aim.${s}`), s).toBe(true)
  for (const kind of printableKinds) expect(isWordKey(`sheet.${kind}`), kind).toBe(true)
  for (const id of strategyIds) expect(isWordKey(`way.${id}`), id).toBe(true)
  for (const t of [...knownThings.map((k) => k.name), ...surveyThings])
    expect(isWordKey(`thing.${t}`), t).toBe(true)
  // A caution stands in packs in English: its translation is found by its words.
  const english = new Set<string>(Object.values(catalogs.en))
  for (const t of knownThings) if (t.caution) expect(english, t.caution).toContain(t.caution)
})

test('a setting’s own wording is refused where something filled in would be lost', () => {
  expect(wordProblem('send.received', 'pl', 'Odebrano o {time}.')).toBeNull()
  expect(wordProblem('send.received', 'pl', 'Odebrano.')).toMatch(/\{time\} is missing/)
  expect(wordProblem('send.received', 'pl', 'Odebrano {time} {child}')).toMatch(/\{child\}/)
  expect(wordProblem('send.received', 'pl', 'Odebrano {time')).toMatch(/braces/)
  expect(wordProblem('send.received', 'pl', '  ')).toMatch(/Empty/)
  expect(wordProblem('share.left', 'pl', '{n, plural, one {jeden} other {#}}')).toMatch(/“few”|“many”/)
  expect(wordProblem('share.left', 'en', '{n, plural, one {just one} other {# left}}')).toBeNull()
})
test('a home’s language is told from what a teacher typed', () => {
  expect(languageOf(['English', 'Polish'])).toBe('pl')
  expect(languageOf([' arabic '])).toBe('ar')
  expect(languageOf(['Urdu', 'English'])).toBe('en')
  expect(languageOf([])).toBe('en')
  expect([isHomeLanguage('es'), isHomeLanguage('xx'), isHomeLanguage(undefined)]).toEqual([
    true,
    false,
    false,
  ])
})
