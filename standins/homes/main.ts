import { parseArgs } from 'node:util'
import { client, type Client } from '../http.ts'
import { letTheStreetReply } from './street.ts'

/** ./awlbox homes: a street of made-up homes replies to a lesson of an Awlbox that runs, over HTTP like any home. */
const usage = `./awlbox homes [--lesson TITLE] [--homes N] [--seed S] [--at-once K] [--address URL] [--email E] [--password P] [--json]

  The homes of a lesson that was sent open their links and reply, each as its seed has it: what it knows and
  believes, on time, late, twice, cut off, not at all. Without --lesson: the newest that was sent.
  --homes N (20 to 1000): makes a class “Street” of N homes, carries the lesson into it and sends it there. For trying
  only: never at an Awlbox with real families.`

interface Shelf {
  classes: { id: string; name: string; teacherId?: string }[]
  lessons: { id: string; title: string; classId: string; facts: { sent: boolean } }[]
}
interface Sent {
  homes: { householdId: string; link: string | null }[]
  sent: { id: string }[]
}
/** What was asked for cannot be done, in words. */
class CannotWalk extends Error {}

const { values } = parseArgs({
  args: process.argv.slice(2),
  options: {
    lesson: { type: 'string' },
    homes: { type: 'string' },
    seed: { type: 'string', default: '1' },
    'at-once': { type: 'string', default: '6' },
    address: { type: 'string', default: process.env.AWLBOX_ADDRESS ?? 'http://127.0.0.1:4180' },
    email: { type: 'string', default: 'owner@cobblegate.example' },
    password: { type: 'string', default: 'bobbin-parcels' },
    json: { type: 'boolean', default: false },
    help: { type: 'boolean', short: 'h', default: false },
  },
})
const whole = (text: string | undefined, least: number, most: number, what: string): number => {
  const n = Number(text)
  if (!Number.isInteger(n) || n < least || n > most)
    throw new CannotWalk(`${what} is a whole number from ${least} to ${most}.`)
  return n
}

async function main(): Promise<void> {
  const seed = whole(values.seed, 0, 1_000_000, '--seed')
  const atOnce = whole(values['at-once'], 1, 100, '--at-once')
  const { address } = values
  const http = client(address)
  await http.send('POST', '/api/sign-in', { email: values.email, password: values.password })
  const shelf = await http.get<Shelf>('/api/shelf')
  const lesson = shelf.lessons.find((l) =>
    values.lesson
      ? l.title.toLowerCase().includes(values.lesson.toLowerCase()) || l.id === values.lesson
      : l.facts.sent,
  )
  if (!lesson)
    throw new CannotWalk(values.lesson ? `No lesson “${values.lesson}” here.` : 'No lesson was sent yet.')
  const lessonId = values.homes
    ? await streetOf(http, lesson.id, whole(values.homes, 20, 1000, '--homes'))
    : lesson.id
  const { homes, sent } = await http.get<Sent>(`/api/lessons/${lessonId}/send`)
  if (!sent[0]) throw new CannotWalk(`“${lesson.title}” was not sent yet.`)
  const links = [...new Set(homes.flatMap((h) => (h.link ? [h.link] : [])))]
  if (!links.length) throw new CannotWalk('None of its homes has an open link that this person may see.')
  let shown = 0
  const walked = await letTheStreetReply({
    address,
    tokens: links.map((l) => l.slice(3)),
    packId: sent[0].id,
    seed,
    atOnce,
    onHome: (done, of) => {
      const tenth = Math.floor((done / of) * 10)
      if (!values.json && tenth > shown) console.log(`${done} of ${of} homes`)
      shown = Math.max(shown, tenth)
    },
  })
  const took = [...walked.took].sort((a, b) => a - b)
  const p95 = Math.round(took[Math.floor(took.length * 0.95)] ?? 0)
  if (values.json) console.log(JSON.stringify({ ...walked, took: undefined, p95 }))
  else {
    const did = Object.entries(walked.by).filter(([, n]) => n > 0)
    console.log(did.map(([what, n]) => `${n} ${what}`).join(', '))
    console.log(`A home took ${p95} ms at most in 95 of 100 cases.`)
    for (const f of walked.failed.slice(0, 10)) console.log(`Home ${f.n}: ${f.why}`)
  }
  if (walked.failed.length) process.exitCode = 1
}

/** A class of so many homes with the lesson sent to it; one that was made before is used again where it is as large. */
async function streetOf(http: Client, lessonId: string, count: number): Promise<string> {
  const me = await http.get<{ people: { id: string; email: string }[] }>('/api/people')
  const teacherId = me.people.find((p) => p.email === values.email)?.id
  if (!teacherId)
    throw new CannotWalk('Only an owner can make a street: sign in as one with --email and --password.')
  const { id: classId } = await http.send<{ id: string }>('POST', '/api/classes', {
    name: `Street of ${count}, seed ${values.seed}`,
    age: 4,
    teacherId,
  })
  await http.send('POST', `/api/classes/${classId}/children`, {
    children: Array.from({ length: count }, (_, i) => ({
      given: `Child ${i + 1}`,
      home: `House ${i + 1} of ${count}.${values.seed}`,
    })),
  })
  const carried = await http.send<{ id: string }>('POST', `/api/lessons/${lessonId}/carry`, {
    classId,
    day: new Date().toISOString().slice(0, 10),
  })
  await http.send('POST', `/api/lessons/${carried.id}/publish`, { withFilm: false })
  return carried.id
}

if (values.help) console.log(usage)
else
  await main().catch((error: unknown) => {
    const refused = (error as { cause?: { code?: string } }).cause?.code === 'ECONNREFUSED'
    const words = error instanceof Error ? error.message : String(error)
    console.error(refused ? `No Awlbox answers at ${values.address}: start ./awlbox demo first.` : words)
    process.exitCode = 2
  })
