import { randomInt } from 'node:crypto'
import express, { type Request, type Response, type Router } from 'express'
import { homeLanguages } from '@awlbox/core/contracts/home-lists'
import * as api from '@awlbox/core/contracts/api/home'
import { isHomeLanguage, speech } from '@awlbox/core/send/words/words'
import { codeWasWrong, mayTryCode } from '../platform/limits.ts'
import { homeRoute } from '../platform/route.ts'
import type { Services } from '../platform/services.ts'
import { hashToken, homeToken } from '../platform/tokens.ts'
import { addCode, useCode } from './codes-store.ts'
import { speakerOf } from './words.ts'

/** Letters and figures that are not taken for one another, read or heard: no 0 O, 1 I L, 2 Z, 5 S, 8 B, and of M and N one. */
const letters = 'ACDEFGHJKMPQRTUVWXY34679'
const length = 8
const minutes = 10

const newCode = (): string => Array.from({ length }, () => letters[randomInt(letters.length)]!).join('')
/** As it is typed: small letters, gaps and hyphens are nothing. */
const plain = (typed: unknown): string =>
  typeof typed === 'string'
    ? typed
        .toUpperCase()
        .replace(/[^A-Z0-9]/g, '')
        .slice(0, 20)
    : ''
const hashed = (secret: string, code: string): Buffer => hashToken(`${secret} code ${code}`)

const page = (
  lang: string,
  direction: string,
  say: ReturnType<typeof speakerOf>['say'],
  wrong: boolean,
): string =>
  `<!doctype html><html lang="${lang}" dir="${direction}"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width, initial-scale=1"><meta name="robots" content="noindex, nofollow"><title>Awlbox</title><style>body{font:18px/1.45 system-ui,sans-serif;background:#E9EBE6;color:#14232B;margin:0}main{max-width:420px;margin:12vh auto;padding:0 16px;display:grid;gap:16px}input{font-size:30px;letter-spacing:.12em;text-align:center;text-transform:uppercase;padding:12px;border:2px solid #14232B;border-radius:10px;min-width:0}button{font-size:19px;font-weight:700;min-height:56px;border:0;border-radius:12px;background:#235F45;color:#fff}[role=alert]{color:#A93226}@media(prefers-color-scheme:dark){body{background:#10181d;color:#eef1ec}input{background:#1a252b;color:#eef1ec;border-color:#eef1ec}[role=alert]{color:#f0958b}}</style></head><body><main><form method="post" action="/code" style="display:grid;gap:16px"><label for="code">${say('code.type')}</label><input id="code" name="code" dir="ltr" autocomplete="off" autocapitalize="characters" spellcheck="false" maxlength="12" autofocus>${wrong ? `<p role="alert">${say('code.wrong')}</p>` : ''}<button>${say('code.open')}</button></form></main></body></html>`

/** A way in from another device of a home: a code that one reads aloud and the other types. */
export function codeRoutes(router: Router, s: Services): void {
  homeRoute(router, s, api.homeCode, async ({ home }) => {
    const code = newCode()
    const until = new Date(Date.now() + minutes * 60_000)
    await addCode(s.db, { codeHash: hashed(s.secret, code), householdId: home.householdId, expiresAt: until })
    return { code, until }
  })
  const ask = (req: Request, res: Response, wrong: boolean): void => {
    const asked = req.acceptsLanguages([...homeLanguages]) || 'en'
    const language = isHomeLanguage(asked) ? asked : 'en'
    res
      .status(wrong ? 404 : 200)
      .set({ 'Cache-Control': 'no-store', 'X-Robots-Tag': 'noindex, nofollow' })
      .type('html')
      .send(page(language, speech[language].direction, speakerOf(language, new Map()).say, wrong))
  }
  router.get('/code', (req, res) => ask(req, res, false))
  router.post('/code', express.urlencoded({ extended: false, limit: '2kb' }), async (req, res) => {
    await mayTryCode(req)
    const code = plain((req.body as { code?: unknown } | undefined)?.code)
    const home = code.length === length ? await useCode(s.db, hashed(s.secret, code)) : null
    if (!home) {
      await codeWasWrong(req)
      ask(req, res, true)
      return
    }
    res.set('Cache-Control', 'no-store').redirect(303, `/h/${homeToken(s.secret, home.id, home.linkVersion)}`)
  })
}
