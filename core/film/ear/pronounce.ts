import type { HouseStyle } from '../../contracts/house-style.ts'
import type { Segment } from '../../contracts/lesson.ts'
import { isNumberWord } from './sounds.ts'
import { spokenLines, spokenWordsOf } from '../follow/spoken.ts'
import type { Correction } from '../../contracts/correction.ts'

/**
 * A pronunciation for a word the dictionary lacks, from its parts: plural and verb endings, compounds,
 * British spellings. Returns null when nothing fits; the recogniser then leaves the word out.
 * `lookup` gives the phones of a known word ("F R EY M") or undefined.
 */
export function pronounce(word: string, lookup: (w: string) => string | undefined): string | null {
  const plain = word.replace(/'s$|'$/g, '')
  const direct = lookup(word) ?? lookup(word.replace(/'/g, ''))
  if (direct) return direct
  if (plain !== word) {
    const stem = pronounce(plain, lookup)
    return stem && `${stem} ${/[PTKF]$/.test(stem) ? 'S' : 'Z'}`
  }
  for (const [from, to] of [
    ['our', 'or'],
    ['ise', 'ize'],
    ['yse', 'yze'],
    ['re', 'er'],
    ['ogue', 'og'],
    ['é', 'e'],
    ['è', 'e'],
  ] as const) {
    if (word.includes(from)) {
      const other = lookup(word.replace(from, to))
      if (other) return other
    }
  }
  for (const [ending, phones] of [
    ['es', 'IH Z'],
    ['s', 'Z'],
    ['ing', 'IH NG'],
    ['ed', 'D'],
    ['er', 'ER'],
    ['ly', 'L IY'],
    ['y', 'IY'],
    ['ie', 'IY'],
  ] as const) {
    if (!word.endsWith(ending) || word.length < ending.length + 3) continue
    const root = word.slice(0, -ending.length)
    const stem =
      lookup(root) ??
      lookup(`${root}e`) ??
      (root.at(-1) === root.at(-2) ? lookup(root.slice(0, -1)) : undefined)
    if (stem) return `${stem} ${phones}`
  }
  for (let i = word.length - 3; i >= 3; i--) {
    const [a, b] = [lookup(word.slice(0, i)), lookup(word.slice(i))]
    if (a && b) return `${a} ${b}`
  }
  return null
}

/**
 * What a correction teaches: script words that were said and recognised as others, word for word, with the sound of
 * what was recognised. Numbers teach nothing: a "four" that sounds like "five" is what hearing is for.
 */
export async function taught(
  { segment, style }: { segment: Segment; style: HouseStyle },
  c: Correction,
  phonesOf: (word: string) => Promise<string | null>,
): Promise<{ word: string; phones: string; heard: string }[]> {
  const [heard, said] = [spokenWordsOf(c.heard), spokenWordsOf(c.said)]
  if (!heard.length || heard.length !== said.length) return []
  const script = new Set(spokenLines(segment, style).flatMap((l) => l.words))
  const out: { word: string; phones: string; heard: string }[] = []
  for (const [i, word] of said.entries()) {
    if (word === heard[i] || isNumberWord(word) || isNumberWord(heard[i]!) || !script.has(word)) continue
    const phones = await phonesOf(heard[i]!)
    if (phones) out.push({ word, phones, heard: heard[i]! })
  }
  return out
}
