import PDFDocument from 'pdfkit'
import type { Mark, Sheet } from '@awlbox/core/send/printables/paper'
import { fontFile, printable } from './page.ts'

/** Points a millimetre has. */
const mm = 72 / 25.4
/** Height of this face's capitals as a share of its size. */
const capitals = 0.72

/** Sheets in true size, as a PDF. */
export function printPdf(sheets: readonly Sheet[], title: string): Promise<Buffer> {
  const pdf = new PDFDocument({
    autoFirstPage: false,
    info: { Title: title, Producer: 'Awlbox', Creator: 'Awlbox' },
    lang: 'en-GB',
    displayTitle: true,
  })
  // Readers that ask may not shrink it to the page.
  const root = (pdf as unknown as { _root: { data: Record<string, unknown> } })._root.data
  root.ViewerPreferences = pdf.ref({ PrintScaling: 'None', DisplayDocTitle: true })
  ;(root.ViewerPreferences as { end: () => void }).end()
  pdf.registerFont('text', fontFile(400))
  pdf.registerFont('bold', fontFile(700))
  const parts: Buffer[] = []
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (b: Buffer) => parts.push(b))
    pdf.on('end', () => resolve(Buffer.concat(parts)))
    pdf.on('error', reject)
  })
  for (const s of sheets) {
    pdf.addPage({ size: [s.width * mm, s.height * mm], margin: 0 })
    for (const m of s.marks) draw(pdf, m)
  }
  pdf.end()
  return done
}

function draw(pdf: PDFKit.PDFDocument, m: Mark): void {
  if (m.kind === 'text') {
    const size = (m.size * mm) / capitals
    const text = printable(m.text)
    pdf
      .font(m.bold ? 'bold' : 'text')
      .fontSize(size)
      .fillColor('#000')
    const x = m.x * mm - (m.middle ? pdf.widthOfString(text) / 2 : 0)
    pdf.text(text, x, m.y * mm, { lineBreak: false, baseline: 'alphabetic' })
    return
  }
  pdf.lineWidth(m.width * mm).strokeColor('#000')
  if (m.kind !== 'circle' && m.dashed) pdf.dash(2 * mm, { space: 1.5 * mm })
  else pdf.undash()
  if (m.kind === 'line')
    pdf
      .moveTo(m.x1 * mm, m.y1 * mm)
      .lineTo(m.x2 * mm, m.y2 * mm)
      .stroke()
  else if (m.kind === 'box') {
    pdf.rect(m.x * mm, m.y * mm, m.w * mm, m.h * mm)
    if (m.filled) pdf.fill('#000')
    else pdf.stroke()
  } else {
    pdf.circle(m.cx * mm, m.cy * mm, m.r * mm)
    if (m.filled) pdf.fillAndStroke('#000', '#000')
    else pdf.stroke()
  }
}
