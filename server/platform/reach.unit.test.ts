import { expect, test } from 'vitest'
import { addressOn, unreachable } from './reach.ts'
import { readConfig } from './config.ts'

const at = (more: object) => ({ host: '127.0.0.1', port: 4180, origin: '', tls: null, ...more })
const tls = { cert: 'c', key: 'k' }
test.each([
  ['alone on this machine', at({}), /Only this machine/],
  ['on every address without HTTPS', at({ host: '0.0.0.0' }), /without HTTPS/],
  ['behind a proxy without HTTPS', at({ origin: 'http://awlbox.example' }), /without HTTPS/],
  ['a certificate, but for this machine alone', at({ tls }), /Only this machine/],
  ['a certificate, on every address', at({ host: '0.0.0.0', tls }), null],
  ['behind a proxy with HTTPS', at({ origin: 'https://awlbox.example' }), null],
])('%s', (_words, config, says) => {
  const words = unreachable(config).join(' ')
  if (says) expect(words).toMatch(says)
  else expect(words).toBe('')
})
test('its own address', () => {
  expect(addressOn(at({ host: '0.0.0.0', tls }))).toBe('https://127.0.0.1:4180')
  expect(addressOn(at({ host: '::1' }))).toBe('http://[::1]:4180')
})
test('a certificate without its key is said, and HTTPS makes cookies secure', () => {
  expect(() => readConfig({ AWLBOX_TLS_CERT: 'c' })).toThrow(/go together/)
  expect(readConfig({ AWLBOX_TLS_CERT: 'c', AWLBOX_TLS_KEY: 'k' })).toMatchObject({
    tls,
    secureCookies: true,
  })
  expect(readConfig({ AWLBOX_ORIGIN: 'https://a.example' }).secureCookies).toBe(true)
  expect(readConfig({}).secureCookies).toBe(false)
})
