import { dicePattern, laid, type Layout } from './layout.ts'
import { box, el, label, line, paper, path, type Shape } from './paper.ts'

/** Mats of numbers rather than things: line, hundred square, cards, dice, spinner, bowl. */
export const numberLine: Layout = (m) => {
  const l = m.line!
  const w = 560
  const span = Math.max(1, l.to - l.from)
  const x = (n: number) => ((n - l.from) / span) * w
  const y = 62
  const under: Shape[] = [line(-12, y, w + 12, y)]
  const tick = (n: number, size = 7) => under.push(line(x(n), y - size, x(n), y + size, 2))
  const number = (n: number, size: number, more = {}) =>
    under.push(label(x(n), y + 34, size, String(n), more))
  const ticks = new Set<number>([l.from, l.to])
  if (l.every > 0) for (let n = l.from; n <= l.to; n += l.every) ticks.add(n)
  const size = ticks.size > 13 ? 19 : 24
  for (const n of ticks) {
    tick(n)
    number(n, size)
  }
  for (const n of l.marks) {
    tick(n, 12)
    if (!ticks.has(n)) number(n, size, { fill: paper.blue })
    under.push(
      el('circle', { cx: x(n), cy: y, r: 6, fill: paper.saffron, stroke: paper.ink, 'stroke-width': 1.6 }),
    )
  }
  l.hops.forEach((h, i) => {
    const [a, b] = [x(h.from), x(h.to)]
    const lift = Math.min(54, 20 + Math.abs(b - a) / 5)
    under.push(
      path(`M${a} ${y} Q${(a + b) / 2} ${y - lift * 1.6} ${b} ${y}`, {
        stroke: i % 2 ? paper.blue : paper.saffronEdge,
        'stroke-width': 3.5,
        ...(i % 2 ? { 'stroke-dasharray': '8 6' } : {}),
      }),
    )
    if (l.every !== 1 && !ticks.has(h.to) && !l.marks.includes(h.to)) number(h.to, size, { fill: paper.blue })
  })
  if (l.at !== null) under.push(el('circle', { cx: x(l.at), cy: y, r: 8, fill: paper.ink }))
  return laid(w, 104, { under, zones: [{ region: 0, x: -12, y: 0, w: w + 24, h: 104 }] })
}

/** Washes of the three colours, light enough for a numeral to be read on. */
const shade = { saffron: '#F8DB7A', blue: '#A9CBEA', green: '#A8D5B9' } as const
/** Ten rows of ten, the smallest at the top left. */
export const hundredSquare: Layout = (m) => {
  const l = m.line!
  const c = 40
  const centre = (n: number): [number, number] => [
    ((n - l.from) % 10) * c + c / 2,
    Math.floor((n - l.from) / 10) * c + c / 2,
  ]
  const under: Shape[] = []
  for (let n = l.from; n <= l.to; n++) {
    const [x, y] = centre(n)
    const shaded = l.marks.includes(n)
    const pen = l.pens.find((p) => p.number === n)?.face
    under.push(
      el('rect', {
        x: x - c / 2,
        y: y - c / 2,
        width: c,
        height: c,
        fill: shaded ? shade[pen ?? 'saffron'] : paper.white,
        stroke: paper.hair,
        'stroke-width': 1.4,
      }),
      label(x, y + 7, n > 99 ? 17 : 20, String(n)),
    )
  }
  under.push(
    el('rect', {
      x: 0,
      y: 0,
      width: 10 * c,
      height: 10 * c,
      fill: 'none',
      stroke: paper.ink,
      'stroke-width': 2.5,
    }),
  )
  const over: Shape[] = l.hops.map((h, i) => {
    // Beside the numerals, so that they can still be read.
    const side = 13
    const [[cx, cy], [dx, dy]] = [centre(h.from), centre(h.to)]
    const [ax, ay, bx, by] = [
      cx + side,
      cy + (cy === dy ? -side : 0),
      dx + side,
      dy + (cy === dy ? -side : 0),
    ]
    const [mx, my] = [(ax + bx) / 2 + (ay === by ? 0 : 12), (ay + by) / 2 - (ay === by ? 14 : 0)]
    return el('g', {}, [
      path(`M${ax} ${ay} Q${mx} ${my} ${bx} ${by}`, {
        stroke: i % 2 ? paper.blue : paper.saffronEdge,
        'stroke-width': 4,
        ...(i % 2 ? { 'stroke-dasharray': '8 6' } : {}),
      }),
      el('circle', { cx: bx, cy: by, r: 5, fill: i % 2 ? paper.blue : paper.saffronEdge }),
    ])
  })
  if (l.at !== null) {
    const [x, y] = centre(l.at)
    over.push(el('circle', { cx: x, cy: y, r: c * 0.46, fill: 'none', stroke: paper.ink, 'stroke-width': 3 }))
  }
  return laid(10 * c, 10 * c, { under, over, zones: [{ region: 0, x: 0, y: 0, w: 10 * c, h: 10 * c }] })
}

