import { readPhoto } from '@awlbox/core/look/photo/read'
import { photoPixels } from '../platform/media/photo-pixels.ts'
import { photoEyes } from '../platform/media/seeing.ts'
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
  const lines = results.map(
    (r) =>
      `${args.length > 1 ? `${r.file}: ` : ''}${r.count}${r.low !== r.high ? ` (${r.low} to ${r.high})` : ''}: ${r.groups.map((g) => `${g.count} ${g.colour}`).join(', ') || 'nothing found'}${r.warnings.length ? ` [${r.warnings.join(', ')}]` : ''}`,
  )
  const doubtful = results.some((r) => r.low !== r.high || r.count === 0)
  return {
    json: results.length === 1 ? { version: 1, ...results[0] } : results,
    text: lines.join('\n'),
    clean: !doubtful,
  }
}
