import { aimOf } from '../../plan/aim.ts'
import { defaultStory, Lesson, type Segment, type Step } from '../../contracts/lesson.ts'
import { thingNamed } from '../../plan/things.ts'
import { isHandLine } from '../language/hand-line.ts'
import { readClaps, readCount, readSeconds } from '../reading.ts'
import { sentencesIn } from '../sentence.ts'
import { kitIn } from './front.ts'
import type { MarkdownReading, Unplaced } from './markdown.ts'
import { capital } from '../../words.ts'

const kindWords: readonly (readonly [RegExp, Segment['kind']])[] = [
  [/\b(need|resources|materials|things|equipment)\b/i, 'things needed'],
  [/\b(warm|starter|song|rhyme)\b/i, 'warm-up'],
  [/\b(aim|objective|today|goal|we will learn)\b/i, 'aim'],
  [/\b(hello|intro|introduction|welcome|hook|greeting)\b/i, 'hook'],
  [/\b(watch|show|model|demonstrat|my turn|example)\w*\b/i, 'show'],
  [/\b(together|our turn|guided|with me)\b/i, 'together'],
  [/\b(your turn|alone|independent|practice|practise|try|on your own|have a go)\b/i, 'alone'],
  [/\b(story)\b/i, 'story'],
  [/\b(game|play)\b/i, 'game'],
  [/\b(challenge|extension|extend|stretch)\b/i, 'challenge'],
  [/\b(home|send|homework|task|follow[- ]up)\b/i, 'home task'],
  [/\b(bye|close|closing|plenary|review|end|finish)\b/i, 'close'],
  [/\b(parents?|adults?|grown-?ups?|carers?)\b/i, 'note to adults'],
]
const kindOf = (title: string): Segment['kind'] => kindWords.find(([w]) => w.test(title))?.[1] ?? 'show'

