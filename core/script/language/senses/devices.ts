import type { Action } from '../../table/state.ts'
import type { Clause } from '../clauses.ts'
import { thingsAt } from '../pick.ts'
import { matOn } from '../spots.ts'
import { isVerbOf } from '../verbs.ts'
import { after, bare, has, isNumber, numbersSaid, says, type Sense, sensed } from './sense.ts'

const all = (c: Clause) => (c.subject ? [...c.parts, c.subject] : c.parts)
/** Numbers that are faces or digits: not the "two" of "two dice", nor "once" and "twice". */
const facesSaid = (c: Clause): number[] =>
  numbersSaid(
    c.words.filter(
      (w, i) =>
        !['once', 'twice', 'a single'].includes(w.t) &&
        !(w.n !== null && /^(dice|die|times|slips?|cards?)$/.test(c.words[i + 1]?.t ?? '')),
    ),
  )

/** "Roll 4 and 3", "Throw a one and a five", "The die rolls", "Tip two dice out of the cup: 6 and 2". */
export const roll: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'roll')) return null
  const die = all(c).find((p) => p.group.mat === 'dice')
  const dice = die ?? matOn(ground, 'dice')
  if (!['roll', 'throw', 'toss', 'cast'].includes(c.verb!) && !die) return null
  if (!dice && bare(c).some((p) => p.group.noun !== null)) return null
  if (c.subject && !die && (c.subject.group.n !== null || c.subject.group.quantity !== null)) return null
  if (matOn(ground, 'skittles') && says(c, 'ball')) return null
  if (after(c, 'out of', 'from', 'off') && !die) return null
  const faces = facesSaid(c)
  if (faces.some((f) => f > 100) || faces.length > 4) return null
  return sensed([{ type: 'roll', faces }], [...all(c)])
}
/** "Spin a 2", "Spin", "Flick the spinner until it points at 4". */
export const spin: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'spin')) return null
  const spinner = all(c).some((p) => p.group.mat === 'spinner') || matOn(ground, 'spinner')
  if (c.verb !== 'spin' && !spinner) return null
  if (all(c).some((p) => p.group.mat && p.group.mat !== 'spinner')) return null
  const n = facesSaid(c)
  return sensed([{ type: 'spin', text: n.length ? String(n.at(-1)) : null }], all(c))
}
/** "… and shows 3", "it is the 8", "and get one", "it is 2 this time": what the act before came to. */
export const outcome: Sense = (c, { before }) => {
  const last = before.at(-1)
  const numbers = facesSaid(c)
  if (!last || !numbers.length) return null
  const verbs = [
    'show',
    'get',
    'come',
    'land',
    'stop',
    'point',
    'give',
    'say',
    'read',
    'be',
    'make',
    'turn',
    'roll',
  ]
  const only = c.parts.every((p) => isNumber(p.group) || p.group.pronoun !== null)
  if (!only || (c.verb !== null && !c.elided && !verbs.includes(c.verb))) return null
  if (last.type === 'roll' && !last.faces.length)
    return { ...sensed([{ type: 'roll', faces: numbers }], all(c)), instead: true }
  if (last.type === 'spin' && last.text === null)
    return { ...sensed([{ type: 'spin', text: String(numbers[0]) }], all(c)), instead: true }
  if (last.type === 'draw' && (!last.texts.length || last.texts.join() === '?'))
    return { ...sensed([{ ...last, texts: numbers.map(String) }], all(c)), instead: true }
  return null
}

