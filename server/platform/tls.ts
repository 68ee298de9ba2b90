import fs from 'node:fs'
import https from 'node:https'
import { createSecureContext } from 'node:tls'
import type { RequestListener } from 'node:http'
import { forLog, log } from './log.ts'

export interface Pair {
  cert: string
  key: string
}
/** A certificate and its key that cannot be used: said when Awlbox starts. */
export class NoCertificate extends Error {}

/** Seconds after which renewed files are taken up. */
const looksEvery = 30

/** Reads a certificate with its key. @throws NoCertificate where one cannot be read, or they do not belong together */
export function readPair(files: Pair): Pair {
  try {
    const pair = { cert: fs.readFileSync(files.cert, 'utf8'), key: fs.readFileSync(files.key, 'utf8') }
    createSecureContext(pair)
    return pair
  } catch (error) {
    throw new NoCertificate(
      `The certificate ${files.cert} with the key ${files.key} cannot be used: ${error instanceof Error ? error.message : 'unreadable'}`,
      { cause: error },
    )
  }
}
const stamp = ({ cert, key }: Pair): string =>
  [cert, key].map((f) => `${fs.statSync(f).mtimeMs} ${fs.statSync(f).size}`).join(' ')

/** A server with HTTPS that takes up renewed certificates by itself: whoever is connected notices nothing. */
export function secureServer(
  files: Pair,
  answer: RequestListener,
): { server: https.Server; renew: () => boolean; stop: () => void } {
  const server = https.createServer(readPair(files), answer)
  let known = stamp(files)
  const renew = (): boolean => {
    try {
      const now = stamp(files)
      if (now === known) return false
      server.setSecureContext(readPair(files))
      known = now
      log.info({ cert: files.cert }, 'a renewed certificate is used')
      return true
    } catch (error) {
      // Half written, or not a pair yet: the one in use stays, and it is looked at again.
      log.warn({ error: forLog(error) }, 'the renewed certificate cannot be used yet')
      return false
    }
  }
  const timer = setInterval(renew, looksEvery * 1000)
  timer.unref()
  return { server, renew, stop: () => clearInterval(timer) }
}
