import { createHash } from 'node:crypto'
import type { Answer } from '@awlbox/core/contracts/reply'
import { seeded } from '@awlbox/core/plan/seeded'
import type { Client } from '../http.ts'
import type { Household } from './household.ts'
import { laidFrom } from './laying.ts'
import { standInPhoto } from './photo.ts'
import { type Asked, solve } from './solve.ts'

interface Child {
  id: string
  name: string
  photos: boolean
  sound: boolean
  level: string | null
}
interface HomePack {
  children: Child[]
  closed: boolean
  pack: { tasks: Asked[] }
}
/** What a home really knows and does; the teacher's side never sees it. */
export type Hidden = Pick<Household, 'ability' | 'help' | 'words' | 'seed'> &
  Partial<Household> & {
    /** Counters the photo shows; worked out from the task where nothing is said. */
    shows?: { saffron: number; blue: number } | null
  }
/** A name that is the same whenever the same is sent: a home that sends twice sends one thing. */
const nameOf = (...of: (string | number)[]): string => {
  const h = createHash('sha256').update(of.join(' ')).digest('hex')
  return `${h.slice(0, 8)}-${h.slice(8, 12)}-4${h.slice(13, 16)}-8${h.slice(17, 20)}-${h.slice(20, 32)}`
}

/** A household opens its link, does the tasks of its set and sends them back, as it is its manner to. */
export async function replyFrom(http: Client, token: string, packId: string, home: Hidden): Promise<void> {
  const page = await http.get<HomePack>(`/api/home/${token}/packs/${packId}`)
  for (const child of page.children)
    await replyOf(http, { token, packId, home, child, tasks: page.pack.tasks })
}
interface Replying {
  token: string
  packId: string
  home: Hidden
  child: Child
  tasks: readonly Asked[]
}
async function replyOf(http: Client, r: Replying): Promise<void> {
  const { token, packId, home, child } = r
  const random = seeded(home.seed)
  const offered = ['gentle', 'middle', 'stretch'].filter((s) => r.tasks.some((t) => t.sets.includes(s)))
  const chose =
    child.level || !offered.length
      ? null
      : offered[Math.min(offered.length - 1, Math.floor(home.ability * offered.length))]!
  const set = chose ?? child.level
  const answers: Answer[] = []
  if (home.manner !== 'could not')
    for (const task of r.tasks) {
      if (task.sets.length && !(set && task.sets.includes(set))) continue
      const answer =
        task.kind === 'photo' ? await shown(http, r, task) : solve(task, { belief: 'none', ...home }, random)
      if (answer) answers.push(answer)
    }
  // Its photo was on its way when the battery went: nothing more is heard.
  if (home.manner === 'half') return
  const body = {
    childId: child.id,
    key: nameOf('reply', packId, child.id, home.seed),
    answers,
    help: home.help,
    way: home.way ?? null,
    feeling: home.feeling ?? null,
    couldNot: home.manner === 'could not',
    chose,
    words: home.words,
  }
  const put = () => http.send('PUT', `/api/home/${token}/packs/${packId}/reply`, body)
  await put()
  if (home.manner === 'twice') await put()
}

/** Things as the task asks for them, or one off; laid on a kitchen table and photographed. */
async function shown(http: Client, r: Replying, task: Asked): Promise<Answer | null> {
  const { home, child, token, packId } = r
  const told = {
    taskId: task.id,
    kind: task.kind,
    text: home.words || 'We laid them out on the table.',
  } as const
  if (!child.photos || home.photo === null || home.shows === null) return told
  const random = seeded(home.seed + 5)
  const { things, laying } = laidFrom(task.prompt, random(1000) / 1000 < home.ability, random)
  const saffron = random(things + 1)
  // Who lays a frame, plates or a line as asked has no other under the things.
  const own = !home.shows && laying.as !== 'heap'
  const trouble = own && (home.photo === 'plates' || home.photo === 'thick frame') ? 'plain' : home.photo
  const jpeg = await standInPhoto({
    ...(home.shows ?? { saffron, blue: things - saffron }),
    seed: home.seed,
    orientation: ([1, 6, 8, 3] as const)[home.seed % 4]!,
    sheet: !own && home.seed % 2 === 0,
    ...(own ? { laying } : {}),
    ...(trouble ? { trouble } : {}),
  })
  const id = nameOf('photo', packId, child.id, task.id, home.seed)
  if (home.manner === 'dropped' || home.manner === 'half') {
    await inPieces(http, { token, packId, childId: child.id, id, bytes: jpeg, give: home.manner === 'half' })
    return { taskId: task.id, kind: 'photo', photoId: id }
  }
  const form = new FormData()
  form.set('id', id)
  form.set('photo', new Blob([new Uint8Array(jpeg)], { type: 'image/jpeg' }), 'table.jpg')
  await http.send('POST', `/api/home/${token}/packs/${packId}/photos`, form)
  return { taskId: task.id, kind: 'photo', photoId: id }
}

/** A photo sent in two pieces with a dropped connection between them; `give`: given up after the first. */
async function inPieces(
  http: Client,
  p: { token: string; packId: string; childId: string; id: string; bytes: Uint8Array; give: boolean },
): Promise<void> {
  const b64 = (text: string): string => Buffer.from(text).toString('base64')
  const tus = { 'tus-resumable': '1.0.0' }
  const made = await http.raw('POST', `/api/home/${p.token}/uploads`, {
    headers: {
      ...tus,
      'upload-length': String(p.bytes.length),
      'upload-metadata': `id ${b64(p.id)},packId ${b64(p.packId)},childId ${b64(p.childId)},kind ${b64('photo')}`,
    },
  })
  const at = made.headers.get('location')
  if (!at) throw new Error(`An upload was not begun: ${made.status}`)
  const path = new URL(at, 'http://here').pathname
  const piece = (from: number, to: number) =>
    http.raw('PATCH', path, {
      headers: { ...tus, 'content-type': 'application/offset+octet-stream', 'upload-offset': String(from) },
      body: new Uint8Array(p.bytes.subarray(from, to)),
    })
  const half = Math.floor(p.bytes.length / 2)
  await piece(0, half)
  if (p.give) return
  const head = await http.raw('HEAD', path, { headers: tus })
  const done = await piece(Number(head.headers.get('upload-offset')), p.bytes.length)
  if (done.status !== 204) throw new Error(`An upload did not go on: ${done.status}`)
}
