import type { Frames } from '../../contracts/units.ts'
import { z } from 'zod'
import { CutList, framesPerSecond } from '../../contracts/cut.ts'
import { type CutEvent, eventsOf, listFrom, lookOf, takeFile, takeIn } from './events.ts'

/** OpenTimelineIO: the academy's open JSON for edits. Only what a cut list holds is written, in its published schemas. */
const time = (value: number) => ({ OTIO_SCHEMA: 'RationalTime.1', rate: framesPerSecond, value })
const range = (start: number, frames: Frames) => ({
  OTIO_SCHEMA: 'TimeRange.1',
  start_time: time(start),
  duration: time(frames),
})

function clipOf(e: CutEvent) {
  const base = {
    OTIO_SCHEMA: 'Clip.2',
    effects: [] as unknown[],
    markers: [],
    enabled: true,
    metadata: {
      awlbox: {
        segmentId: e.segmentId,
        kind: e.kind,
        ...(e.kind === 'card' ? { look: e.look, title: e.title, lines: e.lines } : {}),
      },
    },
    active_media_reference_key: 'DEFAULT_MEDIA',
  }
  const file = (url: string) => ({
    OTIO_SCHEMA: 'ExternalReference.1',
    target_url: url,
    available_range: null,
    metadata: {},
    name: '',
  })
  switch (e.kind) {
    case 'clip':
      return {
        ...base,
        name: e.takeId,
        source_range: range(e.from, e.frames),
        media_references: { DEFAULT_MEDIA: file(takeFile(e.takeId)) },
      }
    case 'still':
      return {
        ...base,
        name: e.takeId,
        source_range: range(e.frame, e.frames),
        effects: [
          {
            OTIO_SCHEMA: 'FreezeFrame.1',
            name: '',
            effect_name: 'FreezeFrame',
            time_scalar: 0,
            metadata: {},
          },
        ],
        media_references: { DEFAULT_MEDIA: file(takeFile(e.takeId)) },
      }
    case 'card':
      return {
        ...base,
        name: e.title,
        source_range: range(0, e.frames),
        media_references: { DEFAULT_MEDIA: file(`cards/${e.name}.png`) },
      }
  }
}
/** The whole cut as OpenTimelineIO JSON. The cut list itself goes along as metadata, so that reading it back loses nothing. */
export function toOtio(list: CutList, title: string): string {
  return JSON.stringify(
    {
      OTIO_SCHEMA: 'Timeline.1',
      name: title,
      global_start_time: time(0),
      metadata: { awlbox: { cut: list } },
      tracks: {
        OTIO_SCHEMA: 'Stack.1',
        name: 'tracks',
        source_range: null,
        effects: [],
        markers: [],
        enabled: true,
        metadata: {},
        children: [
          {
            OTIO_SCHEMA: 'Track.1',
            name: 'film',
            kind: 'Video',
            source_range: null,
            effects: [],
            markers: [],
            enabled: true,
            metadata: {},
            children: eventsOf(list).map(clipOf),
          },
        ],
      },
    },
    null,
    2,
  )
}

const Time = z.object({ rate: z.number().positive(), value: z.number() })
const Media = z.looseObject({ target_url: z.string().optional() }).nullish()
const Child = z.looseObject({
  OTIO_SCHEMA: z.string(),
  name: z.string().nullish(),
  source_range: z.object({ start_time: Time, duration: Time }).nullish(),
  effects: z.array(z.looseObject({ OTIO_SCHEMA: z.string() })).nullish(),
  metadata: z.looseObject({}).nullish(),
  media_references: z.record(z.string(), Media).nullish(),
  media_reference: Media,
})
const Timeline = z.looseObject({
  OTIO_SCHEMA: z.string().startsWith('Timeline.'),
  metadata: z.looseObject({}).nullish(),
  tracks: z.looseObject({
    children: z.array(z.looseObject({ kind: z.string().nullish(), children: z.array(Child) })),
  }),
})
const Known = z.object({
  awlbox: z.looseObject({
    segmentId: z.string().optional(),
    look: z.string().optional(),
    title: z.string().optional(),
    lines: z.array(z.string()).optional(),
  }),
})

/**
 * Reads OpenTimelineIO JSON: the first video track. A file written here gives its cut list back as it was, unless its
 * clips were changed elsewhere since. `segmentOf` tells the segment of a take that carries no segment.
 * @throws SyntaxError when it is no timeline, or holds no take that is known.
 */
export function fromOtio(text: string, segmentOf: (takeId: string) => string | null): CutList {
  let json: unknown
  try {
    json = JSON.parse(text)
  } catch {
    throw new SyntaxError('This is no OpenTimelineIO file: it is not JSON.')
  }
  const read = Timeline.safeParse(json)
  if (!read.success) throw new SyntaxError('This is no OpenTimelineIO timeline.')
  const track = read.data.tracks.children.find((t) => (t.kind ?? 'Video') === 'Video')
  const frames = (t: z.infer<typeof Time>): number => Math.round((t.value / t.rate) * framesPerSecond)
  let segment: string | null = null
  const events = (track?.children ?? []).flatMap((c): CutEvent[] => {
    if (!c.source_range || !c.OTIO_SCHEMA.startsWith('Clip.')) return []
    const known = Known.safeParse(c.metadata)
    const mine = known.success ? known.data.awlbox : null
    const url = [...Object.values(c.media_references ?? {}), c.media_reference]
      .map((m) => m?.target_url ?? '')
      .join(' ')
    const takeId = takeIn(`${url} ${c.name ?? ''}`)
    segment = mine?.segmentId ?? (takeId ? segmentOf(takeId) : null) ?? segment
    const [from, length] = [frames(c.source_range.start_time), frames(c.source_range.duration)]
    if (segment === null || length < 1) return []
    if (takeId === null)
      return [
        {
          segmentId: segment,
          frames: length,
          kind: 'card',
          name: url.match(/cards\/(.+)\.png/)?.[1] ?? '',
          look: lookOf(mine?.look),
          title: (mine?.title ?? c.name ?? 'Card').slice(0, 160),
          lines: mine?.lines ?? [],
        },
      ]
    return c.effects?.some((e) => e.OTIO_SCHEMA.startsWith('FreezeFrame.'))
      ? [{ segmentId: segment, frames: length, kind: 'still', takeId, frame: from }]
      : [{ segmentId: segment, frames: length, kind: 'clip', takeId, from }]
  })
  if (!events.length) throw new SyntaxError('No clip of this timeline is a take of this lesson.')
  const whole = z.object({ awlbox: z.object({ cut: CutList }) }).safeParse(read.data.metadata)
  const unnamed = (all: readonly CutEvent[]): string =>
    JSON.stringify(
      all.map((e) => (e.kind === 'card' ? { ...e, name: '' } : e)),
      (_, v: unknown) =>
        v && typeof v === 'object' && !Array.isArray(v)
          ? Object.fromEntries(Object.entries(v).sort(([a], [b]) => (a < b ? -1 : 1)))
          : v,
    )
  return whole.success && unnamed(eventsOf(whole.data.awlbox.cut)) === unnamed(events)
    ? whole.data.awlbox.cut
    : listFrom(events)
}
