import { say } from '@awlbox/core/findings/say'
import type { Finding } from '@awlbox/core/script/proof/finding'
import { defaultHouseStyle } from '@awlbox/core/contracts/house-style'
import { proofread } from '@awlbox/core/script/proof/proof'
import { describeTable } from '@awlbox/core/script/table/description'
import { type Printed, readLesson } from './printed.ts'
import { clockTime } from '@awlbox/core/words'

/** `proof LESSON`: timing, table-top and findings. */
export async function proof(args: string[]): Promise<Printed> {
  const { lesson, unplaced } = await readLesson(args[0])
  const p = proofread(lesson, defaultHouseStyle)
  const place = new Map(p.moments.map((m) => [m.step.id, `${m.segment.title}, line ${m.stepIndex + 1}`]))
  const json = {
    version: 1,
    title: lesson.title,
    time: {
      film: round(p.time.film),
      home: round(p.time.home),
      filmLimit: p.time.filmLimit,
      doing: round(p.time.doing),
      longestTalk: round(p.time.longestTalk.seconds),
      questionsPerMinute: round(p.time.questionsPerMinute),
      segments: p.time.segments.map((s, i) => ({
        id: s.id,
        title: lesson.segments[i]!.title,
        start: round(s.start),
        film: round(s.film),
        home: round(s.home),
      })),
    },
    needs: p.needs.map(({ thing, count }) => ({ thing, count })),
    table: p.moments.map((m) => ({
      stepId: m.step.id,
      segmentId: m.segment.id,
      line: m.stepIndex + 1,
      verb: m.step.verb,
      text: m.step.text,
      table: describeTable(m.after),
    })),
    findings: p.findings.map((f) => ({
      ...f,
      ...inWords(f),
      line: f.stepId ? (p.moments.find((m) => m.step.id === f.stepId)?.stepIndex ?? -1) + 1 : null,
    })),
    unplaced,
  }
  const text = [
    `${lesson.title}: film ${clockTime(p.time.film)} of ${clockTime(p.time.filmLimit)}, home ${clockTime(p.time.home)}, children doing ${Math.round(p.time.doing * 100)} %`,
    ...p.time.segments.map(
      (s, i) =>
        `  ${clockTime(s.start).padStart(6)}  ${clockTime(s.film).padStart(5)}  ${lesson.segments[i]!.title}`,
    ),
    `Each home needs: ${p.needs.map((n) => `${n.count} ${n.thing}`).join(', ') || 'nothing'}`,
    ...unplaced.map((u) => `line ${u.line}: not placed (${u.why}): ${u.text}`),
    ...(p.findings.length
      ? p.findings.map(
          (f) =>
            `${f.severity.padEnd(5)} ${f.code}${f.certain === false ? ' (not sure)' : ''}: ${f.stepId ? `${place.get(f.stepId)}: ` : ''}${saidOf(f)}`,
        )
      : ['Nothing found wrong.']),
  ].join('\n')
  return { json, text, clean: p.findings.length === 0 && unplaced.length === 0 }
}
const round = (n: number): number => Math.round(n * 100) / 100
/** What is found in words, for people: the file has both. */
function inWords(f: Finding): { what: string; why: string; fix?: object } {
  const { what, why, fix } = say('script', f)
  return { what, why, ...(f.fix ? { fix: { ...f.fix, label: fix } } : {}) }
}
const saidOf = (f: Finding): string => {
  const { what, why } = inWords(f)
  return `${what} ${why}`
}
