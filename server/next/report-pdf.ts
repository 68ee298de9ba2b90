import PDFDocument from 'pdfkit'
import type { ReportPart } from '@awlbox/core/next/report'
import { writeLines, withFaces } from '../lessons/pdf/words-in-lines.ts'

const mm = 72 / 25.4
const [width, height, margin] = [210 * mm, 297 * mm, 22 * mm]

/** A child's report for a meeting: plain words on A4, page after page. */
export async function reportPdf(
  head: { child: string; setting: string; day: string },
  parts: readonly ReportPart[],
): Promise<Buffer> {
  const pdf = new PDFDocument({
    size: [width, height],
    margin: 0,
    info: { Title: `${head.child}: how it is going`, Producer: 'Awlbox', Creator: 'Awlbox' },
  })
  withFaces(pdf)
  const pieces: Buffer[] = []
  const done = new Promise<Buffer>((resolve, reject) => {
    pdf.on('data', (b: Buffer) => pieces.push(b))
    pdf.on('end', () => resolve(Buffer.concat(pieces)))
    pdf.on('error', reject)
  })
  let y = margin
  const write = (text: string, size: number, weight: 400 | 700, after: number): void => {
    if (y > height - margin - 3 * size) {
      pdf.addPage({ size: [width, height], margin: 0 })
      y = margin
    }
    y =
      writeLines(pdf, text, { x: margin, y, width: width - 2 * margin, size, weight, rightToLeft: false }) +
      after
  }
  write(`${head.child}: how it is going`, 22, 700, 4)
  write(`${head.setting}, ${head.day}`, 12, 400, 18)
  for (const p of parts) {
    write(p.title, 15, 700, 4)
    for (const l of p.lines) write(`–  ${l}`, 12, 400, 3)
    y += 12
  }
  write(
    'From what was sent from home and seen by the teachers. It is for this child’s grown-ups alone and compares with nobody.',
    10,
    400,
    0,
  )
  pdf.end()
  return done
}
