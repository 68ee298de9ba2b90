import { shading } from './senses/shading.ts'
import { assertNever } from '../../contracts/assert-never.ts'
import { numberName } from '../../plan/numbers/names.ts'
import { layWords, spotWords } from '../gesture.ts'
import { act } from '../table/machine.ts'
import { type Action, hasWhole, type Spot, type TableState, type Thing, thingsIn } from '../table/state.ts'

/** Places as a script names them: −1 the whole of a part-whole or bar, 0 the first part. */
function placeWords(at: Spot, table: TableState): string {
  const mat = table.mats.find((m) => m.kind === at.mat)
  const name = mat?.regions[at.region]?.name
  if (at.mat === 'plates' && name) return name
  if (at.mat === 'scene') return 'the picture'
  return spotWords({ mat: at.mat, region: hasWhole(at.mat) ? at.region - 1 : at.region })
}
const into = (at: Spot): string => (hasWhole(at.mat) || at.mat === 'jar' || at.mat === 'scene' ? 'in' : 'on')
const list = (words: readonly (string | number)[]): string =>
  words.length < 2 ? String(words[0] ?? '') : `${words.slice(0, -1).join(', ')} and ${words.at(-1)}`

/** Where things with these keys lie, place by place, with all that lies there in order. */
function lying(
  keys: readonly number[],
  table: TableState,
): { at: Spot; chosen: Thing[]; there: readonly Thing[] }[] {
  const wanted = new Set(keys)
  return table.mats.flatMap((m) =>
    m.regions.flatMap((r, region) => {
      const chosen = r.things.filter((t) => wanted.has(t.key))
      return chosen.length ? [{ at: { mat: m.kind, region }, chosen, there: r.things }] : []
    }),
  )
}
/** "3", "the first 3", "2 blue ones", "all 5": which of the things in a place, as the reader picks them out. */
function whichOf(chosen: readonly Thing[], there: readonly Thing[], end: 'first' | 'last'): string {
  const n = chosen.length
  const all = (things: readonly Thing[]) => things.length === n
  if (all(there) && n > 1) return `all ${n}`
  const face = chosen.every((t) => t.face === chosen[0]!.face) ? chosen[0]!.face : null
  const worth = chosen[0]!.worth
  const kin = there.filter((t) => t.face === face)
  const coloured = face !== null && kin.length < there.length
  const pool = coloured && matches(chosen, kin, end) !== null ? kin : there
  const where = matches(chosen, pool, end) ?? ''
  const colour = pool === kin && coloured ? ` ${face}` : ''
  const unit = worth === 10 && there.some((t) => t.worth !== 10) ? (n === 1 ? ' ten' : ' tens') : ''
  return `${where}${n}${colour}${unit}`
}
function matches(chosen: readonly Thing[], pool: readonly Thing[], end: 'first' | 'last'): string | null {
  const keys = chosen.map((t) => t.key).join()
  const first = pool
    .slice(0, chosen.length)
    .map((t) => t.key)
    .join()
  const last = pool
    .slice(pool.length - chosen.length)
    .map((t) => t.key)
    .join()
  if (keys === (end === 'last' ? last : first)) return ''
  if (keys === first) return 'the first '
  return keys === last ? 'the last ' : null
}

