import type { Lesson, Step } from '../../contracts/lesson.ts'
import { stem } from '../language/lexicon.ts'
import { staleAnswers } from '../answers-told.ts'
import { sentencesIn } from '../sentence.ts'
import { choiceHolds, keyOf, workedOut } from '../worked-out.ts'
import { numberName, numbersIn, tokens } from '../../plan/numbers/names.ts'
import { thingNamed } from '../../plan/things.ts'
import { compareStock, type Needed } from '../stock.ts'
import { clock } from '../time.ts'
import { at, type Finding, type Fix, ofLesson, type Rule } from './finding.ts'

export const stock: Rule = ({ lesson, needs }) => {
  if (lesson.segments.every((s) => s.steps.length === 0)) return []
  const { missing, short, unused } = compareStock(lesson.kit, needs)
  return [
    ...missing.map((n) =>
      ofLesson(
        'not-listed',
        { thing: n.thing },
        {
          stepId: n.stepId,
          fix: { kind: 'list-thing', thing: n.thing, count: n.count },
        },
      ),
    ),
    ...short.map(({ need, listed }) =>
      ofLesson(
        'too-few-listed',
        { needed: need.count, thing: need.thing, listed },
        {
          stepId: need.stepId,
          fix: { kind: 'list-thing', thing: need.thing, count: need.count },
        },
      ),
    ),
    // A thing no line so much as names is fetched for nothing; one that is named may serve in a way hands do not show.
    ...unused.map((k) => ({
      ...ofLesson(
        'listed-unused',
        { thing: k.thing },
        { fix: { kind: 'unlist-thing' as const, thing: k.thing } },
      ),
      ...(isNamed(lesson, k.thing) ? { severity: 'tidy' as const } : { certain: false }),
    })),
    ...askedByName(lesson),
  ]
}

const linesOf = (lesson: Lesson): { text: string; verb: Step['verb']; stepId: string; segmentId: string }[] =>
  lesson.segments.flatMap((s) =>
    s.steps.map((x) => ({ text: x.text, verb: x.verb, stepId: x.id, segmentId: s.id })),
  )
