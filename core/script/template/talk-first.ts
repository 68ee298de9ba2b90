import type { Example, Segment } from '../../contracts/lesson.ts'
import { exampleSentence } from '../../plan/numbers/facts.ts'
import { waysToWork, type Worked } from '../../plan/numbers/strategies.ts'
import { type Line, n, segment, several, showsSymbols, wait, type Writing } from './lines.ts'
import type { LessonWriting, Way } from './teaching.ts'

/** How a way of working is told to a grown-up in one sentence; numbers are another problem's, so that it gives nothing away. */
const briefly: Record<string, string> = {
  'count-each': 'They may touch each one and count.',
  'move-each': 'They may move each one as they count it.',
  'five-and-some': 'They may see five and some more.',
  'ten-and-some': 'They may see ten and some more.',
  'see-twos': 'They may see it in twos.',
  'along-the-line': 'They may find it on a line.',
  'tens-and-ones': 'They may build it from tens and ones.',
  'tens-along-a-line': 'They may jump in tens, then in ones.',
  'count-all': 'They may count everything from one.',
  'take-things': 'They may take things away and count what is left.',
  'five-and-rest': 'They may take five first, then the rest.',
  'five-and-five': 'They may put the fives together first.',
  'share-one-by-one': 'They may deal them out one at a time.',
  match: 'They may match one to one.',
  'double-and-one': 'They may use a double and put one more.',
  'make-ten': 'They may fill a ten first.',
  'through-ten': 'They may go back to ten first.',
  'cross-off': 'They may draw and cross off.',
  'count-on': 'They may count on from the first number.',
  'count-on-larger': 'They may count on from the larger number.',
  'count-back': 'They may count back along a line.',
  'count-up': 'They may count up from the smaller number.',
  'tens-then-ones': 'They may jump in tens, then in ones.',
  'square-jumps': 'They may jump on a hundred square.',
  'round-and-back': 'They may use the next ten and put some back.',
  'split-tens': 'They may put tens with tens and ones with ones.',
  'known-double': 'They may simply know the double.',
  halve: 'They may know the double and turn it round.',
}

const talkWays = (e: Example, w: Writing, most = 4): Worked[] => {
  const all = waysToWork(e, w.style)
  // One of each rung before a second of any: a talk wants ways that differ.
  const firsts = all.filter((x, i) => all.findIndex((y) => y.rung === x.rung) === i)
  return [...firsts, ...all.filter((x) => !firsts.includes(x))]
    .slice(0, most)
    .sort((x, y) => all.indexOf(x) - all.indexOf(y))
}
/** The ways a talk-first lesson shows: the idea's own, else ways of working the fact. */
export const waysOf = (e: Example, w: LessonWriting): Way[] =>
  w.teach.ways?.(e, w) ??
  talkWays(e, w).map((x) => ({
    name: x.name,
    briefly: briefly[x.id] ?? `They may use: ${x.name.toLowerCase()}.`,
    lines: x.lines.map((l): Line => [l.verb, l.text]),
  }))

/** A grown-ups' segment of its own, before the film for children, that names the ways and not the answer. */
export function briefing(w: Writing, chosen: readonly Way[]): Segment {
  return segment(
    w,
    'Before you start',
    'note to adults',
    [
      ['say', 'This part is for the grown-up with you. Watch it alone, before the child does.'],
      [
        'say',
        'There is one problem and there are many ways. Let the child think without help, and ask how they know.',
      ],
      ...chosen.map((x): Line => ['say', x.briefly]),
      [
        'say',
        `No way is the best one.${w.style.fingers === 'welcome' ? ' Fingers are as good as any.' : ''} Do not say whether an answer is right before the film does.`,
      ],
    ],
    'adults',
  )
}

/** A first look where a story told with its numbers would tell the answer. */
function lookFirst(e: Example, w: LessonWriting, looks: readonly Line[]): Segment {
  const { tells, asks } = w.teach.story(e, w)
  return segment(w, 'Look first', 'story', [
    ['say', tells],
    ['say', 'Look, listen and say nothing yet.'],
    ...looks,
    ['ask', asks],
    ['wait', `${Math.max(8, w.style.defaultWait)} s`],
    ['do', 'Clear the table'],
    ['say', 'Keep your answer in your head. Let us look at what children say.'],
  ])
}
function storyFirst(e: Example, w: LessonWriting): Segment {
  const { tells, asks } = w.teach.story(e, w)
  const hidden = tells.replace(
    new RegExp(
      `\\b(${[...new Set([e.a, e.b, e.total])]
        .map((k) => n(k))
        .sort((x, y) => y.length - x.length)
        .join('|')})\\b`,
      'gi',
    ),
    (word) => (/^[A-Z]/.test(word) ? 'Some' : 'some'),
  )
  return segment(w, 'The story without numbers', 'story', [
    ['say', hidden],
    ['say', 'Shut your eyes and see it.'],
    ['ask', 'What happens in the story?'],
    wait(w),
    ['say', `Now the numbers. ${tells}`],
    ['ask', asks],
    ['wait', `${Math.max(8, w.style.defaultWait)} s`],
    ['say', 'Keep your answer in your head. Let us look at what children say.'],
  ])
}

/**
 * A lesson that begins with one problem and what children may say: numbers stay hidden until the story has been
 * pictured, then a silent think, then the ways, easiest first, each with its drawing.
 */
export function talkSegments(e: Example, w: LessonWriting, sets: readonly (readonly Example[])[]): Segment[] {
  const choices = sets.filter((s) => s.length > 0).slice(0, 3)
  const looks = e.op === '#' ? w.teach.looks?.(e, w) : undefined
  return [
    looks ? lookFirst(e, w, looks) : storyFirst(e, w),
    ...waysOf(e, w).map((x, i) =>
      segment(w, `Somebody says: ${x.name.toLowerCase()}`, 'show', [
        ['say', i === 0 ? 'Here is one way.' : 'Somebody else does it like this.'],
        ...x.lines.filter(([verb]) => verb !== 'write' || showsSymbols(w.style, w.age)),
        ['ask', 'Did you do it like that?'],
        ['wait', '3 s'],
        ['do', 'Clear the table'],
      ]),
    ),
    segment(w, 'What we found', 'together', [
      ['reveal', w.teach.found(e, w)],
      ...(showsSymbols(w.style, w.age) && (e.op === '+' || e.op === '-')
        ? [['write', exampleSentence(e)] as Line, ['do', 'Clear the table'] as Line]
        : []),
      ['say', 'Many ways, one answer.'],
    ]),
    segment(w, 'Choose your numbers', 'alone', [
      ['say', 'The same again with other numbers. Choose the ones that make you think.'],
      ...choices.map((set, i): Line => [
        'say',
        `${['Gentle', 'Middle', 'Stretch'][i]}: ${numbersOf(set[0]!, w)}.`,
      ]),
      ['pause', 'Choose one, work it out your own way and draw what you did. (180 s)'],
    ]),
  ]
}
const numbersOf = (e: Example, w: Writing): string =>
  w.aim.structure === 'parts' || w.aim.structure === 'missing'
    ? several(e.total, w.story)
    : e.op === '#'
      ? n(e.a)
      : `${n(e.a)} and ${n(e.b)}`
