/** A sentence's own tiles, in order. */
export const sentenceParts = (sentence: string): string[] =>
  (sentence.match(/\d+|[+−–=-]/g) ?? []).map((t) => (/[−–-]/.test(t) ? '−' : t))
/** Where among its tiles the hidden number stands. */
export const hiddenPlace = (sentence: string, hidden: number): number =>
  sentenceParts(sentence).flatMap((p, i) => (/^\d+$/.test(p) ? [i] : []))[hidden] ?? 0
