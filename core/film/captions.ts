import type { HeardWord } from '../contracts/heard.ts'
import { tokens } from '../plan/numbers/names.ts'
import { spokenWordsOf } from './spoken.ts'

export interface Cue {
  /** Seconds. */
  start: number
  end: number
  text: string
}

const stamp = /(?:(\d+):)?(\d{1,2}):(\d{2})[.,](\d{3})/
const seconds = (m: RegExpMatchArray): number => Number(m[1] ?? 0) * 3600 + Number(m[2]) * 60 + Number(m[3]) + Number(m[4]) / 1000

/** Reads WebVTT or SubRip cues; markup inside cues is dropped. @throws SyntaxError when there is no cue at all. */
export function readCaptions(text: string): Cue[] {
  const cues: Cue[] = []
  for (const block of text.replace(/^\uFEFF/, '').split(/\r?\n\s*\r?\n/)) {
    const lines = block.split(/\r?\n/)
    const at = lines.findIndex((l) => l.includes('-->'))
    if (at < 0) continue
    const [a, b] = lines[at]!.split('-->')
    const [from, to] = [a!.match(stamp), b!.match(stamp)]
    if (!from || !to) continue
    const body = lines.slice(at + 1).join(' ').replace(/<[^>]*>/g, '').trim()
    if (body) cues.push({ start: seconds(from), end: seconds(to), text: body })
  }
  if (!cues.length) throw new SyntaxError('No captions found: WebVTT or SRT with lines like 00:01.000 --> 00:03.000 is read here.')
  return cues
}

/** Words of captions with times shared out over each cue by the length of the word. */
export function captionWords(cues: readonly Cue[]): HeardWord[] {
  return cues.flatMap((c) => {
    const words = spokenWordsOf(c.text).length ? spokenWordsOf(c.text) : tokens(c.text)
    const letters = words.reduce((s, w) => s + w.length + 1, 0)
    let at = c.start
    return words.map((word) => {
      const length = ((c.end - c.start) * (word.length + 1)) / letters
      const from = at
      at += length
      return { word, start: from, end: at, confidence: 0.8 }
    })
  })
}

const time = (s: number): string => {
  const ms = Math.max(0, Math.round(s * 1000))
  const two = (n: number) => String(n).padStart(2, '0')
  return `${two(Math.floor(ms / 3600000))}:${two(Math.floor(ms / 60000) % 60)}:${two(Math.floor(ms / 1000) % 60)}.${String(ms % 1000).padStart(3, '0')}`
}
export const toVtt = (cues: readonly Cue[]): string =>
  `WEBVTT\n\n${cues.map((c) => `${time(c.start)} --> ${time(c.end)}\n${c.text.replace(/-->/g, '→')}\n`).join('\n')}`
export const toSrt = (cues: readonly Cue[]): string =>
  cues.map((c, i) => `${i + 1}\n${time(c.start).replace('.', ',')} --> ${time(c.end).replace('.', ',')}\n${c.text}\n`).join('\n')
