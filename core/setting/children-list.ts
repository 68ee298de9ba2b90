import { looksFull } from './names.ts'
import { mostChildren } from '../contracts/api/set-up.ts'

/** One child of a list that was typed or pasted: a given name, and the name of its home. */
export interface ListedChild {
  name: string
  home: string
  /** What looks doubtful about it, in words; null where nothing does. */
  doubt: string | null
}
/** Longest name that is kept. */
const longest = 40

/** A heading of a pasted table, in the words such tables have. */
const heading = /^(name|child|children|pupil|first name|given name)s?\b/i

/**
 * Reads a list of children, one a line: a given name or nickname, and after a comma, a semicolon or a tab the name of
 * the home they share with siblings. With no home said each child has one of its own. Names that look like full ones,
 * and two of one name, are doubts: nothing is refused for being unusual.
 */
export function readChildren(text: string): ListedChild[] {
  const lines = text
    .replace(/^\uFEFF/, '')
    .split(/\r\n?|\n/)
    .map((l) => l.trim())
    .filter(Boolean)
  const rows = lines.filter((l, i) => !(i === 0 && heading.test(l)))
  const out: ListedChild[] = []
  for (const row of rows.slice(0, mostChildren)) {
    const [first = '', second = ''] = row.split(/[\t;,]/).map((c) => c.replace(/^["']|["']$/g, '').trim())
    const name = first.replace(/^\d+[.)]\s*/, '').slice(0, longest)
    if (!name) continue
    const same = out.filter((c) => c.name.toLowerCase() === name.toLowerCase()).length
    out.push({
      name,
      home: (second || `Home of ${name}${same ? ` ${same + 1}` : ''}`).slice(0, 60),
      doubt: looksFull(name)
        ? 'Looks like a full name: a given name or nickname is enough.'
        : same
          ? 'There is another child of this name: add a letter or a nickname to tell them apart.'
          : first.length > longest
            ? 'Cut off: names have up to 40 letters.'
            : null,
    })
  }
  return out
}
