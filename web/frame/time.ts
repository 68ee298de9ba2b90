export const minutesText = (min: number): string =>
  min < 60 ? `${min} min` : `${Math.floor(min / 60)} h ${String(min % 60).padStart(2, '0')}`
export const megabytes = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.max(1, Math.round(bytes / 1000))} kB`
    : `${(bytes / 1e6).toFixed(bytes < 1e7 ? 1 : 0)} MB`
export const dayName = (iso: string, now = new Date()): string => {
  const d = new Date(`${iso}T12:00:00`)
  const away = Math.round((d.getTime() - now.getTime()) / 86_400_000)
  return Math.abs(away) < 6
    ? d.toLocaleDateString('en-GB', { weekday: 'short' })
    : d.toLocaleDateString('en-GB', { day: 'numeric', month: 'short' })
}
/** Seconds left, as one would say it. */
export const timeLeft = (seconds: number): string =>
  seconds > 90
    ? `about ${Math.round(seconds / 60)} min left`
    : `about ${Math.max(1, Math.round(seconds))} s left`
/** A day with its year; a date alone is that day wherever one is. */
export const longDay = (iso: string): string =>
  new Date(iso.length === 10 ? `${iso}T12:00:00` : iso).toLocaleDateString('en-GB', {
    day: 'numeric',
    month: 'short',
    year: 'numeric',
  })
/** A moment of these weeks: weekday, day and time. */
export const moment = (iso: string): string =>
  new Date(iso).toLocaleString('en-GB', {
    weekday: 'short',
    day: 'numeric',
    month: 'short',
    hour: '2-digit',
    minute: '2-digit',
  })
/** A time of day, as clocks show it. */
export const timeOfDay = (at: number | string): string =>
  new Date(at).toLocaleTimeString('en-GB', { hour: '2-digit', minute: '2-digit' })
