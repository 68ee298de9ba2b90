import { aimOf } from '../../plan/aim.ts'
import { frontLines, readFront } from './front.ts'
import { readTask, taskWords } from './task-mark.ts'
import { defaultStory, Lesson, type Segment, SegmentKind, type Step, verbs } from '../../contracts/lesson.ts'
import { capital } from '../../words.ts'

export interface Unplaced {
  line: number
  text: string
  why: string
}
export type MarkdownReading = { lesson: Lesson; unplaced: Unplaced[] }

const verbLine = new RegExp(`^(?:[-*]\\s+)?(${verbs.join('|')})\\s*:\\s*(.*)$`, 'i')

/**
 * Reads a lesson from Markdown: `# title`, `## segment {kind}` or `{kind, adults}`, then a step a line, a verb,
 * a colon and the rest. A trailing `{on purpose}` marks a deliberate mistake, `{answer …}` a task.
 * Front matter lines (`Idea:`, `Age:`, `Aim:`, `Examples:`, `Needs:` …) stand before the first segment. An empty `{}`
 * ends a text whose own last words stand in braces. Lines that fit nowhere are returned, not lost.
 */
export function fromMarkdown(text: string, newId: () => string): MarkdownReading {
  const unplaced: Unplaced[] = []
  const lesson: Lesson = {
    format: 'awlbox-lesson',
    version: 1,
    title: 'Untitled lesson',
    ideaId: 'parts-10',
    age: 4,
    aim: aimOf({ structure: 'parts', upTo: 10 }),
    examples: [],
    kit: [],
    segments: [],
    story: defaultStory,
    words: [],
    arc: 'show-together-alone',
  }
  let segment: Segment | null = null
  text.split(/\r?\n/).forEach((raw, i) => {
    const line = raw.trim()
    if (!line) return
    const heading = line.match(/^(#{1,2})\s+(.*)$/)
    if (heading?.[1] === '#') {
      lesson.title = heading[2]!.slice(0, 120)
      return
    }
    if (heading) {
      segment = readHeading(heading[2]!, newId())
      lesson.segments.push(segment)
      return
    }
    const step = line.match(verbLine)
    if (step && !segment) {
      // Steps before any heading open a segment of their own.
      segment = readHeading('Beginning {hook}', newId())
      lesson.segments.push(segment)
    }
    if (step && segment) segment.steps.push(readStep(step[1]!, step[2]!, newId()))
    else if (!segment && readFront(line, lesson)) return
    else
      unplaced.push({
        line: i + 1,
        text: line,
        why: segment
          ? `no verb (${verbs.join(', ')}) and colon at its start`
          : 'it stands before the first segment',
      })
  })
  return { lesson: Lesson.parse(lesson), unplaced }
}

function readHeading(text: string, id: string): Segment {
  const found = text.match(/^(.*?)\s*(?:\{([^}]*)\})?$/)!
  const words = (found[2] ?? '').split(',').map((w) => w.trim())
  const kind = SegmentKind.safeParse(words.find((w) => SegmentKind.safeParse(w).success))
  return {
    id,
    title: found[1]!.slice(0, 120),
    kind: kind.success ? kind.data : 'show',
    audience:
      words.includes('adults') ||
      (kind.success && kind.data === 'note to adults' && !words.includes('children'))
        ? 'adults'
        : 'children',
    ...(words.includes('no film') ? { unfilmed: true as const } : {}),
    steps: [],
  }
}

function readStep(verb: string, rest: string, id: string): Step {
  const step: Step = { id, verb: verb.toLowerCase() as Step['verb'], text: rest }
  for (;;) {
    const mark = step.text.match(/^(.*?)\s*\{([^{}]*)\}$/)
    if (!mark) return step
    if (mark[2] === '') return { ...step, text: mark[1]! }
    const task = readTask(mark[2]!)
    if (mark[2] === 'on purpose') step.deliberate = true
    else if (task) step.task = task
    else return step
    step.text = mark[1]!
  }
}

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim()
/** Writes a lesson as Markdown; `fromMarkdown` reads the same document back, its ids and line breaks apart. */
export function toMarkdown(lesson: Lesson): string {
  const body = lesson.segments.flatMap((s) => [
    '',
    `## ${oneLine(s.title)} {${s.kind}${s.audience === 'adults' && s.kind !== 'note to adults' ? ', adults' : s.audience === 'children' && s.kind === 'note to adults' ? ', children' : ''}${s.unfilmed ? ', no film' : ''}}`,
    '',
    ...s.steps.map((x) => {
      const text = oneLine(x.text)
      const marks = `${x.task ? ` {${taskWords(x.task)}}` : ''}${x.deliberate ? ' {on purpose}' : ''}`
      return `${capital(x.verb)}: ${text}${text.endsWith('}') ? ' {}' : ''}${marks}`
    }),
  ])
  return [`# ${oneLine(lesson.title)}`, '', ...frontLines(lesson), ...body, ''].join('\n')
}
