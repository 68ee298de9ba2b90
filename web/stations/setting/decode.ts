/** What a file of text says, whatever program wrote it. */
export interface Decoded {
  text: string
  /** How it was read, for a person; null where nothing was unusual. */
  as: string | null
}
/**
 * Bytes of a table as text: UTF-8 and UTF-16 by their marks, UTF-8 where it is one, else the older letters of Western
 * spreadsheets (Windows-1252). A byte-order mark is no part of the text.
 */
export function decodeText(bytes: Uint8Array): Decoded {
  const [a, b] = bytes
  if (a === 0xff && b === 0xfe)
    return { text: new TextDecoder('utf-16le').decode(bytes.subarray(2)), as: 'UTF-16' }
  if (a === 0xfe && b === 0xff)
    return { text: new TextDecoder('utf-16be').decode(bytes.subarray(2)), as: 'UTF-16' }
  try {
    return { text: new TextDecoder('utf-8', { fatal: true }).decode(bytes), as: null }
  } catch {
    return { text: new TextDecoder('windows-1252').decode(bytes), as: 'an older set of letters (Windows)' }
  }
}
