/** The address of a call: parameters in the path, what else is asked in the query. Throws where a parameter is missing. */
export function addressOf(path: string, asked: Readonly<Record<string, unknown>> = {}): string {
  const used = new Set<string>()
  const filled = path.replace(/:(\w+)/g, (_m, name: string) => {
    used.add(name)
    const value = asked[name]
    if (typeof value !== 'string' && typeof value !== 'number') throw new Error(`${path} needs ${name}`)
    return encodeURIComponent(String(value))
  })
  const query: string[] = []
  for (const [name, value] of Object.entries(asked))
    if (!used.has(name) && (typeof value === 'number' || (typeof value === 'string' && value !== '')))
      query.push(`${encodeURIComponent(name)}=${encodeURIComponent(value)}`)
  return query.length ? `${filled}?${query.join('&')}` : filled
}
