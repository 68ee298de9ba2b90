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
  for (const [from, to] of [['our', 'or'], ['ise', 'ize'], ['yse', 'yze'], ['re', 'er'], ['ogue', 'og'], ['é', 'e'], ['è', 'e']] as const) {
    if (word.includes(from)) {
      const other = lookup(word.replace(from, to))
      if (other) return other
    }
  }
  for (const [ending, phones] of [['es', 'IH Z'], ['s', 'Z'], ['ing', 'IH NG'], ['ed', 'D'], ['er', 'ER'], ['ly', 'L IY'], ['y', 'IY'], ['ie', 'IY']] as const) {
    if (!word.endsWith(ending) || word.length < ending.length + 3) continue
    const root = word.slice(0, -ending.length)
    const stem = lookup(root) ?? lookup(`${root}e`) ?? (root.at(-1) === root.at(-2) ? lookup(root.slice(0, -1)) : undefined)
    if (stem) return `${stem} ${phones}`
  }
  for (let i = word.length - 3; i >= 3; i--) {
    const [a, b] = [lookup(word.slice(0, i)), lookup(word.slice(i))]
    if (a && b) return `${a} ${b}`
  }
  return null
}
