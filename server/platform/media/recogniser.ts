import { createHash } from 'node:crypto'
import fs from 'node:fs/promises'
import { type SpeechModel, speechModel } from './speech-model.ts'
import os from 'node:os'
import path from 'node:path'
import { gainFor, levelsOf, levelsPerSecond, type Piece, piecesOfSound } from '@awlbox/core/film/ear/chunks'
import type { HeardWord } from '@awlbox/core/contracts/heard'
import { arpaModel, vocabularyOf } from '@awlbox/core/film/ear/language-model'
import { pronounce } from '@awlbox/core/film/ear/pronounce'
import type { SpokenLine } from '@awlbox/core/film/follow/spoken'
import { warmStretch } from '@awlbox/core/film/ear/warm'
import { inPlace } from '@awlbox/core/film/ear/utterances'
import { voicedIn } from '@awlbox/core/film/ear/voiced'
import { wavOf } from '@awlbox/core/film/ear/wav'
import { inFolder } from '../temporary.ts'
import { run } from './run.ts'
import { eachBlock, openWav, readSamples, type WavSpan } from './wav.ts'

/**
 * Everything about speech recognition that can be set, in one place. `model` is Debian's US English acoustic model;
 * `flags` keep a whole count in one utterance (see docs/hearing.md); `together` is how many recognisers run at once.
 * `secondEar` are the flags of the second listening, which hears the same sound without its noise taken out.
 */
const recognition = {
  program: 'pocketsphinx_continuous',
  model: process.env.AWLBOX_SPEECH_MODEL ?? '/usr/share/pocketsphinx/model/en-us',
  rate: 16_000,
  flags: ['-vad_postspeech', '100'],
  secondEar: ['-remove_noise', 'no'],
  together: Math.max(1, os.availableParallelism()),
  /** Seconds of quiet hiss put before and after each piece: its voice detector must hear a floor before the first word and an end after the last, or it loses both. */
  head: 1,
  tail: 2,
  /** Strength of that hiss, in units of a 16-bit sample each way: with less (or true silence) first words go unheard. */
  hiss: 20,
} as const

/** The recogniser or its model is not installed: takes still work, with captions or by hand. */
export class NoRecogniser extends Error {
  constructor() {
    super(
      'This machine has no speech recogniser (Debian: pocketsphinx, pocketsphinx-en-us). The take is kept and plays; bring captions for it, or cut it by hand.',
    )
  }
}

let dictionary: Promise<Map<string, string[]>> | null = null
let model: Promise<SpeechModel> | null = null
/** The model that is installed or chosen, looked for once. @throws NoRecogniser where there is none. */
const theModel = (): Promise<SpeechModel> =>
  (model ??= speechModel(recognition.model).catch(() => {
    model = null
    throw new NoRecogniser()
  }))
async function loadDictionary(): Promise<Map<string, string[]>> {
  const words = new Map<string, string[]>()
  const text = await fs.readFile((await theModel()).dictionary, 'utf8').catch(() => {
    dictionary = null
    throw new NoRecogniser()
  })
  for (const line of text.split('\n')) {
    const m = line.match(/^(\S+?)(?:\(\d\))? (.*)$/)
    if (m) words.set(m[1]!, [...(words.get(m[1]!) ?? []), m[2]!])
  }
  return words
}

/** The same where there may be no recogniser at all: then no word has a sound. */
export async function phonesIfAny(word: string): Promise<string | null> {
  try {
    return await phonesOf(word)
  } catch (error) {
    if (error instanceof NoRecogniser) return null
    throw error
  }
}
/** How the dictionary says a word, or by spelling rules; null where it cannot tell. @throws NoRecogniser without a dictionary. */
async function phonesOf(word: string): Promise<string | null> {
  dictionary ??= loadDictionary()
  const dict = await dictionary
  return pronounce(word, (w) => dict.get(w)?.[0])
}

export interface Recognition {
  words: HeardWord[]
  /** Words with no pronunciation, left out of the model. */
  unpronounced: string[]
}
/** Keeps what each piece gave, so that a job begun again listens only to what is missing. */
export interface Memory {
  get: (key: string) => Promise<HeardWord[] | null>
  put: (key: string, words: HeardWord[]) => Promise<void>
}
export interface Listening {
  signal?: AbortSignal
  /** Told the share of the sound listened to, 0–1. */
  onShare?: (share: number) => void
  memory?: Memory
  /** Words said otherwise than spelled: word → phones, several ways each. */
  pronunciations?: ReadonlyMap<string, readonly string[]>
  /** Listen only to these stretches (seconds). */
  only?: readonly Piece[]
  /** Loudness of the WAV, where it is known already. */
  levels?: ArrayLike<number>
  /** Listen the second way. */
  second?: boolean
  /** What was learnt of how this take sounds, for each way of listening: given on from one listening to the next. */
  means?: Map<string, string | null>
}

