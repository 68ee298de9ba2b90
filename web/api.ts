/** What the server says when something cannot be done (RFC 9457): words for the person, and what was kept. */
export class ProblemError extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly detail: string,
    readonly more: Record<string, unknown>,
  ) {
    super(detail)
    this.name = 'ProblemError'
  }
}
const away = new ProblemError(
  0,
  'No connection',
  'Awlbox does not answer. What you have on screen is kept here and saved when it is back.',
  {},
)

async function call<T>(method: string, path: string, body?: unknown): Promise<T> {
  let response: Response
  try {
    const form = body instanceof FormData
    response = await fetch(path, {
      method,
      headers: body !== undefined && !form ? { 'content-type': 'application/json' } : {},
      ...(body !== undefined ? { body: form ? body : JSON.stringify(body) } : {}),
    })
  } catch {
    throw away
  }
  const text = await response.text()
  if (response.ok) return (text ? JSON.parse(text) : undefined) as T
  let problem: { title?: string; detail?: string } & Record<string, unknown> = {}
  try {
    problem = JSON.parse(text) as typeof problem
  } catch {
    // Not ours: a proxy's page, say.
  }
  throw new ProblemError(
    response.status,
    problem.title ?? 'Something went wrong',
    problem.detail ?? 'What was saved before is kept; try again.',
    problem,
  )
}
export const get = <T>(path: string): Promise<T> => call<T>('GET', path)
export const send = <T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown): Promise<T> =>
  call<T>(method, path, body)
export const wordsOf = (error: unknown): string =>
  error instanceof ProblemError
    ? error.detail
    : error instanceof Error
      ? error.message
      : 'Something went wrong.'
/** Whether trying the same thing again later may work. */
export const isAway = (error: unknown): boolean =>
  error instanceof ProblemError &&
  (error.status === 0 || error.status === 502 || error.status === 503 || error.status === 504)
