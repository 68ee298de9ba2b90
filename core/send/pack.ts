import type { Idea } from '../contracts/idea.ts'
import type { HomePack } from '../contracts/api/home.ts'
import type { Lesson } from '../contracts/lesson.ts'
import type { Pack, PackTask } from '../contracts/pack.ts'
import { ideaById } from '../plan/ladder/ladder.ts'
import { cautionsFor, swapsFor } from '../plan/things.ts'
import { pauseWords } from '../script/reading.ts'
import { needed } from '../script/stock.ts'
import { shownTask } from './shown-task.ts'

/** Makes what a home receives from the lesson. `younger`: a child under three lives there. */
export function packOf(lesson: Lesson, ladder: readonly Idea[]): Pack {
  const uses = new Map(needed(lesson).map((n) => [n.thing, n.uses]))
  return {
    title: lesson.title,
    ideaId: lesson.ideaId,
    aim: aimOf(lesson, ladder),
    needs: lesson.kit.map((k) => ({ ...k, swap: swapsFor(k.thing, uses.get(k.thing))[0]?.name ?? null })),
    cautions: cautionsFor(
      lesson.kit.flatMap((k) => [
        k,
        ...swapsFor(k.thing, uses.get(k.thing))
          .slice(0, 1)
          .map((s) => ({ thing: s.name, count: 1 })),
      ]),
    ),
    tasks: tasksOf(lesson),
    adultNote: lesson.segments
      .filter((s) => s.audience === 'adults')
      .flatMap((s) => s.steps.filter((x) => x.verb === 'say').map((x) => x.text)),
  }
}

function tasksOf(lesson: Pick<Lesson, 'segments'>): PackTask[] {
  return lesson.segments.flatMap((s) => {
    // Where no film says them, the words before a task come with it.
    let before: string[] = []
    return s.steps.flatMap((x): PackTask[] => {
      if (s.unfilmed && x.verb === 'say' && !x.task) before.push(x.text)
      if (!x.task) return []
      const prompt = [...before, pauseWords(x.text)].join(' ')
      before = []
      return [{ id: x.id, prompt, spec: x.task }]
    })
  })
}

function aimOf(lesson: Lesson, ladder: readonly Idea[]): string {
  const idea = ideaById(lesson.ideaId, ladder)
  switch (lesson.aim.structure) {
    case 'parts':
      return `This is about ways to part ${lesson.aim.upTo} in two.`
    case 'add':
      return `This is about adding, with numbers to ${lesson.aim.upTo}.`
    case 'take-away':
      return `This is about taking away, with numbers to ${lesson.aim.upTo}.`
    case 'count-on':
      return 'This is about counting on from a number you hold in your head.'
    default:
      return idea ? `This is about: ${idea.name.toLowerCase()}.` : ''
  }
}

/** Which answer a home must not see: the pack with its answers taken out. */
export const withoutAnswers = ({ ideaId: _, tasks, ...pack }: Pack): HomePack['pack'] => ({
  ...pack,
  tasks: tasks.map((t) => ({
    id: t.id,
    prompt: t.prompt,
    kind: t.spec.kind,
    ...shownTask(t.id, t.spec),
  })),
})
