import type { ScriptCode } from '../../findings/codes.ts'
import { at, type LineRule } from './finding.ts'

const risks: readonly (readonly [RegExp, ScriptCode])[] = [
  [
    /\b(stand|climb|get up|hop|jump) (on|onto|off|from) (a |the |your )?(chair|table|sofa|bed|stool)/i,
    'caution-height',
  ],
  [/\b(magnets?|button cells?|button batter(y|ies))\b/i, 'caution-never'],
  [/\b(glass (jar|bowl|bottle|plate)s?|marbles?)\b/i, 'caution-breakable'],
  [/\b(grapes?|nuts?|raisins?|sweets?|popcorn|cherry tomatoes|crisps)\b/i, 'caution-food'],
  [/\b(scissors|pins?|needles?|string|knife|knives)\b/i, 'caution-sharp'],
  [
    /\b(jump|hop|run|skip) (around|up and down|about|across the room|on one leg)\b|\b(throw|kick|bounce) (the|a|your) ball\b/i,
    'caution-space',
  ],
  [/\b(hot (tea|coffee|drink|water|chocolate)|candles?|plug leads?|extension lead)\b/i, 'caution-hot'],
  [/\b(flashing|strobe|flicker)\b/i, 'caution-flash'],
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
    .map(([, code]) => at(m, code, code === 'caution-space' ? { case: 'game' } : {}))
  if (
    (m.step.verb === 'count' || m.step.verb === 'do') &&
    /\b(jump\w*|hopping|stamp\w*)\b/i.test(m.step.text) &&
    /\bwith a (jump|hop)|jumping|hopping/i.test(m.step.text) &&
    !seated
  )
    found.push(at(m, 'caution-space', { case: 'counting' }))
  if (m.step.verb === 'say' || m.step.verb === 'ask' || m.step.verb === 'pause') {
    const word = m.step.text.match(expires)
    if (word) found.push(at(m, 'expires', { word: word[0] }))
    const who = m.step.text.match(identifies)
    if (who) found.push(at(m, 'identifies', { word: who[0] }))
  }
  if (
    m.step.task?.kind === 'photo' &&
    !/\b(face|faces|hands only|just the (things|table))\b/i.test(m.step.text)
  )
    found.push(
      at(
        m,
        'photo-faces',
        {},
        {
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
