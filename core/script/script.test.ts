import { test } from 'vitest'
import { fromTemplate } from './template.ts'
import { proofread } from './proof/proof.ts'
import { findExamples } from '../plan/examples.ts'
test('x', () => {
  for (const structure of ['parts', 'add', 'take-away', 'count-on'] as const) {
    const aim = { structure, upTo: 10, count: 4, mustHave: [], noRepeatedTotal: false }
    const r = findExamples(aim, { zero: true, seed: 1 })
    if (!r.ok) throw new Error(r.conflict)
    console.log(structure, r.sets.map((s) => s.score + ' ' + s.examples.map((e) => `${e.a}${e.op}${e.b}`).join(',')))
    let i = 0
    const l = fromTemplate({ title: 't', ideaId: 'parts-10', age: 4, aim, examples: r.sets[0]!.examples, newId: () => `s${i++}` })
    const p = proofread(l)
    console.log(p.findings.map((f) => `${f.code} ${f.stepId} ${f.what}`), p.time.film, p.time.home, JSON.stringify(l.kit))
  }
})
