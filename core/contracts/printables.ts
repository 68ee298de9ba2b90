/** Sheets that are printed in true size. */
export const printableKinds = [
  'ten-frame',
  'part-whole',
  'number-line',
  'hundred-square',
  'number-cards',
  'word-cards',
  'dot-cards',
  'dice-net',
  'spinner',
  'plates',
  'ways-sheet',
  'sums-sheet',
] as const
export type PrintableKind = (typeof printableKinds)[number]
