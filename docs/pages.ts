import fs from 'node:fs'
import path from 'node:path'
import { openApi } from '@awlbox/core/contracts/api/open-api'
import { lessonSchema } from '@awlbox/core/contracts/lesson-schema'
import { severities, type Severity } from '@awlbox/core/contracts/finding'
import { cutCodes, filmCodes, scriptCodes, takeCodes } from '@awlbox/core/findings/codes'
import { en } from '@awlbox/core/findings/words/en'

const meaning = {
  wrong: 'Something said, shown or asked is not so. Mend it before filming.',
  risky: 'It can go wrong for a child or a home. Look at it.',
  tidy: 'House style, order and economy.',
  info: 'Nothing went wrong.',
} as const satisfies Record<Severity, string>

const table = (
  codes: Readonly<Record<string, Severity | readonly Severity[]>>,
  words: Readonly<Record<string, { when: string }>>,
): string[] => [
  '| Code | Severity | When |',
  '|---|---|---|',
  ...Object.entries(codes).map(
    ([code, of]) => `| \`${code}\` | ${[of].flat().join(', ')} | ${words[code]!.when} |`,
  ),
]

/** docs/findings.md, from the catalogue of codes. */
export function findingsPage(): string {
  return `${[
    '# Findings',
    '',
    'Made from `core/findings/` by `node --import tsx docs/write-docs.ts`. A finding is a code, parameters and a place; its words are in `core/findings/words/en.ts`, and another language is a file beside it. Codes keep their meaning.',
    '',
    ...severities.map((s) => `- **${s}**: ${meaning[s]}`),
    '',
    '## Of a script',
    '',
    'A step marked *on purpose* is left alone by the rules about what is said and counted. A lesson with nothing wrong gives nothing.',
    '',
    ...table(scriptCodes, en.script),
    '',
    '## Of a take',
    '',
    ...table(takeCodes, en.take),
    '',
    '## Of a cut',
    '',
    'Beside these, what is left of the takes is heard again and gives findings of a take.',
    '',
    ...table(cutCodes, en.cut),
    '',
    '## Of a finished film',
    '',
    ...table(filmCodes, en.film),
  ].join('\n')}\n`
}
/** docs/openapi.json: every call of the API with what it takes and gives, from its contract. */
export const apiFile = (): string => `${JSON.stringify(openApi(), null, 1)}\n`
/** docs/awlbox-lesson.schema.json, the same document that /api/formats/lesson.schema.json gives. */
export const schemaFile = (): string => `${JSON.stringify(lessonSchema(), null, 2)}\n`

/** docs/core.md: what each folder of core offers, from its own words. */
export function coreIndex(): string {
  const root = path.resolve(import.meta.dirname, '../core')
  const files = fs
    .readdirSync(root, { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.ts') && !f.endsWith('.test.ts') && !f.includes('node_modules'))
    .sort()
  const folders = [...new Set(files.map((f) => path.dirname(f)))].sort()
  const sections = folders.flatMap((folder) => {
    const rows = files
      .filter((f) => path.dirname(f) === folder)
      .flatMap((f) =>
        offered(path.join(root, f)).map(
          ({ name, words }) => `| \`${path.basename(f)}\` | \`${name}\` | ${words} |`,
        ),
      )
    return rows.length
      ? ['', `## core/${folder === '.' ? '' : folder}`, '', '| File | Offers | |', '|---|---|---|', ...rows]
      : []
  })
  return `${['# What core offers', '', 'Made from the sources by `node --import tsx docs/write-docs.ts`: functions and constants with the first sentence said of them.', ...sections].join('\n')}\n`
}
/** Functions and constants a file exports, with the first sentence of their comment. */
function offered(file: string): { name: string; words: string }[] {
  const text = fs.readFileSync(file, 'utf8')
  const pattern = /(?:\/\*\*((?:(?!\*\/)[\s\S])*)\*\/\n)?export (?:async )?(?:function|const) (\w+)/g
  return [...text.matchAll(pattern)].map((m) => {
    const words = (m[1] ?? '').replace(/\s*\*\s?/g, ' ').trim()
    const first = /^.*?[.:](?=\s|$)/.exec(words)?.[0] ?? words
    return { name: m[2]!, words: first.replaceAll('|', '\\|').replaceAll('<', '&lt;') }
  })
}
