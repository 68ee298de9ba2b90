/** A child as names are made from: its given name, and the home it lives in. */
export interface Named {
  id: string
  given: string
  home: string
}
const like = (name: string): string => name.normalize('NFKC').trim().toLowerCase()

/**
 * How the children of one class are shown: by their given names, and where two have one name with their home beside it,
 * then with a number. Nobody is shown as another is.
 */
export function shownNames(children: readonly Named[]): Map<string, string> {
  const out = new Map<string, string>()
  const taken = new Set<string>()
  const alike = new Map<string, Named[]>()
  for (const c of children) alike.set(like(c.given), [...(alike.get(like(c.given)) ?? []), c])
  const free = (name: string): string => {
    let [n, shown] = [2, name]
    while (taken.has(like(shown))) shown = `${name} ${n++}`
    taken.add(like(shown))
    return shown
  }
  // Names that are nobody else's first: nobody is named like them.
  for (const group of [...alike.values()].sort((a, b) => a.length - b.length))
    for (const c of group) out.set(c.id, free(group.length === 1 ? c.given : `${c.given} · ${c.home}`))
  return out
}

/** Whether a name looks like a given name with a surname: more is typed than is needed. "Mary-Ann" and "Ana B" are none. */
export const looksFull = (name: string): boolean => {
  const parts = name.trim().split(/\s+/)
  return parts.length > 1 && parts.slice(1).some((p) => p.replace(/\./g, '').length > 1)
}
