import type * as contract from '@awlbox/core/contracts/api/home'
import type * as live from '@awlbox/core/contracts/api/live'
import type { Route } from '@awlbox/core/contracts/api/route'

/**
 * The contract's routes by their addresses alone. Their schemas would make this page too heavy for a phone; the
 * types hold the addresses against the contract.
 */
const by = <T extends Route>(method: T['method'], path: T['path']): T => ({ method, path }) as T

export const homePack = by<typeof contract.homePack>('GET', '/api/home/:token/packs/:packId')
export const homeKit = by<typeof contract.homeKit>('GET', '/api/home/:token/kit')
export const saveHomeKit = by<typeof contract.saveHomeKit>('PUT', '/api/home/:token/kit')
export const saveHomeLanguage = by<typeof contract.saveHomeLanguage>('PUT', '/api/home/:token/language')
export const homeConsents = by<typeof contract.homeConsents>('GET', '/api/home/:token/consents')
export const saveHomeConsent = by<typeof contract.saveHomeConsent>(
  'POST',
  '/api/home/:token/children/:childId/consents',
)
export const sendReply = by<typeof contract.sendReply>('PUT', '/api/home/:token/packs/:packId/reply')
export const takeBackReply = by<typeof contract.takeBackReply>(
  'DELETE',
  '/api/home/:token/packs/:packId/children/:childId/reply',
)
export const homeCode = by<typeof contract.homeCode>('POST', '/api/home/:token/code')
export const homeLive = by<typeof live.homeLive>('GET', '/api/home/:token/live/:liveId')
export const answerLive = by<typeof live.answerLive>('PUT', '/api/home/:token/live/:liveId/rounds/:roundId')
export const homeLiveCalendar = by<typeof live.homeLiveCalendar>(
  'GET',
  '/api/home/:token/live/:liveId/calendar.ics',
)
export const homeLiveTable = by<typeof live.homeLiveTable>('GET', '/api/home/:token/live/:liveId/table.svg')
