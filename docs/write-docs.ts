import fs from 'node:fs'
import path from 'node:path'
import { apiFile, coreIndex, findingsPage, schemaFile } from './pages.ts'

/** Writes the pages that are made from the code: node --import tsx docs/write-docs.ts. A test keeps them in step. */
fs.writeFileSync(path.join(import.meta.dirname, 'findings.md'), findingsPage())
fs.writeFileSync(path.join(import.meta.dirname, 'awlbox-lesson.schema.json'), schemaFile())
fs.writeFileSync(path.join(import.meta.dirname, 'openapi.json'), apiFile())
fs.writeFileSync(path.join(import.meta.dirname, 'core.md'), coreIndex())
