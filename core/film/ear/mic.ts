import { voicedIn } from './voiced.ts'

/** How a microphone's sound came in. Levels in decibels against full strength. */
export interface Captured {
  /** Of the speech; null when there was none. */
  speech: number | null
  /** Of what is there between words. */
  noise: number
  advice: string
  good: boolean
}
const decibels = (level: number): number => 20 * Math.log10(Math.max(1e-5, level))
const middle = (xs: readonly number[]): number =>
  [...xs].sort((a, b) => a - b)[Math.floor(xs.length / 2)] ?? 0

/** Speech this far above the noise is heard well; under the second hardly at all. Decibels. */
const [clear, least] = [18, 10]
/** Judges the sound of a short test by its loudness (`levelsPerSecond` values a second): too quiet, too loud, too noisy. */
export function captured(levels: ArrayLike<number>): Captured {
  const all = Array.from(levels)
  const spoken = voicedIn(levels).filter((v) => v.to - v.from > 0.25)
  const inSpeech = all.filter((_, k) => spoken.some((v) => k / 100 >= v.from && k / 100 < v.to))
  const between = all.filter((_, k) => !spoken.some((v) => k / 100 >= v.from - 0.1 && k / 100 < v.to + 0.1))
  const noise = decibels(middle(between.length ? between : all))
  const loudest = inSpeech.reduce((m, x) => Math.max(m, x), 0)
  const speech =
    inSpeech.length && loudest > 0.002 ? decibels(middle(inSpeech.filter((x) => x > loudest / 8))) : null
  const say = (good: boolean, advice: string): Captured => ({ speech, noise, advice, good })
  if (speech === null)
    return say(false, 'Nothing was heard. Is it the right microphone, and is it switched on?')
  if (loudest > 0.6)
    return say(false, 'It is too loud and breaks up. Move the microphone further away, or turn it down.')
  if (speech < -45)
    return say(false, 'It is very quiet. Bring the microphone closer: a hand’s breadth to half a metre.')
  if (speech - noise < least)
    return say(
      false,
      'The room is nearly as loud as you are. Shut the window, switch off the fan or hood, come closer.',
    )
  if (speech - noise < clear)
    return say(true, 'You can be heard, with some noise behind you. Closer is better.')
  return say(true, 'You are heard clearly.')
}