/** Dictionary and language model for the lines that may be said, as the recogniser's files. */
async function modelFor(
  lines: readonly SpokenLine[],
  own: ReadonlyMap<string, readonly string[]>,
): Promise<{ dict: string; lm: string; unpronounced: string[] }> {
  dictionary ??= loadDictionary()
  const dict = await dictionary
  const known = new Set<string>()
  const unpronounced: string[] = []
  const entries: string[] = []
  for (const word of vocabularyOf(lines)) {
    const spelled = pronounce(word, (w) => dict.get(w)?.[0])
    const phones = [...new Set([...(dict.get(word) ?? (spelled ? [spelled] : [])), ...(own.get(word) ?? [])])]
    if (phones.length) known.add(word)
    else unpronounced.push(word)
    phones.forEach((p, i) => entries.push(i ? `${word}(${i + 1}) ${p}` : `${word} ${p}`))
  }
  return { dict: `${entries.join('\n')}\n`, lm: arpaModel(lines, known), unpronounced }
}

/** Loudness of a 16 kHz mono WAV, a hundred values a second. */
export async function levelsIn(wav: string): Promise<Float32Array> {
  const span = await openWav(wav)
  const out = new Float32Array(Math.floor((span.bytes / 2 / span.rate) * levelsPerSecond))
  await eachBlock(wav, span, 30, (samples, from) =>
    out.set(
      levelsOf(samples, span.rate).subarray(0, out.length - Math.round((from / span.rate) * levelsPerSecond)),
      Math.round((from / span.rate) * levelsPerSecond),
    ),
  )
  return out
}

/**
 * Recognises a 16 kHz mono WAV with a language model made from the lines that may be said: in pieces parted at
 * silences, several at once.
 * @throws NoRecogniser when the program or its model is missing.
 */
export async function recognise(
  wav: string,
  lines: readonly SpokenLine[],
  options: Listening = {},
): Promise<Recognition> {
  const { dict, lm, unpronounced } = await modelFor(lines, options.pronunciations ?? new Map())
  const abandon = new AbortController()
  const stop = () => abandon.abort()
  options.signal?.addEventListener('abort', stop, { once: true })
  if (options.signal?.aborted) stop()
  const inside = async (folder: string): Promise<Recognition> => {
    await fs.writeFile(path.join(folder, 'words.dict'), dict)
    await fs.writeFile(path.join(folder, 'model.lm'), lm)
    const [span, levels] = [await openWav(wav), options.levels ?? (await levelsIn(wav))]
    const pieces = options.only ?? piecesOfSound(levels)
    const flags = options.second ? [...recognition.flags, ...recognition.secondEar] : [...recognition.flags]
    const [gain, voiced] = [gainFor(levels), voicedIn(levels)]
    const way = flags.join(' ')
    const mean = options.means?.has(way)
      ? options.means.get(way)!
      : await meanOf(await loudened(wav, span, warmStretch(levels), gain), folder, flags, abandon.signal)
    options.means?.set(way, mean)
    const own = await theModel()
    const acoustic = mean ? await withMean(mean, own.acoustic, folder) : own.acoustic
    const model = createHash('sha256')
      .update(dict)
      .update(lm)
      .update(way)
      .update(mean ?? '')
      // What one model heard says nothing of what another would.
      .update(own.key)
      .digest('hex')
    const heard: HeardWord[][] = pieces.map(() => [])
    const total = pieces.reduce((s, p) => s + p.to - p.from, 0)
    let done = 0
    let next = 0
    const worker = async (): Promise<void> => {
      while (next < pieces.length) {
        const i = next++
        const piece = pieces[i]!
        abandon.signal.throwIfAborted()
        const samples = await loudened(wav, span, piece, gain)
        const key = createHash('sha256')
          .update(model)
          .update(Buffer.from(samples.buffer, samples.byteOffset, samples.byteLength))
          .digest('hex')
        const known = await options.memory?.get(key)
        const mine = voiced
          .filter((v) => v.to > piece.from && v.from < piece.to)
          .map((v) => ({ from: v.from - piece.from, to: v.to - piece.from }))
        const words =
          known ??
          within(
            inPlace(await listen(samples, folder, i, acoustic, flags, abandon.signal), mine),
            piece.to - piece.from,
          )
        if (!known) await options.memory?.put(key, words)
        heard[i] = words.map((w) => ({ ...w, start: w.start + piece.from, end: w.end + piece.from }))
        done += piece.to - piece.from
        options.onShare?.(total > 0 ? done / total : 1)
      }
    }
    await Promise.all(Array.from({ length: Math.min(recognition.together, pieces.length) }, worker)).catch(
      (error: unknown) => {
        // One that fails ends the others: nobody waits for what will be thrown away.
        stop()
        throw error
      },
    )
    return { words: heard.flat(), unpronounced }
  }
  return inFolder('hear', inside).finally(() => options.signal?.removeEventListener('abort', stop))
}

