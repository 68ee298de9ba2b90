import { z } from 'zod'
import { HouseStyle } from '../house-style.ts'
import { Idea, Ladder } from '../idea.ts'
import { file, route } from './route.ts'

export const houseStyle = route({
  method: 'GET',
  path: '/api/house-style',
  summary: 'The house style of the setting.',
  response: z.object({ style: HouseStyle, mayChange: z.boolean() }),
})
export const saveHouseStyle = route({
  method: 'PUT',
  path: '/api/house-style',
  summary: 'Changes the house style; the owner’s alone.',
  body: HouseStyle,
  response: z.object({ style: HouseStyle }),
  records: { act: 'changed', words: 'Changed the house style' },
})
export const ladder = route({
  method: 'GET',
  path: '/api/ladder',
  summary: 'The setting’s ladder of ideas.',
  response: z.object({ ideas: z.array(Idea), mayChange: z.boolean() }),
})
export const saveLadder = route({
  method: 'PUT',
  path: '/api/ladder',
  summary: 'Changes the ladder; the owner’s alone.',
  body: z.object({ ideas: Ladder }),
  largest: 2_000_000,
  response: z.object({ ideas: z.array(Idea) }),
  records: { act: 'changed', words: 'Changed the ladder' },
})
export const ladderCsv = route({
  method: 'GET',
  path: '/api/ladder.csv',
  summary: 'The ladder as a table.',
  response: file('text/csv'),
  records: { act: 'exported', words: 'Exported the ladder' },
})
export const readLadderCsv = route({
  method: 'POST',
  path: '/api/ladder/csv',
  summary: 'Takes a table over as the ladder, whole or not at all; the owner’s alone.',
  body: z.object({ csv: z.string().max(500_000) }),
  largest: 1_100_000,
  response: z.object({ ideas: z.array(Idea) }),
  records: { act: 'changed', words: 'Changed the ladder' },
})
