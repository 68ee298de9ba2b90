import { openApi } from '@awlbox/core/contracts/api/open-api'
import { lessonSchema } from '@awlbox/core/contracts/lesson-schema'
import { catalogue } from '@awlbox/core/script/proof/catalogue'
import { severities } from '@awlbox/core/script/proof/finding'

const meaning = {
  wrong: 'Something said, shown or asked is not so. Mend it before filming.',
  risky: 'It can go wrong for a child or a home. Look at it.',
  tidy: 'House style, order and economy.',
} as const

/** docs/findings.md, from the catalogue of codes. */
export function findingsPage(): string {
  return `${[
    '# Findings of the proof-reader',
    '',
    'Made from `core/script/proof/catalogue.ts` by `node --import tsx docs/write-docs.ts`. Codes keep their meaning.',
    '',
    ...severities.map((s) => `- **${s}**: ${meaning[s]}`),
    '',
    'A step marked *on purpose* is left alone by the rules about what is said and counted. A lesson with nothing wrong gives nothing.',
    '',
    '| Code | Severity | When |',
    '|---|---|---|',
    ...catalogue.map((c) => `| \`${c.code}\` | ${c.severity.join(', ')} | ${c.when} |`),
  ].join('\n')}\n`
}
/** docs/openapi.json: every call of the API with what it takes and gives, from its contract. */
export const apiFile = (): string => `${JSON.stringify(openApi(), null, 1)}\n`
/** docs/awlbox-lesson.schema.json, the same document that /api/formats/lesson.schema.json gives. */
export const schemaFile = (): string => `${JSON.stringify(lessonSchema(), null, 2)}\n`
