import type { Thing } from '../state.ts'
import { el, label, line, paper, path, type Shape } from './paper.ts'

/** How a thing looks; what it is stays the same wherever it is moved. */
export type Form =
  'counter' | 'dot' | 'peg' | 'cube' | 'skittle' | 'picture' | 'stroke' | 'strike' | 'shading' | 'half'

/** A counter, radius r: saffron with a ring, or blue with a dot; a ten carries its number. */
function counter(r: number, t: Thing): Shape[] {
  const dark = t.face !== 'saffron'
  const parts = [
    el('circle', { cx: r * 0.08, cy: r * 0.14, r, fill: paper.shadow, opacity: 0.16 }),
    el('circle', {
      cx: 0,
      cy: 0,
      r: r * 0.96,
      ...edges(t),
      'stroke-width': r * 0.09,
    }),
  ]
  if (t.worth !== 1 || t.kind === 'coins')
    parts.push(label(0, r * 0.34, r * 0.95, String(t.worth), dark ? { fill: paper.white } : {}))
  else if (dark) parts.push(...badge(r, t))
  else
    parts.push(
      el('circle', {
        cx: 0,
        cy: 0,
        r: r * 0.78,
        fill: 'none',
        stroke: paper.saffronEdge,
        'stroke-width': r * 0.05,
      }),
    )
  return parts
}
const edges = (t: Pick<Thing, 'face'>) =>
  ({
    saffron: { fill: paper.saffron, stroke: paper.saffronEdge },
    blue: { fill: paper.blue, stroke: paper.blueEdge },
    green: { fill: paper.green, stroke: paper.greenEdge },
  })[t.face]
/** What tells a face without its colour: a dot on blue, a square on green (a bar would be read as a minus). */
const badge = (r: number, t: Pick<Thing, 'face'>): Shape[] =>
  t.face === 'blue'
    ? [el('circle', { cx: 0, cy: 0, r: r * 0.27, fill: paper.white })]
    : t.face === 'green'
      ? [el('rect', { x: -r * 0.25, y: -r * 0.25, width: r * 0.5, height: r * 0.5, fill: paper.white })]
      : []

/** A skittle stands until it is knocked over; then it lies, pale. */
function skittle(r: number, t: Thing): Shape[] {
  const body = path(
    `M${-r * 0.34} ${r} Q${-r * 0.62} ${r * 0.2} ${-r * 0.2} ${-r * 0.35} Q${-r * 0.36} ${-r * 1.05} 0 ${-r * 1.08} Q${r * 0.36} ${-r * 1.05} ${r * 0.2} ${-r * 0.35} Q${r * 0.62} ${r * 0.2} ${r * 0.34} ${r} Z`,
    t.crossed
      ? { fill: paper.lid, stroke: paper.steel, 'stroke-width': r * 0.08 }
      : { fill: paper.saffron, stroke: paper.saffronEdge, 'stroke-width': r * 0.1 },
  )
  const band = path(`M${-r * 0.2} ${-r * 0.3} H${r * 0.2}`, {
    stroke: t.crossed ? paper.steel : paper.ink,
    'stroke-width': r * 0.16,
  })
  return [el('g', t.crossed ? { transform: `translate(0 ${r * 0.5}) rotate(82)` } : {}, [body, band])]
}

