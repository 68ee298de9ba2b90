/** A client of Awlbox like any browser: keeps its cookie, speaks JSON, turns problems into errors. */
export interface Client {
  get: <T>(path: string) => Promise<T>
  send: <T>(method: 'POST' | 'PUT' | 'DELETE', path: string, body?: unknown) => Promise<T>
  /** As it is: for protocols that speak in headers. */
  raw: (
    method: string,
    path: string,
    init: { headers: Record<string, string>; body?: Uint8Array<ArrayBuffer> },
  ) => Promise<Response>
}
export function client(address: string): Client {
  let cookie = ''
  const call = async <T>(method: string, path: string, body?: unknown): Promise<T> => {
    const form = body instanceof FormData
    const response = await fetch(address + path, {
      method,
      headers: {
        ...(cookie ? { cookie } : {}),
        ...(body !== undefined && !form ? { 'content-type': 'application/json' } : {}),
      },
      ...(body !== undefined ? { body: form ? body : JSON.stringify(body) } : {}),
    })
    const set = response.headers.getSetCookie()[0]
    if (set) cookie = set.split(';')[0]!
    const text = await response.text()
    if (!response.ok)
      throw new Error(
        `${method} ${path.replace(/home\/[^/]+/, 'home/…')}: ${response.status} ${text.slice(0, 300)}`,
      )
    return (text ? JSON.parse(text) : undefined) as T
  }
  return {
    get: (path) => call('GET', path),
    send: (method, path, body) => call(method, path, body),
    raw: (method, path, { headers, body }) =>
      fetch(address + path, {
        method,
        headers: { ...(cookie ? { cookie } : {}), ...headers },
        ...(body ? { body } : {}),
      }),
  }
}
