import type { Lesson } from '../../contracts/lesson.ts'
import type { PrintableKind } from '../../contracts/printables.ts'
import { pauseWords } from '../../script/reading.ts'
import type { Numbers } from './cards.ts'

/** The numbers a lesson's sheets are made with: the largest it speaks of, and its parts. */
export function numbersOf(lesson: Pick<Lesson, 'aim' | 'examples' | 'segments'>): Numbers {
  const met = lesson.examples.flatMap((e) => [e.a, e.b, e.total])
  const tasks = lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [x.task] : [])))
  const parts = tasks.flatMap((t) => (t.kind === 'share' ? [t.plates] : t.kind === 'ways' ? [t.parts] : []))
  const prompts = lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [pauseWords(x.text)] : [])))
  return { upTo: Math.max(1, lesson.aim.upTo, ...met), parts: Math.max(2, ...parts), prompts }
}

/** Which sheets a lesson asks for: what its table uses and its tasks want, the likeliest first. */
export function sheetsFor(lesson: Pick<Lesson, 'aim' | 'kit' | 'segments'>): PrintableKind[] {
  const words = [
    ...lesson.kit.map((k) => k.thing),
    ...lesson.segments.flatMap((s) => s.steps.map((x) => x.text)),
  ]
    .join(' ')
    .toLowerCase()
  const tasks = new Set(lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [x.task.kind] : []))))
  const wanted: [PrintableKind, boolean][] = [
    ['ten-frame', /\bframes?\b/.test(words)],
    ['part-whole', /part-whole|parts? and (the )?whole|two rings/.test(words)],
    ['plates', tasks.has('share') || /\bplates?\b/.test(words)],
    ['number-line', /number line|\bline\b/.test(words) || tasks.has('order')],
    ['hundred-square', /hundred square/.test(words)],
    ['number-cards', /number cards?|numeral cards?/.test(words) || tasks.has('match')],
    ['word-cards', /word cards?/.test(words)],
    ['dot-cards', /dot cards?|dominoe?s?/.test(words)],
    ['dice-net', /\b(die|dice)\b/.test(words)],
    ['spinner', /\bspinner\b/.test(words)],
    ['ways-sheet', tasks.has('ways') || lesson.aim.structure === 'parts'],
    ['sums-sheet', tasks.has('own') || /\bcircles\b/.test(words)],
    ['track', /\btracks?\b/.test(words)],
    ['picture-cards', /picture cards?/.test(words)],
    ['dominoes', /dominoe?s?/.test(words)],
    ['counters', /two-faced counters|two-coloured counters/.test(words)],
    ['dot-mats', /two-square|dot cards?/.test(words)],
    ['hive', /\bhive\b/.test(words)],
    ['egg-box-labels', /egg box/.test(words)],
    ['rods', /\brods?\b|tens and ones/.test(words)],
    ['rounds-sheet', tasks.has('record') || /\brounds?\b/.test(words)],
    ['runs-sheet', tasks.has('gaps')],
    ['reply-sheet', tasks.size > 0],
  ]
  return wanted.filter(([, is]) => is).map(([kind]) => kind)
}
