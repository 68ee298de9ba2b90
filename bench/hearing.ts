import { told } from '@awlbox/core/findings/say'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import type { HeardFinding } from '@awlbox/core/contracts/heard'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { plainCodes } from '@awlbox/core/contracts/heard'
import type { Lesson, Segment } from '@awlbox/core/contracts/lesson'
import { habits, type Slip, slips, type StandInVoice, standInVoices } from '@awlbox/core/contracts/stand-in'
import { aimOf } from '@awlbox/core/plan/aim'
import { findExamples } from '@awlbox/core/plan/examples'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { wavOf } from '@awlbox/core/film/ear/wav'
import { hearTake } from '../server/film/hear-take.ts'
import { labelledTake, type LabelledTake } from '../standins/camera/labelled.ts'
import { codesFor } from '../standins/camera/slips.ts'
import { planTake } from '../standins/camera/takes.ts'
import { soundOf } from '../standins/voice/beats.ts'
import { speechRate } from '../standins/voice/speak.ts'

/**
 * Precision and recall per kind of slip over labelled takes: node --import tsx bench/hearing.ts [takes] [first seed].
 * Seeds from 70001 on are for judging and were never looked at while the limits were set.
 */
const [count, first, show] = [
  Number(process.argv[2] ?? 136),
  Number(process.argv[3] ?? 70_001),
  process.argv.includes('--show'),
]
const near = 0.5
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-hearing-'))
interface Tally {
  made: number
  found: number
  sure: number
  offBy: number[]
}
const tally = new Map<Slip, Tally>(slips.map((s) => [s, { made: 0, found: 0, sure: 0, offBy: [] }]))
const raised = new Map<string, { right: number; wrong: number; doubted: number }>()
let [clean, cleanAlarms, seconds, spent] = [0, 0, 0, 0]

const gapTo = (f: HeardFinding, l: { from: number; to: number }): number =>
  f.start >= l.from - 1e-3 && f.start <= l.to + 1e-3
    ? 0
    : Math.min(Math.abs(f.start - l.from), Math.abs(f.start - l.to))
function judge(take: LabelledTake, findings: readonly HeardFinding[]): void {
  const free = findings.filter((f) => !plainCodes.has(f.code))
  const used = new Set<HeardFinding>()
  for (const l of take.labels) {
    if (l.slip === 'wrong die' && l.where === 'during' && /^\d+$/.test(l.planned)) continue
    const t = tally.get(l.slip)!
    t.made++
    const f = free
      .filter((x) => codesFor[l.slip].includes(x.code) && gapTo(x, l) <= near)
      .sort((a, b) => codesFor[l.slip].indexOf(a.code) - codesFor[l.slip].indexOf(b.code))[0]
    if (f) {
      t.found++
      if (f.certain) t.sure++
      t.offBy.push(gapTo(f, l))
    } else if (show)
      console.log(
        `missed ${take.seed} ${take.voice} ${take.room}: ${l.slip} at ${l.from.toFixed(1)}–${l.to.toFixed(1)} (${l.planned} → ${l.said})`,
      )
    for (const x of free) if (gapTo(x, l) <= near && codesFor[l.slip].includes(x.code)) used.add(x)
  }
  for (const f of free) {
    const r = raised.get(f.code) ?? { right: 0, wrong: 0, doubted: 0 }
    if (used.has(f)) r.right++
    else {
      if (f.certain) r.wrong++
      else r.doubted++
      if (show)
        console.log(
          `alarm  ${take.seed} ${take.voice} ${take.room}: ${f.code} at ${f.start.toFixed(1)} ${f.certain ? '' : '(doubt) '}${told('take', f)}`,
        )
    }
    raised.set(f.code, r)
  }
  if (!take.labels.length) {
    clean++
    cleanAlarms += free.filter((f) => f.certain).length
  }
}

async function one(i: number): Promise<void> {
  // Every kind in turn, and a clean take after each round of them.
  const wanted = [...slips, null][i % (slips.length + 1)] ?? null
  const take = await labelledTake(first + i, wanted)
  const wav = path.join(folder, `${i}.wav`)
  fs.writeFileSync(wav, wavOf(take.samples, speechRate))
  const begun = performance.now()
  const duration = take.samples.length / speechRate
  const hearing = await hearTake(wav, take.segment, { style: defaultHouseStyle, age: take.lesson.age })
  spent += (performance.now() - begun) / 1000
  seconds += duration
  if (show)
    console.log(
      `take   ${take.seed} ${take.voice} ${take.room} ${duration.toFixed(0)} s: ${take.asked.join(', ') || 'clean'}`,
    )
  judge(take, hearing.findings)
  fs.rmSync(wav)
}
// Two at a time: one for each core of the machine this was made on.
let next = 0
await Promise.all(
  [0, 1].map(async () => {
    while (next < count) await one(next++)
  }),
)

