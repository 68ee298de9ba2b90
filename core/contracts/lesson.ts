import { z } from 'zod'
import { Device } from './chance.ts'

export const verbs = ['say', 'ask', 'wait', 'do', 'count', 'write', 'reveal', 'pause', 'sound'] as const
export const Verb = z.enum(verbs)
export type Verb = z.infer<typeof Verb>

export const segmentKinds = [
  'hook',
  'aim',
  'things needed',
  'warm-up',
  'show',
  'together',
  'alone',
  'story',
  'game',
  'challenge',
  'home task',
  'close',
  'note to adults',
] as const
export const SegmentKind = z.enum(segmentKinds)
export type SegmentKind = z.infer<typeof SegmentKind>

/** Three sets of one lesson's tasks: each child is given one, or chooses. */
export const taskSets = ['gentle', 'middle', 'stretch'] as const
export const TaskSet = z.enum(taskSets)
export type TaskSet = z.infer<typeof TaskSet>
/** How choices are drawn for a child: as words, as dot patterns of a number, as a shape or as so many things. */
export const choiceLooks = ['words', 'dots', 'shapes', 'things'] as const
const look = z.enum(choiceLooks).optional()

/**
 * What every task may say: `mine`, its answer stands as a person set it; `follows`, it was worked out and waits for a
 * number to be typed; `unchecked`, there is no right answer: only a person looks.
 */
const set = {
  mine: z.boolean().optional(),
  follows: z.boolean().optional(),
  unchecked: z.boolean().optional(),
  /** The sets it belongs to; every child's where none is named. */
  sets: z.array(TaskSet).min(1).max(3).optional(),
}
const TaskWords = z.string().trim().min(1).max(80)
/** What a home answers: made from a question or a pause of the script. `also`: further right answers, or right choices. */
/**
 * How the things of a photo are to lie, where that is what is looked for. `frame`: in ten frames, the first full before
 * the second is begun; `parts`: so many parts, any split of the whole right where no numbers are named; `shares`: as
 * many on each plate; `gone`: of the whole so many moved away, the rest left where they were; `row`: in this order of
 * colours.
 */
