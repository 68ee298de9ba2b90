import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { writeLines, withFaces } from '../lessons/pdf/words-in-lines.ts'

/** What a home's letter says, in its language. */
export interface HomeLetter {
  rightToLeft: boolean
  title: string
  home: string
  paragraphs: string[]
  keep: string
  /** The whole address. */
  link: string
}
const mm = 72 / 25.4
const sizes = { A4: [210 * mm, 297 * mm], Letter: [215.9 * mm, 279.4 * mm] } as const
const [margin, square] = [22 * mm, 48 * mm]

/** A letter for each home, a page each, as one PDF. */
export async function homeLettersPdf(
  letters: readonly HomeLetter[],
  paper: keyof typeof sizes,
): Promise<Buffer> {
  const size = [...sizes[paper]]
  const pdf = new PDFDocument({
    autoFirstPage: false,
    info: { Title: 'Letters for homes', Producer: 'Awlbox', Creator: 'Awlbox' },
  })
  withFaces(pdf)
  const parts: Buffer[] = []
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (b: Buffer) => parts.push(b))
    pdf.on('end', () => resolve(Buffer.concat(parts)))
    pdf.on('error', reject)
  })
  for (const l of letters) {
    pdf.addPage({ size, margin: 0 })
    const width = size[0]! - 2 * margin
    const write = (text: string, y: number, points: number, weight: 400 | 700): number =>
      writeLines(pdf, text, { x: margin, y, width, size: points, weight, rightToLeft: l.rightToLeft })
    let y = write(l.title, margin, 22, 700) + 6
    y = write(l.home, y, 14, 400) + 14
    const code = QRCode.create(l.link, { errorCorrectionLevel: 'M' })
    drawCode(pdf, code.modules, (size[0]! - square) / 2, y)
    y += square + 14
    // The address as it is typed, whatever the language around it.
    y = writeLines(pdf, l.link, { x: margin, y, width, size: 11, weight: 700, rightToLeft: false }) + 12
    for (const p of l.paragraphs) y = write(p, y, 12.5, 400) + 8
    write(l.keep, y + 6, 11, 400)
  }
  pdf.end()
  return done
}
function drawCode(
  pdf: PDFKit.PDFDocument,
  modules: { size: number; data: Uint8Array },
  x: number,
  y: number,
): void {
  const cell = square / modules.size
  pdf.fillColor('#000')
  for (let i = 0; i < modules.size * modules.size; i++)
    if (modules.data[i])
      // A hair wider than it is, so that no line shows between two.
      pdf
        .rect(
          x + (i % modules.size) * cell,
          y + Math.floor(i / modules.size) * cell,
          cell * 1.02,
          cell * 1.02,
        )
        .fill()
}
