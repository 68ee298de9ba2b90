import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import { createRequire } from 'node:module'
import PDFDocument from 'pdfkit'
import { type Shape, tableHeight, tableWidth } from '@awlbox/core/script/table/drawing/paper'
import { drawTable } from '@awlbox/core/script/table/drawing/table'
import type { TableState } from '@awlbox/core/script/table/state'

const require = createRequire(import.meta.url)
/** The shipped reading face as a file. */
export const fontFile = (weight: number): string =>
  require.resolve(`@fontsource/andika/files/andika-latin-${weight}-normal.woff`)

export type Page = PDFKit.PDFDocument
/** Sizes in points: A4 with margins of 15 mm. */
export const a4 = { width: 595.28, height: 841.89, margin: 42.5 } as const

/** Starts a document in the house's reading face; `done` gives its bytes once `end` was called. */
export function openPdf(
  title: string,
  layout: 'portrait' | 'landscape' = 'portrait',
): { pdf: Page; done: Promise<Buffer> } {
  const pdf = new PDFDocument({
    size: 'A4',
    layout,
    margin: a4.margin,
    info: { Title: title, Producer: 'Awlbox', Creator: 'Awlbox' },
    lang: 'en-GB',
    displayTitle: true,
  })
  pdf.registerFont('text', fontFile(400))
  pdf.registerFont('bold', fontFile(700))
  pdf.font('text')
  const parts: Buffer[] = []
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (b: Buffer) => parts.push(b))
    pdf.on('end', () => resolve(Buffer.concat(parts)))
    pdf.on('error', reject)
  })
  return { pdf, done }
}

/** Letters the shipped face has; others would print as boxes. */
export const printable = (text: string): string =>
  text.replace(/[^\u0020-\u024f\u2010-\u2026\u2030-\u203a\u20ac\u2212\u00d7\u00f7]/gu, '?')

/** The table's drawing at a place and width, as vectors. */
/** Where and how large a table is drawn on a page, in points, and how its ten frames are filled. */
interface Drawn {
  x: number
  y: number
  width: number
  fill: HouseStyle['frameFill']
}
export function drawOn(pdf: Page, table: TableState, { x, y, width, fill }: Drawn): void {
  pdf
    .save()
    .translate(x, y)
    .scale(width / tableWidth)
  for (const s of drawTable(table, fill)) shape(pdf, s)
  pdf.restore()
}
export const drawnHeight = (width: number): number => (width * tableHeight) / tableWidth

const num = (s: Shape, key: string, other = 0): number =>
  s.attrs[key] === undefined ? other : Number(s.attrs[key])

function shape(pdf: Page, s: Shape): void {
  pdf.save()
  for (const [, what, args] of String(s.attrs.transform ?? '').matchAll(
    /(translate|scale|rotate)\(([^)]*)\)/g,
  )) {
    const [a = 0, b, c] = args!.split(/[ ,]+/).map(Number)
    if (what === 'translate') pdf.translate(a, b ?? 0)
    else if (what === 'scale') pdf.scale(a, b ?? a)
    else pdf.rotate(a, { origin: [b ?? 0, c ?? 0] })
  }
  if (s.attrs.opacity !== undefined) pdf.opacity(num(s, 'opacity', 1))
  if (s.tag === 'g') for (const child of s.children ?? []) shape(pdf, child)
  else if (s.tag === 'text') text(pdf, s)
  else {
    outline(pdf, s)
    paint(pdf, s)
  }
  pdf.restore()
}
function outline(pdf: Page, s: Shape): void {
  switch (s.tag) {
    case 'rect':
      pdf.roundedRect(
        num(s, 'x'),
        num(s, 'y'),
        num(s, 'width'),
        num(s, 'height'),
        Math.min(num(s, 'rx'), num(s, 'width') / 2, num(s, 'height') / 2),
      )
      break
    case 'circle':
      pdf.circle(num(s, 'cx'), num(s, 'cy'), num(s, 'r'))
      break
    case 'ellipse':
      pdf.ellipse(num(s, 'cx'), num(s, 'cy'), num(s, 'rx'), num(s, 'ry'))
      break
    case 'line':
      pdf.moveTo(num(s, 'x1'), num(s, 'y1')).lineTo(num(s, 'x2'), num(s, 'y2'))
      break
    case 'path':
      pdf.path(String(s.attrs.d))
      break
  }
}
function paint(pdf: Page, s: Shape): void {
  const [fill, stroke] = [
    String(s.attrs.fill ?? (s.tag === 'line' ? 'none' : '#000000')),
    String(s.attrs.stroke ?? 'none'),
  ]
  pdf.lineWidth(num(s, 'stroke-width', 1)).lineCap(s.attrs['stroke-linecap'] === 'round' ? 'round' : 'butt')
  const dash = String(s.attrs['stroke-dasharray'] ?? '')
    .split(' ')
    .map(Number)
    .filter((n) => n > 0)
  if (dash.length) pdf.dash(dash[0]!, { space: dash[1] ?? dash[0]! })
  if (fill !== 'none' && stroke !== 'none') pdf.fillAndStroke(fill, stroke)
  else if (fill !== 'none') pdf.fill(fill)
  else if (stroke !== 'none') pdf.stroke(stroke)
}
function text(pdf: Page, s: Shape): void {
  const size = num(s, 'font-size', 16)
  const words = printable(s.text ?? '')
  pdf
    .font('text')
    .fontSize(size)
    .fillColor(String(s.attrs.fill ?? '#000000'))
  const w = pdf.widthOfString(words)
  pdf.text(
    words,
    num(s, 'x') - (s.attrs['text-anchor'] === 'middle' ? w / 2 : 0),
    num(s, 'y') - size * 0.98,
    { lineBreak: false },
  )
}