function halved(keys: readonly number[], table: TableState): string {
  const things = table.mats.flatMap(thingsIn).filter((t) => keys.includes(t.key))
  const kind = things[0]?.kind ?? 'things'
  return things.length === 1
    ? `Cut the ${kind.replace(/s$/, '')} in half`
    : `Cut ${things.length} ${kind} in half`
}
/** What hands do in one action, as a line a teacher might write; read again on the same table it means the same. */
function lineOf(a: Action, table: TableState): string {
  switch (a.type) {
    case 'lay':
      return layLine(a)
    case 'away':
      return `Put the ${a.mat === 'frame' ? 'frame' : a.mat} away`
    case 'add place':
      return `Add another ${a.mat === 'plates' ? table.mats.find((m) => m.kind === 'plates')!.regions[0]!.name.replace(/ \d+$/, '') : a.mat === 'bar' ? 'part to the bar' : 'part'}`
    case 'bring back':
      return `Bring the ${a.mat === 'frame' ? 'frame' : a.mat} back`
    case 'put': {
      if (a.kind === 'drawn tally marks') return `Draw tally marks for ${a.count}`
      if (a.kind === shading) return `Shade ${a.count} ${a.count === 1 ? 'square' : 'squares'} ${a.face}`
      const many = a.worth === 10 ? (a.count === 1 ? ' ten' : ' tens') : ''
      const kind =
        a.kind === 'counters' || a.kind === 'coins' || many || a.at.mat === 'hands' ? '' : ` ${a.kind}`
      if (a.at.mat === 'hands')
        return `Put ${a.count} ${a.count === 1 ? 'finger' : 'fingers'} on ${placeWords(a.at, table)}`
      if (a.kind === 'coins')
        return `Put ${a.count === 1 ? 'a coin' : `${a.count} coins`} worth ${a.worth} on the table`
      if (a.apart)
        return `Put a ${a.at.mat === 'tower' ? 'tower' : 'heap'} of ${a.count} ${into(a.at)} ${placeWords(a.at, table)}`
      return `Put ${a.count}${a.face === 'saffron' ? '' : ` ${a.face}`}${many}${kind}${a.at.mat === 'scene' ? ' more' : ''} ${into(a.at)} ${placeWords(a.at, table)}`
    }
    case 'take':
      return lying(a.keys, table)
        .map((l) => takeLine(l, table))
        .join('; ')
    case 'move':
      return lying(a.keys, table)
        .map(
          (l) =>
            `Move ${whichOf(l.chosen, l.there, 'last')} from ${placeWords(l.at, table)} to ${placeWords(a.at, table)}`,
        )
        .join('; ')
    case 'heap':
      return a.heaps.length < 2
        ? 'Push them together'
        : `Part them into ${list(a.heaps.map((h) => h.length))}`
    case 'swap places':
      return a.mat === 'dots'
        ? 'Turn the card round'
        : `Swap the ${a.mat === 'plates' ? 'plates' : a.mat === 'shelves' ? 'shelves' : `parts of the ${a.mat === 'bar' ? 'bar' : 'part-whole'}`} over`
    case 'turn':
      return lying(a.keys, table)
        .map(
          (l) =>
            `Turn over ${whichOf(l.chosen, l.there, 'last')} on ${placeWords(l.at, table)}${a.face === 'saffron' ? ' to saffron' : ''}`,
        )
        .join('; ')
    default:
      return markLine(a, table)
  }
}
function takeLine(
  { at, chosen, there }: { at: Spot; chosen: readonly Thing[]; there: readonly Thing[] },
  table: TableState,
): string {
  if (at.mat === 'scene') return `Take ${chosen.length} ${chosen[0]!.kind} out of the picture`
  if (at.mat === 'coins') return chosen.map((t) => `Pay with the ${t.worth}`).join('; ')
  return `Take ${whichOf(chosen, there, 'last')} from ${placeWords(at, table)}`
}
function layLine(a: Extract<Action, { type: 'lay' }>): string {
  const items = a.items.map((i) => i.text)
  switch (a.mat) {
    case 'frame':
      return a.parts > 1 ? `Lay out ${numberName(a.parts)} ten frames` : 'Lay out a ten frame'
    case 'plates':
      return `Lay out ${numberName(a.parts)} ${a.name ? `${a.name}s`.replace(/xs$/, 'xes') : 'plates'}`
    case 'parts':
    case 'bar':
      return `Lay out ${layWords[a.mat]} with ${a.parts} parts`
    case 'line':
      return `Lay out ${a.every === 0 ? 'an empty line' : 'a number line'} ${a.from} to ${a.to}${a.every === 5 ? ' in fives' : a.every === 2 ? ' in twos' : ''}`
    case 'square':
      return `Lay out a hundred square${a.from === 0 ? ' from 0' : ''}`
    case 'scene':
      return `Lay out a picture: ${list(a.items.map((i) => `${i.count === 0 ? 'no' : i.count} ${i.text}`))}`
    case 'bowl':
    case 'spinner':
      return `Lay out a ${a.mat} with ${items.join(', ')}`
    case 'skittles':
      return `Set up ${numberName(a.parts)} skittles`
    default:
      return `Lay out ${layWords[a.mat] ?? `a ${a.mat}`}`
  }
}
type Marking = Exclude<
  Action,
  {
    type:
      'lay' | 'away' | 'bring back' | 'add place' | 'put' | 'take' | 'move' | 'heap' | 'swap places' | 'turn'
  }
