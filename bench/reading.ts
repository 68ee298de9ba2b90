import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import sharp from 'sharp'
import { privateWords } from '@awlbox/core/cut/private-words'
import { fractions } from '@awlbox/core/plan/chance/fractions'
import { readWords } from '../server/platform/media/reading.ts'

/**
 * How many printed names, addresses and telephone numbers are read in made-up pictures, by the height of their letters
 * and how far they hang askew, and how many others are told: node --import tsx bench/reading.ts [pictures] [first seed].
 * Seeds from 70001 on are for judging.
 */
const [count, first, show] = [
  Number(process.argv[2] ?? 60),
  Number(process.argv[3] ?? 70_001),
  process.argv.includes('--show'),
]
const children = [
  'Odalys',
  'Tobiah',
  'Bo',
  'Marnie',
  'Suri',
  'Pia',
  'Ines',
  'Wendell',
  'Ana Lucia',
  'Ottoline',
]
const who = { children, places: ['Wagtails', 'Cobblegate Early Years'], addresses: [] }
const telling = [
  ...children,
  'Wagtails',
  'Cobblegate Early Years',
  '14 Mill Lane',
  '3 Old Weir Road',
  '01632 960123',
]
const harmless = [
  'Bobbin',
  'seven',
  'post',
  '5 + 2 = 7',
  '1 2 3 4 5 6',
  'parcels',
  'Tuesday',
  '10 20 30',
  'How many?',
]
const fonts = ['Andika', 'DejaVu Sans', 'DejaVu Serif', 'DejaVu Sans Mono']
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-reading-'))

interface Label {
  text: string
  size: number
  turn: number
}
const tally = new Map<string, { shown: number; read: number }>()
const add = (key: string, read: boolean): void => {
  const t = tally.get(key) ?? { shown: 0, read: 0 }
  tally.set(key, { shown: t.shown + 1, read: t.read + Number(read) })
}
let [alarms, spent] = [0, 0]
for (let n = 0; n < count; n++) {
  const random = fractions(first + n)
  const between = (a: number, b: number): number => a + random() * (b - a)
  const one = <T>(of: readonly T[]): T => of[Math.floor(random() * of.length)]!
  const grey = (a: number, b: number): string =>
    `hsl(${Math.round(between(0, 360))} ${Math.round(between(5, 40))}% ${Math.round(between(a, b))}%)`
  const draw = (label: Label, x: number, y: number): string => {
    const [w, dark] = [label.text.length * label.size * 0.62 + label.size, random() < 0.2]
    return `<g transform="translate(${x} ${y}) rotate(${label.turn})"><rect x="${-w / 2}" y="${-label.size}" width="${w}" height="${label.size * 1.8}" fill="${dark ? grey(15, 30) : grey(82, 97)}"/><text text-anchor="middle" y="${label.size * 0.3}" font-family="${one(fonts)}" font-size="${label.size}" fill="${dark ? grey(85, 97) : grey(5, 30)}">${label.text}</text></g>`
  }
  const labels = Array.from({ length: 2 }, (): Label => ({
    text: one(telling),
    size: between(22, 60),
    turn: between(-9, 9),
  }))
  const others = Array.from({ length: 3 }, (): Label => ({
    text: one(harmless),
    size: between(22, 90),
    turn: between(-9, 9),
  }))
  const places = [
    [320, 130],
    [960, 130],
    [320, 590],
    [960, 590],
    [640, 360],
  ].sort(() => random() - 0.5)
  const things = Array.from(
    { length: 12 },
    () =>
      `<circle cx="${between(100, 1180)}" cy="${between(260, 480)}" r="${between(14, 40)}" fill="${grey(30, 70)}"/>`,
  ).join('')
  const all = [...labels, ...others]
    .map((l, i) => draw(l, places[i]![0]! + between(-40, 40), places[i]![1]! + between(-30, 30)))
    .join('')
  const svg = `<svg xmlns="http://www.w3.org/2000/svg" width="1280" height="720"><defs><linearGradient id="g" x2="${random()}" y2="1"><stop offset="0" stop-color="${grey(55, 80)}"/><stop offset="1" stop-color="${grey(25, 55)}"/></linearGradient></defs><rect width="1280" height="720" fill="url(#g)"/>${things}${all}</svg>`
  const picture = path.join(folder, 'picture.jpg')
  await sharp(Buffer.from(svg))
    .blur(between(0.5, 1.6))
    .jpeg({ quality: Math.round(between(45, 85)) })
    .toFile(picture)
  const begun = performance.now()
  const found = privateWords(await readWords(picture, folder), who)
  spent += performance.now() - begun
  const used = new Set<number>()
  labels.forEach((l, i) => {
    const [x, y] = places[i]!
    const k = found.findIndex(
      (f, k) => !used.has(k) && Math.hypot(f.box.x + f.box.w / 2 - x!, f.box.y + f.box.h / 2 - y!) < 150,
    )
    used.add(k)
    add('all', k >= 0)
    add(
      l.size < 30 ? 'letters below 30 px' : l.size < 45 ? 'letters of 30–45 px' : 'letters from 45 px',
      k >= 0,
    )
    add(Math.abs(l.turn) < 4 ? 'askew by less than 4°' : 'askew by 4–9°', k >= 0)
    if (show && k < 0)
      console.log(`seed ${first + n}: “${l.text}”, ${Math.round(l.size)} px, ${l.turn.toFixed(1)}°`)
  })
  alarms += found.filter((_, k) => !used.has(k)).length
  if (show && found.length > used.size)
    console.log(`seed ${first + n}: told beside: ${JSON.stringify(found.filter((_, k) => !used.has(k)))}`)
}
fs.rmSync(folder, { recursive: true, force: true })
for (const [key, t] of tally)
  console.log(`${key}: ${t.read} of ${t.shown} read (${(t.read / t.shown).toFixed(2)})`)
console.log(
  `told beside: ${alarms} in ${count} pictures with ${count * 3} harmless labels; ${(spent / count / 1000).toFixed(2)} s a picture`,
)
