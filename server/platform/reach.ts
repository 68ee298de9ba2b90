import type { Request } from 'express'
import type { Config } from './config.ts'

type Reach = Pick<Config, 'host' | 'port' | 'origin' | 'tls'>
const loopback = (host: string): boolean => host === 'localhost' || host === '::1' || host.startsWith('127.')

/** The address of this machine's own Awlbox. */
export const addressOn = ({ host, port, tls }: Reach): string =>
  `${tls ? 'https' : 'http'}://${host === '0.0.0.0' || host === '::' ? '127.0.0.1' : host.includes(':') ? `[${host}]` : host}:${port}`

/** Why homes or phones could not reach it as it is set up, in words, with what to do; none where they can. */
export function unreachable(c: Reach): string[] {
  const out: string[] = []
  if (loopback(c.host) && !c.origin)
    out.push(
      'Only this machine can reach it: homes could not open their links, and phones not film. Put a proxy with HTTPS before it and say its address in AWLBOX_ORIGIN, or give it a certificate (AWLBOX_TLS_CERT, AWLBOX_TLS_KEY) and AWLBOX_HOST=0.0.0.0: docs/operating.md tells how.',
    )
  else if (!c.tls && !c.origin.startsWith('https://'))
    out.push(
      'It is reached without HTTPS: passwords and children’s work go in the open, and no phone lends its camera to such a page. Give it a certificate (AWLBOX_TLS_CERT, AWLBOX_TLS_KEY) or put a proxy with HTTPS before it: docs/operating.md tells how.',
    )
  return out
}

/** The address people use: the one that was said, else the one this request came to. */
export const hereOf = (s: { config: Pick<Config, 'origin'> }, req: Request): string =>
  s.config.origin || `${req.protocol}://${req.get('host') ?? 'localhost'}`
