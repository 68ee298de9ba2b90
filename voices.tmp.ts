import fs from 'node:fs'
import { findExamples } from '@awlbox/core/plan/examples'
import { fromTemplate } from '@awlbox/core/script/template'
import { spokenLines } from '@awlbox/core/film/spoken'
import { hear } from '@awlbox/core/film/heard'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { planTake } from './standins/camera/takes.ts'
import { speak, speechRate, toWav } from './standins/voice/speak.ts'
import { recognise } from './server/platform/media/recogniser.ts'
const out: Record<string, number> = {}
for (const voice of ['slt','rms','awb','kal16'] as const) for (const structure of ['parts','add','take-away','count-on'] as const) {
  const seed = {slt:11,rms:12,awb:13,kal16:14}[voice] + Number(process.env.SEED ?? 0)
  const aim = { structure, upTo: 10, count: 4, mustHave: [], noRepeatedTotal: false }
  const f = findExamples(aim, { zero: true, seed }); if (!f.ok) continue
  let n = 0
  const l = fromTemplate({ title: 't', ideaId: 'x', age: 4, aim, examples: f.sets[0]!.examples, newId: () => `s${n++}` })
  const segs = l.segments.filter(s => ['show','together','things needed'].includes(s.kind)).slice(0, 3)
  for (const seg of segs) for (const slip of (process.env.SLIPS?.split(',') ?? ['none','leave out a number','false start','skip a line','dead air']) as any) {
    let plan; try { plan = planTake(l, seg.id, defaultHouseStyle, slip) } catch { continue }
    const parts: Int16Array[] = []
    const sil = (s: number) => new Int16Array(Math.max(0, Math.round(s * speechRate)))
    for (const b of plan.beats) {
      if (b.kind === 'silence') parts.push(sil(b.seconds))
      else if (b.kind === 'say') parts.push(await speak(b.words, voice), sil(b.gap))
      else for (const [i, w] of b.words.entries()) { const s = await speak(w, voice); parts.push(s, sil(i === b.words.length-1 ? .5 : Math.max(.12, b.seconds - s.length/speechRate))) }
    }
    const all = new Int16Array(parts.reduce((a,p)=>a+p.length,0)); let at=0; for (const p of parts) { all.set(p, at); at += p.length }
    fs.writeFileSync(process.env.WAV!, toWav(all))
    const r = await recognise(process.env.WAV!, spokenLines(seg))
    const h = hear(seg, r.words, all.length/speechRate, { age: 4 })
    const certain = h.findings.filter(x=>x.code!=='recount')
    const want = { none: [], 'leave out a number': ['count-skip'], 'false start': ['false-start'], 'skip a line': ['line-skipped'], 'dead air': ['dead-air'] }[slip]
    const ok = certain.length === want.length && certain.every((c,i)=>c.code===want[i]) && (slip !== 'leave out a number' || certain[0]!.expected === plan.slipped)
    const found = want.every(w=>certain.some(c=>c.code===w))
    out[`${slip}: ${ok?'exact':found?'found, with more':'MISSED'}`] = (out[`${slip}: ${ok?'exact':found?'found, with more':'MISSED'}`] ?? 0) + 1
    if (!ok) console.log(r.words.map(w=>w.word+'@'+w.start.toFixed(1)+'/'+w.confidence.toFixed(2)).join(' ')+'\n ',voice, structure, seg.title, slip, '->', plan.slipped, '|', certain.map(c=>`${c.code}[${c.expected}|${c.heard}|${c.certain}]`).join(' ; '))
  }
}
console.log(out)
