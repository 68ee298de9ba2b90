/**
 * Judging tried on simulated children: does a way of thinking get named, is a sound child accused, is a standing as
 * likely as it says? The children's slips, help and learning are drawn here, not by the code under test.
 * `node --import tsx bench/judging.ts [SEED]`
 */
import { chance } from './photos/chance.ts'
import { type Asked, truthOf, type Weighed } from '../core/judge/misconceptions/asked.ts'
import { diagnose } from '../core/judge/misconceptions/rank.ts'
import { type Rule, rules, speaksOf } from '../core/judge/misconceptions/rules.ts'
import { type Evidence, standing } from '../core/judge/standing.ts'

const r = chance(Number(process.argv[2] ?? 1))
const tasksEach = 8
const slips = 0.1
/** Questions of every kind the rules speak of, mixed as a few lessons would mix them. */
const questions: readonly (() => Asked)[] = [
  () => ({ form: 'add', a: r.whole(2, 9), b: r.whole(1, 9) }),
  () => {
    const a = r.whole(5, 18)
    return { form: 'take', a, b: r.whole(1, a - 1) }
  },
  () => {
    const total = r.whole(4, 10)
    return {
      form: 'missing',
      op: '+',
      known: r.whole(1, total - 1),
      total,
      ...(r.happens(0.3) ? { resultFirst: true } : {}),
    }
  },
  () => ({ form: 'double', n: r.whole(2, 9) }),
  () => ({ form: 'half', n: 2 * r.whole(2, 10) }),
  () => ({ form: 'compare', a: r.whole(2, 10), b: r.whole(1, 9) }),
  () => {
    const a = r.whole(2, 9)
    return {
      form: 'which',
      a,
      b: a + r.one([-1, 1, 2]),
      more: r.happens(0.6),
      longer: r.one(['a', 'b'] as const),
    }
  },
  () => ({ form: 'count', n: r.whole(3, 20) }),
  () =>
    r.happens(0.4)
      ? { form: 'after', from: r.whole(1, 8) * 10 + 9, by: 1 }
      : { form: 'after', from: r.whole(3, 89), by: r.one([1, 10]) },
  () => ({ form: 'write', n: r.whole(10, 99) }),
  () => ({ form: 'share', things: r.whole(4, 16), among: r.whole(2, 4) }),
  () => ({ form: 'add', a: r.whole(11, 60), b: r.whole(1, 3) * 10 }),
  () => ({ form: 'take', a: r.whole(40, 95), b: r.whole(1, 3) * 10 + r.whole(8, 9) }),
  () => (r.happens(0.5) ? { form: 'add', a: r.whole(1, 9), b: 0 } : { form: 'take', a: r.whole(1, 9), b: 0 }),
]
const slipOf = (q: Asked): string =>
  String(Math.max(0, truthOf(q) + (r.happens(0.6) ? r.one([-1, 1]) : r.one([-4, -3, -2, 2, 3, 4]))))
function answerOf(q: Asked, rule: Rule | null): string {
  if (r.happens(slips)) return slipOf(q)
  if (rule && speaksOf(rule, q)) {
    if (rule.fits && q.form === 'share') {
      const each = Math.floor(q.things / q.among)
      return Array.from({ length: q.among }, (_, i) => each + (i === 0 ? 1 : i === 1 ? -1 : 0)).join(', ')
    }
    return r.one(rule.predicts(q)!).answer
  }
  return String(truthOf(q))
}
/** Half of the tasks are such as the rule speaks of, as when its idea is being taught; the rest are any. */
function childOf(rule: Rule | null): Weighed[] {
  return Array.from({ length: tasksEach }, (_, i) => {
    let asked = r.one(questions)()
    for (let t = 0; rule && i % 2 === 0 && t < 400 && !speaksOf(rule, asked); t++) asked = r.one(questions)()
    return { id: String(i), words: '', asked, answer: answerOf(asked, rule) }
  })
}

const each = 300
let [first, named, all] = [0, 0, 0]
const weak: string[] = []
for (const rule of rules) {
  let [mineFirst, mineNamed] = [0, 0]
  for (let k = 0; k < each; k++) {
    const d = diagnose(childOf(rule))
    if (d.considered[0]?.id === rule.id) mineFirst++
    if (d.named.some((n) => n.id === rule.id)) mineNamed++
  }
  first += mineFirst
  named += mineNamed
  all += each
  if (mineNamed / each < 0.9) weak.push(`${rule.id} ${Math.round((100 * mineNamed) / each)} %`)
}
const sound = 4000
let accused = 0
for (let k = 0; k < sound; k++) if (diagnose(childOf(null)).named.length) accused++
const percent = (n: number, of: number): string => `${((100 * n) / of).toFixed(1)} %`
console.log(`a child with one way of thinking, ${tasksEach} mixed tasks, ${slips * 100} % slips`)
console.log(`  ranked first        ${percent(first, all)}   (bar 90 %)`)
console.log(`  named               ${percent(named, all)}`)
console.log(`  under 90 %          ${weak.join(', ') || 'none'}`)
console.log(`a sound child accused ${percent(accused, sound)}   (bar 3 %)`)

/** Children who come to have an idea, or do not, in their own time; told by how likely the standing says they have it. */
const children = 1000
const bins = Array.from({ length: 10 }, () => ({ n: 0, level: 0, has: 0 }))
const day = 86_400_000
for (let k = 0; k < children; k++) {
  const [slip, guess, learn] = [r.between(0.06, 0.18), r.between(0.03, 0.12), r.between(0.04, 0.14)]
  let has = r.happens(0.25)
  const evidence: Evidence[] = []
  const many = r.whole(1, 10)
  for (let i = 0; i < many; i++) {
    const help = r.one(['alone', 'alone', 'nudged', 'together'] as const)
    const p = has ? 1 - slip : guess + (help === 'together' ? 0.5 : help === 'nudged' ? 0.25 : 0)
    evidence.push({
      id: String(i),
      at: i * 2 * day,
      kind: r.one(['number', 'photo'] as const),
      right: r.happens(Math.min(0.97, p)),
      help,
      rung: r.one(['things', 'picture', 'head'] as const),
    })
    if (!has && r.happens(learn)) has = true
  }
  const level = standing(evidence, [], many * 2 * day).level
  const bin = bins[Math.min(9, Math.floor(level * 10))]!
  bin.n++
  bin.level += level
  if (has) bin.has++
}
const error = bins.reduce((s, b) => s + (b.n ? Math.abs(b.level - b.has) : 0), 0) / children
console.log(`standing of ${children} simulated children: calibration error ${error.toFixed(3)}   (bar 0.08)`)
for (const b of bins)
  if (b.n) console.log(`  said ${(b.level / b.n).toFixed(2)}  had it ${(b.has / b.n).toFixed(2)}  of ${b.n}`)
