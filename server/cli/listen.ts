import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import { type HeardFinding, type HeardWord, type Hearing, plainCodes } from '@awlbox/core/contracts/heard'
import type { Segment } from '@awlbox/core/contracts/lesson'
import { captionWords, readCaptions } from '@awlbox/core/film/captions'
import { hearFree } from '@awlbox/core/film/free'
import { freeLines } from '@awlbox/core/film/free-language'
import { hear } from '@awlbox/core/film/heard'
import { spokenLines, type SpokenLine } from '@awlbox/core/film/spoken'
import { probe, toSpeechWav } from '../platform/media/ffmpeg.ts'
import { recognise } from '../platform/media/recogniser.ts'
import { BadInput, type Printed, readFile, readLesson } from './printed.ts'

/** `listen LESSON TAKE`, `listen --free TAKE`, either with `--segment TITLE|ID`: words, alignment, findings. */
export async function listen(args: string[]): Promise<Printed> {
  const rest = [...args]
  const free = take(rest, '--free')
  const segmentName = option(rest, '--segment')
  const [first, second] = free ? [undefined, rest[0]] : rest
  const file = second
  await readFile(file, free ? 'take or captions' : 'lesson, and which take')
  if (free) {
    const { words } = await wordsOf(file!, freeLines)
    const findings = hearFree(words)
    return print({ version: 1, words, findings, lines: [], drops: [] }, findings)
  }
  const { lesson } = await readLesson(first)
  const named = lesson.segments.filter((s) => s.audience === 'children' && (!segmentName || s.id === segmentName || s.title === segmentName))
  if (!named.length) throw new BadInput(`the lesson has no segment called “${segmentName}”.`)
  const heardAs = async (segment: Segment): Promise<Hearing> => {
    const { words, seconds, unpronounced } = await wordsOf(file!, spokenLines(segment))
    return hear(segment, words, seconds, { age: lesson.age, unpronounced })
  }
  if (named.length === 1) {
    const h = await heardAs(named[0]!)
    return print({ version: 1, segmentId: named[0]!.id, ...h }, h.findings)
  }
  // A take of a whole lesson is heard as one long segment; one in which a single segment is said is a take of that.
  const whole = await heardAs({ ...named[0]!, id: 'whole', title: lesson.title, steps: named.flatMap((s) => s.steps) })
  const present = named.filter((s) => saidShare(hear(s, whole.words, 1, { age: lesson.age })) > mostlySaid)
  if (present.length === 1) {
    const h = await heardAs(present[0]!)
    return print({ version: 1, segmentId: present[0]!.id, ...h }, h.findings)
  }
  return print({ version: 1, segmentId: null, ...whole }, whole.findings)
}
/** Share of a segment's words from which it is taken to be said. */
const mostlySaid = 0.55
function saidShare(h: Hearing): number {
  const words = h.lines.flatMap((l) => l.words)
  return words.length ? words.filter((w) => w.status === 'said').length / words.length : 0
}

async function wordsOf(file: string, lines: readonly SpokenLine[]): Promise<{ words: HeardWord[]; seconds: number; unpronounced: string[] }> {
  if (/\.(vtt|srt)$/i.test(file)) {
    try {
      const cues = readCaptions((await readFile(file, 'captions')).toString('utf8'))
      return { words: captionWords(cues), seconds: cues.at(-1)!.end, unpronounced: [] }
    } catch (error) {
      throw new BadInput(`${file}: ${(error as Error).message}`)
    }
  }
  const media = await probe(file)
  if (!media) throw new BadInput(`${file} holds no picture or sound that can be read.`)
  if (!media.audio) throw new BadInput(`${file} has no sound.`)
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), 'awlbox-listen-'))
  try {
    const wav = path.join(folder, 'sound.wav')
    await toSpeechWav(file, wav)
    const r = await recognise(wav, lines)
    const seconds = media.seconds || (await probe(wav))?.seconds || 0
    return { ...r, seconds }
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}

function print(json: unknown, findings: readonly HeardFinding[]): Printed {
  const slips = findings.filter((f) => !plainCodes.has(f.code))
  const text = findings.length ? findings.map((f) => `${f.start.toFixed(1).padStart(7)} s  ${f.code}: ${f.message}${f.certain ? '' : ' (not certain)'}`).join('\n') : 'Everything was heard as it should be.'
  return { json, text, clean: slips.length === 0 }
}
function take(args: string[], flag: string): boolean {
  const i = args.indexOf(flag)
  if (i < 0) return false
  args.splice(i, 1)
  return true
}
function option(args: string[], flag: string): string | null {
  const i = args.indexOf(flag)
  return i < 0 ? null : (args.splice(i, 2)[1] ?? null)
}