const share = (a: number, b: number): string => (b ? (a / b).toFixed(2) : '  – ')
console.log(`${'slip'.padEnd(22)} made found recall  sure  off by (95 %)`)
for (const [slip, t] of tally)
  console.log(
    `${slip.padEnd(22)} ${String(t.made).padStart(4)} ${String(t.found).padStart(5)}  ${share(t.found, t.made)}   ${share(t.sure, t.found)}  ${t.offBy.length ? `${[...t.offBy].sort((a, b) => a - b)[Math.floor(t.offBy.length * 0.95)]!.toFixed(2)} s` : ''}`,
  )
console.log(`\n${'finding'.padEnd(22)} right wrong doubted precision`)
for (const [code, r] of raised)
  console.log(
    `${code.padEnd(22)} ${String(r.right).padStart(5)} ${String(r.wrong).padStart(5)} ${String(r.doubted).padStart(7)}  ${share(r.right, r.right + r.wrong)}`,
  )
const groups: [string, Slip[], string[]][] = [
  [
    'miscounts',
    [
      'leave out a number',
      'say a number twice',
      'swap two numbers',
      'stop a count early',
      'count one too far',
      'wrong total',
    ],
    ['count-skip', 'count-repeat', 'count-order', 'count-end', 'total-mismatch'],
  ],
  ['false sentences', ['wrong sentence'], ['false-sentence']],
  ['skipped lines', ['skip a line'], ['line-skipped']],
  ['false starts', ['false start', 'start a count again'], ['false-start']],
  ['waits cut short', ['answer too soon', 'cut a wait short'], ['wait-short', 'answer-early']],
]
console.log('')
for (const [name, kinds, codes] of groups) {
  const t = kinds.map((k) => tally.get(k)!)
  const r = codes.flatMap((c) => raised.get(c) ?? [])
  const sum = (xs: number[]) => xs.reduce((a, b) => a + b, 0)
  const right = sum(r.map((x) => x.right))
  console.log(
    `${name.padEnd(22)} recall ${share(sum(t.map((x) => x.found)), sum(t.map((x) => x.made)))}  precision ${share(right, right + sum(r.map((x) => x.wrong)))} (doubts counted as wrong: ${share(right, right + sum(r.map((x) => x.wrong + x.doubted)))})`,
  )
}
console.log(
  `\n${clean} clean takes: ${cleanAlarms} false alarms; ${count} takes, ${(seconds / 60).toFixed(1)} min heard at ${(seconds / spent).toFixed(1)} × real time`,
)

/** Ten minutes with nothing wrong in them, in one of the four voices: how many false alarms, and how fast with nothing else running. */
async function tenMinutes(voice: StandInVoice): Promise<void> {
  let n = 0
  const newId = () => `t${(n += 1)}`
  const steps: Segment['steps'] = []
  for (const [i, structure] of (['parts', 'add', 'take-away', 'count-on', 'doubles'] as const).entries()) {
    const aim = aimOf({ structure, upTo: 10, count: 3 })
    const found = findExamples(aim, { zero: false, seed: first + i })
    if (!found.ok) continue
    const lesson: Lesson = fromTemplate({
      style: defaultHouseStyle,
      title: 'Ten minutes',
      ideaId: 'add-10',
      age: 5,
      aim,
      examples: found.sets[0]!.examples,
      newId,
    })
    steps.push(...lesson.segments.filter((x) => x.audience === 'children').flatMap((x) => x.steps))
    const whole: Lesson = {
      ...lesson,
      segments: [{ ...lesson.segments[0]!, id: 'whole', audience: 'children', steps }],
    }
    const { samples } = await soundOf(
      planTake(whole, 'whole', defaultHouseStyle, [], { seed: first, habits: [...habits] }).beats,
      voice,
      { room: 'quiet kitchen', seed: first, slowness: 1.25 },
    )
    if (samples.length / speechRate < 600 && i < 4) continue
    const wav = path.join(folder, 'ten.wav')
    fs.writeFileSync(wav, wavOf(samples, speechRate))
    const begun = performance.now()
    const h = await hearTake(wav, whole.segments[0]!, { style: defaultHouseStyle, age: 5 })
    const free = h.findings.filter((f) => !plainCodes.has(f.code))
    console.log(
      `${(samples.length / speechRate / 60).toFixed(1)} perfect minutes, ${voice}: ${free.filter((f) => f.certain).length} false alarms, ${free.filter((f) => !f.certain).length} doubts, ${(samples.length / speechRate / ((performance.now() - begun) / 1000)).toFixed(1)} × real time by itself`,
    )
    if (show)
      for (const f of free)
        console.log(`  ${f.code} at ${f.start.toFixed(1)} ${f.certain ? '' : '(doubt) '}${told('take', f)}`)
    return
  }
}
for (const voice of standInVoices) await tenMinutes(voice)
fs.rmSync(folder, { recursive: true, force: true })
