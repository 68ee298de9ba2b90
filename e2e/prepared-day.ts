import type { APIRequestContext } from '@playwright/test'

/** What is filmed before the browser tests begin, once for all of them. */
const title = 'Seven parcels, filmed'
const filmed = 'Watch me first'
const like = 'Seven parcels, two pigeon-holes'
const teacher = { email: 'marnie@cobblegate.example', password: 'bobbin-parcels' }
/** Milliseconds between looks at how far the stand-in is, and how long it may take beside other programs. */
const [between, longest] = [1000, 240_000]

interface Filmed {
  id: string
  segmentId: string
}
type Call = <T>(method: 'GET' | 'POST', path: string, body?: unknown) => Promise<T>

async function filmedLesson(call: Call): Promise<Filmed | null> {
  const { lessons } = await call<{ lessons: { id: string; title: string }[] }>('GET', '/api/shelf')
  const lesson = lessons.find((l) => l.title === title)
  if (!lesson) return null
  type Doc = { segments: { id: string; title: string }[] }
  const { doc } = await call<{ doc: Doc }>('GET', `/api/lessons/${lesson.id}`)
  return { id: lesson.id, segmentId: doc.segments.find((s) => s.title === filmed)!.id }
}

/** Lets the stand-in film a segment of a lesson of its own, and waits until it is heard. */
export async function prepareDay(address: string): Promise<void> {
  let cookie = ''
  const call: Call = async <T>(method: string, path: string, body?: unknown) => {
    const r = await fetch(address + path, {
      method,
      headers: { 'content-type': 'application/json', origin: address, cookie },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    })
    if (!r.ok) throw new Error(`${method} ${path}: ${r.status} ${await r.text()}`)
    cookie = r.headers.getSetCookie()[0]?.split(';')[0] ?? cookie
    const text = await r.text()
    return (text ? JSON.parse(text) : undefined) as T
  }
  await call('POST', '/api/sign-in', teacher)
  const { lessons } = await call<{ lessons: { id: string; classId: string; title: string }[] }>(
    'GET',
    '/api/shelf',
  )
  const from = lessons.find((l) => l.title === like)!
  const { doc } = await call<{ doc: object }>('GET', `/api/lessons/${from.id}`)
  await call('POST', `/api/classes/${from.classId}/lessons`, { day: '2027-05-04', doc: { ...doc, title } })
  const { id, segmentId } = (await filmedLesson(call))!
  await call('POST', `/api/lessons/${id}/stand-in`, { segmentId, voice: 'rms' })
  const until = Date.now() + longest
  for (;;) {
    const { items } = await call<{ items: { hearing: unknown }[] }>('GET', `/api/lessons/${id}/takes`)
    if (items.some((t) => t.hearing)) return
    if (Date.now() > until) throw new Error('The stand-in has not filmed the prepared day in time')
    await new Promise((resolve) => setTimeout(resolve, between))
  }
}

/** The lesson that was filmed before the tests began, for whoever is signed in. */
export async function prepared(request: APIRequestContext): Promise<Filmed> {
  const found = await filmedLesson(
    async <T>(_: string, path: string) => (await (await request.get(path)).json()) as T,
  )
  if (!found) throw new Error('The day was not prepared')
  return found
}
