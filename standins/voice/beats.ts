import type { StandInRoom, StandInVoice } from '@awlbox/core/contracts/stand-in'
import type { TableState } from '@awlbox/core/script/table/state'
import type { Beat } from '../camera/takes.ts'
import type { Label } from '../camera/slips.ts'
import { clap, inRoom } from './room.ts'
import { speak, speechRate } from './speak.ts'

export interface Sounded {
  samples: Int16Array
  /** The table shown, each with how many samples long. */
  shots: { table: TableState; samples: number }[]
  /** Where each slip is, in seconds. */
  labels: (Label & { from: number; to: number })[]
}

/** The sound of planned beats in the voice and room asked for, with the table shown meanwhile and the time of every slip. */
export async function soundOf(
  beats: readonly Beat[],
  voice: StandInVoice,
  options: { slowness?: number; room?: StandInRoom; seed?: number } = {},
): Promise<Sounded> {
  const spoken = new Map<string, Promise<Int16Array>>()
  const voiced = (words: string) =>
    spoken.get(words) ?? (spoken.set(words, speak(words, voice, options.slowness)), spoken.get(words)!)
  const silence = (seconds: number) => new Int16Array(Math.max(0, Math.round(seconds * speechRate)))
  const parts: Int16Array[] = []
  const shots: Sounded['shots'] = []
  const labels: Sounded['labels'] = []
  let [at, lastSound] = [0, 0]
  for (const b of beats) {
    const from = at / speechRate
    const own =
      b.kind === 'silence'
        ? [silence(b.seconds)]
        : b.kind === 'say'
          ? [await voiced(b.words), silence(b.gap)]
          : Array.from({ length: b.count }, (_, i) => [clap(i), silence(0.42)]).flat()
    const length = own.reduce((s, p) => s + p.length, 0)
    const to = (at + (b.kind === 'say' ? own[0]!.length : length)) / speechRate
    for (const label of b.labels) {
      // Silence begins where the last sound ended, not after the usual breath.
      const until = label.where === 'before' && b.kind !== 'silence' ? from : to
      labels.push({
        ...label,
        from: label.where === 'before' || b.kind === 'silence' ? lastSound : from,
        to: until,
      })
    }
    if (b.kind !== 'silence') lastSound = to
    parts.push(...own)
    shots.push({ table: b.table, samples: length })
    at += length
  }
  return { samples: inRoom(joined(parts), options.room ?? 'studio', options.seed ?? 1), shots, labels }
}

function joined(parts: readonly Int16Array[]): Int16Array {
  const all = new Int16Array(parts.reduce((s, p) => s + p.length, 0))
  let at = 0
  for (const p of parts) {
    all.set(p, at)
    at += p.length
  }
  return all
}