/** The samples of a piece at a level the recogniser likes, with a hiss under it, before and after. */
async function loudened(wav: string, span: WavSpan, piece: Piece, gain: number): Promise<Int16Array> {
  const samples = await readSamples(wav, span, piece.from * span.rate, piece.to * span.rate)
  const [head, tail] = [Math.round(recognition.head * span.rate), Math.round(recognition.tail * span.rate)]
  const out = new Int16Array(head + samples.length + tail)
  // The same hiss each time, so that what was heard can be kept.
  for (let i = 0, x = 12_345; i < out.length; i++) {
    x = (Math.imul(x, 1_103_515_245) + 12_345) & 0x7fffffff
    out[i] = ((x >> 8) % (2 * recognition.hiss + 1)) - recognition.hiss
  }
  for (let i = 0; i < samples.length; i++)
    out[head + i] = Math.max(-32_768, Math.min(32_767, Math.round(samples[i]! * gain) + out[head + i]!))
  return out
}

/** One word and nothing else to be heard: enough to learn how a voice and its room sound, at a fraction of the work. */
const [warmWords, warmModel] = [
  'one W AH N\n',
  '\n\\data\\\nngram 1=3\n\n\\1-grams:\n-0.5 </s>\n-99 <s>\n-0.5 one\n\n\\end\\\n',
]
/** The mean spectrum (cepstral mean, comma-separated) the recogniser comes to after hearing these samples; null where it reports none. */
async function meanOf(
  samples: Int16Array,
  folder: string,
  flags: readonly string[],
  signal: AbortSignal,
): Promise<string | null> {
  const [wav, log] = [path.join(folder, 'warm.wav'), path.join(folder, 'warm.log')]
  await fs.writeFile(path.join(folder, 'warm.dict'), warmWords)
  await fs.writeFile(path.join(folder, 'warm.lm'), warmModel)
  await fs.writeFile(wav, wavOf(samples, recognition.rate))
  await recogniser(
    (await theModel()).acoustic,
    [
      '-infile',
      wav,
      '-lm',
      path.join(folder, 'warm.lm'),
      '-dict',
      path.join(folder, 'warm.dict'),
      ...flags,
      '-logfn',
      log,
    ],
    signal,
  )
  const last = [...(await fs.readFile(log, 'utf8')).matchAll(/Update to\s+<([-\d.\s]+)>/g)].at(-1)?.[1]
  return last ? last.trim().split(/\s+/).join(',') : null
}

/**
 * The acoustic model with another mean to begin from, so that the first words of each piece are heard as well as later
 * ones. The model's own parameters outrank the command line, hence a folder of links with one file changed.
 */
async function withMean(mean: string, acoustic: string, folder: string): Promise<string> {
  const out = path.join(folder, 'acoustic')
  await fs.mkdir(out)
  for (const name of await fs.readdir(acoustic))
    if (name !== 'feat.params') await fs.symlink(path.join(acoustic, name), path.join(out, name))
  const own = await fs.readFile(path.join(acoustic, 'feat.params'), 'utf8')
  await fs.writeFile(
    path.join(out, 'feat.params'),
    `${own.replace(/^-cmninit.*$/m, '').trimEnd()}\n-cmninit ${mean}\n`,
  )
  return out
}

/** Runs the program. @throws NoRecogniser where it is not installed. */
async function recogniser(
  acoustic: string,
  args: readonly string[],
  signal: AbortSignal,
  onLine?: (line: string) => void,
): Promise<void> {
  try {
    await run(recognition.program, ['-hmm', acoustic, ...args], {
      signal,
      limit: 3600_000,
      ...(onLine ? { onLine } : {}),
    })
  } catch (error) {
    if ((error as NodeJS.ErrnoException).code === 'ENOENT') throw new NoRecogniser()
    throw error
  }
}

/** Without what was heard in the hiss after the end. */
const within = (words: readonly HeardWord[], end: number): HeardWord[] =>
  words.flatMap((w) => (w.start >= end ? [] : [{ ...w, end: Math.min(end, w.end) }]))

/** What is heard in samples, an utterance at a time; times are seconds after the hiss that goes before. */
async function listen(
  samples: Int16Array,
  folder: string,
  i: number,
  acoustic: string,
  flags: readonly string[],
  signal: AbortSignal,
): Promise<HeardWord[][]> {
  const file = path.join(folder, `${i}.wav`)
  await fs.writeFile(file, wavOf(samples, recognition.rate))
  const utterances: HeardWord[][] = [[]]
  try {
    await recogniser(
      acoustic,
      [
        '-infile',
        file,
        '-lm',
        path.join(folder, 'model.lm'),
        '-dict',
        path.join(folder, 'words.dict'),
        '-time',
        'yes',
        ...flags,
        '-logfn',
        '/dev/null',
      ],
      signal,
      (line) => {
        const m = line.match(/^(\S+) ([\d.]+) ([\d.]+) ([\d.]+)$/)
        if (m?.[1] === '<s>') utterances.push([])
        if (!m || /^[<[+]/.test(m[1]!)) return
        const [start, to] = [Number(m[2]) - recognition.head, Number(m[3]) - recognition.head]
        // What is heard in the hiss before was never said.
        if (to <= 0) return
        utterances.at(-1)!.push({
          word: m[1]!.replace(/\(\d+\)$/, ''),
          start: Math.max(0, start),
          end: to,
          confidence: Math.min(1, Number(m[4])),
        })
      },
    )
  } finally {
    await fs.rm(file, { force: true })
  }
  return utterances
}
