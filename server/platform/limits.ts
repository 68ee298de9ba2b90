import type { Request } from 'express'
import { RateLimiterMemory } from 'rate-limiter-flexible'
import { Problem } from './problem.ts'

/**
 * Limits that know who asks. Counted in this process: with several web processes each counts its own share.
 * A request is turned away once its key has used up its points; some cost points only where they went wrong.
 */
const minutes = (n: number): number => n * 60

const none = () => ({
  /** What one home's link may ask for in a minute: far more than a family does, far less than a program. */
  forLink: new RateLimiterMemory({ points: 240, duration: minutes(1) }),
  /** Links that lead nowhere, by address: as guessing them does. */
  wrongLinks: new RateLimiterMemory({ points: 120, duration: minutes(1) }),
  /** Wrong passwords for one account, from wherever they come: then one try every ten seconds. */
  wrongForAccount: new RateLimiterMemory({ points: 10, duration: minutes(10) }),
  slowly: new RateLimiterMemory({ points: 1, duration: 10 }),
  /** Wrong passwords from one address, for whatever accounts. Right ones of others there cost nothing. */
  wrongFromAddress: new RateLimiterMemory({ points: 100, duration: minutes(10) }),
  /** Wrong codes from one address: eight letters leave nothing to guess at this pace. */
  wrongCodes: new RateLimiterMemory({ points: 10, duration: minutes(10) }),
})
let tried = none()
/** An application begins with nobody having tried anything. */
export const nobodyTried = (): void => void (tried = none())

const spent = async (limiter: RateLimiterMemory, key: string): Promise<boolean> =>
  ((await limiter.get(key))?.remainingPoints ?? 1) <= 0
const used = (limiter: RateLimiterMemory, key: string): Promise<boolean> =>
  limiter.consume(key).then(
    () => true,
    () => false,
  )
const addressOf = (req: Request): string => req.ip ?? 'unknown'

const tooQuick = new Problem(
  429,
  'Too quick',
  'Wait a minute and try again. Your answers are kept on this phone.',
)
/** For a link that is good. @throws Problem 429 */
export async function mayAskByLink(token: string): Promise<void> {
  if (!(await used(tried.forLink, token))) throw tooQuick
}
/** For a link that leads nowhere: counted against its address. @throws Problem 429 where that has tried many. */
export async function linkWasWrong(req: Request): Promise<void> {
  if (!(await used(tried.wrongLinks, addressOf(req)))) throw tooQuick
}

const later = new Problem(429, 'Too many tries', 'Wait a little, then sign in again. Everybody else can.')
const keyOf = (email: string): string => email.trim().toLowerCase()
/** Before a password is looked at. @throws Problem 429 */
export async function maySignIn(req: Request, email: string): Promise<void> {
  if (await spent(tried.wrongFromAddress, addressOf(req))) throw later
  if ((await spent(tried.wrongForAccount, keyOf(email))) && !(await used(tried.slowly, keyOf(email))))
    throw later
}
export async function passwordWasWrong(req: Request, email: string): Promise<void> {
  await tried.wrongForAccount.penalty(keyOf(email))
  await tried.wrongFromAddress.penalty(addressOf(req))
}
export const passwordWasRight = (email: string): Promise<boolean> =>
  tried.wrongForAccount.delete(keyOf(email))

/** Before a code is looked up. @throws Problem 429 */
export async function mayTryCode(req: Request): Promise<void> {
  if (await spent(tried.wrongCodes, addressOf(req))) throw later
}
export const codeWasWrong = (req: Request): Promise<unknown> => tried.wrongCodes.penalty(addressOf(req))
