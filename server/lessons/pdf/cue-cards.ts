import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { proofread } from '@awlbox/core/script/proof/proof'
import { a4, drawnHeight, drawOn, openPdf, printable } from './page.ts'
import { clockTime } from '@awlbox/core/words'

const cue: Record<string, string> = {
  say: '',
  ask: 'Ask',
  wait: 'Wait',
  do: 'Do',
  count: 'Count',
  write: 'Write',
  reveal: 'Tell',
  pause: 'Stop',
  sound: 'Sound',
}

/** One card a segment, two to a page, to stand beside the camera: its lines large, the table it ends on small. */
export async function cueCards(lesson: Lesson, style: HouseStyle): Promise<Buffer> {
  const { pdf, done } = openPdf(`Cue cards: ${lesson.title}`)
  const p = proofread(lesson, style)
  const [w, h] = [a4.width - 2 * a4.margin, (a4.height - 3 * a4.margin) / 2]
  let slot = 0
  const card = (title: string, note: string): { top: number; floor: number } => {
    if (slot > 0 && slot % 2 === 0) pdf.addPage()
    const top = a4.margin + (slot % 2) * (h + a4.margin)
    slot++
    pdf.lineWidth(0.8).roundedRect(a4.margin, top, w, h, 8).stroke('#55636B')
    pdf
      .font('bold')
      .fontSize(15)
      .fillColor('#14232B')
      .text(printable(title), a4.margin + 14, top + 10, { width: w - 130, lineBreak: false, ellipsis: true })
    pdf
      .font('text')
      .fontSize(10)
      .fillColor('#55636B')
      .text(note, a4.margin + w - 120, top + 14, { width: 106, align: 'right', lineBreak: false })
    return { top: top + 38, floor: top + h - 12 }
  }
  lesson.segments.forEach((s, i) => {
    const time = p.time.segments[i]!
    const note = `${i + 1} of ${lesson.segments.length} · ${clockTime(time.film)}`
    let { top, floor } = card(s.title || s.kind, note)
    const last = p.moments
      .filter(
        (m) =>
          m.segment === s &&
          m.after.mats.some((x) => x.regions.some((r) => r.things.length) || x.line?.hops.length),
      )
      .at(-1)
    const side = last ? 150 : 0
    if (last)
      drawOn(pdf, last.after, { x: a4.margin + w - side - 12, y: top, width: side, fill: style.frameFill })
    const drawnTo = top + drawnHeight(side)
    for (const step of s.steps) {
      const words = printable(`${cue[step.verb] ? `${cue[step.verb]}: ` : ''}${step.text}`)
      const width = (y: number) => w - 28 - (y < drawnTo ? side + 12 : 0)
      pdf.font(step.verb === 'say' ? 'text' : 'bold').fontSize(15)
      const tall = pdf.heightOfString(words, { width: width(top) })
      if (top + tall > floor) ({ top, floor } = card(`${s.title || s.kind}, further`, note))
      pdf
        .fillColor(step.verb === 'wait' || step.verb === 'pause' ? '#1F5F99' : '#14232B')
        .text(words, a4.margin + 14, top, { width: width(top) })
      top += tall + 4
    }
  })
  if (!lesson.segments.length) card(lesson.title, 'nothing written yet')
  pdf.end()
  return done
}
