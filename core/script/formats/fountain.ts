import { type HouseStyle } from '../../contracts/house-style.ts'
import type { Lesson, Step } from '../../contracts/lesson.ts'
import { pauseWords, readPauseSeconds, readSeconds } from '../reading.ts'

/** A line that would be taken for a heading, a note or a transition is forced to be what it is. */
const action = (text: string): string =>
  /^[.!@>~#=]|^[A-Z0-9 ]+$|^(INT|EXT|EST)\b/.test(text) ? `!${text}` : text
const spokenBy = (audience: string): string => (audience === 'adults' ? 'TEACHER (TO GROWN-UPS)' : 'TEACHER')

function lines(step: Step, who: string, style: HouseStyle): string[] {
  const text = step.text.trim()
  switch (step.verb) {
    case 'say':
      return [who, text || '…']
    case 'ask':
      return [who, '(asking)', text || '…']
    case 'reveal':
      return [who, '(telling)', text || '…']
    case 'count':
      return [who, '(counting)', text || '…']
    case 'wait':
      return [action(`Wait ${readSeconds(text) ?? style.defaultWait} seconds.`)]
    case 'do':
      return [action(text)]
    case 'write':
      return [action(`Written: ${text}`)]
    case 'sound':
      return [action(`Heard: ${text}`)]
    case 'pause':
      return [
        action(
          `The film stops (${readPauseSeconds(text) ?? style.defaultPause} seconds at home): ${pauseWords(text)}`,
        ),
      ]
  }
}

/** A lesson as a Fountain screenplay: a scene for each segment, speech as dialogue, everything else as action. */
export function toFountain(lesson: Lesson, style: HouseStyle): string {
  const head = [
    `Title: ${lesson.title}`,
    `Notes: For age ${lesson.age}. Needs ${lesson.kit.map((k) => `${k.count} ${k.thing}`).join(', ') || 'nothing'}.`,
    '',
  ]
  const body = lesson.segments.flatMap((s) => [
    '',
    `.${s.title.toUpperCase() || 'SEGMENT'} (${s.kind})`,
    '',
    ...s.steps.flatMap((x) => [
      ...lines(x, spokenBy(s.audience), style),
      ...(x.deliberate ? ['[[a mistake on purpose]]'] : []),
      '',
    ]),
  ])
  return `${[...head, ...body].join('\n').trimEnd()}\n`
}
