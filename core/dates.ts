/**
 * The day somebody typed, as an ISO date; null where it is none. Day before month, as Awlbox writes it: 29/11/2026,
 * 29.11.26, 29 Nov 2026; and ISO dates as they are.
 */
export function readDay(text: string): string | null {
  const t = text.trim().toLowerCase()
  const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(t)
  if (iso) return dayOf(Number(iso[1]), Number(iso[2]), Number(iso[3]))
  const figures = /^(\d{1,2})[/. -](\d{1,2})[/. -](\d{4}|\d{2})$/.exec(t)
  if (figures) return dayOf(yearOf(figures[3]!), Number(figures[2]), Number(figures[1]))
  const words = /^(?:[a-z]{2,9},? )?(\d{1,2})(?:st|nd|rd|th)? ([a-z]{3,9})\.?,? (\d{4}|\d{2})$/.exec(t)
  const month = words ? months.findIndex((m) => m.startsWith(words[2]!.slice(0, 3))) + 1 : 0
  return words && month ? dayOf(yearOf(words[3]!), month, Number(words[1])) : null
}
const months = [
  'january',
  'february',
  'march',
  'april',
  'may',
  'june',
  'july',
  'august',
  'september',
  'october',
  'november',
  'december',
]
const yearOf = (text: string): number => (text.length === 2 ? 2000 + Number(text) : Number(text))
/** A day of the calendar; null where there is none such, as on 31 June. */
function dayOf(year: number, month: number, day: number): string | null {
  const at = new Date(Date.UTC(year, month - 1, day))
  const real = at.getUTCFullYear() === year && at.getUTCMonth() === month - 1 && at.getUTCDate() === day
  return real ? at.toISOString().slice(0, 10) : null
}
/** An ISO date as it is written in a field: 29/11/2026. */
export const writeDay = (iso: string): string => iso.split('-').reverse().join('/')
