import { execFileSync } from 'node:child_process'
import fs from 'node:fs'
import https from 'node:https'
import os from 'node:os'
import path from 'node:path'
import type { AddressInfo } from 'node:net'
import type { TLSSocket } from 'node:tls'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { NoCertificate, readPair, secureServer } from './tls.ts'

let dir: string
beforeEach(() => {
  dir = fs.mkdtempSync(path.join(os.tmpdir(), 'tls-'))
})
afterEach(() => fs.rmSync(dir, { recursive: true }))
const files = () => ({ cert: path.join(dir, 'cert.pem'), key: path.join(dir, 'key.pem') })
function make(name: string, into = files()): void {
  execFileSync(
    'openssl',
    [
      'req',
      '-x509',
      '-newkey',
      'ec',
      '-pkeyopt',
      'ec_paramgen_curve:prime256v1',
      '-nodes',
      '-days',
      '2',
      '-subj',
      `/CN=${name}`,
      '-keyout',
      into.key,
      '-out',
      into.cert,
    ],
    { stdio: 'ignore' },
  )
}
/** Asks once, on a connection of its own: what it says, and by which certificate. */
const ask = (port: number) =>
  new Promise<{ text: string; name: string }>((resolve, reject) => {
    https
      .get({ port, host: '127.0.0.1', rejectUnauthorized: false, agent: false }, (res) => {
        const name = String((res.socket as TLSSocket).getPeerCertificate().subject.CN)
        let text = ''
        res.on('data', (d: Buffer) => (text += d.toString()))
        res.on('end', () => resolve({ text, name }))
      })
      .on('error', reject)
  })

test('a renewed certificate is taken up without a restart; a broken one is not', async () => {
  make('first')
  const { server, renew, stop } = secureServer(files(), (_req, res) => res.end('here'))
  server.listen(0, '127.0.0.1')
  await new Promise((done) => server.once('listening', done))
  const { port } = server.address() as AddressInfo
  try {
    expect(await ask(port)).toEqual({ text: 'here', name: 'first' })
    expect(renew()).toBe(false)
    make('second')
    expect(renew()).toBe(true)
    expect((await ask(port)).name).toBe('second')
    fs.writeFileSync(files().cert, 'half a certificate')
    expect(renew()).toBe(false)
    expect((await ask(port)).name).toBe('second')
    // The key of another one: no pair.
    const other = { cert: path.join(dir, 'c2'), key: path.join(dir, 'k2') }
    make('third', other)
    fs.copyFileSync(other.cert, files().cert)
    expect(renew()).toBe(false)
    fs.copyFileSync(other.key, files().key)
    expect(renew()).toBe(true)
    expect((await ask(port)).name).toBe('third')
  } finally {
    stop()
    server.close()
  }
})
test('one that is missing or no certificate is said with its name', () => {
  expect(() => readPair(files())).toThrow(NoCertificate)
  fs.writeFileSync(files().cert, 'x')
  fs.writeFileSync(files().key, 'y')
  expect(() => readPair(files())).toThrow(/cert\.pem.*cannot be used/)
})
