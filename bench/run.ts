import { photoEyes } from '../server/platform/media/seeing.ts'
import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import type { Lesson } from '@awlbox/core/contracts/lesson'
import { spokenLines } from '@awlbox/core/film/follow/spoken'
import { readPhoto } from '@awlbox/core/look/photo/read'
import { findExamples } from '@awlbox/core/plan/examples'
import { proofread } from '@awlbox/core/script/proof/proof'
import { aimOf } from '@awlbox/core/plan/aim'
import { fromTemplate } from '@awlbox/core/script/template/lesson'
import sharp from 'sharp'
import { probe, toSpeechWav } from '../server/platform/media/ffmpeg.ts'
import { recognise } from '../server/platform/media/recogniser.ts'
import { filmBeats } from '../standins/camera/film.ts'
import { planTake } from '../standins/camera/takes.ts'
import { standInPhoto } from '../standins/homes/photo.ts'

/** Speed as ratios on this machine. Run with: node --import tsx bench/run.ts */
const folder = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-bench-'))
const median = (xs: number[]): number => xs.sort((a, b) => a - b)[Math.floor(xs.length / 2)]!
const time = async (work: () => unknown): Promise<number> => {
  const start = performance.now()
  await work()
  return performance.now() - start
}
const show = (name: string, value: string) => console.log(`${name.padEnd(58)} ${value}`)

const aim = aimOf({ structure: 'add', upTo: 10, count: 6 })
const found = findExamples(aim, { zero: true, seed: 3 })
if (!found.ok) throw new Error(found.conflict)
let n = 0
const one = fromTemplate({
  style: defaultHouseStyle,
  title: 'Bench',
  ideaId: 'add-10',
  age: 4,
  aim,
  examples: found.sets[0]!.examples,
  newId: () => `b${(n += 1)}`,
})
const ofSteps = (steps: number): Lesson => {
  const segments: Lesson['segments'] = []
  for (let k = 0; segments.reduce((s, x) => s + x.steps.length, 0) < steps; k++)
    segments.push(
      ...one.segments
        .filter((s) => s.audience === 'children')
        .map((s) => ({
          ...s,
          id: `${s.id}-${k}`,
          steps: s.steps.map((x) => ({ ...x, id: `${x.id}-${k}` })),
        })),
    )
  return { ...one, segments }
}
for (const steps of [300, 600]) {
  const doc = ofSteps(steps)
  for (let i = 0; i < 20; i++) proofread(doc, defaultHouseStyle)
  const runs: number[] = []
  for (let i = 0; i < 60; i++) runs.push(await time(() => proofread(doc, defaultHouseStyle)))
  show(
    `script recomputed whole, ${doc.segments.reduce((s, x) => s + x.steps.length, 0)} steps, median`,
    `${median(runs).toFixed(1)} ms`,
  )
}

const segment = one.segments.find((s) => s.kind === 'together')!
const { beats } = planTake(one, segment.id, defaultHouseStyle)
const source = path.join(folder, 'source.mp4')
fs.writeFileSync(source, await filmBeats(beats, 'slt', 'across'))
const p = (await probe(source))!
const wav = path.join(folder, 'a.wav')
await toSpeechWav(source, wav)
show(
  'hearing, seconds of work for a second of film',
  ((await time(() => recognise(wav, spokenLines(segment, defaultHouseStyle)))) / 1000 / p.seconds).toFixed(3),
)

const photo = await standInPhoto({ saffron: 5, blue: 4, seed: 9, width: 4000, sheet: true })
const see = await photoEyes()
const { data, info } = await sharp(photo).rotate().ensureAlpha().raw().toBuffer({ resolveWithObject: true })
await readPhoto(data, info.width, info.height, see)
const reads: number[] = []
for (let i = 0; i < 5; i++) reads.push(await time(() => readPhoto(data, info.width, info.height, see)))
show(
  `photo of ${((info.width * info.height) / 1e6).toFixed(0)} megapixels counted, median`,
  `${(median(reads) / 1000).toFixed(2)} s`,
)
fs.rmSync(folder, { recursive: true, force: true })
