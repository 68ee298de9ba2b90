import type { Mark, Sheet } from './paper.ts'

const escaped = (text: string): string =>
  text.replaceAll('&', '&amp;').replaceAll('<', '&lt;').replaceAll('>', '&gt;').replaceAll('"', '&quot;')
/** Height of this face's capitals as a share of its size. */
const capitals = 0.72
const dashes = (m: { dashed?: boolean }): string => (m.dashed ? ' stroke-dasharray="2 1.5"' : '')
function drawn(m: Mark): string {
  switch (m.kind) {
    case 'line':
      return `<line x1="${m.x1}" y1="${m.y1}" x2="${m.x2}" y2="${m.y2}" stroke-width="${m.width}"${dashes(m)}/>`
    case 'box':
      return `<rect x="${m.x}" y="${m.y}" width="${m.w}" height="${m.h}" ${m.filled ? 'fill="#000" stroke="none"' : `stroke-width="${m.width}"`}${dashes(m)}/>`
    case 'circle':
      return `<circle cx="${m.cx}" cy="${m.cy}" r="${m.r}" stroke-width="${m.width}"${m.filled ? ' fill="#000"' : ''}/>`
    case 'text':
      return `<text x="${m.x}" y="${m.y}" font-size="${(m.size / capitals).toFixed(2)}"${m.middle ? ' text-anchor="middle"' : ''}${m.bold ? ' font-weight="700"' : ''} fill="#000" stroke="none">${escaped(m.text)}</text>`
  }
}
/** A sheet in true size as an SVG: its units are millimetres. */
export const sheetSvg = (s: Sheet): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" width="${s.width}mm" height="${s.height}mm" viewBox="0 0 ${s.width} ${s.height}" fill="none" stroke="#000" font-family="Andika, sans-serif">${s.marks.map(drawn).join('')}</svg>\n`
