import { assertNever } from '../contracts/assert-never.ts'
import { type Face, hasWhole, type MatKind } from './table/state.ts'

export interface Spot {
  mat: MatKind
  /** As a script names it: −1 the whole of a part-whole or bar, 0 the first part, shelf or plate. */
  region: number
}
/** What a hand did on the drawing. */
export type Gesture =
  | { type: 'put'; at: Spot; count: number; face: Face }
  | { type: 'take'; at: Spot; count: number }
  | { type: 'move'; from: Spot; to: Spot; count: number }
  | { type: 'turn' | 'cross'; at: Spot; count: number }
  | { type: 'cover' | 'uncover'; at: Spot }
  | { type: 'hop'; from: number; to: number }
  | { type: 'mark'; number: number; square: boolean }
  | { type: 'lay'; mat: MatKind; parts: number }
  /** Something laid out whole, as one line says it. */
  | { type: 'ready'; line: string }

/** What is laid out with what belongs on it: its name, and the line that does it. */
export const readyLines: readonly (readonly [name: string, line: string])[] = [
  ['two rings', 'Lay out two rings'],
  ['number line to 20', 'Lay out a number line 0 to 20'],
  ['empty line to 100', 'Lay out an empty line 0 to 100'],
  ['number cards', 'Show the cards 0, 1, 2, 3, 4, 5'],
  ['tens and ones', 'Put 2 tens and 4 ones on the table'],
  ['a number in pairs', 'Put 5 on the pair plate'],
  ['tally marks', 'Draw tally marks for 5'],
]
/** Names of mats as a do line lays them out. */
export const layWords: Readonly<Partial<Record<MatKind, string>>> = {
  frame: 'a ten frame',
  row: 'a row',
  table: 'the open table',
  shelves: 'two shelves',
  plates: 'plates',
  parts: 'a part-whole',
  bar: 'a bar',
  jar: 'a jar',
  line: 'a number line 0 to 10',
  square: 'a hundred square',
  dots: 'a dot card',
  pairs: 'a pair plate',
  rail: 'a rail',
  tower: 'a tower',
  hands: 'hands',
  coins: 'coins',
  skittles: 'skittles',
  dice: 'a die',
  spinner: 'a spinner with 1, 2, 3',
  bowl: 'a bowl with digits 0 to 9',
  scene: 'a picture: 3 letters, 2 birds and no cats',
}
const parted: Readonly<Partial<Record<MatKind, string>>> = { parts: 'parts', bar: 'parts', plates: 'plates' }

/** How a place is called in a do line. */
export function spotWords({ mat, region }: Spot): string {
  const mats: Partial<Record<MatKind, string>> = {
    frame: 'the frame',
    row: 'the row',
    table: 'the open table',
    jar: 'the jar',
    pairs: 'the pair plate',
    rail: 'the rail',
    tower: 'the tower',
    coins: 'the coins',
    skittles: 'the skittles',
  }
  if (hasWhole(mat))
    return `${region === -1 ? 'the whole' : `part ${region + 1}`}${mat === 'bar' ? ' of the bar' : ''}`
  switch (mat) {
    case 'shelves':
      return region === 1 ? 'the bottom shelf' : 'the top shelf'
    case 'plates':
      return `plate ${region + 1}`
    case 'dots':
      return `the ${region === 1 ? 'right' : 'left'} square of the dot card`
    case 'hands':
      return `the ${region === 1 ? 'right' : 'left'} hand`
    default:
      return mats[mat] ?? `the ${mat}`
  }
}

/** The do line a gesture means; the table reads it back as just that. */
export function gestureText(g: Gesture): string {
  switch (g.type) {
    case 'put':
      return `Put ${g.count}${g.face === 'saffron' ? '' : ` ${g.face}`} ${hasWhole(g.at.mat) || g.at.mat === 'jar' ? 'in' : 'on'} ${spotWords(g.at)}`
    case 'take':
      return `Take ${g.count} from ${spotWords(g.at)}`
    case 'move':
      return `Move ${g.count} from ${spotWords(g.from)} to ${spotWords(g.to)}`
    case 'turn':
      return `Turn over ${g.count} on ${spotWords(g.at)}`
    case 'cross':
      return g.at.mat === 'skittles' ? `Knock down ${g.count}` : `Cross out ${g.count} on ${spotWords(g.at)}`
    case 'cover':
      return `Cover ${spotWords(g.at)}`
    case 'uncover':
      return `Uncover ${spotWords(g.at)}`
    case 'hop':
      return `Hop from ${g.from} to ${g.to}`
    case 'mark':
      return `Mark ${g.number} on the ${g.square ? 'square' : 'line'}`
    case 'lay':
      return `Lay out ${parted[g.mat] && g.parts > 2 ? `${g.mat === 'plates' ? '' : `${layWords[g.mat]} with `}${g.parts} ${parted[g.mat]}` : g.mat === 'frame' && g.parts > 1 ? `${g.parts === 2 ? 'two' : 'three'} ten frames` : g.mat === 'plates' ? 'two plates' : g.mat === 'dice' && g.parts > 1 ? 'two dice' : (layWords[g.mat] ?? `a ${g.mat}`)}`
    case 'ready':
      return g.line
    default:
      return assertNever(g)
  }
}

/** As many as a hand adds to one line before a second line is easier to read. */
const most = 40
/**
 * One more of the same: a second counter put in the same place makes "Put 2", not a second line. Null when the line
 * before says something else, or says it in the writer's own words.
 */
export function mergedWith(line: string, g: Gesture): string | null {
  if (!('count' in g)) return null
  for (let before = 1; before < most; before++)
    if (line.trim() === gestureText({ ...g, count: before }))
      return gestureText({ ...g, count: before + g.count })
  return null
}
