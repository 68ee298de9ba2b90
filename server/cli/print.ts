import fs from 'node:fs'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { type Paper, papers } from '@awlbox/core/paper/sizes'
import { printableKinds } from '@awlbox/core/contracts/printables'
import { isPrintable, printableSheets, printableWords } from '@awlbox/core/send/printables/sheets'
import { numbersOf } from '@awlbox/core/send/printables/of-lesson'
import type { Numbers } from '@awlbox/core/send/printables/cards'
import { sheetSvg } from '@awlbox/core/send/printables/svg'
import { printPdf } from '../lessons/pdf/print.ts'
import { BadInput, type Printed, readLesson } from './printed.ts'

/** `print KIND --out FILE.pdf` or `print LESSON KIND FILE.pdf`: a sheet in true size, from the lesson's own numbers where one is given. */
export async function print(args: string[]): Promise<Printed> {
  const flag = (name: string): string | undefined => {
    const at = args.findIndex((a) => a === `--${name}` || a.startsWith(`--${name}=`))
    if (at < 0) return undefined
    const [word] = args.splice(at, 1)
    return word!.includes('=') ? word!.slice(word!.indexOf('=') + 1) : args.splice(at, 1)[0]
  }
  const [outFlag, paperFlag, toFlag, partsFlag] = ['out', 'paper', 'to', 'parts'].map(flag)
  const [first, second, third] = args
  const withLesson = first !== undefined && !isPrintable(first) && second !== undefined
  const kind = withLesson ? second : first
  const out = outFlag ?? (withLesson ? third : second)
  if (!kind || !isPrintable(kind)) throw new BadInput(`say which sheet: ${printableKinds.join(', ')}.`)
  const ending = out?.toLowerCase().match(/\.(pdf|svg)$/)?.[1]
  if (!out || !ending) throw new BadInput('say where it goes, as in: --out frame.pdf, or frame.svg.')
  const paper = Object.keys(papers).find((p) => p.toLowerCase() === (paperFlag ?? 'A4').toLowerCase())
  if (!paper) throw new BadInput('papers are A4 and Letter.')
  const lesson: Lesson | null = withLesson ? (await readLesson(first)).lesson : null
  const own: Numbers = lesson ? numbersOf(lesson) : { upTo: 10, parts: 2 }
  const number = (text: string | undefined, usual: number): number => {
    if (text === undefined) return usual
    if (!/^\d{1,4}$/.test(text)) throw new BadInput(`${text} is no number here.`)
    return Number(text)
  }
  const numbers = { ...own, upTo: number(toFlag, own.upTo), parts: number(partsFlag, own.parts) }
  if (numbers.upTo < 1 || numbers.upTo > 1000) throw new BadInput('numbers go from 1 to 1000.')
  const sheets = printableSheets(kind, paper as Paper, numbers)
  if (ending === 'pdf') fs.writeFileSync(out, await printPdf(sheets, printableWords[kind]))
  // A picture holds one page: more of them are numbered.
  else
    sheets.forEach((s, i) =>
      fs.writeFileSync(sheets.length === 1 ? out : out.replace(/\.svg$/i, `-${i + 1}.svg`), sheetSvg(s)),
    )
  return {
    clean: true,
    text: `${printableWords[kind]}, ${sheets.length} ${sheets.length === 1 ? 'sheet' : 'sheets'} on ${paper}: ${out}. Print at 100 %.`,
    json: {
      version: 1,
      kind,
      paper,
      sheets: sheets.length,
      file: out,
      upTo: numbers.upTo,
      parts: numbers.parts,
    },
  }
}
