import path from 'node:path'
import { type HeardLine, type HeardWord, type Hearing, plainCodes } from '@awlbox/core/contracts/heard'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { isInFilm, type Lesson, type Segment } from '@awlbox/core/contracts/lesson'
import { isTelephone } from '@awlbox/core/film/ear/channels'
import { captionWords, readCaptions } from '@awlbox/core/film/desk/captions'
import { hearFree } from '@awlbox/core/film/judge/free'
import { hear } from '@awlbox/core/film/judge/heard'
import { asSureAsHeard, understandCaptions } from '@awlbox/core/film/judge/understood'
import { sayUnderstood } from '@awlbox/core/findings/understood'
import { takeCodes } from '@awlbox/core/findings/codes'
import { told } from '@awlbox/core/findings/say'
import { sortClip } from '@awlbox/core/film/desk/sort-clip'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { hearFreeTake, hearTake } from '../film/hear-take.ts'
import { probe, toSpeechWav } from '../platform/media/ffmpeg.ts'
import { NoRecogniser, recognise } from '../platform/media/recogniser.ts'
import { inFolder } from '../platform/temporary.ts'
import { soundCheck } from '../platform/media/sound-check.ts'
import { BadInput, type Printed, readFile, readLesson } from './printed.ts'

/** `listen LESSON TAKE`, `listen --free TAKE`, either with `--segment TITLE|ID`: words, alignment, findings. */
export async function listen(args: string[]): Promise<Printed> {
  const rest = [...args]
  const free = take(rest, '--free')
  const segmentName = option(rest, '--segment')
  const [first, second] = free ? [undefined, rest[0]] : rest
  await readFile(second, free ? 'take or captions' : 'lesson, and which take')
  const file = second!
  try {
    return free
      ? await listenFreely(file)
      : await listenTo((await readLesson(first)).lesson, segmentName, file)
  } catch (error) {
    if (error instanceof NoRecogniser)
      throw new BadInput(`${error.message} A .vtt or .srt file can be judged in place of ${file}.`)
    throw error
  }
}

async function listenFreely(file: string): Promise<Printed> {
  if (isCaptions(file)) {
    const { words } = await captionsOf(file)
    const understood = understandCaptions(words, null)
    return print({
      words,
      lines: [],
      findings: asSureAsHeard(hearFree(words), understood),
      understood,
    })
  }
  const { words, findings, understood, telephone } = await withSound(file, async (wav, telephone) => ({
    ...(await hearFreeTake(wav)),
    telephone,
  }))
  return print({
    words,
    lines: [],
    understood,
    findings: findings.map((f) => (telephone ? { ...f, certain: false } : f)),
    ...(telephone ? { note: phone } : {}),
  })
}

async function listenTo(lesson: Lesson, segmentName: string | null, file: string): Promise<Printed> {
  const named = lesson.segments.filter(
    (s) => isInFilm(s) && (!segmentName || s.id === segmentName || s.title === segmentName),
  )
  if (!named.length)
    throw new BadInput(
      segmentName
        ? `the lesson has no segment called “${segmentName}”.`
        : 'the lesson has no segment for children.',
    )
  // A take of a whole lesson is heard as one long segment; one in which a single segment is said is a take of that.
  const whole: Segment = {
    ...named[0]!,
    id: 'whole',
    title: lesson.title,
    steps: named.flatMap((s) => s.steps),
  }
  // From the shell there is no setting: the house style everybody starts from.
  const style = defaultHouseStyle
  const chosen = (words: readonly HeardWord[], seconds: number): Segment => {
    if (named.length === 1) return named[0]!
    const only = sortClip(named, words, seconds, style).segmentId
    return named.find((s) => s.id === only) ?? whole
  }
  if (isCaptions(file)) {
    const { words, seconds } = await captionsOf(file)
    const segment = chosen(words, seconds)
    return print({ ...hear(segment, words, seconds, { style, age: lesson.age }), segment })
  }
  return withSound(file, async (wav, telephone, seconds) => {
    const segment =
      named.length === 1
        ? named[0]!
        : chosen((await recognise(wav, spokenLines(whole, style))).words, seconds)
    const h = await hearTake(wav, segment, { style, age: lesson.age, unsure: telephone })
    return print({ ...h, segment, ...(telephone ? { note: phone } : {}) })
  })
}

const isCaptions = (file: string): boolean => /\.(vtt|srt)$/i.test(file)
const phone = 'Telephone sound: every finding is uncertain.'

async function captionsOf(file: string): Promise<{ words: HeardWord[]; seconds: number }> {
  try {
    const cues = readCaptions((await readFile(file, 'captions')).toString('utf8'))
    return { words: captionWords(cues), seconds: cues.at(-1)!.end }
  } catch (error) {
    throw new BadInput(`${file}: ${(error as Error).message}`)
  }
}
async function withSound<T>(
  file: string,
  work: (wav: string, telephone: boolean, seconds: number) => Promise<T>,
): Promise<T> {
  const media = await probe(file)
  if (!media) throw new BadInput(`${file} holds no picture or sound that can be read.`)
  if (!media.audio) throw new BadInput(`${file} has no sound.`)
  return inFolder('listen', async (folder) => {
    const wav = path.join(folder, 'sound.wav')
    const sound = await soundCheck(file, media)
    await toSpeechWav(file, wav, { ears: sound.used })
    return work(wav, isTelephone(sound), (await probe(wav))?.seconds ?? media.seconds)
  })
}

type Listened = Pick<Hearing, 'words' | 'findings' | 'note' | 'understood'> & {
  lines: readonly HeardLine[]
  segment?: Segment
}
/** The shape of docs/formats.md. */
function print(l: Listened): Printed {
  const slips = l.findings.filter((f) => !plainCodes.has(f.code))
  const json = {
    version: 2,
    segment: l.segment && l.segment.id !== 'whole' ? { id: l.segment.id, title: l.segment.title } : null,
    words: l.words.map((w) => ({ text: w.word, start: w.start, end: w.end, confidence: w.confidence })),
    alignment: l.lines.map((x) => ({ step: x.stepId, start: x.start, end: x.end, words: x.words })),
    findings: l.findings.map((f) => ({
      code: f.code,
      severity: takeCodes[f.code],
      at: f.start,
      end: f.end,
      heard: f.heard,
      expected: f.expected,
      certain: f.certain,
      text: told('take', f),
    })),
    note: l.note ?? null,
    understood: l.understood ?? null,
  }
  const lines = l.findings.map(
    (f) =>
      `${f.start.toFixed(1).padStart(7)} s  ${f.code}: ${told('take', f)}${f.certain ? '' : ' (not certain)'}`,
  )
  const text = [
    ...(l.note ? [l.note] : []),
    ...(l.understood && l.understood.how !== 'understood' ? sayUnderstood(l.understood) : []),
    ...(lines.length ? lines : l.note || !heardWell(l) ? [] : ['Everything was heard as it should be.']),
  ].join('\n')
  return { json, text, clean: slips.length === 0 && !l.note && heardWell(l) }
}
const heardWell = (l: Listened): boolean => (l.understood?.how ?? 'understood') === 'understood'
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
