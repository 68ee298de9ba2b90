import type { HeardWord, Hearing } from '@awlbox/core/contracts/heard'
import { agreed, countsIn, doubtful, withSecond } from '@awlbox/core/film/judge/second-ear'
import type { SpokenLine } from '@awlbox/core/film/follow/spoken'
import { type Listening, recognise } from '../platform/media/recogniser.ts'

/**
 * Recognises a WAV, judges it, listens a second way to every stretch in which something was found, and keeps as
 * certain only what both hearings find. `judge` turns words into a hearing.
 */
export async function hearTwice(
  wav: string,
  lines: readonly SpokenLine[],
  duration: number,
  judge: (words: readonly HeardWord[], unpronounced: readonly string[]) => Hearing,
  given: Listening = {},
): Promise<Hearing> {
  const options = { ...given, means: new Map<string, string | null>() }
  const share = options.onShare
  const { words, unpronounced } = await recognise(wav, lines, {
    ...options,
    ...(share ? { onShare: (x) => share(x * 0.85) } : {}),
  })
  // Counts are listened to once more by themselves, with next to nothing but numbers to be heard.
  const counts = countsIn(judge(words, unpronounced), lines)
  const counted = counts.length
    ? await recognise(
        wav,
        lines.filter((l) => l.numbers),
        { ...options, only: counts, onShare: () => undefined },
      )
    : null
  const closer = counted ? withSecond(words, counted.words, counts) : words
  const first = judge(closer, unpronounced)
  const stretches = doubtful(first, duration)
  if (!stretches.length) return first
  const again = await recognise(wav, lines, {
    ...options,
    only: stretches,
    second: true,
    ...(share ? { onShare: (x) => share(0.85 + x * 0.15) } : {}),
  })
  return agreed(first, judge(withSecond(closer, again.words, stretches), unpronounced))
}
