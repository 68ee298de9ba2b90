import fs from 'node:fs/promises'
import os from 'node:os'
import path from 'node:path'
import type { HeardWord } from '@awlbox/core/contracts/heard'
import { arpaModel, vocabularyOf } from '@awlbox/core/film/language-model'
import { pronounce } from '@awlbox/core/film/pronounce'
import type { SpokenLine } from '@awlbox/core/film/spoken'
import { run } from './run.ts'

const model = '/usr/share/pocketsphinx/model/en-us'
let dictionary: Promise<Map<string, string[]>> | null = null

async function loadDictionary(): Promise<Map<string, string[]>> {
  const words = new Map<string, string[]>()
  for (const line of (await fs.readFile(path.join(model, 'cmudict-en-us.dict'), 'utf8')).split('\n')) {
    const m = line.match(/^(\S+?)(?:\(\d\))? (.*)$/)
    if (m) words.set(m[1]!, [...(words.get(m[1]!) ?? []), m[2]!])
  }
  return words
}

export interface Recognition {
  words: HeardWord[]
  /** Words with no pronunciation, left out of the model. */
  unpronounced: string[]
}

/**
 * Recognises a 16 kHz mono WAV with a language model made from the lines that may be said.
 * `onSecond` is told how far the recogniser has come, in seconds of sound.
 */
export async function recognise(wav: string, lines: readonly SpokenLine[], options: { signal?: AbortSignal; onSecond?: (s: number) => void } = {}): Promise<Recognition> {
  dictionary ??= loadDictionary()
  const dict = await dictionary
  const folder = await fs.mkdtemp(path.join(os.tmpdir(), 'awlbox-hear-'))
  try {
    const known = new Set<string>()
    const unpronounced: string[] = []
    const entries: string[] = []
    for (const word of vocabularyOf(lines)) {
      const spelled = pronounce(word, (w) => dict.get(w)?.[0])
      const phones = dict.get(word) ?? (spelled ? [spelled] : [])
      if (phones.length) known.add(word)
      else unpronounced.push(word)
      phones.forEach((p, i) => entries.push(i ? `${word}(${i + 1}) ${p}` : `${word} ${p}`))
    }
    const [dictFile, lmFile] = [path.join(folder, 'words.dict'), path.join(folder, 'model.lm')]
    await fs.writeFile(dictFile, `${entries.join('\n')}\n`)
    await fs.writeFile(lmFile, arpaModel(lines, known))
    const words: HeardWord[] = []
    await run('pocketsphinx_continuous', ['-infile', wav, '-hmm', path.join(model, 'en-us'), '-lm', lmFile, '-dict', dictFile, '-time', 'yes', '-vad_postspeech', '100', '-logfn', '/dev/null'], {
      ...(options.signal ? { signal: options.signal } : {}),
      limit: 3600_000,
      onLine: (line) => {
        const m = line.match(/^(\S+) ([\d.]+) ([\d.]+) ([\d.]+)$/)
        if (!m || /^[<[]/.test(m[1]!)) return
        words.push({ word: m[1]!.replace(/\(\d+\)$/, ''), start: Number(m[2]), end: Number(m[3]), confidence: Math.min(1, Number(m[4])) })
        options.onSecond?.(Number(m[3]))
      },
    })
    return { words, unpronounced }
  } finally {
    await fs.rm(folder, { recursive: true, force: true })
  }
}