/** Cut-paper pictures for scenes; a name with no picture of its own shows its first letter. */
const pictures: readonly (readonly [RegExp, (r: number) => Shape[]])[] = [
  [
    /letter|post|stamp|card/,
    (r) => [
      el('rect', {
        x: -r,
        y: -r * 0.7,
        width: r * 2,
        height: r * 1.4,
        rx: r * 0.1,
        fill: paper.white,
        stroke: paper.ink,
        'stroke-width': r * 0.1,
      }),
      path(`M${-r} ${-r * 0.6} L0 ${r * 0.15} L${r} ${-r * 0.6}`, { 'stroke-width': r * 0.1 }),
    ],
  ],
  [
    /parcel|box|present/,
    (r) => [
      el('rect', {
        x: -r * 0.9,
        y: -r * 0.75,
        width: r * 1.8,
        height: r * 1.6,
        rx: r * 0.08,
        fill: '#D9C3A0',
        stroke: paper.ink,
        'stroke-width': r * 0.1,
      }),
      line(0, -r * 0.75, 0, r * 0.85, r * 0.12),
      line(-r * 0.9, -r * 0.1, r * 0.9, -r * 0.1, r * 0.12),
    ],
  ],
  [
    /bird|duck|hen/,
    (r) => [
      el('ellipse', {
        cx: 0,
        cy: r * 0.1,
        rx: r * 0.85,
        ry: r * 0.55,
        fill: '#9DB4BF',
        stroke: paper.ink,
        'stroke-width': r * 0.09,
      }),
      el('circle', {
        cx: r * 0.6,
        cy: -r * 0.45,
        r: r * 0.36,
        fill: '#9DB4BF',
        stroke: paper.ink,
        'stroke-width': r * 0.09,
      }),
      el('circle', { cx: r * 0.68, cy: -r * 0.5, r: r * 0.07, fill: paper.ink }),
      path(`M${r * 0.94} ${-r * 0.48} l${r * 0.28} ${r * 0.1} l${-r * 0.28} ${r * 0.12}z`, {
        fill: paper.saffron,
        'stroke-width': r * 0.05,
      }),
    ],
  ],
  [
    /cat|kitten/,
    (r) => [
      path(
        `M${-r * 0.7} ${-r * 0.9} L${-r * 0.3} ${-r * 0.4} H${r * 0.3} L${r * 0.7} ${-r * 0.9} V${r * 0.2} Q${r * 0.7} ${r * 0.8} 0 ${r * 0.8} Q${-r * 0.7} ${r * 0.8} ${-r * 0.7} ${r * 0.2}Z`,
        { fill: '#B8A48C', 'stroke-width': r * 0.1 },
      ),
      el('circle', { cx: -r * 0.28, cy: 0, r: r * 0.09, fill: paper.ink }),
      el('circle', { cx: r * 0.28, cy: 0, r: r * 0.09, fill: paper.ink }),
    ],
  ],
  [
    /flower|daisy/,
    (r) => [
      line(0, 0, 0, r, r * 0.1, '#235F45'),
      ...[0, 1, 2, 3, 4].map((i) =>
        el('circle', {
          cx: Math.sin(i * 1.257) * r * 0.42,
          cy: -r * 0.3 - Math.cos(i * 1.257) * r * 0.42,
          r: r * 0.28,
          fill: paper.white,
          stroke: paper.ink,
          'stroke-width': r * 0.06,
        }),
      ),
      el('circle', { cx: 0, cy: -r * 0.3, r: r * 0.24, fill: paper.saffron }),
    ],
  ],
  [
    /tree|bush/,
    (r) => [
      line(0, r * 0.2, 0, r, r * 0.24, '#8A6A45'),
      el('circle', {
        cx: 0,
        cy: -r * 0.25,
        r: r * 0.72,
        fill: '#7FA58C',
        stroke: paper.ink,
        'stroke-width': r * 0.08,
      }),
    ],
  ],
  [
    /house|door/,
    (r) => [
      path(`M${-r * 0.8} ${-r * 0.2} L0 ${-r} L${r * 0.8} ${-r * 0.2} V${r * 0.9} H${-r * 0.8}Z`, {
        fill: '#E3E7E2',
        'stroke-width': r * 0.1,
      }),
      el('rect', { x: -r * 0.22, y: r * 0.2, width: r * 0.44, height: r * 0.7, fill: paper.steel }),
    ],
  ],
  [
    /sock/,
    (r) => [
      path(
        `M${-r * 0.4} ${-r * 0.9} H${r * 0.2} V${r * 0.1} L${r * 0.75} ${r * 0.5} Q${r * 0.8} ${r * 0.95} ${r * 0.3} ${r * 0.9} L${-r * 0.4} ${r * 0.5}Z`,
        { fill: '#C8D5DB', 'stroke-width': r * 0.1 },
      ),
    ],
  ],
]
function picture(r: number, kind: string): Shape[] {
  const known = pictures.find(([name]) => name.test(kind))
  return known
    ? known[1](r)
    : [
        el('rect', {
          x: -r,
          y: -r,
          width: 2 * r,
          height: 2 * r,
          rx: r * 0.5,
          fill: '#E3E7E2',
          stroke: paper.ink,
          'stroke-width': r * 0.1,
        }),
        label(0, r * 0.4, r * 1.2, kind[0]?.toUpperCase() ?? ''),
      ]
}

/** A thing drawn about the origin with radius r. */
export function drawThing(form: Form, r: number, t: Thing): Shape[] {
  const shapes = ((): Shape[] => {
    switch (t.kind === 'drawn shading' ? 'shading' : form) {
      case 'counter':
        return counter(r, t)
      case 'dot':
        return [
          el('circle', { cx: 0, cy: 0, r: r * 0.94, fill: t.face === 'saffron' ? paper.ink : edges(t).fill }),
          ...badge(r, t),
        ]
      case 'peg':
        return [
          el('rect', {
            x: -r * 0.42,
            y: -r * 0.9,
            width: r * 0.84,
            height: r * 2.5,
            rx: r * 0.2,
            ...edges(t),
            'stroke-width': r * 0.1,
          }),
          line(0, -r * 0.2, 0, r * 1.5, r * 0.1, paper.ink),
          ...(t.face === 'saffron'
            ? []
            : [el('g', { transform: `translate(0 ${-r * 0.5})` }, badge(r * 0.66, t))]),
        ]
      case 'cube':
        return [
          el('rect', {
            x: -r,
            y: -r,
            width: 2 * r,
            height: 2 * r,
            rx: r * 0.14,
            ...edges(t),
            'stroke-width': r * 0.12,
          }),
          ...badge(r, t),
        ]
      case 'skittle':
        return skittle(r, t)
      case 'picture':
        return picture(r, t.kind)
      case 'stroke':
        return [line(0, -r, 0, r, r * 0.2, paper.ink)]
      // The fifth of a tally lies across the four before it.
      case 'strike':
        return [line(-r * 2.1, r * 0.8, r * 2.1, -r * 0.8, r * 0.2, paper.ink)]
      // A square coloured in fills its place.
      case 'shading':
        return [
          el('rect', { x: -r, y: -r, width: 2 * r, height: 2 * r, ...edges(t), 'stroke-width': r * 0.08 }),
          ...badge(r, t),
        ]
      case 'half':
        return [
          path(`M${-r * 0.9} ${r * 0.45} A${r * 0.9} ${r * 0.9} 0 0 1 ${r * 0.9} ${r * 0.45}Z`, {
            ...edges(t),
            'stroke-width': r * 0.09,
          }),
        ]
    }
  })()
  if (t.crossed && form !== 'skittle') shapes.push(line(-r, r, r, -r, r * 0.2))
  if (t.hidden)
    shapes.push(
      el('rect', { x: -r * 1.14, y: -r * 1.14, width: r * 2.28, height: r * 2.28, fill: paper.lid }),
    )
  return shapes
}
