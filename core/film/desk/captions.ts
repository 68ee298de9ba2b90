import type { Seconds } from '../../contracts/units.ts'
import type { HeardWord } from '../../contracts/heard.ts'
import { spokenWordsOf } from '../follow/spoken.ts'

export interface Cue {
  /** Seconds. */
  start: Seconds
  end: Seconds
  text: string
  /** Times within the cue, where the file has them: from this place in `text` on, spoken from this second on. */
  stamps?: { at: number; time: number }[]
}

const stamp = /(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{1,3})/
const seconds = (m: RegExpMatchArray): number =>
  Number(m[1] ?? 0) * 3600 + Number(m[2]) * 60 + Number(m[3]) + Number(m[4]!.padEnd(3, '0')) / 1000
const named: Readonly<Record<string, string>> = {
  amp: '&',
  lt: '<',
  gt: '>',
  nbsp: ' ',
  quot: '"',
  apos: "'",
  lrm: '',
  rlm: '',
}
const entities = (text: string): string =>
  text.replace(/&(?:#(\d+)|#x([0-9a-f]+)|(\w+));/gi, (all, ten: string, hex: string, name: string) =>
    ten
      ? (letter(Number(ten)) ?? all)
      : hex
        ? (letter(parseInt(hex, 16)) ?? all)
        : (named[name.toLowerCase()] ?? all),
  )
const letter = (code: number): string | null =>
  code > 0 && code <= 0x10ffff && !(code >= 0xd800 && code <= 0xdfff) ? String.fromCodePoint(code) : null

/** No line of captions is as long as this: longer ones are parted, so that reading one never takes long. */
const longestLine = 1000
function parted(line: string): string[] {
  if (line.length <= longestLine) return [line]
  const out: string[] = []
  for (let at = 0; at < line.length;) {
    const space = line.lastIndexOf(' ', at + longestLine)
    const end = line.length - at <= longestLine ? line.length : space > at ? space : at + longestLine
    out.push(line.slice(at, end))
    at = end
  }
  return out
}

/**
 * Reads WebVTT or SubRip cues. Markup goes, times within a cue stay; lines that roll up from cue to cue, as live
 * captions do, are read once. @throws SyntaxError when there is no cue at all.
 */
export function readCaptions(text: string): Cue[] {
  const all = text
    .replace(/^\uFEFF/, '')
    .replace(/\r\n?/g, '\n')
    .split('\n')
    .flatMap(parted)
  const timings = all.flatMap((line, i) => (line.includes('-->') ? [i] : []))
  const raw = timings.flatMap((at, k) => {
    const [a, b] = all[at]!.split('-->')
    const [from, to] = [a!.match(stamp), b!.match(stamp)]
    if (!from || !to) return []
    return [
      {
        start: seconds(from),
        end: seconds(to),
        lines: bodyOf(all.slice(at + 1, timings[k + 1] ?? all.length), k + 1 < timings.length),
      },
    ]
  })
  const cues = withoutRolling(raw.sort((x, y) => x.start - y.start))
    .map(({ start, end, lines }) => cueOf(start, end, lines))
    .filter((c) => c.text)
  if (!cues.length)
    throw new SyntaxError(
      'No captions found: WebVTT or SRT with lines like 00:01.000 --> 00:03.000 is read here.',
    )
  return cues
}

/** The lines of one cue among those up to the next timing: a name right before that timing, and notes, are not its words. */
function bodyOf(lines: readonly string[], named: boolean): string[] {
  const own = [...lines]
  // Some files hold lines of a single space within a cue, so only a name set off by an empty line is one.
  if (named && own.length > 1 && own.at(-1)!.trim() && !own.at(-2)!.trim()) own.pop()
  const note = own.findIndex((l, i) => /^(NOTE|STYLE|REGION)\b/.test(l) && i > 0 && !own[i - 1]!.trim())
  return (note < 0 ? own : own.slice(0, note)).map((l) => l.trim()).filter(Boolean)
}

/** Without what stands in angle brackets. A bracket that is never closed is a sign like any other, and is looked for once. */
function untagged(text: string): string {
  if (!text.includes('<')) return text
  let [out, at] = ['', 0]
  for (;;) {
    const open = text.indexOf('<', at)
    const close = open < 0 ? -1 : text.indexOf('>', open)
    if (close < 0) return out + text.slice(at)
    out += text.slice(at, open)
    at = close + 1
  }
}
const bare = (line: string): string => untagged(line).trim()
/**
 * Captions that roll show each line twice: as the last of one cue and the first of the next. Where that is the file's
 * habit, and not one line said again, each line is kept where it first appears.
 */
function withoutRolling(
  cues: readonly { start: Seconds; end: Seconds; lines: string[] }[],
): { start: Seconds; end: Seconds; lines: string[] }[] {
  const shown = (i: number): string[] => cues[i]?.lines.map(bare).filter(Boolean) ?? []
  const grows = (i: number): boolean => {
    const [a, b] = [shown(i - 1).join(' '), shown(i).join(' ')]
    return (
      a.length > 0 && b.length > a.length && b.startsWith(`${a} `) && cues[i]!.start - cues[i - 1]!.end < 0.2
    )
  }
  const repeats = (i: number): number => {
    const [before, now] = [shown(i - 1), shown(i)]
    for (let k = Math.min(before.length, now.length); k > 0; k--)
      if (now.slice(0, k).every((l, j) => l === before[before.length - k + j])) return k
    return 0
  }
  const close = (i: number): boolean => cues[i]!.start - cues[i - 1]!.end < 0.5
  const pairs = cues.slice(1).map((_, i) => i + 1)
  const rolling =
    pairs.filter((i) => close(i) && repeats(i) > 0).length > pairs.length * 0.4 &&
    pairs.some((i) => shown(i).length > 1)
  const growing = pairs.filter(grows).length > pairs.length * 0.4
  if (!rolling && !growing) return [...cues]
  return cues.flatMap((c, i) => {
    if (i === 0) return [c]
    if (growing && grows(i))
      return [
        {
          ...c,
          lines: [
            shown(i)
              .join(' ')
              .slice(shown(i - 1).join(' ').length)
              .trim(),
          ],
        },
      ]
    const gone = rolling && close(i) ? repeats(i) : 0
    const filled = c.lines.filter(bare)
    const lines = filled.slice(gone)
    return lines.length ? [{ ...c, lines }] : []
  })
}

/** Sounds in brackets, notes and who speaks are not said. */
const unsaid = (text: string): string =>
  entities(text)
    .replace(/\[[^\]]*\]|\([^)]*\)|[♪♫#*][^♪♫#*]*[♪♫#*]|[♪♫]/g, ' ')
    .replace(/>>+/g, ' ')
    .replace(/^\s*[-–—]\s*(?=\D)/, '')
    .replace(/^\s*[A-Z][\p{Lu}\d .'’]{0,24}:\s/u, '')

function cueOf(start: number, end: number, lines: readonly string[]): Cue {
  let text = ''
  const stamps: NonNullable<Cue['stamps']> = []
  for (const part of lines.join(' ').split(/(<(?:\d+:)?\d{1,2}:\d{2}[.,]\d{1,3}>)/)) {
    const time = /^<[\d:.,]+>$/.test(part) ? part.match(stamp) : null
    if (time) stamps.push({ at: text.length, time: seconds(time) })
    else text += untagged(part)
  }
  // Leaving out what is unsaid would move the stamps: with stamps it is blanked out in place.
  const said = stamps.length
    ? text.replace(/\[[^\]]*\]|[♪♫]/g, (m) => ' '.repeat(m.length))
    : lines
        .map((l) => unsaid(untagged(l)))
        .join(' ')
        .replace(/\s+/g, ' ')
        .trim()
  return { start, end, text: said.trim() ? said : '', ...(stamps.length ? { stamps } : {}) }
}

/** A word of captions is hardly ever drawn out longer than this (seconds): cues stay on the screen after the last word. */
const longestWord = 1.4

/**
 * Words of captions. Times within a cue are used where there are any; else they are shared out over the cue by the
 * length of the words. Punctuation stays with the word before it.
 */
export function captionWords(cues: readonly Cue[]): HeardWord[] {
  return cues.flatMap((c, i) => {
    // A cue that is still shown when the next begins was said before it.
    const end = Math.min(c.end, Math.max(c.start + 0.3, cues[i + 1]?.start ?? c.end))
    if (!c.stamps?.length) return shared(c.text, c.start, end)
    const bounds = [{ at: 0, time: c.start }, ...c.stamps, { at: c.text.length, time: end }]
    return bounds
      .slice(1)
      .flatMap((b, k) =>
        shared(c.text.slice(bounds[k]!.at, b.at), bounds[k]!.time, Math.max(b.time, bounds[k]!.time + 0.05)),
      )
  })
}

function shared(text: string, from: Seconds, to: Seconds): HeardWord[] {
  // Figures run together with signs or commas are several words: "1,2,3" and "4+3=7".
  const parts = text
    .replace(/(\d)(?:\s+[-−–]\s+|[-−–](?=\d+\s*=))(?=\d)/g, '$1 take away ')
    .replace(/(\d)\s*([+=×÷−–])\s*(?=\d|_|\?)/g, '$1 $2 ')
    .replace(/(\d),(?=\d{1,2}(?!\d))/g, '$1, ')
    .split(/\s+/)
    .filter(Boolean)
  const words = parts.flatMap((part, k) => {
    // A dash between words is a pause; between figures it takes away.
    const spoken =
      /^[-–—]+$/.test(part) && !/^\d/.test(parts[k + 1] ?? '')
        ? []
        : spokenWordsOf(part.replace(/[−–]/g, '-'))
    const mark =
      part
        .match(/[.,!?…;:]+["'”’)]*$/)?.[0]
        .replace(/["'”’)]/g, '')
        .slice(0, 4) ?? (/^[-–—]+$/.test(parts[k + 1] ?? '') && !/^\d/.test(parts[k + 2] ?? '') ? ',' : '')
    return spoken.map((word, n) => ({ word, mark: n === spoken.length - 1 ? mark : '' }))
  })
  const letters = words.reduce((s, w) => s + w.word.length + 1 + (w.mark ? 2 : 0), 0)
  const rate = Math.min((to - from) / Math.max(1, letters), longestWord / 5)
  let at = from
  return words.map(({ word, mark }) => {
    const start = at
    const end = start + (word.length + 1) * rate
    at = end + (mark ? 2 * rate : 0)
    return { word, start, end, confidence: 0.8, mark }
  })
}

const time = (s: number): string => {
  const ms = Math.max(0, Math.round(s * 1000))
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(Math.floor(ms / 3600000))}:${two(Math.floor(ms / 60000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${String(ms % 1000).padStart(3, '0')}`
}
const lineOf = (top: number | null | undefined): string =>
  top === null || top === undefined ? '' : ` line:${Math.round((top / 720) * 100)}%`
/** WebVTT; `top`: the upper edge of a cue in a picture of 720 lines, where it does not stand at the foot. */
export const toVtt = (
  cues: readonly (Pick<Cue, 'start' | 'end' | 'text'> & { top?: number | null })[],
): string =>
  `WEBVTT\n\n${cues.map((c) => `${time(c.start)} --> ${time(c.end)}${lineOf(c.top)}\n${unbroken(c.text).replace(/-->/g, '→').replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;')}\n`).join('\n')}`
/** An empty line would end a cue. */
const unbroken = (text: string): string =>
  text
    .replace(/\r/g, '')
    .replace(/\n\s*\n+/g, '\n')
    .trim()
export const toSrt = (cues: readonly Pick<Cue, 'start' | 'end' | 'text'>[]): string =>
  cues
    .map(
      (c, i) =>
        `${i + 1}\n${time(c.start).replace('.', ',')} --> ${time(c.end).replace('.', ',')}\n${unbroken(c.text)}\n`,
    )
    .join('\n')
