import type { FilmBox } from '../contracts/cut.ts'
import type { PrivateKind } from '../contracts/render.ts'
import { boxAround, meet } from './boxes.ts'

/** A word read in a picture; words of one line share its number and follow each other. */
export interface WordRead {
  text: string
  line: number
  box: FilmBox
}
export interface PrivateSeen {
  what: PrivateKind
  box: FilmBox
}

/** A road and its number, a postcode of letters and figures, an address to write to. Only capitals, or every "5 on the top row" would be one. */
const address =
  /\b\d{1,4}[A-Za-z]?,? (?:[A-Z][A-Za-z’'-]+ ){1,3}(?:Road|Rd|Street|St|Lane|Ln|Avenue|Ave|Close|Drive|Court|Crescent|Terrace|Gardens|ROAD|STREET|LANE|AVENUE|CLOSE|DRIVE)\b|\b[A-Z]{1,2}\d[A-Z\d]? ?\d[A-Z]{2}\b|\S+@\S+\.[A-Za-z]{2,}/g
/** Figures in groups as a telephone's are: "10 20 30" and "1 2 3 4 5 6 7" are a number track. */
const telephone =
  /(?<![\d-])(?:\+\d{1,3}[ -]?(?:\(0\))?\d[\d -]{6,13}\d|0\d{2,5}[ -]?\d{3,4}[ -]?\d{3,6}|\d{3}-\d{3}-\d{4}|\d{3}-\d{4}|\d{7,12})(?![\d-])/g

/** Letters and figures only; accents are often misread. */
const bare = (text: string): string =>
  text
    .replace(/[’']s?$/, '')
    .normalize('NFD')
    .replace(/[^\p{L}\p{N}]/gu, '')
/** Whether two words differ by at most one letter put in, left out or taken for another. */
function oneOff(a: string, b: string): boolean {
  if (Math.abs(a.length - b.length) > 1) return false
  let i = 0
  while (i < a.length && a[i] === b[i]) i++
  const rest = (s: string, skip: number): string => s.slice(i + skip)
  return a === b || rest(a, 1) === rest(b, 1) || rest(a, 0) === rest(b, 1) || rest(a, 1) === rest(b, 0)
}
/** Letters from which on one of them may be misread: shorter words are too near to others. */
const sure = 6
/** A name or place is written with a capital; "may" and "rose" are no children. */
const same = (read: string, name: string): boolean => {
  const [a, b] = [bare(read), bare(name)]
  if (!a || !/^\p{Lu}/u.test(a)) return false
  const [x, y] = [a.toLowerCase(), b.toLowerCase()]
  return x === y || (y.length >= sure && oneOff(x, y))
}

/**
 * Children's names, the class and the setting, where families live, addresses and telephone numbers among words read in a picture.
 * A house's number on its own is not told from a number card. What was read is not handed on: only where it stands.
 */
export function privateWords(
  words: readonly WordRead[],
  who: { children: readonly string[]; places: readonly string[]; addresses: readonly string[] },
): PrivateSeen[] {
  const out: PrivateSeen[] = []
  const lines = new Map<number, WordRead[]>()
  for (const w of words) if (w.text.trim()) lines.set(w.line, [...(lines.get(w.line) ?? []), w])
  for (const line of lines.values()) {
    for (const [what, names] of [
      ['child', who.children],
      ['place', who.places],
      ['address', who.addresses],
    ] as const)
      for (const name of names) {
        const parts = name.split(/\s+/).filter((p) => bare(p))
        for (let i = 0; parts.length && i + parts.length <= line.length; i++)
          if (parts.every((p, k) => same(line[i + k]!.text, p)))
            out.push({ what, box: boxAround(line.slice(i, i + parts.length).map((w) => w.box)) })
      }
    const starts: number[] = []
    let text = ''
    for (const w of line) {
      starts.push(text.length)
      text += `${w.text} `
    }
    for (const [what, pattern] of [
      ['address', address],
      ['telephone', telephone],
    ] as const)
      for (const m of text.matchAll(pattern)) {
        const mine = line.filter(
          (w, i) => starts[i]! < m.index + m[0].length && starts[i]! + w.text.length > m.index,
        )
        out.push({ what, box: boxAround(mine.map((w) => w.box)) })
      }
  }
  // A picture is read several times over: what stands in one place is one.
  return out.filter((p, i) => !out.slice(0, i).some((q) => q.what === p.what && meet(p.box, q.box)))
}
