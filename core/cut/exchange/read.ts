import type { Seconds } from '../../contracts/units.ts'
import type { CutList } from '../../contracts/cut.ts'
import type { Lesson } from '../../contracts/lesson.ts'
import { within } from '../propose.ts'
import { framesOf } from '../timeline.ts'
import { readCut } from '../upgrade.ts'
import { fromEdl } from './edl.ts'
import { fromOtio } from './otio.ts'

interface Known {
  id: string
  segmentId: string
  seconds: Seconds
}
/**
 * Reads a cut list from a file of any of the formats it is written in, by the file's name: .edl, .otio, else Awlbox's
 * own JSON. Only segments and takes of this lesson are taken over, no further than they go.
 * @throws SyntaxError with words for people when the file is none of these or has nothing of this lesson in it.
 */
export function readList(
  name: string,
  text: string,
  lesson: Pick<Lesson, 'segments'>,
  takes: readonly Known[],
): CutList {
  const segmentOf = (takeId: string): string | null => takes.find((t) => t.id === takeId)?.segmentId ?? null
  const list = /\.edl$/i.test(name)
    ? fromEdl(
        text,
        takes.map((t) => t.id),
        segmentOf,
      )
    : /\.otio$/i.test(name)
      ? fromOtio(text, segmentOf)
      : ownJson(text, takes)
  const segments = list.segments
    .filter((s) => lesson.segments.some((x) => x.id === s.segmentId))
    .map((s) => ({
      ...s,
      byHand: true,
      items: s.items.flatMap((i) => within(i, takes)),
      overlays: s.overlays.flatMap((o) => within(o, takes)),
    }))
  if (!segments.some((s) => s.items.some((i) => i.kind === 'clip' && framesOf(i) > 0)))
    throw new SyntaxError('Nothing in this file is of this lesson and its takes. Your cut is as it was.')
  return { ...list, segments }
}
function ownJson(text: string, takes: readonly Known[]): CutList {
  try {
    return readCut(JSON.parse(text), (id) => takes.find((t) => t.id === id)?.seconds ?? null)
  } catch {
    throw new SyntaxError(
      'This is no cut list: .otio, .edl and Awlbox’s own .cut.json can be read. Your cut is as it was.',
    )
  }
}
