/** Number words of the other languages homes write in, to a hundred: read where an answer is typed, never written by us. */
const lists = {
  pl: 'zero jeden dwa trzy cztery pięć sześć siedem osiem dziewięć dziesięć jedenaście dwanaście trzynaście czternaście piętnaście szesnaście siedemnaście osiemnaście dziewiętnaście|dwadzieścia trzydzieści czterdzieści pięćdziesiąt sześćdziesiąt siedemdziesiąt osiemdziesiąt dziewięćdziesiąt sto',
  es: 'cero uno dos tres cuatro cinco seis siete ocho nueve diez once doce trece catorce quince dieciséis diecisiete dieciocho diecinueve|veinte treinta cuarenta cincuenta sesenta setenta ochenta noventa cien',
  ar: 'صفر واحد اثنان ثلاثة أربعة خمسة ستة سبعة ثمانية تسعة عشرة|عشرون ثلاثون أربعون خمسون ستون سبعون ثمانون تسعون مئة',
}
/** As a hurried thumb writes it: without marks over letters, in one of several spellings. */
const plain = (word: string): string =>
  word
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .replaceAll('ł', 'l')
    .replace(/[أإآ]/g, 'ا')
    .replaceAll('ة', 'ه')
    .replaceAll('ى', 'ي')
const values = new Map<string, number>()
for (const list of Object.values(lists)) {
  const [ones, tens] = list.split('|') as [string, string]
  ones.split(' ').forEach((w, n) => values.set(plain(w), n))
  tens.split(' ').forEach((w, n) => values.set(plain(w), (n + 2) * 10))
}
for (const [word, n] of [
  ['un', 1],
  ['una', 1],
  ['jedna', 1],
  ['dwie', 2],
  ['ciento', 100],
  ['اثنين', 2],
  ['اثنا', 2],
  ['احد', 1],
  ['عشر', 10],
  ['عشرين', 20],
  ['مائة', 100],
] as const)
  values.set(plain(word), n)
/** "veintitrés" is one word of two. */
const joined = (word: string): number | null => {
  const rest = word.match(/^veinti(.+)$/)?.[1]
  const n = rest ? values.get(rest) : undefined
  return n !== undefined && n >= 1 && n <= 9 ? 20 + n : null
}
const between = new Set(['y', 'i', 'و'])

/** A number from 0 to 100 in words of Polish, Spanish or Arabic; null for anything else. */
export function parseOtherNumber(text: string): number | null {
  const words = plain(text.toLowerCase().trim())
    .split(/[\s-]+/)
    .filter((w) => w && !between.has(w))
  if (words.length < 1 || words.length > 2) return null
  const read = words.map((w) => {
    // "and twenty" is written as one word in Arabic.
    const known = values.get(w) ?? joined(w)
    return known ?? (w.startsWith('و') ? values.get(w.slice(1)) : undefined) ?? null
  })
  const [a, b] = read as [number | null, number | null | undefined]
  if (a === null || b === null) return null
  if (b === undefined) return a
  const [low, high] = [Math.min(a, b), Math.max(a, b)]
  // A ten and some ones, in whichever order the language has them.
  return low >= 1 && low <= 9 && high >= 10 && high % 10 === 0 && high < 100 ? high + low : null
}