export const cards: Layout = (m) => {
  const list = m.cards.length ? m.cards : [{ text: '', up: true }]
  const across = Math.min(list.length, 7)
  const wide = list.some((c) => c.text.length > 3) ? 150 : 84
  const step = wide + 10
  const h = 112
  const under = list.flatMap((c, i): Shape[] => {
    const [x, y] = [(i % across) * step, Math.floor(i / across) * (h + 10)]
    if (!m.cards.length) return [box(x, y, wide, h, 10, { 'stroke-dasharray': '7 6', stroke: paper.steel })]
    return [
      box(x, y, wide, h, 10, c.up ? {} : { fill: paper.lid }),
      ...(c.up
        ? [label(x + wide / 2, y + h / 2 + 17, c.text.length > 3 ? 30 : 50, c.text)]
        : [
            path(
              `M${x + 14} ${y + 14} L${x + wide - 14} ${y + h - 14} M${x + wide - 14} ${y + 14} L${x + 14} ${y + h - 14}`,
              { stroke: paper.steel, 'stroke-width': 2 },
            ),
          ]),
    ]
  })
  return laid(across * step - 10, Math.ceil(list.length / across) * (h + 10) - 10, { under })
}

export const dice: Layout = (m) => {
  const list = m.cards.length ? m.cards : [{ text: '?', up: false }]
  const side = 104
  const under = list.flatMap((c, i): Shape[] => {
    const x = i * (side + 26)
    const n = Number(c.text)
    const pips = c.up && Number.isInteger(n) && n >= 0 && n <= 6 ? dicePattern[n]! : null
    return [
      box(x, 0, side, side, 20, c.up ? {} : { fill: paper.lid }),
      ...(pips
        ? pips.map(([px, py]) =>
            el('circle', {
              cx: x + side / 2 + px * side * 0.27,
              cy: side / 2 + py * side * 0.27,
              r: 10,
              fill: paper.ink,
            }),
          )
        : [label(x + side / 2, side / 2 + 17, 50, c.text || '?')]),
    ]
  })
  return laid(list.length * (side + 26) - 26, side, { under })
}

export const spinner: Layout = (m) => {
  const n = Math.max(1, m.cards.length)
  const r = 110
  const at = (i: number, k = 1): [number, number] => [
    r + Math.sin((i / n) * 2 * Math.PI) * r * k,
    r - Math.cos((i / n) * 2 * Math.PI) * r * k,
  ]
  const shown = m.cards.findIndex((c) => c.up)
  const under: Shape[] = [
    el('circle', { cx: r, cy: r, r, fill: paper.white, stroke: paper.ink, 'stroke-width': 2.5 }),
  ]
  m.cards.forEach((c, i) => {
    if (n > 1) under.push(line(r, r, ...at(i), 1.6, paper.steel))
    const [x, y] = at(i + 0.5, 0.7)
    under.push(label(x, y + 11, 32, c.text))
  })
  const [ax, ay] = at(shown >= 0 ? shown + 0.5 : 0, 0.48)
  return laid(2 * r, 2 * r, {
    under,
    over: [
      line(r, r, ax, ay, 7, shown >= 0 ? paper.ink : paper.steel),
      el('circle', { cx: r, cy: r, r: 10, fill: paper.ink }),
    ],
  })
}

export const bowl: Layout = (m) => {
  const slips = m.cards.slice(0, 12)
  const under: Shape[] = [path('M0 66 H240 Q232 168 120 168 Q8 168 0 66Z', { fill: '#E3E7E2' })]
  const over = slips.flatMap((c, i): Shape[] => {
    const [x, y] = [18 + (i % 6) * 36, 26 + Math.floor(i / 6) * 34 + ((i * 7) % 5)]
    return [
      box(x, y, 30, 32, 3, {
        transform: `rotate(${((i * 13) % 17) - 8} ${x + 15} ${y + 16})`,
        'stroke-width': 1.6,
      }),
      ...(c.up
        ? [
            label(x + 15, y + 25, 22, c.text, {
              transform: `rotate(${((i * 13) % 17) - 8} ${x + 15} ${y + 16})`,
            }),
          ]
        : []),
    ]
  })
  return laid(240, 170, {
    under: [
      ...under,
      ...over,
      path('M0 66 Q8 168 120 168 Q232 168 240 66 L222 84 Q200 146 120 146 Q40 146 18 84Z', {
        fill: '#D3D8D2',
        'stroke-width': 1.6,
      }),
    ],
  })
}
