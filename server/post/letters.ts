import { postRulesOf, type LetterKind } from '@awlbox/core/contracts/post'
import { mayGoAt, wallClock, waitForTry } from '@awlbox/core/send/post'
import { forLog, log } from '../platform/log.ts'
import type { Db } from '../platform/db.ts'
import type { Services } from '../platform/services.ts'
import { homeToken } from '../platform/tokens.ts'
import { speakerHere } from '../send/home-language.ts'
import { homePackOf } from '../send/home-pack.ts'
import { packById } from '../send/store.ts'
import {
  addLetter,
  homesToWriteTo,
  momentsOf,
  repliedIn,
  setLetter,
  toNudge,
  withDueLetter,
  writerOf,
} from './letters-store.ts'
import { post } from './mail.ts'

type Writing = Pick<Services, 'db' | 'config' | 'secret' | 'blobs'>
const day = 86_400_000
/** Stands for a home's private link in what is kept: the link itself is put in when a letter is read or sent, as it is then. */
const linkMark = '⟨link⟩'
export const withLink = (
  s: Pick<Writing, 'secret'>,
  letter: { body: string; householdId: string; linkVersion: number },
): string => letter.body.replaceAll(linkMark, homeToken(s.secret, letter.householdId, letter.linkVersion))

/**
 * Writes to the homes of a sending: each in its language, with its facts, for its hour. Where there is no mail server
 * or no address the text waits to be copied. Gives how many letters are new; a home hears once of each thing, of words back once a reply.
 */
export async function writeToHomes(
  s: Writing,
  publicationId: string,
  kind: LetterKind,
  {
    only,
    words = '',
    replyId = null,
    origin,
    now = new Date(),
  }: { only?: readonly string[]; words?: string; replyId?: string | null; origin: string; now?: Date },
): Promise<number> {
  const sent = await packById(s.db, publicationId)
  if (!sent) return 0
  const writer = await writerOf(s.db, sent.settingId)
  const rules = postRulesOf(writer.post)
  // Not before homes see it.
  const from = sent.sentAt > now ? sent.sentAt : now
  let made = 0
  for (const home of await homesToWriteTo(s.db, sent.lessonId)) {
    if (only && !only.includes(home.householdId)) continue
    const children = await repliedIn(s.db, publicationId, home.householdId)
    if (kind === 'nudge' && children.some((c) => c.replied)) continue
    const speaker = await speakerHere(s.db, { kind: 'home', ...home }, null)
    const pack = await homePackOf(s, sent, { kind: 'home', ...home }, speaker)
    const { say } = speaker
    const values = {
      title: pack.pack.title,
      aim: pack.pack.aim,
      needs: pack.pack.needs.map((n) => n.line).join(', '),
      due: sent.due ? say('send.due', { day: speaker.day(sent.due) }) : '',
      link: `${origin}/h/${linkMark}`,
      children: children.map((c) => c.name).join(', '),
      words,
    }
    const body = `${say(`post.${kind}.body`, values)}\n\n${say('post.foot', { setting: writer.name })}`
    const posted = Boolean(s.config.smtp) && home.email !== null
    const had = new Set(
      (await momentsOf(s.db, home.householdId, new Date(now.getTime() - day))).map(
        (at) => wallClock(at, writer.timeZone).day,
      ),
    )
    const isNew = await addLetter(s.db, {
      settingId: sent.settingId,
      householdId: home.householdId,
      publicationId,
      replyId,
      kind,
      subject: say(`post.${kind}.subject`, values),
      body: body.replace(/\n{3,}/g, '\n\n'),
      language: speaker.language,
      state: posted ? 'waiting' : 'to copy',
      after: posted ? mayGoAt(from, rules, writer.timeZone, had) : from,
    })
    if (isNew) made++
  }
  return made
}

/** Posts what is due, one letter after another. Gives how many went. */
export async function deliver(s: Writing, now = new Date()): Promise<number> {
  let gone = 0
  // Bounded: what is left is looked at again in a moment.
  for (let n = 0; n < 200; n++) {
    const any = await withDueLetter(s.db, now, async (tx, letter) => {
      gone += (await deliverOne(s, tx, letter, now)) ? 1 : 0
    })
    if (!any) break
  }
  return gone
}
type Due = Parameters<Parameters<typeof withDueLetter>[2]>[1]
async function deliverOne(s: Writing, tx: Db, letter: Due, now: Date): Promise<boolean> {
  if (!letter.email) {
    await setLetter(tx, letter.id, { state: 'to copy', problem: 'This home gave no address.' })
    return false
  }
  if (letter.kind === 'nudge' && letter.publicationId) {
    const children = await repliedIn(tx, letter.publicationId, letter.householdId)
    if (!children.length || children.some((c) => c.replied)) {
      await setLetter(tx, letter.id, { state: 'not needed', problem: null })
      return false
    }
  }
  // Its hour may have become a quiet one, or another letter went today: then tomorrow.
  const had = (await momentsOf(tx, letter.householdId, new Date(now.getTime() - day)))
    .filter((at) => at < letter.after)
    .map((at) => wallClock(at, letter.timeZone).day)
  const at = mayGoAt(now, postRulesOf(letter.post), letter.timeZone, new Set(had))
  if (at > now) {
    await setLetter(tx, letter.id, { after: at })
    return false
  }
  const done = await post(s.config, {
    to: letter.email,
    subject: letter.subject,
    text: withLink(s, letter),
  })
  if (done === 'posted') {
    await setLetter(tx, letter.id, { state: 'sent', goneAt: now, tries: letter.tries + 1, problem: null })
    return true
  }
  if (done.refused) {
    await setLetter(tx, letter.id, {
      state: 'refused',
      tries: letter.tries + 1,
      problem: `The address takes no letters: ${done.words}`,
    })
    return false
  }
  const wait = waitForTry(letter.tries + 1)
  await setLetter(tx, letter.id, {
    tries: letter.tries + 1,
    problem: done.words,
    ...(wait === null ? { state: 'failed' as const } : { after: new Date(now.getTime() + wait) }),
  })
  return false
}

/** Reminds homes that sent nothing, once, where the setting wants it. */
export async function nudge(s: Writing, origin: string, now = new Date()): Promise<number> {
  let made = 0
  for (const p of await toNudge(s.db, now)) {
    const { nudgeAfter } = postRulesOf(p.post)
    if (nudgeAfter === null || now.getTime() - p.sentAt.getTime() < nudgeAfter * day) continue
    made += await writeToHomes(s, p.publicationId, 'nudge', { origin, now })
  }
  return made
}

/** What the worker does from time to time. Without an address to put into letters nothing is written by itself. */
export async function postRound(s: Writing): Promise<void> {
  try {
    if (s.config.origin) await nudge(s, s.config.origin)
    await deliver(s)
  } catch (error) {
    log.warn({ error: forLog(error) }, 'post')
  }
}

/** Says thanks for a reply, where the setting wants it. */
export async function thankFor(
  s: Writing,
  publicationId: string,
  home: { settingId: string; householdId: string },
  origin: string,
): Promise<void> {
  if (postRulesOf((await writerOf(s.db, home.settingId)).post).thanks)
    await writeToHomes(s, publicationId, 'thanks', { origin, only: [home.householdId] })
}
