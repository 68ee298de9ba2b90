import { ladder } from '../../plan/ladder/ladder.ts'
import type { Device } from '../../contracts/chance.ts'
import {
  Aim,
  arcs,
  type Example,
  factKinds,
  Lesson,
  structures,
  type Wish,
  wishes,
} from '../../contracts/lesson.ts'
import { aimOfIdea } from '../../plan/aim.ts'
import { ideaById } from '../../plan/ladder/ladder.ts'
import { exampleSentence } from '../../plan/numbers/facts.ts'

/** The lines before the first segment of a lesson in Markdown: what it is for, in words that read back exactly. */
export function frontLines(lesson: Lesson): string[] {
  const { aim, story } = lesson
  const said: string[] = [aim.structure, `up to ${aim.upTo}`, `${aim.count} examples`]
  if (aim.least) said.push(`from ${aim.least}`)
  if (aim.only !== 'any') said.push(`only ${aim.only}`)
  for (const wish of aim.mustHave) said.push(`with ${wish}`)
  if (aim.noRepeatedTotal) said.push('no total twice')
  if (aim.mostThings) said.push(`at most ${aim.mostThings} things`)
  if (aim.among !== 2) said.push(`among ${aim.among}`)
  const out = [`Idea: ${lesson.ideaId}`, `Age: ${lesson.age}`, `Aim: ${said.join(', ')}`]
  if (aim.device.kind !== 'none') out.push(`Device: ${deviceText(aim.device)}`)
  if (lesson.examples.length)
    out.push(
      `Examples: ${lesson.examples.map((e) => `${exampleText(e)}${e.locked ? ' (kept)' : ''}`).join('; ')}`,
    )
  if (lesson.kit.length) out.push(`Needs: ${lesson.kit.map((k) => `${k.count} ${k.thing}`).join(', ')}`)
  if (lesson.leftOut?.length) out.push(`Left out: ${lesson.leftOut.join(', ')}`)
  if (lesson.arc !== 'show-together-alone') out.push(`Arc: ${lesson.arc}`)
  out.push(`Story: ${[story.who, story.thing, story.things, story.place].join(' | ')}`)
  for (const w of lesson.words) out.push(`Word: ${w.word} | ${w.gesture}`)
  return out
}
/** Signs read back whatever stands between them; a fact that is not true to its own rule keeps its total. */
const exampleText = (e: Example): string =>
  e.op === '+' || e.op === '-' ? exampleSentence(e) : `${e.a} ${e.op} ${e.b} = ${e.total}`

const deviceText = (d: Device): string => {
  switch (d.kind) {
    case 'none':
      return 'none'
    case 'dice':
      return `dice ${d.faces.join(' ')} x${d.dice}`
    case 'cards':
      return `cards ${d.numbers.join(' ')} x${d.draws}${d.back ? ' back' : ''}`
    case 'spinner':
      return `spinner ${d.parts.map((p) => `${p.number}*${p.share}`).join(' ')} x${d.spins}`
    case 'bowl':
      return `bowl ${d.digits.join(' ')} x${d.draws}${d.back ? ' back' : ''}`
  }
}
function readDevice(text: string): unknown {
  const found = text.match(/^(dice|cards|spinner|bowl)\s+(.*?)\s+x(\d+)(\s+back)?$/)
  if (!found) return undefined
  const [, kind, list, times, back] = found
  const numbers = list!.split(/\s+/)
  switch (kind) {
    case 'dice':
      return { kind, faces: numbers.map(Number), dice: Number(times) }
    case 'cards':
      return { kind, numbers: numbers.map(Number), draws: Number(times), back: Boolean(back) }
    case 'bowl':
      return { kind, digits: numbers.map(Number), draws: Number(times), back: Boolean(back) }
    default:
      return {
        kind,
        parts: numbers.map((p) => ({ number: Number(p.split('*')[0]), share: Number(p.split('*')[1]) })),
        spins: Number(times),
      }
  }
}

