import type { Lesson } from '../../contracts/lesson.ts'
import type { PrintableKind } from '../../contracts/printables.ts'
import type { Numbers } from './sheets.ts'

/** The numbers a lesson's sheets are made with: the largest it speaks of, and its parts. */
export function numbersOf(lesson: Pick<Lesson, 'aim' | 'examples' | 'segments'>): Numbers {
  const met = lesson.examples.flatMap((e) => [e.a, e.b, e.total])
  const tasks = lesson.segments.flatMap((s) => s.steps.flatMap((x) => (x.task ? [x.task] : [])))
  const parts = tasks.flatMap((t) => (t.kind === 'share' ? [t.plates] : t.kind === 'ways' ? [t.parts] : []))
  return { upTo: Math.max(1, lesson.aim.upTo, ...met), parts: Math.max(2, ...parts) }
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
  ]
  return wanted.filter(([, is]) => is).map(([kind]) => kind)
}
