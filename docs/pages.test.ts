import fs from 'node:fs'
import path from 'node:path'
import { expect, test } from 'vitest'
import { apiFile, coreIndex, findingsPage, schemaFile } from './pages.ts'

const read = (name: string) => fs.readFileSync(path.join(import.meta.dirname, name), 'utf8')
test('the page of findings says what the code says', () => expect(read('findings.md')).toBe(findingsPage()))
test('the document of the API is its contract', () => expect(read('openapi.json')).toBe(apiFile()))
test('the index of core says what its files offer', () => expect(read('core.md')).toBe(coreIndex()))
test('the published schema is the contract', () =>
  expect(read('awlbox-lesson.schema.json')).toBe(schemaFile()))
