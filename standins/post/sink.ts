import type { AddressInfo } from 'node:net'
import { SMTPServer } from 'smtp-server'

export interface Posted {
  to: string[]
  /** As it came, headers and all. */
  raw: string
}
/** A mail server that keeps what it is given and passes nothing on: the stand-in for a setting's own. `refuses` turns addresses away. */
export function mailSink({
  refuses = () => false,
  port = 0,
}: { refuses?: (to: string) => boolean; port?: number } = {}): Promise<{
  url: string
  posted: Posted[]
  close: () => Promise<void>
}> {
  const posted: Posted[] = []
  const server = new SMTPServer({
    authOptional: true,
    disabledCommands: ['STARTTLS', 'AUTH'],
    onRcptTo(address, _session, done) {
      done(refuses(address.address) ? new Error('550 Nobody of this name here') : undefined)
    },
    onData(stream, session, done) {
      let raw = ''
      stream.on('data', (d: Buffer) => (raw += d.toString('utf8')))
      stream.on('end', () => {
        posted.push({ to: session.envelope.rcptTo.map((r) => r.address), raw })
        done()
      })
    },
  })
  return new Promise((resolve, reject) => {
    server.on('error', reject)
    server.listen(port, '127.0.0.1', () => {
      const at = (server.server.address() as AddressInfo).port
      resolve({
        url: `smtp://127.0.0.1:${at}`,
        posted,
        close: () => new Promise((done) => server.close(() => done())),
      })
    })
  })
}
