import { createRequire } from 'node:module'

const require = createRequire(import.meta.url)
const of =
  (family: string, part: string) =>
  (weight: 400 | 700): string =>
    require.resolve(`@fontsource/${family}/files/${family}-${part}-${weight}-normal.woff`)
/** The shipped faces, each with the letters it holds. */
const faces = [
  {
    name: 'latin',
    has: /[\u0020-\u00ff\u2010-\u2026\u2030-\u203a\u20ac\u2212]/u,
    file: of('andika', 'latin'),
  },
  { name: 'ext', has: /[\u0100-\u024f\u1e00-\u1eff]/u, file: of('andika', 'latin-ext') },
  {
    name: 'arabic',
    has: /[\u0600-\u06ff\u0750-\u077f\ufb50-\ufdff\ufe70-\ufeff]/u,
    file: of('noto-sans-arabic', 'arabic'),
  },
] as const
type Face = (typeof faces)[number]['name']
const faceOf = (letter: string): Face => faces.find((f) => f.has.test(letter))?.name ?? 'latin'

/** Makes the shipped faces known to a document, in both weights. */
export function withFaces(pdf: PDFKit.PDFDocument): void {
  for (const f of faces) {
    pdf.registerFont(`${f.name} 400`, f.file(400))
    pdf.registerFont(`${f.name} 700`, f.file(700))
  }
}
export interface Lines {
  x: number
  y: number
  width: number
  /** Points. */
  size: number
  weight: 400 | 700
  rightToLeft: boolean
}
/** A word in parts of one face each. */
const runsOf = (word: string): { text: string; face: Face }[] => {
  const runs: { text: string; face: Face }[] = []
  for (const letter of word) {
    const face = faceOf(letter)
    const last = runs.at(-1)
    if (last?.face === face) last.text += letter
    else runs.push({ text: letter, face })
  }
  return runs
}
const isRight = (word: string): boolean => /[\u0590-\u08ff\ufb50-\ufeff]/u.test(word)
/** Words of a line in the order in which they stand from its beginning: what runs the other way keeps its own order. */
function inOrder(words: readonly string[], rightToLeft: boolean): string[] {
  if (!rightToLeft) return [...words]
  const out: string[] = []
  for (let i = 0; i < words.length;) {
    let j = i
    while (j < words.length && !isRight(words[j]!)) j++
    if (j > i) out.push(...words.slice(i, j).reverse())
    if (j < words.length) out.push(words[j]!)
    i = j + 1
  }
  return out
}

/** Writes a paragraph in any of the page's languages, from the side its writing begins on; gives the y below it. */
export function writeLines(pdf: PDFKit.PDFDocument, text: string, at: Lines): number {
  const widthOf = (word: string): number =>
    runsOf(word).reduce(
      (w, r) => w + pdf.font(`${r.face} ${at.weight}`).fontSize(at.size).widthOfString(r.text),
      0,
    )
  const gap = pdf.font(`latin ${at.weight}`).fontSize(at.size).widthOfString(' ')
  const lines: string[][] = [[]]
  let used = 0
  for (const word of text.split(/\s+/).filter(Boolean)) {
    const w = widthOf(word)
    if (used && used + gap + w > at.width) {
      lines.push([])
      used = 0
    }
    lines.at(-1)!.push(word)
    used += (used ? gap : 0) + w
  }
  const high = at.size * 1.45
  lines.forEach((words, n) => {
    let x = at.rightToLeft ? at.x + at.width : at.x
    const y = at.y + n * high + at.size
    for (const word of inOrder(words, at.rightToLeft)) {
      const w = widthOf(word)
      let left = at.rightToLeft ? x - w : x
      // Inside a word that runs right to left its parts do so too.
      const runs = isRight(word) ? [...runsOf(word)].reverse() : runsOf(word)
      for (const r of runs) {
        pdf.font(`${r.face} ${at.weight}`).fontSize(at.size)
        pdf.text(r.text, left, y, { lineBreak: false, baseline: 'alphabetic' })
        left += pdf.widthOfString(r.text)
      }
      x += at.rightToLeft ? -(w + gap) : w + gap
    }
  })
  return at.y + lines.length * high
}