/** Whether a line reads like a heading: short, no full stop, numbered or ending in a colon, or all capitals. */
function headingIn(line: string, afterBlank: boolean): string | null {
  const hash = line.match(/^#{1,6}\s+(.*)$/)
  if (hash) return hash[1]!
  const numbered = line.match(/^(?:\d+[.)]|[A-Z][.)]|Part \d+:?)\s+([^.!?]{2,60}):?$/)
  if (numbered && !isHandLine(numbered[1]!)) return numbered[1]!
  const colon = line.match(/^([A-Z][^.!?:]{2,50}):$/)
  if (colon) return colon[1]!
  if (/^[A-Z][A-Z0-9 &'’-]{3,50}$/.test(line)) return line[0]! + line.slice(1).toLowerCase()
  // A few words on a line of their own after a gap, saying nothing to do: "Main part", "Song (2 min)".
  const few =
    afterBlank &&
    line.length <= 40 &&
    line.split(/\s+/).length <= 5 &&
    /^\p{Lu}/u.test(line) &&
    !/[.!?,;]$/.test(line)
  return few &&
    !isHandLine(line) &&
    !readCount(line) &&
    !/^(count|clap|tap|knock|wait|pause|stop|write|ask|say|sing)\b/i.test(line)
    ? line
    : null
}

/** A line of notes as the steps it most likely means; an empty list when nothing sensible can be made of it. */
function stepsIn(line: string): Omit<Step, 'id'>[] {
  const text = line.trim()
  const spoken =
    text.match(/^(?:t|teacher|me|say)\s*[:–-]\s*(.+)$/i)?.[1] ?? text.match(/^[“"](.+)[”"]$/)?.[1]
  if (spoken !== undefined)
    return spoken.includes('?') ? [{ verb: 'ask', text: spoken }] : [{ verb: 'say', text: spoken }]
  const child = text.match(/^(?:c|ch|child|children|answer)\s*[:–-]\s*(.+)$/i)?.[1]
  if (child !== undefined) return [{ verb: 'reveal', text: child }]
  const wait = text.match(
    /^[([]?\s*(?:wait|thinking time|think time|pause)\b[^0-9]*(\d+\s*(?:s|sec|seconds?|min|minutes?))\s*[)\]]?$/i,
  )
  if (wait && (readSeconds(wait[1]!) ?? 0) <= 60)
    return [{ verb: 'wait', text: `${readSeconds(wait[1]!)} s` }]
  if (/^[([]?\s*(?:pause|stop) (?:the |your )?(?:film|video|here)\b/i.test(text)) {
    const rest = text
      .replace(
        /^[([]?\s*(?:pause|stop) (?:the |your )?(?:film|video|here)\b[\s,:.–-]*(?:and|to|while you)?\s*/i,
        '',
      )
      .replace(/[)\]]$/, '')
    return [{ verb: 'pause', text: capital(rest) || 'Do it now, then press play.' }]
  }
  const claps = readClaps(text)
  if (claps && text.length < 60 && /^(clap|tap|knock|drum|stamp|ring)/i.test(text))
    return [{ verb: 'sound', text }]
  if (
    /^count\b/i.test(text) &&
    readCount(
      text.replace(/^count( on| back)?( together)?/i, (_, on: string | undefined) => (on ? on.trim() : '')),
    )
  ) {
    return [{ verb: 'count', text: text.replace(/^count\s*/i, '').replace(/[.]$/, '') }]
  }
  const [whole] = sentencesIn(text)
  if (whole && /[=]/.test(text) && text.replace(/[\d\s+\-−–=_.□]/g, '') === '')
    return [{ verb: 'write', text: text.replace(/[.]$/, '') }]
  const written = text.match(/^write\s*:?\s*(.+)$/i)
  if (written) return [{ verb: 'write', text: written[1]!.replace(/[.]$/, '') }]
  if (isHandLine(text)) return [{ verb: 'do', text: text.replace(/[.]$/, '') }]
  const asks = text.match(/^(?:ask|question)\s*:?\s*(.+)$/i)
  if (asks) return [{ verb: 'ask', text: asks[1]! }]
  // Sentences one by one: questions are asked, the rest is said.
  const parts =
    text
      .match(/[^.!?]+[.!?]+["”]?|[^.!?]+$/g)
      ?.map((p) => p.trim())
      .filter(Boolean) ?? []
  const wordy = text.split(/\s+/).length >= 4 || /[.!?]$/.test(text)
  if (!wordy) return []
  const out: Omit<Step, 'id'>[] = []
  for (const part of parts) {
    const verb = part.endsWith('?') ? 'ask' : isHandLine(part) ? 'do' : 'say'
    const last = out.at(-1)
    if (last && last.verb === 'say' && verb === 'say')
      out[out.length - 1] = { verb: 'say', text: `${last.text} ${part}` }
    else out.push({ verb, text: verb === 'do' ? part.replace(/[.]$/, '') : part })
  }
  return out.filter((s) => s.text.length <= 600)
}

/**
 * Makes a lesson from notes as a teacher keeps them: headings become segments, lines become steps, questions get a
 * wait. Nothing is lost: lines that could not be placed come back with their number and the reason.
 */
export function fromPlainText(text: string, newId: () => string, wait = 5): MarkdownReading {
  const unplaced: Unplaced[] = []
  const lesson: Lesson = {
    format: 'awlbox-lesson',
    version: 1,
    title: '',
    ideaId: 'count-10',
    age: 4,
    aim: aimOf({ structure: 'add', upTo: 10 }),
    examples: [],
    kit: [],
    segments: [],
    story: defaultStory,
    words: [],
    arc: 'show-together-alone',
  }
  let segment: Segment | null = null
  const open = (title: string): Segment => {
    const kind = kindOf(title)
    const made: Segment = {
      id: newId(),
      title: title.slice(0, 120),
      kind,
      audience: kind === 'note to adults' ? 'adults' : 'children',
      steps: [],
    }
    lesson.segments.push(made)
    return made
  }
  const lines = text.split(/\r?\n/)
  lines.forEach((raw, i) => {
    const line = raw.replace(/^\s*(?:[-*•·‣◦]|\[ ?\])\s+/, '').trim()
    if (!line) return
    if (/^[|+][-|+ ]*$|^\|/.test(line))
      return void unplaced.push({ line: i + 1, text: line, why: 'it is a row of a table' })
    const age = line.match(/^(?:ages?|for ages?)\s*:?\s*(\d)/i)
    if (age && Number(age[1]) >= 3 && Number(age[1]) <= 7) return void (lesson.age = Number(age[1]))
    const needs = line.match(
      /^(?:you(?:.ll| will)? need|things needed|resources|materials|equipment)\s*:?\s+(.+)$/i,
    )
    if (needs && (line.includes(':') || !segment)) {
      // Of "frogs or pebbles" the one the table knows is listed.
      const items = kitIn(needs[1]!).map((k) => ({
        ...k,
        thing: thingNamed(k.thing)
          ? k.thing
          : (k.thing
              .split(/\bor\b/)
              .map((x) => x.trim().replace(/^(a|an|some)\s+/, ''))
              .find((x) => thingNamed(x)) ?? k.thing),
      }))
      lesson.kit = [...lesson.kit, ...items].slice(0, 20)
      const odd = items.filter((k) => !thingNamed(k.thing))
      if (odd.length)
        unplaced.push({
          line: i + 1,
          text: odd.map((k) => k.thing).join(', '),
          why: 'on the list, but not a thing the table knows',
        })
      return
    }
    const heading = headingIn(line, i > 0 && !lines[i - 1]!.trim())
    if (heading && !lesson.title && !segment) return void (lesson.title = heading.slice(0, 120))
    if (heading) return void (segment = open(heading))
    if (!lesson.title && !segment && line.length <= 80 && !/[.!?]$/.test(line))
      return void (lesson.title = line)
    const steps = stepsIn(line)
    if (!steps.length)
      return void unplaced.push({ line: i + 1, text: line, why: 'too short to tell what it is' })
    segment ??= open('Beginning')
    for (const step of steps) {
      if (segment.steps.length >= 199) {
        unplaced.push({ line: i + 1, text: step.text, why: 'its segment is full: part it in two' })
        continue
      }
      segment.steps.push({ id: newId(), ...step })
    }
  })
  for (const s of lesson.segments)
    s.steps = s.steps.flatMap((x, i) =>
      x.verb === 'ask' &&
      s.audience === 'children' &&
      !['wait', 'pause', 'count', 'do'].includes(s.steps[i + 1]?.verb ?? '')
        ? [x, { id: newId(), verb: 'wait' as const, text: `${wait} s` }]
        : [x],
    )
  if (!lesson.title) lesson.title = 'Lesson from notes'
  return { lesson: Lesson.parse(lesson), unplaced }
}

/** Whether a text is one of our Markdown lessons rather than somebody's notes. */
export const looksLikeMarkdown = (text: string): boolean =>
  /^(?:[-*]\s+)?(?:Say|Ask|Wait|Do|Count|Write|Reveal|Pause|Sound)\s*:/m.test(text) && /^##\s/m.test(text)
