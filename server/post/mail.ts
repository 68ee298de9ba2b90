import nodemailer from 'nodemailer'
import type { Config } from '../platform/config.ts'
import { forLog, log } from '../platform/log.ts'

export interface Letter {
  to: string
  subject: string
  text: string
}
/** Seconds a mail server has to take a letter: whoever waits for it sees the link at once anyway. */
const within = 10
/** Why a letter did not go: `refused` for good (its address takes none), else it may go later. */
export interface NotPosted {
  refused: boolean
  words: string
}

/** Posts a letter by the setting's own mail server. Nothing is thrown: what did not go is told. */
export async function post(
  { smtp, mailFrom }: Pick<Config, 'smtp' | 'mailFrom'>,
  letter: Letter,
): Promise<'posted' | NotPosted> {
  if (!smtp) return { refused: false, words: 'This setting has no mail server.' }
  const transport = nodemailer.createTransport(smtp, {
    connectionTimeout: within * 1000,
    greetingTimeout: within * 1000,
    socketTimeout: within * 1000,
  })
  try {
    await transport.sendMail({ from: mailFrom, ...letter })
    return 'posted'
  } catch (error) {
    log.warn({ error: forLog(error) }, 'a letter was not posted')
    const e = error as { responseCode?: number; response?: string; code?: string }
    // An answer of 5xx is the server's last word on this letter; all else may be otherwise in a while.
    return e.responseCode && e.responseCode >= 500
      ? { refused: true, words: (e.response ?? 'refused').slice(0, 200) }
      : { refused: false, words: `The mail server did not take it (${e.code ?? 'no answer'}).` }
  } finally {
    transport.close()
  }
}
