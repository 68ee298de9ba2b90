/** A text with its first letter large; an empty text stays empty. */
export const capital = (text: string): string => text.charAt(0).toUpperCase() + text.slice(1)

/** Seconds as m:ss, rounded to the nearest second first, so that 59.7 s is 1:00. */
export const clockTime = (seconds: number): string => {
  const whole = Math.round(seconds)
  return `${Math.floor(whole / 60)}:${String(whole % 60).padStart(2, '0')}`
}
