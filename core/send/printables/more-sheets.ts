import type { PrintableKind } from '../../contracts/printables.ts'
import { type Box, cards, clamp, dots, type Numbers, upTo } from './cards.ts'
import { codeSide, mostBoxes, replyLayout } from '../../paper/reply-sheet.ts'
import { inside, type Paper } from '../../paper/sizes.ts'
import { type Mark, pen, type Sheet, sheet } from './paper.ts'

type Maker = (paper: Paper, n: Numbers) => Sheet[]
type Place = readonly [x: number, y: number, w: number, h: number]
const box = ([x, y, w, h]: Place, more: Partial<Extract<Mark, { kind: 'box' }>> = {}): Mark => ({
  kind: 'box',
  x,
  y,
  w,
  h,
  width: pen.line,
  ...more,
})
const words = ([x, y]: readonly [number, number], text: string, size: number, more: object = {}): Mark => ({
  kind: 'text',
  x,
  y,
  size,
  text,
  ...more,
})
const circle = (cx: number, cy: number, r: number, more: object = {}): Mark => ({
  kind: 'circle',
  cx,
  cy,
  r,
  width: pen.line,
  ...more,
})

/** A winding track of squares of 24 mm, every third without its number: a counter goes along, a child fills in. */
function track(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const n = clamp(most, 8, 30)
  const side = 24
  const at = inside(paper)
  const across = Math.floor(at.w / side)
  const x0 = at.x + (at.w - across * side) / 2
  const marks: Mark[] = []
  for (let i = 0; i < n; i++) {
    const row = Math.floor(i / across)
    const k = row % 2 ? across - 1 - (i % across) : i % across
    const [x, y] = [x0 + k * side, at.y + 6 + row * (side + 10)]
    marks.push(box([x, y, side, side]))
    if (i % 3 !== 2)
      marks.push(words([x + side / 2, y + side / 2 + 4], String(i + 1), 8, { middle: true, bold: true }))
    // The way up to the next row is joined.
    if (i % across === across - 1 && i + 1 < n)
      marks.push({
        kind: 'line',
        x1: x + side / 2,
        y1: y + side,
        x2: x + side / 2,
        y2: y + side + 10,
        width: pen.line,
      })
  }
  return [sheet(paper, `Track to ${n} with gaps`, marks)]
}

/** Cards with so many of one thing, drawn plainly: rings, squares, bars and triangles in turn. */
const pictures = (b: Box, n: number): Mark[] => {
  const size = 11
  return Array.from({ length: n }, (_, i): Mark[] => {
    const x = b.x + b.w / 2 + ((i % 3) - 1) * (size + 5)
    const y = b.y + 16 + Math.floor(i / 3) * (size + 5)
    switch (n % 4) {
      case 0:
        return [box([x - size / 2, y - size / 2, size, size])]
      case 1:
        return [circle(x, y, size / 2)]
      case 2:
        return [box([x - size / 2, y - size / 4, size, size / 2])]
      default:
        return [
          { kind: 'line', x1: x, y1: y - size / 2, x2: x + size / 2, y2: y + size / 2, width: pen.line },
          {
            kind: 'line',
            x1: x + size / 2,
            y1: y + size / 2,
            x2: x - size / 2,
            y2: y + size / 2,
            width: pen.line,
          },
          { kind: 'line', x1: x - size / 2, y1: y + size / 2, x2: x, y2: y - size / 2, width: pen.line },
        ]
    }
  }).flat()
}

/** Every pair of halves up to the number, 30 × 60 mm each: dots as on dice. */
function dominoes(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const top = clamp(most, 1, 6)
  const pairs = Array.from({ length: top + 1 }, (_, a) =>
    Array.from({ length: a + 1 }, (_x, b) => [a, b] as const),
  ).flat()
  const [w, h] = [30, 60]
  const at = inside(paper)
  const [across, down] = [Math.floor(at.w / w), Math.floor(at.h / h)]
  const x0 = at.x + (at.w - across * w) / 2
  const sheets: Sheet[] = []
  for (let i = 0; i < pairs.length; i += across * down)
    sheets.push(
      sheet(
        paper,
        'Dominoes',
        pairs.slice(i, i + across * down).flatMap(([a, b], k): Mark[] => {
          const [x, y] = [x0 + (k % across) * w, at.y + Math.floor(k / across) * h]
          // Half the size of a dot card: the same dots, smaller.
          const half = (n: number, cy: number): Mark[] =>
            dots({ x, y: cy - w / 2, w, h: w }, n).map((m) =>
              m.kind === 'circle'
                ? { ...m, cx: x + w / 2 + (m.cx - x - w / 2) * 0.5, cy: cy + (m.cy - cy) * 0.5, r: 2.4 }
                : m,
            )
          return [
            box([x, y, w, h], { width: pen.fine, dashed: true }),
            { kind: 'line', x1: x + 3, y1: y + h / 2, x2: x + w - 3, y2: y + h / 2, width: pen.line },
            ...half(a, y + h / 4),
            ...half(b, y + (h * 3) / 4),
          ]
        }),
      ),
    )
  return sheets
}

