import { createHash, createHmac, randomBytes } from 'node:crypto'

export const hashToken = (token: string): Buffer => createHash('sha256').update(token).digest()
export const newSessionToken = (): string => randomBytes(32).toString('base64url')

/**
 * The private link of a household: 128 bits derived from the server's secret, so that the teacher can see it again
 * while the database holds only its hash. A new version gives a new link.
 */
export function homeToken(secret: string, householdId: string, version: number): string {
  if (secret.length < 32) throw new Error('AWLBOX_SECRET must be at least 32 characters')
  return createHmac('sha256', secret)
    .update(`home ${householdId} ${version}`)
    .digest()
    .subarray(0, 16)
    .toString('base64url')
}
