import fs from 'node:fs/promises'
import type { HomeLesson, HomePack } from '@awlbox/core/contracts/api/home'
import type { OtherWay } from '@awlbox/core/contracts/home-lists'
import { isStopTitle } from '@awlbox/core/cut/chapters'
import { readCaptions } from '@awlbox/core/film/desk/captions'
import { canDo } from '@awlbox/core/plan/kit'
import { cautionsFor } from '@awlbox/core/plan/things'
import { anotherWay } from '@awlbox/core/send/another-way'
import { answersOf, shownTasks } from '@awlbox/core/send/pack'
import { renderFile } from '../cut/store.ts'
import { kitOfHome } from '../plan/kit-store.ts'
import { homeMayOpen } from '../platform/access.ts'
import type { Home } from '../platform/actor.ts'
import { notFound } from '../platform/problem.ts'
import type { Given } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { agreeing, refusing } from '../setting/homes-store.ts'
import {
  childrenHere,
  homeVersions,
  packById,
  packsFor,
  replacementOf,
  repliesFrom,
  setsGiven,
} from './store.ts'
import type { Speaker } from './words.ts'

type Stored = Pick<Services, 'db' | 'blobs'>
/** What was sent, or would be. */
export type SentPack = Pick<
  NonNullable<Awaited<ReturnType<typeof packById>>>,
  | 'id'
  | 'lessonId'
  | 'pack'
  | 'sentAt'
  | 'renderId'
  | 'seconds'
  | 'bytes'
  | 'className'
  | 'classId'
  | 'due'
  | 'closes'
>

/** The lessons sent to a home, newest first. */
export async function lessonsFor(s: Pick<Services, 'db'>, home: Home): Promise<Given<HomeLesson>[]> {
  const packs = await packsFor(s.db, home.householdId)
  return packs.map((p) => ({ id: p.id, title: p.pack.title, className: p.className, sentAt: p.sentAt }))
}

/** One lesson as a home sees it. @throws Problem where it is not theirs. */
export async function packFor(
  s: Stored,
  home: Home,
  packId: string,
  speaker: Speaker,
): Promise<Given<HomePack>> {
  await homeMayOpen(s.db, home, packId)
  const p = await packById(s.db, packId)
  if (!p) throw notFound('This lesson')
  return {
    ...(await homePackOf(s, p, home, speaker)),
    replies: await repliesFrom(s.db, p.id, home.householdId),
  }
}

/** Whether a day is over, by the calendar of the server. */
export const isOver = (day: string | null): boolean =>
  day !== null && new Date().toISOString().slice(0, 10) > day

/**
 * A pack as one home sees it: in its language, with things for all of its children and what it has in their place,
 * the cautions its children need and another way for what it said of itself; without answers it is not to see.
 */
export async function homePackOf(
  s: Stored,
  p: SentPack,
  home: Home,
  speaker: Speaker,
): Promise<Given<HomePack>> {
  const children = await childrenHere(s.db, home.householdId, p.classId)
  const ids = children.map((c) => c.id)
  const [kit, noPhotos, sound, sets, film] = await Promise.all([
    kitOfHome(s.db, home.householdId),
    refusing(s.db, 'photos', ids),
    agreeing(s.db, 'sound', ids),
    setsGiven(s.db, p.lessonId, ids),
    filmOf(s, p),
  ])
  const { say, told, text } = speaker
  const { pack } = p
  const cautions = [
    ...pack.cautions,
    ...(home.youngerChild ? cautionsFor(pack.needs.map((n) => ({ thing: n.thing, count: n.count }))) : []),
  ].map(text)
  if (home.youngerChild) cautions.push(say('caution.baby'))
  const answers = answersOf(pack)
  return {
    id: p.id,
    className: p.className,
    sentAt: p.sentAt,
    due: p.due,
    closed: isOver(p.closes),
    film,
    pack: {
      title: text(pack.title),
      // In English the setting's own ladder has the word.
      aim: pack.notes?.aim && speaker.language !== 'en' ? told(pack.notes.aim) : pack.aim,
      needs: needsHere(pack, kit, children.length, speaker),
      cautions: [...new Set(cautions)],
      ways: waysHere(pack, kit, film !== null).map(told),
      adult: {
        why: pack.notes?.why ? told(pack.notes.why) : null,
        see: (pack.notes?.see ?? []).map((x) => ({ see: told(x.see), say: told(x.say) })),
        ways: (pack.notes?.ways ?? []).map(told),
        not: pack.notes?.not ? told(pack.notes.not) : null,
        note: pack.adultNote.map(text),
        answers: pack.answers === 'adults' ? answers : [],
      },
      // Who said it cannot print is told what to do instead.
      sheets:
        kit?.canPrint === false
          ? []
          : (pack.sheets ?? []).map((kind) => ({ kind, name: say(`sheet.${kind}`) })),
      answers: pack.answers === 'spoiler' ? answers : [],
      tasks: shownTasks(pack).map((t) => ({ ...t, prompt: text(t.prompt) })),
    },
    children: children.map((c) => ({
      ...c,
      photos: !noPhotos.has(c.id),
      sound: sound.has(c.id),
      level: sets.get(c.id) ?? null,
    })),
    replies: [],
  }
}

type Kit = { has: string[]; countable: number; canPrint: boolean; ways: OtherWay[] } | null
/** Each child wants its own of what is counted and laid; one die does for all. What the home has stands first in its place. */
function needsHere(
  pack: SentPack['pack'],
  kit: Kit,
  children: number,
  { say, text }: Speaker,
): { line: string; swap: string | null }[] {
  return pack.needs.map((n) => {
    const count = n.count * (n.each ? Math.max(1, children) : 1)
    const line = say('needs.item', { count, thing: text(n.thing) })
    const had = kit && !kit.has.includes(n.thing) ? swapHad(n, kit) : null
    const swap = had ?? n.swap
    return { line, swap: swap ? text(swap) : null }
  })
}
const swapHad = (n: { thing: string; count: number }, kit: NonNullable<Kit>): string | null =>
  canDo([n], { homeId: '', ...kit, underThree: false }).swaps[0]?.swap ?? null
const waysHere = (pack: SentPack['pack'], kit: Kit, hasFilm: boolean) =>
  anotherWay({
    ways: kit?.ways ?? [],
    canPrint: kit?.canPrint ?? null,
    kit: pack.needs.map(({ thing, count }) => ({ thing, count })),
    has: kit?.has ?? [],
    hasSheets: (pack.sheets ?? []).length > 0,
    hasFilm,
  })

async function filmOf(s: Stored, p: SentPack): Promise<Given<HomePack>['film']> {
  if (p.renderId === null || p.seconds === null || p.bytes === null) return null
  const [versions, replaced, chapters] = await Promise.all([
    homeVersions(s.db, p.renderId),
    replacementOf(s.db, p.id),
    renderFile(s.db, p.renderId, 'chapters'),
  ])
  const cues = chapters ? readCaptions(await fs.readFile(s.blobs.path(chapters), 'utf8')) : []
  return {
    seconds: p.seconds,
    bytes: p.bytes,
    versions,
    replaced,
    chapters: cues.map((c) => ({ start: c.start, end: c.end, title: c.text, stop: isStopTitle(c.text) })),
  }
}