export const PhotoLaid = z.discriminatedUnion('as', [
  z.object({ as: z.literal('frame') }),
  z.object({
    as: z.literal('parts'),
    parts: z.number().int().min(2).max(6),
    split: z.array(z.number().int().min(0).max(40)).max(6).optional(),
  }),
  z.object({ as: z.literal('shares'), plates: z.number().int().min(2).max(6) }),
  z.object({ as: z.literal('gone'), go: z.number().int().min(0).max(40) }),
  z.object({ as: z.literal('row'), colours: z.array(z.string().trim().min(1).max(20)).max(20) }),
  /** Towers from the left by their heights; in any order where a photo may be taken from either side. */
  z.object({ as: z.literal('towers'), heights: z.array(z.number().int().min(0).max(20)).min(1).max(10) }),
  /** Along one line in two: so many on the one side. */
  z.object({ as: z.literal('sides'), one: z.number().int().min(0).max(40) }),
  z.object({ as: z.literal('crossed'), crossed: z.number().int().min(0).max(40) }),
  /** Tally marks on paper; nothing else is counted. */
  z.object({ as: z.literal('tally') }),
  /** Things on a drawn line: which numbers they stand for. */
  z.object({
    as: z.literal('line'),
    from: z.number().int().min(0).max(1000),
    to: z.number().int().min(1).max(1000),
    at: z.array(z.number().int().min(0).max(1000)).min(1).max(12),
  }),
  /** Dice by the dots on their upper faces. */
  z.object({ as: z.literal('dice'), faces: z.array(z.number().int().min(1).max(6)).min(1).max(6) }),
])
export type PhotoLaid = z.infer<typeof PhotoLaid>
export const TaskSpec = z.discriminatedUnion('kind', [
  z.object({
    kind: z.literal('number'),
    answer: z.number().int().min(0).max(1000),
    also: z.array(z.number().int().min(0).max(1000)).max(20).optional(),
    /** What is counted: stands beside the number. */
    unit: z.string().trim().min(1).max(30).optional(),
    ...set,
  }),
  z.object({
    kind: z.literal('choice'),
    choices: z.array(z.string().min(1).max(80)).min(2).max(6),
    answer: z.number().int().min(0).max(5),
    also: z.array(z.number().int().min(0).max(5)).max(6).optional(),
    look,
    ...set,
  }),
  z.object({
    kind: z.literal('photo'),
    things: z.number().int().min(0).max(40),
    laid: PhotoLaid.optional(),
    ...set,
  }),
  /** Tick all that fit: several right, one, or none. */
  z.object({
    kind: z.literal('several'),
    choices: z.array(TaskWords).min(2).max(8),
    right: z.array(z.number().int().min(0).max(7)).max(8),
    look,
    ...set,
  }),
  /**
   * A number sentence laid from tiles: any true one with the same numbers is right. `hidden`: all of it stands there
   * but this number, the first being 0. `count`: so many different ones, a sum and its turn-round.
   */
  z.object({
    kind: z.literal('sentence'),
    sentence: z.string().min(3).max(60),
    hidden: z.number().int().min(0).max(5).optional(),
    count: z.number().int().min(2).max(4).optional(),
    ...set,
  }),
  /** All the ways to part a number, by what the script says: is nought a part, are turned-round pairs two ways. */
  z.object({
    kind: z.literal('ways'),
    total: z.number().int().min(1).max(20),
    parts: z.number().int().min(2).max(3),
    zero: z.boolean(),
    turned: z.boolean(),
    ...set,
  }),
  /** Put in order; the items stand in the right one. */
  z.object({ kind: z.literal('order'), items: z.array(TaskWords).min(2).max(8), ...set }),
  /** A run of numbers with some left out: `gaps` are places in it. `wide`: a patch of a square, so many in a row. */
  z.object({
    kind: z.literal('gaps'),
    run: z.array(z.number().int().min(0).max(1000)).min(3).max(25),
    gaps: z.array(z.number().int().min(0).max(24)).min(1).max(12),
    wide: z.number().int().min(2).max(5).optional(),
    ...set,
  }),
  /** Shared out between plates, the rest left over. */
  z.object({
    kind: z.literal('share'),
    things: z.number().int().min(1).max(24),
    plates: z.number().int().min(2).max(6),
    ...set,
  }),
  /** What belongs together. */
  z.object({
    kind: z.literal('match'),
    pairs: z
      .array(z.tuple([TaskWords, TaskWords]))
      .min(2)
      .max(6),
    ...set,
  }),
  /** So many number sentences of one's own: doubles, ones that make a number, any. */
  z.object({
    kind: z.literal('own'),
    count: z.number().int().min(1).max(6),
    rule: z.enum(['double', 'makes', 'any']),
    makes: z.number().int().min(0).max(100).optional(),
    ...set,
  }),
  /** Said aloud or in the grown-up's words: only a person looks. */
  z.object({ kind: z.literal('tell'), ...set }),
  /** Numbers put where they belong on a line of which only the ends are marked. */
  z.object({
    kind: z.literal('line'),
    from: z.number().int().min(0).max(900),
    to: z.number().int().min(5).max(1000),
    marks: z.array(z.number().int().min(0).max(1000)).min(1).max(8),
    ...set,
  }),
  /** As many circles under each numeral as it says. */
  z.object({
    kind: z.literal('circles'),
    under: z.array(z.number().int().min(0).max(20)).min(1).max(4),
    ...set,
  }),
  /** Things in a row of which some go: crossed off. */
  z.object({
    kind: z.literal('cross'),
    things: z.number().int().min(1).max(20),
    go: z.number().int().min(0).max(20),
    ...set,
  }),
  /** Drawn with a finger: only a person looks. */
  z.object({ kind: z.literal('draw'), ...set }),
  /**
   * The rounds of a game: what came up, what was said, what was written. `take`: what came up goes from `start` each
   * time; `add`: it comes to it; `any`: only the sentence is held against itself.
   */
  z.object({
    kind: z.literal('record'),
    rounds: z.number().int().min(1).max(8),
    rule: z.enum(['take', 'add', 'any']),
    start: z.number().int().min(0).max(100).optional(),
    ...set,
  }),
])
export type TaskSpec = z.infer<typeof TaskSpec>

export const taskKinds = TaskSpec.options.map((o) => o.shape.kind.value)

const Id = z.string().regex(/^[a-z0-9-]{1,40}$/)

/**
 * One line of a script: a verb and the words after it. `do`, `count`, `wait` and `pause` lines are read by
 * core/script/reading, so what the teacher types is the document; nothing is kept twice.
 */
export const Step = z.object({
  id: Id,
  verb: Verb,
  text: z.string().max(600),
  /** A mistake made on purpose for children to correct: neither proof-reader nor first cut removes it. */
  deliberate: z.boolean().optional(),
  task: TaskSpec.optional(),
})
export type Step = z.infer<typeof Step>

const Audience = z.enum(['children', 'adults'])
type Audience = z.infer<typeof Audience>

export const Segment = z.object({
  id: Id,
  title: z.string().max(120),
  kind: SegmentKind,
  audience: Audience,
  /** Given without a film: homes read it, nobody films it. */
  unfilmed: z.literal(true).optional(),
  steps: z.array(Step).max(200),
})
export type Segment = z.infer<typeof Segment>
/** Whether a segment is part of the film that children watch. */
export const isInFilm = (s: Pick<Segment, 'audience' | 'unfilmed'>): boolean =>
  s.audience === 'children' && !s.unfilmed

