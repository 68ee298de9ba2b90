import type { Frames } from '../../contracts/units.ts'
import { cardLines, framesPerSecond, type CutList } from '../../contracts/cut.ts'
import { type CutEvent, eventsOf, listFrom, lookOf, takeIn } from './events.ts'

/** CMX 3600: the edit list of tape days, which everything reads. Times are 30 frames a second, non-drop. */
export function timecode(frame: Frames): string {
  const two = (n: number): string => String(n).padStart(2, '0')
  const s = Math.floor(frame / framesPerSecond)
  return `${two(Math.floor(s / 3600))}:${two(Math.floor(s / 60) % 60)}:${two(s % 60)}:${two(frame % framesPerSecond)}`
}
const frameIn = (code: string): number => {
  const [h, m, s, f] = code.split(/[:;]/).map(Number) as [number, number, number, number]
  return ((h * 60 + m) * 60 + s) * framesPerSecond + f
}
/** A line of comment holds no line break and nothing that looks like an event. */
const comment = (text: string): string => text.replace(/\s+/g, ' ').trim()
/** Reels have eight letters: a take's are the beginning of its id. */
const reel = (takeId: string): string => takeId.slice(0, 8).toUpperCase()

/** The whole cut as a CMX 3600 list. Its format numbers 999 events: more are numbered on with more digits. */
export function toEdl(list: Pick<CutList, 'segments'>, title: string): string {
  const lines = [`TITLE: ${comment(title).slice(0, 70)}`, 'FCM: NON-DROP FRAME']
  let at = 0
  eventsOf(list).forEach((e, i) => {
    const source =
      e.kind === 'clip'
        ? [e.from, e.from + e.frames]
        : e.kind === 'still'
          ? [e.frame, e.frame + e.frames]
          : [0, e.frames]
    const name =
      e.kind === 'card' ? e.name.replace('-', '').toUpperCase().padEnd(8).slice(0, 8) : reel(e.takeId)
    lines.push(
      '',
      `${String(i + 1).padStart(3, '0')}  ${name} ${e.kind === 'clip' ? 'B ' : 'V '}    C        ${timecode(source[0]!)} ${timecode(source[1]!)} ${timecode(at)} ${timecode(at + e.frames)}`,
    )
    if (e.kind === 'still') lines.push(`M2   ${name}       000.0                ${timecode(e.frame)}`)
    lines.push(
      e.kind === 'card'
        ? `* CARD: ${e.look} | ${[e.title, ...e.lines].map(comment).join(' | ')}`
        : `* FROM CLIP NAME: ${e.takeId}`,
      `* SEGMENT: ${e.segmentId}`,
    )
    at += e.frames
  })
  return `${lines.join('\n')}\n`
}

/**
 * Reads a CMX 3600 list. Takes are known by the name in their comment, or by a reel that begins their id (`takes`);
 * `segmentOf` tells the segment of a take where no comment does.
 * @throws SyntaxError when it holds no event, or none of a take that is known.
 */
export function fromEdl(
  text: string,
  takes: readonly string[],
  segmentOf: (takeId: string) => string | null,
): CutList {
  interface Read {
    reel: string
    from: number
    frames: Frames
    still: boolean
    comments: string[]
  }
  const events: Read[] = []
  for (const line of text.replace(/\r\n?/g, '\n').split('\n')) {
    const m = line.match(
      /^\s*\d+\s+(\S+)\s+\S+\s+C\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})\s+(\d{2}:\d{2}:\d{2}[:;]\d{2})/,
    )
    const last = events.at(-1)
    if (m)
      events.push({
        reel: m[1]!,
        from: frameIn(m[2]!),
        frames: frameIn(m[5]!) - frameIn(m[4]!),
        still: false,
        comments: [],
      })
    else if (last && /^M2\s/.test(line)) last.still = Number(line.trim().split(/\s+/)[2]) === 0
    else if (last && line.startsWith('*')) last.comments.push(line.slice(1).trim())
  }
  if (!events.length) throw new SyntaxError('No event was found: this is no CMX 3600 edit list.')
  let segment: string | null = null
  const known = events.flatMap((e): CutEvent[] => {
    const said = (name: string): string | undefined =>
      e.comments
        .find((c) => c.toUpperCase().startsWith(`${name}:`))
        ?.slice(name.length + 1)
        .trim()
    const takeId =
      takeIn(said('FROM CLIP NAME') ?? '') ?? takes.find((t) => reel(t) === e.reel.toUpperCase()) ?? null
    segment = said('SEGMENT') ?? (takeId ? segmentOf(takeId) : null) ?? segment
    if (segment === null || e.frames < 1) return []
    const base = { segmentId: segment, frames: e.frames }
    if (takeId)
      return [
        e.still
          ? { ...base, kind: 'still', takeId, frame: e.from }
          : { ...base, kind: 'clip', takeId, from: e.from },
      ]
    const card = said('CARD')?.split(' | ')
    return card
      ? [
          {
            ...base,
            kind: 'card',
            name: e.reel,
            look: lookOf(card[0]),
            title: (card[1] ?? 'Card').slice(0, 160),
            lines: card.slice(2, 2 + cardLines).map((l) => l.slice(0, 120)),
          },
        ]
      : []
  })
  if (!known.length) throw new SyntaxError('No event of this list is of a take of this lesson.')
  return listFrom(known)
}