/** "Draw 3 and 7 from the bowl", "Fish the 2 out of the bowl", "Dip in twice, a 6 and then a 1", "Draw the 2 card". */
export const fish: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'fish')) return null
  const bowl = matOn(ground, 'bowl') ?? all(c).find((p) => p.group.mat === 'bowl')
  const pack = c.parts.find((p) => p.group.noun === 'pack')
  const card = bare(c).some((p) => p.group.mat === 'cards') || says(c, 'card')
  if (!bowl && !pack && !(card && c.verb === 'draw')) return null
  const others = bare(c).filter(
    (p) =>
      p.group.noun !== null &&
      !['slip', 'digit', 'number', 'card', 'number card', 'go'].includes(p.group.noun),
  )
  if (others.length) return null
  if (
    c.parts.some(
      (p) =>
        p.prep !== null && p.group.mat && !['bowl', 'cards'].includes(p.group.mat) && p.group.mat !== 'table',
    )
  )
    return null
  const texts = numbersSaid(
    c.words.filter(
      (w, i) =>
        !['once', 'twice', 'a single'].includes(w.t) &&
        !(w.n !== null && /^(times|more|slips?|digits|cards)$/.test(c.words[i + 1]?.t ?? '')),
    ),
  ).map(String)
  // "a card" is one unknown; "the 2 card" is known.
  return sensed([{ type: 'draw', texts, back: false, from: bowl ? 'bowl' : 'cards' }], all(c))
}
/** "… and put it back", "Put the slip back where it came from", "Put the 8 back in the pack". */
export const giveBack: Sense = (c, { ground, before }) => {
  if (!isVerbOf(c.verb, 'give_back') && !['take', 'remove'].includes(c.verb ?? '')) return null
  const gone = ['take', 'remove'].includes(c.verb ?? '') && !thingsAt(ground.table, null).length
  const back = has(c, 'back') || c.verb === 'return' || gone
  const cards = matOn(ground, 'cards')
  const up = cards?.cards ?? []
  if (!back || !up.length) return null
  const into = c.parts.find((p) => p.prep !== null)
  if (into && into.group.mat && !['bowl', 'cards'].includes(into.group.mat)) return null
  const what = bare(c)[0]
  if (
    what &&
    what.group.noun !== null &&
    !['slip', 'card', 'number', 'digit', 'number card'].includes(what.group.noun)
  )
    return null
  const many =
    what?.group.quantity === 'all' || what?.group.quantity === 'both' || what?.group.pronoun === 'them'
  const drawn = before.filter((a) => a.type === 'draw').flatMap((a) => (a.type === 'draw' ? a.texts : []))
  const named = numbersSaid(bare(c).flatMap((p) => c.words.slice(p.group.from, p.group.to))).map(String)
  const texts = named.length
    ? named
    : many
      ? drawn.length
        ? drawn
        : up.map((x) => x.text)
      : [drawn.at(-1) ?? up.at(-1)!.text]
  return sensed([{ type: 'cards back', texts }], c.parts)
}

/** The numbers on the cards: those after the word, or before it in "the 7 card"; how many cards there are is none. */
function cardTexts(c: Clause): string[] {
  const card = c.parts.find((p) => p.group.mat === 'cards')?.group
  if (!card || card.n === null) return numbersSaid(c.words).map(String)
  if (card.definite) return [String(card.n), ...numbersSaid(c.words.slice(card.to)).map(String)]
  return numbersSaid(c.words.slice(card.to)).map(String)
}
/** "Show the cards 3, 5 and 8", "Place the cards 6 to 10 in a line", "Lay 3, 1 and 7 down as cards", "Show the cards "seven, 7"". */
export const layCards: Sense = (c, { ground }) => {
  if (!isVerbOf(c.verb, 'cards')) return null
  const card = c.parts.find((p) => p.group.mat === 'cards' && (p.prep === null || p.prep === 'as'))
  const words = quotedIn(c)
  if (!card && !words.length) return null
  if (has(c, 'back', 'away') || ['flip', 'turn'].includes(c.verb!)) return null
  if (
    c.verb === 'hide' ||
    (says(c, 'order') && !c.words.some((w) => w.n !== null)) ||
    after(c, 'from', 'out of')
  )
    return null
  const texts = words.length ? words : cardTexts(c)
  if (!texts.length) return null
  const down = says(c, 'face down') || (says(c, 'face', 'faces') && says(c, 'down'))
  const there = matOn(ground, 'cards')?.cards ?? []
  const turned =
    texts.every((t) => there.some((x) => x.text === t)) &&
    there.length > 0 &&
    (down || there.some((x) => !x.up))
  return sensed([{ type: 'show card', texts: texts.slice(0, 21), up: !down || (turned && !down) }], c.parts)
}
/** Words on cards stand in quotation marks; the reader keeps them on the clause. */
const quotedIn = (c: Clause): string[] => c.quoted?.slice() ?? []

