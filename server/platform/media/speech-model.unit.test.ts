import fs from 'node:fs'
import os from 'node:os'
import path from 'node:path'
import { afterAll, describe, expect, test } from 'vitest'
import { speechModel } from './speech-model.ts'

const root = fs.mkdtempSync(path.join(os.tmpdir(), 'awlbox-model-'))
afterAll(() => fs.rmSync(root, { recursive: true, force: true }))
const made = (name: string, files: readonly string[]): string => {
  const folder = path.join(root, name)
  for (const f of files) {
    fs.mkdirSync(path.dirname(path.join(folder, f)), { recursive: true })
    fs.writeFileSync(path.join(folder, f), f)
  }
  return folder
}

describe('a speech model is found', () => {
  test('with its sounds in a folder of its own, and a dictionary beside it', async () => {
    const folder = made('as-debian', [
      'some-accent/mdef',
      'some-accent/means',
      'words-some.dict',
      'some.lm.bin',
    ])
    expect(await speechModel(folder)).toMatchObject({
      acoustic: path.join(folder, 'some-accent'),
      dictionary: path.join(folder, 'words-some.dict'),
    })
  })
  test('with everything in one folder', async () => {
    const folder = made('flat', ['mdef', 'feat.params', 'other.dict'])
    expect(await speechModel(folder)).toMatchObject({
      acoustic: folder,
      dictionary: path.join(folder, 'other.dict'),
    })
  })
  test('and remembered apart from another', async () => {
    const keys = await Promise.all([
      speechModel(made('one', ['mdef', 'a.dict'])),
      speechModel(made('two', ['mdef', 'a.dict'])),
    ])
    expect(keys[0].key).not.toBe(keys[1].key)
  })
  test.each([
    ['without sounds', ['a.dict']],
    ['without a dictionary', ['x/mdef']],
  ])('not %s', async (name, files) => expect(speechModel(made(name, files))).rejects.toThrow(/No /))
})
