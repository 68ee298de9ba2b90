import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { structures } from '@awlbox/core/contracts/lesson'
import { hear } from '@awlbox/core/film/heard'
import { spokenLines } from '@awlbox/core/film/spoken'
import { findExamples } from '@awlbox/core/plan/examples'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import { recognise } from '../server/platform/media/recogniser.ts'
import { CannotSlip, planTake, type Slip, slips } from '../standins/camera/takes.ts'
import { soundOf } from '../standins/voice/beats.ts'
import { speechRate, toWav, voices } from '../standins/voice/speak.ts'

/** How often each slip is found, and a clean take left alone, over all voices and structures: node --import tsx bench/hearing.ts [seed] [largest number] */
const [seed, upTo] = [Number(process.argv[2] ?? 1), Number(process.argv[3] ?? 10)]
const wanted: Record<Slip, string[]> = { none: [], 'leave out a number': ['count-skip'], 'false start': ['false-start'], 'dead air': ['dead-air'], 'skip a line': ['line-skipped'] }
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-hearing-'))
const tally = new Map<string, { exact: number; found: number; missed: number }>(slips.map((s) => [s, { exact: 0, found: 0, missed: 0 }]))

for (const [v, voice] of voices.entries())
  for (const structure of structures) {
    const aim = aimOf({ structure, upTo })
    const sets = findExamples(aim, { zero: true, seed: seed + v })
    if (!sets.ok) continue
    let n = 0
    const lesson = fromTemplate({ title: 'Bench', ideaId: 'add-10', age: 4, aim, examples: sets.sets[0]!.examples, newId: () => `s${(n += 1)}` })
    for (const segment of lesson.segments.filter((s) => s.kind === 'show' || s.kind === 'together' || s.kind === 'things needed').slice(0, 3))
      for (const slip of slips) {
        let plan
        try {
          plan = planTake(lesson, segment.id, defaultHouseStyle, slip)
        } catch (error) {
          if (error instanceof CannotSlip) continue
          throw error
        }
        const samples = (await soundOf(plan.beats, voice)).flatMap((p) => [...p.parts])
        const all = new Int16Array(samples.reduce((s, p) => s + p.length, 0))
        let at = 0
        for (const p of samples) {
          all.set(p, at)
          at += p.length
        }
        const wav = path.join(folder, 'take.wav')
        fs.writeFileSync(wav, toWav(all))
        const { words } = await recognise(wav, spokenLines(segment))
        const codes = hear(segment, words, all.length / speechRate, { age: 4 }).findings.map((f) => f.code).filter((c) => c !== 'recount')
        const t = tally.get(slip)!
        if (codes.join() === wanted[slip].join()) t.exact++
        else if (wanted[slip].every((c) => codes.includes(c as never))) t.found++
        else t.missed++
      }
  }
for (const [slip, t] of tally) console.log(`${slip.padEnd(20)} exactly ${t.exact}, with more ${t.found}, missed ${t.missed}`)
fs.rmSync(folder, { recursive: true, force: true })
