import { structureInWords } from '@awlbox/core/look/photo-check'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { photoPixels } from '../platform/media/photo-pixels.ts'
import { photoEyes } from '../platform/media/seeing.ts'
import type { PhotoReading } from '@awlbox/core/contracts/reading'
import { BadInput, type Printed, readFile } from './printed.ts'

/** `count PHOTO…`: what lies in each photo. One photo gives one object, several a list in the order given. */
export async function count(args: string[]): Promise<Printed> {
  if (!args.length) throw new BadInput('say which photo.')
  const results = []
  for (const file of args) {
    const bytes = await readFile(file, 'photo')
    let picture
    try {
      picture = await photoPixels(bytes)
    } catch (error) {
      throw new BadInput(
        /pixel limit/i.test(String(error))
          ? `${file} has more than 80 million pixels.`
          : `${file} is not a photo that can be opened.`,
      )
    }
    const r = await readPhoto(picture.data, picture.width, picture.height, await photoEyes())
    results.push({ file, ...r })
  }
  const lines = results.map((r) => `${args.length > 1 ? `${r.file}: ` : ''}${inWords(r)}`)
  const doubtful = results.some((r) => r.low !== r.high || r.count === 0)
  return {
    json: results.length === 1 ? { version: 1, ...results[0] } : results,
    text: lines.join('\n'),
    clean: !doubtful,
  }
}

/** A reading in one line: how many, of which colours, in which places, and what is to be said of the photo. */
function inWords(r: PhotoReading): string {
  const range = r.low === r.high ? '' : ` (${r.low} to ${r.high})`
  const colours = r.groups.map((g) => `${g.count} ${g.colour}`).join(', ') || 'nothing found'
  const where = [structureWords(r), drawnWords(r)].flat().join('; ')
  return `${r.count}${range}: ${colours}${where ? `; ${where}` : ''}${r.warnings.length ? ` [${r.warnings.join(', ')}]` : ''}`
}
const structureWords = ({ structure, sheet }: PhotoReading): string[] => {
  const words = sheet ? `reply sheet ${sheet.map((b) => b.count).join(' | ')}` : structureInWords(structure)
  return words ? [words] : []
}
const drawnWords = (r: PhotoReading): string[] => [
  // A stroke or two may be anything: told where there are surely some.
  ...(r.tally && r.tally.low > 0 ? [`a tally of ${r.tally.count}`] : []),
  ...(r.line ? [`along a line at ${r.line.at.map((a) => a.toFixed(2)).join(', ')}`] : []),
  ...(r.dice.some((d) => d.sure) ? [`dice ${r.dice.map((d) => (d.sure ? d.pips : '?')).join(' | ')}`] : []),
  ...(r.things.some((t) => t.crossed) ? [`${r.things.filter((t) => t.crossed).length} crossed out`] : []),
]
