/**
 * Keeps what a pure reading of a text gave, so that a lesson recomputed at every key press reads only the line that
 * changed. Bounded: when `most` texts are held the oldest half goes.
 */
export function remembered<T>(read: (text: string) => T, most = 6000): (text: string) => T {
  const kept = new Map<string, T>()
  return (text) => {
    const known = kept.get(text)
    if (known !== undefined || kept.has(text)) return known as T
    if (kept.size >= most) for (const key of [...kept.keys()].slice(0, most / 2)) kept.delete(key)
    const value = read(text)
    kept.set(text, value)
    return value
  }
}