/** Whether some line names a thing, by any of its words. */
function isNamed(lesson: Lesson, thing: string): boolean {
  const known = thingNamed(thing)
  const words = new Set([...(known?.words ?? []), ...thing.split(' ')].map((w) => stem(w.toLowerCase())))
  return linesOf(lesson).some((l) => {
    const said = l.text.toLowerCase()
    return [...words].some(
      (w) => w.length > 2 && new RegExp(`\\b${w.replace(/[^\p{L} ]/gu, '')}(e?s)?\\b`, 'u').test(said),
    )
  })
}
/** How many of what is counted a word asks for; null where it may mean one of several kinds. */
function countedAs(word: string, needs: readonly Needed[]): number | null {
  const counted = needs.filter((n) => thingNamed(n.thing)?.properties.includes('counted') ?? true)
  if (/^counters?$/.test(word)) return counted.find((n) => n.thing === 'two-faced counters')?.count ?? null
  return counted.length === 1 ? counted[0]!.count : null
}
const youNeed =
  /\byou(?:'ll| will)? need (?:about |at least )?([\p{L}\d-]+) (?:small )?(things|counters|objects|bits)\b/iu
/**
 * "You need thirteen small things" while fourteen are out at once, or far fewer. A doubt: the one who teaches may put out
 * more than a child needs.
 */
export const needsLine: Rule = ({ lesson, needs }) =>
  lesson.segments.flatMap((s) =>
    s.kind !== 'things needed' || s.audience === 'adults'
      ? []
      : s.steps.flatMap((x): Finding[] => {
          const found = x.text.match(youNeed)
          const said = found ? numbersIn(tokens(found[1]!))[0]?.value : undefined
          const most = found ? countedAs(found[2]!.toLowerCase(), needs) : null
          if (!found || said === undefined || most === null) return []
          if (said >= most && said <= most + 3) return []
          const is = /^\d/.test(found[1]!) ? String(most) : numberName(most)
          const text = x.text.replace(found[0], found[0].replace(found[1]!, is))
          const told = ofLesson(
            'needs-line',
            { said, needed: most, case: said < most ? 'fewer' : 'more' },
            { stepId: x.id, segmentId: s.id, fix: { kind: 'replace', stepId: x.id, text } },
          )
          return [said < most ? { ...told, certain: false } : { ...told, severity: 'tidy' }]
        }),
  )
/** "Stretch your string along the rug": a thing of the home's own that the list does not have. */
function askedByName(lesson: Lesson): Finding[] {
  const listed = new Set(
    lesson.kit.flatMap((k) =>
      [...(thingNamed(k.thing)?.words ?? []), ...k.thing.toLowerCase().split(' ')].map(stem),
    ),
  )
  const told = new Set<string>()
  return linesOf(lesson).flatMap((l): Finding[] => {
    if (l.verb !== 'pause') return []
    return [...l.text.toLowerCase().matchAll(/\byour ((?:[a-z]+ )?[a-z]+)\b/g)].flatMap(
      (found): Finding[] => {
        const name = fetched.find((f) => found[1]!.split(' ').some((w) => stem(w) === f))
        if (!name || listed.has(name) || told.has(name)) return []
        told.add(name)
        return [
          ofLesson(
            'not-listed',
            { thing: name },
            { stepId: l.stepId, segmentId: l.segmentId, fix: { kind: 'list-thing', thing: name, count: 1 } },
          ),
        ]
      },
    )
  })
}
/** Things a pause may send for that hands never show on the table. */
const fetched =
  'string scissors glue tape chalk crayon pencil paint brush dice spinner hanger sheet tray towel wool ribbon sticker magnet ruler basket bucket bag cushion blanket camera pen paper'.split(
    ' ',
  )

export const limits: Rule = ({ lesson, time }) => {
  const out: Finding[] = []
  if (time.watched > time.filmLimit)
    out.push(
      ofLesson('film-long', { filmSeconds: time.watched, age: lesson.age, limitSeconds: time.filmLimit }),
    )
  time.segments.forEach((t, i) => {
    if (t.film > clock.segmentLimit)
      out.push(
        ofLesson(
          'segment-long',
          { title: lesson.segments[i]!.title, filmSeconds: t.film, limitSeconds: clock.segmentLimit },
          { segmentId: t.id, stepId: lesson.segments[i]!.steps[0]?.id ?? null },
        ),
      )
  })
  const talk = clock.talkLimit(lesson.age)
  if (time.longestTalk.seconds > talk)
    out.push(
      ofLesson(
        'talk-long',
        { talk: Math.round(time.longestTalk.seconds), limit: talk },
        { stepId: time.longestTalk.stepId },
      ),
    )
  return out
}

export const homeTask: Rule = ({ lesson }) =>
  lesson.segments
    .filter((s) => s.kind === 'home task' && s.steps.length > 0 && !s.steps.some((x) => x.task))
    .map((s) => ofLesson('task-no-answer', {}, { stepId: s.steps.at(-1)!.id, segmentId: s.id }))

/** A task's answer against what its own words or the table under it come to. */
export const taskAnswers: Rule = ({ moments }) =>
  moments.flatMap((m) => {
    const answer = m.step.task && !m.step.task.unchecked ? keyOf(m.step.task) : null
    const reckoned = answer === null ? null : workedOut(m)
    if (answer === null || !reckoned || reckoned.value === answer) return []
    if (m.step.task?.kind === 'number' && m.step.task.also?.includes(reckoned.value)) return []
    const found = at(
      m,
      'task-answer',
      { case: reckoned.from, answer, comesTo: reckoned.value },
      { kind: 'answer', stepId: m.step.id, answer: reckoned.value },
    )
    // A sentence has one answer; a story or a table may have been meant otherwise.
    return [reckoned.from === 'sentence' ? found : { ...found, certain: false }]
  })

/** Choices marked right against those that are. */
export const choiceAnswers: Rule = ({ moments }) =>
  moments.flatMap((m) => {
    const { task } = m.step
    if (task?.kind !== 'choice' || task.unchecked || m.step.deliberate) return []
    const marked = new Set([task.answer, ...(task.also ?? [])])
    const holds = task.choices.map((c) => choiceHolds(m.step.text, c))
    const right = holds.flatMap((h, i) => (h ? [i] : []))
    // "Which is not true?" asks for the others.
    if (/\b(not|isn.t|wrong|false|odd one)\b/i.test(m.step.text)) return []
    const fix: Fix | undefined =
      right.length && holds.every((h) => h !== null) ? { kind: 'mark', stepId: m.step.id, right } : undefined
    // A true sentence may still not be the one that fits a story: each is right only where truth itself is asked for.
    const plain = task.choices.map((c) => sentencesIn(c).length === 0)
    const asksTruth = /\b(true|right|correct)\b/i.test(m.step.text)
    const wrong = [...marked].find((i) => holds[i] === false)
    const i = wrong ?? right.find((k) => !marked.has(k) && (plain[k] || asksTruth))
    if (i === undefined) return []
    const found = at(
      m,
      'choice-answer',
      { case: wrong === undefined ? 'missed' : 'false', choice: task.choices[i]! },
      asksTruth || plain.every(Boolean) ? fix : undefined,
    )
    return [plain[i] ? { ...found, certain: false } : found]
  })

/** Answers told in the film or to the grown-up that are not those of the tasks. */
export const toldAnswers: Rule = ({ lesson }) =>
  staleAnswers(lesson).map(({ step, segment, said, right, text }) =>
    ofLesson(
      'answer-told',
      { said, right },
      { stepId: step.id, segmentId: segment.id, fix: { kind: 'replace', stepId: step.id, text } },
    ),
  )

export const handOver: Rule = ({ lesson }) =>
  lesson.segments.flatMap((s, i) => {
    const before = lesson.segments[i - 1]
    if (s.audience !== 'adults' || !before || before.audience !== 'children' || s.steps.length === 0)
      return []
    const first = s.steps[0]!
    if (/\b(grown-?ups?|adults?|whoever|the one who helps)\b/i.test(first.text)) return []
    return [
      ofLesson(
        'no-hand-over',
        {},
        {
          stepId: first.id,
          segmentId: s.id,
          fix: {
            kind: 'insert-before',
            stepId: first.id,
            verb: 'say',
            text: 'This part is for the grown-up with you.',
          },
        },
      ),
    ]
  })

/** The film turns back to children after grown-ups were spoken to. */
export const handBack: Rule = ({ lesson }) =>
  lesson.segments.flatMap((s, i) => {
    const before = lesson.segments[i - 1]
    // Before the first children's segment there is nobody to call back.
    if (
      s.audience !== 'children' ||
      before?.audience !== 'adults' ||
      s.steps.length === 0 ||
      !lesson.segments.slice(0, i).some((x) => x.audience === 'children')
    )
      return []
    const first = s.steps[0]!
    if (/\b(children|hello|welcome|back|now you|you and me|everybody|come)\b/i.test(first.text)) return []
    return [
      ofLesson(
        'no-hand-back',
        {},
        {
          stepId: first.id,
          segmentId: s.id,
          fix: {
            kind: 'insert-before',
            stepId: first.id,
            verb: 'say',
            text: 'Come back, children: this is for you.',
          },
        },
      ),
    ]
  })

/** Things named for fetching only after the pause in which they are used. */
export const askedLate: Rule = ({ lesson, moments }) => {
  const fetch = moments.findIndex(
    (m) => m.step.verb === 'pause' && /\b(fetch|find|get) (your|the|some)? ?(things|\w+)/i.test(m.step.text),
  )
  if (fetch < 0) return []
  return moments.slice(fetch + 1).flatMap((m) => {
    if (m.segment.audience === 'adults' || m.step.verb !== 'say') return []
    const found = m.step.text.match(
      /\byou(?:.ll| will)? (?:also )?need (?:a |an |some |your |the )?([a-z][a-z -]{2,30}?)(?: too| as well|,|\.|$)/i,
    )
    const thing = found && thingNamed(found[1]!.trim())
    if (!thing) return []
    const used = moments
      .slice(0, moments.indexOf(m))
      .some(
        (x) =>
          x.step.verb === 'pause' && thing.words.some((w) => new RegExp(`\\b${w}\\b`, 'i').test(x.step.text)),
      )
    return [
      {
        ...at(
          m,
          'asked-late',
          { thing: thing.name },
          lesson.kit.some((k) => thingNamed(k.thing) === thing)
            ? undefined
            : { kind: 'list-thing', thing: thing.name, count: 1 },
        ),
        severity: used ? 'wrong' : 'risky',
      },
    ]
  })
}

/** A challenge whose numbers are all smaller than those of the lesson before it. */
export const challenge: Rule = ({ lesson, moments }) => {
  const main = Math.max(0, ...lesson.examples.map((e) => Math.max(e.a, e.total)))
  if (main === 0) return []
  return lesson.segments
    .filter((s) => s.kind === 'challenge')
    .flatMap((s) => {
      const numbers = moments
        .filter((m) => m.segment === s && ['say', 'ask', 'pause', 'do', 'write'].includes(m.step.verb))
        .flatMap((m) => numbersIn(tokens(m.step.text.replace(/\([^)]*\)/g, ''))).map((x) => x.value))
      const most = Math.max(0, ...numbers)
      return numbers.length > 0 && most < main
        ? [ofLesson('challenge-easy', { most, main }, { segmentId: s.id, stepId: s.steps[0]?.id ?? null })]
        : []
    })
}

/** A grown-ups' part that says the answers children are to find. */
export const briefingAnswer: Rule = ({ lesson, moments }) => {
  const firstChild = moments.findIndex((m) => m.segment.audience === 'children')
  return moments.flatMap((m, i) => {
    if (m.segment.audience !== 'adults' || i > firstChild || m.step.verb !== 'say' || m.step.deliberate)
      return []
    const said = numbersIn(tokens(m.step.text)).map((x) => x.value)
    const e = lesson.examples.find(
      (x) =>
        said.includes(x.total) &&
        said.includes(x.a) &&
        said.includes(x.b) &&
        new Set([x.a, x.b, x.total]).size > 1,
    )
    return e ? [at(m, 'briefing-answer', {})] : []
  })
}
