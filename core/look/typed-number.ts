import { parseNumber } from '../plan/numbers/names.ts'
import { parseOtherNumber } from '../plan/numbers/other-names.ts'

/**
 * Reads a number as a home may write it: "7", " 7 ", "seven", "７", "٧", "siete", "siedem", "سبعة", "7 parcels". Minus signs, powers,
 * emoji and numbers over 1000 are no counting numbers: null, with the reason in `readAnswer`.
 */
export function readTypedNumber(text: string): number | null {
  const plain = [...text.normalize('NFKC')]
    .map((c) => (/\p{Nd}/u.test(c) ? String(digitValue(c)) : c))
    .join('')
    .trim()
    .toLowerCase()
  if (!plain) return null
  if (/^\d{1,4}$/.test(plain)) return Number(plain) <= 1000 ? Number(plain) : null
  const word = parseNumber(plain) ?? parseOtherNumber(plain)
  if (word !== null && !/\d/.test(plain)) return word
  const withUnit = plain.match(/^(\d{1,3})\s+[\p{L} ]{2,30}$/u)
  return withUnit ? Number(withUnit[1]) : null
}
/** Unicode's decimal digits lie in runs of ten that start at their zero. */
function digitValue(c: string): number {
  const code = c.codePointAt(0)!
  let zero = code
  while (zero > code - 10 && /\p{Nd}/u.test(String.fromCodePoint(zero - 1)) && code - (zero - 1) < 10) zero--
  // Runs can touch (mathematical digits): their starts are at multiples the run itself fixes.
  return code >= 0x1d7ce && code <= 0x1d7ff ? (code - 0x1d7ce) % 10 : code - zero
}
