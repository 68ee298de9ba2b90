import type { TableState } from '@awlbox/core/script/table/state'
import type { Beat } from '../camera/takes.ts'
import { speak, speechRate, type Voice } from './speak.ts'

/** The sound of planned beats, each with the table shown meanwhile: words in the voice asked for, silence between them. */
export async function soundOf(beats: readonly Beat[], voice: Voice): Promise<{ table: TableState; parts: Int16Array[] }[]> {
  const spoken = new Map<string, Promise<Int16Array>>()
  const voiced = (words: string) => spoken.get(words) ?? (spoken.set(words, speak(words, voice)), spoken.get(words)!)
  const silence = (seconds: number) => new Int16Array(Math.max(0, Math.round(seconds * speechRate)))
  const out: { table: TableState; parts: Int16Array[] }[] = []
  for (const b of beats) {
    if (b.kind === 'silence') out.push({ table: b.table, parts: [silence(b.seconds)] })
    else if (b.kind === 'say') out.push({ table: b.table, parts: [await voiced(b.words), silence(b.gap)] })
    else for (const [i, w] of b.words.entries()) {
      const word = await voiced(w)
      out.push({ table: b.table, parts: [word, silence(i === b.words.length - 1 ? 0.5 : Math.max(0.12, b.seconds - word.length / speechRate))] })
    }
  }
  return out
}
