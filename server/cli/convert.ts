import { ladder } from '@awlbox/core/plan/ladder/ladder'
import fs from 'node:fs/promises'
import path from 'node:path'
import type { CutList } from '@awlbox/core/contracts/cut'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { readCaptions, toSrt, toVtt } from '@awlbox/core/film/desk/captions'
import { fromEdl, toEdl } from '@awlbox/core/cut/exchange/edl'
import { toMlt } from '@awlbox/core/cut/exchange/mlt'
import { fromOtio, toOtio } from '@awlbox/core/cut/exchange/otio'
import { readCut } from '@awlbox/core/cut/upgrade'
import { ideaById } from '@awlbox/core/plan/ladder/ladder'
import { toFountain } from '@awlbox/core/script/formats/fountain'
import { toMarkdown } from '@awlbox/core/script/formats/markdown'
import { BadInput, type Printed, readFile, readLesson } from './printed.ts'

const lessonOut: Record<string, (l: Lesson) => string | Promise<Buffer>> = {
  '.lesson.json': (l) => `${JSON.stringify(l, null, 2)}\n`,
  '.md': toMarkdown,
  '.fountain': (l) => toFountain(l, defaultHouseStyle),
  '.cue-cards.pdf': async (l) => (await import('../lessons/pdf/cue-cards.ts')).cueCards(l, defaultHouseStyle),
  '.pdf': async (l) =>
    (await import('../lessons/pdf/one-page.ts')).onePage(l, defaultHouseStyle, ideaById(l.ideaId, ladder)),
}
const captions = ['.vtt', '.srt']

const cutIn = ['.cut.json', '.otio', '.edl']
/** What a cut list can be written as; a take of its segment is asked for only where a list names none. */
const cutOut: Record<string, (l: CutList, title: string) => string> = {
  '.cut.json': (l) => `${JSON.stringify(l, null, 2)}\n`,
  '.otio': toOtio,
  '.edl': toEdl,
  '.mlt': toMlt,
}
const endOf = (name: string, ends: readonly string[]): string | undefined =>
  ends.find((e) => name.toLowerCase().endsWith(e))

/** A cut list from any of its formats. Outside Awlbox no take is known: each is taken as it is named, in a segment of its own where none is. */
async function readCutFile(from: string): Promise<CutList> {
  const text = (await readFile(from, 'a cut list')).toString('utf8')
  try {
    if (from.toLowerCase().endsWith('.otio')) return fromOtio(text, (take) => take)
    if (from.toLowerCase().endsWith('.edl')) return fromEdl(text, [], (take) => take)
    return readCut(JSON.parse(text), () => null)
  } catch (error) {
    throw new BadInput(
      `${from}: ${error instanceof SyntaxError && !from.endsWith('.json') ? error.message : 'this is no cut list.'}`,
    )
  }
}

/** `convert IN OUT`: between the formats of a lesson, of captions, or of a cut list; the ends of the names say which. */
export async function convert(args: string[]): Promise<Printed> {
  const [from, to] = args
  if (!from || !to) throw new BadInput('say from which file and to which.')
  const [cut, asCut] = [endOf(from, cutIn), endOf(to, Object.keys(cutOut))]
  if (!cut !== !asCut)
    throw new BadInput('cut lists become cut lists: .cut.json, .otio, .edl, and .mlt to be written.')
  if (
    captions.includes(path.extname(from).toLowerCase()) !== captions.includes(path.extname(to).toLowerCase())
  )
    throw new BadInput('captions become captions, and lessons become lessons.')
  let unplaced: { line: number; text: string; why: string }[] = []
  let out: string | Buffer
  if (captions.includes(path.extname(from).toLowerCase())) {
    const cues = readCaptions((await readFile(from, 'captions')).toString('utf8'))
    if (!cues.length)
      throw new BadInput(`${from} holds no cue: captions have lines like “00:01.000 --> 00:02.500”.`)
    out = to.toLowerCase().endsWith('.srt') ? toSrt(cues) : toVtt(cues)
  } else if (asCut) out = cutOut[asCut]!(await readCutFile(from), path.basename(from, cut))
  else {
    const end =
      Object.keys(lessonOut).find((e) => to.toLowerCase().endsWith(e)) ??
      (to.toLowerCase().endsWith('.json') ? '.lesson.json' : undefined)
    if (!end) throw new BadInput(`${to}: a lesson can become ${Object.keys(lessonOut).join(', ')}.`)
    const read = await readLesson(from)
    unplaced = read.unplaced
    out = await lessonOut[end]!(read.lesson)
  }
  try {
    // Never over a file that is there already: what one has is kept.
    await fs.writeFile(to, out, { flag: 'wx' })
  } catch (error) {
    throw new BadInput(
      (error as NodeJS.ErrnoException).code === 'EEXIST'
        ? `${to} is there already; nothing was written.`
        : `${to} cannot be written.`,
    )
  }
  const text = [
    `${from} → ${to}`,
    ...unplaced.map((u) => `line ${u.line}: not placed (${u.why}): ${u.text}`),
  ].join('\n')
  return {
    json: { version: 1, from, to, bytes: Buffer.byteLength(out), unplaced },
    text,
    clean: unplaced.length === 0,
  }
}