/** "Flip the 9 over", "Turn both cards face down", "Hide all the cards on their faces", "Flip both up again". */
/** "Fill the bowl again", "Refill the bowl": all slips that were drawn go back. */
export const refill: Sense = (c, { ground }) => {
  const bowl = c.parts.find((p) => p.group.mat === 'bowl')
  const again = c.words.some((w) => w.t === 'again') || has(c, 'up', 'back') || c.verb === 'refill'
  if (!bowl || !again || !['fill', 'refill'].includes(c.verb ?? '') || c.parts.length > 1) return null
  const out = matOn(ground, 'cards')?.cards.map((x) => x.text) ?? []
  return matOn(ground, 'bowl') && out.length ? sensed([{ type: 'cards back', texts: out }], c.parts) : null
}
export const turnCards: Sense = (c, { ground }) => {
  const cards = matOn(ground, 'cards')?.cards ?? []
  if (
    !['turn', 'flip', 'hide', 'show', 'lay', 'put', 'cover', 'reveal', 'uncover'].includes(c.verb ?? '') ||
    !cards.length
  )
    return null
  const what = bare(c)[0]
  if (!what) return null
  const g = what.group
  const named =
    g.mat === 'cards' ||
    isNumber(g) ||
    ((g.quantity === 'both' || g.quantity === 'all' || g.pronoun !== null) && g.noun === null)
  const things = thingsAt(ground.table, null).length
  if (!named || (things && g.mat !== 'cards' && !isNumber(g))) return null
  // "Cover 3" where three things lie is said of things; "Cover the 3" of the card.
  if (g.mat !== 'cards' && !g.definite && g.n !== null && things >= g.n) return null
  if (['show', 'lay', 'put'].includes(c.verb!) && !says(c, 'face', 'faces', 'over', 'face down', 'face up'))
    return null
  const numbers = numbersSaid(c.words).map(String)
  const texts = numbers.length ? numbers : cards.map((x) => x.text)
  if (texts.some((t) => !cards.some((x) => x.text === t)))
    return numbers.length && g.mat === 'cards'
      ? sensed([{ type: 'show card', texts, up: !says(c, 'down', 'face down') }], c.parts)
      : null
  const down =
    says(c, 'down', 'faces', 'face down') ||
    ['hide', 'cover'].includes(c.verb!) ||
    (!says(c, 'up', 'face up') && texts.every((t) => cards.some((x) => x.text === t && x.up)))
  return sensed([{ type: 'show card', texts, up: !down }], c.parts)
}
/** "Put the cards in order, smallest first", "Change the cards about so the six comes first", "Lay a 5 between them". */
export const orderCards: Sense = (c, { ground }) => {
  const cards = matOn(ground, 'cards')?.cards ?? []
  if (!cards.length || !isVerbOf(c.verb, 'order')) return null
  const texts = cards.map((x) => x.text)
  const between = after(c, 'between')
  const numbers = numbersSaid(c.words).map(String)
  if (between && numbers.length === 1 && texts.length >= 2 && !between.group.mat) {
    const n = Number(numbers[0])
    const at =
      texts.length === 2
        ? 1
        : Math.max(
            1,
            texts.findIndex((t) => Number(t) > n),
          )
    return sensed(
      [{ type: 'order cards', texts: [...texts.slice(0, at), numbers[0]!, ...texts.slice(at)] }],
      c.parts,
    )
  }
  const uses = [...c.parts]
  const given = [...numbers].sort()
  if (says(c, 'order') && given.length >= texts.length && [...texts].sort().every((t) => given.includes(t)))
    return sensed([{ type: 'order cards', texts: numbers }], uses)
  if (says(c, 'order') || ['sort', 'order'].includes(c.verb!)) {
    const end = c.words.find((w) =>
      ['largest', 'biggest', 'highest', 'smallest', 'lowest', 'backwards'].includes(w.t),
    )?.t
    const largest = end !== undefined && !['smallest', 'lowest'].includes(end)
    const sorted = [...texts].sort((a, b) => (largest ? Number(b) - Number(a) : Number(a) - Number(b)))
    return sensed([{ type: 'order cards', texts: sorted }], uses)
  }
  const moved = bare(c).some(
    (p) =>
      p.group.mat === 'cards' ||
      isNumber(p.group) ||
      (p.group.pronoun !== null && texts.length === 2 && !thingsAt(ground.table, null).length),
  )
  if (!moved || !['change', 'swap', 'move', 'shuffle', 'put'].includes(c.verb!)) return null
  const leads = says(c, 'first', 'front', 'start') && numbers.length ? numbers.at(-1)! : null
  if (leads && texts.includes(leads))
    return sensed(
      [{ type: 'order cards', texts: [leads, ...texts.filter((t, i) => i !== texts.indexOf(leads))] }],
      uses,
    )
  if (texts.length === 2 && ['swap', 'change'].includes(c.verb!))
    return sensed([{ type: 'order cards', texts: [texts[1]!, texts[0]!] }], uses)
  return null
}

/** "Give me six claps", "Drum four times on your knees", "Stamp your feet seven times". */
export const clap: Sense = (c) => {
  if (!isVerbOf(c.verb, 'clap') || c.elided) return null
  const noun = bare(c).find((p) =>
    ['clap', 'tap', 'knock', 'beat', 'bang', 'click', 'drumbeat'].includes(p.group.noun ?? ''),
  )
  const times = c.words.findIndex((w) => w.n !== null)
  if (times < 0) return null
  const strikes = [
    'clap',
    'tap',
    'knock',
    'drum',
    'beat',
    'stamp',
    'bang',
    'click',
    'snap',
    'pat',
    'stomp',
  ].includes(c.verb!)
  if (
    !noun &&
    !(
      strikes &&
      (c.words[times + 1]?.t === 'times' ||
        ['once', 'twice'].includes(c.words[times]!.t) ||
        c.words.length === 2)
    )
  )
    return null
  if (strikes && has(c, 'down', 'over')) return null
  const count = c.words[times]!.n!
  const unseen = c.parts.some((p) => p.prep !== null && ['behind', 'under'].includes(p.prep))
  return count > 30 ? null : sensed([{ type: 'clap', count, unseen } satisfies Action], c.parts)
}
