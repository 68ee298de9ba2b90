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

/** Posts a letter by the setting's own mail server. False where there is none, or it does not take it: nothing is lost, a link is shown besides. */
export async function post(
  { smtp, mailFrom }: Pick<Config, 'smtp' | 'mailFrom'>,
  letter: Letter,
): Promise<boolean> {
  if (!smtp) return false
  const transport = nodemailer.createTransport(smtp, {
    connectionTimeout: within * 1000,
    greetingTimeout: within * 1000,
    socketTimeout: within * 1000,
  })
  try {
    await transport.sendMail({ from: mailFrom, ...letter })
    return true
  } catch (error) {
    log.warn({ error: forLog(error) }, 'a letter was not posted')
    return false
  } finally {
    transport.close()
  }
}
