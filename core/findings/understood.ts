import type { SoundAdvice, Understanding } from '../contracts/heard.ts'

/** What makes a sound be heard better, in words. */
const advised: Record<SoundAdvice, string> = {
  'cut off': 'It is too loud and cut off at the top: move the microphone further away, or turn it down.',
  telephone: 'It sounds like a telephone: use the microphone itself, not a call or a headset over the air.',
  quiet: 'It is very quiet: bring the microphone closer, a hand’s breadth to half a metre.',
  'second voice':
    'Somebody else can be heard: what they say is not held against the script, and what is found beside it is not certain. Film without them, or closer to the microphone.',
  noise: 'The room is nearly as loud as the voice: shut the window, switch off the fan or hood, come closer.',
}
/** What is said of a recording that was not understood, or only in part: how much, that nothing follows from it, and what to do. */
export function sayUnderstood(u: Understanding): string[] {
  const beside = u.advice.filter((a) => a === 'second voice').map((a) => advised[a])
  if (u.how === 'understood') return beside
  const share = Math.round(u.share * 100)
  return [
    u.how === 'partly'
      ? `Only partly understood (about ${share} %): what was not understood may hold slips. Listen to it.`
      : `Not understood (about ${share} %): nothing can be said of it. Listen to it, or film it again.`,
    ...u.advice.map((a) => advised[a]),
  ]
}