/**
 * One fact. `op`: `+` and `-` as usual; `÷` shares a among b, total each (the rest is left over); `~` compares a with
 * b, total is the difference; `@` is the number a on a line, b its nearest ten, total again a; `#` is
 * the number a alone, b is 0 and total a.
 */
export const Example = z.object({
  a: z.number().int().min(0).max(200),
  b: z.number().int().min(0).max(200),
  total: z.number().int().min(0).max(400),
  op: z.enum(['+', '-', '÷', '~', '@', '#']),
  /** Kept when the set is searched again. */
  locked: z.boolean().optional(),
})
export type Example = z.infer<typeof Example>

export const structures = [
  'parts',
  'add',
  'take-away',
  'count-on',
  'doubles',
  'halves',
  'share',
  'missing',
  'compare',
  'teens',
  'tens',
  'round-back',
  'order',
  'numbers',
] as const
export const Structure = z.enum(structures)
export type Structure = z.infer<typeof Structure>

export const wishes = ['double', 'turn-round', 'zero', 'crosses ten', 'leftover'] as const
export type Wish = (typeof wishes)[number]

/** Which facts of a structure an idea is about. */
export const factKinds = [
  'any',
  'one more or fewer',
  'next to a double',
  'crosses ten',
  'none or all',
  'whole tens',
  'without regrouping',
] as const
export type FactKind = (typeof factKinds)[number]

/** What the lesson is for: the idea, its numbers and what the example set has to hold. */
export const Aim = z.object({
  structure: Structure,
  /** The whole (parts) or the largest number met (the others). */
  upTo: z.number().int().min(2).max(100),
  count: z.number().int().min(1).max(12),
  mustHave: z.array(z.enum(wishes)),
  noRepeatedTotal: z.boolean(),
  /** Smallest first number or whole. */
  least: z.number().int().min(0).max(99).default(0),
  /** Most things a home can be asked to have out at once; 0 for no limit. */
  mostThings: z.number().int().min(0).max(100).default(0),
  /** Plates or children shared among. */
  among: z.number().int().min(2).max(6).default(2),
  device: Device.default({ kind: 'none' }),
  /** Facts of this kind only. */
  only: z.enum(factKinds).default('any'),
})
export type Aim = z.infer<typeof Aim>

/** Who and what the stories are about: slots of every story text. */
export const Story = z.object({
  who: z.string().trim().min(1).max(40).default('Bobbin'),
  /** One thing counted and several of them. */
  thing: z.string().trim().min(1).max(40).default('parcel'),
  things: z.string().trim().min(1).max(40).default('parcels'),
  place: z.string().trim().min(1).max(60).default('the first house'),
})
export type Story = z.infer<typeof Story>
export const defaultStory: Story = Story.parse({})

/** A word the lesson brings in, and the gesture that goes with it. */
const NewWord = z.object({ word: z.string().trim().min(1).max(40), gesture: z.string().max(160) })
type NewWord = z.infer<typeof NewWord>

export const arcs = ['show-together-alone', 'talk-first', 'game', 'explore'] as const
export type Arc = (typeof arcs)[number]

export const KitItem = z.object({ thing: z.string().min(1).max(60), count: z.number().int().min(1).max(200) })
export type KitItem = z.infer<typeof KitItem>

export const Lesson = z.object({
  format: z.literal('awlbox-lesson'),
  version: z.literal(1),
  title: z.string().trim().min(1).max(120),
  ideaId: z.string().max(40),
  age: z.number().int().min(3).max(7),
  aim: Aim,
  examples: z.array(Example).max(12),
  kit: z.array(KitItem).max(20),
  /** Things a person took off the list: they stay off it whatever the script comes to use. */
  leftOut: z.array(z.string().min(1).max(60)).max(40).optional(),
  segments: z.array(Segment).max(60),
  story: Story.default(defaultStory),
  words: z.array(NewWord).max(30).default([]),
  arc: z.enum(arcs).default('show-together-alone'),
  /** What it carries over from the lessons before, for whoever teaches it: promises, ways of thinking to meet, questions few answered. */
  carried: z.array(z.string().max(400)).max(16).optional(),
})
export type Lesson = z.infer<typeof Lesson>
/** Lines of a lesson that is saved: forty segments of fifty. A film of that length is watched by nobody. */
const mostLines = 2000
/** A lesson as it is taken in; one that was kept before, however long, can still be read. */
export const LessonToKeep = Lesson.refine(
  (l) => l.segments.reduce((n, s) => n + s.steps.length, 0) <= mostLines,
  { error: `holds more than ${mostLines} lines: part the lesson in two`, path: ['steps'] },
)
