/** A readable file name from a title: letters of any script, digits and dashes; `otherwise` where nothing is left. */
export const fileName = (title: string, otherwise: string): string =>
  title
    .normalize('NFKC')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, '-')
    .replace(/^-+|-+$/g, '')
    .slice(0, 60) || otherwise