function readAim(text: string): Aim | null {
  const aim: Record<string, unknown> = {
    structure: 'add',
    upTo: 10,
    count: 4,
    mustHave: [] as Wish[],
    noRepeatedTotal: false,
  }
  for (const part of text
    .split(',')
    .map((p) => p.trim().toLowerCase())
    .filter(Boolean)) {
    const n = Number(part.match(/\d+/)?.[0])
    if ((structures as readonly string[]).includes(part)) aim.structure = part
    else if (/^up to \d+$/.test(part)) aim.upTo = n
    else if (/^\d+ examples?$/.test(part)) aim.count = n
    else if (/^from \d+$/.test(part)) aim.least = n
    else if (/^at most \d+ things?$/.test(part)) aim.mostThings = n
    else if (/^among \d+$/.test(part)) aim.among = n
    else if (part.startsWith('only ') && (factKinds as readonly string[]).includes(part.slice(5)))
      aim.only = part.slice(5)
    else if (part === 'no total twice') aim.noRepeatedTotal = true
    else if (part.startsWith('with ') && (wishes as readonly string[]).includes(part.slice(5)))
      (aim.mustHave as string[]).push(part.slice(5))
    else return null
  }
  const parsed = Aim.safeParse(aim)
  return parsed.success ? parsed.data : null
}

function readExample(text: string): Example | null {
  const found = text.trim().match(/^(\d+)\s*([+\-−–÷~@#])\s*(\d+)\s*=\s*(\d+)(\s*\(kept\))?$/)
  if (!found) return null
  const op = found[2]!.replace(/[−–]/, '-') as Example['op']
  return {
    a: Number(found[1]),
    b: Number(found[3]),
    total: Number(found[4]),
    op,
    ...(found[5] ? { locked: true } : {}),
  }
}

/** Reads one line of front matter into the lesson; false when it is none, or says something that cannot be. */
export function readFront(line: string, lesson: Lesson): boolean {
  const found = line.match(
    /^(idea|age|aim|device|examples|needs|you need|things needed|left out|arc|story|word)\s*:\s*(.+)$/i,
  )
  if (!found) return false
  const value = found[2]!.trim()
  const take = (change: Partial<Lesson>): boolean => {
    const parsed = Lesson.safeParse({ ...lesson, ...change })
    if (!parsed.success) return false
    Object.assign(lesson, parsed.data)
    return true
  }
  switch (found[1]!.toLowerCase()) {
    case 'idea': {
      const idea = ideaById(value, ladder)
      // An idea says what its examples are made of, until a line of its own says otherwise.
      return take({
        ideaId: value,
        ...(idea ? { aim: aimOfIdea(idea) } : {}),
      })
    }
    case 'age':
      return take({ age: Number(value.match(/\d+/)?.[0]) })
    case 'aim': {
      const aim = readAim(value)
      return aim !== null && take({ aim: { ...aim, device: lesson.aim.device } })
    }
    case 'device': {
      const device = readDevice(value)
      return device !== undefined && take({ aim: { ...lesson.aim, device: device as Device } })
    }
    case 'examples': {
      const list = value.split(';').map(readExample)
      return list.every((e) => e !== null) && take({ examples: list })
    }
    case 'arc':
      return (arcs as readonly string[]).includes(value) && take({ arc: value as Lesson['arc'] })
    case 'story': {
      const [who, thing, things, place] = value.split('|').map((x) => x.trim())
      return take({
        story: {
          ...lesson.story,
          ...(who ? { who } : {}),
          ...(thing ? { thing } : {}),
          ...(things ? { things } : {}),
          ...(place ? { place } : {}),
        },
      })
    }
    case 'word': {
      const [word, ...gesture] = value.split('|').map((x) => x.trim())
      return take({ words: [...lesson.words, { word: word ?? '', gesture: gesture.join(' | ') }] })
    }
    case 'left out':
      return take({
        leftOut: value
          .split(/[,;]/)
          .map((x) => x.trim())
          .filter(Boolean),
      })
    default:
      return take({ kit: kitIn(value) })
  }
}
/** "10 bottle tops, an egg box and paper" as things with counts; a thing with no number is one. */
export function kitIn(text: string): Lesson['kit'] {
  return text
    .split(/,|;|\band\b(?! a pencil)/)
    .map((x) => x.trim().replace(/[.]$/, ''))
    .filter(Boolean)
    .slice(0, 20)
    .map((item) => {
      const m = item.match(/^(\d+)\s+(.*)$/)
      return m
        ? { count: Math.max(1, Math.min(200, Number(m[1]))), thing: m[2]!.slice(0, 60) }
        : { count: 1, thing: item.replace(/^(a|an|some|the)\s+/i, '').slice(0, 60) }
    })
}
