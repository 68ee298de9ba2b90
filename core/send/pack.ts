import type { Idea } from '../contracts/idea.ts'
import type { HomeTask } from '../contracts/api/home.ts'
import type { Lesson } from '../contracts/lesson.ts'
import type { Pack, PackTask } from '../contracts/pack.ts'
import { ideaById } from '../plan/ladder/ladder.ts'
import type { HouseStyle } from '../contracts/house-style.ts'
import { cautionsFor, swapsFor, thingNamed } from '../plan/things.ts'
import { proofread } from '../script/proof/proof.ts'
import { answerTold } from '../script/answers-told.ts'
import { pauseWords } from '../script/reading.ts'
import { needed } from '../script/stock.ts'
import { notesOf } from './notes.ts'
import { numbersOf, sheetsFor } from './printables/of-lesson.ts'
import { shownTask } from './shown-task.ts'
import { en, type WordKey } from './words/en.ts'

/** Cautions of the script's own lines, as the grown-up reads them. */
const lineCautions: Record<string, WordKey> = {
  'caution-height': 'caution.climb',
  'caution-never': 'caution.never',
  'caution-breakable': 'caution.glass',
  'caution-food': 'caution.food',
  'caution-sharp': 'caution.sharp',
  'caution-space': 'caution.move',
  'caution-hot': 'caution.hot',
  'caution-flash': 'caution.flash',
}
/** Of these one does for all children at a table; of everything else each child wants its own. */
const sharedThing = (thing: string): boolean =>
  thingNamed(thing)?.properties.some((p) =>
    ['rolls numbers', 'spins', 'draws slips', 'rolls along', 'stands up', 'hides'].includes(p),
  ) ?? false

/** Makes what a home receives from the lesson, as the house has it. */
export function packOf(lesson: Lesson, ladder: readonly Idea[], style: HouseStyle): Pack {
  const said = new Set(proofread(lesson, style).findings.map((f) => lineCautions[f.code]))
  const uses = new Map(needed(lesson).map((n) => [n.thing, n.uses]))
  return {
    title: lesson.title,
    ideaId: lesson.ideaId,
    aim: aimOf(lesson, ladder),
    needs: lesson.kit.map((k) => ({
      ...k,
      swap: swapsFor(k.thing, uses.get(k.thing))[0]?.name ?? null,
      each: !sharedThing(k.thing),
    })),
    cautions: [
      ...new Set([
        ...cautionsFor(
          lesson.kit.flatMap((k) => [
            k,
            ...swapsFor(k.thing, uses.get(k.thing))
              .slice(0, 1)
              .map((s) => ({ thing: s.name, count: 1 })),
          ]),
        ),
        ...[...said].flatMap((key) => (key ? [en[key]] : [])),
      ]),
    ],
    notes: notesOf(lesson, style),
    answers: style.answers,
    sheets: sheetsFor(lesson),
    sheetNumbers: { upTo: numbersOf(lesson).upTo, parts: numbersOf(lesson).parts },
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

/** The tasks as a home gets them: nothing gives an answer away. */
export const shownTasks = ({ tasks }: Pick<Pack, 'tasks'>): HomeTask[] =>
  tasks.map((t) => ({
    id: t.id,
    prompt: t.prompt,
    kind: t.spec.kind,
    sets: t.spec.sets ?? [],
    ...shownTask(t.id, t.spec),
  }))
/** The answers that can be told, task by task. */
export const answersOf = ({ tasks }: Pick<Pack, 'tasks'>): { prompt: string; answer: string }[] =>
  tasks.flatMap((t) => {
    const answer = answerTold(t.spec)
    return answer ? [{ prompt: t.prompt, answer }] : []
  })
