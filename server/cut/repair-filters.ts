import type { Frames } from '@awlbox/core/contracts/units'
import type { Hidden, Repair } from '@awlbox/core/contracts/cut'
import { film } from '@awlbox/core/film/camera/frame'
import { closerBox, gainsOf, isCovered } from '@awlbox/core/cut/repairs'
import { fitFrame } from '../platform/media/ffmpeg.ts'
import { isProperQuad } from '@awlbox/core/cut/homography'

/** A value that goes in straight lines from key to key, as ffmpeg's expression of the frame `n` of the filter's input; `from` is the take's frame at n = 0. */
function along(keys: readonly { frame: Frames; value: number }[], from: number): string {
  const at = keys.map((k) => ({ n: k.frame - from, v: Math.round(k.value) }))
  const [first, last] = [at[0]!, at.at(-1)!]
  if (at.length === 1) return String(first.v)
  // A sum of stretches rather than conditions within conditions: those may not be nested deeply.
  const terms = at.slice(1).map((b, i) => {
    const a = at[i]!
    return `gte(n,${a.n})*lt(n,${b.n})*(${a.v}+${b.v - a.v}*(n-(${a.n}))/${b.n - a.n})`
  })
  return [`lt(n,${first.n})*${first.v}`, ...terms, `gte(n,${last.n})*${last.v}`].join('+')
}
const even = (v: number): number => Math.max(2, Math.round(v / 2) * 2)

/** Filters from label `input` on that cover an area with its own mean colours, smoothed until nothing can be told; gives the last label. */
function cover(
  h: Hidden,
  from: number,
  frames: Frames,
  input: string,
  name: string,
  graph: string[],
): string {
  const [a, b] = [h.from - from, h.to - from]
  if (b <= 0 || a >= frames) return input
  // The area keeps one size, the largest of its keys, and is moved: a filter's size cannot change from frame to frame.
  const [w, height] = [
    Math.min(film.width, even(Math.max(...h.keys.map((k) => k.box.w)))),
    Math.min(film.height, even(Math.max(...h.keys.map((k) => k.box.h)))),
  ]
  const clip = (v: number, most: number): number => Math.min(most, Math.max(0, v))
  const x = along(
    h.keys.map((k) => ({ frame: k.frame, value: clip(k.box.x + k.box.w / 2 - w / 2, film.width - w) })),
    from,
  )
  const y = along(
    h.keys.map((k) => ({
      frame: k.frame,
      value: clip(k.box.y + k.box.h / 2 - height / 2, film.height - height),
    })),
    from,
  )
  graph.push(`[${input}]split[${name}a][${name}b]`)
  graph.push(
    `[${name}b]crop=w=${w}:h=${height}:x='${x}':y='${y}':exact=1,scale=3:3:flags=area,scale=${w}:${height}:flags=bilinear[${name}c]`,
  )
  graph.push(
    `[${name}a][${name}c]overlay=x='${x}':y='${y}':eval=frame:enable='between(n,${a},${b - 1})'[${name}d]`,
  )
  return `${name}d`
}

/** Everything done to a take's picture, as filters from label `input` on; gives the last label. `from` is the take's frame at the input's first. */
export function pictureFilters(
  r: Repair,
  from: number,
  frames: Frames,
  input: string,
  name: string,
  graph: string[],
  without: { covers?: boolean } = {},
): string {
  let last = input
  if (!without.covers)
    r.hidden.filter(isCovered).forEach((h, i) => (last = cover(h, from, frames, last, `${name}h${i}`, graph)))
  const chain: string[] = []
  if (r.turn === 90) chain.push('transpose=clock', fitFrame)
  if (r.turn === 270) chain.push('transpose=cclock', fitFrame)
  if (r.turn === 180) chain.push('hflip', 'vflip')
  if (r.mirror) chain.push('hflip')
  if (r.corners && isProperQuad(r.corners)) {
    const [a, b, c, d] = r.corners
    chain.push(
      `perspective=x0=${a.x}:y0=${a.y}:x1=${b.x}:y1=${b.y}:x2=${d.x}:y2=${d.y}:x3=${c.x}:y3=${c.y}:sense=source:interpolation=cubic`,
    )
  }
  if (r.closer && r.closer.by > 1) chain.push(closerFilter(r.closer, from, frames))
  if (r.light || r.warmth) {
    const g = gainsOf(r)
    chain.push(`colorchannelmixer=rr=${g.r.toFixed(4)}:gg=${g.g.toFixed(4)}:bb=${g.b.toFixed(4)}`)
  }
  if (!chain.length) return last
  graph.push(`[${last}]${chain.join(',')},setsar=1,format=yuv420p[${name}p]`)
  return `${name}p`
}

/** The part of the picture brought closer: cut out and enlarged where it stands still, sliding between pixels where it moves. */
function closerFilter(c: NonNullable<Repair['closer']>, from: number, frames: Frames): string {
  const [start, end] = [closerBox(c, from), closerBox(c, from + frames - 1)]
  if (start.w === end.w)
    return start.w === film.width
      ? 'null'
      : `crop=${even(start.w)}:${even(start.h)}:${Math.round(start.x)}:${Math.round(start.y)}:exact=1,scale=${film.width}:${film.height}:flags=bicubic`
  // In ffmpeg's expressions a moving box: how far the slide has gone, then each edge.
  const t = c.frames ? `clip((in+${from - c.from - 1})/${c.frames},0,1)` : `gte(in,${c.from - from + 1})`
  const by = `(1+${c.by - 1}*${t})`
  const [w, h] = [`(${film.width}/${by})`, `(${film.height}/${by})`]
  const x = `clip(${c.x}-${w}/2,0,${film.width}-${w})`
  const y = `clip(${c.y}-${h}/2,0,${film.height}-${h})`
  return `perspective=x0='${x}':y0='${y}':x1='${x}+${w}':y1='${y}':x2='${x}':y2='${y}+${h}':x3='${x}+${w}':y3='${y}+${h}':sense=source:eval=frame`
}

/** What a room's noise is taken for where nothing was measured, decibels under full scale; and how far over the measured level its peaks reach. */
const [usualNoise, noisePeaks] = [-48, 4]
/** What is done to a take's sound, as a filter chain (never empty). Hum goes with its first five harmonics; below 70 Hz no voice speaks. `noise` is the room's measured level. */
export function soundFilters(r: Repair, noise: number | null = null): string {
  const chain = ['aresample=48000']
  if (r.louder) chain.push(`volume=${r.louder}dB`)
  if (r.hum)
    chain.push(
      'highpass=f=70',
      ...[1, 2, 3, 4, 5].map((k) => `bandreject=f=${r.hum * k}:width_type=h:width=${k === 1 ? 6 : 4}`),
    )
  if (r.hiss)
    chain.push(
      `afftdn=nr=12:nf=${Math.min(-20, Math.max(-80, Math.round((noise ?? usualNoise) + noisePeaks)))}`,
    )
  return chain.join(',')
}