/** Counters of 25 mm to fold in the middle and glue: plain on one face, a dot on the other. */
function counters(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const n = clamp(most, 5, 20)
  const at = inside(paper)
  const [w, h] = [32, 58]
  const across = Math.floor(at.w / w)
  const x0 = at.x + (at.w - across * w) / 2
  const marks = Array.from({ length: Math.min(n, across * Math.floor(at.h / h)) }, (_, i): Mark[] => {
    const [x, y] = [x0 + (i % across) * w + w / 2, at.y + Math.floor(i / across) * h]
    return [
      circle(x, y + 14, 12.5),
      circle(x, y + 42, 12.5),
      circle(x, y + 42, 3.5, { filled: true }),
      { kind: 'line', x1: x - 15, y1: y + 28, x2: x + 15, y2: y + 28, width: pen.fine, dashed: true },
    ]
  }).flat()
  return [sheet(paper, 'Counters: fold at the dashes, glue, cut out', marks)]
}

/** Two squares side by side, to lay dots in: a sum, and the card turned round its turn-round. */
function dotMats(paper: Paper): Sheet[] {
  const side = 88
  const at = inside(paper)
  const x0 = at.x + (at.w - 2 * side) / 2
  const marks = [0, 1].flatMap((k): Mark[] => {
    const y = at.y + 8 + k * (side + 18)
    return [
      box([x0, y, side, side], { width: pen.bold }),
      box([x0 + side, y, side, side], { width: pen.bold }),
    ]
  })
  return [sheet(paper, 'Two mats of two squares', marks)]
}

/** A hive to put things into and cover: its door is where one looks in. */
function hive(paper: Paper): Sheet[] {
  const at = inside(paper)
  const cx = at.x + at.w / 2
  const marks: Mark[] = [70, 80, 85, 80, 70].map((half, i) =>
    box([cx - half, at.y + 20 + i * 36, half * 2, 36], { width: pen.bold }),
  )
  marks.push(circle(cx, at.y + 20 + 5 * 36 - 20, 13, { width: pen.bold }))
  return [sheet(paper, 'Hive: things go in, a cloth covers them', marks)]
}

/** Labels of 40 × 18 mm for the slots of a ten-slot egg box, in the order in which they are filled. */
function eggBoxLabels(paper: Paper): Sheet[] {
  const at = inside(paper)
  const [w, h] = [40, 18]
  const across = Math.floor(at.w / w)
  const x0 = at.x + (at.w - across * w) / 2
  const marks = Array.from({ length: 20 }, (_, i): Mark[] => {
    const [x, y] = [x0 + (i % across) * w, at.y + Math.floor(i / across) * h]
    return [
      box([x, y, w, h], { width: pen.fine, dashed: true }),
      words([x + w / 2, y + h / 2 + 4], String((i % 10) + 1), 8, { middle: true, bold: true }),
    ]
  }).flat()
  return [sheet(paper, 'Labels for two egg boxes', marks)]
}

/** Rods of ten squares and single ones, squares of 10 mm, all of them plain. */
function rods(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const tens = clamp(Math.ceil(most / 10), 1, 10)
  const at = inside(paper)
  const side = 10
  const marks: Mark[] = []
  for (let t = 0; t < tens; t++)
    for (let i = 0; i < 10; i++) marks.push(box([at.x + 4 + t * (side + 7), at.y + 8 + i * side, side, side]))
  for (let i = 0; i < 20; i++)
    marks.push(
      box([at.x + 4 + (i % 10) * (side + 7), at.y + 125 + Math.floor(i / 10) * (side + 7), side, side]),
    )
  return [sheet(paper, `${tens} ${tens === 1 ? 'rod' : 'rods'} of ten, and ones`, marks)]
}