>
function markLine(a: Marking, table: TableState): string {
  switch (a.type) {
    case 'cover':
      return lying(a.keys, table)
        .map(
          (l) =>
            `Cover ${whichOf(
              l.chosen,
              l.there.filter((t) => !t.hidden && !t.crossed),
              'last',
            )} on ${placeWords(l.at, table)}`,
        )
        .join('; ')
    case 'cover mat':
      return `Cover the ${a.mat === 'frame' ? 'frame' : a.mat}`
    case 'uncover':
      return a.mat ? `Uncover the ${a.mat}` : 'Uncover them'
    case 'cross':
      return crossLine(a, table)
    case 'ring': {
      const m = table.mats.find((x) => x.kind === a.mat)!
      return a.from === (m.rings.at(-1)?.to ?? 0) ? `Ring ${a.to - a.from}` : `Ring the last ${a.to - a.from}`
    }
    case 'unring':
      return 'Rub out the ring'
    case 'divide':
      return a.mat === 'rail'
        ? a.at === null
          ? 'Put the pegs back'
          : `Slide ${a.at} pegs`
        : `Slide the divider to ${a.at ?? 0}`
    case 'label':
      return `Write ${a.text} in ${placeWords(a.at, table)}`
    case 'halve':
      return halved(a.keys, table)
    case 'exchange':
      return a.worth === 10 && a.count === 1 && a.keys.length === 10
        ? 'Swap ten ones for a ten'
        : a.count === 10 && a.worth === 1
          ? 'Untie one bundle of ten'
          : `Swap the ${a.count * a.worth} for ${numberName(a.count)} ${numberName(a.worth)}s`
    case 'rearrange':
      return a.mat === 'jar' ? 'Shake the jar' : 'Rearrange them'
    case 'hold':
      return `Hold ${a.number}`
    case 'rub out':
      return 'Rub it out'
    case 'clear':
      return a.at === null
        ? 'Clear the table'
        : a.at.mat === 'hands'
          ? 'Put your hands down'
          : `Clear ${a.at.region === null ? `the ${a.at.mat}` : placeWords({ mat: a.at.mat, region: a.at.region }, table)}`
    default:
      return numberLine(a)
  }
}
function crossLine(a: Extract<Action, { type: 'cross' }>, table: TableState): string {
  const skittles = table.mats.some(
    (m) => m.kind === 'skittles' && thingsIn(m).some((t) => a.keys.includes(t.key)),
  )
  if (skittles) return a.crossed ? `Knock down ${a.keys.length}` : `Stand ${a.keys.length} up again`
  if (!a.crossed) return 'Rub out the crosses'
  return lying(a.keys, table)
    .map(
      (l) =>
        `Cross out ${whichOf(
          l.chosen,
          l.there.filter((t) => !t.crossed),
          'last',
        )} on ${placeWords(l.at, table)}`,
    )
    .join('; ')
}
function numberLine(
  a: Extract<
    Marking,
    {
      type:
        | 'hop'
        | 'stand'
        | 'mark'
        | 'unmark'
        | 'unhop'
        | 'roll'
        | 'spin'
        | 'show card'
        | 'order cards'
        | 'cards back'
        | 'draw'
        | 'clap'
    }
  >,
): string {
  switch (a.type) {
    case 'hop': {
      const back = a.by < 0 ? ' back' : ''
      const from = a.from === null ? '' : ` from ${a.from}`
      const by = Math.abs(a.by)
      if (a.times === 1)
        return a.from === null ? `Hop${back} ${by}` : `Hop${back} ${by}${back ? '' : ' on'}${from}`
      return by === 1
        ? `Hop${back} ${a.times} times${from}`
        : `Make ${numberName(a.times)} hops of ${numberName(by)}${back}${from}`
    }
    case 'stand':
      return `Start at ${a.at}`
    case 'mark':
      return `${a.mat === 'square' ? `Shade ${list(a.numbers)}` : `Mark ${list(a.numbers)} on the line`}${a.face ? ` in ${a.face}` : ''}`
    case 'unmark':
      return a.numbers ? `Rub out the mark at ${list(a.numbers)}` : 'Rub out the marks'
    case 'unhop':
      return 'Rub out the hops'
    case 'roll':
      return a.faces.length ? `Roll ${list(a.faces)}` : 'Roll the die'
    case 'spin':
      return a.text === null ? 'Spin' : `Spin a ${a.text}`
    case 'show card':
      return `Show the ${a.texts.length === 1 ? 'card' : 'cards'} ${list(a.texts)}${a.up ? '' : ' face down'}`
    case 'order cards':
      return `Put the cards in order: ${list(a.texts)}`
    case 'cards back':
      return `Put the ${list(a.texts)} back`
    case 'draw':
      return a.texts.length
        ? `Draw ${list(a.texts)} from the ${a.from === 'bowl' ? 'bowl' : 'pack'}`
        : `Draw a card from the ${a.from === 'bowl' ? 'bowl' : 'pack'}`
    case 'clap':
      return `Clap ${a.count} times${a.unseen ? ', behind my back' : ''}`
    default:
      return assertNever(a)
  }
}

/** What hands do, action by action, as lines that read back to the same. */
export function sayActions(actions: readonly Action[], table: TableState): string {
  let state = table
  return actions
    .map((a) => {
      const line = lineOf(a, state)
      state = act(state, a)
      return line
    })
    .join('; ')
}
