import { expect, test } from 'vitest'
import type { PackTask } from '../contracts/pack.ts'
import { sendBack } from './send-back.ts'

const photo = (prompt: string): PackTask => ({ id: 'p', prompt, spec: { kind: 'photo', things: 5 } })
const number: PackTask = { id: 'n', prompt: 'How many are left?', spec: { kind: 'number', answer: 5 } }
const missing = (tasks: PackTask[], due: string | null = '2026-12-02') =>
  sendBack(tasks, due)
    .filter((p) => !p.said)
    .map((p) => p.part)

test.each<[string, PackTask[], string[]]>([
  ['a number alone', [number], []],
  ['one photo without faces', [photo('Send one photo of the table, no faces in it.')], []],
  ['a photo, of the table only', [photo('Take a photo of only the table.')], []],
  ['photos nobody counted', [photo('Send photos of what you made, without faces.')], ['how many']],
  ['a photo that may show anybody', [photo('Send one photo of your work.')], ['picture']],
  ['nothing', [], ['what']],
])('of %s %j is missing', (_what, tasks, parts) => expect(missing(tasks)).toEqual(parts))
test('without a day it is told that one is missing', () =>
  expect(missing([number], null)).toEqual(['by when']))
