import type { HouseStyle } from '@awlbox/core/contracts/house-style'
import type { Idea } from '@awlbox/core/contracts/idea'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { exampleTable } from '@awlbox/core/plan/example-table'
import { exampleSentence } from '@awlbox/core/plan/numbers/facts'
import { cautionsFor, swapsFor } from '@awlbox/core/plan/things'
import { proofread } from '@awlbox/core/script/proof/proof'
import { pauseWords } from '@awlbox/core/script/reading'
import { a4, drawnHeight, drawOn, openPdf, printable } from './page.ts'
import { clockTime } from '@awlbox/core/words'

const shortened = (text: string): string => (text.length > 90 ? `${text.slice(0, 88).trimEnd()} …` : text)

/** The lesson on one page: aim, words, examples drawn, segments with times, things and swaps, what comes back, cautions. */
export async function onePage(lesson: Lesson, style: HouseStyle, idea: Idea | undefined): Promise<Buffer> {
  const { pdf, done } = openPdf(`Lesson plan: ${lesson.title}`)
  const p = proofread(lesson, style)
  const w = a4.width - 2 * a4.margin
  const x = a4.margin
  let y = a4.margin
  const floor = a4.height - a4.margin
  /** What no longer fits is not begun: the page stays one page. */
  const line = (
    text: string,
    size = 9.5,
    face: 'text' | 'bold' = 'text',
    colour = '#14232B',
    at = x,
    width = w,
  ): boolean => {
    pdf.font(face).fontSize(size)
    const tall = pdf.heightOfString(printable(text), { width })
    if (y + tall > floor) return false
    pdf.fillColor(colour).text(printable(text), at, y, { width })
    y += tall + 1.5
    return true
  }
  const heading = (text: string) => {
    y += 7
    line(text, 11.5, 'bold', '#235F45')
  }
  line(lesson.title, 18, 'bold')
  line(
    `Age ${lesson.age} · ${idea?.name ?? lesson.ideaId}${idea?.codes.length ? ` (${idea.codes.join(', ')})` : ''} · film ${clockTime(p.time.film)} of ${clockTime(p.time.filmLimit)} · home ${clockTime(p.time.home)} · children doing ${Math.round(p.time.doing * 100)} %`,
    9.5,
    'text',
    '#55636B',
  )
  if (idea?.evidence) line(`Seen when: ${idea.evidence}`)
  if (lesson.words.length)
    line(
      `New words: ${lesson.words.map((k) => `${k.word}${k.gesture ? ` (${k.gesture.replace(/[.]$/, '')})` : ''}`).join('; ')}`,
    )
  if (lesson.examples.length) {
    heading('Examples')
    const shown = lesson.examples.slice(0, 6)
    const each = Math.min(120, (w - (shown.length - 1) * 8) / shown.length)
    shown.forEach((e, i) => {
      drawOn(pdf, exampleTable(e, lesson.aim.structure), {
        x: x + i * (each + 8),
        y,
        width: each,
        fill: style.frameFill,
      })
      pdf
        .font('bold')
        .fontSize(10)
        .fillColor('#14232B')
        .text(printable(exampleSentence(e)), x + i * (each + 8), y + drawnHeight(each) + 1, {
          width: each,
          align: 'center',
          lineBreak: false,
          ellipsis: true,
        })
    })
    y += drawnHeight(each) + 16
  }
  heading('Segments')
  let left = lesson.segments.length
  for (const [i, s] of lesson.segments.entries()) {
    const t = p.time.segments[i]!
    const what = s.steps.find((k) => k.verb === 'ask' || k.verb === 'pause') ?? s.steps[0]
    if (y > floor - 150) break
    line(
      `${clockTime(t.start)}  ${s.title} (${s.kind}) · ${clockTime(t.film)}${t.home > 0 ? ` + ${clockTime(t.home)} at home` : ''}${what ? ` — ${shortened(pauseWords(what.text))}` : ''}`,
    )
    left--
  }
  if (left > 0)
    line(
      `and ${left} more ${left === 1 ? 'segment' : 'segments'}, to the end at ${clockTime(p.time.film)}`,
      9.5,
      'text',
      '#55636B',
    )
  heading('Each home needs')
  line(
    lesson.kit
      .map((k) => {
        const [swap] = swapsFor(k.thing, p.needs.find((n) => n.thing === k.thing)?.uses)
        return `${k.count} ${k.thing}${swap ? ` (or ${swap.name})` : ''}`
      })
      .join('; ') || 'Nothing.',
  )
  heading('What comes back')
  const tasks = lesson.segments.flatMap((s) => s.steps).filter((s) => s.task)
  line(tasks.map((s) => s.text).join(' · ') || 'Nothing is asked for yet.')
  heading('Cautions')
  for (const c of [
    ...cautionsFor(lesson.kit),
    'Follow your setting’s own policies and local rules: they come before this list.',
  ])
    line(c)
  pdf.end()
  return done
}
