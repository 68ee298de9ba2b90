import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { type HeardFinding, plainCodes, type Understanding } from '@awlbox/core/contracts/heard'
import { fromMarkdown } from '@awlbox/core/script/formats/markdown'
import { hearFreeTake, hearTake } from '../server/film/hear-take.ts'
import { drawFrom } from './hearing/draw.ts'
import { seconds, wav } from './hearing/sound.ts'
import { nameOf, type Order, surroundings, takeOf } from './hearing/takes.ts'
import { harmless, type Mistake, mistakes, plans } from './hearing/texts.ts'
import { here } from './hearing/voices.ts'

/**
 * How well takes are heard: node --import tsx bench/hearing.ts [takes a surrounding] [first seed] [--free] [--only TEXT] [--show] [--confusions]
 * Voices, surroundings, plans and mistakes are crossed; what makes the takes (bench/hearing/) shares no code with what
 * hears them. Seeds under 50,000 are for looking at; from 50,000 on only figures are looked at.
 */
const words = process.argv.slice(2)
const flag = (name: string): boolean => words.includes(name)
const option = (name: string): string | null =>
  words.includes(name) ? words[words.indexOf(name) + 1]! : null
const [each, first] = words
  .filter((w) => /^\d+$/.test(w))
  .map(Number)
  .concat([6, 1].slice(words.filter((w) => /^\d+$/.test(w)).length)) as [number, number]
const [free, show, only] = [flag('--free'), flag('--show'), option('--only')]
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-hearing-'))

/** How often a number said by itself was heard as each word. */
const confusions = new Map<string, number>()
/** What came of a take. Told: a finding at the mistake, of its kind. Wrong: a finding anywhere else. */
interface Outcome {
  mistake: Mistake
  told: 'sure' | 'doubt' | null
  wrongSure: HeardFinding[]
  wrongDoubt: HeardFinding[]
  how: Understanding['how']
}
const near = 1.5
async function outcomeOf(order: Order): Promise<Outcome> {
  const { voice, mistake } = order
  const take = takeOf(order, folder)
  const file = path.join(folder, 'take.wav')
  fs.writeFileSync(file, wav(take.sound))
  let ids = 0
  const { lesson } = fromMarkdown(take.text.markdown, () => `m${(ids += 1)}`)
  const segment = lesson.segments[0]!
  // The person only counts: held against the count alone.
  const mine =
    voice === 'person' ? { ...segment, steps: segment.steps.filter((s) => s.verb === 'count') } : segment
  const heard = free
    ? await hearFreeTake(file)
    : await hearTake(file, mine, { style: defaultHouseStyle, age: lesson.age })
  for (const [i, said] of take.text.said.filter((x) => voice !== 'person' || x.counted).entries()) {
    // Only numbers of one word, said by themselves: there is no doubt which word was heard for them.
    if (!said.counted || said.text.includes(' ')) continue
    const { from, to } = take.times[i]!
    const middle = heard.words.filter((w) => (w.start + w.end) / 2 > from && (w.start + w.end) / 2 < to)
    const as = middle.length ? middle.map((w) => w.word).join(' ') : '—'
    confusions.set(`${said.text} → ${as}`, (confusions.get(`${said.text} → ${as}`) ?? 0) + 1)
  }
  const at = take.text.wrongAt === null ? null : take.times[take.text.wrongAt]
  const findings = heard.findings.filter((f) => !plainCodes.has(f.code))
  const right = findings.filter(
    (f) => at && take.text.codes.includes(f.code) && f.start <= at.to + near && f.end >= at.from - near,
  )
  const beside = findings.filter(
    (f) => !right.includes(f) && !(at && f.start <= at.to + near && f.end >= at.from - near),
  )
  return {
    // Where nothing is counted up to, there is no total to say wrong.
    mistake: take.text.wrongAt === null && !harmless.includes(mistake) ? 'none' : mistake,
    told: right.some((f) => f.certain) ? 'sure' : right.length ? 'doubt' : null,
    wrongSure: beside.filter((f) => f.certain),
    wrongDoubt: beside.filter((f) => !f.certain),
    how: 'understood' in heard ? (heard.understood?.how ?? 'understood') : 'understood',
  }
}

const installed = here()
const families = new Map<string, Outcome[]>()
const put = (name: string, o: Outcome): void => void families.set(name, [...(families.get(name) ?? []), o])
let [seed, made, lasted] = [first, 0, 0]
for (const around of surroundings) {
  if (only && !nameOf(around).includes(only)) continue
  for (let k = 0; k < each; k++, seed++) {
    const d = drawFrom(seed * 7919)
    const voice = d.of(installed)
    // Every other take has no mistake: what is right must be left in peace.
    const mistake: Mistake =
      k % 2 === 0
        ? d.of(harmless)
        : voice === 'person' || free
          ? d.of(['skip', 'repeat', 'swap'] as const)
          : d.of(mistakes.filter((m) => !harmless.includes(m)))
    const plan = d.of(plans)
    const order: Order = { seed, voice, around, plan, mistake }
    const o = await outcomeOf(order)
    made++
    lasted += seconds(takeOf(order, folder).sound)
    put(`in ${nameOf(around)}`, o)
    put(`by ${voice}`, o)
    put(`of ${plan}`, o)
    put(`with ${mistake}`, o)
    put('all', o)
    if (show)
      console.error(
        `${seed} ${voice} · ${nameOf(around)} · ${plan} · ${mistake}: ${o.how}, told ${o.told ?? 'not'}${[...o.wrongSure, ...o.wrongDoubt].map((f) => ` | ${f.certain ? 'SURE' : 'doubt'} ${f.code} ${f.start.toFixed(1)} ${f.expected}→${f.heard}`).join('')}`,
      )
  }
}
fs.rmSync(folder, { recursive: true, force: true })

const per = (n: number, of: number): string => (of ? `${n}/${of}` : '·').padStart(8)
console.log(
  `${made} takes, ${Math.round(lasted)} s of sound, seeds ${first}–${seed - 1}, ${free ? 'with no script' : 'against the script'}; voices: ${installed.join(', ')}`,
)
console.log(
  `${''.padEnd(34)}${['told', 'sure', 'passed', 'alarms', 'sure wr.', 'underst.'].map((h) => h.padStart(9)).join('')}`,
)
for (const [name, all] of [...families].sort(([a], [b]) => (a < b ? -1 : 1))) {
  const slips = all.filter((o) => !harmless.includes(o.mistake))
  const right = all.filter((o) => harmless.includes(o.mistake))
  console.log(
    `${name.padEnd(34)}${[
      per(slips.filter((o) => o.told).length, slips.length),
      per(slips.filter((o) => o.told === 'sure').length, slips.length),
      // The worst: a mistake of which nothing was said in a take called understood.
      per(slips.filter((o) => !o.told && o.how === 'understood').length, slips.length),
      per(right.filter((o) => o.wrongDoubt.length).length, right.length),
      per(all.filter((o) => o.wrongSure.length).length, all.length),
      per(all.filter((o) => o.how === 'understood').length, all.length),
    ].join(' ')}`,
  )
}
if (flag('--confusions'))
  for (const [pair, n] of [...confusions].sort(([, a], [, b]) => b - a))
    if (n > 1) console.log(`${String(n).padStart(6)}  ${pair}`)
