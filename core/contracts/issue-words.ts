import type { ZodError } from 'zod'

/** Names of fields as people know them; others are said as they are called. */
const fields: Readonly<Record<string, string>> = {
  doc: '',
  body: '',
  day: 'the day',
  title: 'the title',
  text: 'the text',
  name: 'the name',
  email: 'the e-mail address',
  password: 'the password',
  words: 'your words',
  answers: 'the answers',
  childId: 'the child',
  segments: 'the segments',
  steps: 'the lines',
  kit: 'the list of things',
  examples: 'the examples',
  aim: 'the aim',
  device: 'the device',
  age: 'the age',
  items: 'the spans',
  csv: 'the table',
  revision: 'the revision',
  note: 'the note',
}
type Issue = ZodError['issues'][number]
/** What is wrong with a request, for people: which part of it, and what would be right. */
export function issueInWords(issue: Issue | undefined): string {
  if (!issue) return 'This request does not fit.'
  const named = issue.path.filter((p): p is string => typeof p === 'string' && fields[p] !== '')
  const last = named.at(-1)
  const place = issue.path.findLast((p) => typeof p === 'number')
  const where = place === undefined ? '' : ` (number ${place + 1})`
  const what = `${last === undefined ? 'this' : (fields[last] ?? `“${last}”`)}${where}`
  const start = what[0]!.toUpperCase() + what.slice(1)
  switch (issue.code) {
    case 'too_big':
      return issue.origin === 'string'
        ? `${start} is too long: up to ${String(issue.maximum)} letters are kept.`
        : issue.origin === 'array'
          ? `${start}: up to ${String(issue.maximum)} are kept.`
          : `${start} is too large: up to ${String(issue.maximum)}.`
    case 'too_small':
      return issue.origin === 'string' || issue.origin === 'array'
        ? `${start} is missing.`
        : `${start} is too small: from ${String(issue.minimum)} on.`
    case 'invalid_type':
      return `${start} is missing, or is something else than it should be.`
    case 'custom':
      return `${start} ${issue.message.replace(/\.$/, '')}.`
    default:
      return `${start} is none of those that Awlbox knows.`
  }
}
