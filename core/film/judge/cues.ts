import type { HeardFinding, HeardWord } from '../../contracts/heard.ts'
import { hearing, round } from './limits.ts'

/** What a viewer stops: the film under any of its names, or whoever speaks in it. */
const shown = new Set(
  'video film recording clip screen lesson me it this us here now tape player picture'.split(' '),
)
const filmNames = new Set('video film recording clip screen lesson tape player'.split(' '))
const isDeterminer = (w: string | undefined): boolean =>
  /^(a|an|the|that|this|another|your|our|my|his|her|its|no|each|every|short|little|long|quick|dramatic|tiny|big|wee|first|next|good|brief)$/.test(
    w ?? '',
  )
const presses = /^(press|hit|tap|click|push)$/
/** "Press play when you are back", not "push play people along". */
const afterPlay = /^(button|when|once|again|to|and|if|after|as|on|now|then|for|so|before)$/
/** Seconds within which two cues are one, and within which "press play" still belongs to the pause before it. */
const [together, playAfter] = [6, 20]

/** The words from the last full stop or silence up to word i. */
function clauseBefore(words: readonly HeardWord[], i: number): string[] {
  let from = i
  while (
    from > 0 &&
    words[from]!.start - words[from - 1]!.end < 0.7 &&
    !/[.!?;:]/.test(words[from - 1]!.mark ?? '')
  )
    from--
  return words.slice(from, i).map((w) => w.word)
}
function clauseAfter(words: readonly HeardWord[], i: number, most: number): string[] {
  const out: string[] = []
  for (let k = i + 1; k < words.length && out.length < most; k++) {
    if (/[.!?;:]/.test(words[k - 1]!.mark ?? '') || words[k]!.start - words[k - 1]!.end > 1.2) break
    out.push(words[k]!.word)
  }
  return out
}
/** "Don't pause", "no need to pause", "without pausing", but not "why don't you pause" and "don't forget to pause". */
function denied(before: readonly string[]): boolean {
  const said = before.slice(-6).join(' ')
  if (/\b(forget|afraid|shy|hesitate) to$/.test(said)) return false
  if (/\bwhy (don't|not)( you| we)?( all| just| both)?$/.test(said)) return false
  return /\b(don't|do not|didn't|did not|not|never|needn't|won't|shouldn't|can't|cannot|couldn't|no need|without|instead of|rather than)( you| we| i| need| have| want| going| even| ever| be| to| just| really| yet| ever)*$/.test(
    said,
  )
}
/** "When you pause", "after we pause", "I will pause", "did you pause": told of, not asked for. */
const toldOf = (before: readonly string[]): boolean =>
  /\b((when|whenever|after|before|while|once|until|as|if) (you|we|i|they|he|she)( ever)?|(did|does|has) (you|we|i|they|he|she|it)|(i|he|she|they|it)( will| would| can| could| might| always| often| just| usually)*|i'll|i'm going to|i am going to|i'd|he'll|she'll|they'll|everyone|everybody|who|that|to see whether we)$/.test(
    before.slice(-5).join(' '),
  )
/** What stands before "press" or "hit" (the) …, where that is what leads up to the word; null where nothing is pressed. */
function pressed(before: readonly string[]): readonly string[] | null {
  const at = before.findLastIndex((w) => !isDeterminer(w))
  return at >= 0 && presses.test(before[at]!) ? before.slice(0, at) : null
}
const asksForOne =
  /\b(have|take|make|do|need|want|give yourself|give yourselves|time for|it's time for)( a| an| another| your| our| the)?( short| little| long| quick| tiny| big| wee| brief| nice)*$/

/** What a cue is judged by: the word's own clause before it, and the few words after it. */
interface Around {
  before: readonly string[]
  last: string | undefined
  after: readonly string[]
}
const asks: Readonly<Record<string, (a: Around) => boolean>> = {
  pause: ({ before, last }) => {
    const button = pressed(before)
    if (button) return !denied(button)
    if (!isDeterminer(last)) return !denied(before) && !toldOf(before)
    const verb = before.findLastIndex((w) => /^(have|take|make|do|need|want|give|time)$/.test(w))
    return asksForOne.test(before.slice(-5).join(' ')) && !denied(before.slice(0, verb))
  },
  pausing: ({ before, last, after }) =>
    after.some((w) => filmNames.has(w) || w === 'me') &&
    !denied(before) &&
    !/^(after|while|when|before|was|were|am|is|be|been|keep|keeps)$/.test(last ?? ''),
  stop: (a) =>
    stopped(a) || (!isDeterminer(a.last) && stopsHere(a.after) && !denied(a.before) && !toldOf(a.before)),
  freeze: (a) => stopped(a),
  hold: ({ before, last }) =>
    last === 'on' && before.includes('put') && before.slice(-5, -1).some((w) => shown.has(w)),
}
const stopsHere = (after: readonly string[]): boolean =>
  after[0] === 'here' && /^(until|and|while|to|for|now)$/.test(after[1] ?? 'now')
/** "Stop the film", "freeze the screen", "stop me", "press stop". */
function stopped({ before, last, after }: Around): boolean {
  const button = pressed(before)
  if (button) return !denied(button)
  const film = after.slice(0, 3).some((w) => filmNames.has(w)) || after[0] === 'me'
  return film && !isDeterminer(last) && !denied(before) && !toldOf(before)
}
/** Whether word i tells viewers to stop the film. */
function tellsToPause(words: readonly HeardWord[], i: number): boolean {
  const before = clauseBefore(words, i)
  return asks[words[i]!.word]?.({ before, last: before.at(-1), after: clauseAfter(words, i, 4) }) ?? false
}

/**
 * Places where viewers are told to stop the film, as plain information: "pause the video", "have a pause", "stop the film",
 * or only "press play when you are ready". What is denied, or said about an earlier pause, is none.
 */
export function pauseCues(words: readonly HeardWord[]): HeardFinding[] {
  const out: HeardFinding[] = []
  words.forEach((w, i) => {
    const last = out.at(-1)
    const next = clauseAfter(words, i, 1)[0] ?? 'now'
    const button = w.word === 'play' && afterPlay.test(next) ? pressed(clauseBefore(words, i)) : null
    const since = last ? w.start - last.start : Infinity
    const cue = button ? since > playAfter && !denied(button) : since >= together && tellsToPause(words, i)
    if (!cue) return
    const end = words[Math.min(words.length - 1, i + 3)]!.end
    out.push({
      code: 'pause-cue',
      start: w.start,
      end,
      stepId: null,
      expected: '',
      heard: words
        .slice(i, i + 4)
        .map((x) => x.word)
        .join(' '),
      certain: true,
      params: {},
    })
  })
  return out
}

const askers =
  /^(what|how|which|who|where|when|why|can|could|do|does|did|is|are|will|would|shall|has|have|should)$/
/** Silences left after a question, as plain information: how long children were given. */
export function waitsIn(words: readonly HeardWord[]): HeardFinding[] {
  return words.slice(1).flatMap((w, k): HeardFinding[] => {
    const from = words[k]!.end
    const gap = w.start - from
    if (gap < hearing.waitTold || !asksBefore(words, k)) return []
    return [
      {
        code: 'wait',
        start: from,
        end: w.start,
        stepId: null,
        expected: '',
        heard: `${round(gap)} s`,
        certain: true,
        params: { left: round(gap) },
      },
    ]
  })
}
/** Whether the last thing said up to word k is a question, or an invitation to think. */
function asksBefore(words: readonly HeardWord[], k: number): boolean {
  if (words[k]!.mark?.includes('?')) return true
  let from = k
  while (
    from > 0 &&
    k - from < 14 &&
    words[from]!.start - words[from - 1]!.end < 0.6 &&
    !/[.!]/.test(words[from - 1]!.mark ?? '')
  )
    from--
  const line = words.slice(from, k + 1).map((w) => w.word)
  return (
    line.some((w, i) => askers.test(w) && (i === 0 || line.length - i >= 3)) ||
    /\b(have a (think|go|try)|think about|your turn|show me|count (with|along))\b/.test(line.join(' '))
  )
}
