import { Aim } from '../contracts/lesson.ts'

/** An aim with everything not said at its usual value. */
export const aimOf = (said: Partial<Aim> & Pick<Aim, 'structure' | 'upTo'>): Aim =>
  Aim.parse({ count: 4, mustHave: [], noRepeatedTotal: false, ...said })