/** Ten rounds of a game: what came up, what was said, what was written. */
function roundsSheet(paper: Paper): Sheet[] {
  const at = inside(paper)
  const columns: readonly [string, number][] = [
    ['Came up', 34],
    ['Said', 34],
    ['Written', at.w - 84],
  ]
  const marks: Mark[] = []
  let x = at.x + 12
  for (const [head, w] of columns) {
    marks.push(words([x, at.y + 8], head, 4, { bold: true }))
    for (let i = 0; i < 10; i++) marks.push(box([x, at.y + 14 + i * 22, w - 4, 18]))
    x += w
  }
  for (let i = 0; i < 10; i++)
    marks.push(words([at.x + 4, at.y + 26 + i * 22], String(i + 1), 4, { middle: true }))
  return [sheet(paper, 'Rounds of a game', marks)]
}

/** Runs with gaps to fill, none beyond the lesson's numbers: by one, by two, by ten, forwards and back. */
function runsSheet(paper: Paper, { upTo: most }: Numbers): Sheet[] {
  const n = clamp(most, 5, 100)
  const at = inside(paper)
  const [longest, side] = [8, 21]
  const steps = [1, 2, -1, 10, -10].filter((step) => n / Math.abs(step) >= 4)
  const marks = steps.flatMap((step, row): Mark[] => {
    const cells = Math.min(longest, Math.floor(n / Math.abs(step)) + 1)
    const span = Math.abs(step) * (cells - 1)
    const least = Math.min(n - span, row)
    const start = step > 0 ? least : least + span
    const x0 = at.x + (at.w - cells * side) / 2
    const y = at.y + 14 + row * 42
    return Array.from({ length: cells }, (_, i): Mark[] => [
      box([x0 + i * side, y, side, side]),
      // Two numbers to go by, then every third.
      ...(i < 2 || i % 3 === 1
        ? [words([x0 + i * side + side / 2, y + 14], String(start + i * step), 7, { middle: true })]
        : []),
    ]).flat()
  })
  return [sheet(paper, 'Runs with gaps', marks)]
}

/** A sheet to answer on paper: a box a task, marks in its corners, a home's own code to open its page. */
function replySheet(paper: Paper, { prompts = [], code }: Numbers): Sheet[] {
  const tasks = prompts.length ? prompts.slice(0, mostBoxes) : ['', '', '']
  const layout = replyLayout(paper, tasks.length, code !== undefined)
  const marks = tasks.flatMap((prompt, i): Mark[] => {
    const { x, y } = layout.words[i]!
    return [
      ...lines(`${i + 1}  ${prompt}`, 74).map((text, k) => words([x, y + k * 5.5], text, 2.8)),
      box(layout.boxes[i]!),
    ]
  })
  return [
    sheet(paper, 'Reply sheet: lay it flat, take one photo of all of it', [
      ...layout.corners.map((c) => box(c, { filled: true })),
      ...marks,
      ...codeMarks(code, layout.code.x, layout.code.y),
    ]),
  ]
}
/** A sentence in lines of so many letters, three at most. */
function lines(text: string, letters: number): string[] {
  const out = ['']
  for (const word of text.split(' '))
    if (`${out.at(-1)} ${word}`.length > letters && out.at(-1)) out.push(word)
    else out[out.length - 1] = `${out.at(-1)} ${word}`.trimStart()
  return out.slice(0, 2)
}
/** A square code. */
function codeMarks(code: Numbers['code'], x: number, y: number): Mark[] {
  if (!code) return []
  const cell = codeSide / code.size
  return code.dark.flatMap((on, i) =>
    on
      ? [
          box([x + (i % code.size) * cell, y + Math.floor(i / code.size) * cell, cell, cell], {
            filled: true,
          }),
        ]
      : [],
  )
}

export const moreMakers = {
  track,
  'picture-cards': (paper, n) => cards(paper, 'Picture cards', upTo(n, 10), pictures),
  dominoes,
  counters,
  'dot-mats': dotMats,
  hive,
  'egg-box-labels': eggBoxLabels,
  rods,
  'rounds-sheet': roundsSheet,
  'runs-sheet': runsSheet,
  'reply-sheet': replySheet,
} satisfies Partial<Record<PrintableKind, Maker>>
