import { at, type LineRule } from './finding.ts'

const risks: readonly (readonly [RegExp, string, string])[] = [
  [
    /\b(stand|climb|get up|hop|jump) (on|onto|off|from) (a |the |your )?(chair|table|sofa|bed|stool)/i,
    'caution-height',
    'Standing on furniture: offer a way to do it on the floor.',
  ],
  [
    /\b(magnets?|button cells?|button batter(y|ies))\b/i,
    'caution-never',
    'Magnets and button cells are never counters.',
  ],
  [
    /\b(glass (jar|bowl|bottle|plate)s?|marbles?)\b/i,
    'caution-breakable',
    'Glass and marbles: offer a plastic tub and larger things.',
  ],
  [
    /\b(grapes?|nuts?|raisins?|sweets?|popcorn|cherry tomatoes|crisps)\b/i,
    'caution-food',
    'Food as counters: choking shapes, allergies and shared bowls. Follow your setting’s food policy.',
  ],
  [
    /\b(scissors|pins?|needles?|string|knife|knives)\b/i,
    'caution-sharp',
    'Scissors, pins and string want a grown-up beside the child.',
  ],
  [
    /\b(jump|hop|run|skip) (around|up and down|about|across the room|on one leg)\b|\b(throw|kick|bounce) (the|a|your) ball\b/i,
    'caution-space',
    'Moving games need clear floor: offer a seated way too.',
  ],
  [
    /\b(hot (tea|coffee|drink|water|chocolate)|candles?|plug leads?|extension lead)\b/i,
    'caution-hot',
    'Nothing hot, lit or plugged in belongs on the table you film or count at.',
  ],
  [
    /\b(flashing|strobe|flicker)\b/i,
    'caution-flash',
    'Flashing pictures can do harm: keep them out of the film.',
  ],
]
/** Words that will be wrong when they are watched later. */
export const expires =
  /\b(today|yesterday|tomorrow|tonight|this morning|this afternoon|last (week|night|time)|next (week|monday|tuesday|wednesday|thursday|friday)|(?:on|by|until) (monday|tuesday|wednesday|thursday|friday|saturday|sunday)|page \d+|this weather|outside it is (raining|snowing|sunny))\b/i
/** Words that tell where somebody can be found. */
export const identifies =
  /\b(in (class|room) [A-Z0-9]\w*|from (Class|Year) \w+|my address|our street is|[Ii] live (at|in)|phone number|surname)\b/

/** Cautions, shown where the choice is made and worded as guidance; words that expire or identify. */
export const cautions: LineRule = (m) => {
  const seated = m.segment.steps.some((s) =>
    /\b(sitting|seated|sit down|if you (cannot|can.t)|or (one|a) clap|or (clap|tap)|two fingers)\b/i.test(
      s.text,
    ),
  )
  const found = risks
    .filter(([re, code]) => re.test(m.step.text) && !(code === 'caution-space' && seated))
    .map(([, code, what]) =>
      at(m, code, 'risky', what, 'Guidance only: your setting’s policies and local rules come first.'),
    )
  if (
    (m.step.verb === 'count' || m.step.verb === 'do') &&
    /\b(jump\w*|hopping|stamp\w*)\b/i.test(m.step.text) &&
    /\bwith a (jump|hop)|jumping|hopping/i.test(m.step.text) &&
    !seated
  )
    found.push(
      at(
        m,
        'caution-space',
        'risky',
        'Jumping while counting: offer a seated way too.',
        'Guidance only: your setting’s policies and local rules come first.',
      ),
    )
  if (m.step.verb === 'say' || m.step.verb === 'ask' || m.step.verb === 'pause') {
    const word = m.step.text.match(expires)
    if (word)
      found.push(
        at(
          m,
          'expires',
          'tidy',
          `“${word[0]}” will be wrong when this is watched later.`,
          'Say it so that it holds on any day.',
        ),
      )
    const who = m.step.text.match(identifies)
    if (who)
      found.push(
        at(
          m,
          'identifies',
          'risky',
          `“${who[0]}” tells where a child or a grown-up can be found.`,
          'Names of classes, streets and people stay out of films that are sent on.',
        ),
      )
  }
  if (
    m.step.task?.kind === 'photo' &&
    !/\b(face|faces|hands only|just the (things|table))\b/i.test(m.step.text)
  )
    found.push(
      at(
        m,
        'photo-faces',
        'risky',
        'A photo is asked for without a word about faces.',
        'Say that no faces should be in it.',
        {
          label: 'Add “with no faces in it”',
          kind: 'replace',
          stepId: m.step.id,
          text: withoutFaces(m.step.text),
        },
      ),
    )
  return found
}
const withoutFaces = (text: string): string => {
  const time = text.match(/\s*\([^)]*\)\s*$/)?.[0] ?? ''
  return `${text.slice(0, text.length - time.length).replace(/[.\s]+$/, '')}, with no faces in it.${time}`
}
